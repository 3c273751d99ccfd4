import { Box } from '@chakra-ui/react'
import type { ReactNode } from 'react'

const WIDTH = 280
/** Nearer to the foot of the board than this, it stands above the pointer. */
const LOW = 150

/** What is said of what is under the pointer: beside it, and within the board. All are pixels; `left` is where the board begins. */
export function Tip({
  at,
  board,
  left,
  children,
}: {
  at: { x: number; y: number }
  board: { width: number; height: number }
  left: number
  children: ReactNode
}) {
  const low = at.y > board.height - LOW
  return (
    <Box
      position="absolute"
      pointerEvents="none"
      left={`${Math.min(left + at.x + 14, left + board.width - WIDTH - 12)}px`}
      top={low ? undefined : `${at.y + 12}px`}
      bottom={low ? `${board.height - at.y + 12}px` : undefined}
      w={`${WIDTH}px`}
      bg="raised"
      borderWidth="1px"
      borderColor="hairline"
      borderRadius="md"
      boxShadow="sm"
      p="2.5"
      fontSize="13px"
      zIndex={2}
    >
      {children}
    </Box>
  )
}
