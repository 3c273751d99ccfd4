import { Flex } from '@chakra-ui/react'
import { useCallback, useMemo, useState } from 'react'
import { flushSync } from 'react-dom'
import { useNavigate } from 'react-router'
import { addDays, dateOf, dayNumber, mondayOf, toWall } from '../../core/planning'
import { momentOf, type Post } from '../../core/model'
import { applyMoves, clockNow, useRow, useRows, type Move } from '../data'
import { AccountSheet } from '../dispatch'
import { useWork } from '../shell'
import { attempt, count, LinkFirst, Page, say, useKeys } from '../ui'
import { PostSheet } from '../writing'
import { Beside } from './Beside'
import { Board } from './Board'
import { Difference } from './Change'
import { ChosenFoot, MovingFoot, RefusedFoot, shiftOf } from './feet'
import { DAYS } from './geometry'
import { Head } from './Head'
import { Hover, Legend, laneLabels } from './lanes'
import { PrintPage } from './PrintPage'
import { useLifting } from './useLifting'
import { usePlace, type Place } from './usePlace'
import { useGhosts, useShown } from './useShown'

/** How many days a step earlier or later goes. */
const STEP = { week: 7, season: 28, year: 91 } as const

interface Proposal {
  label: string
  moves: Move[]
  pin: boolean
}

/** The accounts' posts over time, at three zooms: looked at, moved, and compared. */
export function Horizon() {
  const { brand } = useWork()
  const now = clockNow()
  const today = toWall(now, brand.zone).date
  const { place, go: goTo } = usePlace(today)
  const shown = useShown(brand, place, now)
  const drips = useRows('drips', 'brand', brand.id)
  const [editing, setEditing] = useState(false)
  const [selected, setSelected] = useState<ReadonlySet<string>>(new Set())
  const [proposal, setProposal] = useState<Proposal | null>(null)
  const [tried, setTried] = useState<readonly Move[]>([])
  const paper = usePaper(place.from)
  const go = useCallback(
    (next: Record<string, string | null>): void => {
      setEditing(false)
      goTo(next)
    },
    [goTo],
  )
  const { zoom, from } = place
  const { posts, accounts, zoneOf } = shown
  const end = addDays(from, DAYS[zoom] - 1)
  const chosen = shown.allPosts.find((p) => p.id === place.post) ?? null
  const piece = useRow('pieces', chosen?.piece ?? null)
  const ghosts = useGhosts(proposal?.moves ?? tried, shown)
  const picked = useMemo(
    () => (selected.size ? posts.filter((p) => selected.has(p.id)) : chosen ? [chosen] : []),
    [selected, posts, chosen],
  )
  const lifting = useLifting(shown.allPosts, from, DAYS[zoom], zoneOf)
  const { lifted, lift } = lifting
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
  useBoardKeys({ place, inView: shown.inView, chosen, lifting, go, step: STEP[zoom] }, () => {
    if (lifted || lifting.refused || proposal) {
      lifting.drop()
      setProposal(null)
    } else if (editing) setEditing(false)
    else if (selected.size) setSelected(new Set())
    else go({ post: null, lane: null })
  })
  const choose = useCallback((id: string | null) => go({ post: id, lane: null }), [go])
  const onDay = useCallback((day: number) => go({ from: mondayOf(dateOf(day)) }), [go])
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
  if (!shown.ready || !drips) return <Page>{null}</Page>
  const drip = drips.find((d) => d.id === chosen?.drip)
  const sheetOf = accounts.find((a) => a.id === place.lane) ?? null
  const side =
    chosen && (piece || !chosen.piece) ? (
      <PostSheet
        key={chosen.id}
        post={chosen}
        piece={piece ?? null}
        account={accounts.find((a) => a.id === chosen.account)}
        day={drip ? (drip.days[chosen.beat] ?? 0) : null}
        hue={shown.hueOf(chosen.pipeline)}
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
      <Beside
        brand={brand}
        place={place}
        shown={shown}
        end={end}
        chosen={chosen?.id ?? null}
        selected={selected}
        onGo={go}
        onDay={onDay}
        onChoose={choose}
        onToggle={toggle}
      />
    ) : undefined
  const foot = proposal ? (
    <Difference
      label={proposal.label}
      moves={proposal.moves}
      zoneOf={zoneOf}
      onApply={apply}
      onDrop={() => setProposal(null)}
    />
  ) : lifting.refused ? (
    <RefusedFoot
      refused={lifting.refused}
      zone={zoneOf(lifting.refused.post.account)}
      onDone={lifting.drop}
    />
  ) : lifted ? (
    <MovingFoot
      lifted={lifted}
      zone={zoneOf(lifted.post.account)}
      onPut={() => lifting.put(lifted.near, true)}
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
    accounts.length > 0 && <Legend pipelines={shown.pipelines} />
  )
  return (
    <Page side={side}>
      <PrintPage
        brand={brand.name}
        from={paper.span?.from ?? from}
        to={paper.span?.to ?? end}
        posts={posts}
        accounts={accounts}
      />
      <Flex direction="column" h="full" _print={{ display: 'none' }}>
        <Head
          brand={brand}
          place={place}
          shown={shown}
          today={today}
          end={end}
          step={STEP[zoom]}
          onGo={go}
          onPrint={paper.print}
          onMoves={(label, moves) => setProposal({ label, moves, pin: true })}
        />
        {accounts.length === 0 ? (
          <LinkFirst title="Lanes appear with your accounts">
            Every account has a lane here, with its slots as notches, its quiet days hatched, and its posts as
            drops at their times.
          </LinkFirst>
        ) : (
          <Board
            zoom={zoom}
            start={dayNumber(from)}
            lanes={shown.lanes}
            labels={laneLabels(shown.lanes, shown.counts, zoom, (lane) => go({ lane, post: null }))}
            marks={shown.marks}
            chosen={chosen?.id ?? null}
            selected={selected}
            moving={lifted ? { id: lifted.post.id, places: lifted.shown, near: lifted.near } : null}
            ghosts={ghosts}
            occasions={shown.occasions}
            onChoose={choose}
            onSelect={setSelected}
            onLift={onLift}
            onPut={lifting.put}
            onShift={shift}
            onPan={onPan}
            onComeDown={(day) => go({ zoom: 'week', from: mondayOf(dateOf(day)) })}
            describe={(id) => (
              <Hover
                post={shown.allPosts.find((p) => p.id === id)}
                zoneOf={zoneOf}
                titles={shown.titles}
                posts={posts}
              />
            )}
          />
        )}
        {foot}
      </Flex>
    </Page>
  )
}

