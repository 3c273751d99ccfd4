import type { Post } from '../../../core/model'
import { network } from '../../../core/networks'
import { pictures } from '../../workers'
import { bytes, upload } from '../api'
import { database } from '../database'
import { pictureBytes, storePicture } from '../actions/pictures'
import { commit, patch } from '../store'

const uploaded = new Set<string>()

/**
 * Makes sure a post's picture exists in the network's shape, here and on the server, and gives
 * its hash; null where the post has none. Bytes are made once, uploaded once, and kept by hash.
 */
export async function readyPicture(post: Post): Promise<string | null> {
  if (!post.media) return null
  const db = await database()
  let hash = post.media.hash
  let stored = hash ? await db.get('blobs', hash) : undefined
  if (!hash || !stored) {
    const { sourceUrl } = post.media
    const source =
      (await pictureBytes(sourceUrl)) ?? (await bytes('POST', '/api/intake/picture', { url: sourceUrl }))
    const made = await pictures().crop(source, network(post.network).media.shapes)
    hash = made.hash
    stored = { id: made.hash, blob: made.blob }
    await storePicture(made)
    await commit('machine', [
      patch('posts', post.id, (p) =>
        p.media?.sourceUrl === sourceUrl ? { ...p, media: { ...p.media, hash: made.hash } } : p,
      ),
    ])
  }
  if (!uploaded.has(hash)) {
    await upload(`/api/spool/media/${hash}`, stored.blob)
    uploaded.add(hash)
  }
  return hash
}

/** Forgets what was uploaded: the server said it does not have it, or it is another server. */
export function forgetUploads(): void {
  uploaded.clear()
}
