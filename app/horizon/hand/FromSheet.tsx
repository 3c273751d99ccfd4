import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import { useNavigate } from 'react-router'
import { emptyPostSheet, POST_FIELDS, type PostSheetReading, type SheetTable } from '../../../core/formats'
import { asFault, type Account, type Brand } from '../../../core/model'
import type { When } from '../../../core/pipeline'
import { mondayOf } from '../../../core/planning'
import { download, keepHandPosts, openPostSheet, readPosts, tryHandPosts } from '../../data'
import { attempt, Button, count, FileButton, Labelled, Notice, say, SelectField, useLater } from '../../ui'
import { AccountsField, SpreadDays, WhenField } from './fields'
import { Outcome, outcomeWords } from './Outcome'
import { Split } from './Split'

/** Many posts out of a sheet: its columns, what cannot be taken and why, and where the rest would land. */
export function FromSheet({
  brand,
  accounts,
  today,
}: {
  brand: Brand
  accounts: readonly Account[]
  today: string
}) {
  const navigate = useNavigate()
  const [opened, setOpened] = useState<{ name: string; table: SheetTable } | null>(null)
  const [reading, setReading] = useState<PostSheetReading>({
    columns: {},
    monthFirst: null,
    accounts: [],
  })
  const [when, setWhen] = useState<When>({ kind: 'next openings' })
  const [listed, setListed] = useState(false)
  const [busy, setBusy] = useState(false)
  const asked = useLater(JSON.stringify([opened?.name, reading, when]), 200)
  const read = useSWR(
    opened ? ['sheet', brand.id, asked] : null,
    async () => {
      if (!opened) return null
      const found = await readPosts(brand.id, opened.table, reading)
      const made = await tryHandPosts(
        brand.id,
        found.rows.map((r) => r.row),
        when,
      )
      return { ...found, made }
    },
    { keepPreviousData: true, revalidateOnFocus: false },
  )
  const open = (chosen: File): void =>
    void attempt(async () => {
      const { table, columns } = await openPostSheet(new Uint8Array(await chosen.arrayBuffer()))
      setReading({ columns, monthFirst: null, accounts: [] })
      setOpened({ name: `${chosen.name} ${chosen.lastModified} ${chosen.size}`, table })
    })
  const found = opened ? read.data : null
  const undated = found?.rows.some((r) => r.row.on === null) ?? false
  const take = (): void =>
    void attempt(async () => {
      if (!opened || !found) return
      setBusy(true)
      try {
        const made = await tryHandPosts(
          brand.id,
          found.rows.map((r) => r.row),
          when,
        )
        await keepHandPosts(brand.id, made)
        const first = made.map((m) => m.post.at ?? '9').sort()[0] ?? '9'
        say(
          `Taken: ${outcomeWords(made)}.${found.faults.length ? ` ${count(found.faults.length, 'row')} left.` : ''}`,
        )
        void navigate(`/horizon${first < '9' ? `?from=${mondayOf(first.slice(0, 10))}` : ''}`)
      } finally {
        setBusy(false)
      }
    })
  return (
    <Split
      form={
        <Box
          onDragOver={(e) => e.preventDefault()}
          onDrop={(e) => {
            e.preventDefault()
            const [dropped] = e.dataTransfer.files
            if (dropped) open(dropped)
          }}
        >
          <Flex gap="2" wrap="wrap" mb="3">
            <FileButton
              look={opened ? 'plain' : 'water'}
              accept=".csv,.tsv,.txt,text/csv"
              label="A sheet of posts"
              onFile={open}
            >
              {opened ? 'Another sheet' : 'Choose a sheet'}
            </FileButton>
            <Button onClick={() => download(new Blob([emptyPostSheet()], { type: 'text/csv' }), 'posts.csv')}>
              An empty form
            </Button>
          </Flex>
          {!opened && (
            <Box color="soft" fontSize="14px" maxW="520px">
              A CSV out of your spreadsheet, one post a row: date, time, text, link, picture, accounts,
              hashtags. The columns may stand in any order and dates in any form; only the text must be there.
              Accounts are named by handle, network or group. Drop the file here, look at what would come of
              it, and only then take it.
            </Box>
          )}
          {opened && (
            <Flex direction="column" gap="4">
              <Box>
                <Box fontSize="xs" color="soft" mb="1">
                  Which column is which
                </Box>
                <Flex wrap="wrap" columnGap="4" rowGap="1.5">
                  {POST_FIELDS.map((field) => (
                    <chakra.label
                      key={field}
                      display="flex"
                      alignItems="center"
                      gap="2"
                      w="280px"
                      fontSize="13px"
                    >
                      <Box w="84px" color="soft">
                        {field}
                      </Box>
                      <SelectField
                        w="180px"
                        h="7"
                        value={reading.columns[field] ?? ''}
                        onChange={(e) => {
                          const { [field]: _before, ...others } = reading.columns
                          setReading({
                            ...reading,
                            columns: e.target.value ? { ...others, [field]: e.target.value } : others,
                          })
                        }}
                      >
                        <option value="">–</option>
                        {opened.table.columns.map((c) => (
                          <option key={c}>{c}</option>
                        ))}
                      </SelectField>
                    </chakra.label>
                  ))}
                </Flex>
              </Box>
              {found && (found.monthFirst !== null || found.doubt !== null) && (
                <Labelled label="A date like 4/12 is">
                  {(id) => (
                    <SelectField
                      id={id}
                      value={found.doubt !== null ? '' : found.monthFirst ? 'month' : 'day'}
                      onChange={(e) => setReading({ ...reading, monthFirst: e.target.value === 'month' })}
                    >
                      {found.doubt !== null && <option value="">Choose</option>}
                      <option value="day">4 December</option>
                      <option value="month">12 April</option>
                    </SelectField>
                  )}
                </Labelled>
              )}
              <AccountsField
                legend="Accounts of rows that name none"
                accounts={accounts}
                chosen={reading.accounts}
                onChange={(chosen) => setReading({ ...reading, accounts: chosen })}
              />
              {undated && (
                <WhenField
                  label="Rows without a date go"
                  withNow={false}
                  when={when.kind}
                  today={today}
                  onChange={(next) => next && setWhen(next)}
                >
                  {when.kind === 'spread' && <SpreadDays when={when} today={today} onChange={setWhen} />}
                </WhenField>
              )}
            </Flex>
          )}
        </Box>
      }
      outcome={
        found ? (
          <>
            {found.doubt !== null && <Notice tone="amber">{found.doubt}</Notice>}
            {found.faults.length > 0 && (
              <Notice tone="amber">
                <b>{count(found.faults.length, 'row')} cannot be taken.</b>
                {found.faults.slice(0, listed ? undefined : 6).map((f) => (
                  <Box key={`${f.line} ${f.reason}`}>
                    Line {f.line}: {f.reason}
                  </Box>
                ))}
                {found.faults.length > 6 && (
                  <Button size="sm" look="quiet" onClick={() => setListed(!listed)}>
                    {listed ? 'Fewer' : `All ${found.faults.length}`}
                  </Button>
                )}
              </Notice>
            )}
            <Outcome made={found.made} accounts={accounts} wordsToo />
          </>
        ) : (
          <Box color={read.error ? 'plumText' : 'soft'} fontSize="13px">
            {read.error
              ? asFault(read.error).message
              : opened
                ? 'Looking for places …'
                : 'Here is shown where each post would land.'}
          </Box>
        )
      }
      foot={
        <>
          <Box flex="1" fontSize="13px" color="soft">
            {found
              ? `${count(found.rows.length, 'good row')}, ${count(found.faults.length, 'bad one')} · ${outcomeWords(found.made)}`
              : ''}
          </Box>
          <Button look="water" disabled={!found || found.made.length === 0 || busy} onClick={take}>
            {found ? `Take ${count(found.made.length, 'post')}` : 'Take them'}
          </Button>
        </>
      }
    />
  )
}
