import type { Post } from '../../../core/model'
import { upload } from '../api'
import { shapedPicture } from '../actions/pictures'

const uploaded = new Set<string>()

/**
 * Makes sure a post's picture exists in the network's shape, here and on the server, and gives its hash; null where the
 * post has none. It is uploaded once.
 */
export async function readyPicture(post: Post): Promise<string | null> {
  const made = await shapedPicture(post)
  if (!made) return null
  if (!uploaded.has(made.hash)) {
    await upload(`/api/spool/media/${made.hash}`, made.blob)
    uploaded.add(made.hash)
  }
  return made.hash
}

/** Forgets what was uploaded: the server said it does not have it, or it is another server. */
export function forgetUploads(): void {
  uploaded.clear()
}
