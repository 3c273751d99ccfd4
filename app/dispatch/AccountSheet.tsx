import { Box, Flex, Heading } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import useSWR from 'swr'
import { Account as AccountSchema, type Account, type Brand, type Slot } from '../../core/model'
import { network } from '../../core/networks'
import { spanOf } from '../../core/planning'
import type { BestTimes } from '../../core/results'
import { difference, saveTimes, timesOf, withTimes, type Move } from '../data'
import { learnedTimes } from '../data/more'
import {
  attempt,
  Button,
  Chips,
  count,
  Labelled,
  Notice,
  NumberField,
  say,
  SelectField,
  TimeField,
  useTyped,
  weekdayName,
} from '../ui'
import { HourTrialsPart } from './HourTrialsPart'
import { plainTimesOf, triesOf, type PlainTimes } from './plainTimes'
import { MovesBeside } from './MovesList'
import { Places } from './Places'
import { QuietDays } from './QuietDays'
import { SlotGrid } from './SlotGrid'
import { WarmUp } from './WarmUp'

const ZONES: readonly string[] = Intl.supportedValuesOf('timeZone')

/**
 * When an account may post. Changes are tried first: the sheet says which posts would move, and
 * they are applied or dropped together. `onMoves` hears of them, so that they can be drawn.
 */
export function AccountSheet({
  account,
  accounts,
  brand,
  onMoves,
  onClose,
}: {
  account: Account
  accounts: readonly Account[]
  brand: Brand
  onMoves?: (moves: readonly Move[]) => void
  onClose: () => void
}) {
  const [plain, setDraft] = useState<PlainTimes>(() => plainTimesOf(account))
  const [share, setShare] = useTyped(account.hourTrials?.share ?? 0)
  const draft = triesOf(plain, account, share)
  const [copying, setCopying] = useState(false)
  const [listed, setListed] = useState(false)
  const [learned, setLearned] = useState<string | null>(null)
  const others = accounts.filter((a) => a.id !== account.id)
  const copies = copying ? others.map((o) => ({ ...timesOf(o), slots: draft.slots, quiet: draft.quiet })) : []
  const times = [draft, ...copies]
  const changed = JSON.stringify(draft) !== JSON.stringify(timesOf(account)) || copies.length > 0
  const valid = AccountSchema.safeParse({ ...account, ...draft })
  const moves = useSWR(
    changed && valid.success ? ['difference', JSON.stringify(times)] : null,
    () =>
      difference({
        accounts: times.flatMap((t) => accounts.filter((a) => a.id === t.id).map((a) => withTimes(a, t))),
      }),
    { revalidateOnFocus: false },
  ).data
  useEffect(() => {
    onMoves?.(moves ?? [])
    return () => onMoves?.([])
  }, [moves, onMoves])
  const edit = (change: Partial<PlainTimes>): void => setDraft({ ...plain, ...change })
  const slots = [...draft.slots].sort((a, b) => a.weekday - b.weekday || spanOf(a).from - spanOf(b).from)
  const propose = async (): Promise<void> => {
    const best = await learnedTimes(account)
    if (best.found) edit({ slots: best.slots })
    else if (best.why === 'few') edit({ slots: network(account.network).slots })
    setLearned(learnedWords(best, network(account.network).name))
  }
  const save = async (): Promise<void> => {
    await attempt(async () => {
      await saveTimes(account.brand, times, moves ?? [], `Change when @${account.handle} may post`)
      setLearned(null)
      say(moves?.length ? `Kept; ${count(moves.length, 'post')} moved.` : 'Kept; no post had to move.')
      setCopying(false)
    })
  }
  return (
    <Box p="5" display="flex" flexDirection="column" gap="5">
      <Flex justify="space-between" align="center">
        <Heading as="h2" fontSize="16px" fontWeight="600">
          @{account.handle}
        </Heading>
        <Button size="sm" look="quiet" onClick={onClose}>
          Close
        </Button>
      </Flex>
      <Places account={account} accounts={accounts} />
      <Labelled label="Its time zone">
        {(id) => (
          <SelectField id={id} w="full" value={draft.zone} onChange={(e) => edit({ zone: e.target.value })}>
            {(ZONES.includes(draft.zone) ? ZONES : [draft.zone, ...ZONES]).map((z) => (
              <option key={z}>{z}</option>
            ))}
          </SelectField>
        )}
      </Labelled>
      <Box>
        <Flex justify="space-between" align="center" mb="1">
          <Heading as="h3" fontSize="14px" fontWeight="600">
            Slots
          </Heading>
          <Button size="sm" look="quiet" onClick={() => void attempt(propose)}>
            Propose the best times
          </Button>
        </Flex>
        {learned && (
          <Box mb="2">
            <Notice tone="moss">{learned}</Notice>
          </Box>
        )}
        <SlotGrid
          slots={draft.slots}
          before={account.slots}
          onChange={(next) => {
            setLearned(null)
            edit({ slots: next })
          }}
        />
        <Flex gap="2" mt="2" wrap="wrap">
          <Button size="sm" aria-expanded={listed} onClick={() => setListed(!listed)}>
            {count(slots.length, 'slot')} as a list
          </Button>
          <Button
            size="sm"
            onClick={() => {
              edit({ slots: [...slots, { weekday: 1, at: '09:00' }] })
              setListed(true)
            }}
          >
            Add a time
          </Button>
          <Button
            size="sm"
            onClick={() => {
              edit({ slots: [...slots, { weekday: 1, from: '09:00', to: '11:00' }] })
              setListed(true)
            }}
          >
            Add a window
          </Button>
        </Flex>
        {listed &&
          slots.map((slot, index) => (
            <SlotRow
              key={`${index} ${slots.length}`}
              slot={slot}
              onChange={(next) =>
                edit({ slots: slots.flatMap((s, i) => (i === index ? (next ? [next] : []) : [s])) })
              }
            />
          ))}
        <Flex gap="2" mt="2" wrap="wrap">
          {others.length > 0 && (
            <Button size="sm" look="quiet" onClick={() => setCopying(true)}>
              Copy slots and quiet days to the other {count(others.length, 'account')}
            </Button>
          )}
          {others.length > 0 && (
            <SelectField
              aria-label="Take the slots of"
              w="full"
              maxW="full"
              value=""
              onChange={(e) => {
                const from = others.find((o) => o.id === e.target.value)
                const taken = e.target.value === 'brand' ? brand.slots : from?.slots
                if (taken) edit({ slots: [...taken] })
              }}
            >
              <option value="">Take the slots of …</option>
              {brand.slots.length > 0 && <option value="brand">{brand.name}</option>}
              {others.map((o) => (
                <option key={o.id} value={o.id}>
                  @{o.handle}, {network(o.network).name}
                </option>
              ))}
            </SelectField>
          )}
        </Flex>
      </Box>
      <HourTrialsPart account={account} share={share} onChange={setShare} />
      <QuietDays days={draft.quiet} onChange={(quiet) => edit({ quiet })} />
      <Flex gap="3">
        <NumberField
          label="Most a day"
          value={draft.maxPerDay}
          onChange={(maxPerDay) => edit({ maxPerDay })}
        />
        <NumberField
          label="Most a week"
          value={draft.maxPerWeek}
          onChange={(maxPerWeek) => edit({ maxPerWeek })}
        />
        <NumberField
          label="Gap, minutes"
          value={draft.gapMinutes}
          onChange={(gapMinutes) => edit({ gapMinutes })}
        />
      </Flex>
      <Box>
        <Heading as="h3" fontSize="14px" fontWeight="600" mb="1">
          Groups
        </Heading>
        <Chips label="Groups" values={draft.groups} onChange={(groups) => edit({ groups })} />
        <Box fontSize="12px" color="soft" mt="1">
          Names under which several accounts are chosen at once, here and in sheets of posts.
        </Box>
      </Box>
      <WarmUp
        opened={draft.openedOn}
        steps={draft.warmUp}
        proposed={network(account.network).warmUp}
        onChange={edit}
      />
      {changed && (
        <Box position="sticky" bottom="0" bg="raised" borderTopWidth="1px" borderColor="hairline" pt="3">
          {!valid.success && <Notice tone="plum">Not right yet: {valid.error.issues[0]?.message}.</Notice>}
          {moves && (
            <MovesBeside
              moves={moves}
              zoneOf={(id) => (id === draft.id ? draft : others.find((o) => o.id === id))?.zone ?? draft.zone}
              more={copies.length ? ` Slots are copied to ${count(copies.length, 'other account')}.` : ''}
            />
          )}
          <Flex gap="2" justify="flex-end" mt="2">
            <Button
              onClick={() => {
                setDraft(plainTimesOf(account))
                setShare(account.hourTrials?.share ?? 0)
                setCopying(false)
              }}
            >
              Drop
            </Button>
            <Button look="water" disabled={!valid.success || moves === undefined} onClick={() => void save()}>
              Apply
            </Button>
          </Flex>
        </Box>
      )}
    </Box>
  )
}

