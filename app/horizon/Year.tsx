import { Box, chakra, Flex } from '@chakra-ui/react'
import { useMemo } from 'react'
import type { Account, Brand, Post } from '../../core/model'
import { addDays, daysBetween, mondayOf, toWall } from '../../core/planning'
import { clockNow } from '../data'
import { count, longDay, Mono, monthName, NetworkMark } from '../ui'

const WEEKS = 52

/** A year: one square a week and account, darker where more is posted; gaps and crowding are said. */
export function Year({
  monday,
  posts,
  accounts,
  brand,
  onWeek,
}: {
  monday: string
  posts: readonly Post[]
  accounts: readonly Account[]
  brand: Brand
  onWeek: (monday: string) => void
}) {
  const weeks = Array.from({ length: WEEKS }, (_, i) => addDays(monday, i * 7))
  const counts = useMemo(() => {
    const found = new Map<string, number>()
    for (const post of posts) {
      const week = Math.floor(
        daysBetween(monday, toWall(Date.parse(post.publishedAt ?? post.at ?? ''), brand.zone).date) / 7,
      )
      if (week >= 0 && week < WEEKS)
        found.set(`${post.account} ${week}`, (found.get(`${post.account} ${week}`) ?? 0) + 1)
    }
    return found
  }, [posts, monday, brand.zone])
  const thisWeek = mondayOf(toWall(clockNow(), brand.zone).date)
  return (
    <Box px="6" pb="8" minW="900px">
      <Box
        display="grid"
        gridTemplateColumns={`204px repeat(${WEEKS}, 1fr)`}
        borderTopWidth="1px"
        borderColor="hairline"
      >
        <Box />
        {weeks.map((week, i) => {
          const month = week.slice(0, 7) !== weeks[i - 1]?.slice(0, 7)
          return (
            <Box
              key={week}
              h="26px"
              position="relative"
              borderLeftWidth={month ? '1px' : 0}
              borderColor="hairline"
            >
              {month && (
                <Mono position="absolute" left="1" top="1" fontSize="11px" whiteSpace="nowrap">
                  {monthName(week).slice(0, 3)}
                </Mono>
              )}
            </Box>
          )
        })}
        {accounts.map((account) => {
          const meant = Math.min(account.slots.length, account.maxPerWeek)
          const row = weeks.map((_, i) => counts.get(`${account.id} ${i}`) ?? 0)
          return (
            <Box key={account.id} display="contents">
              <Flex align="center" gap="2.5" h="54px" borderTopWidth="1px" borderColor="hairline" pr="2">
                <NetworkMark id={account.network} />
                <Box minW="0">
                  <Box fontWeight="600" fontSize="13px" truncate>
                    @{account.handle}
                  </Box>
                  <Mono>{silence(row)}</Mono>
                </Box>
              </Flex>
              {row.map((number, i) => {
                const week = weeks[i] as string
                const full = meant > 0 && number >= meant
                return (
                  <Box
                    key={week}
                    borderTopWidth="1px"
                    borderColor="hairline"
                    display="flex"
                    alignItems="center"
                    justifyContent="center"
                    bg={week === thisWeek ? 'clayTint' : undefined}
                  >
                    <chakra.button
                      type="button"
                      aria-label={`Week of ${longDay(week)}, @${account.handle}: ${count(number, 'post')}`}
                      title={`Week of ${longDay(week)}: ${count(number, 'post')} of ${count(meant, 'slot')}${full ? ', full' : ''}`}
                      onClick={() => onWeek(week)}
                      w="13px"
                      h="30px"
                      borderRadius="sm"
                      cursor="pointer"
                      borderWidth="1px"
                      borderColor={number === 0 ? 'hairline' : full ? 'clay' : 'water'}
                      position="relative"
                      overflow="hidden"
                    >
                      <Box
                        position="absolute"
                        left="0"
                        right="0"
                        bottom="0"
                        bg={full ? 'clay' : 'water'}
                        h={`${meant ? Math.min(100, (number / meant) * 100) : 0}%`}
                      />
                    </chakra.button>
                  </Box>
                )
              })}
            </Box>
          )
        })}
      </Box>
      <Flex gap="5" mt="3" fontSize="13px" color="soft">
        <span>The fill is the share of the week’s slots in use.</span>
        <span>Clay: the week is full.</span>
        <span>Choose a week to come down to it.</span>
      </Flex>
    </Box>
  )
}

/** The longest run of empty weeks between the first and the last post shown. */
function silence(row: readonly number[]): string {
  const used = row.flatMap((n, i) => (n > 0 ? [i] : []))
  const first = used[0]
  if (first === undefined) return 'nothing planned'
  const longest = used.reduce(
    (top, week, i) => Math.max(top, i === 0 ? 0 : week - (used[i - 1] as number) - 1),
    0,
  )
  return longest === 0 ? 'no silent week' : `silence: ${count(longest, 'week')}`
}
