import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import { Link, useNavigate } from 'react-router'
import type { Post } from '../../core/model'
import {
  COUNTED_WORDS,
  effectName,
  figure,
  more,
  type Counted,
  type Effect,
  type Ranked,
} from '../../core/results'
import { linkShown } from '../../core/model'
import { useMedia } from '../data'
import { dripAgain } from '../data/more'
import { attempt, Button, moment, Mono, NetworkMark, postPath, say } from '../ui'

/** Posts with their words, picture and place, in the order of what they earned. */
export function Ranking({
  label,
  ranked,
  held,
  posts,
  zones,
  counted,
}: {
  label: string
  ranked: readonly Ranked[]
  /** What holds posts back for certain, by their ids. */
  held?: Readonly<Record<string, Effect[]>> | undefined
  posts: ReadonlyMap<string, Post>
  zones: ReadonlyMap<string, string>
  counted: Counted
}) {
  return (
    <Box as="section" aria-label={label} flex="1" minW="300px">
      <Heading as="h2" fontSize="15px" fontWeight="600" mb="2">
        {label}
      </Heading>
      {ranked.map((r) => {
        const post = posts.get(r.post)
        return post ? (
          <Line
            key={r.post}
            post={post}
            ranked={r}
            held={held?.[r.post] ?? []}
            zone={zones.get(post.account) ?? 'UTC'}
            counted={counted}
          />
        ) : null
      })}
    </Box>
  )
}

function Line({
  post,
  ranked,
  held,
  zone,
  counted,
}: {
  post: Post
  ranked: Ranked
  held: readonly Effect[]
  zone: string
  counted: Counted
}) {
  const [first] = post.media
  const navigate = useNavigate()
  const again = async (): Promise<void> => {
    const next = await dripAgain(post.id)
    say(
      next.at
        ? `In other words on ${moment(next.at, zone)}; it waits for review.`
        : 'In other words; it has no place yet and waits for review.',
    )
    void navigate(postPath(next))
  }
  return (
    <Flex
      gap="3"
      py="2"
      borderTopWidth="1px"
      borderColor="hairline"
      align="flex-start"
      css={{ breakInside: 'avoid' }}
    >
      {first ? <Small post={post} /> : <Box w="56px" flexShrink={0} />}
      <Box minW="0" flex="1">
        <chakra.div lineClamp="2" fontFamily="reading" fontSize="14px" lineHeight="1.45">
          <Link to={postPath(post)}>{post.wording.title ?? post.wording.text}</Link>
        </chakra.div>
        <Flex gap="2" align="center" mt="1" wrap="wrap">
          <NetworkMark id={post.network} />
          <Mono>{post.publishedAt ? moment(post.publishedAt, zone) : ''}</Mono>
          {post.piece && ranked.times > 1 && (
            <Button size="sm" look="quiet" onClick={() => void attempt(again)}>
              Drip again
            </Button>
          )}
        </Flex>
        {held.length > 0 && (
          <Box fontSize="13px" color="clayText" mt="1">
            {held
              .slice(0, 2)
              .map((e) => `${effectName(e)} earns ${more(e.times.at)}.`)
              .join(' ')}
          </Box>
        )}
      </Box>
      <Box textAlign="right" flexShrink={0}>
        <Box fontFamily="mono" fontSize="14px">
          × {ranked.times.toFixed(2)}
        </Box>
        <Mono>
          {COUNTED_WORDS[counted].toLowerCase()} {figure(ranked.value, counted)}
        </Mono>
      </Box>
    </Flex>
  )
}

function Small({ post }: { post: Post }) {
  const [first] = post.media
  const url = useMedia(first as Post['media'][number], post.brand, linkShown(post))
  return (
    <chakra.img
      src={url}
      alt={first?.alt ?? ''}
      w="56px"
      h="56px"
      objectFit="cover"
      borderRadius="sm"
      flexShrink={0}
      bg="paper"
    />
  )
}
