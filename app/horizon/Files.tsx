import { Box, Flex } from '@chakra-ui/react'
import { useRef, useState } from 'react'
import type { Account, Brand, Post } from '../../core/model'
import { download, nowIso, wishedAt, type Move } from '../data'
import { attempt, Button, count, Notice } from '../ui'
import { calendarFile, planSheet, readChangedPlan } from './files'

/** The plan out of the house and in again: calendar, sheet, paper. */
export function Files({
  brand,
  posts,
  accounts,
  onMoves,
}: {
  brand: Brand
  posts: readonly Post[]
  accounts: readonly Account[]
  /** A changed sheet was read: what it moves, to be looked at before it is applied. */
  onMoves: (label: string, moves: Move[]) => void
}) {
  const file = useRef<HTMLInputElement>(null)
  const [said, setSaid] = useState<{ words: string; faults: string[] } | null>(null)
  const name = brand.name.toLowerCase().replace(/\W+/g, '-')
  const take = async (chosen: File): Promise<void> => {
    const { changes, faults, same } = readChangedPlan(
      new Uint8Array(await chosen.arrayBuffer()),
      posts,
      accounts,
    )
    const moves = await wishedAt(changes)
    const wanted = new Map(changes.map((c) => [c.id, c.at]))
    const exact = moves.filter((m) => m.to === wanted.get(m.post.id)).length
    setSaid({
      words: `${count(changes.length, 'line')} changed, ${same} as they stand.${
        exact < moves.length
          ? ` ${count(moves.length - exact, 'post')} cannot stand at the very moment asked for and would take the nearest legal place.`
          : ''
      }`,
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
              new Blob([calendarFile(brand.name, posts, accounts, nowIso())], { type: 'text/calendar' }),
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
        <Button onClick={() => file.current?.click()}>Take a changed CSV in</Button>
        <Button onClick={() => window.print()}>Print what is shown</Button>
        <input
          ref={file}
          type="file"
          accept=".csv,text/csv"
          aria-label="A changed plan"
          hidden
          onChange={(event) => {
            const [chosen] = event.target.files ?? []
            event.target.value = ''
            if (chosen) void attempt(() => take(chosen))
          }}
        />
      </Flex>
      {said && (
        <Box mt="2">
          <Notice
            tone={said.faults.length ? 'amber' : 'moss'}
            action={
              <Button size="sm" look="quiet" onClick={() => setSaid(null)}>
                Close
              </Button>
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
