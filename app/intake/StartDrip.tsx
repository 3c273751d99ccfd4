import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import { Link } from 'react-router'
import type { Account, Piece, Rhythm } from '../../core/model'
import { network } from '../../core/networks'
import { addDays, beatDays, proposedRhythm, toWall, TRICKLE } from '../../core/planning'
import { expectedWords } from '../../core/results'
import { inWords } from '../../core/text'
import { clockNow, during, keepForGood, startDrip, startsFor, useOpenAccounts } from '../data'
import { useExpected } from '../data/more'
import { useWork } from '../shell'
import {
  attempt,
  Button,
  count,
  DateField,
  Labelled,
  longDay,
  NetworkMark,
  NumberField,
  RhythmPicker,
  say,
  SelectField,
} from '../ui'

/** The side sheet that starts a drip of one piece, or of several, staggered: rhythm, start day, accounts. */
export function StartDrip({
  pieces,
  rhythm: first,
  onClose,
  onStarted,
}: {
  pieces: readonly Piece[]
  /** The rhythm to begin with; null takes the one that suits how long the pieces keep. */
  rhythm: Rhythm | null
  onClose: () => void
  onStarted: (drip: string) => void
}) {
  const { brand } = useWork()
  const accounts = useOpenAccounts(brand.id)
  const today = toWall(clockNow(), brand.zone).date
  const soonest = [...pieces].sort((a, b) => (a.keeps.until ?? '9').localeCompare(b.keeps.until ?? '9'))[0]
  const [rhythm, setRhythm] = useState<Rhythm>(
    () => first ?? proposedRhythm(soonest?.keeps ?? { until: null }, today),
  )
  const [startDay, setStartDay] = useState(today)
  const [opening, setOpening] = useState(false)
  const [until, setUntil] = useState('')
  const [apart, setApart] = useState(3)
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const [busy, setBusy] = useState(false)
  const chosen = (accounts ?? []).filter((a) => !left.has(a.id))
  const ids = chosen.map((a) => a.id)
  const best = useSWR(
    ids.length ? ['starts', ids.join(' '), JSON.stringify(rhythm), today] : null,
    () => startsFor(ids, rhythm, today),
    { revalidateOnFocus: false },
  ).data
  const start = async (): Promise<void> => {
    setBusy(true)
    await attempt(async () => {
      let last = ''
      let next = startDay
      const failed: string[] = []
      for (const [index, piece] of pieces.entries()) {
        // Each looks for its day when those before it stand.
        const day = opening
          ? ((await startsFor(ids, rhythm, next))[0]?.day ?? next)
          : addDays(startDay, index * apart)
        if (opening) next = addDays(day, pieces.length > 1 ? 1 : 0)
        const begin = () =>
          during(`Writing “${piece.title}”`, (show) =>
            startDrip(
              {
                piece: piece.id,
                accounts: ids,
                rhythm,
                startDay: day,
                until: until || null,
                gate: 'everything',
                pipeline: null,
                actor: { brand: brand.id, label: `Start a drip of “${piece.title}”` },
              },
              show,
            ),
          )
        if (pieces.length === 1) last = await begin()
        else
          await begin().then(
            (id) => (last = id),
            () => failed.push(piece.title),
          )
      }
      if (failed.length)
        say(
          `${count(pieces.length - failed.length, 'drip')} started. Nothing could be made of ${failed.map((t) => `“${t}”`).join(', ')}: no passage of it stands alone.`,
        )
      if (last) onStarted(last)
    })
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
        {pieces.length === 1 ? 'Start a drip' : `Start ${pieces.length} drips`}
      </Heading>
      {soonest?.keeps.until && (
        <Box fontSize="13px" borderLeftWidth="4px" borderColor="amber" pl="3">
          {pieces.length === 1 ? '' : `“${soonest.title}”: `}
          {soonest.keeps.because ?? ''} {soonest.keeps.span === 'past' ? 'It kept' : 'It keeps'} until{' '}
          {longDay(soonest.keeps.until)} {soonest.keeps.until.slice(0, 4)}; posts after that day get a place
          too, and a flag.
          <Box mt="2">
            <Button
              type="button"
              onClick={() =>
                void attempt(async () => {
                  await keepForGood(soonest.id, true)
                  if (!first && pieces.length === 1) setRhythm(TRICKLE)
                })
              }
            >
              It keeps for good
            </Button>
          </Box>
        </Box>
      )}
      <RhythmPicker value={rhythm} onChange={setRhythm} />
      <Labelled label={pieces.length > 1 ? 'When they begin' : 'When it begins'}>
        {(id) => (
          <SelectField
            id={id}
            w="full"
            value={opening ? 'opening' : 'day'}
            onChange={(e) => setOpening(e.target.value === 'opening')}
          >
            <option value="day">on a day</option>
            <option value="opening">
              {pieces.length > 1
                ? 'each at its next opening, where it collides least'
                : 'at the next opening, where it collides least'}
            </option>
          </SelectField>
        )}
      </Labelled>
      <Flex gap="3" align="flex-end">
        {(!opening || pieces.length > 1) && (
          <Labelled label={opening ? 'Not before' : `Start day, in ${brand.zone}`}>
            {(id) => <DateField id={id} value={startDay} min={today} onDate={setStartDay} />}
          </Labelled>
        )}
        {pieces.length > 1 && !opening && (
          <NumberField
            label="Days apart"
            value={apart}
            min={0}
            max={60}
            onChange={(n) => n >= 0 && n <= 60 && setApart(Math.round(n))}
          />
        )}
        <Labelled label="Nothing after">
          {(id) => <DateField id={id} mayBeEmpty value={until} min={startDay} onDate={setUntil} />}
        </Labelled>
      </Flex>
      {pieces.length === 1 && best?.[0] && (
        <Box fontSize="13px" color="soft" mt="-3" aria-live="polite">
          It collides least from {longDay(best[0].day)}
          {opening ? '; it begins then.' : '.'}
          {!opening && best[0].day !== startDay && (
            <Button size="sm" look="quiet" onClick={() => best[0] && setStartDay(best[0].day)}>
              Take that day
            </Button>
          )}
        </Box>
      )}
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
      <Reach brand={brand.id} accounts={chosen} posts={beatDays(rhythm).length * pieces.length} />
      <Flex gap="2" justify="flex-end">
        <Button hint="Esc" onClick={onClose}>
          Not now
        </Button>
        <Button type="submit" look="water" disabled={busy || chosen.length === 0}>
          {busy ? 'Writing …' : pieces.length === 1 ? 'Write the drip' : `Write ${pieces.length} drips`}
        </Button>
      </Flex>
    </chakra.form>
  )
}

/** How often so many posts on each account will be seen, by what their posts earned lately; nothing where that is not known. */
function Reach({ brand, accounts, posts }: { brand: string; accounts: readonly Account[]; posts: number }) {
  const expected = useExpected(
    brand,
    accounts.map(({ id }) => ({ account: id, posts })),
  )
  if (!expected || accounts.length === 0) return null
  const unknown = accounts.filter((a) => expected.unknown.includes(a.id)).map((a) => `@${a.handle}`)
  return (
    <Box fontSize="13px" color="soft" aria-live="polite">
      Up to {count(expected.posts, 'post')}, seen {expectedWords(expected.seen)} within a week of each, if
      they earn what posts there lately did.
      {unknown.length > 0 && ` Of ${inWords(unknown)} too little is known.`}
    </Box>
  )
}
