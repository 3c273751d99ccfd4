import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useEffect, useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Passage, Piece } from '../../core/model'
import { beatCount, RHYTHMS, TRICKLE } from '../../core/planning'
import { addPassage, choosePassage, removePassage, stretchPassage, useRow, useRows } from '../data'
import { useWork } from '../shell'
import { attempt, Button, count, Drop, Empty, moment, Mono, Page, SelectField, useKeys } from '../ui'
import { PieceText, selectedRange } from './PieceText'
import { StartDrip } from './StartDrip'

/** One piece in a reading face, its passages marked in it and listed beside it. */
export function Reader() {
  const { id = '' } = useParams()
  const piece = useRow('pieces', id)
  const passages = useRows('passages', 'piece', id)
  if (piece === undefined || passages === undefined) return <Page>{null}</Page>
  if (piece === null)
    return (
      <Page>
        <Box px="6">
          <Empty title="This piece is no longer here">
            It may have been removed by undoing what took it in.
          </Empty>
        </Box>
      </Page>
    )
  return <Reading key={piece.id} piece={piece} passages={passages} />
}

function order(a: Passage, b: Passage): number {
  const rank = { kept: 0, spare: 1, 'left out': 2 }
  return rank[a.choice] - rank[b.choice] || b.score - a.score
}

