import { Box } from '@chakra-ui/react'
import { useMemo, useState } from 'react'
import { findIn, type LibraryEntry } from '../../../core/pictures'
import { TextField } from '../../ui'
import { LibraryGrid } from './LibraryGrid'
import { useLibrary } from './useLibrary'

/** The library beside a post: a picture is looked for by words and taken with a click or Enter. */
export function Picker({
  brand,
  noCards = false,
  onTake,
}: {
  brand: string
  /** Whether what is drawn of words is left away. */
  noCards?: boolean
  onTake: (entry: LibraryEntry) => void
}) {
  const entries = useLibrary(brand)
  const [words, setWords] = useState('')
  const shown = useMemo(
    () =>
      findIn(entries ?? [], {
        words,
        origin: null,
        used: null,
        like: null,
        order: 'longest not seen',
      }).filter((e) => e.trouble === null && !(noCards && e.source.from !== 'address')),
    [entries, words, noCards],
  )
  if (!entries) return null
  return (
    <Box>
      <TextField
        type="search"
        aria-label="Search the library"
        placeholder="Search the library"
        w="full"
        mb="2"
        value={words}
        onChange={(e) => setWords(e.target.value)}
      />
      {shown.length === 0 ? (
        <Box fontSize="13px" color="soft">
          {words === '' ? 'The library is empty.' : 'No picture is called that.'}
        </Box>
      ) : (
        <Box h="300px">
          <LibraryGrid
            entries={shown}
            brand={brand}
            noteOf={seen}
            chosen={null}
            width={96}
            withKeys={false}
            onChoose={(key) => {
              const entry = shown.find((e) => e.key === key)
              if (entry) onTake(entry)
            }}
          />
        </Box>
      )}
    </Box>
  )
}

const seen = ({ lastSeen, nextSeen }: LibraryEntry): string =>
  lastSeen ? `seen ${lastSeen.slice(0, 10)}` : nextSeen ? 'to come' : 'not shown yet'
