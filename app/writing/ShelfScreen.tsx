import { Box, chakra, Flex } from '@chakra-ui/react'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { isShelfRow, SHELF_ORDERS } from '../../core/model'
import { accountsOf, timingWords } from '../../core/pipeline'
import { dateOf } from '../../core/planning'
import { more } from '../../core/results'
import { ordered, type Shelved } from '../../core/shelf'
import { useRows } from '../data'
import { shelve, useShelf, useTiring } from '../data/more'
import { useWork } from '../shell'
import {
  attempt,
  Button,
  Choice,
  count,
  Empty,
  Notice,
  Page,
  PageHead,
  Segments,
  shortDay,
  TextField,
  useKeys,
} from '../ui'
import { ShortTextsForm } from './ShortTextsForm'

const ROW = 92
const VIEWS = ['on it', 'off it'] as const

/** What is looked at of the shelf; the address keeps all but the search. */
function useView() {
  const [params, setParams] = useSearchParams()
  const [search, setSearch] = useState('')
  const set = (name: 'view' | 'order', value: string): void => {
    const next = new URLSearchParams(params)
    next.set(name, value)
    setParams(next, { replace: true })
  }
  return {
    view: VIEWS.find((v) => v === params.get('view')) ?? 'on it',
    order: SHELF_ORDERS.find((o) => o === params.get('order')) ?? 'the longest unseen first',
    search,
    set,
    setSearch,
  }
}
type View = ReturnType<typeof useView>

/** What may be dripped again: the passages of what was out, put on the shelf or taken off it by hand. */
export function ShelfScreen() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const laid = useShelf(brand)
  const tires = useTiring(brand.id)
  const tiring = useMemo(
    () => new Map(tires.flatMap((t) => (t.kind === 'passage' ? [[t.key, t.times.at] as const] : []))),
    [tires],
  )
  const looked = useView()
  const { view, order, search } = looked
  const [at, setAt] = useState(0)
  const wanted = useDeferredValue(search.trim().toLowerCase())
  const items = useMemo(() => laid?.shelf.items ?? [], [laid])
  const on = items.filter((i) => i.off === null)
  const shown = useMemo(
    () =>
      ordered(
        items.filter(
          (i) =>
            (view === 'on it') === (i.off === null) &&
            (!wanted || `${i.passage.text} ${i.piece.title}`.toLowerCase().includes(wanted)),
        ),
        order,
        laid?.worth ?? new Map<string, number>(),
      ),
    [items, view, wanted, order, laid],
  )
  const index = Math.min(at, shown.length - 1)
  const current = shown[index]
  useKeys({
    ArrowDown: () => setAt(Math.min(shown.length - 1, index + 1)),
    ArrowUp: () => setAt(Math.max(0, index - 1)),
    x: () => current && turn(current),
    Enter: () => current && void navigate(`/intake/${current.piece.id}`),
  })
  if (!laid) return <Page>{null}</Page>
  return (
    <Page>
      <Flex direction="column" h="full">
        <PageHead
          title="Shelf"
          note={`${count(on.length, 'passage')} of ${count(new Set(on.map((i) => i.piece.id)).size, 'piece')} may be dripped again${items.length > on.length ? `; ${count(items.length - on.length, 'stands', 'stand')} off it` : ''}.`}
        >
          <ShortTextsForm brand={brand.id} />
          <Button onClick={() => void navigate('/writing')}>Writing</Button>
        </PageHead>
        <Drippers />
        {items.length === 0 ? (
          <Empty title="Here stands what may be dripped again">
            Once a piece is out, the passages kept of it come here, as long as the piece keeps. A pipeline’s
            release row takes them from the shelf in an order of yours, after a rest, in other words each
            time.
          </Empty>
        ) : (
          <>
            <Bar looked={looked} onChange={() => setAt(0)} />
            <List shown={shown} index={index} worth={laid.worth} tiring={tiring} onAt={setAt} />
          </>
        )}
      </Flex>
    </Page>
  )
}

/** What stands above the list: which passages it shows, and in which order. */
function Bar({ looked, onChange }: { looked: View; onChange: () => void }) {
  const { view, order, search, set, setSearch } = looked
  const change = (name: 'view' | 'order') => (value: string) => {
    set(name, value)
    onChange()
  }
  return (
    <Flex px="6" pb="2" gap="3" align="center" wrap="wrap">
      <Segments label="Which passages" value={view} choices={VIEWS} onChange={change('view')} />
      <Choice
        label="In which order"
        value={order}
        options={SHELF_ORDERS.map((o) => [o, o])}
        onChange={change('order')}
      />
      <TextField
        aria-label="Search the shelf"
        placeholder="Search"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
        w="220px"
      />
      <Box ml="auto" fontSize="13px" color="soft">
        ↑ ↓ move, x {view === 'on it' ? 'takes off' : 'lets back'}, Enter opens the piece
      </Box>
    </Flex>
  )
}

/** Whether a person may take it off the shelf, or has and may let it back; what ages or is gone comes back by nobody's word. */
const mayTurn = ({ passage, off }: Shelved): boolean => off === null || passage.shelf === 'off'

/** Takes a passage off the shelf, or lets it back on. */
function turn(item: Shelved): void {
  if (mayTurn(item))
    void attempt(() => shelve([item.passage], item.off === null ? 'off' : 'left to the rows'))
}

