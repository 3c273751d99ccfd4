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
  /** Whether it moves; networks that take no moving pictures show its first frame, still. */
  moves: z.boolean().optional(),
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
  const [high, low] = halvesOf(a)
  const [otherHigh, otherLow] = halvesOf(b)
  return bitsIn(high ^ otherHigh) + bitsIn(low ^ otherLow)
}

/** The first and the last 32 bits of a print. */
function halvesOf(print: string): [number, number] {
  return [parseInt(print.slice(0, 8), 16) | 0, parseInt(print.slice(8), 16) | 0]
}

/** How many bits of 32 are set, counted in pairs, fours and bytes (Warren, “Hacker’s Delight”, section 5-1). */
function bitsIn(word: number): number {
  const pairs = word - ((word >>> 1) & 0x55555555)
  const fours = (pairs & 0x33333333) + ((pairs >>> 2) & 0x33333333)
  return Math.imul((fours + (fours >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24
}

/** A picture by what tells it from others, with its print. */
export interface KnownPicture {
  key: string
  print: string
}

/**
 * By what each of some pictures is known among them: pictures whose prints differ in `LIKE_BITS` at most are one, also by way of
 * others between them. Gives one key for all of one, and any other key back as it is. Prints as near as that have one of
 * `PARTS` in common, so only those that do are held against each other.
 */
export function alikeAmong(pictures: Iterable<KnownPicture>): (key: string) => string {
  const prints = new Map<string, string>()
  for (const { key, print } of pictures) prints.set(key, print)
  const keys = [...prints.keys()]
  // Thousands of pictures are millions of pairs, so numbers lie side by side here.
  const highs = Int32Array.from(prints.values(), (print) => halvesOf(print)[0])
  const lows = Int32Array.from(prints.values(), (print) => halvesOf(print)[1])
  const parent = Int32Array.from(keys, (_, i) => i)
  const rootOf = (at: number): number => {
    let root = at
    while (parent[root] !== root) root = parent[root] ?? root
    return root
  }
  for (const [half, from, width] of PARTS) {
    const words = half === 0 ? highs : lows
    const sharing: number[][] = Array.from({ length: 1 << width }, () => [])
    for (let i = 0; i < keys.length; i++) {
      const [high, low] = [highs[i] ?? 0, lows[i] ?? 0]
      const others = sharing[((words[i] ?? 0) >>> from) & ((1 << width) - 1)] ?? []
      for (const other of others)
        if (bitsIn(high ^ (highs[other] ?? 0)) + bitsIn(low ^ (lows[other] ?? 0)) <= LIKE_BITS)
          parent[rootOf(i)] = rootOf(other)
      others.push(i)
    }
  }
  const known = new Map(keys.map((key, i) => [key, keys[rootOf(i)] as string]))
  return (key) => known.get(key) ?? key
}

/**
 * A print in one part more than `LIKE_BITS`, so that where no more bits differ than that, a part is the same in both: which
 * half it lies in, from which bit on, and how many.
 */
const PARTS: readonly (readonly [half: 0 | 1, from: number, width: number])[] = [
  [0, 0, 5],
  [0, 5, 5],
  [0, 10, 5],
  [0, 15, 5],
  [0, 20, 6],
  [0, 26, 6],
  [1, 0, 6],
  [1, 6, 6],
  [1, 12, 6],
  [1, 18, 7],
  [1, 25, 7],
]
