import { Box, chakra, Flex } from '@chakra-ui/react'
import { useCallback, useDeferredValue, useMemo, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import type { Pipeline, Post } from '../../core/model'
import { network } from '../../core/networks'
import {
  addDays,
  clockMinutes,
  dateOf,
  dayNumber,
  localDay,
  mondayOf,
  toWall,
  type OpenPlace,
} from '../../core/planning'
import {
  applyMoves,
  clockNow,
  pinPosts,
  placedAnew,
  placesFor,
  putAt,
  setAside,
  shifted,
  swapped,
  useAccounts,
  useRow,
  useRows,
  type Move,
} from '../data'
import { AccountSheet } from '../dispatch'
import { useWork } from '../shell'
import {
  attempt,
  Button,
  count,
  Empty,
  longDay,
  moment,
  Mono,
  NetworkMark,
  Page,
  PageHead,
  say,
  useKeys,
  withDays,
} from '../ui'
import { PostSheet } from '../writing'
import { Board, type BoardPlace } from './Board'
import { Difference, Foot } from './Change'
import { Figures } from './Figures'
import { Files } from './Files'
import { Filters } from './Filters'
import { DAYS, ZOOMS, type Mark, type Zoom } from './geometry'
import { boardOf, GROUPINGS, markOf, momentOf, NO_FILTER, passes, type Filter } from './marks'
import { PostList } from './PostList'
import { PrintPage } from './PrintPage'
import { Rules } from './Rules'

const BESIDE = ['list', 'figures', 'rules'] as const

/** A post that is taken up, with the places it may be put. */
interface Lifted {
  post: Post
  places: readonly OpenPlace[]
  /** The same as the board draws them. */
  shown: readonly BoardPlace[]
  near: number | null
}

/** The accounts' posts over time, at three zooms: looked at, moved, and compared. */
export function Horizon() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const [editing, setEditing] = useState(false)
  const [filtering, setFiltering] = useState(false)
  const [filing, setFiling] = useState(false)
  const [selected, setSelected] = useState<ReadonlySet<string>>(new Set())
  const [lifted, setLifted] = useState<Lifted | null>(null)
  const [refused, setRefused] = useState<{ post: Post; why: string; next: OpenPlace | null } | null>(null)
  const [proposal, setProposal] = useState<{ label: string; moves: Move[]; pin: boolean } | null>(null)
  const [tried, setTried] = useState<readonly Move[]>([])
  const allPosts = useRows('posts', 'brand', brand.id)
  const accounts = useAccounts(brand.id)
  const pipelines = useRows('pipelines', 'brand', brand.id)
  const drips = useRows('drips', 'brand', brand.id)
  const pieces = useRows('pieces', 'brand', brand.id)
  const chosen = allPosts?.find((p) => p.id === params.get('post')) ?? null
  const piece = useRow('pieces', chosen?.piece ?? null)
  const now = clockNow()
  const today = toWall(now, brand.zone).date
  const zoom = ZOOMS.find((z) => z === params.get('zoom')) ?? 'week'
  const grouping = GROUPINGS.find((g) => g === params.get('by')) ?? 'account'
  const from = params.get('from') ?? mondayOf(today)
  const tab = BESIDE.find((t) => t === params.get('beside')) ?? 'list'
  const asked = Object.keys(NO_FILTER)
    .map((k) => params.get(`show-${k}`) ?? '')
    .join('\n')
  const filter = useMemo<Filter>(() => {
    const values = asked.split('\n')
    return Object.fromEntries(Object.keys(NO_FILTER).map((k, i) => [k, values[i] ?? ''])) as unknown as Filter
  }, [asked])
  const go = useCallback(
    (next: Record<string, string | null>): void => {
      setEditing(false)
      setParams(
        (before) => {
          const merged = new URLSearchParams(before)
          for (const [key, value] of Object.entries(next))
            if (value) merged.set(key, value)
            else merged.delete(key)
          return merged
        },
        { replace: true, flushSync: true },
      )
    },
    [setParams],
  )
  const titles = useMemo(() => new Map((pieces ?? []).map((p) => [p.id, p])), [pieces])
  const posts = useMemo(
    () => (allPosts ?? []).filter((p) => p.state !== 'set aside' && passes(p, filter)),
    [allPosts, filter],
  )
  const minute = Math.floor(now / 60_000)
  const { lanes, marks } = useMemo(
    () =>
      boardOf(
        {
          posts,
          accounts: accounts ?? [],
          pipelines: pipelines ?? [],
          pieces: titles,
          brand,
          now: minute * 60_000,
        },
        grouping,
      ),
    [posts, accounts, pipelines, titles, brand, grouping, minute],
  )
  const zoneOf = useCallback(
    (id: string): string => accounts?.find((a) => a.id === id)?.zone ?? brand.zone,
    [accounts, brand.zone],
  )
  const start = dayNumber(from)
  const end = addDays(from, DAYS[zoom] - 1)
  const inView = useMemo(
    () =>
      posts.filter((p) => {
        const at = momentOf(p)
        if (!at) return p.state !== 'published' && p.state !== 'failed'
        const day = localDay(Date.parse(at), zoneOf(p.account))
        return day >= start && day < start + DAYS[zoom]
      }),
    [posts, start, zoom, zoneOf],
  )
  // The list may come a moment after the board.
  const listed = useDeferredValue(inView)
  const counts = useMemo(() => {
    const found = new Array<number>(lanes.length).fill(0)
    for (const m of marks)
      if (m.day >= start && m.day < start + DAYS[zoom]) found[m.lane] = (found[m.lane] ?? 0) + 1
    return found
  }, [marks, lanes, start, zoom])
  const moves = proposal?.moves ?? tried
  const ghosts = useMemo(() => {
    const laneOf = new Map(marks.map((m) => [m.id, m.lane]))
    return new Map(
      moves.flatMap((m): [string, Mark][] => {
        const lane = laneOf.get(m.post.id) ?? lanes.findIndex((l) => l.id === m.post.account)
        return m.to && lane >= 0 ? [[m.post.id, markOf(m.post.id, m.to, lane, zoneOf(m.post.account))]] : []
      }),
    )
  }, [moves, marks, lanes, zoneOf])
  const picked = useMemo(
    () => (selected.size ? posts.filter((p) => selected.has(p.id)) : chosen ? [chosen] : []),
    [selected, posts, chosen],
  )
  const hueOf = useCallback(
    (id: string | null) => pipelines?.find((p) => p.id === id)?.hue ?? null,
    [pipelines],
  )

  const lift = useCallback(
    async (id: string | null): Promise<void> => {
      setRefused(null)
      const post = id ? allPosts?.find((p) => p.id === id) : null
      if (!post || !id) return setLifted(null)
      if (post.state === 'published' || post.state === 'failed')
        return say('What went out stays where it is. Take it down on its network, if you must.')
      await attempt(async () => {
        const places = await placesFor(post, from, DAYS[zoom])
        const zone = zoneOf(post.account)
        const minuteOf = (at: string): number => clockMinutes(toWall(Date.parse(at), zone).time)
        const shown = places.map((p) => ({
          day: dayNumber(p.date),
          from: minuteOf(p.from),
          to: minuteOf(p.to),
          free: p.at !== null,
        }))
        const own = places.findIndex((p) => p.at === post.at)
        setLifted({ post, places, shown, near: own < 0 ? null : own })
      })
    },
    [allPosts, from, zoom, zoneOf],
  )
  const put = useCallback(
    (index: number | null, down: boolean): void => {
      if (!lifted) {
        if (down) say('Its places were still being worked out, so it stays. Drag it once more.')
        return
      }
      if (!down) return setLifted({ ...lifted, near: index })
      setLifted(null)
      const place = index === null ? null : lifted.places[index]
      if (!place || place.at === lifted.post.at) return
      if (place.at) {
        const at = place.at
        void attempt(async () => {
          await putAt(lifted.post, at)
          say(`Moved to ${moment(at, zoneOf(lifted.post.account))} and pinned there.`)
        })
        return
      }
      const later = lifted.places.slice((index ?? 0) + 1).find((p) => p.at !== null)
      setRefused({
        post: lifted.post,
        why: withDays(`${place.date} ${place.against ?? 'is closed'}`),
        next: later ?? null,
      })
    },
    [lifted, zoneOf],
  )
  const propose = (label: string, made: () => Promise<Move[]>, pin = false): void =>
    void attempt(async () => {
      setRefused(null)
      setProposal({ label, moves: await made(), pin })
    })
  const shift = (days: number): void => {
    const ids = picked.map((p) => p.id)
    propose(
      `${days > 0 ? `${count(days, 'day')} later` : `${count(-days, 'day')} earlier`}`,
      () => shifted(ids, days),
      true,
    )
  }
  const apply = (): void =>
    void attempt(async () => {
      if (!proposal) return
      await applyMoves(proposal.moves, proposal.label, proposal.pin)
      say(`${count(proposal.moves.length, 'post')} moved.`)
      setProposal(null)
      setSelected(new Set())
    })
  const step = zoom === 'week' ? 7 : zoom === 'season' ? 28 : 91
  const nudge = (by: number): void => {
    if (!lifted) return
    const near = Math.min(lifted.places.length - 1, Math.max(0, (lifted.near ?? -1) + by))
    setLifted({ ...lifted, near })
  }
  const walk = (by: number): void => {
    if (lifted) return nudge(by)
    const sorted = inView
      .filter((p) => momentOf(p))
      .sort((a, b) => ((momentOf(a) ?? '') < (momentOf(b) ?? '') ? -1 : 1))
    const index = sorted.findIndex((p) => p.id === chosen?.id)
    const next = sorted[index < 0 ? 0 : index + by]
    if (next) go({ post: next.id })
  }
  useKeys({
    ArrowRight: () => walk(1),
    ArrowLeft: () => walk(-1),
    ']': () => go({ from: addDays(from, step) }),
    '[': () => go({ from: addDays(from, -step) }),
    m: () => chosen && void lift(chosen.id),
    Enter: (event) => {
      // A button that has the focus is what Enter is meant for.
      const button = (event.target as HTMLElement | null)?.closest('button')
      if (button) button.click()
      else if (lifted) put(lifted.near, true)
      else if (chosen?.drip) void navigate(`/writing/${chosen.drip}?post=${chosen.id}`)
    },
    Escape: () => {
      if (lifted || refused || proposal) {
        setLifted(null)
        setRefused(null)
        setProposal(null)
      } else if (editing) setEditing(false)
      else if (selected.size) setSelected(new Set())
      else go({ post: null, lane: null })
    },
  })
  const choose = useCallback((id: string | null) => go({ post: id, lane: null }), [go])
  const toggle = useCallback(
    (id: string): void =>
      setSelected((before) => {
        const next = new Set(before)
        if (!next.delete(id)) next.add(id)
        return next
      }),
    [],
  )
  const onPan = useCallback((days: number) => days !== 0 && go({ from: addDays(from, days) }), [from, go])
  const onLift = useCallback((id: string | null) => void lift(id), [lift])
  if (!allPosts || !accounts || !pipelines || !drips) return <Page>{null}</Page>
  const drip = drips.find((d) => d.id === chosen?.drip)
  const sheetOf = accounts.find((a) => a.id === params.get('lane')) ?? null
  const list = (
    <PostList
      posts={listed}
      accounts={accounts}
      hueOf={hueOf}
      chosen={chosen?.id ?? null}
      selected={selected}
      onChoose={choose}
      onToggle={toggle}
    />
  )
  const beside = (
    <Flex direction="column" h="full">
      <Flex px="3" pt="2" gap="1" role="tablist" aria-label="Beside the board">
        {BESIDE.map((t) => (
          <Button
            key={t}
            size="sm"
            role="tab"
            aria-selected={tab === t}
            look={tab === t ? 'water' : 'quiet'}
            onClick={() => go({ beside: t === 'list' ? null : t })}
          >
            {t === 'list' ? `List, ${inView.length}` : t === 'figures' ? 'Figures' : 'Rules'}
          </Button>
        ))}
      </Flex>
      <Box flex="1" minH="0" mt="2" borderTopWidth="1px" borderColor="hairline">
        {tab === 'rules' ? (
          <Rules key={brand.id} brand={brand} />
        ) : tab === 'list' ? (
          list
        ) : (
          <Figures posts={posts} accounts={accounts} pipelines={pipelines} from={from} to={end} />
        )}
      </Box>
    </Flex>
  )
  return (
    <Page
      side={
        chosen && piece ? (
          <PostSheet
            key={chosen.id}
            post={chosen}
            piece={piece}
            account={accounts.find((a) => a.id === chosen.account)}
            day={drip?.days[chosen.beat] ?? 0}
            hue={hueOf(chosen.pipeline)}
            editing={editing}
            onEdit={setEditing}
            onClose={() => go({ post: null })}
          />
        ) : sheetOf ? (
          <AccountSheet
            key={sheetOf.id}
            account={sheetOf}
            accounts={accounts}
            brand={brand}
            onMoves={setTried}
            onClose={() => go({ lane: null })}
          />
        ) : accounts.length > 0 ? (
          beside
        ) : undefined
      }
    >
      <PrintPage title={`${brand.name}, ${spanWords(from, end)}`} posts={inView} accounts={accounts} />
      <Flex direction="column" h="full" _print={{ display: 'none' }}>
        <PageHead title={spanWords(from, end)}>
          <Segments
            label="Zoom"
            choices={ZOOMS}
            value={zoom}
            onChange={(z) => go({ zoom: z, from: mondayOf(from) })}
          />
          <Segments
            label="Lanes"
            choices={GROUPINGS}
            words={(g) => `by ${g}`}
            value={grouping}
            onChange={(g) => go({ by: g === 'account' ? null : g })}
          />
          <Button aria-label="Earlier" onClick={() => go({ from: addDays(from, -step) })}>
            ‹
          </Button>
          <Button onClick={() => go({ from: mondayOf(today) })}>Today</Button>
          <Button aria-label="Later" onClick={() => go({ from: addDays(from, step) })}>
            ›
          </Button>
          <Button aria-expanded={filtering} onClick={() => setFiltering(!filtering)}>
            Filter
            {Object.values(filter).some(Boolean) ? ` (${Object.values(filter).filter(Boolean).length})` : ''}
          </Button>
          <Button aria-expanded={filing} onClick={() => setFiling(!filing)}>
            Files
          </Button>
        </PageHead>
        {filtering && (
          <Filters
            filter={filter}
            posts={allPosts}
            accounts={accounts}
            pipelines={pipelines}
            titles={titles}
            onChange={(next) =>
              go(
                Object.fromEntries(
                  Object.entries(next).map(([k, v]: [string, string]) => [`show-${k}`, v || null]),
                ),
              )
            }
          />
        )}
        {filing && (
          <Files
            brand={brand}
            posts={posts}
            accounts={accounts}
            onMoves={(label, made) => setProposal({ label, moves: made, pin: true })}
          />
        )}
        {accounts.length === 0 ? (
          <Box px="6">
            <Empty
              title="Lanes appear with your accounts"
              action={
                <Button look="water" onClick={() => void navigate('/dispatch/accounts')}>
                  Link an account
                </Button>
              }
            >
              Every account has a lane here, with its slots as notches, its quiet days hatched, and its posts
              as drops at their times.
            </Empty>
          </Box>
        ) : (
          <Board
            zoom={zoom}
            start={start}
            lanes={lanes}
            labels={lanes.map((lane, i) => (
              <LaneLabel
                key={lane.id}
                name={lane.name}
                mark={lane.account?.network ?? null}
                note={
                  lane.account && zoom === 'week'
                    ? `${counts[i] ?? 0} of ${count(lane.account.slots.length, 'slot')}${lane.account.held ? ' · held' : ''}`
                    : `${count(counts[i] ?? 0, 'post')}${lane.account?.held ? ' · held' : ''}`
                }
                zoom={zoom}
                onOpen={lane.account ? () => go({ lane: lane.id, post: null }) : null}
              />
            ))}
            marks={marks}
            chosen={chosen?.id ?? null}
            selected={selected}
            moving={lifted ? { id: lifted.post.id, places: lifted.shown, near: lifted.near } : null}
            ghosts={ghosts}
            onChoose={choose}
            onSelect={setSelected}
            onLift={onLift}
            onPut={put}
            onShift={shift}
            onPan={onPan}
            onComeDown={(day) => go({ zoom: 'week', from: mondayOf(dateOf(day)) })}
            describe={(id) => (
              <Hover post={allPosts.find((p) => p.id === id)} zoneOf={zoneOf} titles={titles} posts={posts} />
            )}
          />
        )}
        {proposal ? (
          <Difference
            label={proposal.label}
            moves={proposal.moves}
            zoneOf={zoneOf}
            onApply={apply}
            onDrop={() => setProposal(null)}
          />
        ) : refused ? (
          <Foot
            actions={
              <>
                <Button hint="Esc" onClick={() => setRefused(null)}>
                  Put it back
                </Button>
                <Button
                  look="water"
                  disabled={!refused.next}
                  onClick={() =>
                    void attempt(async () => {
                      const at = refused.next?.at
                      if (at) await putAt(refused.post, at)
                      setRefused(null)
                    })
                  }
                >
                  Take the next legal place
                </Button>
              </>
            }
          >
            <b>It stays where it was.</b>{' '}
            <chakra.span color="clayText" fontWeight="600">
              Not there: {refused.why}.
            </chakra.span>{' '}
            {refused.next?.at
              ? `Next legal place: ${moment(refused.next.at, zoneOf(refused.post.account))}.`
              : 'Nothing later in view is free; page on with ].'}
          </Foot>
        ) : lifted ? (
          <Foot
            actions={
              <>
                <Button hint="Esc" onClick={() => setLifted(null)}>
                  Put it back
                </Button>
                <Button
                  look="water"
                  hint="Enter"
                  disabled={lifted.near === null}
                  onClick={() => put(lifted.near, true)}
                >
                  Put it here
                </Button>
              </>
            }
          >
            <b>Moving</b> {lifted.post.wording.text.slice(0, 60)}…{' '}
            {placeWords(lifted, zoneOf(lifted.post.account))}
          </Foot>
        ) : picked.length > 0 && accounts.length > 0 ? (
          <Foot
            actions={
              <>
                <Button size="sm" onClick={() => shift(-1)}>
                  A day earlier
                </Button>
                <Button size="sm" onClick={() => shift(1)}>
                  A day later
                </Button>
                <Button size="sm" onClick={() => shift(7)}>
                  A week later
                </Button>
                {picked.length === 1 && (
                  <Button size="sm" hint="m" onClick={() => void lift(picked[0]?.id ?? null)}>
                    Move
                  </Button>
                )}
                {picked.length === 2 && (
                  <Button
                    size="sm"
                    onClick={() =>
                      propose('Change places', () => swapped(picked[0]?.id ?? '', picked[1]?.id ?? ''), true)
                    }
                  >
                    Change places
                  </Button>
                )}
                <Button
                  size="sm"
                  onClick={() =>
                    void attempt(() =>
                      pinPosts(
                        picked.map((p) => p.id),
                        !picked.every((p) => p.pinned),
                      ),
                    )
                  }
                >
                  {picked.every((p) => p.pinned) ? 'Unpin' : 'Pin'}
                </Button>
                <Button
                  size="sm"
                  onClick={() => propose('Placed anew', () => placedAnew(picked.map((p) => p.id)))}
                >
                  Place anew
                </Button>
                {selected.size > 0 && (
                  <Button
                    size="sm"
                    onClick={() =>
                      void attempt(async () => {
                        for (const p of picked) if (p.state !== 'published') await setAside(p.id)
                        setSelected(new Set())
                      })
                    }
                  >
                    Set aside
                  </Button>
                )}
              </>
            }
          >
            <b>{picked.length === 1 ? 'One post' : count(picked.length, 'post')}</b>
            {picked.length === 1 && picked[0]
              ? `: ${withDays(picked[0].reasons.map((r) => r.message).join(' ')) || 'no reason was kept.'}`
              : ' selected.'}
          </Foot>
        ) : (
          accounts.length > 0 && <Legend pipelines={pipelines} />
        )}
      </Flex>
    </Page>
  )
}

