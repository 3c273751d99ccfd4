import { Box, chakra, Flex } from '@chakra-ui/react'
import type { Move } from '../data'
import { count, moment } from '../ui'

/** A difference in words: how many posts move, by how much, and how many have no place. */
export function differenceWords(moves: readonly Move[]): string {
  const days = moves.flatMap((m) =>
    m.from && m.to ? [Math.abs(Date.parse(m.to) - Date.parse(m.from)) / 86_400_000] : [],
  )
  const nowhere = moves.filter((m) => m.to === null).length
  const found = moves.filter((m) => m.from === null && m.to !== null).length
  const mean = days.length ? days.reduce((a, b) => a + b, 0) / days.length : 0
  return [
    days.length
      ? `${count(days.length, 'post moves', 'posts move')}, by ${dayWords(mean)} on average, at most ${dayWords(Math.max(...days))}`
      : 'no post that stands moves',
    found ? `${count(found, 'post')} without a place ${found === 1 ? 'finds' : 'find'} one` : null,
    nowhere ? `${count(nowhere, 'post')} would have no place` : null,
  ]
    .filter(Boolean)
    .join('; ')
}

function dayWords(days: number): string {
  return days < 1
    ? count(Math.max(1, Math.round(days * 24)), 'hour')
    : count(Math.round(days * 10) / 10, 'day')
}

/** The posts that a change would move, one by one, each on its account's own clock. */
export function MovesList({
  moves,
  zoneOf,
}: {
  moves: readonly Move[]
  zoneOf: (account: string) => string
}) {
  const when = (at: string | null, account: string): string => (at ? moment(at, zoneOf(account)) : 'no place')
  return (
    <Box maxH="180px" overflowY="auto" tabIndex={0} role="region" aria-label="Posts that move">
      {moves.map((m) => (
        <Flex key={m.post.id} columnGap="3" py="0.5" fontSize="13px" align="baseline" wrap="wrap">
          <chakra.span fontFamily="mono" fontSize="12px" color="soft" flexShrink={0}>
            {when(m.from, m.post.account)} → {when(m.to, m.post.account)}
          </chakra.span>
          <chakra.span fontFamily="reading" truncate minW="0">
            {m.post.wording.text}
          </chakra.span>
        </Flex>
      ))}
    </Box>
  )
}

/** What a change would do to the posts that stand, in words and one by one. */
export function MovesBeside({
  moves,
  zoneOf,
  more = '',
}: {
  moves: readonly Move[]
  zoneOf: (account: string) => string
  /** What else it would do. */
  more?: string
}) {
  const words = differenceWords(moves)
  return (
    <Box fontSize="13px">
      <b>{moves.length === 0 ? 'No post moves.' : `${words.slice(0, 1).toUpperCase()}${words.slice(1)}.`}</b>
      {more}
      <MovesList moves={moves} zoneOf={zoneOf} />
    </Box>
  )
}
