import type { Double, Piece, Sketch } from '../model'
import { hash32 } from '../text'

/** Words a shingle. */
const SHINGLE = 5
/** Numbers of a signature; the estimate's standard error is about 1 / √SIGNATURE at worst one half. */
const SIGNATURE = 64
/** Bands of a signature: two pieces meet when all numbers of one band agree. */
const ROWS = 4
/** One shingle in so many is sampled, by its hash, so that two pieces sample the same ones. */
const SAMPLED = 8
const MOST_SAMPLED = 1500

/** From which likeness two texts tell the same story, and from which when their titles agree too. */
const SAME_STORY = 0.5
const WITH_TITLE = 0.3
/** What share of a shorter text must stand in a longer one for it to be an excerpt. */
const EXCERPT = 0.7

/** A text's words in plain clothes. */
function wordsOf(text: string): string[] {
  return (
    text
      .toLowerCase()
      .replace(/[’']/g, '')
      .match(/[\p{L}\p{N}]+/gu) ?? []
  )
}

/** The hashes of a text's shingles of five words; of a shorter text, the one of all its words. */
export function shingles(text: string): Set<number> {
  const words = wordsOf(text).map((w) => hash32(w))
  const found = new Set<number>()
  const n = Math.min(SHINGLE, words.length)
  for (let i = 0; n > 0 && i + n <= words.length; i++) {
    let h = 0x811c9dc5
    for (let k = 0; k < n; k++) h = Math.imul(h ^ (words[i + k] ?? 0), 0x01000193)
    found.add(spread(h))
  }
  return found
}

/** A finaliser that spreads the bits of a 32-bit number (Appleby's for MurmurHash3). */
function spread(h: number): number {
  let x = h >>> 0
  x = Math.imul(x ^ (x >>> 16), 0x85ebca6b)
  x = Math.imul(x ^ (x >>> 13), 0xc2b2ae35)
  return (x ^ (x >>> 16)) >>> 0
}

/** Odd multipliers and offsets of the signature's hash functions, the same everywhere. */
const FUNCTIONS = Array.from({ length: SIGNATURE }, (_, i) => ({
  by: (spread(i * 2 + 1) | 1) >>> 0,
  plus: spread(i * 2 + 2),
}))

/**
 * What doubles are found by: the MinHash signature of a text's shingles (Broder 1997) and those of
 * its shingles whose hash is divisible by eight (Broder's modulo sketch), which estimate how much
 * of one text stands in another.
 */
export function sketchOf(text: string): Pick<Sketch, 'signature' | 'sample'> {
  const signature = new Uint32Array(SIGNATURE).fill(0xffffffff)
  const sample: number[] = []
  for (const shingle of shingles(text)) {
    if (shingle % SAMPLED === 0) sample.push(shingle)
    for (let i = 0; i < SIGNATURE; i++) {
      const f = FUNCTIONS[i] as (typeof FUNCTIONS)[number]
      const h = (Math.imul(shingle, f.by) + f.plus) >>> 0
      if (h < (signature[i] ?? 0)) signature[i] = h
    }
  }
  return { signature: [...signature], sample: sample.sort((a, b) => a - b).slice(0, MOST_SAMPLED) }
}

/** A piece that may be told twice, with the estimates that brought it up. */
export interface Candidate {
  id: string
  likeness: number
  contained: number
}

/** An index over sketches, to find what may be a double without comparing all texts. */
export class Doubles {
  readonly #sketches = new Map<string, Pick<Sketch, 'signature' | 'sample'>>()
  readonly #bands = new Map<string, string[]>()
  readonly #samples = new Map<number, string[]>()

  constructor(sketches: readonly Sketch[] = []) {
    for (const sketch of sketches) this.add(sketch)
  }

  add(sketch: Pick<Sketch, 'id' | 'signature' | 'sample'>): void {
    this.#sketches.set(sketch.id, sketch)
    for (const band of bandsOf(sketch.signature)) push(this.#bands, band, sketch.id)
    for (const shingle of sketch.sample) push(this.#samples, shingle, sketch.id)
  }

  /** The pieces most like a sketch, most like first; at most `most`. */
  near(sketch: Pick<Sketch, 'signature' | 'sample'>, most = 6): Candidate[] {
    const shared = new Map<string, number>()
    for (const shingle of sketch.sample) {
      const holders = this.#samples.get(shingle) ?? []
      // A shingle that hundreds hold is a house phrase and tells nothing.
      if (holders.length <= 200) for (const id of holders) shared.set(id, (shared.get(id) ?? 0) + 1)
    }
    const met = new Set(bandsOf(sketch.signature).flatMap((b) => this.#bands.get(b) ?? []))
    for (const [id, n] of shared) if (n >= 3) met.add(id)
    return [...met]
      .map((id): Candidate => {
        const other = this.#sketches.get(id)
        const equal = other?.signature.filter((n, i) => n === sketch.signature[i]).length ?? 0
        const smaller = comparable(sketch.sample, other?.sample ?? [])
        return { id, likeness: equal / SIGNATURE, contained: smaller ? (shared.get(id) ?? 0) / smaller : 0 }
      })
      .filter((c) => c.likeness >= 0.15 || c.contained >= 0.4)
      .sort((a, b) => Math.max(b.likeness, b.contained) - Math.max(a.likeness, a.contained))
      .slice(0, most)
  }
}

/**
 * How many shingles of the shorter of two samples the longer one could share. A long text keeps the smallest of
 * its sampled shingles only: what lies above the last it kept tells nothing.
 */
function comparable(a: readonly number[], b: readonly number[]): number {
  const limit = Math.min(a[a.length - 1] ?? 0, b[b.length - 1] ?? 0)
  const within = (sample: readonly number[]): number => sample.filter((s) => s <= limit).length
  return Math.min(within(a), within(b))
}

function bandsOf(signature: readonly number[]): string[] {
  const bands: string[] = []
  for (let i = 0; i < signature.length; i += ROWS)
    bands.push(`${i}:${signature.slice(i, i + ROWS).join(',')}`)
  return bands
}

function push<K>(map: Map<K, string[]>, key: K, id: string): void {
  const list = map.get(key)
  if (list) list.push(id)
  else map.set(key, [id])
}

/** A piece's title and the words that are the piece, without furniture. */
export interface Told {
  title: string
  text: string
}

/**
 * How two pieces that came up as candidates are alike, counted over all shingles: the same story
 * by the Jaccard index of their texts (helped by titles that agree), or one an excerpt of the
 * other by containment. Null where they are neither.
 */
export function compare(
  a: Told,
  b: Told,
): {
  why: Extract<Double['why'], 'the same story' | 'an excerpt'>
  likeness: number
  shorter: 'a' | 'b'
} | null {
  const [x, y] = [shingles(a.text), shingles(b.text)]
  if (x.size === 0 || y.size === 0) return null
  let both = 0
  for (const s of x) if (y.has(s)) both++
  const jaccard = both / (x.size + y.size - both)
  const contained = both / Math.min(x.size, y.size)
  const shorter = x.size <= y.size ? 'a' : 'b'
  const titles = overlap(wordsOf(a.title), wordsOf(b.title)) >= 0.6
  if (jaccard >= SAME_STORY || (titles && jaccard >= WITH_TITLE))
    return { why: 'the same story', likeness: round(jaccard), shorter }
  if (contained >= EXCERPT && Math.min(x.size, y.size) >= 20)
    return { why: 'an excerpt', likeness: round(contained), shorter }
  return null
}

function overlap(a: readonly string[], b: readonly string[]): number {
  const [x, y] = [new Set(a), new Set(b)]
  const both = [...x].filter((w) => y.has(w)).length
  return both === 0 ? 0 : both / (x.size + y.size - both)
}

const round = (n: number): number => Math.round(n * 1000) / 1000

/** Pieces as they are listed: each first with what is folded under it; what folds under a fold goes to the first. */
export function foldDoubles<P extends Pick<Piece, 'id' | 'double' | 'unfolded'>>(
  pieces: readonly P[],
): { piece: P; folded: P[] }[] {
  const byId = new Map(pieces.map((p) => [p.id, p]))
  // A chain of doubles ends at its first; a ring, which two windows can make, at its smallest name.
  const firstOf = (piece: P): string => {
    const passed = [piece.id]
    let at = piece
    while (at.double && !at.unfolded) {
      const next = byId.get(at.double.of)
      if (!next) break
      const back = passed.indexOf(next.id)
      if (back >= 0) return passed.slice(back).sort()[0] as string
      passed.push(next.id)
      at = next
    }
    return at.id
  }
  const under = new Map<string, P[]>()
  const heads: P[] = []
  for (const piece of pieces) {
    const first = firstOf(piece)
    if (first === piece.id) heads.push(piece)
    else under.set(first, [...(under.get(first) ?? []), piece])
  }
  return heads.map((piece) => ({ piece, folded: under.get(piece.id) ?? [] }))
}