/** "23 – 29 November", "30 November – 6 December", with the years where they differ. */
function spanWords(from: string, to: string): string {
  if (from.slice(0, 7) === to.slice(0, 7)) return `${Number(from.slice(8))} – ${longDay(to)}`
  if (from.slice(0, 4) === to.slice(0, 4)) return `${longDay(from)} – ${longDay(to)}`
  return `${longDay(from)} ${from.slice(0, 4)} – ${longDay(to)} ${to.slice(0, 4)}`
}

function placeWords(lifted: Lifted, zone: string): string {
  const place = lifted.near === null ? null : lifted.places[lifted.near]
  if (!place) return '– choose a place with the arrows, or drag it.'
  if (place.at) return `to ${moment(place.at, zone)}${place.against ? `, though ${place.against}` : ''}.`
  return withDays(`– not there: ${place.date} ${place.against ?? 'is closed'}.`)
}

function LaneLabel({
  name,
  mark,
  note,
  zoom,
  onOpen,
}: {
  name: string
  mark: string | null
  note: string
  zoom: Zoom
  onOpen: (() => void) | null
}) {
  const inside = (
    <>
      {mark && <NetworkMark id={mark} />}
      <Box minW="0" textAlign="left">
        <Box fontWeight="600" fontSize="13px" truncate>
          {name}
        </Box>
        <Mono fontSize={zoom === 'year' ? '11px' : '12px'}>{note}</Mono>
      </Box>
    </>
  )
  if (!onOpen)
    return (
      <Flex align="center" gap="2.5" h="full" pl="6" pr="2" minW="0">
        {inside}
      </Flex>
    )
  return (
    <chakra.button
      type="button"
      display="flex"
      alignItems="center"
      gap="2.5"
      w="full"
      h="full"
      pl="6"
      pr="2"
      minW="0"
      cursor="pointer"
      _hover={{ bg: 'waterTint' }}
      aria-label={`When ${name} on ${mark ? network(mark).name : ''} may post`}
      onClick={onOpen}
    >
      {inside}
    </chakra.button>
  )
}

