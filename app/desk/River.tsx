import { Box, Flex, Heading } from '@chakra-ui/react'
import { Link } from 'react-router'
import { insideOf, type Account, type Pipeline, type Post } from '../../core/model'
import { addDays, fromWall, toWall } from '../../core/planning'
import { count, Drop, NetworkMark, postPath, shortDay, weekdayName } from '../ui'

const HOURS = 48
const HEIGHT = 560
/** So many streams stand beside one another; of more accounts only those that have something to come are shown. */
const STREAMS = 8
/** The least width of a stream, and what the hours take at the left, in pixels. */
const STREAM = 30
const LEFT = 62

/** The next 48 hours as a vertical river of drops, one stream an account; where there are many, an account that posts. */
export function River({
  posts,
  accounts,
  pipelines,
  now,
  zone,
}: {
  posts: readonly Post[]
  accounts: readonly Account[]
  pipelines: readonly Pipeline[]
  now: number
  zone: string
}) {
  const y = (at: number): number => ((at - now) / (HOURS * 3_600_000)) * HEIGHT
  const today = toWall(now, zone).date
  const streams =
    accounts.length > STREAMS ? accounts.filter((a) => posts.some((p) => p.account === a.id)) : accounts
  const silent = accounts.length - streams.length
  const marks = [0, 1, 2].flatMap((day) =>
    ['00:00', '08:00', '12:00', '18:00'].flatMap((time) => {
      const date = addDays(today, day)
      const at = fromWall(date, time, zone)
      return at !== null && at > now && at < now + HOURS * 3_600_000
        ? [
            {
              at,
              label: time === '00:00' ? `${weekdayName(toWall(at, zone).weekday)} ${shortDay(date)}` : time,
              day: time === '00:00',
            },
          ]
        : []
    }),
  )
  return (
    <Box p="5" role="region" aria-label="The next 48 hours" tabIndex={0}>
      <Heading as="h2" fontSize="14px" fontWeight="600" mb="3">
        The next 48 hours
      </Heading>
      <Box overflowX="auto">
        <Box minW={`${LEFT + streams.length * STREAM}px`}>
          <Flex pl={`${LEFT}px`} justify="space-around" mb="1">
            {streams.map((a) => (
              <Box key={a.id} title={`@${a.handle}`}>
                <NetworkMark id={a.network} />
              </Box>
            ))}
          </Flex>
          <Box position="relative" h={`${HEIGHT}px`} borderTopWidth="2px" borderColor="clay">
            <Box
              position="absolute"
              left="0"
              top="-9px"
              bg="raised"
              pr="2"
              color="clayText"
              fontFamily="mono"
              fontSize="12px"
            >
              now
            </Box>
            {marks.map((mark) => (
              <Box
                key={mark.at}
                position="absolute"
                left="0"
                right="0"
                top={`${y(mark.at)}px`}
                borderTopWidth={mark.day ? '1px' : 0}
                borderColor="hairline"
              >
                <Box
                  fontFamily="mono"
                  fontSize="11px"
                  color="soft"
                  fontWeight={mark.day ? '600' : '400'}
                  transform="translateY(-50%)"
                  bg="raised"
                  display="inline-block"
                  pr="1"
                >
                  {mark.label}
                </Box>
              </Box>
            ))}
            <Flex position="absolute" left={`${LEFT}px`} right="0" top="0" bottom="0" justify="space-around">
              {streams.map((account) => (
                <Box key={account.id} w="28px" position="relative">
                  <Box
                    position="absolute"
                    left="13px"
                    top="0"
                    bottom="0"
                    borderLeftWidth="1px"
                    borderColor="hairline"
                  />
                  {posts
                    .filter((p) => p.account === account.id && p.at !== null)
                    .map((post) => (
                      <Box
                        key={post.id}
                        position="absolute"
                        left="2px"
                        top={`${y(Date.parse(post.at as string)) - 12}px`}
                      >
                        <Link
                          to={postPath(post)}
                          aria-label={`${toWall(Date.parse(post.at as string), zone).time} @${account.handle}: ${post.wording.text.slice(0, 60)}`}
                        >
                          <Drop
                            state={post.state}
                            inside={insideOf(post)}
                            hue={pipelines.find((p) => p.id === post.pipeline)?.hue ?? null}
                            size={24}
                          />
                        </Link>
                      </Box>
                    ))}
                </Box>
              ))}
            </Flex>
          </Box>
        </Box>
      </Box>
      {silent > 0 && posts.length > 0 && (
        <Box color="soft" fontSize="13px" mt="2">
          {count(silent, 'account has', 'accounts have')} no post in these two days.
        </Box>
      )}
      {posts.length === 0 && (
        <Box color="soft" fontSize="13px" mt="2">
          Nothing is planned for these two days.
        </Box>
      )}
    </Box>
  )
}
