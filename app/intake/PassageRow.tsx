import { Box, Flex } from '@chakra-ui/react'
import type { Passage, Place, WholePiece } from '../../core/model'
import type { NetworkProfile } from '../../core/networks'
import { clip, count, Mono } from '../ui'

/** The clip range of a passage of a video, or null. */
function rangeOf(piece: WholePiece, passage: Place): { from: number; to: number } | null {
  const inside = piece.sentences.filter((s) => s.start < passage.end && s.end > passage.start)
  const from = inside[0]?.from
  const to = inside[inside.length - 1]?.to
  return from === undefined || to === undefined ? null : { from, to }
}

/** A passage in the list beside its piece: its score, what it says, and how long a clip of it would be. */
export function PassageRow({
  piece,
  passage,
  networks,
  current,
  onChoose,
}: {
  piece: WholePiece
  passage: Passage
  /** The networks in use, whose limits a clip has to keep. */
  networks: readonly NetworkProfile[]
  current: boolean
  onChoose: () => void
}) {
  const left = passage.choice === 'left out'
  const range = rangeOf(piece, passage)
  const tooLong = range
    ? networks.filter((n) => n.media.clip && range.to - range.from > n.media.clip.most)
    : []
  return (
    <Flex
      id={`row-${passage.id}`}
      role="option"
      aria-selected={current}
      onClick={onChoose}
      cursor="pointer"
      gap="3"
      px="2"
      py="2.5"
      borderRadius="md"
      borderWidth="1px"
      borderColor={current ? 'water' : 'transparent'}
      boxShadow={current ? 'inset 0 0 0 1px var(--chakra-colors-water)' : undefined}
      bg={current ? 'paper' : undefined}
    >
      <Mono fontWeight="600" color={passage.choice === 'kept' ? 'waterText' : 'soft'}>
        {passage.score.toFixed(2).replace(/^0/, '')}
      </Mono>
      <Box flex="1" minW="0">
        {range && (
          <Mono display="block">
            {clip(range.from)}–{clip(range.to)} ·{' '}
            {count(Math.max(1, Math.round(range.to - range.from)), 'second')}
          </Mono>
        )}
        {tooLong.length > 0 && (
          <Box fontSize="12px" color="amberText">
            too long a clip for {tooLong.map((n) => n.name).join(' and ')}
          </Box>
        )}
        <Box
          fontFamily="reading"
          fontSize="14px"
          lineClamp={current ? undefined : 3}
          color={passage.choice === 'kept' ? 'ink' : 'soft'}
          textDecoration={left ? 'line-through' : undefined}
        >
          {passage.text}
        </Box>
        <Box fontSize="12px" color={passage.lostPlace ? 'amberText' : 'soft'}>
          {passage.lostPlace
            ? 'no longer in the piece'
            : `${passage.choice === 'kept' ? '' : `${passage.choice} · `}${passage.reasons.join(' · ')}`}
        </Box>
      </Box>
    </Flex>
  )
}