/** What a drop says when the pointer rests on it: its caption, and its neighbours of the same piece. */
function Hover({
  post,
  zoneOf,
  titles,
  posts,
}: {
  post: Post | undefined
  zoneOf: (account: string) => string
  titles: ReadonlyMap<string, { title: string }>
  posts: readonly Post[]
}) {
  if (!post) return null
  const at = momentOf(post) ?? ''
  const kin = posts
    .filter((p) => post.piece !== null && p.piece === post.piece && p.id !== post.id && momentOf(p))
    .sort((a, b) => ((momentOf(a) ?? '') < (momentOf(b) ?? '') ? -1 : 1))
  const before = kin.filter((p) => (momentOf(p) ?? '') <= at).at(-1)
  const after = kin.find((p) => (momentOf(p) ?? '') > at)
  return (
    <>
      <Mono>
        {network(post.network).name} · {at ? moment(at, zoneOf(post.account)) : 'no place'} · {post.state}
        {post.pinned ? ' · pinned' : ''}
      </Mono>
      <Box fontFamily="reading" mt="1" lineClamp="4">
        {post.wording.text}
      </Box>
      {post.piece && (
        <Box color="soft" mt="1.5" fontSize="12px">
          {titles.get(post.piece)?.title}
          {before ? ` · before it ${moment(momentOf(before) ?? '', zoneOf(before.account))}` : ''}
          {after ? ` · after it ${moment(momentOf(after) ?? '', zoneOf(after.account))}` : ''}
        </Box>
      )}
    </>
  )
}

