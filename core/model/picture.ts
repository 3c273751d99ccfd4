import { z } from 'zod'
import { Id, Instant } from './primitives'

/** A perceptual hash of a picture: 64 bits as sixteen hexadecimal digits (core/pictures/print.ts). */
export const Print = z.string().regex(/^[0-9a-f]{16}$/)

/** A part of a picture as fractions of its width and height, counted from its upper left corner. */
export const Cut = z.object({
  x: z.number().min(0).max(1),
  y: z.number().min(0).max(1),
  width: z.number().positive().max(1),
  height: z.number().positive().max(1),
})
export type Cut = z.infer<typeof Cut>

/** Whose a picture is, and on what terms it may be shown. */
export const Credit = z.object({
  author: z.string().max(120),
  /** Where it is from, as one names it beside the author; empty for none. */
  from: z.string().max(120),
  licence: z.string().max(120),
  /** The page that tells of it. */
  page: z.string().nullable(),
  /** Whether the author has to be named wherever it is shown. */
  mustShow: z.boolean(),
})
export type Credit = z.infer<typeof Credit>

/** The words by which a picture's author is named; empty where nobody is known. */
export function creditLine({ author, from }: Credit): string {
  const who = [author, from].filter((part) => part.trim() !== '').join(', ')
  return who && `Picture: ${who}`
}

/** Where the pictures of a brand's library come from that did not come with a piece. */
export const PICTURE_ORIGINS = ['file', 'stock', 'order'] as const

/** A picture of a brand's own: its bytes lie in the workspace. */
export const LibraryPicture = z.object({
  /** `pictureId` of its brand and its address. */
  id: Id,
  brand: Id,
  /** `ownPicture` of its bytes. */
  url: z.string(),
  origin: z.enum(PICTURE_ORIGINS),
  /** What it is called: the name of its file, the words of the stock, or what was ordered. */
  title: z.string(),
  alt: z.string(),
  credit: Credit.nullable(),
  width: z.int().positive(),
  height: z.int().positive(),
  /** Size of its bytes. */
  bytes: z.int().positive(),
  print: Print.nullable(),
  addedAt: Instant,
})
export type LibraryPicture = z.infer<typeof LibraryPicture>

/** The id of a picture in the library of a brand: the same picture comes in once. */
export function pictureId(brand: string, url: string): string {
  return `${brand} ${url}`
}

/**
 * So many of their 64 bits two prints of like pictures differ in at most. Of 80 photographs and wallpapers of Debian packages and
 * 40 drawings, 97 of 100 stayed within this when scaled to a third, painted anew as poor JPEG or WebP, made a fifth lighter, or
 * grey, and 81 when a twenty-fifth of each side was cut off; of different ones the nearest two were 14 apart.
 */
export const LIKE_BITS = 10

/** In how many bits two prints differ. */
export function printDistance(a: string, b: string): number {
  let bits = 0
  for (const at of [0, 8]) {
    let rest = (parseInt(a.slice(at, at + 8), 16) ^ parseInt(b.slice(at, at + 8), 16)) >>> 0
    for (; rest !== 0; rest &= rest - 1) bits++
  }
  return bits
}

/** A picture by what tells it from others, with its print. */
export interface KnownPicture {
  key: string
  print: string
}

/**
 * By what each of some pictures is known among them: pictures whose prints differ in `LIKE_BITS` at most are one, also by way of
 * others between them. Gives one key for all of one, and any other key back as it is. Prints as near as that have one of
 * eleven parts in common, so only those that do are held against each other.
 */
export function alikeAmong(pictures: Iterable<KnownPicture>): (key: string) => string {
  const prints = new Map<string, string>()
  for (const { key, print } of pictures) prints.set(key, print)
  const parent = new Map<string, string>()
  const root = (key: string): string => {
    let at = key
    for (let up = parent.get(at); up !== undefined; up = parent.get(at)) at = up
    return at
  }
  const sharing = new Map<string, KnownPicture[]>()
  for (const [key, print] of prints)
    for (const part of partsOf(print)) {
      const others = sharing.get(part) ?? []
      for (const other of others)
        if (printDistance(other.print, print) <= LIKE_BITS && root(other.key) !== root(key))
          parent.set(root(key), root(other.key))
      others.push({ key, print })
      sharing.set(part, others)
    }
  return root
}

const PARTS = LIKE_BITS + 1

/** The bits of a print in `PARTS` parts, each with its place: where at most `LIKE_BITS` bits differ, one part is the same. */
function partsOf(print: string): string[] {
  const bits = [...print].map((digit) => parseInt(digit, 16).toString(2).padStart(4, '0')).join('')
  return Array.from(
    { length: PARTS },
    (_, i) =>
      `${i} ${bits.slice(Math.floor((i * bits.length) / PARTS), Math.floor(((i + 1) * bits.length) / PARTS))}`,
  )
}
