import { Box, chakra, Flex } from '@chakra-ui/react'
import type { Rhythm } from '../../core/model'
import { beatDays, rhythmOfDays, RHYTHMS } from '../../core/planning'
import { Labelled, NumberField, SelectField, TextField } from './Field'
import { count } from './time'

/** Chooses a rhythm: one that ships, or one's own length, beats and thinning; a pipe shows the spacing. */
export function RhythmPicker({ value, onChange }: { value: Rhythm; onChange: (rhythm: Rhythm) => void }) {
  const own = !RHYTHMS.some((r) => r.name === value.name)
  const spread = 'list' in value ? null : value
  const edit = (change: Partial<{ days: number; beats: number; thinning: number }>): void => {
    const base = spread ?? { name: 'Your own', days: 30, beats: 4, thinning: 1.3 }
    const next = { ...base, ...change, name: 'Your own' }
    const valid =
      Number.isInteger(next.days) &&
      next.days >= 0 &&
      next.days <= 1500 &&
      Number.isInteger(next.beats) &&
      next.beats >= 1 &&
      next.beats <= 60 &&
      next.thinning >= 1 &&
      next.thinning <= 5
    if (valid) onChange(next)
  }
  const days = beatDays(value)
  const last = Math.max(1, days[days.length - 1] ?? 1)
  return (
    <Box>
      <Labelled label="Rhythm">
        {(id) => (
          <SelectField
            id={id}
            w="full"
            value={own ? 'own' : value.name}
            onChange={(e) => {
              const found = RHYTHMS.find((r) => r.name === e.target.value)
              if (found) onChange(found)
              else edit({})
            }}
          >
            {RHYTHMS.map((r) => (
              <option key={r.name} value={r.name}>
                {r.name}: {describe(r)}
              </option>
            ))}
            <option value="own">Your own</option>
          </SelectField>
        )}
      </Labelled>
      {own && spread && (
        <Flex gap="2" mt="2">
          <NumberField label="Days" value={spread.days} max={1500} onChange={(days) => edit({ days })} />
          <NumberField
            label="Beats"
            value={spread.beats}
            min={1}
            max={60}
            onChange={(beats) => edit({ beats })}
          />
          <NumberField
            label="Thinning"
            value={spread.thinning}
            min={1}
            max={5}
            step={0.1}
            onChange={(thinning) => edit({ thinning })}
          />
        </Flex>
      )}
      {own && (
        <Box mt="2">
          <Labelled label="Or the days one by one" hint="As in 0, 3, 10, 30; day 0 is the start day.">
            {(id) => (
              <TextField
                id={id}
                key={days.join(' ')}
                w="full"
                fontFamily="mono"
                defaultValue={days.join(', ')}
                onBlur={(e) => {
                  const own = rhythmOfDays(e.target.value)
                  if (own && beatDays(own).join() !== days.join()) onChange(own)
                }}
              />
            )}
          </Labelled>
        </Box>
      )}
      <Box
        position="relative"
        h="28px"
        mt="3"
        mx="1.5"
        role="img"
        aria-label={`Beats on day ${days.join(', ')}`}
      >
        <Box position="absolute" left="0" right="0" top="6px" h="4px" bg="water" borderRadius="full" />
        {days.map((d) => (
          <Box
            key={d}
            position="absolute"
            left={`${(d / last) * 100}%`}
            top="2px"
            ml="-6px"
            w="12px"
            h="12px"
            borderWidth="2px"
            borderColor="water"
            bg="raised"
            borderRadius="sm"
          />
        ))}
      </Box>
      <chakra.span fontFamily="mono" fontSize="12px" color="soft">
        days {days.join(', ')}
      </chakra.span>
    </Box>
  )
}

function describe(rhythm: Rhythm): string {
  const days = beatDays(rhythm)
  const length = days[days.length - 1] ?? 0
  const span = length >= 28 && length % 7 === 0 ? count(length / 7, 'week') : count(length, 'day')
  return `${count(days.length, 'beat')} over ${span}`
}
