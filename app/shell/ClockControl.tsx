import { Box, chakra, Flex } from '@chakra-ui/react'
import { useEffect, useState } from 'react'
import { clockNow, useClock, jump, useActivity } from '../data'
import { attempt, Button, moment, zoneCity } from '../ui'
import { Popover } from './Popover'

const HOUR = 3_600_000

/** The clock in the brand's zone. In the demo it opens a control that moves time for all. */
export function ClockControl({ zone }: { zone: string }) {
  const { demo } = useClock()
  const [, again] = useState(0)
  useEffect(() => {
    const timer = setInterval(() => again((n) => n + 1), 1000)
    return () => clearInterval(timer)
  }, [])
  const busy = useActivity() !== null
  const face = (
    <Box textAlign="left" fontFamily="mono" lineHeight="1.4">
      <chakra.time
        fontSize="12px"
        color="ink"
        data-testid="clock"
        dateTime={new Date(clockNow()).toISOString()}
      >
        {moment(clockNow(), zone)}
      </chakra.time>
      <Box fontSize="11px" color="soft">
        {zoneCity(zone)}
        {demo ? ' · demo time' : ''}
      </Box>
    </Box>
  )
  if (!demo) return face
  return (
    <Popover label="Move the demo’s time" face={face}>
      {(close) => (
        <Box w="230px">
          <Box fontSize="13px" mb="2">
            Moves time for the app, the server and the stand-in world, event by event.
          </Box>
          <Flex gap="2">
            {(
              [
                ['+1 hour', HOUR],
                ['+1 day', 24 * HOUR],
                ['+1 week', 168 * HOUR],
              ] as const
            ).map(([label, size]) => (
              <Button
                key={label}
                disabled={busy}
                onClick={() => {
                  close()
                  void attempt(() => jump(size))
                }}
              >
                {label}
              </Button>
            ))}
          </Flex>
        </Box>
      )}
    </Popover>
  )
}
