import type { Post } from '../../../core/model'
import { network } from '../../../core/networks'
import { pictures } from '../../workers'
import { bytes, upload } from '../api'
import { database } from '../database'
import { announceRows } from '../store'

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
    const source = await bytes('POST', '/api/intake/picture', { url: post.media.sourceUrl })
    const made = await pictures().crop(source, network(post.network).media.shapes)
    hash = made.hash
    stored = { id: made.hash, blob: made.blob }
    const tx = db.transaction(['blobs', 'media', 'posts'], 'readwrite')
    await tx.objectStore('blobs').put(stored)
    const { type, width, height, blob } = made
    const info = { id: made.hash, type, width, height, bytes: blob.size }
    await tx.objectStore('media').put(info)
    const current = await tx.objectStore('posts').get(post.id)
    const shown =
      current?.media?.sourceUrl === post.media.sourceUrl
        ? { ...current, media: { ...current.media, hash: made.hash } }
        : null
    if (shown) await tx.objectStore('posts').put(shown)
    await tx.done
    announceRows([
      { table: 'media', id: info.id, row: info },
      ...(shown ? [{ table: 'posts' as const, id: shown.id, row: shown }] : []),
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
