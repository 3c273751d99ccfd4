import { Box, chakra, Flex } from '@chakra-ui/react'
import { useEffect, useRef } from 'react'
import {
  insideOf,
  waitsForReview,
  type Account,
  type Drip,
  type Hue,
  type Post,
  openFlagsOf,
} from '../../core/model'
import { STORY, measure, network } from '../../core/networks'
import { withoutAddresses } from '../../core/text'
import { addDays, daysBetween, toWall } from '../../core/planning'
import { Drop, NetworkMark, shortDay, weekdayName } from '../ui'

/** Beats along the days against the pipe, accounts in columns; beats that lack a caption say so. */
export function Grid({
  drip,
  posts,
  columns,
  hue,
  chosen,
  picked,
  onChoose,
}: {
  drip: Drip
  posts: Post[]
  columns: Account[]
  hue: Hue | null
  chosen: Post | null
  picked: ReadonlySet<string>
  onChoose: (post: Post, event: React.MouseEvent) => void
}) {
  const places = `104px repeat(${columns.length}, minmax(232px, 440px))`
  return (
    <Box role="grid" aria-label="The drip, beat by beat" minW={`${104 + columns.length * 232}px`}>
      <Box
        role="row"
        display="grid"
        gridTemplateColumns={places}
        borderTopWidth="1px"
        borderBottomWidth="1px"
        borderColor="hairline"
        position="sticky"
        top="0"
        bg="paper"
        zIndex="1"
      >
        <Box role="columnheader" srOnly>
          Day
        </Box>
        <Box />
        {columns.map((a) => (
          <Flex
            role="columnheader"
            key={a.id}
            align="center"
            gap="2"
            px="3"
            h="36px"
            borderLeftWidth="1px"
            borderColor="hairline"
            minW="0"
          >
            <NetworkMark id={a.network} />
            <Box fontWeight="600" truncate>
              @{a.handle}
            </Box>
            <Box color="soft" fontSize="13px" truncate>
              {network(a.network).name}
            </Box>
          </Flex>
        ))}
      </Box>
      {drip.days.map((day, beat) => {
        const gap = (drip.days[beat + 1] ?? day) - day
        const lacking = drip.missing.filter(
          (m) =>
            m.beat === beat &&
            columns.some((c) => c.id === m.account) &&
            !posts.some((p) => p.beat === beat && p.account === m.account),
        ).length
        return (
          <Box role="row" key={beat} display="grid" gridTemplateColumns={places} minH="112px">
            <Box role="rowheader" position="relative" pt="5" pr="12">
              <Box fontFamily="mono" fontWeight="600" fontSize="12px" textAlign="right">
                day {day}
              </Box>
              <Box fontFamily="mono" fontSize="11px" color="soft" textAlign="right">
                {shortDay(addDays(drip.startDay, day))}
              </Box>
              {lacking > 0 && (
                <Box fontSize="11px" lineHeight="1.3" color="clayText" textAlign="right" mt="1">
                  no passage for {lacking === columns.length ? 'any' : lacking}
                </Box>
              )}
              <Box
                aria-hidden
                position="absolute"
                right="28px"
                top={beat === 0 ? '26px' : 0}
                bottom={beat === drip.days.length - 1 ? 'calc(100% - 30px)' : 0}
                w="5px"
                bg="water"
              />
              <Box
                aria-hidden
                position="absolute"
                right="21px"
                top="22px"
                w="19px"
                h="16px"
                borderWidth="2px"
                borderColor="water"
                bg="raised"
                borderRadius="sm"
              />
              {gap > 0 && (
                <Box
                  position="absolute"
                  right="2px"
                  bottom="4px"
                  fontFamily="mono"
                  fontSize="10px"
                  color="soft"
                  bg="paper"
                >
                  {gap} d
                </Box>
              )}
            </Box>
            {columns.map((account) => {
              const post = posts.find((p) => p.beat === beat && p.account === account.id)
              const missing = drip.missing.find((m) => m.beat === beat && m.account === account.id)
              return post ? (
                <Cell
                  key={account.id}
                  post={post}
                  zone={account.zone}
                  hue={hue}
                  chosen={post.id === chosen?.id}
                  picked={picked.has(post.id)}
                  onChoose={(event) => onChoose(post, event)}
                />
              ) : (
                <Box
                  role="gridcell"
                  key={account.id}
                  borderLeftWidth="1px"
                  borderBottomWidth="1px"
                  borderColor="hairline"
                  p="3"
                  color="soft"
                  fontSize="13px"
                  fontStyle="italic"
                >
                  {missing?.message ?? 'No post here.'}
                </Box>
              )
            })}
          </Box>
        )
      })}
    </Box>
  )
}

