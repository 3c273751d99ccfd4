import { Box, Flex } from '@chakra-ui/react'
import { useState, type ReactNode } from 'react'
import type { Move } from '../data'
import { differenceWords, MovesList } from '../dispatch'
import { Button, FootStrip } from '../ui'

/** The strip at the foot of the board: what a change would do, or what can be done with what is selected. */
export function Foot({ children, actions }: { children: ReactNode; actions: ReactNode }) {
  return (
    <FootStrip label="What is about to change">
      <Box flex="1" minW="0" fontSize="13px" aria-live="polite">
        {children}
      </Box>
      <Flex gap="2" flexShrink={0} wrap="wrap" justify="flex-end">
        {actions}
      </Flex>
    </FootStrip>
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
        <Box bg="raised" borderTopWidth="1px" borderColor="hairline" px="6" py="2">
          <MovesList moves={moves} zoneOf={zoneOf} />
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
