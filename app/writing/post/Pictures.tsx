import { Box, Flex, Heading } from '@chakra-ui/react'
import { useState } from 'react'
import useSWR from 'swr'
import {
  linkShown,
  firstPicture,
  isClip,
  isWholeFilm,
  may,
  ownPictureHash,
  pictureId,
  type Post,
  type PostMedia,
} from '../../../core/model'
import { houseOf } from '../../../core/house'
import { isDocument, mayMove, mostSlides, STORY, network, shownOn, staysMoving } from '../../../core/networks'
import { takeFromStock, useRow } from '../../data'
import {
  asSlides,
  asStory,
  keepStill,
  letMove,
  describePicture,
  nextPicture,
  pictureOptions,
  showFile,
  showOwn,
  showPictures,
} from '../../data/more'
import { attempt, Button, count, FileButton, Labelled, Segments, TextArea, useTyped } from '../../ui'
import { Picker } from '../library/Picker'
import { StockPicker } from '../library/StockPicker'
import { CardFields } from './CardFields'
import { ClipFields } from './ClipFields'
import { Crop } from './Crop'
import { Order } from './Order'
import { Option, Slides } from './Thumbs'

/** The pictures of a post: which they are, which they could be, what they say to those who cannot see them. */
export function Pictures({ post }: { post: Post }) {
  const profile = network(post.network)
  const { least, most } = profile.media.pictures
  const { any, moving } = shownOn(profile)
  const editable = may(post, 'edit')
  const story = post.wording.format === STORY
  const [picked, setPicked] = useState(0)
  const [open, setOpen] = useState<'crop' | 'library' | 'stock' | 'order' | null>(null)
  const toggle = (what: typeof open): void => setOpen(open === what ? null : what)
  const index = Math.min(picked, post.media.length - 1)
  const shown = post.media[index]
  const { data } = useSWR(
    editable && post.piece && any ? ['pictures', post.id, post.wording.text, post.at] : null,
    () => pictureOptions(post.id),
    { revalidateOnFocus: false, keepPreviousData: true },
  )
  const brand = useRow('brands', open === 'order' ? post.brand : null)
  const piece = useRow('pieces', open === 'order' ? post.piece : null)
  // Null where the post has none.
  const found = useRow('passages', open === 'order' ? post.passage : null)
  const passage = post.passage === null ? null : found
  const its = useRow('pipelines', open === 'order' ? post.pipeline : null)
  const pipeline = post.pipeline === null ? null : its
  if (!any || (!editable && !shown)) return null
  const key = firstPicture(post)
  // What a person chose that is none of the piece's stands first.
  const own = key !== null && data && !data.some((o) => firstPicture(o) === key)
  const options = [...(own ? [{ media: post.media, near: null }] : []), ...(data ?? [])]
  const room = !story && post.media.length < most
  /** After what stands there already, where several do. */
  const before = room && post.media.length > 1 ? post.media : []
  const take = (file: File): void => void attempt(() => showFile(post.id, file, before))
  return (
    <Box
      as="section"
      aria-label={moving ? 'Clip' : 'Picture'}
      mt="4"
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        e.preventDefault()
        const [dropped] = e.dataTransfer.files
        if (dropped && editable) take(dropped)
      }}
      onPaste={(e) => {
        const [pasted] = e.clipboardData.files
        if (pasted && editable) take(pasted)
      }}
    >
      {profile.media.story && shown && editable && (
        <Flex mb="2">
          <Segments
            label="Goes out as"
            choices={['post', 'story'] as const}
            value={story ? 'story' : 'post'}
            onChange={(as) => void attempt(() => asStory(post.id, as === 'story'))}
          />
        </Flex>
      )}
      <Heading as="h3" fontSize="14px" fontWeight="600">
        {nameOf(post, moving)}
      </Heading>
      {editable && (
        <Flex align="center" gap="1" mt="1" mb="1.5" wrap="wrap">
          {shown && least === 0 && !moving && (
            <Button
              size="sm"
              look="quiet"
              onClick={() => void attempt(() => showPictures(post.id, [], 'Take the pictures away'))}
            >
              None
            </Button>
          )}
          {mayBeSlides(post) && (
            <Button size="sm" look="quiet" onClick={() => void attempt(() => asSlides(post.id))}>
              As slides
            </Button>
          )}
          {shown?.source.from === 'address' && shown.shape && (
            <Button size="sm" look="quiet" aria-expanded={open === 'crop'} onClick={() => toggle('crop')}>
              Crop
            </Button>
          )}
          {shown?.source.from === 'card' && post.media.length === 1 && profile.media.clips.most > 0 && (
            <Button size="sm" look="quiet" onClick={() => void attempt(() => letMove(post.id))}>
              Let it move
            </Button>
          )}
          {shown?.source.from === 'moving' && !moving && (
            <Button size="sm" look="quiet" onClick={() => void attempt(() => keepStill(post.id))}>
              Keep it still
            </Button>
          )}
          {!moving && (
            <>
              <Button
                size="sm"
                look="quiet"
                aria-expanded={open === 'library'}
                onClick={() => toggle('library')}
              >
                Library
              </Button>
              <Button size="sm" look="quiet" aria-expanded={open === 'stock'} onClick={() => toggle('stock')}>
                Stock
              </Button>
              <Button size="sm" look="quiet" aria-expanded={open === 'order'} onClick={() => toggle('order')}>
                To order
              </Button>
              <FileButton
                size="sm"
                look="quiet"
                accept="image/*"
                label="A picture for this post"
                onFile={take}
                title="A file may also be dropped here, or pasted."
              >
                File …
              </FileButton>
            </>
          )}
          {post.piece && (
            <Button size="sm" hint="p" onClick={() => void attempt(() => nextPicture(post.id))}>
              Another
            </Button>
          )}
        </Flex>
      )}
      {shown && <Moves post={post} media={shown} />}
      {open === 'crop' && shown && editable && (
        <Crop key={`crop ${index}`} post={post} index={index} media={shown} onDone={() => setOpen(null)} />
      )}
      {open === 'library' && editable && (
        <Picker
          brand={post.brand}
          onTake={({ source, alt, credit, print, size }) => {
            if (source.from !== 'address') return
            void attempt(() => showOwn(post.id, { url: source.url, alt, credit, print, size }, before))
            setOpen(null)
          }}
        />
      )}
      {open === 'stock' && editable && (
        <StockPicker
          words={subjectOf(post)}
          onTake={(picture) =>
            void attempt(async () => {
              const taken = await takeFromStock(post.brand, picture)
              await showOwn(post.id, taken, before)
              setOpen(null)
            })
          }
        />
      )}
      {open === 'order' && editable && brand && passage !== undefined && pipeline !== undefined && (
        <Order
          key={`order ${post.id}`}
          brand={post.brand}
          about={{
            words: passage?.text ?? post.wording.text,
            title: piece?.title ?? '',
            brief: houseOf(brand, pipeline?.make).briefs.find((b) => b.network === post.network)?.picture,
            look: brand.look,
          }}
          shape={(story ? profile.media.story?.shape : profile.media.shapes[0]) ?? null}
          onMade={async (picture) => {
            await showOwn(post.id, picture, before)
            setOpen(null)
          }}
        />
      )}
      {options.length > 1 && open === null && (
        <Flex gap="1.5" overflowX="auto" pb="1.5" role="group" aria-label="Pictures to choose from">
          {options.map((option) => (
            <Option
              key={firstPicture(option)}
              option={option}
              brand={post.brand}
              link={linkShown(post)}
              chosen={firstPicture(option) === key}
              onChoose={() => void attempt(() => showPictures(post.id, option.media))}
            />
          ))}
        </Flex>
      )}
      {post.media.length > 1 && <Slides post={post} picked={index} onPick={setPicked} editable={editable} />}
      {editable && shown && <Alt key={index} post={post} index={index} media={shown} />}
      {editable && shown && <ClipFields key={`clip ${index}`} post={post} index={index} media={shown} />}
      {editable && (shown?.source.from === 'card' || shown?.source.from === 'moving') && (
        <CardFields key={`card ${index}`} post={post} index={index} card={shown.source.card} />
      )}
    </Box>
  )
}

