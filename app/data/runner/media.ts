import type { Payload, Post } from '../../../core/model'
import { upload } from '../api'
import { shapedPictures } from '../actions/pictures'

const uploaded = new Set<string>()

/**
 * Makes sure a post's pictures exist in the network's shape, here and on the server, and gives them in order as they are sent.
 * Each is uploaded once. `link` is what a code on them leads to.
 */
export async function readyPictures(post: Post, link: string | null): Promise<Payload['media']> {
  const made = await shapedPictures(post, link)
  for (const { hash, blob } of made) {
    if (uploaded.has(hash)) continue
    await upload(`/api/spool/media/${hash}`, blob)
    uploaded.add(hash)
  }
  return made.map(({ hash, alt }) => ({ hash, alt }))
}

/** Forgets what was uploaded: the server said it does not have it, or it is another server. */
export function forgetUploads(): void {
  uploaded.clear()
}
