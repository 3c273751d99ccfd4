import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import {
  ANGLES,
  READERS,
  type Account,
  type Angle,
  type OccasionMake,
  type Reader,
} from '../../../core/model'
import { during } from '../../data'
import { writeOccasions, type OccasionOn, type OccasionsWritten } from '../../data/more'
import { Popover, useWork } from '../../shell'
import { attempt, Button, count, Labelled, NetworkMark, say, SelectField } from '../../ui'

/** Writes captions for some days: for which accounts, in which angle, for whom. */
export function WriteThem({
  rows,
  accounts,
  align,
  onDone,
}: {
  rows: readonly OccasionOn[]
  accounts: readonly Account[]
  align: 'left' | 'right'
  onDone: () => void
}) {
  return (
    <Popover plain label="Write captions" face="Write captions …" align={align}>
      {(close) => (
        <Form
          rows={rows}
          accounts={accounts.filter((a) => a.endedAt === null)}
          onDone={() => {
            close()
            onDone()
          }}
        />
      )}
    </Popover>
  )
}

function Form({
  rows,
  accounts,
  onDone,
}: {
  rows: readonly OccasionOn[]
  accounts: readonly Account[]
  onDone: () => void
}) {
  const { brand } = useWork()
  const before = rows.map((r) => r.occasion.make).find((m) => m !== null) ?? null
  const [make, setMake] = useState<OccasionMake>({
    accounts: before?.accounts ?? accounts.map((a) => a.id),
    angle: before?.angle ?? null,
    reader: before?.reader ?? null,
  })
  const [busy, setBusy] = useState(false)
  const turn = (id: string): void =>
    setMake({
      ...make,
      accounts: make.accounts.includes(id)
        ? make.accounts.filter((a) => a !== id)
        : accounts.flatMap((a) => (a.id === id || make.accounts.includes(a.id) ? [a.id] : [])),
    })
  const write = async (): Promise<void> => {
    setBusy(true)
    let stop = false
    const went = await attempt(async () => {
      const what = rows.length === 1 ? `“${rows[0]?.occasion.name ?? ''}”` : count(rows.length, 'day')
      const came = await during(
        `Writing for ${what}`,
        (onProgress) => writeOccasions(brand.id, rows, make, { onProgress, stopped: () => stop }),
        () => (stop = true),
      )
      say(told(came, accounts))
    })
    setBusy(false)
    if (went) onDone()
  }
  return (
    <Flex direction="column" gap="3" w="320px" fontSize="13px">
      <Box color="soft">
        A post for each account, from what your pieces say near the day, by the brief of its network. They
        wait for review.
      </Box>
      <Box as="fieldset" maxH="220px" overflowY="auto">
        <chakra.legend fontSize="xs" color="soft" mb="1">
          Accounts
        </chakra.legend>
        {accounts.length === 0 && (
          <Box>
            There is none yet. <Link to="/dispatch/accounts">Link an account</Link> first.
          </Box>
        )}
        {accounts.map((a) => (
          <chakra.label key={a.id} display="flex" alignItems="center" gap="2" py="1" cursor="pointer">
            <input type="checkbox" checked={make.accounts.includes(a.id)} onChange={() => turn(a.id)} />
            <NetworkMark id={a.network} /> @{a.handle}
          </chakra.label>
        ))}
      </Box>
      <Flex gap="3">
        <Labelled label="Angle">
          {(id) => (
            <SelectField
              id={id}
              value={make.angle ?? ''}
              onChange={(e) => setMake({ ...make, angle: (e.target.value || null) as Angle | null })}
            >
              <option value="">whichever suits</option>
              {ANGLES.map((a) => (
                <option key={a}>{a}</option>
              ))}
            </SelectField>
          )}
        </Labelled>
        <Labelled label="For">
          {(id) => (
            <SelectField
              id={id}
              value={make.reader ?? ''}
              onChange={(e) => setMake({ ...make, reader: (e.target.value || null) as Reader | null })}
            >
              <option value="">whom the briefs say</option>
              {READERS.map((r) => (
                <option key={r}>{r}</option>
              ))}
            </SelectField>
          )}
        </Labelled>
      </Flex>
      <Button look="water" disabled={busy || make.accounts.length === 0} onClick={() => void write()}>
        {busy
          ? 'Writing …'
          : `Write for ${count(rows.length, 'day')} on ${count(make.accounts.length, 'account')}`}
      </Button>
    </Flex>
  )
}

/** What came of it, in a sentence or two. */
function told({ posts, moved, missing, stopped }: OccasionsWritten, accounts: readonly Account[]): string {
  const [first] = missing
  const handle = accounts.find((a) => a.id === first?.account)?.handle ?? ''
  const written = posts
    ? `${count(posts, 'caption waits', 'captions wait')} for review.`
    : missing.length
      ? 'No caption was written.'
      : 'Every account has its caption already.'
  return [
    written,
    ...(moved ? [`${count(moved, 'post', 'posts')} made room.`] : []),
    ...(first
      ? [`${missing.length} not written, such as ${first.name} on @${handle}: ${first.message}`]
      : []),
    ...(stopped ? ['You stopped before the end; what is written stays.'] : []),
  ].join(' ')
}
