import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import type { Passage, Place, WholePiece } from '../../core/model'
import { NETWORKS, type NetworkProfile } from '../../core/networks'
import { beatCount, proposedRhythm, RHYTHMS, toWall } from '../../core/planning'
import {
  addPassage,
  choosePassage,
  choosePassagesConnected,
  clockNow,
  joinPassage,
  keepForGood,
  removePassage,
  stretchPassage,
  useAccounts,
  useRow,
  useRows,
  useWholePiece,
  useWriter,
} from '../data'
import { shelve } from '../data/more'
import { useWork } from '../shell'
import {
  attempt,
  Button,
  clip,
  count,
  Drop,
  Empty,
  longDay,
  moment,
  Mono,
  Page,
  say,
  SelectField,
  TextField,
  useKeys,
} from '../ui'
import { Changed } from './Changed'
import { PieceText, selectedRange } from './PieceText'
import { StartDrip } from './StartDrip'
import { VideoHead } from './VideoHead'

/** One piece in a reading face, its passages marked in it and listed beside it. */
export function Reader() {
  const { id = '' } = useParams()
  const piece = useWholePiece(id)
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
  return Number(a.lostPlace) - Number(b.lostPlace) || rank[a.choice] - rank[b.choice] || b.score - a.score
}

function Reading({ piece, passages }: { piece: WholePiece; passages: readonly Passage[] }) {
  const { brand } = useWork()
  const navigate = useNavigate()
  const source = useRow('sources', piece.source)
  const accounts = useAccounts(brand.id)
  const networks = NETWORKS.filter((n) => accounts?.some((a) => a.network === n.id))
  const [chosen, setChosen] = useState<string | null>(null)
  const [starting, setStarting] = useState(false)
  const connected = (useWriter()?.settings ?? null) !== null
  const [asking, setAsking] = useState(false)
  const suited = proposedRhythm(piece.keeps, toWall(clockNow(), brand.zone).date)
  const [rhythm, setRhythm] = useState(() => RHYTHMS.findIndex((r) => r.name === suited.name))
  const [selection, setSelection] = useState<{ start: number; end: number } | null>(null)
  const [search, setSearch] = useState('')
  const [foundAt, setFoundAt] = useState(0)
  const [hideFillers, setHideFillers] = useState(false)
  const text = useRef<HTMLDivElement>(null)
  const searchField = useRef<HTMLInputElement>(null)
  const sorted = useMemo(() => [...passages].sort(order), [passages])
  const current = sorted.find((p) => p.id === chosen) ?? null
  const wantedWords = useDeferredValue(search.trim().toLowerCase())
  const found = useMemo(() => placesOf(piece.text, wantedWords), [piece.text, wantedWords])
  useEffect(() => {
    if (!chosen) return
    document.getElementById(`mark-${chosen}`)?.scrollIntoView({ block: 'nearest', behavior: 'smooth' })
    document.getElementById(`row-${chosen}`)?.scrollIntoView({ block: 'nearest' })
  }, [chosen])
  useEffect(() => {
    const hit = found[foundAt]
    if (hit) text.current?.querySelector(`[data-start="${hit.start}"]`)?.scrollIntoView({ block: 'center' })
  }, [found, foundAt])
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
  const askToChoose = async (): Promise<void> => {
    setAsking(true)
    await attempt(async () => {
      const chose = await choosePassagesConnected(piece, passages)
      say(`The connected writer chose ${count(chose, 'passage')}. Undo brings the choice before back.`)
    })
    setAsking(false)
  }
  const stretch = (edge: 'start' | 'end', by: 1 | -1): void =>
    void (current && attempt(() => stretchPassage(piece, current, edge, by)))
  const shelf = (): void => {
    if (current) void attempt(() => shelve([current], current.shelf === 'on' ? 'left to the rows' : 'on'))
  }
  useKeys({
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    k: () => (selection ? addSelection() : choose('kept')),
    x: () => choose('left out'),
    ']': () => stretch('end', 1),
    '[': () => stretch('end', -1),
    '{': () => stretch('start', 1),
    '}': () => stretch('start', -1),
    j: () => current && void attempt(() => joinPassage(piece, current, passages)),
    s: shelf,
    d: () => setStarting(true),
    '/': () => searchField.current?.focus(),
    n: () => found.length && setFoundAt((foundAt + 1) % found.length),
    Escape: () => (starting ? setStarting(false) : setChosen(null)),
  })
  const kept = passages.filter((p) => p.choice === 'kept' && !p.lostPlace).length
  const meant = RHYTHMS[rhythm] ?? suited
  const wanted = beatCount(meant)
  const spare = passages.filter((p) => p.choice === 'spare').length
  const wordless = piece.kind === 'video' && (piece.video?.transcript ?? null) === null
  return (
    <Page
      side={
        starting ? (
          <StartDrip
            pieces={[piece]}
            rhythm={meant}
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
                  {!RHYTHMS.some((r) => r.name === suited.name) && <option value={-1}>{suited.name}</option>}
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
              <KeepsNotice piece={piece} />
            </Box>
            <Flex px="5" pt="3" pb="1" align="center" justify="space-between" minH="9">
              <Heading as="h2" fontSize="14px" fontWeight="600">
                Passages
              </Heading>
              {connected && !wordless && (
                <Button size="sm" look="quiet" disabled={asking} onClick={() => void askToChoose()}>
                  {asking ? 'It is choosing …' : 'Have the connected writer choose'}
                </Button>
              )}
            </Flex>
            <Box flex="1" overflowY="auto" px="3" pb="3" role="listbox" aria-label="Passages" tabIndex={0}>
              {sorted.map((p) => (
                <PassageRow
                  key={p.id}
                  passage={p}
                  range={rangeOf(piece, p)}
                  networks={networks}
                  current={p.id === chosen}
                  onChoose={() => setChosen(p.id)}
                />
              ))}
              {sorted.length === 0 && (
                <Box px="2" color="soft">
                  {wordless
                    ? 'Without a transcript there is nothing to quote. Drop one on the page.'
                    : 'No passage stands alone in this piece. Select text in it to add one.'}
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
                  {current && (
                    <Flex gap="1" w="full" justify="flex-end" flexWrap="wrap">
                      <Button size="sm" look="quiet" hint="[" onClick={() => stretch('end', -1)}>
                        Shorten
                      </Button>
                      <Button size="sm" look="quiet" hint="]" onClick={() => stretch('end', 1)}>
                        Stretch
                      </Button>
                      <Button
                        size="sm"
                        look="quiet"
                        hint="j"
                        onClick={() => void attempt(() => joinPassage(piece, current, passages))}
                      >
                        Join with the next
                      </Button>
                      <Button size="sm" look="quiet" hint="s" onClick={shelf}>
                        {current.shelf === 'on' ? 'Take off the shelf' : 'Put on the shelf'}
                      </Button>
                    </Flex>
                  )}
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
                  <Button onClick={() => void navigate(`/writing/piece/${piece.id}`)}>As posts</Button>
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
      <Flex justify="space-between" px="10" pt="5" fontSize="13px" color="soft" gap="4" align="center">
        <Box truncate>
          <Link to="/intake">
            <chakra.span textDecoration="underline">Intake</chakra.span>
          </Link>{' '}
          › {source?.title ?? 'a removed source'}
        </Box>
        <Flex gap="3" align="center" flexShrink={0}>
          <Mono>
            {piece.publishedAt ? `${moment(piece.publishedAt, brand.zone).slice(4, -6)} · ` : ''}
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
            ref={searchField}
            aria-label="Search in the piece"
            placeholder="Search   /"
            h="7"
            w="120px"
            value={search}
            onChange={(e) => {
              setSearch(e.target.value)
              setFoundAt(0)
            }}
            onKeyDown={(e) => {
              if (e.key === 'Enter' && found.length)
                setFoundAt((foundAt + (e.shiftKey ? found.length - 1 : 1)) % found.length)
              if (e.key === 'Escape') {
                setSearch('')
                e.currentTarget.blur()
              }
            }}
          />
          {wantedWords && <Mono w="44px">{found.length ? `${foundAt + 1}/${found.length}` : 'none'}</Mono>}
        </Flex>
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
        {piece.changedAt && <Changed piece={piece} />}
        {piece.kind === 'video' && (
          <VideoHead piece={piece} hideFillers={hideFillers} onFillers={() => setHideFillers(!hideFillers)} />
        )}
        <PieceText
          piece={piece}
          passages={passages}
          chosen={chosen}
          found={found}
          foundAt={foundAt}
          hideFillers={hideFillers}
          onChoose={setChosen}
        />
      </Box>
    </Page>
  )
}

/** Where words stand in a text, without regard to case. */
function placesOf(text: string, words: string): Place[] {
  const found: Place[] = []
  const lower = text.toLowerCase()
  if (words.length < 2 || lower.length !== text.length) return found
  for (
    let at = lower.indexOf(words);
    at >= 0 && found.length < 500;
    at = lower.indexOf(words, at + words.length)
  )
    found.push({ start: at, end: at + words.length })
  return found
}

/** The clip range of a passage of a video, or null. */
function rangeOf(piece: WholePiece, passage: Place): { from: number; to: number } | null {
  const inside = piece.sentences.filter((s) => s.start < passage.end && s.end > passage.start)
  const from = inside[0]?.from
  const to = inside[inside.length - 1]?.to
  return from === undefined || to === undefined ? null : { from, to }
}

/** How long the piece keeps, with the phrases that led to it. */
function KeepsNotice({ piece }: { piece: WholePiece }) {
  const { span, until, phrases } = piece.keeps
  if (phrases.length === 0 && span === 'evergreen') return null
  const words = [...new Set(phrases.map((p) => `“${piece.text.slice(p.start, p.end)}”`))]
  const named = words.slice(0, 4).join(', ') + (words.length > 4 ? ` and ${words.length - 4} more` : '')
  const overruled = piece.keeps.overruled
  const title = overruled
    ? 'It keeps for good: you said so'
    : span === 'evergreen'
      ? phrases.length === 1
        ? 'Evergreen but for one phrase'
        : `Evergreen but for ${phrases.length} phrases`
      : span === 'past'
        ? 'What it is about is past'
        : `Keeps ${span === 'about a year' ? 'about a year' : `some ${span}`}${until ? `, until ${longDay(until)} ${until.slice(0, 4)}` : ''}`
  const ends = overruled !== undefined || span !== 'evergreen'
  return (
    <Box mt="3" borderLeftWidth="4px" borderColor="amber" pl="3" fontSize="13px">
      <Box fontWeight="600">{title}</Box>
      <Box color="soft">
        {overruled
          ? `It had been found to end${overruled.until ? ` on ${longDay(overruled.until)} ${overruled.until.slice(0, 4)}` : ''}. ${piece.keeps.because ?? ''}`
          : ends
            ? `${piece.keeps.because ?? ''} A drip that you begin is placed as you ask; what comes later than that day is flagged.`
            : `${named} ${words.length === 1 ? 'ages' : 'age'}. Passages near ${words.length === 1 ? 'it' : 'them'} are left out of long drips.`}
      </Box>
      {ends && (
        <Box mt="2">
          <Button onClick={() => void attempt(() => keepForGood(piece.id, !overruled))}>
            {overruled ? 'Go by what was found' : 'It keeps for good'}
          </Button>
        </Box>
      )}
    </Box>
  )
}

function PassageRow({
  passage,
  range,
  networks,
  current,
  onChoose,
}: {
  passage: Passage
  range: { from: number; to: number } | null
  /** The networks in use, whose limits a clip has to keep. */
  networks: readonly NetworkProfile[]
  current: boolean
  onChoose: () => void
}) {
  const left = passage.choice === 'left out'
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
