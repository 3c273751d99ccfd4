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