/** What the colours mean: a pipeline each, and water for what was begun by hand. */
function Legend({ pipelines }: { pipelines: readonly Pipeline[] }) {
  return (
    <Flex
      gap="4"
      px="6"
      py="2"
      fontSize="13px"
      color="soft"
      wrap="wrap"
      flexShrink={0}
      borderTopWidth="1px"
      borderColor="hairline"
    >
      {pipelines.map((p) => (
        <Flex key={p.id} align="center" gap="1.5">
          <Box w="9px" h="9px" borderRadius="full" bg={`hue.${p.hue}`} /> {p.name}
        </Flex>
      ))}
      <Flex align="center" gap="1.5">
        <Box w="9px" h="9px" borderRadius="full" bg="water" /> begun by hand
      </Flex>
      <Box ml="auto">Drag a drop, or choose one and press m. Shift adds to the selection.</Box>
    </Flex>
  )
}

/** A choice of a few, one pressed. */
function Segments<T extends string>({
  label,
  choices,
  value,
  words = (c) => `${c.slice(0, 1).toUpperCase()}${c.slice(1)}`,
  onChange,
}: {
  label: string
  choices: readonly T[]
  value: T
  words?: (choice: T) => string
  onChange: (choice: T) => void
}) {
  return (
    <Flex
      role="group"
      aria-label={label}
      borderWidth="1px"
      borderColor="hairline"
      borderRadius="md"
      overflow="hidden"
    >
      {choices.map((choice) => (
        <chakra.button
          key={choice}
          type="button"
          aria-pressed={value === choice}
          px="3"
          h="8"
          fontSize="13px"
          cursor="pointer"
          bg={value === choice ? 'waterTint' : 'raised'}
          color={value === choice ? 'waterText' : 'ink'}
          fontWeight={value === choice ? '700' : '400'}
          onClick={() => onChange(choice)}
        >
          {words(choice)}
        </chakra.button>
      ))}
    </Flex>
  )
}
