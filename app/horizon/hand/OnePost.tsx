import { Box, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import { useNavigate } from 'react-router'
import type { Account, Brand, HandWords } from '../../../core/model'
import type { HandRow, When } from '../../../core/pipeline'
import { mondayOf } from '../../../core/planning'
import { keepHandPosts, tryHandPosts } from '../../data'
import { attempt, Button, count, DateField, Labelled, say, useKept, useLater } from '../../ui'
import { AccountsField, DayAndTime, SpreadDays, WhenField, WordsFields } from './fields'
import { Outcome, outcomeWords } from './Outcome'
import { EMPTY_WORDS, soundWords } from './words'
import { Split } from './Split'

interface Draft {
  words: HandWords
  accounts: string[]
  when: When | null
  date: string
  time: string
  earliest: string
  latest: string
}

/** One post written by hand, for the accounts that are chosen. */
export function OnePost({
  brand,
  accounts,
  today,
}: {
  brand: Brand
  accounts: readonly Account[]
  today: string
}) {
  const navigate = useNavigate()
  const [draft, setDraft, forget] = useKept<Draft>(`dripline-by-hand-${brand.id}`, {
    words: EMPTY_WORDS,
    accounts: accounts.map((a) => a.id),
    when: { kind: 'next openings' },
    date: today,
    time: '',
    earliest: '',
    latest: '',
  })
  const [busy, setBusy] = useState(false)
  const chosen = accounts.filter((a) => draft.accounts.includes(a.id))
  const row: HandRow = {
    words: soundWords(draft.words),
    accounts: chosen.map((a) => a.id),
    on: draft.when === null ? { date: draft.date, time: draft.time || null } : null,
    earliest: draft.earliest || null,
    latest: draft.latest || null,
  }
  const when: When = draft.when ?? { kind: 'next openings' }
  const asked = useLater(JSON.stringify([[row], when]), 250)
  const trying = draft.words.text.trim() !== '' && chosen.length > 0
  const made = useSWR(
    trying ? ['by hand', brand.id, asked] : null,
    () => tryHandPosts(brand.id, ...(JSON.parse(asked) as [HandRow[], When])),
    { keepPreviousData: true, revalidateOnFocus: false },
  )
  const edit = (change: Partial<Draft>): void => setDraft({ ...draft, ...change })
  const plan = (): void =>
    void attempt(async () => {
      setBusy(true)
      try {
        // Tried once more, since a minute may have gone by.
        const fresh = await tryHandPosts(brand.id, [row], when)
        await keepHandPosts(brand.id, fresh)
        const first = fresh.map((f) => f.post.at ?? '').sort()[0]
        say(`Planned: ${outcomeWords(fresh)}.`)
        forget()
        void navigate(`/horizon${first ? `?from=${mondayOf(first.slice(0, 10))}` : ''}`)
      } finally {
        setBusy(false)
      }
    })
  return (
    <Split
      form={
        <>
          <WordsFields words={draft.words} accounts={chosen} onChange={(words) => edit({ words })} />
          <AccountsField
            accounts={accounts}
            chosen={draft.accounts}
            onChange={(next) => edit({ accounts: next })}
          />
          <WhenField
            label="When"
            when={draft.when?.kind ?? 'on a day'}
            today={today}
            onChange={(next) => edit({ when: next })}
          >
            {draft.when?.kind === 'spread' && (
              <SpreadDays when={draft.when} today={today} onChange={(next) => edit({ when: next })} />
            )}
            {draft.when === null && (
              <DayAndTime
                label="Day"
                day={draft.date}
                time={draft.time}
                min={today}
                onChange={({ day = draft.date, time = draft.time }) => edit({ date: day, time })}
              />
            )}
          </WhenField>
          {draft.when?.kind !== 'now' && (
            <Flex gap="3">
              <Labelled label="Not before">
                {(id) => (
                  <DateField
                    id={id}
                    mayBeEmpty
                    value={draft.earliest}
                    onDate={(earliest) => edit({ earliest })}
                  />
                )}
              </Labelled>
              <Labelled label="Not after">
                {(id) => (
                  <DateField id={id} mayBeEmpty value={draft.latest} onDate={(latest) => edit({ latest })} />
                )}
              </Labelled>
            </Flex>
          )}
        </>
      }
      outcome={
        trying && made.data ? (
          <Outcome made={made.data} accounts={accounts} />
        ) : (
          <Box color="soft" fontSize="13px" maxW="360px">
            {made.error
              ? String((made.error as Error).message)
              : trying
                ? 'Looking for places …'
                : chosen.length === 0
                  ? 'Choose at least one account.'
                  : 'Write something, and see here where it would land on each account, and what its network says to it.'}
          </Box>
        )
      }
      foot={
        <>
          <Box flex="1" fontSize="13px" color="soft">
            {trying && made.data ? outcomeWords(made.data) : ''}
          </Box>
          <Button look="water" disabled={!trying || busy} onClick={plan}>
            {draft.when?.kind === 'now'
              ? `Send ${count(chosen.length, 'post')}`
              : `Plan ${count(chosen.length, 'post')}`}
          </Button>
        </>
      }
    />
  )
}
