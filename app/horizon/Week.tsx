import { Box, chakra, Flex } from '@chakra-ui/react'
import type { Account, Brand, Hue, Post, Slot } from '../../core/model'
import { addDays, clockMinutes, isQuiet, toWall, weekdayOf } from '../../core/planning'
import { clockNow } from '../data'
import { Drop, NetworkMark, Mono, weekdayName } from '../ui'

const LANE = 96
const TOP = 6 * 60
const BOTTOM = 23 * 60

/** Where a time of day stands in a lane: it runs up. Hours before six lie at the foot. */
function height(time: string): number {
  const minutes = Math.min(BOTTOM, Math.max(TOP, clockMinutes(time)))
  return 12 + (1 - (minutes - TOP) / (BOTTOM - TOP)) * (LANE - 28)
}

interface Props {
  monday: string
  posts: readonly Post[]
  accounts: readonly Account[]
  brand: Brand
  hueOf: (pipeline: string | null) => Hue | null
  chosen: Post | null
  onChoose: (id: string) => void
}

/** One week: a lane an account, slots as notches, quiet days hatched, now as a line. */
export function Week({ monday, posts, accounts, brand, hueOf, chosen, onChoose }: Props) {
  const days = Array.from({ length: 7 }, (_, i) => addDays(monday, i))
  const columns = '204px repeat(7, minmax(92px, 1fr))'
  return (
    <Box px="6" pb="8" minW="900px">
      <Box display="grid" gridTemplateColumns={columns} borderTopWidth="1px" borderColor="hairline">
        <Box />
        {days.map((date) => {
          const today = toWall(clockNow(), brand.zone).date === date
          return (
            <Box
              key={date}
              px="2"
              py="1.5"
              fontSize="13px"
              borderLeftWidth="1px"
              borderColor="hairline"
              fontWeight={today ? '700' : '400'}
              color={today ? 'ink' : 'soft'}
            >
              {weekdayName(weekdayOf(date))} {Number(date.slice(8))}
            </Box>
          )
        })}
        {accounts.map((account) => (
          <Lane
            key={account.id}
            account={account}
            days={days}
            posts={posts.filter((p) => p.account === account.id)}
            brand={brand}
            hueOf={hueOf}
            chosen={chosen}
            onChoose={onChoose}
          />
        ))}
      </Box>
    </Box>
  )
}

function Lane({
  account,
  days,
  posts,
  brand,
  hueOf,
  chosen,
  onChoose,
}: { account: Account; days: readonly string[]; posts: readonly Post[] } & Pick<
  Props,
  'brand' | 'hueOf' | 'chosen' | 'onChoose'
>) {
  const now = toWall(clockNow(), account.zone)
  const inWeek = posts
    .map((post) => ({ post, wall: toWall(Date.parse(post.publishedAt ?? post.at ?? ''), account.zone) }))
    .filter(({ wall }) => days.includes(wall.date))
  return (
    <>
      <Flex
        align="center"
        gap="2.5"
        h={`${LANE}px`}
        borderTopWidth="1px"
        borderColor="hairline"
        pr="2"
        minW="0"
      >
        <NetworkMark id={account.network} />
        <Box minW="0">
          <Box fontWeight="600" fontSize="13px" truncate>
            @{account.handle}
          </Box>
          <Mono>
            {inWeek.length} of {account.slots.length} slots{account.held ? ' · held' : ''}
          </Mono>
        </Box>
      </Flex>
      {days.map((date) => {
        const quiet = isQuiet(date, [...account.quiet, ...brand.quiet])
        return (
          <Box
            key={date}
            position="relative"
            h={`${LANE}px`}
            borderTopWidth="1px"
            borderLeftWidth="1px"
            borderColor="hairline"
            style={
              quiet
                ? {
                    background:
                      'repeating-linear-gradient(135deg, var(--chakra-colors-hairline) 0 2px, transparent 2px 10px)',
                  }
                : undefined
            }
            title={quiet ? 'a quiet day' : undefined}
          >
            {!quiet &&
              account.slots
                .filter((s) => s.weekday === weekdayOf(date))
                .map((slot, i) => <Notch key={i} slot={slot} />)}
            {date === now.date && (
              <Box
                position="absolute"
                left="0"
                right="0"
                top={`${height(now.time) + 8}px`}
                borderTopWidth="2px"
                borderColor="clay"
                title={`now, ${now.time}`}
              >
                <Box
                  as="span"
                  position="absolute"
                  left="1"
                  top="-15px"
                  fontFamily="mono"
                  fontSize="11px"
                  color="clayText"
                >
                  {now.time}
                </Box>
              </Box>
            )}
            {inWeek
              .filter(({ wall }) => wall.date === date)
              .map(({ post, wall }) => (
                <chakra.button
                  key={post.id}
                  type="button"
                  data-drop={post.id}
                  aria-label={`${wall.time}, ${post.state}: ${post.wording.text.slice(0, 80)}`}
                  title={post.wording.text.slice(0, 220)}
                  onClick={() => onChoose(post.id)}
                  position="absolute"
                  left="26%"
                  top={`${height(wall.time) - 6}px`}
                  display="flex"
                  alignItems="center"
                  gap="1"
                  cursor="pointer"
                  borderRadius="md"
                  px="0.5"
                  boxShadow={
                    post.id === chosen?.id
                      ? 'inset 0 0 0 2px var(--chakra-colors-water)'
                      : chosen && post.piece === chosen.piece
                        ? 'inset 0 0 0 1px var(--chakra-colors-hatch)'
                        : undefined
                  }
                >
                  <Drop
                    state={post.state}
                    picture={post.media !== null}
                    hue={hueOf(post.pipeline)}
                    size={24}
                  />
                  <Box as="span" fontFamily="mono" fontSize="11px" color="soft">
                    {wall.time}
                  </Box>
                </chakra.button>
              ))}
          </Box>
        )
      })}
    </>
  )
}

function Notch({ slot }: { slot: Slot }) {
  if ('at' in slot)
    return (
      <Box
        position="absolute"
        left="2"
        right="2"
        top={`${height(slot.at) + 8}px`}
        borderTopWidth="1px"
        borderStyle="dotted"
        borderColor="hatch"
        title={`slot at ${slot.at}`}
      />
    )
  return (
    <Box
      position="absolute"
      left="2"
      right="2"
      top={`${height(slot.to) + 8}px`}
      h={`${Math.max(2, height(slot.from) - height(slot.to))}px`}
      bg="waterTint"
      opacity={0.6}
      borderRadius="sm"
      title={`a window from ${slot.from} to ${slot.to}`}
    />
  )
}
