import type { Palette } from './drops'

/** A straight stroke. */
export function line(
  c: CanvasRenderingContext2D,
  color: string,
  x1: number,
  y1: number,
  x2: number,
  y2: number,
): void {
  c.strokeStyle = color
  c.beginPath()
  c.moveTo(x1, y1)
  c.lineTo(x2, y2)
  c.stroke()
}

/** A field of slanted lines. */
export function hatch(
  c: CanvasRenderingContext2D,
  p: Palette,
  x: number,
  y: number,
  width: number,
  height: number,
): void {
  c.save()
  c.beginPath()
  c.rect(x, y, width, height)
  c.clip()
  c.strokeStyle = p.hairline
  c.lineWidth = 2
  c.beginPath()
  for (let i = -height; i < width; i += 10) {
    c.moveTo(x + i, y + height)
    c.lineTo(x + i + height, y)
  }
  c.stroke()
  c.lineWidth = 1
  c.restore()
}

/** The mark of a day that has an occasion. */
export function diamond(c: CanvasRenderingContext2D, p: Palette, x: number, y: number): void {
  c.fillStyle = p.amber
  c.beginPath()
  c.moveTo(x, y - 3.5)
  c.lineTo(x + 3.5, y)
  c.lineTo(x, y + 3.5)
  c.lineTo(x - 3.5, y)
  c.fill()
}
