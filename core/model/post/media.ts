import { z } from 'zod'
import { Card } from '../card'

/** The address of a picture that lies in the workspace itself, by the SHA-256 of its bytes in hexadecimal. */
export function ownPicture(hash: string): string {
  return `picture:${hash}`
}

/** The hash of a picture that lies in the workspace itself; null for any other address. */
export function ownPictureHash(url: string): string | null {
  return /^picture:([0-9a-f]{64})$/.exec(url)?.[1] ?? null
}

/** Where a picture of a post comes from: an address of the web or of the workspace itself, or words that are drawn. */
export const PictureSource = z.discriminatedUnion('from', [
  z.object({ from: z.literal('address'), url: z.string() }),
  z.object({ from: z.literal('card'), card: Card }),
])
export type PictureSource = z.infer<typeof PictureSource>

/** A picture of a post: where it comes from, the part of it that is used, and the bytes once made. */
export const PostMedia = z.object({
  source: PictureSource,
  alt: z.string(),
  /** Width to height of the shape the network takes, or null to leave it whole. */
  shape: z.object({ width: z.int().positive(), height: z.int().positive() }).nullable(),
  /** SHA-256 of the bytes, in hexadecimal, once they have been made. */
  hash: z.string().nullable(),
})
export type PostMedia = z.infer<typeof PostMedia>

/** What tells one picture from another: its address, or the words of a card, in whatever look they are drawn. */
export function pictureKey(source: PictureSource): string {
  if (source.from === 'address') return source.url
  const { layout, head, text, items, speaker } = source.card
  return `card:${layout}:${JSON.stringify([head, text, items, speaker])}`
}

/** The layout of a card by what it is known by; null for any other picture. */
export function layoutOf(key: string): string | null {
  return /^card:(\w+):/.exec(key)?.[1] ?? null
}

/** What the first picture of a post is known by; null where it has none. */
export function firstPicture(post: { media: readonly PostMedia[] }): string | null {
  const [first] = post.media
  return first ? pictureKey(first.source) : null
}
