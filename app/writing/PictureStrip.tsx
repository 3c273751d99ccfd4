import { Box, chakra, Flex } from '@chakra-ui/react'
import {
  linkShown,
  momentOf,
  repeatsAmong,
  showings,
  shownOf,
  type Account,
  type Post,
  type PostMedia,
} from '../../core/model'
import { toWall } from '../../core/planning'
import { useMedia } from '../data'
import { count, NetworkMark, shortDay } from '../ui'

/** The pictures of a drip as readers meet them, day after day; what they have seen too lately is marked. */
export function PictureStrip({
  posts,
  columns,
  restDays,
  chosen,
  onChoose,
}: {
  posts: readonly Post[]
  columns: readonly Account[]
  /** Days for which a picture rests on a network. */
  restDays: number
  chosen: Post | null
  onChoose: (post: Post) => void
}) {
  const account = (post: Post): Account | undefined => columns.find((c) => c.id === post.account)
  const inTime = posts
    .filter((p) => p.state !== 'set aside' && account(p) && p.media.length > 0)
    .sort((a, b) => shownAt(a).localeCompare(shownAt(b)))
  const shots = inTime.flatMap((post) => shownOf(post.media).map((media) => ({ post, media })))
  const repeated = repeatsAmong(showings(inTime, '2020-01-01'), restDays)
  return (
    <Flex
      role="group"
      aria-label="Pictures in the order in which readers meet them"
      gap="2"
      px="6"
      pb="3"
      overflowX="auto"
      align="flex-start"
    >
      {shots.length === 0 && (
        <Box fontSize="13px" color="soft" py="2">
          No post of this drip shows a picture. Choose one and press p.
        </Box>
      )}
      {shots.map(({ post, media }, i) => (
        <Shot
          key={i}
          post={post}
          media={media}
          zone={account(post)?.zone ?? 'UTC'}
          again={repeated.has(i)}
          chosen={chosen?.id === post.id}
          onChoose={() => onChoose(post)}
        />
      ))}
    </Flex>
  )
}

const shownAt = (post: Post): string => momentOf(post) ?? post.wished

function Shot({
  post,
  media,
  zone,
  again,
  chosen,
  onChoose,
}: {
  post: Post
  media: PostMedia
  zone: string
  again: boolean
  chosen: boolean
  onChoose: () => void
}) {
  const url = useMedia(media, post.brand, linkShown(post))
  const day = shortDay(toWall(Date.parse(shownAt(post)), zone).date)
  return (
    <chakra.button
      type="button"
      aria-pressed={chosen}
      aria-label={`${day}, ${media.alt}${again ? '; shown again too soon' : ''}`}
      title={media.alt}
      onClick={onChoose}
      flexShrink={0}
      w="72px"
      cursor="pointer"
      textAlign="left"
    >
      <Box
        h="84px"
        borderWidth="2px"
        borderColor={chosen ? 'water' : again ? 'clay' : 'hairline'}
        borderRadius="sm"
        overflow="hidden"
        bg="raised"
      >
        <chakra.img src={url} alt="" w="full" h="full" objectFit="cover" />
      </Box>
      <Flex align="center" gap="1" mt="1" fontSize="11px" color="soft">
        <NetworkMark id={post.network} />
        <Box fontFamily="mono">{day}</Box>
      </Flex>
      {post.media.length > 1 && (
        <Box fontSize="11px" color="soft">
          {count(post.media.length, 'picture')}
        </Box>
      )}
      {again && (
        <Box fontSize="11px" color="clayText">
          again so soon
        </Box>
      )}
    </chakra.button>
  )
}
