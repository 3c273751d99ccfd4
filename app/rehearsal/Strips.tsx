import { Box, chakra, Flex } from '@chakra-ui/react'
import type { Account } from '../../core/model'
import type { Comparison } from '../../core/rehearsal'
import { monthName, NetworkMark, shortDay } from '../ui'

const HEIGHT = 46

/** Posts a week of every account: as planned in outline, with the changes filled. */
export function Strips({ played, changed }: { played: Comparison; changed: boolean }) {
  const { before, after } = played
  const most = Math.max(1, ...before.weeks.flat(), ...after.weeks.flat())
  return (
    <Box>
      <Flex fontSize="12px" color="soft" pl="190px">
        {after.mondays.map((monday, i) => (
          <Box key={monday} flex="1" minW="0" whiteSpace="nowrap" overflow="visible">
            {i === 0 || monday.slice(5, 7) !== after.mondays[i - 1]?.slice(5, 7)
              ? monthName(monday).slice(0, 3)
              : ''}
          </Box>
        ))}
      </Flex>
      {after.accounts.map((account, lane) => {
        const was = before.accounts.findIndex((a) => a.id === account.id)
        return (
          <Strip
            key={account.id}
            account={account}
            mondays={after.mondays}
            before={was < 0 ? [] : (before.weeks[was] ?? [])}
            after={after.weeks[lane] ?? []}
            most={most}
            changed={changed}
          />
        )
      })}
      <Flex gap="5" mt="2" fontSize="12px" color="soft" pl="190px" wrap="wrap">
        <Flex align="center" gap="1.5">
          <Box w="10px" h="10px" borderWidth="1.5px" borderColor="ink" /> as planned
        </Flex>
        {changed && (
          <Flex align="center" gap="1.5">
            <Box w="10px" h="10px" bg="water" /> with the changes
          </Flex>
        )}
        <Flex align="center" gap="1.5">
          <chakra.span fontFamily="mono">×</chakra.span> a week without a post
        </Flex>
        <Box ml="auto">The highest is {most} a week.</Box>
      </Flex>
    </Box>
  )
}

function Strip({
  account,
  mondays,
  before,
  after,
  most,
  changed,
}: {
  account: Account
  mondays: readonly string[]
  before: readonly number[]
  after: readonly number[]
  most: number
  changed: boolean
}) {
  const width = 100 / Math.max(1, mondays.length)
  const height = (n: number): number => (n / most) * (HEIGHT - 8)
  return (
    <Flex align="center" borderTopWidth="1px" borderColor="hairline">
      <Flex w="190px" gap="2" align="center" flexShrink={0} pr="2" minW="0">
        <NetworkMark id={account.network} />
        <Box fontSize="13px" fontWeight="600" truncate>
          @{account.handle}
        </Box>
      </Flex>
      <chakra.svg
        flex="1"
        h={`${HEIGHT}px`}
        role="img"
        aria-label={`Posts a week of @${account.handle}: ${after.join(', ')}`}
      >
        {mondays.map((monday, i) => {
          const planned = before[i] ?? 0
          const then = after[i] ?? 0
          const x = `${i * width + width * 0.15}%`
          const wide = `${width * 0.7}%`
          return (
            <g key={monday}>
              <title>
                {`Week of ${shortDay(monday)}: ${planned} planned${changed ? `, ${then} with the changes` : ''}`}
              </title>
              <rect x={`${i * width}%`} y="0" width={`${width}%`} height={HEIGHT} fill="transparent" />
              {changed && then > 0 && (
                <rect
                  x={x}
                  width={wide}
                  y={HEIGHT - height(then)}
                  height={height(then)}
                  fill="var(--chakra-colors-water)"
                  opacity="0.75"
                />
              )}
              {planned > 0 && (
                <rect
                  x={x}
                  width={wide}
                  y={HEIGHT - height(planned)}
                  height={height(planned)}
                  fill={changed ? 'none' : 'var(--chakra-colors-water-tint)'}
                  stroke="var(--chakra-colors-ink)"
                  strokeWidth="1"
                />
              )}
              {(changed ? then : planned) === 0 && (
                <text
                  x={`${i * width + width / 2}%`}
                  y={HEIGHT - 4}
                  textAnchor="middle"
                  fontSize="10"
                  fill="var(--chakra-colors-soft)"
                >
                  ×
                </text>
              )}
            </g>
          )
        })}
      </chakra.svg>
    </Flex>
  )
}
