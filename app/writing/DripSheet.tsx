import { Box, chakra, Flex } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import {
  type Account,
  type Drip,
  type Hue,
  type Piece,
  type Post,
  openFlagsOf,
  standsInTheWay,
} from '../../core/model'
import { measure, network, URL_PATTERN } from '../../core/networks'
import { addDays, beatCount, daysBetween, toWall } from '../../core/planning'
import { endDrip, hold, lift, approve, useRow, useAccounts, useRows } from '../data'
import { useWork } from '../shell'
import {
  attempt,
  Button,
  count,
  Drop,
  Empty,
  moment,
  Mono,
  NetworkMark,
  Notice,
  Page,
  PageHead,
  say,
  shortDay,
  useKeys,
  weekdayName,
} from '../ui'
import { PostSheet } from './PostSheet'

/** The drip sheet: beats along the days against a pipe, accounts in columns, a post in every cell. */
export function DripSheet() {
  const { id = '' } = useParams()
  const { brand } = useWork()
  const drip = useRow('drips', id)
  const posts = useRows('posts', 'drip', id)
  const piece = useRow('pieces', drip?.piece ?? null)
  const accounts = useAccounts(brand.id)
  const pipeline = useRow('pipelines', drip?.pipeline ?? null)
  const passages = useRows('passages', 'piece', drip?.piece ?? null)
  if (drip === null)
    return (
      <Page>
        <Box px="6">
          <Empty title="This drip is no longer here">It may have been undone.</Empty>
        </Box>
      </Page>
    )
  if (!drip || !posts || !piece || !accounts) return <Page>{null}</Page>
  const columns = drip.accounts.flatMap((a) => accounts.find((x) => x.id === a) ?? [])
  return (
    <Sheet
      drip={drip}
      posts={posts}
      piece={piece}
      columns={columns}
      hue={pipeline?.hue ?? null}
      pipelineName={pipeline?.name ?? null}
      kept={passages?.filter((p) => p.choice === 'kept').length ?? 0}
    />
  )
}

interface SheetProps {
  drip: Drip
  posts: Post[]
  piece: Piece
  columns: Account[]
  hue: Hue | null
  pipelineName: string | null
  kept: number
}

function Sheet({ drip, posts, piece, columns, hue, pipelineName, kept }: SheetProps) {
  const { brand } = useWork()
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const [editing, setEditing] = useState(false)
  const wanted = params.get('post')
  const chosen = posts.find((p) => p.id === wanted) ?? null
  const choose = (post: Post | undefined | null): void => {
    setEditing(false)
    setParams(post ? { post: post.id } : {}, { replace: true, flushSync: true })
  }
  const cell = (beat: number, column: number): Post | undefined =>
    posts.find((p) => p.beat === beat && p.account === columns[column]?.id)
  const move = (down: number, right: number): void => {
    if (!chosen) {
      choose(posts.length ? (cell(0, 0) ?? posts[0]) : null)
      return
    }
    let beat = chosen.beat
    let column = columns.findIndex((c) => c.id === chosen.account)
    for (let tries = 0; tries < 60; tries++) {
      beat += down
      column += right
      if (beat < 0 || beat >= drip.days.length || column < 0 || column >= columns.length) return
      const next = cell(beat, column)
      if (next) {
        choose(next)
        return
      }
    }
  }
  useKeys({
    ArrowDown: () => move(1, 0),
    ArrowUp: () => move(-1, 0),
    ArrowRight: () => move(0, 1),
    ArrowLeft: () => move(0, -1),
    j: () => move(1, 0),
    k: () => move(-1, 0),
    Escape: () => (editing ? setEditing(false) : choose(null)),
    Enter: () => chosen && setEditing(true),
  })
  const live = posts.filter((p) => p.state !== 'set aside')
  const flagged = live.filter((p) => p.state === 'for review' && standsInTheWay(p))
  const ready = live.filter((p) => (p.state === 'for review' || p.state === 'draft') && !standsInTheWay(p))
  const what = {
    table: 'drips' as const,
    id: drip.id,
    brand: drip.brand,
    name: `the drip of “${piece.title}”`,
  }
  const unplaced = live.filter((p) => p.at === null && p.state !== 'published')
  return (
    <Page
      side={
        chosen ? (
          <PostSheet
            key={chosen.id}
            post={chosen}
            piece={piece}
            account={columns.find((c) => c.id === chosen.account)}
            day={drip.days[chosen.beat] ?? 0}
            hue={hue}
            editing={editing}
            onEdit={setEditing}
            onClose={() => choose(null)}
          />
        ) : undefined
      }
    >
      <PageHead
        reading
        title={<Link to={`/intake/${piece.id}`}>{piece.title}</Link>}
        note={
          <>
            {count(piece.words, 'word')} · <b>{drip.rhythm.name}</b>, {count(beatCount(drip.rhythm), 'beat')}{' '}
            over {count(drip.days[drip.days.length - 1] ?? 0, 'day')} · {pipelineName ?? 'begun by hand'}
          </>
        }
      >
        <Mono>
          {count(live.length, 'post')}
          {flagged.length > 0 && (
            <>
              {' · '}
              <chakra.b color="clayText">{flagged.length} flagged</chakra.b>
            </>
          )}
        </Mono>
        <Button onClick={() => void navigate(`/intake/${piece.id}`)}>
          Passages {kept} of {drip.days.length}
        </Button>
        <Button onClick={() => void attempt(() => (drip.held ? lift(what) : hold(what)))}>
          {drip.held ? 'Lift' : 'Hold'}
        </Button>
        <EndDrip id={drip.id} />
        <Button
          look="water"
          disabled={ready.length === 0}
          onClick={() =>
            void attempt(async () => {
              const { approved, moved, left } = await approve(live.map((p) => p.id))
              say(
                `${count(approved, 'caption was', 'captions were')} approved.${moved ? ` ${count(moved, 'post', 'posts')} had lost their time and were placed anew.` : ''}${left[0] ? ` ${left.length} left: ${left[0].why}` : ''}`,
              )
            })
          }
        >
          {ready.length ? `Approve ${ready.length} unflagged` : 'All unflagged are approved'}
        </Button>
      </PageHead>
      {drip.held && (
        <Notice tone="clay">
          This drip is held since {moment(drip.held.since, brand.zone)}; nothing of it goes out until you lift
          it.
        </Notice>
      )}
      {unplaced.length > 0 && (
        <Notice
          tone="amber"
          action={<Button onClick={() => void navigate('/dispatch/accounts')}>Slots</Button>}
        >
          {count(unplaced.length, 'post has', 'posts have')} no place:{' '}
          {unplaced[0]?.reasons[0]?.message ?? ''}
        </Notice>
      )}
      <Grid drip={drip} posts={posts} columns={columns} hue={hue} chosen={chosen} onChoose={choose} />
    </Page>
  )
}