/** Prints the week or the month of a day: the days that stand on the paper, and the printing. */
function usePaper(from: string): {
  span: { from: string; to: string } | null
  print: (span: 'week' | 'month') => void
} {
  const [span, setSpan] = useState<{ from: string; to: string } | null>(null)
  const print = (what: 'week' | 'month'): void => {
    const last = new Date(Date.UTC(Number(from.slice(0, 4)), Number(from.slice(5, 7)), 0))
    flushSync(() =>
      setSpan(
        what === 'week'
          ? { from: mondayOf(from), to: addDays(mondayOf(from), 6) }
          : { from: `${from.slice(0, 7)}-01`, to: last.toISOString().slice(0, 10) },
      ),
    )
    window.print()
    setSpan(null)
  }
  return { span, print }
}

/** The board's keys: walking over the posts in view, moving one, paging on, and leaving off. */
function useBoardKeys(
  {
    place,
    inView,
    chosen,
    lifting,
    go,
    step,
  }: {
    place: Place
    inView: readonly Post[]
    chosen: Post | null
    lifting: ReturnType<typeof useLifting>
    go: (next: Record<string, string | null>) => void
    step: number
  },
  leaveOff: () => void,
): void {
  const navigate = useNavigate()
  const { lifted } = lifting
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
    ']': () => go({ from: addDays(place.from, step) }),
    '[': () => go({ from: addDays(place.from, -step) }),
    m: () => chosen && void lifting.lift(chosen.id),
    n: () => void navigate('/horizon/write'),
    Enter: () => {
      if (lifted) lifting.put(lifted.near, true)
      else if (chosen?.drip) void navigate(`/writing/${chosen.drip}?post=${chosen.id}`)
    },
    Escape: leaveOff,
  })
}
