import { isToCome } from '../../core/model'
import { Box, Flex } from '@chakra-ui/react'
import { useCallback, useDeferredValue, useMemo, useState } from 'react'
import { flushSync } from 'react-dom'
import { useNavigate, useSearchParams } from 'react-router'
import { addDays, dateOf, dayNumber, localDay, mondayOf, toWall } from '../../core/planning'
import { applyMoves, clockNow, useOpenAccounts, useRow, useRows, type Move } from '../data'
import { AccountSheet } from '../dispatch'
import { useWork } from '../shell'
import { attempt, Button, count, LinkFirst, Page, PageHead, say, Segments, useKeys } from '../ui'
import { PostSheet } from '../writing'
import { Board } from './Board'
import { Difference } from './Change'
import { ChosenFoot, MovingFoot, RefusedFoot, shiftOf } from './feet'
import { Figures } from './Figures'
import { Files } from './Files'
import { Filters } from './Filters'
import { DAYS, ZOOMS, type Mark } from './geometry'
import { Hover, LaneLabel, Legend, spanWords } from './lanes'
import { boardOf, GROUPINGS, markOf, momentOf, nearestDay, NO_FILTER, passes, type Filter } from './marks'
import { PostList } from './PostList'
import { PrintPage } from './PrintPage'
import { Rules } from './Rules'
import { useLifting } from './useLifting'

const BESIDE = ['list', 'figures', 'rules'] as const

/** The accounts' posts over time, at three zooms: looked at, moved, and compared. */
export function Horizon() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const [editing, setEditing] = useState(false)
  const [filtering, setFiltering] = useState(false)
  const [filing, setFiling] = useState(false)
  const [paper, setPaper] = useState<{ from: string; to: string } | null>(null)
  const [selected, setSelected] = useState<ReadonlySet<string>>(new Set())
  const [proposal, setProposal] = useState<{ label: string; moves: Move[]; pin: boolean } | null>(null)
  const [tried, setTried] = useState<readonly Move[]>([])
  const allPosts = useRows('posts', 'brand', brand.id)
  const accounts = useOpenAccounts(brand.id)
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
  const published = useMemo(
    () => new Map((pieces ?? []).flatMap((p) => (p.publishedAt ? [[p.id, p.publishedAt] as const] : []))),
    [pieces],
  )
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
        if (!at) return isToCome(p)
        const day = localDay(Date.parse(at), zoneOf(p.account))
        return day >= start && day < start + DAYS[zoom]
      }),
    [posts, start, zoom, zoneOf],
  )
  const elsewhere = useMemo(
    () => (inView.length > 0 ? null : nearestDay(marks, start, DAYS[zoom])),
    [inView, marks, start, zoom],
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

  const lifting = useLifting(allPosts, from, DAYS[zoom], zoneOf)
  const { lifted, refused, lift, put } = lifting
  const propose = (label: string, made: () => Promise<Move[]>, pin = false): void =>
    void attempt(async () => {
      lifting.drop()
      setProposal({ label, moves: await made(), pin })
    })
  const shift = (days: number): void => {
    const { label, made } = shiftOf(
      picked.map((p) => p.id),
      days,
    )
    propose(label, made, true)
  }
  const apply = (): void =>
    void attempt(async () => {
      if (!proposal) return
      await applyMoves(proposal.moves, proposal.label, proposal.pin)
      say(`${count(proposal.moves.length, 'post')} moved.`)
      setProposal(null)
      setSelected(new Set())
    })
  /** Prints the week or the month of the day at which the board begins. */
  const print = (span: 'week' | 'month'): void => {
    const last = new Date(Date.UTC(Number(from.slice(0, 4)), Number(from.slice(5, 7)), 0))
    flushSync(() =>
      setPaper(
        span === 'week'
          ? { from: mondayOf(from), to: addDays(mondayOf(from), 6) }
          : { from: `${from.slice(0, 7)}-01`, to: last.toISOString().slice(0, 10) },
      ),
    )
    window.print()
    setPaper(null)
  }
  const step = zoom === 'week' ? 7 : zoom === 'season' ? 28 : 91
  const walk = (by: number): void => {
    if (lifted) return lifting.nudge(by)
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
    n: () => void navigate('/horizon/write'),
    Enter: (event) => {
      // A button that has the focus is what Enter is meant for.
      const button = (event.target as HTMLElement | null)?.closest('button')
      if (button) button.click()
      else if (lifted) put(lifted.near, true)
      else if (chosen?.drip) void navigate(`/writing/${chosen.drip}?post=${chosen.id}`)
    },
    Escape: () => {
      if (lifted || refused || proposal) {
        lifting.drop()
        setProposal(null)
      } else if (editing) setEditing(false)
      else if (selected.size) setSelected(new Set())
      else go({ post: null, lane: null })
    },
  })
  const choose = useCallback((id: string | null) => go({ post: id, lane: null }), [go])
  const onGo = useCallback((day: number) => go({ from: mondayOf(dateOf(day)) }), [go])
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
      elsewhere={elsewhere}
      onGo={onGo}
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
          <Figures
            posts={posts}
            accounts={accounts}
            pipelines={pipelines}
            published={published}
            from={from}
            to={end}
          />
        )}
      </Box>
    </Flex>
  )
  return (
    <Page
      side={
        chosen && (piece || !chosen.piece) ? (
          <PostSheet
            key={chosen.id}
            post={chosen}
            piece={piece ?? null}
            account={accounts.find((a) => a.id === chosen.account)}
            day={drip ? (drip.days[chosen.beat] ?? 0) : null}
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
      <PrintPage
        brand={brand.name}
        from={paper?.from ?? from}
        to={paper?.to ?? end}
        posts={posts}
        accounts={accounts}
      />
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
          <Button onClick={() => void navigate('/horizon/rehearsal')}>Rehearse</Button>
          <Button hint="n" onClick={() => void navigate('/horizon/write')}>
            Write
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
            onPrint={print}
            onMoves={(label, made) => setProposal({ label, moves: made, pin: true })}
          />
        )}
        {accounts.length === 0 ? (
          <LinkFirst title="Lanes appear with your accounts">
            Every account has a lane here, with its slots as notches, its quiet days hatched, and its posts as
            drops at their times.
          </LinkFirst>
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
          <RefusedFoot refused={refused} zone={zoneOf(refused.post.account)} onDone={lifting.drop} />
        ) : lifted ? (
          <MovingFoot
            lifted={lifted}
            zone={zoneOf(lifted.post.account)}
            onPut={() => put(lifted.near, true)}
            onDrop={lifting.drop}
          />
        ) : picked.length > 0 && accounts.length > 0 ? (
          <ChosenFoot
            picked={picked}
            selecting={selected.size > 0}
            accounts={accounts}
            onPropose={propose}
            onShift={shift}
            onLift={(id) => void lift(id)}
            onChoose={choose}
            onDone={() => setSelected(new Set())}
          />
        ) : (
          accounts.length > 0 && <Legend pipelines={pipelines} />
        )}
      </Flex>
    </Page>
  )
}
