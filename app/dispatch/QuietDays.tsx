import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import type { NamedQuietDay } from '../../core/formats'
import type { QuietDay } from '../../core/model'
import { readCalendar } from '../data'
import { attempt, Button, count, DateField, FileButton, longDay, Notice, say, weekdayName } from '../ui'

/** Days on which nothing is posted: weekdays, dates, ranges, every year, or out of a calendar. */
export function QuietDays({
  days,
  onChange,
}: {
  days: readonly QuietDay[]
  onChange: (days: QuietDay[]) => void
}) {
  const [from, setFrom] = useState('')
  const [to, setTo] = useState('')
  const [every, setEvery] = useState(false)
  const weekdays = days.flatMap((d) => ('weekday' in d ? [d.weekday] : []))
  const rest = days.filter((d) => !('weekday' in d))
  const range = to !== '' && to !== from
  const wrong = range && to < from
  const add = (): void => {
    const day: QuietDay = range ? { from, to } : every ? { yearly: from.slice(5) } : { date: from }
    if (!days.some((d) => JSON.stringify(d) === JSON.stringify(day))) onChange([...days, day])
    setFrom('')
    setTo('')
  }
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
            px="2"
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
          <Box flex="1">{dayWords(q)}</Box>
          <Button
            size="sm"
            look="quiet"
            aria-label={`Remove the quiet day ${dayWords(q)}`}
            onClick={() => onChange(days.filter((d) => d !== q))}
          >
            ×
          </Button>
        </Flex>
      ))}
      <Flex gap="2" mt="2" align="center" wrap="wrap">
        <DateField aria-label="A quiet date" mayBeEmpty value={from} onDate={setFrom} />
        <Box fontSize="13px">to</Box>
        <DateField aria-label="Its last day" mayBeEmpty value={to} onDate={setTo} />
      </Flex>
      <Flex gap="3" mt="2" align="center" wrap="wrap">
        <chakra.label display="flex" gap="1" fontSize="13px" alignItems="center" opacity={range ? 0.5 : 1}>
          <input
            type="checkbox"
            checked={every && !range}
            disabled={range}
            onChange={(e) => setEvery(e.target.checked)}
          />{' '}
          every year
        </chakra.label>
        <Button size="sm" disabled={!from || wrong} onClick={add}>
          Add
        </Button>
        <FromCalendar days={days} onChange={onChange} />
      </Flex>
      {wrong && (
        <Box fontSize="12px" color="clayText" mt="1">
          The last day lies before the first.
        </Box>
      )}
    </Box>
  )
}

/** "24 December 2026", "every year on 25 December", "24 December 2026 to 2 January 2027". */
function dayWords(q: QuietDay): string {
  const full = (date: string): string => `${longDay(date)} ${date.slice(0, 4)}`
  if ('date' in q) return full(q.date)
  if ('yearly' in q) return `every year on ${longDay(`2000-${q.yearly}`)}`
  return 'from' in q ? `${full(q.from)} to ${full(q.to)}` : weekdayName(q.weekday)
}

function FromCalendar({
  days,
  onChange,
}: {
  days: readonly QuietDay[]
  onChange: (days: QuietDay[]) => void
}) {
  const [found, setFound] = useState<{ days: NamedQuietDay[]; left: { name: string; why: string }[] } | null>(
    null,
  )
  const fresh = (found?.days ?? []).filter(
    (f) => !days.some((d) => JSON.stringify(d) === JSON.stringify(f.day)),
  )
  return (
    <>
      <FileButton
        size="sm"
        look="quiet"
        accept=".ics,text/calendar"
        label="A calendar file"
        onFile={(file) => void attempt(async () => setFound(await readCalendar(await file.text())))}
      >
        From a calendar file
      </FileButton>
      {found && (
        <Box flexBasis="100%" order={9}>
          <Notice
            tone="moss"
            action={
              <Flex gap="1">
                <Button size="sm" onClick={() => setFound(null)}>
                  Drop
                </Button>
                <Button
                  size="sm"
                  look="water"
                  disabled={fresh.length === 0}
                  onClick={() => {
                    onChange([...days, ...fresh.map((f) => f.day)])
                    say(`${count(fresh.length, 'quiet day')} taken from the calendar.`)
                    setFound(null)
                  }}
                >
                  Take {fresh.length}
                </Button>
              </Flex>
            }
          >
            {count(fresh.length, 'new quiet day')}
            {fresh.length > 0 &&
              `: ${fresh
                .slice(0, 3)
                .map((f) => f.name)
                .join(', ')}${fresh.length > 3 ? ' …' : ''}`}
            .
            {found.left.length > 0 &&
              ` Left: ${found.left
                .slice(0, 2)
                .map((l) => `${l.name} (${l.why.toLowerCase().replace(/\.$/, '')})`)
                .join('; ')}${found.left.length > 2 ? ` and ${found.left.length - 2} more` : ''}.`}
          </Notice>
        </Box>
      )}
    </>
  )
}
