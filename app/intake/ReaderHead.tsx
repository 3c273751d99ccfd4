import { Box, chakra, Flex } from '@chakra-ui/react'
import type { Ref } from 'react'
import { Link } from 'react-router'
import type { Source, WholePiece } from '../../core/model'
import { clip, count, moment, Mono, TextField } from '../ui'
import type { Search } from './useSearch'

/** Where a piece comes from, how long it is, and the search in it. */
export function ReaderHead({
  piece,
  source,
  zone,
  search,
  field,
}: {
  piece: WholePiece
  source: Source | null | undefined
  zone: string
  search: Search
  field: Ref<HTMLInputElement>
}) {
  return (
    <Flex justify="space-between" px="10" pt="5" fontSize="13px" color="soft" gap="4" align="center">
      <Box truncate>
        <Link to="/intake">
          <chakra.span textDecoration="underline">Intake</chakra.span>
        </Link>{' '}
        › {source?.title ?? 'a removed source'}
      </Box>
      <Flex gap="3" align="center" flexShrink={0}>
        <Mono>
          {piece.publishedAt ? `${moment(piece.publishedAt, zone).slice(4, -6)} · ` : ''}
          {piece.kind === 'video' && piece.video?.seconds ? `${clip(piece.video.seconds)} · ` : ''}
          {count(piece.words, 'word')}
          {piece.kind === 'video' ? '' : ` · ${Math.max(1, Math.round(piece.words / 220))} min`}
          {piece.url ? ' · ' : ''}
          {piece.url && (
            <a href={piece.url} target="_blank" rel="noreferrer">
              original
            </a>
          )}
        </Mono>
        <TextField
          ref={field}
          aria-label="Search in the piece"
          placeholder="Search   /"
          h="7"
          w="120px"
          value={search.typed}
          onChange={(e) => search.type(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') search.go(e.shiftKey ? -1 : 1)
            if (e.key === 'Escape') {
              search.type('')
              e.currentTarget.blur()
            }
          }}
        />
        {search.on && (
          <Mono w="44px">{search.found.length ? `${search.at + 1}/${search.found.length}` : 'none'}</Mono>
        )}
      </Flex>
    </Flex>
  )
}
