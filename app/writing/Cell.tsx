import { Box, chakra, Flex } from '@chakra-ui/react'
import { useEffect, useRef } from 'react'
import { insideOf, openFlagsOf, waitsForReview, type Hue, type Post } from '../../core/model'
import { STORY, measure, network } from '../../core/networks'
import { daysBetween, toWall } from '../../core/planning'
import { withoutAddresses } from '../../core/text'
import { Drop, weekdayName } from '../ui'

/** A post in a sheet: its moment, the length and the opening of its caption, and what is wrong with it. */
export function Cell({
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
