/** A proportion, width to height, in whole numbers. */
export interface Shape {
  width: number
  height: number
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

/**
 * The box of a shape that a part of a picture stands for, in whole pixels: the largest of that shape about the middle of the
 * part that is no larger than it, moved into the picture where it would reach over an edge. `cut` is in fractions.
 */
export function cutIn(
  size: { width: number; height: number },
  shape: Shape,
  cut: { x: number; y: number; width: number; height: number },
): Box {
  const [width, height] = [cut.width * size.width, cut.height * size.height]
  const part = cropAboutCentre({ width: Math.max(1, width), height: Math.max(1, height) }, shape)
  const [w, h] = [
    Math.min(size.width, Math.round(part.width)),
    Math.min(size.height, Math.round(part.height)),
  ]
  const within = (middle: number, length: number, most: number): number =>
    Math.min(Math.max(0, Math.round(middle - length / 2)), most - length)
  return {
    x: within(cut.x * size.width + width / 2, w, size.width),
    y: within(cut.y * size.height + height / 2, h, size.height),
    width: w,
    height: h,
  }
}
