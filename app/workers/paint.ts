import type { Drawing, MovedStroke } from '../../core/cards'

const outlines = new Map<string, Path2D>()

function outlineOf(d: string): Path2D {
  const path = outlines.get(d) ?? new Path2D(d)
  outlines.set(d, path)
  return path
}

/** A canvas without the help of a graphics card, so that the same drawing gives the same pixels, and what paints on it. */
export function plainCanvas(width: number, height: number) {
  const canvas = new OffscreenCanvas(width, height)
  const context = canvas.getContext('2d', { willReadFrequently: true, alpha: false })
  if (!context) throw new Error('This browser cannot draw in a worker.')
  return { canvas, context }
}

/** The pictures that strokes name, by their hashes. */
export const bitmaps = new Map<string, ImageBitmap>()

/** Paints strokes in their order, `scale` times as large as they were drawn; a picture that is not in `bitmaps` is left out. */
export function paint(
  context: OffscreenCanvasRenderingContext2D,
  strokes: readonly MovedStroke[],
  scale = 1,
): void {
  for (const { stroke: s, down, shown } of strokes) {
    if (shown <= 0) continue
    context.globalAlpha = shown
    if (s.kind === 'picture') {
      const bitmap = bitmaps.get(s.hash)
      context.setTransform(scale, 0, 0, scale, 0, down * scale)
      if (bitmap) context.drawImage(bitmap, s.x, s.y, s.width, s.height)
      continue
    }
    context.fillStyle = s.fill
    if (s.kind === 'field') {
      context.setTransform(scale, 0, 0, scale, 0, down * scale)
      context.fillRect(s.x, s.y, s.width, s.height)
    } else {
      context.setTransform(s.scale * scale, 0, 0, -s.scale * scale, s.x * scale, (s.y + down) * scale)
      context.fill(outlineOf(s.outline))
    }
  }
}

/** The strokes of a drawing as they stand where nothing moves. */
export function unmoved({ strokes }: Pick<Drawing, 'strokes'>): MovedStroke[] {
  return strokes.map((stroke) => ({ stroke, down: 0, shown: 1 }))
}
