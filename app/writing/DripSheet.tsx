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
import {
  anotherAngle,
  endDrip,
  hold,
  lift,
  approve,
  replaceIn,
  setAside,
  useRow,
  useAccounts,
  useRows,
} from '../data'
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
  TextField,
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

function Sheet({ drip, posts, piece, columns: all, hue, pipelineName, kept }: SheetProps) {
  const { brand } = useWork()
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const [editing, setEditing] = useState(false)
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set())
  const [hidden, setHidden] = useState<ReadonlySet<string>>(new Set())
  const wanted = params.get('post')
  const chosen = posts.find((p) => p.id === wanted) ?? null
  const choose = (post: Post | undefined | null): void => {
    setEditing(false)
    setParams(post ? { post: post.id } : {}, { replace: true, flushSync: true })
  }
  const columns = all.filter((c) => !hidden.has(c.id))
  const anchor = useRef<Post | null>(null)
  const pick = (post: Post): void => {
    anchor.current = post
    setPicked((before) => {
      const next = new Set(before)
      if (!next.delete(post.id)) next.add(post.id)
      return next
    })
  }
  /** From the post picked last, or the chosen one, to another: everything in the rectangle between them. */
  const pickTo = (post: Post): void => {
    const column = (p: Post): number => columns.findIndex((c) => c.id === p.account)
    const from = anchor.current ?? chosen ?? post
    const [top, bottom] = [from.beat, post.beat].sort((a, b) => a - b)
    const [first, last] = [column(from), column(post)].sort((a, b) => a - b)
    const inside = posts.filter(
      (p) =>
        p.beat >= (top ?? 0) &&
        p.beat <= (bottom ?? 0) &&
        column(p) >= (first ?? 0) &&
        column(p) <= (last ?? 0),
    )
    setPicked((before) => new Set([...before, ...inside.map((p) => p.id)]))
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
    Escape: () => (editing ? setEditing(false) : picked.size ? setPicked(new Set()) : choose(null)),
    Enter: () => chosen && setEditing(true),
    ' ': () => chosen && pick(chosen),
    'mod+a': () => setPicked(new Set(posts.map((p) => p.id))),
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
      {picked.size > 0 && (
        <Many posts={posts.filter((p) => picked.has(p.id))} onDone={() => setPicked(new Set())} />
      )}
      {all.length > 1 && (
        <Flex
          px="6"
          pb="2"
          gap="1.5"
          wrap="wrap"
          align="center"
          fontSize="13px"
          role="group"
          aria-label="Accounts shown"
        >
          <Box color="soft">Shown:</Box>
          {all.map((a) => (
            <chakra.button
              key={a.id}
              type="button"
              aria-pressed={!hidden.has(a.id)}
              onClick={() =>
                setHidden((before) => {
                  const next = new Set(before)
                  if (!next.delete(a.id)) next.add(a.id)
                  return next.size === all.length ? before : next
                })
              }
              px="2"
              h="6"
              borderRadius="sm"
              borderWidth="1px"
              borderColor="hairline"
              color={hidden.has(a.id) ? 'soft' : 'ink'}
              textDecoration={hidden.has(a.id) ? 'line-through' : undefined}
              cursor="pointer"
            >
              @{a.handle}
            </chakra.button>
          ))}
        </Flex>
      )}
      <Grid
        drip={drip}
        posts={posts}
        columns={columns}
        hue={hue}
        chosen={chosen}
        picked={picked}
        onChoose={(post, event) => {
          if (event.shiftKey) pickTo(post)
          else if (event.ctrlKey || event.metaKey) pick(post)
          else choose(post)
        }}
      />
    </Page>
  )
}

