import { Box, Flex, Heading } from '@chakra-ui/react'
import { useMemo, useRef, useState } from 'react'
import {
  findIn,
  ORDERS,
  ORIGINS,
  type LibraryEntry,
  type LibraryQuery,
  type Origin,
} from '../../../core/pictures'
import {
  clearing,
  clearPictures,
  takeFromStock,
  takePicture,
  titleOfFile,
  useRows,
  type Clearing,
} from '../../data'
import { useWork } from '../../shell'
import {
  attempt,
  Button,
  count,
  Empty,
  Notice,
  Page,
  PageHead,
  say,
  Segments,
  SelectField,
  shortDay,
  TextField,
  useKeys,
} from '../../ui'
import { LibraryBeside } from './LibraryBeside'
import { LibraryGrid } from './LibraryGrid'
import { StockPicker } from './StockPicker'
import { useLibrary } from './useLibrary'

const WORDS: Readonly<Record<Origin | 'all', string>> = {
  all: 'All pictures',
  piece: 'From pieces',
  file: 'Files',
  stock: 'Stock',
  order: 'To order',
  card: 'Cards',
}
const USED = ['all', 'shown', 'not shown'] as const

const FIRST: LibraryQuery = { words: '', origin: null, used: null, like: null, order: 'newest' }

/** The pictures of a brand: found by words and by where they are used, described, credited and cleared. */
export function LibraryScreen() {
  const { brand } = useWork()
  const entries = useLibrary(brand.id)
  const pictures = useRows('pictures', 'brand', brand.id)
  const [query, setQuery] = useState(FIRST)
  const [chosen, setChosen] = useState<string | null>(null)
  const [stocking, setStocking] = useState(false)
  const [found, setFound] = useState<Clearing | null>(null)
  const search = useRef<HTMLInputElement>(null)
  const files = useRef<HTMLInputElement>(null)
  const shown = useMemo(() => findIn(entries ?? [], query), [entries, query])
  const ask = (change: Partial<LibraryQuery>): void => setQuery((q) => ({ ...q, ...change }))
  useKeys({
    '/': () => search.current?.focus(),
    Escape: () => (stocking ? setStocking(false) : query.like ? ask({ like: null }) : setChosen(null)),
  })
  if (!entries || !pictures) return <Page>{null}</Page>
  const beside = shown.find((e) => e.key === chosen)
  const take = (list: Iterable<File>): void =>
    void attempt(async () => {
      let taken = 0
      for (const file of list) {
        await takePicture(brand.id, file, { origin: 'file', title: titleOfFile(file) })
        taken++
      }
      if (taken) say(`${count(taken, 'picture')} taken in.`)
    })
  const bring = (
    <>
      <Button look={entries.length ? 'plain' : 'water'} onClick={() => files.current?.click()}>
        From files …
      </Button>
      <input
        ref={files}
        type="file"
        accept="image/*"
        multiple
        hidden
        aria-label="Pictures for the library"
        onChange={(e) => {
          take([...(e.target.files ?? [])])
          e.target.value = ''
        }}
      />
    </>
  )
  return (
    <Page
      side={
        stocking ? (
          <Box p="4">
            <Flex justify="space-between" align="baseline" mb="3">
              <Heading as="h2" fontSize="15px" fontWeight="600">
                From the stock
              </Heading>
              <Button size="sm" look="quiet" hint="Esc" onClick={() => setStocking(false)}>
                Close
              </Button>
            </Flex>
            <StockPicker
              words=""
              onTake={(picture) =>
                void attempt(async () => {
                  const { title } = await takeFromStock(brand.id, picture)
                  say(`“${title}” is in the library.`)
                })
              }
            />
          </Box>
        ) : (
          beside && (
            <LibraryBeside
              key={beside.key}
              entry={beside}
              picture={pictures.find((p) => p.url === beside.key) ?? null}
              brand={brand}
              onLike={() => ask({ ...FIRST, like: beside.like })}
              onClose={() => setChosen(null)}
            />
          )
        )
      }
    >
      <Flex
        direction="column"
        h="full"
        onDragOver={(e) => e.preventDefault()}
        onDrop={(e) => {
          e.preventDefault()
          take([...e.dataTransfer.files])
        }}
        onPaste={(e) => take([...e.clipboardData.files])}
      >
        <PageHead title="Pictures" note={noteOn(entries)}>
          {bring}
          <Button aria-expanded={stocking} onClick={() => setStocking(!stocking)}>
            From the stock …
          </Button>
          <Button onClick={() => void attempt(async () => setFound(await clearing(brand.id)))}>
            Clear …
          </Button>
        </PageHead>
        {found && <ToClear brand={brand.id} found={found} onDone={() => setFound(null)} />}
        {entries.length === 0 ? (
          <Box px="6">
            <Empty title="Pictures gather here" action={bring}>
              What your pieces bring comes by itself. Pictures of your own may be dropped here, pasted, or
              taken from files.
            </Empty>
          </Box>
        ) : (
          <>
            <Flex px="6" pb="3" gap="2" align="center" wrap="wrap">
              <TextField
                ref={search}
                type="search"
                aria-label="Search the pictures"
                placeholder="Search  /"
                flex="1 1 110px"
                minW="110px"
                maxW="190px"
                value={query.words}
                onChange={(e) => ask({ words: e.target.value })}
              />
              <Segments
                label="Where they are from"
                choices={['all', ...ORIGINS] as const}
                value={query.origin ?? 'all'}
                words={(o) => WORDS[o]}
                onChange={(o) => ask({ origin: o === 'all' ? null : o })}
              />
              <SelectField
                aria-label="Whether posts show them"
                w="128px"
                value={query.used === null ? 'all' : query.used ? 'shown' : 'not shown'}
                onChange={(e) => ask({ used: e.target.value === 'all' ? null : e.target.value === 'shown' })}
              >
                {USED.map((u) => (
                  <option key={u} value={u}>
                    {u === 'all' ? 'shown or not' : u}
                  </option>
                ))}
              </SelectField>
              <SelectField
                aria-label="Order"
                w="150px"
                value={query.order}
                onChange={(e) => ask({ order: e.target.value as LibraryQuery['order'] })}
              >
                {ORDERS.map((o) => (
                  <option key={o}>{o}</option>
                ))}
              </SelectField>
              {query.like && (
                <Button size="sm" hint="Esc" onClick={() => ask({ like: null })}>
                  All again
                </Button>
              )}
            </Flex>
            <Box flex="1" minH="0" pl="6" pr="2">
              {shown.length === 0 ? (
                <Box color="soft" py="4">
                  No picture is like that. Ask for less.
                </Box>
              ) : (
                <LibraryGrid
                  entries={shown}
                  brand={brand.id}
                  noteOf={whereSeen}
                  chosen={chosen}
                  width={164}
                  onChoose={setChosen}
                />
              )}
            </Box>
          </>
        )}
      </Flex>
    </Page>
  )
}

