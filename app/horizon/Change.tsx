import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState, type ReactNode } from 'react'
import type { Move } from '../data'
import { Button, count, moment } from '../ui'

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

/** The strip at the foot of the board: what a change would do, or what can be done with what is selected. */
export function Foot({ children, actions }: { children: ReactNode; actions: ReactNode }) {
  return (
    <Flex
      minH="14"
      px="6"
      py="2"
      gap="4"
      align="center"
      bg="raised"
      borderTopWidth="1px"
      borderColor="hairline"
      flexShrink={0}
      role="region"
      aria-label="What is about to change"
    >
      <Box flex="1" minW="0" fontSize="13px" aria-live="polite">
        {children}
      </Box>
      <Flex gap="2" flexShrink={0} wrap="wrap" justify="flex-end">
        {actions}
      </Flex>
    </Flex>
  )
}

/** A difference before it is applied, with its posts one by one where they are asked for. */
export function Difference({
  label,
  moves,
  zoneOf,
  onApply,
  onDrop,
}: {
  label: string
  moves: readonly Move[]
  zoneOf: (account: string) => string
  onApply: () => void
  onDrop: () => void
}) {
  const [listed, setListed] = useState(false)
  return (
    <Box flexShrink={0}>
      {listed && (
        <Box
          maxH="180px"
          overflowY="auto"
          bg="raised"
          borderTopWidth="1px"
          borderColor="hairline"
          px="6"
          py="2"
          tabIndex={0}
          role="region"
          aria-label="Posts that move"
        >
          {moves.map((m) => (
            <Flex key={m.post.id} gap="3" py="0.5" fontSize="13px" align="baseline">
              <chakra.span fontFamily="mono" fontSize="12px" color="soft" flexShrink={0}>
                {m.from ? moment(m.from, zoneOf(m.post.account)) : 'no place'} →{' '}
                {m.to ? moment(m.to, zoneOf(m.post.account)) : 'no place'}
              </chakra.span>
              <chakra.span fontFamily="reading" truncate>
                {m.post.wording.text}
              </chakra.span>
            </Flex>
          ))}
        </Box>
      )}
      <Foot
        actions={
          <>
            <Button
              look="quiet"
              aria-expanded={listed}
              disabled={moves.length === 0}
              onClick={() => setListed(!listed)}
            >
              {listed ? 'Hide them' : 'Show them'}
            </Button>
            <Button hint="Esc" onClick={onDrop}>
              Drop
            </Button>
            <Button look="water" disabled={moves.length === 0} onClick={onApply}>
              Apply
            </Button>
          </>
        }
      >
        <b>{label}:</b> {differenceWords(moves)}.
      </Foot>
    </Box>
  )
}
