import type { NetworkProfile } from './profile'

/** A proportion, width to height, in whole numbers. */
export interface Shape {
  width: number
  height: number
}

/** What a network takes of pictures that move. */
export type MayMove = Pick<NetworkProfile['media'], 'animated' | 'maxBytes'>

export function mayMove({ media: { animated, maxBytes } }: NetworkProfile): MayMove {
  return { animated, maxBytes }
}

/** Whether a picture that moves is shown moving: the network takes its type, whole, and it is not too large; unknown sizes are taken to fit. */
export function staysMoving(
  { type, bytes }: { type: string; bytes: number | null },
  shape: Shape | null,
  { animated, maxBytes }: MayMove,
): boolean {
  return shape === null && (bytes ?? 0) <= maxBytes && (animated as readonly string[]).includes(type)
}

/** A part of a picture in its own pixels. */
export interface Box {
  x: number
  y: number
  width: number
  height: number
}

/**
 * The shape out of those a network takes that keeps most of a picture, or null when any will do.
 * `size` is in pixels; unknown sizes get the first shape.
 */
export function chooseShape(
  size: { width: number; height: number } | null,
  shapes: readonly Shape[],
): Shape | null {
  const first = shapes[0]
  if (!first) return null
  if (!size) return first
  const kept = (s: Shape): number => {
    const box = cropAboutCentre(size, s)
    return (box.width * box.height) / (size.width * size.height)
  }
  return shapes.reduce((best, s) => (kept(s) > kept(best) ? s : best), first)
}

/** The largest box of a shape about the centre of a picture, in whole pixels, at least 1 by 1. */
export function cropAboutCentre(size: { width: number; height: number }, shape: Shape): Box {
  const scale = Math.min(size.width / shape.width, size.height / shape.height)
  const width = Math.min(size.width, Math.max(1, Math.round(shape.width * scale)))
  const height = Math.min(size.height, Math.max(1, Math.round(shape.height * scale)))
  return {
    x: Math.floor((size.width - width) / 2),
    y: Math.floor((size.height - height) / 2),
    width,
    height,
  }
}

/** A part of a picture as fractions of its width and height. */
type Part = Box

/** The largest part of a shape in a picture, as fractions of it, about a middle given the same way and moved in from the edges. */
function partAbout(
  size: { width: number; height: number },
  shape: Shape,
  middle: { x: number; y: number },
  /** How much of the largest part it is across, 0 to 1. */
  share = 1,
): Part {
  const scale = Math.min(size.width / shape.width, size.height / shape.height) * share
  const width = Math.min(1, (shape.width * scale) / size.width)
  const height = Math.min(1, (shape.height * scale) / size.height)
  const within = (at: number, length: number): number => Math.min(Math.max(0, at - length / 2), 1 - length)
  return { x: within(middle.x, width), y: within(middle.y, height), width, height }
}

/** The least of the largest part, across, that can be cut out: what is smaller would be seen to be blown up. */
const LEAST = 0.2

/**
 * Another part of a picture in a shape: moved by fractions of the picture, and so much larger or smaller across, about its
 * middle; never over an edge, nor smaller than a fifth of the largest.
 */
export function movedCut(
  size: { width: number; height: number },
  shape: Shape,
  cut: Part,
  by: { x?: number; y?: number; times?: number },
): Part {
  const largest = partAbout(size, shape, { x: 0.5, y: 0.5 })
  const share = Math.max(cut.width / largest.width, cut.height / largest.height)
  const middle = { x: cut.x + cut.width / 2 + (by.x ?? 0), y: cut.y + cut.height / 2 + (by.y ?? 0) }
  return partAbout(size, shape, middle, Math.min(1, Math.max(LEAST, share * (by.times ?? 1))))
}

/** The box of a part of a picture, in whole pixels, at least 1 by 1. */
export function cutIn(size: { width: number; height: number }, cut: Part): Box {
  const span = (from: number, length: number, most: number): [number, number] => {
    const start = Math.min(most - 1, Math.round(from * most))
    return [start, Math.min(most - start, Math.max(1, Math.round(length * most)))]
  }
  const [x, width] = span(cut.x, cut.width, size.width)
  const [y, height] = span(cut.y, cut.height, size.height)
  return { x, y, width, height }
}
