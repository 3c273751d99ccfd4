import { Box, chakra, Flex } from '@chakra-ui/react'
import { momentOf, type Pipeline, type Post } from '../../core/model'
import { network } from '../../core/networks'
import { count, longDay, moment, Mono, NetworkMark } from '../ui'
import type { Zoom } from './geometry'
import { type NamedLane } from './marks'

/** "23 – 29 November", "30 November – 6 December", with the years where they differ. */
export function spanWords(from: string, to: string): string {
  if (from.slice(0, 7) === to.slice(0, 7)) return `${Number(from.slice(8))} – ${longDay(to)}`
  if (from.slice(0, 4) === to.slice(0, 4)) return `${longDay(from)} – ${longDay(to)}`
  return `${longDay(from)} ${from.slice(0, 4)} – ${longDay(to)} ${to.slice(0, 4)}`
}

/** What stands beside a lane: its name, and how full it is. */
function LaneLabel({
  name,
  mark,
  note,
  zoom,
  onOpen,
}: {
  name: string
  mark: string | null
  note: string
  zoom: Zoom
  onOpen: (() => void) | null
}) {
  const inside = (
    <>
      {mark && <NetworkMark id={mark} />}
      <Box minW="0" textAlign="left">
        <Box fontWeight="600" fontSize="13px" truncate>
          {name}
        </Box>
        <Mono fontSize={zoom === 'year' ? '11px' : '12px'}>{note}</Mono>
      </Box>
    </>
  )
  if (!onOpen)
    return (
      <Flex align="center" gap="2.5" h="full" pl="6" pr="2" minW="0">
        {inside}
      </Flex>
    )
  return (
    <chakra.button
      type="button"
      display="flex"
      alignItems="center"
      gap="2.5"
      w="full"
      h="full"
      pl="6"
      pr="2"
      minW="0"
      cursor="pointer"
      _hover={{ bg: 'waterTint' }}
      aria-label={`When ${name} on ${mark ? network(mark).name : ''} may post`}
      onClick={onOpen}
    >
      {inside}
    </chakra.button>
  )
}

/** What a drop says when the pointer rests on it: its caption, and its neighbours of the same piece. */
export function Hover({
  post,
  zoneOf,
  titles,
  posts,
}: {
  post: Post | undefined
  zoneOf: (account: string) => string
  titles: ReadonlyMap<string, { title: string }>
  posts: readonly Post[]
}) {
  if (!post) return null
  const at = momentOf(post) ?? ''
  const kin = posts
    .filter((p) => post.piece !== null && p.piece === post.piece && p.id !== post.id && momentOf(p))
    .sort((a, b) => ((momentOf(a) ?? '') < (momentOf(b) ?? '') ? -1 : 1))
  const before = kin.filter((p) => (momentOf(p) ?? '') <= at).at(-1)
  const after = kin.find((p) => (momentOf(p) ?? '') > at)
  return (
    <>
      <Mono>
        {network(post.network).name} · {at ? moment(at, zoneOf(post.account)) : 'no place'} · {post.state}
        {post.pinned ? ' · pinned' : ''}
      </Mono>
      <Box fontFamily="reading" mt="1" lineClamp="4">
        {post.wording.text}
      </Box>
      {post.piece && (
        <Box color="soft" mt="1.5" fontSize="12px">
          {titles.get(post.piece)?.title}
          {before ? ` · before it ${moment(momentOf(before) ?? '', zoneOf(before.account))}` : ''}
          {after ? ` · after it ${moment(momentOf(after) ?? '', zoneOf(after.account))}` : ''}
        </Box>
      )}
    </>
  )
}

/** What the colours mean: a pipeline each, and water for what was begun by hand. */
export function Legend({ pipelines }: { pipelines: readonly Pipeline[] }) {
  return (
    <Flex
      gap="4"
      px="6"
      py="2"
      fontSize="13px"
      color="soft"
      wrap="wrap"
      flexShrink={0}
      borderTopWidth="1px"
      borderColor="hairline"
    >
      {pipelines.map((p) => (
        <Flex key={p.id} align="center" gap="1.5">
          <Box w="9px" h="9px" borderRadius="full" bg={`hue.${p.hue}`} /> {p.name}
        </Flex>
      ))}
      <Flex align="center" gap="1.5">
        <Box w="9px" h="9px" borderRadius="full" bg="water" /> begun by hand
      </Flex>
      <Box ml="auto">Drag a drop, or choose one and press m. Shift adds to the selection.</Box>
    </Flex>
  )
}

/** What stands beside each lane; `counts` is how many posts of it are in view. An account's opens its times. */
export function laneLabels(
  lanes: readonly NamedLane[],
  counts: readonly number[],
  zoom: Zoom,
  onOpen: (lane: string) => void,
) {
  return lanes.map(({ id, name, account }, i) => {
    const posts = counts[i] ?? 0
    const full =
      account && zoom === 'week' ? `${posts} of ${count(account.slots.length, 'slot')}` : count(posts, 'post')
    return (
      <LaneLabel
        key={id}
        name={name}
        mark={account?.network ?? null}
        note={`${full}${account?.held ? ' · held' : ''}`}
        zoom={zoom}
        onOpen={account ? () => onOpen(id) : null}
      />
    )
  })
}
