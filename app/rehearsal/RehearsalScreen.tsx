import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import { useNavigate, useSearchParams } from 'react-router'
import { asFault } from '../../core/model'
import { addDays, toWall } from '../../core/planning'
import type { Change, Comparison } from '../../core/rehearsal'
import { clockNow, during, takeOver, tryRehearsal, useOpenAccounts, useRows } from '../data'
import { differenceWords, MovesList } from '../dispatch'
import { useWork } from '../shell'
import { attempt, Button, count, FootStrip, LinkFirst, Page, PageHead, say, Segments, useKeys } from '../ui'
import { ChangeForm, changeWords } from './ChangeForm'
import { Compared } from './Compared'
import { Strips } from './Strips'

const MONTHS = ['3', '6', '12'] as const

/** The coming months played in advance: as they are planned, and with changes beside it. */
export function RehearsalScreen() {
  const { brand } = useWork()
  const navigate = useNavigate()
  const [params, setParams] = useSearchParams()
  const [changes, setChanges] = useState<readonly Change[]>([])
  const [busy, setBusy] = useState(false)
  const [listed, setListed] = useState(false)
  const accounts = useOpenAccounts(brand.id)
  const pipelines = useRows('pipelines', 'brand', brand.id)
  const posts = useRows('posts', 'brand', brand.id)
  const months = MONTHS.find((m) => m === params.get('months')) ?? '6'
  const arrivals = params.get('pieces') !== 'none'
  const today = toWall(clockNow(), brand.zone).date
  const to = addDays(today, Number(months) * 30)
  const asked = { from: today, to, changes, arrivals }
  // Posts are counted, so that it is played anew when some came or went.
  const played = useSWR(
    accounts?.length ? ['rehearsal', brand.id, JSON.stringify(asked), posts?.length] : null,
    () => tryRehearsal(brand.id, asked),
    { keepPreviousData: true, revalidateOnFocus: false },
  )
  const set = (key: string, value: string | null): void =>
    setParams(
      (before) => {
        const next = new URLSearchParams(before)
        if (value) next.set(key, value)
        else next.delete(key)
        return next
      },
      { replace: true, flushSync: true },
    )
  useKeys({ Escape: () => void navigate('/horizon') })
  if (!accounts || !pipelines) return <Page>{null}</Page>
  const zoneOf = (id: string): string => accounts.find((a) => a.id === id)?.zone ?? brand.zone
  const living = pipelines.filter((p) => p.endedAt === null)
  const changed = changes.length > 0
  const take = (): void =>
    void attempt(async () => {
      if (!played.data) return
      setBusy(true)
      try {
        const fresh = await tryRehearsal(brand.id, asked)
        const missed = await during('Taking the rehearsal over', (show) =>
          takeOver(brand.id, changes, fresh, show),
        )
        say(
          `Taken over: ${count(fresh.moves.length, 'post')} moved${fresh.wanted.length ? `, ${count(fresh.wanted.length - missed, 'post')} written for review` : ''}${missed ? `; for ${missed} no caption could be made` : ''}.`,
        )
        setChanges([])
      } finally {
        setBusy(false)
      }
    })
  return (
    <Page
      side={
        accounts.length > 0 ? (
          <Flex direction="column" gap="5" p="5">
            <Box>
              <Box fontWeight="600" mb="2">
                The changes
              </Box>
              {!changed && (
                <Box color="soft" fontSize="13px" mb="3">
                  Try a change and see what would become of the months to come. Nothing is kept until you take
                  it over.
                </Box>
              )}
              {changes.map((change, i) => (
                <Flex key={i} align="center" gap="2" py="1.5" borderTopWidth="1px" borderColor="hairline">
                  <Box flex="1" fontSize="14px">
                    {changeWords(change, accounts, pipelines)}
                  </Box>
                  <Button
                    size="sm"
                    look="quiet"
                    aria-label={`Without “${changeWords(change, accounts, pipelines)}”`}
                    onClick={() => setChanges(changes.filter((_, k) => k !== i))}
                  >
                    ×
                  </Button>
                </Flex>
              ))}
            </Box>
            <ChangeForm
              key={changes.length}
              brand={brand}
              accounts={accounts}
              pipelines={living}
              today={today}
              onAdd={(change) => setChanges([...changes, change])}
            />
          </Flex>
        ) : undefined
      }
    >
      <Flex direction="column" h="full">
        <PageHead
          title="Rehearsal"
          note={`The months to come of ${brand.name}, played in advance. Nothing is published.`}
        >
          <Segments
            label="How far"
            choices={MONTHS}
            words={(m) => `${m} months`}
            value={months}
            onChange={(m) => set('months', m === '6' ? null : m)}
          />
          <chakra.label display="flex" alignItems="center" gap="2" fontSize="13px" cursor="pointer">
            <input
              type="checkbox"
              checked={arrivals}
              onChange={() => set('pieces', arrivals ? 'none' : null)}
            />
            New pieces come in as lately
          </chakra.label>
          <Button hint="Esc" onClick={() => void navigate('/horizon')}>
            Back to the Horizon
          </Button>
        </PageHead>
        {accounts.length === 0 ? (
          <LinkFirst title="There is nothing to play yet">
            Link an account and start a drip; then you can see here how the months to come would go, and how
            they would go otherwise.
          </LinkFirst>
        ) : (
          <Box
            flex="1"
            minH="0"
            overflowY="auto"
            px="6"
            pb="5"
            tabIndex={0}
            role="region"
            aria-label="The months to come"
          >
            {played.error && <Box color="plumText">{asFault(played.error).message}</Box>}
            {!played.data && !played.error && <Box color="soft">Playing the months to come …</Box>}
            {played.data && (
              <Flex direction="column" gap="6" opacity={played.isLoading ? 0.6 : 1}>
                <Strips played={played.data} changed={changed} />
                <Compared brand={brand.id} played={played.data} pipelines={pipelines} changed={changed} />
              </Flex>
            )}
          </Box>
        )}
        {changed && listed && played.data && played.data.moves.length > 0 && (
          <Box px="6" py="2" bg="raised" borderTopWidth="1px" borderColor="hairline" flexShrink={0}>
            <MovesList moves={played.data.moves} zoneOf={zoneOf} />
          </Box>
        )}
        {changed && (
          <FootStrip>
            <Box flex="1" fontSize="13px" aria-live="polite">
              {played.data && !played.isLoading ? movesWords(played.data) : 'Playing …'}
            </Box>
            <Button
              look="quiet"
              aria-expanded={listed}
              disabled={!played.data?.moves.length}
              onClick={() => setListed(!listed)}
            >
              {listed ? 'Hide them' : 'Show them'}
            </Button>
            <Button onClick={() => setChanges([])}>Drop</Button>
            <Button look="water" disabled={busy || played.isLoading || !played.data} onClick={take}>
              Take it over
            </Button>
          </FootStrip>
        )}
      </Flex>
    </Page>
  )
}

/** What the changes would do to what stands, and what would have to be written. */
function movesWords({ moves, dropped, wanted }: Pick<Comparison, 'moves' | 'dropped' | 'wanted'>): string {
  const parts = [
    moves.length ? differenceWords(moves) : 'no post moves',
    dropped.length ? `${count(dropped.length, 'post')} would not go out` : null,
    wanted.length ? `${count(wanted.length, 'post')} would be written` : null,
  ]
  return `Of what stands, ${parts.filter(Boolean).join('; ')}.`
}
