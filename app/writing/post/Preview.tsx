import { Box, chakra, Flex } from '@chakra-ui/react'
import { linkShown, type Account, type Post, type PostMedia } from '../../../core/model'
import { formatOf, STORY, network, sliceGraphemes } from '../../../core/networks'
import { useClicks, useCut, useMedia } from '../../data'
import { count, Mono, NetworkMark } from '../../ui'
import { isPlayed, Player } from './Player'

export function Preview({ post, account }: { post: Post; account: Account | undefined }) {
  const profile = network(post.network)
  return (
    <Box borderWidth="1px" borderColor="hairline" borderRadius="md" p="3" bg="raised">
      <Flex align="center" gap="2" mb="2">
        <NetworkMark id={post.network} />
        <Box lineHeight="1.25">
          <Box fontWeight="600">{account?.name ?? 'A removed account'}</Box>
          <Box fontSize="12px" color="soft">
            @{account?.handle} · shown as readers see it
          </Box>
        </Box>
      </Flex>
      {formatOf(post) === STORY ? (
        <Box fontSize="13px" color="soft">
          A story: readers see the picture alone, for a day. These words stay here.
        </Box>
      ) : (
        <Words post={post} />
      )}
      {post.media.length > 0 && (
        <Flex
          overflowX="auto"
          gap="2"
          mt="2"
          {...(post.media.length > 1 && {
            tabIndex: 0,
            role: 'group',
            'aria-label': 'Pictures, to be leafed through',
          })}
        >
          {post.media.map((media, i) =>
            isPlayed(media) ? (
              <Player key={i} post={post} media={media} />
            ) : (
              <Picture key={i} media={media} post={post} part={post.media.length > 1 ? '86%' : 'full'} />
            ),
          )}
        </Flex>
      )}
      {post.shortLink && <ShortLinkLine short={post.shortLink} />}
      {post.publicUrl && post.state === 'published' && (
        <Box mt="2" fontSize="13px">
          <a href={post.publicUrl} target="_blank" rel="noreferrer">
            <chakra.span color="waterText" textDecoration="underline">
              See it on {profile.name}
            </chakra.span>
          </a>
        </Box>
      )}
    </Box>
  )
}

/** The words of a post, with the place from which readers have to ask for more. */
function Words({ post }: { post: Post }) {
  const { fold } = network(post.network).text
  const head = fold === null ? post.wording.text : sliceGraphemes(post.wording.text, fold)
  const rest = post.wording.text.slice(head.length)
  return (
    <>
      <Box
        fontFamily="reading"
        fontSize="15px"
        lineHeight="1.5"
        whiteSpace="pre-wrap"
        overflowWrap="anywhere"
        data-testid="caption"
      >
        {post.wording.title && (
          <Box fontWeight="600" mb="1">
            {post.wording.title}
          </Box>
        )}
        {head}
        {rest && (
          <>
            <Box fontFamily="mono" fontSize="11px" color="soft" my="0.5">
              — fold at {fold} —
            </Box>
            {rest.trimStart()}
          </>
        )}
      </Box>
      {post.wording.parts.map((part, i) => (
        <Box
          key={i}
          mt="2"
          pt="2"
          borderTopWidth="1px"
          borderColor="hairline"
          fontFamily="reading"
          fontSize="15px"
          lineHeight="1.5"
          whiteSpace="pre-wrap"
          overflowWrap="anywhere"
        >
          {part}
        </Box>
      ))}
      {post.wording.poll.map((answer) => (
        <Box key={answer} mt="1.5" px="2" py="1" borderWidth="1px" borderColor="hairline" borderRadius="sm">
          {answer}
        </Box>
      ))}
      {post.wording.firstComment && (
        <Box
          mt="2"
          pt="2"
          borderTopWidth="1px"
          borderColor="hairline"
          fontSize="13px"
          color="soft"
          whiteSpace="pre-wrap"
          overflowWrap="anywhere"
        >
          First comment: {post.wording.firstComment}
        </Box>
      )}
    </>
  )
}

/** A picture of a post in the shape and of the part in which readers see it. */
function Picture({ media, post, part }: { media: PostMedia; post: Post; part: string }) {
  const url = useMedia(media, post.brand, linkShown(post))
  const cut = useCut(media)
  const { shape } = media
  return (
    <Box
      w={part}
      flexShrink={0}
      position="relative"
      borderRadius="sm"
      overflow="hidden"
      bg="paper"
      aspectRatio={shape ? `${shape.width} / ${shape.height}` : '3 / 2'}
    >
      <chakra.img
        src={url}
        alt={media.alt}
        position="absolute"
        maxW="none"
        objectFit="cover"
        style={
          cut
            ? {
                left: `${(-cut.x / cut.width) * 100}%`,
                top: `${(-cut.y / cut.height) * 100}%`,
                width: `${100 / cut.width}%`,
                height: `${100 / cut.height}%`,
              }
            : { inset: 0, width: '100%', height: '100%' }
        }
      />
    </Box>
  )
}

/** What the link goes out as, and how often it was followed. */
function ShortLinkLine({ short }: { short: string }) {
  const clicks = useClicks(short)
  return (
    <Box mt="2" fontSize="13px" color="soft">
      The link goes out as <Mono>{short}</Mono>
      {clicks === null ? '' : ` · ${count(clicks, 'click')}`}
    </Box>
  )
}
