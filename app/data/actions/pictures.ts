import {
  codedCard,
  drawnCard,
  Fault,
  isClip,
  linkShown,
  ownPictureHash,
  sameContent,
  type Cut,
  type MediaInfo,
  type Post,
  type PostMedia,
} from '../../../core/model'
import { isDocument, mayMove, network, type Shape } from '../../../core/networks'
import type { MadePicture } from '../../workers/blobs'
import { pictures } from '../../workers'
import { bytes } from '../api'
import { database } from '../database'
import { announceRows, commit, must, patch } from '../store'
import { madeClip, type Making } from './madeClip'
import { cardsFor } from './drawing'

/** Keeps a picture's bytes and what is known of them. */
export async function storePicture({ blob, hash, type, width, height }: MadePicture): Promise<void> {
  const info: MediaInfo = { id: hash, type, width, height, bytes: blob.size }
  const tx = (await database()).transaction(['blobs', 'media'], 'readwrite')
  await tx.objectStore('blobs').put({ id: hash, blob })
  await tx.objectStore('media').put(info)
  await tx.done
  announceRows([{ table: 'media', id: hash, before: null, row: info }])
}

/** The bytes of a picture of the workspace's own; null for any other address. */
export async function pictureBytes(url: string): Promise<Blob | null> {
  const hash = ownPictureHash(url)
  if (!hash) return null
  const stored = await (await database()).get('blobs', hash)
  if (!stored)
    throw new Fault(
      'not-found',
      'The picture of this post is not in this workspace any more. Choose another.',
      hash,
    )
  return stored.blob
}

/** What is sent of a post's pictures or clips. */
export interface MadeMedia {
  hash: string
  blob: Blob
  /** What is told of it to those who cannot see it. */
  alt: string
}

/**
 * The pictures and clips of a post in the shape its network takes, in order, each made once and kept by the hash of its bytes;
 * cards that go out as a document as one file. `link` is what a code on them leads to; `making` is told of clips and can stop
 * them.
 */
export async function shapedPictures(
  post: Post,
  link = linkShown(post),
  making: Making = {},
): Promise<MadeMedia[]> {
  if (isDocument(post)) return [await madeDocument(post, link)]
  const made: MadeMedia[] = []
  for (const media of post.media)
    made.push({ ...(await shapedPicture(post, media, link, making)), alt: media.alt })
  return made
}

/** The cards of a post as the pages of one file; it is drawn anew each time, and only its pages are kept. */
async function madeDocument(post: Post, link: string | null): Promise<MadeMedia> {
  const { look } = await must('brands', post.brand)
  const pages = post.media.flatMap(({ source, shape }) => {
    const card = drawnCard(source)
    return card ? [{ card, shape }] : []
  })
  const [first] = pages
  const { hash, blob } = await (await cardsFor(look)).document(pages, look, link, first?.card.text ?? '')
  return { hash, blob, alt: post.media.map((m, i) => `Page ${i + 1}: ${m.alt}`).join(' ') }
}

/** The first picture or clip of a post in the shape its network takes, as a data URL; null where it has none or it cannot be had. */
export async function pictureData(post: Post): Promise<string | null> {
  const [first] = post.media
  if (!first) return null
  const made = await shapedPicture(post, first, linkShown(post), {}).catch(() => null)
  if (!made) return null
  const bytes = new Uint8Array(await made.blob.arrayBuffer())
  let binary = ''
  for (let i = 0; i < bytes.length; i += 8192) binary += String.fromCharCode(...bytes.subarray(i, i + 8192))
  return `data:${made.blob.type};base64,${btoa(binary)}`
}

/**
 * A clip of a post as it goes out, made now and kept; `making` is told how far it is and can stop it. Throws (`bad-answer`) with
 * a sentence what cannot be made or was stopped.
 */
export async function makeClip(id: string, index: number, making: Making): Promise<Blob> {
  const post = await must('posts', id)
  const media = post.media[index]
  if (!media || !isClip(media))
    throw new Fault('not-found', 'This post shows something else by now. Look at it again.')
  return (await shapedPicture(post, media, linkShown(post), making)).blob
}

async function shapedPicture(
  post: Post,
  media: PostMedia,
  link: string | null,
  making: Making,
): Promise<{ hash: string; blob: Blob }> {
  const { hash, source } = media
  // Which link a code leads to is known as the post goes out.
  const asMade = hash !== null && !codedCard(source)
  const stored = asMade ? await (await database()).get('blobs', hash) : undefined
  if (asMade && stored) return { hash, blob: stored.blob }
  const { look } = await must('brands', post.brand)
  const made =
    source.from === 'card'
      ? await (await cardsFor(look)).paint(source.card, look, media.shape, link)
      : source.from !== 'address'
        ? await madeClip(post, media, source, link, making)
        : await pictures().crop(
            await sourceBytes(source.url),
            media.shape,
            media.cut ?? null,
            mayMove(network(post.network)),
          )
  await storePicture(made)
  await commit('machine', [
    patch('posts', post.id, (p) => ({
      ...p,
      media: p.media.map((m) => (sameContent(m, media) ? { ...m, hash: made.hash } : m)),
    })),
  ])
  return { hash: made.hash, blob: made.blob }
}

/** The bytes of a picture by its address, of the workspace itself or fetched from the web by the server. */
export async function sourceBytes(url: string): Promise<Blob> {
  return (await pictureBytes(url)) ?? bytes('POST', '/api/intake/picture', { url })
}

/** The part of a picture that is proposed for a shape, as fractions of it. */
export async function proposedCut(url: string, shape: Shape): Promise<Cut> {
  return pictures().propose(await sourceBytes(url), shape)
}
