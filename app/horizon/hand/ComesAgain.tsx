import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import { asFault, type Account, type Brand, type HandWords, type Recurrence } from '../../../core/model'
import { recurringOf, ruleOf, ruleWords, type Recurring } from '../../../core/planning'
import { useRows } from '../../data'
import {
  changeRecurrence,
  startRecurrence,
  tryRecurrence,
  type Changed,
  type RecurrenceDraft,
} from '../../data/more'
import { Holding } from '../../shell'
import {
  attempt,
  Button,
  count,
  DateField,
  Labelled,
  Mono,
  NetworkMark,
  NumberField,
  say,
  SelectField,
  TextField,
  useKept,
  useLater,
  weekdayName,
} from '../../ui'
import { AccountsField, DayAndTime, WordsFields } from './fields'
import { EMPTY_WORDS, soundWords } from './words'
import { Outcome, outcomeWords } from './Outcome'
import { Split } from './Split'

interface Draft {
  words: HandWords
  accounts: string[]
  from: string
  time: string
  every: Recurring
  /** A rule written out, where one is; it then counts in place of `every`. */
  rule: string | null
  /** The recurring post that is changed; null where a new one is begun. */
  changes: string | null
}

const FIRST = { unit: 'WEEKLY', interval: 1, weekdays: [], monthly: 'day', end: null } as const

const UNITS: readonly [Recurring['unit'], string][] = [
  ['DAILY', 'day'],
  ['WEEKLY', 'week'],
  ['MONTHLY', 'month'],
  ['YEARLY', 'year'],
]

/** Posts that come again by a rule: those there are, and a new one. */
export function ComesAgain({
  brand,
  accounts,
  today,
}: {
  brand: Brand
  accounts: readonly Account[]
  today: string
}) {
  const standing = useRows('recurrences', 'brand', brand.id)
  const [draft, setDraft] = useKept<Draft>(`dripline-again-${brand.id}`, {
    words: EMPTY_WORDS,
    accounts: accounts.slice(0, 1).map((a) => a.id),
    from: today,
    time: '',
    every: FIRST,
    rule: null,
    changes: null,
  })
  const changed = standing?.find((r) => r.id === draft.changes && r.endedAt === null) ?? null
  const [busy, setBusy] = useState(false)
  const edit = (change: Partial<Draft>): void => setDraft({ ...draft, ...change })
  const every = (change: Partial<Recurring>): void => edit({ every: { ...draft.every, ...change } })
  const chosen = accounts.filter((a) => draft.accounts.includes(a.id))
  const asks: RecurrenceDraft = {
    words: soundWords(draft.words),
    accounts: chosen.map((a) => a.id),
    rule: draft.rule ?? ruleOf(draft.every, draft.from),
    from: draft.from,
    time: draft.time || null,
  }
  const asked = useLater(JSON.stringify({ draft: asks, id: changed?.id ?? null }), 300)
  const trying = draft.words.text.trim() !== '' && chosen.length > 0
  const made = useSWR(
    trying ? ['again', brand.id, asked] : null,
    () => {
      const { draft: tried, id } = JSON.parse(asked) as { draft: RecurrenceDraft; id: string | null }
      return tryRecurrence(brand.id, tried, id)
    },
    { keepPreviousData: true, revalidateOnFocus: false, shouldRetryOnError: false },
  )
  const words = said(asks.rule)
  const begin = (): void =>
    void attempt(async () => {
      setBusy(true)
      try {
        if (changed) say(changedWords(await changeRecurrence(changed.id, asks)))
        else {
          await startRecurrence(brand.id, asks)
          say(`It comes ${words}. The posts of the next eight weeks stand on the Horizon.`)
        }
        edit({ words: EMPTY_WORDS, changes: null })
      } finally {
        setBusy(false)
      }
    })
  return (
    <Split
      form={
        <>
          {/* What is taken into the form comes into view with its words. */}
          <WordsFields
            key={changed?.id ?? 'new'}
            words={draft.words}
            accounts={chosen}
            onChange={(next) => edit({ words: next })}
          />
          <AccountsField
            accounts={accounts}
            chosen={draft.accounts}
            onChange={(next) => edit({ accounts: next })}
          />
          <Flex gap="3" align="flex-end" wrap="wrap">
            <DayAndTime
              label="First day"
              day={draft.from}
              time={draft.time}
              onChange={({ day = draft.from, time = draft.time }) => edit({ from: day, time })}
            />
            {draft.rule === null && (
              <>
                <NumberField
                  label="Every"
                  value={draft.every.interval}
                  min={1}
                  max={99}
                  onChange={(interval) => interval >= 1 && every({ interval: Math.round(interval) })}
                />
                <SelectField
                  aria-label="Unit"
                  value={draft.every.unit}
                  onChange={(e) => every({ unit: e.target.value as Recurring['unit'] })}
                >
                  {UNITS.map(([unit, name]) => (
                    <option key={unit} value={unit}>
                      {draft.every.interval === 1 ? name : `${name}s`}
                    </option>
                  ))}
                </SelectField>
              </>
            )}
          </Flex>
          {draft.rule === null && draft.every.unit === 'WEEKLY' && (
            <Flex gap="3" role="group" aria-label="On">
              {[1, 2, 3, 4, 5, 6, 7].map((d) => (
                <chakra.label key={d} display="flex" gap="1" fontSize="13px" cursor="pointer">
                  <input
                    type="checkbox"
                    checked={draft.every.weekdays.includes(d)}
                    onChange={() =>
                      every({
                        weekdays: draft.every.weekdays.includes(d)
                          ? draft.every.weekdays.filter((w) => w !== d)
                          : [...draft.every.weekdays, d],
                      })
                    }
                  />
                  {weekdayName(d)}
                </chakra.label>
              ))}
            </Flex>
          )}
          {draft.rule === null && draft.every.unit === 'MONTHLY' && (
            <SelectField
              aria-label="On which day of the month"
              w="260px"
              value={draft.every.monthly}
              onChange={(e) => every({ monthly: e.target.value as Recurring['monthly'] })}
            >
              <option value="day">on that day of the month</option>
              <option value="weekday">on that weekday of the month</option>
            </SelectField>
          )}
          <Flex gap="3" align="flex-end" wrap="wrap">
            {draft.rule === null ? (
              <>
                <Labelled label="Until">
                  {(id) => (
                    <DateField
                      id={id}
                      mayBeEmpty
                      min={draft.from}
                      value={draft.every.end && 'until' in draft.every.end ? draft.every.end.until : ''}
                      onDate={(until) => every({ end: until ? { until } : null })}
                    />
                  )}
                </Labelled>
                <Button size="sm" look="quiet" onClick={() => edit({ rule: asks.rule })}>
                  Write the rule out
                </Button>
              </>
            ) : (
              <>
                <Box flex="1">
                  <Labelled label="Rule, as calendars write it (RFC 5545)">
                    {(id) => (
                      <TextField
                        id={id}
                        w="full"
                        fontFamily="mono"
                        value={draft.rule ?? ''}
                        onChange={(e) => edit({ rule: e.target.value })}
                      />
                    )}
                  </Labelled>
                </Box>
                <Button size="sm" look="quiet" onClick={() => edit({ rule: null })}>
                  Back to the form
                </Button>
              </>
            )}
          </Flex>
          <Standing
            rows={standing ?? []}
            accounts={accounts}
            changed={changed?.id ?? null}
            onChange={(r) => {
              const every = recurringOf(r.rule, r.from)
              setDraft({
                words: r.words,
                accounts: r.accounts,
                from: r.from,
                time: r.time ?? '',
                every: every ?? FIRST,
                rule: every ? null : r.rule,
                changes: r.id,
              })
            }}
          />
        </>
      }
      outcome={
        trying && made.data && !made.error ? (
          <>
            <Box color="soft" fontSize="13px" pb="2">
              The next eight weeks; later ones are made as time goes on.
            </Box>
            <Outcome made={made.data} accounts={accounts} />
          </>
        ) : (
          <Box color={made.error ? 'clayText' : 'soft'} fontSize="13px" maxW="360px">
            {made.error
              ? asFault(made.error).message
              : 'What comes again says the same words each time: an opening hour, a reminder, an invitation. Write it once, and see here on which days it would stand.'}
          </Box>
        )
      }
      foot={
        <>
          <Box flex="1" fontSize="13px" color="soft">
            {words}
            {trying && made.data && !made.error ? ` · ${outcomeWords(made.data)} in eight weeks` : ''}
          </Box>
          {changed && (
            <Button onClick={() => edit({ words: EMPTY_WORDS, changes: null })}>Leave it as it is</Button>
          )}
          <Button
            look="water"
            disabled={!trying || busy || !made.data || made.data.length === 0 || Boolean(made.error)}
            onClick={begin}
          >
            {changed ? 'Change its posts to come' : 'Let it come again'}
          </Button>
        </>
      }
    />
  )
}

