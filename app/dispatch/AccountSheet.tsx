import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import { Account as AccountSchema, type Account, type QuietDay, type Slot } from '../../core/model'
import { network } from '../../core/networks'
import { saveAccounts, difference, type Move } from '../data'
import {
  attempt,
  Button,
  count,
  Labelled,
  moment,
  Notice,
  say,
  SelectField,
  NumberField,
  TextField,
  TimeField,
  weekdayName,
} from '../ui'

const ZONES: readonly string[] = Intl.supportedValuesOf('timeZone')

/**
 * When an account may post. Changes are tried first: the sheet says which posts would move, and
 * they are applied or dropped together.
 */
export function AccountSheet({
  account,
  accounts,
  onClose,
}: {
  account: Account
  accounts: readonly Account[]
  onClose: () => void
}) {
  const [draft, setDraft] = useState(account)
  const [copying, setCopying] = useState(false)
  const others = accounts.filter((a) => a.id !== account.id)
  const copies = copying ? others.map((o) => ({ ...o, slots: draft.slots, quiet: draft.quiet })) : []
  const changed = JSON.stringify(draft) !== JSON.stringify(account) || copies.length > 0
  const valid = AccountSchema.safeParse(draft)
  const moves = useSWR(
    changed && valid.success ? ['difference', JSON.stringify([draft, copies])] : null,
    () => difference({ accounts: [draft, ...copies] }),
    { revalidateOnFocus: false },
  ).data
  const edit = (change: Partial<Account>): void => setDraft({ ...draft, ...change })
  const slots = [...draft.slots].sort((a, b) => a.weekday - b.weekday || (startOf(a) < startOf(b) ? -1 : 1))
  const save = async (): Promise<void> => {
    await attempt(async () => {
      await saveAccounts([draft, ...copies], moves ?? [], `Change when @${account.handle} may post`)
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
          <Button size="sm" look="quiet" onClick={() => edit({ slots: network(account.network).slots })}>
            Propose
          </Button>
        </Flex>
        {slots.map((slot, index) => (
          <SlotRow
            key={`${index} ${slots.length}`}
            slot={slot}
            onChange={(next) =>
              edit({ slots: slots.flatMap((s, i) => (i === index ? (next ? [next] : []) : [s])) })
            }
          />
        ))}
        <Flex gap="2" mt="2">
          <Button size="sm" onClick={() => edit({ slots: [...slots, { weekday: 1, at: '09:00' }] })}>
            Add a time
          </Button>
          <Button
            size="sm"
            onClick={() => edit({ slots: [...slots, { weekday: 1, from: '09:00', to: '11:00' }] })}
          >
            Add a window
          </Button>
        </Flex>
        {others.length > 0 && (
          <Button size="sm" look="quiet" mt="2" onClick={() => setCopying(true)}>
            Copy slots and quiet days to the other {count(others.length, 'account')}
          </Button>
        )}
      </Box>
      <Quiet days={draft.quiet} onChange={(quiet) => edit({ quiet })} />
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
      {changed && (
        <Box position="sticky" bottom="0" bg="raised" borderTopWidth="1px" borderColor="hairline" pt="3">
          {!valid.success && <Notice tone="plum">Not right yet: {valid.error.issues[0]?.message}.</Notice>}
          {moves && <Difference moves={moves} zone={draft.zone} copies={copies.length} />}
          <Flex gap="2" justify="flex-end" mt="2">
            <Button
              onClick={() => {
                setDraft(account)
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

function startOf(slot: Slot): string {
  return 'at' in slot ? slot.at : slot.from
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

function Quiet({ days, onChange }: { days: readonly QuietDay[]; onChange: (days: QuietDay[]) => void }) {
  const [date, setDate] = useState('')
  const [every, setEvery] = useState(false)
  const weekdays = days.flatMap((d) => ('weekday' in d ? [d.weekday] : []))
  const rest = days.filter((d) => !('weekday' in d))
  return (
    <Box>
      <Heading as="h3" fontSize="14px" fontWeight="600" mb="1">
        Quiet days
      </Heading>
      <Flex gap="1" wrap="wrap" role="group" aria-label="Quiet weekdays">
        {[1, 2, 3, 4, 5, 6, 7].map((d) => (
          <Button
            key={d}
            size="sm"
            aria-pressed={weekdays.includes(d)}
            look={weekdays.includes(d) ? 'water' : 'plain'}
            onClick={() =>
              onChange(
                weekdays.includes(d)
                  ? days.filter((q) => !('weekday' in q && q.weekday === d))
                  : [...days, { weekday: d }],
              )
            }
          >
            {weekdayName(d)}
          </Button>
        ))}
      </Flex>
      {rest.map((q) => (
        <Flex key={JSON.stringify(q)} align="center" gap="2" mt="1" fontSize="13px">
          <Box flex="1">
            {'date' in q
              ? q.date
              : 'yearly' in q
                ? `every year on ${q.yearly}`
                : 'from' in q
                  ? `${q.from} to ${q.to}`
                  : ''}
          </Box>
          <Button
            size="sm"
            look="quiet"
            aria-label="Remove this quiet day"
            onClick={() => onChange(days.filter((d) => d !== q))}
          >
            ×
          </Button>
        </Flex>
      ))}
      <Flex gap="2" mt="2" align="center">
        <TextField
          aria-label="A quiet date"
          type="date"
          value={date}
          onChange={(e) => setDate(e.target.value)}
        />
        <chakra.label display="flex" gap="1" fontSize="13px" alignItems="center">
          <input type="checkbox" checked={every} onChange={(e) => setEvery(e.target.checked)} /> every year
        </chakra.label>
        <Button
          size="sm"
          disabled={!date}
          onClick={() => {
            onChange([...days, every ? { yearly: date.slice(5) } : { date }])
            setDate('')
          }}
        >
          Add
        </Button>
      </Flex>
    </Box>
  )
}

function Difference({ moves, zone, copies }: { moves: readonly Move[]; zone: string; copies: number }) {
  return (
    <Box fontSize="13px">
      <b>{moves.length === 0 ? 'No post moves.' : `${count(moves.length, 'post moves', 'posts move')}.`}</b>
      {copies > 0 && ` Slots are copied to ${count(copies, 'other account')}.`}
      <Box maxH="150px" overflowY="auto" mt="1" tabIndex={0} role="region" aria-label="Posts that move">
        {moves.map((m) => (
          <Box key={m.post.id} py="0.5">
            <chakra.span fontFamily="reading">{m.post.wording.text.slice(0, 36)}…</chakra.span>
            <Box fontFamily="mono" fontSize="11px" color="soft">
              {m.from ? moment(m.from, zone) : 'no place'} → {m.to ? moment(m.to, zone) : 'no place'}
            </Box>
          </Box>
        ))}
      </Box>
    </Box>
  )
}
