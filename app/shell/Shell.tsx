import { Box, Flex, Spinner } from '@chakra-ui/react'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { Outlet, useNavigate } from 'react-router'
import {
  boot,
  claim,
  restartDemo,
  type Boot,
  useClock,
  useTable,
  startRunner,
  useActivity,
  undo,
} from '../data'
import { attempt, Button, Messages, Notice, say, useKeys } from '../ui'
import { BrandMenu } from './BrandMenu'
import { ClockControl } from './ClockControl'
import { KeysHelp } from './KeysHelp'
import { Line } from './Line'
import { notify } from './notify'
import { useNumbers } from './numbers'
import { STATIONS } from './stations'
import { Welcome } from './Welcome'
import { useWork, WorkContext, type Work } from './work'

const CHOSEN = 'dripline-brand'

/** The frame of every screen: the line, the messages, and the runner behind them. */
export function Shell() {
  const [started, setStarted] = useState<Boot | null>(null)
  const [broken, setBroken] = useState<string | null>(null)
  const [chosen, setChosen] = useState(() => localStorage.getItem(CHOSEN))
  const unsorted = useTable('brands')
  // The oldest brand is the first one.
  const brands = useMemo(
    () => unsorted && [...unsorted].sort((a, b) => (a.createdAt < b.createdAt ? -1 : 1)),
    [unsorted],
  )
  const workspaces = useTable('workspace')
  useEffect(() => {
    boot().then(setStarted, (error: unknown) =>
      setBroken(error instanceof Error ? error.message : String(error)),
    )
  }, [])
  const onClaimed = useCallback((owned: Boot['owned']) => setStarted((s) => (s ? { ...s, owned } : s)), [])
  const workspace = workspaces?.[0]
  const brand = brands?.find((b) => b.id === chosen) ?? brands?.[0]
  const work = useMemo<Work | null>(
    () =>
      brand && brands && workspace
        ? {
            brand,
            brands,
            workspace,
            chooseBrand: (id) => {
              localStorage.setItem(CHOSEN, id)
              setChosen(id)
            },
          }
        : null,
    [brand, brands, workspace],
  )
  if (broken) return <Box p="6">{broken}</Box>
  if (!work) {
    if (started && brands?.length === 0)
      return (
        <Welcome
          onMade={(id) => {
            localStorage.setItem(CHOSEN, id)
            setChosen(id)
          }}
        />
      )
    return (
      <Flex h="full" align="center" justify="center" gap="3" color="soft">
        <Spinner size="sm" /> Opening the workshop …
      </Flex>
    )
  }
  return (
    <WorkContext.Provider value={work}>
      <Frame started={started} onClaimed={onClaimed} />
    </WorkContext.Provider>
  )
}

function Frame({ started, onClaimed }: { started: Boot | null; onClaimed: (owned: Boot['owned']) => void }) {
  const work = useWork()
  const numbers = useNumbers(work)
  const navigate = useNavigate()
  const [trouble, setTrouble] = useState<string | null>(null)
  const { away } = useClock()
  const owned = started?.owned === 'here'
  useEffect(
    () =>
      owned
        ? startRunner((fault) => {
            if (fault?.code === 'wrong-workspace') onClaimed('elsewhere')
            else setTrouble(fault?.message ?? null)
          }, notify)
        : undefined,
    [owned, onClaimed],
  )
  const undoLast = async (): Promise<void> => {
    const label = await undo(work.brand.id)
    say(label ? `Undone: ${label.slice(0, 1).toLowerCase()}${label.slice(1)}.` : 'There is nothing to undo.')
  }
  useKeys({
    ...Object.fromEntries(STATIONS.map((s) => [s.key, () => void navigate(s.path)])),
    'mod+z': () => void attempt(undoLast),
    b: () => {
      const at = work.brands.findIndex((b) => b.id === work.brand.id)
      const next = work.brands[(at + 1) % work.brands.length]
      if (!next || next.id === work.brand.id) return
      work.chooseBrand(next.id)
      void navigate('/')
      say(next.name)
    },
  })
  return (
    <Flex direction="column" h="full" _print={{ display: 'block' }}>
      <Flex
        as="header"
        _print={{ display: 'none' }}
        h="76px"
        flexShrink={0}
        align="center"
        bg="raised"
        borderBottomWidth="1px"
        borderColor="hairline"
        px="3"
        gap="2"
      >
        <BrandMenu />
        <Line numbers={numbers} />
        <ClockControl zone={work.brand.zone} />
        <KeysHelp />
      </Flex>
      <Banners started={started} onClaimed={onClaimed} trouble={away ?? trouble} />
      <Outlet />
      <Foot />
    </Flex>
  )
}

function Banners({
  started,
  onClaimed,
  trouble,
}: {
  started: Boot | null
  onClaimed: (owned: Boot['owned']) => void
  trouble: string | null
}) {
  if (started?.otherDemo)
    return (
      <Notice
        tone="clay"
        action={<Button onClick={() => void attempt(restartDemo)}>Start the demo again</Button>}
      >
        The stand-in world plays another demo than this browser holds, so nothing here matches it.
      </Notice>
    )
  if (started?.owned === 'elsewhere')
    return (
      <Notice
        tone="clay"
        action={
          <Button
            onClick={() => void attempt(async () => onClaimed(await claim(started.workspace.id, true)))}
          >
            Take it over here
          </Button>
        }
      >
        Another browser owns this server’s spool. You can look and write here; publishing goes on there.
      </Notice>
    )
  return trouble ? <Notice tone="amber">{trouble}</Notice> : null
}

/** Messages and work in progress, over the foot of the page while there are any: nothing shifts, and what lies under them can be clicked. */
function Foot() {
  const activity = useActivity()
  return (
    <Flex
      position="fixed"
      left="3"
      bottom="3"
      maxW="min(720px, calc(100vw - 24px))"
      zIndex="toast"
      pointerEvents="none"
      _print={{ display: 'none' }}
      align="stretch"
      borderRadius="md"
      overflow="hidden"
      css={{ '&:has(> * > *)': RAISED }}
    >
      <Messages />
      {activity && (
        <Flex
          role="status"
          align="center"
          gap="3"
          bg="waterTint"
          px="4"
          minH="10"
          fontSize="13px"
          whiteSpace="nowrap"
        >
          <Spinner size="xs" />
          <Box>{activity.label}</Box>
          {activity.all > 0 && (
            <Box fontFamily="mono" fontSize="12px">
              {activity.done} of {activity.all}
            </Box>
          )}
          {activity.cancel && (
            <Button size="sm" pointerEvents="auto" onClick={activity.cancel}>
              Cancel
            </Button>
          )}
        </Flex>
      )}
    </Flex>
  )
}

/** How the strip looks while it says something. */
const RAISED = {
  bg: 'raised',
  boxShadow: '0 0 0 1px var(--chakra-colors-hairline), 0 4px 16px rgb(0 0 0 / 12%)',
}
