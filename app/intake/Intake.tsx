import { Box, chakra, Flex } from '@chakra-ui/react'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useCallback, useDeferredValue, useMemo, useRef, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { PIECE_KINDS } from '../../core/model'
import { byNeed, foldDoubles, haystack, matches, pieceState } from '../../core/sieve'
import { clockNow, dealWith, letThrough, useRows } from '../data'
import { useWork } from '../shell'
import { attempt, Button, count, Empty, Notice, Page, PageHead, SelectField, TextField, useKeys } from '../ui'
import { heightOf, PieceRow, ROWS, type Entry } from './PieceRow'
import { StartDrip } from './StartDrip'

const VIEWS = ['all', 'waiting', 'caught', 'changed', 'dripping', 'set aside'] as const
type View = (typeof VIEWS)[number]
const NEEDS: ReadonlySet<string> = new Set(['waiting', 'changed', 'wordless'])

function toggled(all: ReadonlySet<string>, id: string): ReadonlySet<string> {
  const next = new Set(all)
  if (!next.delete(id)) next.add(id)
  return next
}

/** Pieces as they arrive: searched, filtered, doubles folded, several at a time. */
export function Intake() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const pieces = useRows('pieces', 'brand', brand.id)
  const sources = useRows('sources', 'brand', brand.id)
  const pipelines = useRows('pipelines', 'brand', brand.id)
  const [params, setParams] = useSearchParams()
  const [at, setAt] = useState(0)
  const [search, setSearch] = useState('')
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set())
  const [open, setOpen] = useState<ReadonlySet<string>>(new Set())
  const [starting, setStarting] = useState(false)
  const wanted = useDeferredValue(search.trim())
  const view = (VIEWS as readonly string[]).includes(params.get('view') ?? '')
    ? (params.get('view') as View)
    : 'all'
  const source = params.get('source') ?? ''
  const kind = params.get('kind') ?? ''
  const set = (name: string, value: string): void => {
    const next = new URLSearchParams(params)
    if (value) next.set(name, value)
    else next.delete(name)
    setParams(next, { replace: true })
    setAt(0)
  }
  const hays = useMemo(() => new Map((pieces ?? []).map((p) => [p.id, haystack(p)])), [pieces])
  const sorted = useMemo(() => {
    const heads = foldDoubles(pieces ?? [])
    return heads
      .map(({ piece, folded }): Entry => ({
        piece,
        folded,
        state: pieceState(piece, pipelines ?? []),
        under: null,
      }))
      .sort(byNeed)
  }, [pieces, pipelines])
  const shown = useMemo(
    () =>
      sorted.filter(
        (e) =>
          (view === 'all' || e.state.kind === view || (view === 'waiting' && e.state.kind === 'wordless')) &&
          (!source || e.piece.source === source || e.folded.some((f) => f.source === source)) &&
          (!kind || e.piece.kind === kind) &&
          (!wanted || matches(hays.get(e.piece.id) ?? '', wanted)),
      ),
    [sorted, view, source, kind, wanted, hays],
  )
  const rows = useMemo(
    () =>
      shown.flatMap((entry): Entry[] => [
        entry,
        ...(open.has(entry.piece.id)
          ? entry.folded.map((f): Entry => ({
              piece: f,
              folded: [],
              state: pieceState(f, pipelines ?? []),
              under: entry.piece,
            }))
          : []),
      ]),
    [shown, open, pipelines],
  )
  const keys = useMemo(() => rows.map((r) => (r.under ? `under ${r.piece.id}` : r.piece.id)), [rows])
  const names = useMemo(() => new Map((sources ?? []).map((s) => [s.id, s.title])), [sources])
  const scroller = useRef<HTMLDivElement>(null)
  const searchField = useRef<HTMLInputElement>(null)
  // The list is drawn anew when it scrolls; what it measures cannot be kept between.
  // eslint-disable-next-line react-hooks/incompatible-library
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    // Rows are as high as what stands in them says, so that none has to be measured while scrolling.
    estimateSize: useCallback((i: number) => heightOf(rows[i]), [rows]),
    overscan: 8,
    getItemKey: useCallback((i: number) => keys[i] ?? i, [keys]),
  })
  const index = Math.min(at, rows.length - 1)
  const current = rows[index]?.piece
  const move = (by: number): void => {
    const next = Math.max(0, Math.min(rows.length - 1, index + by))
    setAt(next)
    list.scrollToIndex(next)
  }
  const toggle = useCallback((id: string) => setChosen((all) => toggled(all, id)), [])
  const foldAt = useCallback(
    (id: string) => {
      setAt(keys.indexOf(id))
      setOpen((all) => toggled(all, id))
    },
    [keys],
  )
  const picked = useMemo(() => (pieces ?? []).filter((p) => chosen.has(p.id)), [pieces, chosen])
  const acted = picked.length ? picked : current ? [current] : []
  const act = (work: (ids: string[]) => Promise<void>): void =>
    void attempt(async () => {
      await work(acted.map((p) => p.id))
      setChosen(new Set())
    })
  const aside = (): void =>
    act((ids) =>
      dealWith(
        ids,
        acted.some((p) => p.dealt?.by !== 'set aside'),
      ),
    )
  const through = (): void =>
    act((ids) =>
      letThrough(
        ids,
        acted.some((p) => !p.letThrough),
      ),
    )
  const fold = (): void => {
    const entry = rows[index]
    if (!entry || (entry.folded.length === 0 && !entry.under)) return
    setOpen(toggled(open, entry.under?.id ?? entry.piece.id))
  }
  useKeys({
    ArrowDown: () => move(1),
    ArrowUp: () => move(-1),
    PageDown: () => move(10),
    PageUp: () => move(-10),
    Home: () => move(-rows.length),
    End: () => move(rows.length),
    Enter: () => current && void navigate(`/intake/${current.id}`),
    ' ': () => current && toggle(current.id),
    x: aside,
    l: through,
    f: fold,
    d: () => acted.length && setStarting(true),
    '/': () => searchField.current?.focus(),
    Escape: () => {
      setStarting(false)
      setChosen(new Set())
    },
  })
  const numbers = useMemo(() => {
    const of = (v: View): number => sorted.filter((e) => v === 'all' || e.state.kind === v).length
    return new Map<View, number>(VIEWS.map((v) => [v, of(v)]))
  }, [sorted])
  if (!pieces || !sources || !pipelines) return <Page>{null}</Page>
  // By the minute, so that rows stay as they were drawn while nothing of theirs changed.
  const now = Math.floor(clockNow() / 60_000) * 60_000
  const failing = sources.filter((s) => s.lastVisit?.ok === false)
  const fresh = sorted.filter((e) => NEEDS.has(e.state.kind)).length
  const folded = pieces.length - sorted.length
  return (
    <Page
      side={
        starting && acted.length > 0 ? (
          <StartDrip
            pieces={acted}
            rhythm={null}
            onClose={() => setStarting(false)}
            onStarted={(drip) => {
              setStarting(false)
              setChosen(new Set())
              void navigate(acted.length === 1 ? `/writing/${drip}` : '/writing')
            }}
          />
        ) : undefined
      }
    >
      <Flex direction="column" h="full">
        <PageHead
          title="Intake"
          note={`${count(pieces.length, 'piece')} from ${count(sources.length, 'source')}, ${fresh} waiting${folded ? `; ${count(folded, 'double')} folded` : ''}.`}
        >
          <Button look={sources.length ? 'plain' : 'water'} onClick={() => void navigate('/intake/sources')}>
            {sources.length ? 'Sources' : 'Add a source'}
          </Button>
        </PageHead>
        {failing.length > 0 && (
          <Box px="6" pb="2">
            {failing.slice(0, 3).map((s) => (
              <Notice
                key={s.id}
                tone="clay"
                action={<Button onClick={() => void navigate('/intake/sources')}>Look</Button>}
              >
                {s.title}: {s.lastVisit?.message}
              </Notice>
            ))}
          </Box>
        )}
        {pieces.length > 0 && (
          <Flex px="6" pb="2" gap="2" align="center" flexWrap="wrap">
            {picked.length > 0 ? (
              <>
                <Box fontWeight="600" mr="2">
                  {count(picked.length, 'piece')} selected
                </Box>
                <Button hint="x" onClick={aside}>
                  {picked.some((p) => p.dealt?.by !== 'set aside') ? 'Set aside' : 'Put back'}
                </Button>
                <Button hint="l" onClick={through}>
                  {picked.some((p) => !p.letThrough) ? 'Let through' : 'Leave to the sieve'}
                </Button>
                <Button hint="d" look="water" onClick={() => setStarting(true)}>
                  {picked.length === 1 ? 'Start a drip' : 'Start drips, staggered'}
                </Button>
                <Button look="quiet" hint="Esc" onClick={() => setChosen(new Set())}>
                  Clear
                </Button>
              </>
            ) : (
              <>
                <TextField
                  ref={searchField}
                  aria-label="Search in titles, authors, tags and summaries"
                  placeholder="Search titles, authors, tags   /"
                  w="260px"
                  value={search}
                  onChange={(e) => {
                    setSearch(e.target.value)
                    setAt(0)
                  }}
                  onKeyDown={(e) => {
                    if (e.key === 'Escape') {
                      setSearch('')
                      e.currentTarget.blur()
                    } else if (e.key === 'Enter' || e.key === 'ArrowDown') e.currentTarget.blur()
                  }}
                />
                <SelectField
                  aria-label="Which pieces"
                  value={view}
                  onChange={(e) => set('view', e.target.value === 'all' ? '' : e.target.value)}
                >
                  {VIEWS.map((v) => (
                    <option key={v} value={v}>
                      {v === 'all' ? 'all' : v} ({numbers.get(v)})
                    </option>
                  ))}
                </SelectField>
                <SelectField
                  aria-label="Of which source"
                  maxW="220px"
                  value={source}
                  onChange={(e) => set('source', e.target.value)}
                >
                  <option value="">from every source</option>
                  {sources.map((s) => (
                    <option key={s.id} value={s.id}>
                      from {s.title}
                    </option>
                  ))}
                </SelectField>
                <SelectField
                  aria-label="Of which kind"
                  value={kind}
                  onChange={(e) => set('kind', e.target.value)}
                >
                  <option value="">of every kind</option>
                  {PIECE_KINDS.map((k) => (
                    <option key={k} value={k}>
                      {k}s
                    </option>
                  ))}
                </SelectField>
                {shown.length < sorted.length && <Box color="soft">{count(shown.length, 'piece')}</Box>}
                {shown.length > 1 && (
                  <Button look="quiet" onClick={() => setChosen(new Set(shown.map((e) => e.piece.id)))}>
                    Select {shown.length < sorted.length ? 'these' : 'all'}
                  </Button>
                )}
              </>
            )}
          </Flex>
        )}
        <Box ref={scroller} flex="1" minH="0" overflowY="auto" px="6" pb="6" data-testid="pieces">
          {pieces.length === 0 && (
            <Empty
              title="Pieces arrive here"
              action={
                <Button look="water" onClick={() => void navigate('/intake/sources')}>
                  Add a source
                </Button>
              }
            >
              A piece is one long-form item: an article of your blog, a video with its transcript, a chapter
              of a manuscript, with its text read in full and the furniture of its page marked. Give the
              blog’s address and its pieces appear.
            </Empty>
          )}
          {pieces.length > 0 && rows.length === 0 && (
            <Empty
              title="Nothing is like that"
              action={
                <Button
                  onClick={() => {
                    setSearch('')
                    setParams({})
                  }}
                >
                  Show all pieces
                </Button>
              }
            >
              No piece matches the search and the filters above.
            </Empty>
          )}
          <chakra.ul
            listStyleType="none"
            aria-label="Pieces"
            position="relative"
            css={ROWS}
            style={{ height: list.getTotalSize() }}
          >
            {list.getVirtualItems().map((item) => {
              const entry = rows[item.index]
              if (!entry) return null
              return (
                <PieceRow
                  key={item.key}
                  index={item.index}
                  of={rows.length}
                  top={item.start}
                  entry={entry}
                  source={names.get(entry.piece.source) ?? 'a removed source'}
                  now={now}
                  current={item.index === index}
                  chosen={chosen.has(entry.piece.id)}
                  isOpen={open.has(entry.piece.id)}
                  onChoose={toggle}
                  onFold={foldAt}
                />
              )
            })}
          </chakra.ul>
        </Box>
      </Flex>
    </Page>
  )
}