/** The rows of pipelines that drip from the shelf, each with the way to it. */
function Drippers() {
  const { brand } = useWork()
  const pipelines = useRows('pipelines', 'brand', brand.id)
  const accounts = useRows('accounts', 'brand', brand.id)
  if (!pipelines || !accounts) return null
  const rows = pipelines
    .filter((p) => p.endedAt === null)
    .flatMap((pipeline) => pipeline.release.filter(isShelfRow).map((row) => ({ pipeline, row })))
  return (
    <Box px="6" pb="3">
      {rows.length === 0 && (
        <Notice
          tone="amber"
          action={
            <Link to="/pipelines">
              <Button as="span">Choose a pipeline</Button>
            </Link>
          }
        >
          Nothing drips from it yet. Give the release of a pipeline a row that goes “from the shelf”.
        </Notice>
      )}
      {rows.map(({ pipeline, row }) => (
        <Box key={`${pipeline.id} ${row.id}`} fontSize="14px" py="0.5">
          <Link to={`/pipelines/${pipeline.id}`}>{pipeline.name}</Link>{' '}
          {pipeline.on ? 'drips' : 'would drip, were it on,'} from {timingWords(row.by)}, to{' '}
          {accountsOf(row, accounts)
            .map((a) => `@${a.handle}`)
            .join(', ') || 'no account yet'}
          .
        </Box>
      ))}
    </Box>
  )
}

function List({
  shown,
  index,
  worth,
  tiring,
  onAt,
}: {
  shown: readonly Shelved[]
  index: number
  worth: ReadonlyMap<string, number>
  /** How many times as much each further time earns, of the passages that readers tire of. */
  tiring: ReadonlyMap<string, number>
  onAt: (index: number) => void
}) {
  const scroller = useRef<HTMLDivElement>(null)
  // The list is drawn anew when it scrolls; what it measures cannot be kept between.
  // eslint-disable-next-line react-hooks/incompatible-library
  const list = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
    getItemKey: useCallback((i: number) => shown[i]?.passage.id ?? i, [shown]),
  })
  useEffect(() => {
    if (index >= 0) list.scrollToIndex(index)
  }, [index, list])
  if (shown.length === 0)
    return (
      <Box px="6" color="soft">
        Nothing here is like that.
      </Box>
    )
  return (
    <Box
      ref={scroller}
      flex="1"
      minH="0"
      overflowY="auto"
      px="6"
      pb="6"
      tabIndex={0}
      aria-label="Passages"
      role="list"
    >
      <Box h={`${list.getTotalSize()}px`} position="relative">
        {list.getVirtualItems().map((row) => {
          const item = shown[row.index]
          return (
            item && (
              <Box
                key={row.key}
                role="listitem"
                position="absolute"
                insetX="0"
                h={`${ROW}px`}
                transform={`translateY(${row.start}px)`}
                onClick={() => onAt(row.index)}
              >
                <Line
                  item={item}
                  times={worth.get(item.passage.id) ?? null}
                  tires={tiring.get(item.passage.id) ?? null}
                  current={row.index === index}
                />
              </Box>
            )
          )
        })}
      </Box>
    </Box>
  )
}

function Line({
  item,
  times,
  tires,
  current,
}: {
  item: Shelved
  times: number | null
  tires: number | null
  current: boolean
}) {
  const { passage, piece, off, out, lastDay, nextDay } = item
  return (
    <Flex
      h="full"
      gap="4"
      align="center"
      borderBottomWidth="1px"
      borderColor="hairline"
      bg={current ? 'waterTint' : undefined}
      px="2"
      aria-current={current}
    >
      <Box flex="1" minW="0">
        <Box fontFamily="reading" lineClamp={2} lineHeight="1.4">
          {passage.text}
        </Box>
        <Box fontSize="13px" color="soft" truncate>
          {off ? (
            <chakra.span color="amberText">{off} </chakra.span>
          ) : passage.shelf === 'on' ? (
            'Put here by you. '
          ) : (
            ''
          )}
          <Link to={`/intake/${piece.id}`}>{piece.title}</Link>
        </Box>
      </Box>
      <Box w="150px" fontSize="13px" flexShrink={0}>
        {lastDay === null ? (
          <chakra.span color="soft">never out</chakra.span>
        ) : (
          <>
            out {out === 1 ? 'once' : out === 2 ? 'twice' : `${out} times`}
            <chakra.span color="soft">, {shortDay(dateOf(lastDay))}</chakra.span>
          </>
        )}
        {nextDay !== null && <Box color="waterText">comes {shortDay(dateOf(nextDay))}</Box>}
      </Box>
      <Box w="110px" fontSize="13px" flexShrink={0} color={times === null ? 'soft' : undefined}>
        {times === null ? 'not read yet' : `${times.toFixed(1)} × usual`}
        {tires !== null && (
          <Box color="amberText" lineHeight="1.2">
            tires: {more(tires)} each time
          </Box>
        )}
      </Box>
      <Box w="90px" flexShrink={0}>
        {mayTurn(item) && (
          <Button size="sm" look="quiet" onClick={() => turn(item)}>
            {off === null ? 'Take off' : 'Let back'}
          </Button>
        )}
      </Box>
    </Flex>
  )
}
