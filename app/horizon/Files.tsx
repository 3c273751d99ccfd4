import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { calendarEntries, writeCalendar } from '../../core/formats'
import { momentOf, type Account, type Brand, type Post } from '../../core/model'
import { download, nowIso, wishedAt, type Move } from '../data'
import { attempt, Button, count, FileButton, Notice } from '../ui'
import { TakeAway } from '../writing'
import { toWall } from '../../core/planning'
import { planSheet, readChangedPlan } from './files'
import { Subscription } from './Subscription'

/** The posts of some days, both included, on the clocks of their accounts. */
function inView(posts: readonly Post[], accounts: readonly Account[], from: string, end: string): Post[] {
  const zones = new Map(accounts.map((a) => [a.id, a.zone]))
  return posts.filter((post) => {
    const at = momentOf(post)
    const day = at && toWall(Date.parse(at), zones.get(post.account) ?? 'UTC').date
    return post.state !== 'set aside' && day !== null && day >= from && day <= end
  })
}

/** The plan out of the house and in again: calendar, sheet, paper. */
export function Files({
  brand,
  posts,
  accounts,
  from,
  end,
  onPrint,
  onMoves,
}: {
  brand: Brand
  posts: readonly Post[]
  accounts: readonly Account[]
  /** The first and the last day in view. */
  from: string
  end: string
  onPrint: (span: 'week' | 'month') => void
  /** A changed sheet was read: what it moves, to be looked at before it is applied. */
  onMoves: (label: string, moves: Move[]) => void
}) {
  const [said, setSaid] = useState<{ words: string; faults: string[]; open: Uint8Array | null } | null>(null)
  const name = brand.name.toLowerCase().replace(/\W+/g, '-')
  const take = async (bytes: Uint8Array, monthFirst: boolean | null = null): Promise<void> => {
    const { changes, faults, same, order } = readChangedPlan(bytes, posts, accounts, monthFirst)
    if (order.doubt !== null) {
      setSaid({ words: order.doubt, faults: [], open: bytes })
      return
    }
    const moves = await wishedAt(changes)
    const wanted = new Map(changes.map((c) => [c.id, c.at]))
    const exact = moves.filter((m) => m.to === wanted.get(m.post.id)).length
    setSaid({
      words: `${count(changes.length, 'line')} changed, ${same} as they stand.${
        exact < moves.length
          ? ` ${count(moves.length - exact, 'post')} cannot stand at the very moment asked for and would take the nearest legal place.`
          : ''
      }${order.monthFirst === null ? '' : ` Dates like 4/12 were read as ${order.monthFirst ? '12 April' : '4 December'}.`}`,
      open: null,
      faults: faults.map((f) => `Line ${f.line}: ${f.reason}`),
    })
    if (moves.length) onMoves('The changed sheet', moves)
  }
  return (
    <Box px="6" pb="2">
      <Flex gap="2" wrap="wrap" role="group" aria-label="Files">
        <Button
          onClick={() =>
            download(
              new Blob([writeCalendar(brand.name, calendarEntries(posts, accounts), nowIso())], {
                type: 'text/calendar',
              }),
              `${name}.ics`,
            )
          }
        >
          Calendar (.ics)
        </Button>
        <Button
          onClick={() =>
            download(new Blob([planSheet(posts, accounts)], { type: 'text/csv' }), `${name}-plan.csv`)
          }
        >
          Plan as CSV
        </Button>
        <FileButton
          accept=".csv,text/csv"
          label="A changed plan"
          onFile={(file) => void attempt(async () => take(new Uint8Array(await file.arrayBuffer())))}
        >
          Take a changed CSV in
        </FileButton>
        <TakeAway
          posts={inView(posts, accounts, from, end)}
          accounts={accounts}
          name={`${name} from ${from}`}
        >
          These days with pictures (.zip)
        </TakeAway>
        <Button onClick={() => onPrint('week')}>Print the week</Button>
        <Button onClick={() => onPrint('month')}>Print the month</Button>
      </Flex>
      <Subscription key={brand.id} brand={brand} accounts={accounts} />
      {said && (
        <Box mt="2">
          <Notice
            tone={said.faults.length || said.open ? 'amber' : 'moss'}
            action={
              <>
                {said.open &&
                  [false, true].map((monthFirst) => (
                    <Button
                      key={String(monthFirst)}
                      size="sm"
                      onClick={() => void attempt(() => take(said.open as Uint8Array, monthFirst))}
                    >
                      {monthFirst ? 'Month first' : 'Day first'}
                    </Button>
                  ))}
                <Button size="sm" look="quiet" onClick={() => setSaid(null)}>
                  Close
                </Button>
              </>
            }
          >
            {said.words}
            {said.faults.slice(0, 5).map((fault) => (
              <Box key={fault}>{fault}</Box>
            ))}
            {said.faults.length > 5 && <Box>and {said.faults.length - 5} more.</Box>}
          </Notice>
        </Box>
      )}
    </Box>
  )
}
