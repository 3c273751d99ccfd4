import { breakLines, cutToFit, measured, widest, type Broken, type Measured } from './breaks'
import type { Face } from './faces'

/** Words broken into lines at a size. Measures are in pixels. */
export interface Block {
  /** What was broken, in one line. */
  text: string
  lines: { text: string; width: number }[]
  size: number
  /** From one baseline to the next. */
  leading: number
  width: number
  height: number
  face: Face
}

/** What a text is to fit into, in pixels, and between which sizes. */
export interface Room {
  width: number
  height: number
  least: number
  most: number
  /** Baseline to baseline, in ems; 1.2 when not said. */
  leading?: number
}

/** How far letters reach above and below the baseline, in ems; capitals with accents reach a little further. */
export const RISE = 0.76
export const FALL = 0.26
/** From one size to the next smaller one that is tried. */
const STEP = 0.96
/** How much smaller a text may become so as to break better, and so as not to break badly. */
const GIVE = 0.84
const GIVE_FOR_BAD = 0.6
/** What a line costs that ends on an article, parts a number from its unit, or leaves a word alone. */
const BAD = 60
/** What a line may cost on average, and the worst one, before a smaller size is looked at. */
const EVEN = 4
const WORST = 24

/**
 * The size at which a text fits a room, and its lines: the largest, unless a slightly smaller one breaks clearly better.
 * Where even the least size is too large, smaller ones are taken and parts that are too wide are cut, so that nothing is
 * ever lost.
 */
export function fitted(words: string, face: Face, room: Room): Block {
  const text = inOneLine(words, face)
  const { leading = 1.2 } = room
  let best: { score: number; broken: Broken; size: number; text: Measured } | null = null
  let first = 0
  for (let size = room.most; ; size *= STEP) {
    if (best && size < first * (best.broken.worst >= BAD ? GIVE_FOR_BAD : GIVE)) break
    const set = size < room.least ? cutToFit(text, room.width / size) : text
    const lines = Math.floor((room.height / size - RISE - FALL) / leading + 1 + 1e-9)
    const broken = widest(set) * size > room.width ? null : breakLines(set, room.width / size, lines)
    if (!broken || lines < 1) continue
    if (!best) first = size
    const average = broken.cost / Math.max(1, broken.lines.length)
    const uneven = 1.2 * Math.max(0, average - EVEN) + 0.4 * Math.max(0, broken.worst - WORST)
    const score = uneven + 90 * Math.log(room.most / size)
    if (!best || score < best.score) best = { score, broken, size, text: set }
  }
  return blockOf(best.broken, best.text, best.size, leading)
}

const inOneLine = (words: string, face: Face): Measured => measured(words.replace(/\s+/g, ' ').trim(), face)

/** Words in one line, smaller than the room's largest size where they would be too wide for it. */
export function inALine(words: string, face: Face, width: number, most: number): Block {
  const text = inOneLine(words, face)
  const whole = face.run(text.text).width
  const size = Math.min(most, whole > 0 ? width / whole : most)
  return blockOf({ lines: [{ text: text.text, width: whole }], cost: 0, worst: 0 }, text, size, 1.2)
}

/** A text at one size that is given, or null where it does not fit so. */
function setAt(text: Measured, size: number, room: Room): Block | null {
  const { leading = 1.2 } = room
  const set = size < room.least ? cutToFit(text, room.width / size) : text
  const broken = widest(set) * size > room.width ? null : breakLines(set, room.width / size)
  if (!broken) return null
  const block = blockOf(broken, text, size, leading)
  return block.height <= room.height ? block : null
}

/**
 * Several texts at one size, one under the other with `gap` ems between: the largest at which all of them fit. `indent`
 * is what stands before each, in ems.
 */
export function fittedTogether(
  texts: readonly string[],
  face: Face,
  room: Room,
  { gap, indent }: { gap: number; indent: number },
): Block[] {
  const measures = texts.map((text) => inOneLine(text, face))
  for (let size = room.most; ; size *= STEP) {
    const narrow = { ...room, width: room.width - indent * size }
    const blocks = measures.flatMap((text) => setAt(text, size, narrow) ?? [])
    const height = blocks.reduce((sum, b) => sum + b.height, 0) + gap * size * Math.max(0, texts.length - 1)
    if (blocks.length === texts.length && height <= room.height) return blocks
  }
}

function blockOf({ lines }: Broken, { text, face }: Measured, size: number, leading: number): Block {
  const set = lines.map((l) => ({ text: l.text.replaceAll('\u200b', ''), width: l.width * size }))
  return {
    text: text.replaceAll('\u200b', ''),
    lines: set,
    size,
    leading: leading * size,
    width: Math.max(0, ...set.map((l) => l.width)),
    height: set.length ? ((set.length - 1) * leading + RISE + FALL) * size : 0,
    face,
  }
}