/** What a post is about, in a few words to look for: its hashtags, or else its first words. */
function subjectOf({ wording: { hashtags, title, text } }: Post): string {
  const tags = hashtags.map((t) => t.replace(/^#/, '').replace(/(?<=[a-z])(?=[A-Z])/g, ' '))
  return tags.length > 0 ? tags.join(' ') : (title ?? text).split(/\s+/).slice(0, 4).join(' ')
}

/** Whether a post's one card is a list or steps that its network would show as slides. */
function mayBeSlides({ network: id, media }: Post): boolean {
  const [first, more] = media
  if (more || first?.source.from !== 'card') return false
  const { layout } = first.source.card
  return (layout === 'list' || layout === 'steps') && mostSlides(id) > 0
}

/** What a post shows, in a word or two. */
function nameOf(post: Post, moving: boolean): string {
  const { media } = post
  if (isDocument(post)) return `Document of ${count(media.length, 'page')}`
  if (media.length > 1) return count(media.length, 'picture')
  const [first] = media
  if (first ? isClip(first) : moving) return first && isWholeFilm(first) ? 'Film' : 'Clip'
  return first?.source.from === 'card' ? 'Card' : 'Picture'
}

function Alt({ post, index, media }: { post: Post; index: number; media: PostMedia }) {
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
            onBlur={() =>
              alt.trim() !== media.alt && void attempt(() => describePicture(post.id, index, alt))
            }
          />
        )}
      </Labelled>
    </Box>
  )
}

/** Says of a picture that moves whether the post's network shows it so; nothing of any other. */
function Moves({ post, media }: { post: Post; media: PostMedia }) {
  const { source } = media
  const url = source.from === 'address' ? source.url : null
  const own = useRow('pictures', url === null ? null : pictureId(post.brand, url))
  const info = useRow('media', url === null ? null : ownPictureHash(url))
  const piece = useRow('pieces', url === null ? null : post.piece)
  const type = own?.moves ? info?.type : piece?.images.find((i) => i.url === url)?.seen?.moves
  if (!type) return null
  const profile = network(post.network)
  const stays = staysMoving({ type, bytes: info?.bytes ?? null }, media.shape, mayMove(profile))
  return (
    <Box fontSize="13px" color={stays ? 'soft' : 'amberText'} mb="1.5">
      {stays
        ? `This picture moves, and ${profile.name} shows it moving.`
        : `This picture moves; ${profile.name} gets its first frame, still.`}
    </Box>
  )
}
