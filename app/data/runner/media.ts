import type { Post } from '../../../core/model'
import { upload } from '../api'
import { shapedPictures } from '../actions/pictures'

const uploaded = new Set<string>()

/**
 * Makes sure a post's pictures exist in the network's shape, here and on the server, and gives their hashes in order.
 * Each is uploaded once.
 */
export async function readyPictures(post: Post): Promise<string[]> {
  const made = await shapedPictures(post)
  for (const { hash, blob } of made) {
    if (uploaded.has(hash)) continue
    await upload(`/api/spool/media/${hash}`, blob)
    uploaded.add(hash)
  }
  return made.map((m) => m.hash)
}

/** Forgets what was uploaded: the server said it does not have it, or it is another server. */
export function forgetUploads(): void {
  uploaded.clear()
}