/** What can be done with several posts at once; it says which were left, and why. */
function Many({ posts, onDone }: { posts: readonly Post[]; onDone: () => void }) {
  const [replacing, setReplacing] = useState(false)
  const [find, setFind] = useState('')
  const [replace, setReplace] = useState('')
  const [busy, setBusy] = useState(false)
  const ids = posts.map((p) => p.id)
  const run = (work: () => Promise<string>): void =>
    void (async () => {
      setBusy(true)
      if (await attempt(async () => say(await work()))) onDone()
      setBusy(false)
    })()
  const approveAll = async (): Promise<string> => {
    const { approved, left } = await approve(ids)
    const why = [...new Set(left.map((l) => l.why))]
    return `${count(approved, 'caption was', 'captions were')} approved.${why.length ? ` ${left.length} left: ${why.slice(0, 2).join(' ')}` : ''}`
  }
  const setAsideAll = async (): Promise<string> => {
    const open = posts.filter((p) => p.state !== 'published' && p.state !== 'set aside')
    for (const p of open) await setAside(p.id)
    return `${count(open.length, 'post was', 'posts were')} set aside.`
  }
  const angleAll = async (): Promise<string> => {
    const { changed, left } = await anotherAngle(ids)
    return `${count(changed, 'caption has', 'captions have')} another angle.${left ? ` ${left} left: their passages carry no other.` : ''}`
  }
  const replaceAll = async (): Promise<string> => {
    const { changed, left } = await replaceIn(ids, find, replace)
    return `Replaced in ${count(changed, 'caption')}.${left ? ` ${left} left, they are out.` : ''}`
  }
  return (
    <Flex
      role="toolbar"
      aria-label="Several posts"
      px="6"
      py="2"
      mb="2"
      gap="2"
      align="center"
      wrap="wrap"
      bg="raised"
      borderTopWidth="1px"
      borderBottomWidth="1px"
      borderColor="hairline"
      fontSize="13px"
    >
      <Box fontWeight="600">{count(posts.length, 'post')} selected</Box>
      <Button size="sm" look="water" disabled={busy} onClick={() => run(approveAll)}>
        Approve
      </Button>
      <Button size="sm" disabled={busy} onClick={() => run(angleAll)}>
        Another angle
      </Button>
      <Button size="sm" disabled={busy} onClick={() => run(setAsideAll)}>
        Set aside
      </Button>
      {replacing ? (
        <>
          <TextField
            aria-label="Find"
            placeholder="find"
            autoFocus
            w="140px"
            h="7"
            value={find}
            onChange={(e) => setFind(e.target.value)}
          />
          <TextField
            aria-label="Replace with"
            placeholder="replace with"
            w="140px"
            h="7"
            value={replace}
            onChange={(e) => setReplace(e.target.value)}
            onKeyDown={(e) => e.key === 'Enter' && find && run(replaceAll)}
          />
          <Button size="sm" disabled={busy || !find} onClick={() => run(replaceAll)}>
            Replace in {posts.filter((p) => find && p.wording.text.includes(find)).length}
          </Button>
        </>
      ) : (
        <Button size="sm" disabled={busy} onClick={() => setReplacing(true)}>
          Find and replace …
        </Button>
      )}
      <Box flex="1" />
      <Button size="sm" look="quiet" hint="Esc" onClick={onDone}>
        Select none
      </Button>
    </Flex>
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
  picked,
  onChoose,
}: {
  drip: Drip
  posts: Post[]
  columns: Account[]
  hue: Hue | null
  chosen: Post | null
  picked: ReadonlySet<string>
  onChoose: (post: Post, event: React.MouseEvent) => void
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
                  picked={picked.has(post.id)}
                  onChoose={(event) => onChoose(post, event)}
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
  picked,
  onChoose,
}: {
  post: Post
  zone: string
  hue: Hue | null
  chosen: boolean
  picked: boolean
  onChoose: (event: React.MouseEvent) => void
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
      aria-selected={chosen || picked}
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
        bg={picked ? 'waterTint' : chosen ? 'raised' : undefined}
        boxShadow={chosen ? 'inset 0 0 0 2px var(--chakra-colors-water)' : undefined}
        _hover={{ bg: 'raised' }}
        opacity={post.state === 'set aside' ? 0.5 : 1}
      >
        <Flex align="center" gap="2" fontFamily="mono" fontSize="12px" color="soft">
          <Drop state={post.state} picture={post.media !== null} hue={hue} size={22} />
          {picked && <Box color="waterText">✓</Box>}
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
          {post.wording.title && <b>{post.wording.title} · </b>}
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
