import {
  Fault,
  ownPictureHash,
  type Cut,
  type MediaInfo,
  type Post,
  type PostMedia,
} from '../../../core/model'
import type { Shape } from '../../../core/networks'
import type { MadePicture } from '../../workers/blobs'
import { cards, pictures } from '../../workers'
import { bytes } from '../api'
import { database } from '../database'
import { announceRows, commit, must, patch, sameContent } from '../store'
import { madeClip } from './clips'

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

/** The pictures and clips of a post in the shape its network takes, in order, each made once and kept by the hash of its bytes. */
export async function shapedPictures(post: Post): Promise<{ hash: string; blob: Blob }[]> {
  const made: { hash: string; blob: Blob }[] = []
  for (const media of post.media) made.push(await shapedPicture(post, media))
  return made
}

async function shapedPicture(post: Post, media: PostMedia): Promise<{ hash: string; blob: Blob }> {
  const { hash, source } = media
  const stored = hash ? await (await database()).get('blobs', hash) : undefined
  if (hash && stored) return { hash, blob: stored.blob }
  const made =
    source.from === 'card'
      ? await cards().paint(source.card, (await must('brands', post.brand)).look, media.shape)
      : source.from !== 'address'
        ? await madeClip(post, media, source)
        : await pictures().crop(await sourceBytes(source.url), media.shape, media.cut ?? null)
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
