import { Box, chakra, Flex } from '@chakra-ui/react'
import { useRef, useState } from 'react'
import { Link, useNavigate, useParams, useSearchParams } from 'react-router'
import {
  may,
  waitsForReview,
  type Account,
  type Drip,
  type Hue,
  type Piece,
  type Post,
  standsInTheWay,
} from '../../core/model'
import { beatCount } from '../../core/planning'
import { approve, useAccounts, useRow, useRows } from '../data'
import { EndedNotice, Holding, useWork } from '../shell'
import {
  attempt,
  Button,
  count,
  Empty,
  moment,
  Mono,
  Notice,
  Page,
  PageHead,
  say,
  useKeys,
  withDays,
} from '../ui'
import { approvedWords } from './approved'
import { Columns } from './Columns'
import { Grid } from './Grid'
import { Many } from './Many'
import { PictureStrip } from './PictureStrip'
import { TakeAway } from './TakeAway'
import { PostSheet } from './post/PostSheet'

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
  posts: readonly Post[]
  piece: Piece
  columns: Account[]
  hue: Hue | null
  pipelineName: string | null
  kept: number
}

/** Whether the pictures of drips are shown in order above their sheets; a habit of this browser. */
const STRIP = 'dripline-picture-strip'

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
  const [strip, setStrip] = useState(() => localStorage.getItem(STRIP) !== null)
  const showStrip = (shown: boolean): void => {
    setStrip(shown)
    if (shown) localStorage.setItem(STRIP, 'shown')
    else localStorage.removeItem(STRIP)
  }
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
  const flagged = live.filter((p) => waitsForReview(p) && standsInTheWay(p))
  const ready = live.filter((p) => may(p, 'approve'))
  const what = {
    table: 'drips' as const,
    id: drip.id,
    brand: drip.brand,
    name: `the drip of “${piece.title}”`,
  }
  const stoodIn = live.filter((p) => p.fallback !== null && !p.edited)
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
        <Button aria-expanded={strip} onClick={() => showStrip(!strip)}>
          Pictures
        </Button>
        <TakeAway posts={live} accounts={all} name={piece.title}>
          Take away
        </TakeAway>
        <Holding what={what} held={drip.held} endedAt={drip.endedAt} />
        <Button
          look="water"
          disabled={ready.length === 0}
          onClick={() =>
            void attempt(async () => {
              say(approvedWords(await approve(live.map((p) => p.id))))
            })
          }
        >
          {ready.length ? `Approve ${ready.length} unflagged` : 'All unflagged are approved'}
        </Button>
      </PageHead>
      <Flex direction="column" gap="2" px="6" mb="3" _empty={{ display: 'none' }}>
        <EndedNotice name="This drip" endedAt={drip.endedAt} />
        {drip.held && (
          <Notice tone="clay">
            This drip is held since {moment(drip.held.since, brand.zone)}; nothing of it goes out until you
            lift it.
          </Notice>
        )}
        {unplaced.length > 0 && (
          <Notice
            tone="amber"
            action={<Button onClick={() => void navigate('/dispatch/accounts')}>Slots</Button>}
          >
            {count(unplaced.length, 'post has', 'posts have')} no place:{' '}
            {withDays(unplaced[0]?.reasons[0]?.message ?? '')}
          </Notice>
        )}
        {stoodIn.length > 0 && (
          <Notice tone="amber">
            {count(stoodIn.length, 'caption is', 'captions are')} the built-in writer’s.{' '}
            {stoodIn[0]?.fallback}
          </Notice>
        )}
      </Flex>
      {picked.size > 0 && (
        <Many posts={posts.filter((p) => picked.has(p.id))} onDone={() => setPicked(new Set())} />
      )}
      {strip && (
        <PictureStrip
          posts={posts}
          columns={columns}
          restDays={brand.weights.pictureDays}
          chosen={chosen}
          onChoose={choose}
        />
      )}
      {all.length > 1 && <Columns drip={drip} accounts={all} hidden={hidden} onHide={setHidden} />}
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