function Reading({ piece, passages }: { piece: Piece; passages: Passage[] }) {
  const { brand } = useWork()
  const navigate = useNavigate()
  const source = useRow('sources', piece.source)
  const [chosen, setChosen] = useState<string | null>(null)
  const [starting, setStarting] = useState(false)
  const [rhythm, setRhythm] = useState(0)
  const [selection, setSelection] = useState<{ start: number; end: number } | null>(null)
  const text = useRef<HTMLDivElement>(null)
  const sorted = [...passages].sort(order)
  const current = sorted.find((p) => p.id === chosen) ?? null
  useEffect(() => {
    if (!chosen) return
    document.getElementById(`mark-${chosen}`)?.scrollIntoView({ block: 'nearest', behavior: 'smooth' })
    document.getElementById(`row-${chosen}`)?.scrollIntoView({ block: 'nearest' })
  }, [chosen])
  useEffect(() => {
    const listen = (): void => setSelection(text.current ? selectedRange(text.current) : null)
    document.addEventListener('selectionchange', listen)
    return () => document.removeEventListener('selectionchange', listen)
  }, [])
  const move = (by: number): void => {
    const index = sorted.findIndex((p) => p.id === chosen)
    setChosen(sorted[Math.max(0, Math.min(sorted.length - 1, index + by))]?.id ?? null)
  }
  const choose = (choice: Passage['choice']): void => {
    if (current) void attempt(() => choosePassage(current.id, current.choice === choice ? 'spare' : choice))
  }
  const addSelection = (): void => {
    if (!selection) return
    void attempt(async () => {
      setChosen(await addPassage(piece, selection.start, selection.end))
      window.getSelection()?.removeAllRanges()
    })
  }
  useKeys({
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    j: () => move(1),
    k: () => (selection ? addSelection() : choose('kept')),
    x: () => choose('left out'),
    ']': () => current && void attempt(() => stretchPassage(piece, current, 1)),
    '[': () => current && void attempt(() => stretchPassage(piece, current, -1)),
    d: () => setStarting(true),
    Escape: () => (starting ? setStarting(false) : setChosen(null)),
  })
  const kept = passages.filter((p) => p.choice === 'kept').length
  const wanted = beatCount(RHYTHMS[rhythm] ?? TRICKLE)
  const spare = passages.filter((p) => p.choice === 'spare').length
  return (
    <Page
      side={
        starting ? (
          <StartDrip
            piece={piece}
            rhythm={rhythm}
            onClose={() => setStarting(false)}
            onStarted={(drip) => void navigate(`/writing/${drip}`)}
          />
        ) : (
          <Flex direction="column" h="full">
            <Box p="5" pb="2">
              <Flex align="center" gap="2" mb="2">
                <SelectField
                  aria-label="Rhythm"
                  h="7"
                  value={rhythm}
                  onChange={(e) => setRhythm(Number(e.target.value))}
                >
                  {RHYTHMS.map((r, i) => (
                    <option key={r.name} value={i}>
                      {r.name}
                    </option>
                  ))}
                </SelectField>
                <Mono>wants {count(wanted, 'passage')}</Mono>
              </Flex>
              <Flex gap="1" wrap="wrap" aria-hidden>
                {Array.from({ length: wanted }, (_, i) => (
                  <Drop key={i} state={i < kept ? 'published' : 'draft'} size={24} title="" />
                ))}
              </Flex>
              <Box mt="1.5" fontSize="13px">
                <b>{kept >= wanted ? `${kept} kept, enough.` : `${kept} kept, ${wanted - kept} short.`}</b>{' '}
                <chakra.span color="soft">
                  {spare
                    ? `${spare} spare below; or select text to add your own.`
                    : 'Select text to add your own.'}
                </chakra.span>
              </Box>
            </Box>
            <Heading as="h2" fontSize="14px" fontWeight="600" px="5" pt="3" pb="1">
              Passages
            </Heading>
            <Box flex="1" overflowY="auto" px="3" pb="3" role="listbox" aria-label="Passages" tabIndex={0}>
              {sorted.map((p) => (
                <PassageRow
                  key={p.id}
                  passage={p}
                  current={p.id === chosen}
                  onChoose={() => setChosen(p.id)}
                />
              ))}
              {sorted.length === 0 && (
                <Box px="2" color="soft">
                  No passage stands alone in this piece. Select text in it to add one.
                </Box>
              )}
            </Box>
            <Flex
              p="3"
              gap="2"
              borderTopWidth="1px"
              borderColor="hairline"
              justify="flex-end"
              flexWrap="wrap"
            >
              {selection ? (
                <Button hint="k" look="water" onMouseDown={(e) => e.preventDefault()} onClick={addSelection}>
                  Keep the selection
                </Button>
              ) : (
                <>
                  {current?.by === 'person' && (
                    <Button look="quiet" onClick={() => void attempt(() => removePassage(current))}>
                      Remove
                    </Button>
                  )}
                  <Button hint="k" disabled={!current} onClick={() => choose('kept')}>
                    {current?.choice === 'kept' ? 'Make spare' : 'Keep'}
                  </Button>
                  <Button hint="x" disabled={!current} onClick={() => choose('left out')}>
                    {current?.choice === 'left out' ? 'Take back in' : 'Leave out'}
                  </Button>
                  <Button hint="d" look="water" onClick={() => setStarting(true)}>
                    Start a drip
                  </Button>
                </>
              )}
            </Flex>
          </Flex>
        )
      }
    >
      <Flex justify="space-between" px="10" pt="5" fontSize="13px" color="soft">
        <Box>
          <Link to="/intake">
            <chakra.span textDecoration="underline">Intake</chakra.span>
          </Link>{' '}
          › {source?.title ?? 'a removed source'}
        </Box>
        <Mono>
          {piece.publishedAt ? `${moment(piece.publishedAt, brand.zone).slice(4, -6)} · ` : ''}
          {count(piece.words, 'word')} · {Math.max(1, Math.round(piece.words / 220))} min
          {piece.url ? ' · ' : ''}
          {piece.url && (
            <a href={piece.url} target="_blank" rel="noreferrer">
              original
            </a>
          )}
        </Mono>
      </Flex>
      <Box maxW="720px" mx="auto" px="6" pt="5" pb="16" ref={text}>
        <Heading as="h1" fontFamily="reading" fontSize="30px" fontWeight="700" lineHeight="1.2">
          {piece.title}
        </Heading>
        <Box color="soft" fontSize="13px" mt="1" mb="5">
          {[piece.author, piece.categories.length ? `tagged ${piece.categories.join(', ')}` : '']
            .filter(Boolean)
            .join(' · ')}
        </Box>
        <PieceText piece={piece} passages={passages} chosen={chosen} onChoose={setChosen} />
      </Box>
    </Page>
  )
}

function PassageRow({
  passage,
  current,
  onChoose,
}: {
  passage: Passage
  current: boolean
  onChoose: () => void
}) {
  const left = passage.choice === 'left out'
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
        <Box
          fontFamily="reading"
          fontSize="14px"
          lineClamp={current ? undefined : 3}
          color={passage.choice === 'kept' ? 'ink' : 'soft'}
          textDecoration={left ? 'line-through' : undefined}
        >
          {passage.text}
        </Box>
        <Box fontSize="12px" color="soft">
          {passage.choice === 'kept' ? '' : `${passage.choice} · `}
          {passage.reasons.join(' · ')}
        </Box>
      </Box>
    </Flex>
  )
}
