import { breakLines, cutToFit, measured, widest, type Broken, type Measured } from './breaks'
import type { Face } from './faces'

/** Words broken into lines at a size. Measures are in pixels. */
export interface Block {
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
/** How much smaller a text may become so as to break better. */
const GIVE = 0.84
/** What a line may cost on average before a smaller size is looked at. */
const EVEN = 9

/**
 * The size at which a text fits a room, and its lines: the largest, unless a slightly smaller one breaks clearly better.
 * Where even the least size is too large, smaller ones are taken and parts that are too wide are cut, so that nothing is
 * ever lost.
 */
export function fitted(words: string, face: Face, room: Room): Block {
  const text = measured(words.replace(/\s+/g, ' ').trim(), face)
  const { leading = 1.2 } = room
  let best: { score: number; broken: Broken; size: number; text: Measured } | null = null
  let first = 0
  for (let size = room.most; ; size *= STEP) {
    if (best && size < first * GIVE) break
    const set = size < room.least ? cutToFit(text, room.width / size) : text
    const lines = Math.floor((room.height / size - RISE - FALL) / leading + 1 + 1e-9)
    const broken = widest(set) * size > room.width ? null : breakLines(set, room.width / size, lines)
    if (!broken || lines < 1) continue
    if (!best) first = size
    const uneven = Math.max(0, broken.cost / Math.max(1, broken.lines.length) - EVEN)
    const score = uneven + 90 * Math.log(room.most / size)
    if (!best || score < best.score) best = { score, broken, size, text: set }
  }
  return blockOf(best.broken, best.text.face, best.size, leading)
}

/** A text at one size that is given, or null where it does not fit so. */
export function setAt(words: string, face: Face, size: number, room: Room): Block | null {
  const { leading = 1.2 } = room
  const text = measured(words.replace(/\s+/g, ' ').trim(), face)
  const set = size < room.least ? cutToFit(text, room.width / size) : text
  const broken = widest(set) * size > room.width ? null : breakLines(set, room.width / size)
  if (!broken) return null
  const block = blockOf(broken, face, size, leading)
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
  for (let size = room.most; ; size *= STEP) {
    const narrow = { ...room, width: room.width - indent * size }
    const blocks = texts.flatMap((text) => setAt(text, face, size, narrow) ?? [])
    const height = blocks.reduce((sum, b) => sum + b.height, 0) + gap * size * Math.max(0, texts.length - 1)
    if (blocks.length === texts.length && height <= room.height) return blocks
  }
}

function blockOf({ lines }: Broken, face: Face, size: number, leading: number): Block {
  const set = lines.map((l) => ({ text: l.text.replaceAll('\u200b', ''), width: l.width * size }))
  return {
    lines: set,
    size,
    leading: leading * size,
    width: Math.max(0, ...set.map((l) => l.width)),
    height: set.length ? ((set.length - 1) * leading + RISE + FALL) * size : 0,
    face,
  }
}