function EndDrip({ id }: { id: string }) {
  const [sure, setSure] = useState(false)
  if (!sure)
    return (
      <Button look="quiet" onClick={() => setSure(true)}>
        End
      </Button>
    )
  return (
    <Button
      look="clay"
      onBlur={() => setSure(false)}
      autoFocus
      onClick={() => void attempt(() => endDrip(id)).then(() => setSure(false))}
    >
      Set the rest aside?
    </Button>
  )
}

function Grid({
  drip,
  posts,
  columns,
  hue,
  chosen,
  onChoose,
}: {
  drip: Drip
  posts: Post[]
  columns: Account[]
  hue: Hue | null
  chosen: Post | null
  onChoose: (post: Post) => void
}) {
  const places = `104px repeat(${columns.length}, minmax(232px, 440px))`
  return (
    <Box role="grid" aria-label="The drip, beat by beat" minW={`${104 + columns.length * 232}px`}>
      <Box
        role="row"
        display="grid"
        gridTemplateColumns={places}
        borderTopWidth="1px"
        borderBottomWidth="1px"
        borderColor="hairline"
        position="sticky"
        top="0"
        bg="paper"
        zIndex="1"
      >
        <Box role="columnheader" srOnly>
          Day
        </Box>
        <Box />
        {columns.map((a) => (
          <Flex
            role="columnheader"
            key={a.id}
            align="center"
            gap="2"
            px="3"
            h="36px"
            borderLeftWidth="1px"
            borderColor="hairline"
            minW="0"
          >
            <NetworkMark id={a.network} />
            <Box fontWeight="600" truncate>
              @{a.handle}
            </Box>
            <Box color="soft" fontSize="13px" truncate>
              {network(a.network).name}
            </Box>
          </Flex>
        ))}
      </Box>
      {drip.days.map((day, beat) => {
        const gap = (drip.days[beat + 1] ?? day) - day
        return (
          <Box role="row" key={beat} display="grid" gridTemplateColumns={places} minH="112px">
            <Box role="rowheader" position="relative" pt="5" pr="12">
              <Box fontFamily="mono" fontWeight="600" fontSize="12px" textAlign="right">
                day {day}
              </Box>
              <Box fontFamily="mono" fontSize="11px" color="soft" textAlign="right">
                {shortDay(addDays(drip.startDay, day))}
              </Box>
              <Box
                aria-hidden
                position="absolute"
                right="28px"
                top={beat === 0 ? '26px' : 0}
                bottom={beat === drip.days.length - 1 ? 'calc(100% - 30px)' : 0}
                w="5px"
                bg="water"
              />
              <Box
                aria-hidden
                position="absolute"
                right="21px"
                top="22px"
                w="19px"
                h="16px"
                borderWidth="2px"
                borderColor="water"
                bg="raised"
                borderRadius="sm"
              />
              {gap > 0 && (
                <Box
                  position="absolute"
                  right="2px"
                  bottom="4px"
                  fontFamily="mono"
                  fontSize="10px"
                  color="soft"
                  bg="paper"
                >
                  {gap} d
                </Box>
              )}
            </Box>
            {columns.map((account) => {
              const post = posts.find((p) => p.beat === beat && p.account === account.id)
              const missing = drip.missing.find((m) => m.beat === beat && m.account === account.id)
              return post ? (
                <Cell
                  key={account.id}
                  post={post}
                  zone={account.zone}
                  hue={hue}
                  chosen={post.id === chosen?.id}
                  onChoose={() => onChoose(post)}
                />
              ) : (
                <Box
                  role="gridcell"
                  key={account.id}
                  borderLeftWidth="1px"
                  borderBottomWidth="1px"
                  borderColor="hairline"
                  p="3"
                  color="soft"
                  fontSize="13px"
                  fontStyle="italic"
                >
                  {missing?.message ?? 'No post here.'}
                </Box>
              )
            })}
          </Box>
        )
      })}
    </Box>
  )
}

