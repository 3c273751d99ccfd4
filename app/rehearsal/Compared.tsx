import { Box, chakra } from '@chakra-ui/react'
import type { ReactNode } from 'react'
import type { Pipeline } from '../../core/model'
import type { Comparison, Rehearsal } from '../../core/rehearsal'
import { expectedWords, type Planned } from '../../core/results'
import { useExpected } from '../data/more'
import { count, longDay, shortDay } from '../ui'

/** A figure before and after; where they differ the new one stands out. */
function Pair({ before, after, changed }: { before: string; after: string; changed: boolean }) {
  if (!changed || before === after) return <>{changed ? after : before}</>
  return (
    <>
      <chakra.span color="soft">{before} → </chakra.span>
      <chakra.b color="waterText">{after}</chakra.b>
    </>
  )
}

const Cell = chakra('td', {
  base: { py: '1', pr: '4', fontFamily: 'mono', fontSize: '12px', whiteSpace: 'nowrap' },
})
const Head = chakra('th', {
  base: {
    py: '1',
    pr: '4',
    fontSize: '12px',
    fontWeight: '400',
    color: 'soft',
    textAlign: 'left',
    whiteSpace: 'nowrap',
  },
})

/** The figures of both ways, account by account, then pipelines and rules. */
export function Compared({
  brand,
  played,
  pipelines,
  changed,
}: {
  brand: string
  played: Comparison
  pipelines: readonly Pipeline[]
  changed: boolean
}) {
  const { before, after } = played
  const [was, is] = [useExpected(brand, plannedIn(before)), useExpected(brand, plannedIn(after))]
  const pair = (was: string | undefined, is: string): ReactNode => (
    <Pair before={was ?? '–'} after={is} changed={changed} />
  )
  return (
    <Box display="flex" gap="8" flexWrap="wrap" alignItems="flex-start">
      <Box overflowX="auto">
        <chakra.table borderCollapse="collapse">
          <thead>
            <tr>
              <Head>Account</Head>
              <Head>Posts a week</Head>
              <Head>Longest silence</Head>
              <Head>Empty weeks</Head>
              <Head>Repeats</Head>
              <Head>Keep</Head>
              <Head>New</Head>
            </tr>
          </thead>
          <tbody>
            {after.figures.map((is) => {
              const was = before.figures.find((f) => f.account === is.account)
              const account = after.accounts.find((a) => a.id === is.account)
              return (
                <chakra.tr key={is.account} borderTopWidth="1px" borderColor="hairline">
                  <chakra.td py="1" pr="4" fontSize="13px">
                    @{account?.handle}
                  </chakra.td>
                  <Cell>{pair(was?.perWeek.toFixed(1), is.perWeek.toFixed(1))}</Cell>
                  <Cell>{pair(was && silence(was), silence(is))}</Cell>
                  <Cell>{pair(was && String(was.gaps), String(is.gaps))}</Cell>
                  <Cell>
                    {pair(
                      was && String(was.repeats.pictures + was.repeats.passages),
                      String(is.repeats.pictures + is.repeats.passages),
                    )}
                  </Cell>
                  <Cell>{pair(was && percent(was.evergreen), percent(is.evergreen))}</Cell>
                  <Cell>{pair(was && percent(was.fresh), percent(is.fresh))}</Cell>
                </chakra.tr>
              )
            })}
          </tbody>
        </chakra.table>
      </Box>
      <Box>
        <Title>Runs dry on</Title>
        {after.dry.length === 0 && (
          <Box color="soft" fontSize="13px">
            There is no pipeline.
          </Box>
        )}
        {after.dry.map((is) => {
          const was = before.dry.find((d) => d.pipeline === is.pipeline)
          return (
            <Row key={is.pipeline} name={pipelines.find((p) => p.id === is.pipeline)?.name ?? ''}>
              {pair(was && dryWords(was), dryWords(is))}
            </Row>
          )
        })}
      </Box>
      {is && (
        <Box>
          <Title>How often seen</Title>
          <Row name={`${count(is.posts, 'post')}, a week after each`}>
            {pair(was ? expectedWords(was.seen) : undefined, expectedWords(is.seen))}
          </Row>
        </Box>
      )}
      <Box>
        <Title>How hard the rules press</Title>
        <Row name="Posts off their day">{pair(movedWords(before), movedWords(after))}</Row>
        <Row name="Without a place">
          {pair(String(before.pressure.unplaced), String(after.pressure.unplaced))}
        </Row>
        {after.pressure.rules.slice(0, 6).map((rule) => (
          <Row key={rule.code} name={RULES[rule.code] ?? rule.code.replaceAll('-', ' ')}>
            {pair(
              String(before.pressure.rules.find((r) => r.code === rule.code)?.times ?? 0),
              String(rule.times),
            )}
          </Row>
        ))}
      </Box>
    </Box>
  )
}

/** How many posts of a rehearsal stand on each account. */
const plannedIn = ({ accounts, weeks }: Rehearsal): Planned[] =>
  accounts.map(({ id }, i) => ({ account: id, posts: (weeks[i] ?? []).reduce((sum, n) => sum + n, 0) }))

/** What stood in the way, by its code. */
const RULES: Readonly<Record<string, string>> = {
  taken: 'Slot taken',
  gap: 'Too close to a neighbour',
  'quiet-day': 'Quiet day',
  'day-full': 'Day full',
  'week-full': 'Week full',
  'warming-up': 'Warming up',
  'same-piece': 'Same piece that day',
  'same-words': 'Same words on a sibling',
  'same-minute': 'Same minute as its beat',
  'soft-picture': 'Picture seen lately',
  'soft-passage': 'Passage said lately',
  'soft-share': 'Its share of the week',
  'soft-even': 'Day not empty',
  'soft-hours': 'A lesser hour',
  'soft-stagger': 'Its beat too close',
  'no-opening': 'No slot in its days',
  'no-slot': 'No slots',
  'out-of-bounds': 'Outside its days',
  'too-late': 'Its last day has passed',
}

function Title({ children }: { children: ReactNode }) {
  return (
    <Box fontSize="13px" fontWeight="600" mb="1">
      {children}
    </Box>
  )
}

function Row({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box display="flex" justifyContent="space-between" gap="5" fontSize="13px" py="0.5">
      <Box>{name}</Box>
      <Box fontFamily="mono" fontSize="12px" whiteSpace="nowrap">
        {children}
      </Box>
    </Box>
  )
}

function silence({ silence: { days, after } }: Rehearsal['figures'][number]): string {
  return days === 0 ? 'none' : `${days} d${after ? ` after ${shortDay(after)}` : ''}`
}

function percent(part: number): string {
  return `${Math.round(part * 100)} %`
}

function dryWords(dry: Rehearsal['dry'][number]): string {
  if (dry.takesIn) return 'not in this time'
  return dry.day ? `${longDay(dry.day)} ${dry.day.slice(0, 4)}` : 'nothing planned'
}

function movedWords({ pressure }: Rehearsal): string {
  return pressure.moved ? `${pressure.moved}, by ${pressure.meanDays.toFixed(1)} d` : '0'
}