/** A rule in words, or what is wrong with it. */
function said(rule: string): string {
  try {
    return ruleWords(rule)
  } catch (error) {
    return asFault(error).message
  }
}

/** What a change came to: "8 posts were written anew; 1 that was edited by hand stays as it is." */
function changedWords({ written, gone, left }: Changed): string {
  return [
    `${count(written, 'post')} ${written === 1 ? 'was' : 'were'} written anew`,
    gone ? `${count(gone, 'post')} fell away` : null,
    left
      ? `${count(left, 'post')} edited by hand ${left === 1 ? 'stays as it is' : 'stay as they are'}`
      : null,
  ]
    .filter(Boolean)
    .join('; ')
    .concat('.')
}

/** The recurring posts there are, with how they go on. */
function Standing({
  rows,
  accounts,
  changed,
  onChange,
}: {
  rows: readonly Recurrence[]
  accounts: readonly Account[]
  /** The one that stands in the form. */
  changed: string | null
  onChange: (recurrence: Recurrence) => void
}) {
  if (rows.length === 0) return null
  return (
    <Box mt="2">
      <Heading as="h2" fontSize="14px" fontWeight="600" mb="1">
        {count(rows.length, 'recurring post')}
      </Heading>
      {rows.map((r) => (
        <Flex key={r.id} gap="3" align="center" py="2" borderTopWidth="1px" borderColor="hairline">
          <Box flex="1" minW="0">
            <Box fontFamily="reading" truncate>
              {r.words.text}
            </Box>
            <Flex gap="2" align="center" fontSize="12px" color="soft">
              {r.accounts.map((id) => {
                const account = accounts.find((a) => a.id === id)
                return account ? <NetworkMark key={id} id={account.network} /> : null
              })}
              <Mono>
                {said(r.rule)}
                {r.time ? `, ${r.time}` : ''}
                {r.endedAt ? ' · ended' : r.held ? ' · held' : ''}
              </Mono>
            </Flex>
          </Box>
          {r.endedAt === null && (
            <Button disabled={r.id === changed} onClick={() => onChange(r)}>
              {r.id === changed ? 'In the form' : 'Change'}
            </Button>
          )}
          <Holding
            what={{ table: 'recurrences', id: r.id, brand: r.brand, name: 'the recurring post' }}
            held={r.held}
            endedAt={r.endedAt}
          />
        </Flex>
      ))}
    </Box>
  )
}
