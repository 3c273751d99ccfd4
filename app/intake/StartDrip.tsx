import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import { Link } from 'react-router'
import type { Piece, Rhythm } from '../../core/model'
import { network } from '../../core/networks'
import { RHYTHMS, toWall, TRICKLE } from '../../core/planning'
import { clockNow, during, startDrip, useAccounts } from '../data'
import { useWork } from '../shell'
import { attempt, Button, Labelled, NetworkMark, TextField, RhythmPicker } from '../ui'

/** The side sheet that starts a drip: rhythm, start day, accounts. */
export function StartDrip({
  piece,
  rhythm: first,
  onClose,
  onStarted,
}: {
  piece: Piece
  rhythm: number
  onClose: () => void
  onStarted: (drip: string) => void
}) {
  const { brand } = useWork()
  const accounts = useAccounts(brand.id)
  const [rhythm, setRhythm] = useState<Rhythm>(RHYTHMS[first] ?? TRICKLE)
  const [startDay, setStartDay] = useState(() => toWall(clockNow(), brand.zone).date)
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const [busy, setBusy] = useState(false)
  const chosen = (accounts ?? []).filter((a) => !left.has(a.id))
  const start = async (): Promise<void> => {
    setBusy(true)
    await attempt(async () =>
      onStarted(
        await during(`Writing “${piece.title}”`, (show) =>
          startDrip(
            {
              piece: piece.id,
              accounts: chosen.map((a) => a.id),
              rhythm,
              startDay,
              gate: 'everything',
              pipeline: null,
              actor: { brand: brand.id, label: `Start a drip of “${piece.title}”` },
            },
            show,
          ),
        ),
      ),
    )
    setBusy(false)
  }
  return (
    <chakra.form
      p="5"
      display="flex"
      flexDirection="column"
      gap="5"
      onSubmit={(event: React.FormEvent) => {
        event.preventDefault()
        if (!busy && chosen.length) void start()
      }}
    >
      <Heading as="h2" fontSize="18px" fontWeight="700">
        Start a drip
      </Heading>
      <RhythmPicker value={rhythm} onChange={setRhythm} />
      <Labelled label={`Start day, in ${brand.zone}`}>
        {(id) => (
          <TextField
            id={id}
            type="date"
            value={startDay}
            min={toWall(clockNow(), brand.zone).date}
            onChange={(e) => e.target.value && setStartDay(e.target.value)}
          />
        )}
      </Labelled>
      <Box as="fieldset">
        <chakra.legend fontSize="xs" color="soft" mb="1">
          Accounts
        </chakra.legend>
        {accounts?.map((a) => (
          <chakra.label key={a.id} display="flex" alignItems="center" gap="2.5" py="1.5" cursor="pointer">
            <input
              type="checkbox"
              checked={!left.has(a.id)}
              onChange={() => {
                const next = new Set(left)
                if (!next.delete(a.id)) next.add(a.id)
                setLeft(next)
              }}
            />
            <NetworkMark id={a.network} />
            <span>@{a.handle}</span>
            <chakra.span color="soft">{network(a.network).name}</chakra.span>
          </chakra.label>
        ))}
        {accounts?.length === 0 && (
          <Box color="soft">
            No account is linked yet.{' '}
            <Link to="/dispatch/accounts">
              <chakra.span textDecoration="underline" color="waterText">
                Link one
              </chakra.span>
            </Link>
          </Box>
        )}
      </Box>
      <Flex gap="2" justify="flex-end">
        <Button hint="Esc" onClick={onClose}>
          Not now
        </Button>
        <Button type="submit" look="water" disabled={busy || chosen.length === 0}>
          {busy ? 'Writing …' : 'Write the drip'}
        </Button>
      </Flex>
    </chakra.form>
  )
}