function Cell({
  post,
  zone,
  hue,
  chosen,
  onChoose,
}: {
  post: Post
  zone: string
  hue: Hue | null
  chosen: boolean
  onChoose: () => void
}) {
  const box = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    if (chosen) box.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }, [chosen])
  const profile = network(post.network)
  const length = measure(post.wording.text, profile.text)
  const block = post.checks.find((c) => c.severity === 'block')
  const flag =
    post.state === 'for review' || post.state === 'draft' ? (block ?? openFlagsOf(post)[0]) : undefined
  const trouble = post.failure ?? post.held?.reason ?? flag?.message
  return (
    <Box
      role="gridcell"
      aria-selected={chosen}
      borderLeftWidth="1px"
      borderBottomWidth="1px"
      borderColor="hairline"
    >
      <chakra.button
        ref={box}
        type="button"
        data-post={post.id}
        onClick={onChoose}
        display="flex"
        flexDirection="column"
        alignItems="stretch"
        justifyContent="flex-start"
        w="full"
        h="full"
        textAlign="left"
        px="3"
        py="2"
        cursor="pointer"
        bg={chosen ? 'raised' : undefined}
        boxShadow={chosen ? 'inset 0 0 0 2px var(--chakra-colors-water)' : undefined}
        _hover={{ bg: 'raised' }}
        opacity={post.state === 'set aside' ? 0.5 : 1}
      >
        <Flex align="center" gap="2" fontFamily="mono" fontSize="12px" color="soft">
          <Drop state={post.state} picture={post.media !== null} hue={hue} size={22} />
          <Box truncate>{post.wording.angle}</Box>
          <Box flex="1" whiteSpace="nowrap">
            · {post.state === 'set aside' ? 'set aside' : cellTime(post, zone)}
          </Box>
          <Measure length={length} limit={profile.text.limit} />
        </Flex>
        <Box
          fontFamily="reading"
          fontSize="14px"
          lineHeight="1.4"
          mt="1"
          lineClamp={trouble ? 2 : 3}
          color={post.state === 'published' ? 'soft' : 'ink'}
        >
          {post.wording.text.replace(URL_PATTERN, '↗')}
        </Box>
        {trouble && (
          <Box
            mt="1"
            px="1.5"
            borderRadius="sm"
            bg="clayTint"
            color="clayOnTint"
            fontSize="12px"
            lineClamp={1}
          >
            <b>!</b> {trouble}
          </Box>
        )}
      </chakra.button>
    </Box>
  )
}

/** "Fri 08:12", with the days it stands away from its wish. */
function cellTime(post: Post, zone: string): string {
  const at = post.publishedAt ?? post.at
  if (at === null) return 'no place'
  const wall = toWall(Date.parse(at), zone)
  const moved = daysBetween(toWall(Date.parse(post.wished), zone).date, wall.date)
  return `${weekdayName(wall.weekday)} ${wall.time}${moved ? ` ${moved > 0 ? '+' : '−'}${Math.abs(moved)} d` : ''}`
}

/** A caption's length against its network's limit. */
function Measure({ length, limit }: { length: number; limit: number | null }) {
  if (limit === null) return <>{length}</>
  return (
    <Flex align="center" gap="1.5" title={`${length} of ${limit} characters`}>
      <Box w="24px" h="4px" bg="hairline" borderRadius="full">
        <Box
          h="4px"
          borderRadius="full"
          bg={length > limit ? 'plum' : 'water'}
          w={`${Math.min(100, (length / limit) * 100)}%`}
        />
      </Box>
      {length}
    </Flex>
  )
}