/** A line on where a picture is seen. */
function whereSeen({ uses, lastSeen, nextSeen, others }: LibraryEntry): string {
  const told = [
    uses.length === 0 ? 'shown by no post' : count(uses.length, 'post'),
    lastSeen
      ? `seen ${shortDay(lastSeen.slice(0, 10))}`
      : nextSeen
        ? `from ${shortDay(nextSeen.slice(0, 10))}`
        : null,
    others > 0 ? `${others} like it` : null,
  ]
  return told.filter(Boolean).join(' · ')
}

function noteOn(entries: readonly LibraryEntry[]): string {
  const pictures = entries.filter((e) => e.origin !== 'card')
  const shown = pictures.filter((e) => e.uses.length > 0).length
  const cards = entries.length - pictures.length
  return `${count(pictures.length, 'picture')}, ${shown} shown by posts; ${count(cards, 'card')} drawn.`
}

/** What can be cleared, said before it is done. */
function ToClear({ brand, found, onDone }: { brand: string; found: Clearing; onDone: () => void }) {
  const { unused, made, bytes } = found
  const what = [
    unused.length > 0 && `${count(unused.length, 'picture')} of your own that no post shows`,
    made.length > 0 && `${count(made.length, 'copy', 'copies')} made for posts that are out or set aside`,
  ].filter(Boolean)
  return (
    <Box px="6">
      <Notice
        tone="amber"
        action={
          <Flex gap="2">
            {what.length > 0 && (
              <Button
                onClick={() =>
                  void attempt(async () => {
                    const cleared = await clearPictures(brand)
                    say(`${megabytes(cleared.bytes)} freed.`)
                    onDone()
                  })
                }
              >
                Clear them
              </Button>
            )}
            <Button look="quiet" onClick={onDone}>
              Leave it
            </Button>
          </Flex>
        }
      >
        {what.length === 0
          ? 'There is nothing to clear: every picture of your own is shown by a post.'
          : `${what.join(' and ')}: ${megabytes(bytes)}. Copies are made again where they are wanted; pictures are gone for good.`}
      </Notice>
    </Box>
  )
}

const megabytes = (bytes: number): string =>
  bytes < 100_000 ? `${Math.ceil(bytes / 1000)} KB` : `${(bytes / 1_000_000).toFixed(1)} MB`
