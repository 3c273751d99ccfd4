import { Box, chakra, Flex } from '@chakra-ui/react'
import { useState } from 'react'
import { asFault, type Occasion, type OccasionDay } from '../../../core/model'
import {
  nextDayOf,
  occasionWords,
  plainOccasions,
  readOccasionDay,
  regionOf,
  REGIONS,
  type Region,
} from '../../../core/occasions'
import { weekdayOf } from '../../../core/planning'
import { download, nowIso } from '../../data'
import { keepOccasions, occasionSheet, readOccasionFile, todayOf } from '../../data/more'
import { Popover, useWork } from '../../shell'
import {
  attempt,
  Button,
  count,
  FileButton,
  fileName,
  Labelled,
  longDay,
  say,
  SelectField,
  shortDay,
  TextField,
  weekdayName,
} from '../../ui'

/** A day in words as it is typed: what it means, or why it means nothing. */
export function useDayWords(written: string): { on: OccasionDay | null; told: string; wrong: boolean } {
  const { brand } = useWork()
  const today = todayOf(brand)
  if (written.trim() === '') return { on: null, told: '', wrong: false }
  try {
    const on = readOccasionDay(written, today)
    const next = nextDayOf(on, brand.zone, today)
    if (next === null)
      return { on: null, told: 'Its days are over, or more than eight years off.', wrong: true }
    const day = `${weekdayName(weekdayOf(next))} ${longDay(next)} ${next.slice(0, 4)}`
    return { on, told: 'dates' in on ? day : `${occasionWords(on)}: next on ${day}`, wrong: false }
  } catch (error) {
    return { on: null, told: asFault(error).message, wrong: true }
  }
}

/** Writes down a day of one's own. */
export function AddDay() {
  return (
    <Popover plain label="Add a day" face="Add a day …">
      {(close) => <DayForm onDone={close} />}
    </Popover>
  )
}

function DayForm({ onDone }: { onDone: () => void }) {
  const { brand } = useWork()
  const [name, setName] = useState('')
  const [written, setWritten] = useState('')
  const { on, told, wrong } = useDayWords(written)
  const keep = async (): Promise<void> => {
    const kept = await attempt(async () => {
      if (!on) return
      const { added } = await keepOccasions(brand.id, [{ name: name.trim(), on, theme: [], lines: [] }])
      say(
        added
          ? `“${name.trim()}” is on the calendar.`
          : `“${name.trim()}” was there; its day is this one now.`,
      )
    })
    if (kept) onDone()
  }
  return (
    <chakra.form
      display="flex"
      flexDirection="column"
      gap="3"
      w="320px"
      fontSize="13px"
      onSubmit={(event: React.FormEvent) => {
        event.preventDefault()
        if (on && name.trim()) void keep()
      }}
    >
      <Labelled label="What the day is called">
        {(id) => (
          <TextField
            id={id}
            w="full"
            autoFocus
            maxLength={120}
            value={name}
            onChange={(e) => setName(e.target.value)}
          />
        )}
      </Labelled>
      <Labelled label="When, in words">
        {(id) => (
          <TextField
            id={id}
            w="full"
            placeholder="first Monday of April"
            value={written}
            onChange={(e) => setWritten(e.target.value)}
          />
        )}
      </Labelled>
      <Box color={wrong ? 'clayText' : 'soft'} aria-live="polite" minH="1.4em">
        {told ||
          '21 December, last Friday of May, day 100 of the year, June solstice, clocks back, 2027-04-05'}
      </Box>
      <Button type="submit" look="water" disabled={!on || name.trim() === ''}>
        Put on the calendar
      </Button>
    </chakra.form>
  )
}

/** Puts plain days that ship on the calendar, as they are called where one is. */
export function PlainDays({ occasions }: { occasions: readonly Occasion[] }) {
  return (
    <Popover plain label="Plain days" face="Plain days …">
      {(close) => <PlainForm occasions={occasions} onDone={close} />}
    </Popover>
  )
}

function PlainForm({ occasions, onDone }: { occasions: readonly Occasion[]; onDone: () => void }) {
  const { brand } = useWork()
  const today = todayOf(brand)
  const [region, setRegion] = useState<Region>(() => regionOf(brand.zone, today))
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const there = new Set(occasions.map((o) => o.name))
  const given = plainOccasions(region, brand.zone, today)
  const wanted = given.filter((g) => !there.has(g.name) && !left.has(g.name))
  return (
    <Flex direction="column" gap="3" w="320px" fontSize="13px">
      <Labelled label="Where your readers are">
        {(id) => (
          <SelectField id={id} w="full" value={region} onChange={(e) => setRegion(e.target.value as Region)}>
            {REGIONS.map((r) => (
              <option key={r}>{r}</option>
            ))}
          </SelectField>
        )}
      </Labelled>
      <Box maxH="300px" overflowY="auto" role="group" aria-label="Plain days">
        {given.map((g) => {
          const next = nextDayOf(g.on, brand.zone, today)
          return (
            <chakra.label key={g.name} display="flex" gap="2" py="0.5" cursor="pointer" alignItems="baseline">
              <input
                type="checkbox"
                checked={there.has(g.name) || !left.has(g.name)}
                disabled={there.has(g.name)}
                onChange={() => {
                  const now = new Set(left)
                  if (!now.delete(g.name)) now.add(g.name)
                  setLeft(now)
                }}
              />
              <Box flex="1" color={there.has(g.name) ? 'soft' : undefined}>
                {g.name}
              </Box>
              <Box color="soft" fontFamily="mono" fontSize="12px">
                {next ? `${shortDay(next)} ${next.slice(0, 4)}` : ''}
              </Box>
            </chakra.label>
          )
        })}
      </Box>
      <Button
        look="water"
        disabled={wanted.length === 0}
        onClick={() =>
          void attempt(async () => {
            const { added } = await keepOccasions(brand.id, wanted)
            say(`${count(added, 'day is', 'days are')} on the calendar.`)
            onDone()
          })
        }
      >
        {wanted.length ? `Put ${count(wanted.length, 'day')} on the calendar` : 'All are on the calendar'}
      </Button>
    </Flex>
  )
}

/** Takes days in from a calendar (iCalendar) or a sheet (CSV). */
export function FromFile() {
  const { brand } = useWork()
  const take = (file: File): Promise<boolean> =>
    attempt(async () => {
      const { occasions, left } = await readOccasionFile(
        brand,
        file.name,
        new Uint8Array(await file.arrayBuffer()),
      )
      const { added, changed } = await keepOccasions(brand.id, occasions)
      say(
        [
          `${count(added, 'day is', 'days are')} new${changed ? `, ${changed} changed` : ''}.`,
          ...(left[0] ? [`${left.length} left: ${left.slice(0, 3).join(' ')}`] : []),
        ].join(' '),
      )
    })
  return (
    <FileButton
      accept=".ics,.csv,.tsv,text/calendar,text/csv"
      label="A file of days"
      onFile={(f) => void take(f)}
    >
      From a file …
    </FileButton>
  )
}

/** Gives the calendar out as a sheet (CSV). */
export function SaveSheet() {
  const { brand } = useWork()
  return (
    <Button
      onClick={() =>
        void attempt(async () => {
          const sheet = new Blob([await occasionSheet(brand)], { type: 'text/csv' })
          download(sheet, `${fileName(brand.name)}-occasions-${nowIso().slice(0, 10)}.csv`)
        })
      }
    >
      Save as CSV
    </Button>
  )
}
