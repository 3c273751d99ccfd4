import { Box, chakra, Heading } from '@chakra-ui/react'
import { bounds, isCertain, more, type HourCell } from '../../core/results'
import { weekdayName } from '../ui'

const DAYS = [1, 2, 3, 4, 5, 6, 7]

/** What an account's posts earn by hour and weekday: darker for more, with the posts behind each cell; pale where unsure. */
export function Hours({ cells }: { cells: readonly HourCell[] }) {
  const at = new Map(cells.map((c) => [`${c.weekday} ${c.hour}`, c]))
  const hours = cells.map((c) => c.hour)
  const [first, last] = [Math.min(...hours), Math.max(...hours)]
  const shown = Array.from({ length: last - first + 1 }, (_, i) => first + i)
  return (
    <Box as="section" aria-label="By hour and weekday">
      <Heading as="h2" fontSize="15px" fontWeight="600">
        By hour and weekday
      </Heading>
      <Box color="soft" fontSize="13px" mt="1">
        The number in a cell is how many posts stand behind it; on the account’s own clock.
      </Box>
      <Box overflowX="auto" mt="2">
        <chakra.table fontSize="12px" css={{ borderCollapse: 'separate', borderSpacing: '2px' }}>
          <thead>
            <tr>
              <td />
              {shown.map((hour) => (
                <chakra.th key={hour} scope="col" color="soft" fontFamily="mono" fontWeight="400" w="30px">
                  {hour}
                </chakra.th>
              ))}
            </tr>
          </thead>
          <tbody>
            {DAYS.map((day) => (
              <tr key={day}>
                <chakra.th scope="row" color="soft" fontWeight="500" pr="2" textAlign="left">
                  {weekdayName(day)}
                </chakra.th>
                {shown.map((hour) => (
                  <Cell key={hour} cell={at.get(`${day} ${hour}`)} />
                ))}
              </tr>
            ))}
          </tbody>
        </chakra.table>
      </Box>
    </Box>
  )
}

function Cell({ cell }: { cell: HourCell | undefined }) {
  const times = cell?.times ?? null
  const colour = times ? (times.at >= 1 ? 'water' : 'clay') : 'soft'
  const strength = times ? Math.min(70, Math.round(Math.abs(Math.log(times.at)) * 140)) : 0
  return (
    <chakra.td
      h="24px"
      minW="28px"
      textAlign="center"
      fontFamily="mono"
      borderRadius="sm"
      title={times ? `${more(times.at)}; ${bounds(times)}` : undefined}
      borderWidth="1px"
      borderColor={times && isCertain(times) ? 'ink' : 'hairline'}
      css={{
        background: `color-mix(in srgb, var(--chakra-colors-${colour}) ${strength}%, transparent)`,
      }}
    >
      {cell?.posts ?? ''}
      {times && <chakra.span srOnly>, {more(times.at)}</chakra.span>}
    </chakra.td>
  )
}
