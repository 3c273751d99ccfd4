import type { Cut } from '../model'

/** Parts of a picture that a cut leaves whole where it can: faces of people and lines of text, as fractions of the picture. */
export interface Parts {
  faces: readonly Cut[]
  lines: readonly Cut[]
}

/** How much is lost by moving a cut over the whole of its picture, against cutting through a line as large as the picture is long. */
const FAR = 0.05
/** What is lost by a cut within this of a line, as a part of the picture, against one through it. */
const AIR = 0.012
const NARROW = 0.01
/** What is lost by a cut through a head, and by one that leaves it out, against one through a line as large as the head and `OF_A_HEAD`. */
const BEHEADED = 4
const LEFT_OUT = 2
const OF_A_HEAD = 0.3
/** In so many steps a cut is moved over its picture. */
const STEPS = 60

/**
 * A cut moved, no further than it has to be, so that it cuts through as little as it can: heads first, which are better in it than
 * out of it; then lines of text, whole in it or not in it at all. Lines that do not fit into it decide nothing; of a head
 * that does not fit the face is kept, or as much of it as goes in.
 */
export function aroundParts(cut: Cut, { faces, lines }: Parts): Cut {
  const fitting = lines.filter((l) => fits(cut, l))
  if (fitting.length === 0 && faces.length === 0) return cut
  const lost = (at: Cut): number =>
    faces.reduce((sum, face) => sum + lostOfHead(at, face), 0) +
    fitting.reduce((sum, line) => sum + lostOfLine(at, line), 0)
  const moved = (i: number): Cut => ({
    ...cut,
    x: (1 - cut.width) * (i / STEPS),
    y: (1 - cut.height) * (i / STEPS),
  })
  const costOf = (at: Cut): number => lost(at) + FAR * (Math.abs(at.x - cut.x) + Math.abs(at.y - cut.y))
  const all = [cut, ...Array.from({ length: STEPS + 1 }, (_, i) => moved(i))]
  return all.reduce((best, at) => (costOf(at) < costOf(best) ? at : best))
}

/** A head by its face, which reaches from the brows to the chin: with hair and neck, as far as the picture reaches. */
export function headOf({ x, y, width, height }: Cut): Cut {
  return within({
    x: x - 0.15 * width,
    y: y - 0.35 * height,
    width: 1.3 * width,
    height: 1.6 * height,
  })
}

function lostOfHead(at: Cut, face: Cut): number {
  const head = headOf(face)
  const part = fits(at, head) ? head : face
  const seen = shared(at.x, at.width, part.x, part.width) * shared(at.y, at.height, part.y, part.height)
  const worth = OF_A_HEAD + Math.max(part.width, part.height)
  if (!fits(at, part)) return BEHEADED * worth * (1 - seen)
  return seen > 0.99 ? 0 : (seen > 0.01 ? BEHEADED : LEFT_OUT) * worth
}

function lostOfLine(at: Cut, line: Cut): number {
  const size = Math.max(line.width, line.height)
  return cutsThrough(at, line) ? size : cutsThrough(at, withAir(line)) ? NARROW * size : 0
}

function fits(at: Cut, part: Cut): boolean {
  return part.width <= at.width && part.height <= at.height
}

/** Whether a cut has a piece of a part in it, and not all of it. */
function cutsThrough(at: Cut, part: Cut): boolean {
  const seen = shared(at.x, at.width, part.x, part.width) * shared(at.y, at.height, part.y, part.height)
  return seen > 0.01 && seen < 0.99
}

/** A line with a little room about it. */
function withAir({ x, y, width, height }: Cut): Cut {
  return within({ x: x - AIR, y: y - AIR, width: width + 2 * AIR, height: height + 2 * AIR })
}

/** What of a box lies within its picture. */
function within({ x, y, width, height }: Cut): Cut {
  const [left, top] = [Math.max(0, x), Math.max(0, y)]
  return { x: left, y: top, width: Math.min(1, x + width) - left, height: Math.min(1, y + height) - top }
}

/** How much of a span from `from` on lies in another, 0 to 1. */
function shared(at: number, size: number, from: number, length: number): number {
  return Math.max(0, Math.min(at + size, from + length) - Math.max(at, from)) / Math.max(1e-9, length)
}