function Cell({
  post,
  zone,
  hue,
  chosen,
  picked,
  onChoose,
}: {
  post: Post
  zone: string
  hue: Hue | null
  chosen: boolean
  picked: boolean
  onChoose: (event: React.MouseEvent) => void
}) {
  const box = useRef<HTMLButtonElement>(null)
  useEffect(() => {
    if (chosen) box.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' })
  }, [chosen])
  const profile = network(post.network)
  const length = measure(post.wording.text, profile.text)
  const block = post.checks.find((c) => c.severity === 'block')
  const flag = waitsForReview(post) ? (block ?? openFlagsOf(post)[0]) : undefined
  const trouble = post.failure ?? post.held?.reason ?? flag?.message
  return (
    <Box
      role="gridcell"
      aria-selected={chosen || picked}
      borderLeftWidth="1px"
      borderBottomWidth="1px"
      borderColor="hairline"
    >
      <chakra.button
        ref={box}
        type="button"
        data-post={post.id}
        onClick={onChoose}
        display="flex"
        flexDirection="column"
        alignItems="stretch"
        justifyContent="flex-start"
        w="full"
        h="full"
        textAlign="left"
        px="3"
        py="2"
        cursor="pointer"
        bg={picked ? 'waterTint' : chosen ? 'raised' : undefined}
        boxShadow={chosen ? 'inset 0 0 0 2px var(--chakra-colors-water)' : undefined}
        _hover={{ bg: 'raised' }}
        opacity={post.state === 'set aside' ? 0.5 : 1}
      >
        <Flex align="center" gap="2" fontFamily="mono" fontSize="12px" color="soft">
          <Drop state={post.state} inside={insideOf(post)} hue={hue} size={22} />
          {picked && <Box color="waterText">✓</Box>}
          <Box flex="1" whiteSpace="nowrap">
            {post.state === 'set aside' ? 'set aside' : cellTime(post, zone)}
          </Box>
          <Measure length={length} limit={profile.text.limit} />
        </Flex>
        <Box
          fontFamily="reading"
          fontSize="14px"
          lineHeight="1.4"
          mt="1"
          lineClamp={trouble ? 2 : 3}
          color={post.state === 'published' ? 'soft' : 'ink'}
        >
          <chakra.span fontFamily="mono" fontSize="12px" color="soft">
            {post.wording.angle}
            {post.wording.format === STORY ? ', as a story' : ''} ·{' '}
          </chakra.span>
          {post.wording.title && <b>{post.wording.title} · </b>}
          {withoutAddresses(post.wording.text, '↗')}
        </Box>
        {trouble && (
          <Box
            mt="1"
            px="1.5"
            borderRadius="sm"
            bg="clayTint"
            color="clayOnTint"
            fontSize="12px"
            lineClamp={1}
          >
            <b>!</b> {trouble}
          </Box>
        )}
      </chakra.button>
    </Box>
  )
}

/** "Fri 08:12", with the days it stands away from its wish. */
function cellTime(post: Post, zone: string): string {
  const at = post.publishedAt ?? post.at
  if (at === null) return 'no place'
  const wall = toWall(Date.parse(at), zone)
  const moved = daysBetween(toWall(Date.parse(post.wished), zone).date, wall.date)
  return `${weekdayName(wall.weekday)} ${wall.time}${moved ? ` ${moved > 0 ? '+' : '−'}${Math.abs(moved)} d` : ''}`
}

/** A caption's length against its network's limit. */
function Measure({ length, limit }: { length: number; limit: number | null }) {
  if (limit === null) return <>{length}</>
  return (
    <Flex align="center" gap="1.5" title={`${length} of ${limit} characters`}>
      <Box w="24px" h="4px" bg="hairline" borderRadius="full">
        <Box
          h="4px"
          borderRadius="full"
          bg={length > limit ? 'plum' : 'water'}
          w={`${Math.min(100, (length / limit) * 100)}%`}
        />
      </Box>
      {length}
    </Flex>
  )
}