function SlotRow({ slot, onChange }: { slot: Slot; onChange: (slot: Slot | null) => void }) {
  return (
    <Flex gap="2" align="center" py="0.5">
      <SelectField
        aria-label="Weekday"
        w="64px"
        value={slot.weekday}
        onChange={(e) => onChange({ ...slot, weekday: Number(e.target.value) })}
      >
        {[1, 2, 3, 4, 5, 6, 7].map((d) => (
          <option key={d} value={d}>
            {weekdayName(d)}
          </option>
        ))}
      </SelectField>
      {'at' in slot ? (
        <TimeField label="Time" value={slot.at} onChange={(at) => onChange({ ...slot, at })} />
      ) : (
        <>
          <TimeField
            label="From"
            value={slot.from}
            onChange={(from) => onChange({ ...slot, from, to: from > slot.to ? from : slot.to })}
          />
          to
          <TimeField
            label="To"
            value={slot.to}
            onChange={(to) => onChange({ ...slot, to, from: to < slot.from ? to : slot.from })}
          />
        </>
      )}
      <Button size="sm" look="quiet" aria-label="Remove this slot" onClick={() => onChange(null)}>
        ×
      </Button>
    </Flex>
  )
}

/** What speaks for the slots that are proposed, in a sentence. */
function learnedWords(best: BestTimes, networkName: string): string {
  if (!best.found)
    return best.why === 'few'
      ? `${count(best.posts, 'post')} on ${networkName} ${best.posts === 1 ? 'is' : 'are'} too few to learn from. These are the times that suit ${networkName} in general.`
      : `Learned from ${count(best.posts, 'post')}: nothing is known to be better than the slots of today.`
  const { gain, moved, posts, from } = best
  const part = (times: number): number => Math.round((times - 1) * 100)
  const whose = from === 'account' ? 'of this account' : `on ${networkName}, since this account has few`
  return `Learned from ${count(posts, 'post')} ${whose}: with ${count(moved, 'slot')} at another hour the mean post is seen ${part(gain.at)} % more (${part(gain.low)} to ${part(gain.high)} %). Hollow marks are the slots of today.`
}
