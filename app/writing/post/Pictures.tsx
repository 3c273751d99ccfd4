import { Box, chakra, Flex, Heading } from '@chakra-ui/react'
import useSWR from 'swr'
import { may, pictureKey, type Post, type PostMedia } from '../../../core/model'
import { network } from '../../../core/networks'
import type { PictureOption } from '../../../core/pipeline'
import {
  describePicture,
  nextPicture,
  pictureOptions,
  showFile,
  showPictures,
  useMedia,
  useRow,
} from '../../data'
import { attempt, Button, count, FileButton, Labelled, TextArea, useTyped } from '../../ui'
import { CardFields } from './CardFields'

/** The picture of a post: which it is, which it could be, what it says to those who cannot see it. */
export function Pictures({ post }: { post: Post }) {
  const { least, most } = network(post.network).media.pictures
  const editable = may(post, 'edit')
  const shown = post.media[0]
  const key = shown && pictureKey(shown.source)
  const { data } = useSWR(
    editable && post.piece && most > 0 ? ['pictures', post.id, post.wording.text, post.at] : null,
    () => pictureOptions(post.id),
    { revalidateOnFocus: false, keepPreviousData: true },
  )
  if (most === 0 || (!editable && !shown)) return null
  // What a person chose that is none of the piece's stands first.
  const own = shown && data && !data.some((o) => pictureKey(o.media.source) === key)
  const options = [...(own ? [{ media: shown, near: null }] : []), ...(data ?? [])]
  return (
    <Box as="section" aria-label="Picture" mt="4">
      <Flex align="center" gap="1.5" mb="1.5">
        <Heading as="h3" fontSize="14px" fontWeight="600" flex="1">
          {shown?.source.from === 'card' ? 'Card' : 'Picture'}
        </Heading>
        {editable && (
          <>
            {shown && least === 0 && (
              <Button
                size="sm"
                look="quiet"
                onClick={() => void attempt(() => showPictures(post.id, [], 'Take a picture away'))}
              >
                None
              </Button>
            )}
            <FileButton
              size="sm"
              look="quiet"
              accept="image/*"
              label="A picture for this post"
              onFile={(file) => void attempt(() => showFile(post.id, file))}
            >
              From a file …
            </FileButton>
            {post.piece && (
              <Button size="sm" hint="p" onClick={() => void attempt(() => nextPicture(post.id))}>
                Another
              </Button>
            )}
          </>
        )}
      </Flex>
      {options.length > 1 && (
        <Flex gap="1.5" overflowX="auto" pb="1.5" role="group" aria-label="Pictures to choose from">
          {options.map((option) => (
            <Option
              key={pictureKey(option.media.source)}
              option={option}
              brand={post.brand}
              chosen={pictureKey(option.media.source) === key}
              onChoose={() =>
                void attempt(() => showPictures(post.id, [option.media, ...post.media.slice(1)]))
              }
            />
          ))}
        </Flex>
      )}
      {editable && shown && <Alt post={post} media={shown} />}
      {editable && shown?.source.from === 'card' && <CardFields post={post} card={shown.source.card} />}
    </Box>
  )
}

function Option({
  option: { media, near },
  brand,
  chosen,
  onChoose,
}: {
  option: PictureOption
  brand: string
  chosen: boolean
  onChoose: () => void
}) {
  const url = useMedia(media, brand)
  const account = useRow('accounts', near?.account ?? null)
  const where =
    near &&
    `@${account?.handle ?? '…'} shows it ${near.days === 0 ? 'that day' : `${count(Math.abs(near.days), 'day')} ${near.days < 0 ? 'before' : 'after'}`}`
  return (
    <chakra.button
      type="button"
      aria-pressed={chosen}
      aria-label={`${media.alt || 'A picture without a description'}${where ? `; ${where}` : ''}`}
      title={where ? `${where}.` : media.alt}
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
      <chakra.img src={url} alt="" w="full" h="full" objectFit="cover" opacity={near && !chosen ? 0.45 : 1} />
      {near && (
        <Box
          position="absolute"
          insetX="0"
          bottom="0"
          bg="raised"
          color="clayText"
          fontSize="11px"
          lineHeight="16px"
          textAlign="center"
        >
          {near.days === 0 ? 'same day' : `${Math.abs(near.days)} d ${near.days < 0 ? 'ago' : 'later'}`}
        </Box>
      )}
    </chakra.button>
  )
}

function Alt({ post, media }: { post: Post; media: PostMedia }) {
  const [alt, setAlt] = useTyped(media.alt)
  return (
    <Box mt="2">
      <Labelled label="Alternative text, for those who cannot see it">
        {(id) => (
          <TextArea
            id={id}
            rows={2}
            fontSize="13px"
            value={alt}
            onChange={(e) => setAlt(e.target.value)}
            onBlur={() => alt.trim() !== media.alt && void attempt(() => describePicture(post.id, 0, alt))}
          />
        )}
      </Labelled>
    </Box>
  )
}
