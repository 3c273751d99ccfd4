import { Box, chakra, Flex } from '@chakra-ui/react'
import { Link } from 'react-router'
import type { Piece } from '../../core/model'
import type { PieceState } from '../../core/sieve'
import { Button, clip, count, distance, Mono } from '../ui'

const TONE: Record<PieceState['kind'], string> = {
  waiting: 'clayText',
  wordless: 'amberText',
  changed: 'amberText',
  caught: 'soft',
  dripping: 'soft',
  'set aside': 'soft',
}

const KEEPS: Record<Piece['keeps']['span'], string> = {
  evergreen: 'evergreen',
  'about a year': 'keeps about a year',
  months: 'keeps months',
  weeks: 'keeps weeks',
  past: 'past',
}

interface Props {
  index: number
  measure: (element: HTMLElement | null) => void
  top: number
  piece: Piece
  state: PieceState
  source: string
  now: number
  current: boolean
  chosen: boolean
  folded: number
  isOpen: boolean
  under: Piece | null
  onChoose: () => void
  onFold: () => void
  onUnfold: () => void
  onThrough: () => void
}

/** One piece in the list, with whatever is folded under it. */
export function PieceRow({
  index,
  measure,
  top,
  piece,
  state,
  source,
  now,
  current,
  chosen,
  folded,
  isOpen,
  under,
  onChoose,
  onFold,
  onUnfold,
  onThrough,
}: Props) {
  const dim = piece.dealt !== null || state.kind === 'caught'
  return (
    <Flex
      as="li"
      ref={measure as never}
      data-index={index}
      position="absolute"
      left="0"
      right="0"
      top="0"
      align="center"
      gap="4"
      minH="60px"
      py="2"
      pl={under ? '9' : '2'}
      pr="2"
      borderTopWidth="1px"
      borderColor="hairline"
      bg={current ? 'waterTint' : undefined}
      style={{ transform: `translateY(${top}px)` }}
    >
      <input
        type="checkbox"
        aria-label={`Select ${piece.title}`}
        checked={chosen}
        onChange={onChoose}
        tabIndex={-1}
      />
      <Box flex="1" minW="0">
        <Flex gap="2" align="baseline" minW="0">
          <chakra.span minW="0" truncate>
            <Link to={`/intake/${piece.id}`}>
              <chakra.span
                fontFamily="reading"
                fontSize={under ? '15px' : '17px'}
                fontWeight="600"
                color={dim || under ? 'soft' : 'ink'}
                _hover={{ textDecoration: 'underline' }}
              >
                {piece.title}
              </chakra.span>
            </Link>
          </chakra.span>
          {folded > 0 && (
            <Button size="sm" look="quiet" h="5" aria-expanded={isOpen} onClick={onFold} flexShrink={0}>
              {isOpen ? 'fold' : `+ ${count(folded, 'double')}`}
            </Button>
          )}
        </Flex>
        <Box fontSize="13px" color="soft" truncate>
          {source}
          {piece.author ? ` · ${piece.author}` : ''}
          {piece.categories.length ? ` · ${piece.categories.join(', ')}` : ''}
        </Box>
        {under && piece.double && (
          <Box fontSize="13px" color="soft">
            {piece.double.why === 'an excerpt'
              ? `an excerpt: ${Math.round(piece.double.likeness * 100)} % of it stands in the one above`
              : `${piece.double.why}, ${Math.round(piece.double.likeness * 100)} % alike`}{' '}
            <Button size="sm" look="quiet" onClick={onUnfold}>
              Unfold for good
            </Button>
          </Box>
        )}
        {state.reason && (
          <Box fontSize="13px" color={state.kind === 'caught' ? 'soft' : 'amberText'} lineClamp={2}>
            {state.reason}
          </Box>
        )}
      </Box>
      <Mono textAlign="right" flexShrink={0}>
        {piece.kind === 'video' ? clip(piece.video?.seconds ?? 0) : count(piece.words, 'word')} ·{' '}
        {piece.kind === 'video' ? 'video' : count(piece.images.length, 'picture')}
        <br />
        {piece.counts.shares !== undefined ? `${count(piece.counts.shares, 'share')} · ` : ''}
        {distance(piece.publishedAt ?? piece.takenAt, now)}
      </Mono>
      <Box w="150px" fontSize="13px" flexShrink={0}>
        <Box color={TONE[state.kind]}>{state.words}</Box>
        {state.kind === 'caught' ? (
          <Button size="sm" look="quiet" ml="-2.5" onClick={onThrough}>
            Let through
          </Button>
        ) : (
          <Box color={piece.keeps.span === 'evergreen' ? 'soft' : 'amberText'}>{KEEPS[piece.keeps.span]}</Box>
        )}
      </Box>
    </Flex>
  )
}
