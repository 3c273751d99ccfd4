import { Box, Heading } from '@chakra-ui/react'
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react'
import { useNavigate, useParams } from 'react-router'
import type { Passage, Place, WholePiece } from '../../core/model'
import { proposedRhythm, RHYTHMS, toWall } from '../../core/planning'
import { clockNow, useRow, useRows, useWholePiece } from '../data'
import { useWork } from '../shell'
import { Empty, Page, useKeys } from '../ui'
import { Changed } from './Changed'
import { passageActions } from './passageActions'
import { PassagesSide } from './PassagesSide'
import { PieceText, selectedRange } from './PieceText'
import { ReaderHead } from './ReaderHead'
import { StartDrip } from './StartDrip'
import { useChoosing } from './useChoosing'
import { useSearch } from './useSearch'
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
  const [chosen, setChosen] = useState<string | null>(null)
  const [starting, setStarting] = useState(false)
  const suited = proposedRhythm(piece.keeps, toWall(clockNow(), brand.zone).date)
  const [rhythm, setRhythm] = useState(() => RHYTHMS.find((r) => r.name === suited.name) ?? suited)
  const [hideFillers, setHideFillers] = useState(false)
  const text = useRef<HTMLDivElement>(null)
  const selection = useSelection(text)
  const search = useSearch(piece.text)
  const searchField = useRef<HTMLInputElement>(null)
  const sorted = useMemo(() => [...passages].sort(order), [passages])
  const current = sorted.find((p) => p.id === chosen) ?? null
  const choosing = useChoosing(piece, passages)
  const acts = passageActions(piece, passages, current, selection, setChosen)
  useEffect(() => {
    if (!chosen) return
    document.getElementById(`mark-${chosen}`)?.scrollIntoView({ block: 'nearest', behavior: 'smooth' })
    document.getElementById(`row-${chosen}`)?.scrollIntoView({ block: 'nearest' })
  }, [chosen])
  const shown = search.found[search.at]
  useEffect(() => {
    if (shown)
      text.current?.querySelector(`[data-start="${shown.start}"]`)?.scrollIntoView({ block: 'center' })
  }, [shown])
  const move = (by: number): void => {
    const index = sorted.findIndex((p) => p.id === chosen)
    setChosen(sorted[Math.max(0, Math.min(sorted.length - 1, index + by))]?.id ?? null)
  }
  useKeys({
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    k: () => (selection ? acts.add() : acts.choose('kept')),
    x: () => acts.choose('left out'),
    ']': () => acts.stretch('end', 1),
    '[': () => acts.stretch('end', -1),
    '{': () => acts.stretch('start', 1),
    '}': () => acts.stretch('start', -1),
    j: acts.join,
    s: acts.shelf,
    d: () => setStarting(true),
    '/': () => searchField.current?.focus(),
    n: () => search.go(1),
    Escape: () => (starting ? setStarting(false) : setChosen(null)),
  })
  return (
    <Page
      side={
        starting ? (
          <StartDrip
            pieces={[piece]}
            rhythm={rhythm}
            onClose={() => setStarting(false)}
            onStarted={(drip) => void navigate(`/writing/${drip}`)}
          />
        ) : (
          <PassagesSide
            piece={piece}
            passages={sorted}
            current={current}
            selecting={selection !== null}
            acts={acts}
            choosing={choosing}
            rhythm={rhythm}
            suited={suited}
            onRhythm={setRhythm}
            onChoose={setChosen}
            onPosts={() => void navigate(`/writing/piece/${piece.id}`)}
            onDrip={() => setStarting(true)}
          />
        )
      }
    >
      <ReaderHead piece={piece} source={source} zone={brand.zone} search={search} field={searchField} />
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
          found={search.found}
          foundAt={search.at}
          hideFillers={hideFillers}
          onChoose={setChosen}
        />
      </Box>
    </Page>
  )
}

/** What of an element's text is selected; null where nothing is. */
function useSelection(text: RefObject<HTMLDivElement | null>): Place | null {
  const [selection, setSelection] = useState<Place | null>(null)
  useEffect(() => {
    const listen = (): void => setSelection(text.current ? selectedRange(text.current) : null)
    document.addEventListener('selectionchange', listen)
    return () => document.removeEventListener('selectionchange', listen)
  }, [text])
  return selection
}
