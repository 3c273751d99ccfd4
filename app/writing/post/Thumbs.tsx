import { Box, chakra, Flex } from '@chakra-ui/react'
import { linkShown, type Post, type PostMedia } from '../../../core/model'
import { network } from '../../../core/networks'
import type { PictureOption } from '../../../core/pipeline'
import { useMedia, useRow } from '../../data'
import { showPictures } from '../../data/more'
import { attempt, Button, count } from '../../ui'

/** Several pictures in order: one is picked to be described or worded, moved forward, or taken away. */
export function Slides({
  post,
  picked,
  onPick,
  editable,
}: {
  post: Post
  picked: number
  onPick: (index: number) => void
  editable: boolean
}) {
  const { least } = network(post.network).media.pictures
  const without = post.media.filter((_, i) => i !== picked)
  const forward = (): void => {
    const order = [...post.media]
    const [moved] = order.splice(picked, 1)
    if (moved) order.splice(picked - 1, 0, moved)
    void attempt(() => showPictures(post.id, order, 'Order the pictures'))
    onPick(picked - 1)
  }
  return (
    <Box mt="1">
      <Flex gap="1.5" wrap="wrap" role="group" aria-label="Pictures of this post, in order">
        {post.media.map((media, i) => (
          <Thumb
            key={i}
            media={media}
            brand={post.brand}
            link={linkShown(post)}
            chosen={i === picked}
            label={`${i + 1}: ${media.alt || 'without a description'}`}
            onChoose={() => onPick(i)}
          />
        ))}
      </Flex>
      {editable && (
        <Flex gap="1.5" mt="1.5">
          <Button size="sm" disabled={picked === 0} onClick={forward}>
            Move it forward
          </Button>
          <Button
            size="sm"
            disabled={without.length < least}
            onClick={() => void attempt(() => showPictures(post.id, without, 'Take a picture away'))}
          >
            Take it away
          </Button>
        </Flex>
      )}
    </Box>
  )
}

/** A picture that a post may show. */
export function Option({
  option: { media, near },
  brand,
  link,
  chosen,
  onChoose,
}: {
  option: PictureOption
  brand: string
  /** What a code on it leads to. */
  link: string | null
  chosen: boolean
  onChoose: () => void
}) {
  const account = useRow('accounts', near?.account ?? null)
  const [first] = media
  if (!first) return null
  const where =
    near &&
    `@${account?.handle ?? '…'} shows it ${near.days === 0 ? 'that day' : `${count(Math.abs(near.days), 'day')} ${near.days < 0 ? 'before' : 'after'}`}`
  const told = [
    first.alt || 'A picture without a description',
    first.source.from === 'film' && 'from the film',
    media.length > 1 && `${media.length} slides`,
    where,
  ]
  const far =
    near && (near.days === 0 ? 'same day' : `${Math.abs(near.days)} d ${near.days < 0 ? 'ago' : 'later'}`)
  return (
    <Thumb
      media={first}
      brand={brand}
      link={link}
      chosen={chosen}
      label={told.filter(Boolean).join('; ')}
      mark={
        far ?? (first.source.from === 'film' ? 'film' : media.length > 1 ? `${media.length} slides` : null)
      }
      faint={near !== null && !chosen}
      onChoose={onChoose}
    />
  )
}

function Thumb({
  media,
  brand,
  link,
  chosen,
  label,
  mark = null,
  faint = false,
  onChoose,
}: {
  media: PostMedia
  brand: string
  link: string | null
  chosen: boolean
  label: string
  /** A few words under it. */
  mark?: string | null
  faint?: boolean
  onChoose: () => void
}) {
  const url = useMedia(media, brand, link)
  return (
    <chakra.button
      type="button"
      aria-pressed={chosen}
      aria-label={label}
      title={label}
      onClick={onChoose}
      position="relative"
      flexShrink={0}
      w="64px"
      h="80px"
      borderWidth="2px"
      borderColor={chosen ? 'water' : 'hairline'}
      borderRadius="sm"
      overflow="hidden"
      bg="paper"
      cursor="pointer"
    >
      <chakra.img src={url} alt="" w="full" h="full" objectFit="cover" opacity={faint ? 0.45 : 1} />
      {mark && (
        <Box
          position="absolute"
          insetX="0"
          bottom="0"
          bg="raised"
          color={faint ? 'clayText' : 'ink'}
          fontSize="11px"
          lineHeight="16px"
          textAlign="center"
        >
          {mark}
        </Box>
      )}
    </chakra.button>
  )
}
