import type { Card, Look } from '../model'
import { paletteOf, type Ground, type Palette } from './colours'
import { strokesOf, type Area, type Drawing } from './drawing'
import type { Face } from './faces'
import { inALine, RISE, type Block } from './fit'

/** The faces that a card is set in. */
export interface Faces {
  words: Face
  strongWords: Face
  labels: Face
  strongLabels: Face
}

/** A card while it is drawn: where there is room, what to paint with, and what is painted so far. */
export class Stage {
  readonly width: number
  readonly height: number
  /** A hundredth of the shorter side, a fifth more where the card lies: what all sizes are counted in. */
  readonly unit: number
  readonly palette: Palette
  readonly faces: Faces
  readonly card: Card
  readonly #look: Look
  readonly #drawing: Drawing

  constructor(card: Card, look: Look, faces: Faces, size: { width: number; height: number }) {
    this.width = size.width
    this.height = size.height
    this.unit = (Math.min(size.width, size.height) / 100) * (size.width > size.height * 1.2 ? 1.2 : 1)
    this.palette = paletteOf(look)
    this.faces = faces
    this.card = card
    this.#look = look
    this.#drawing = { ...size, strokes: [], words: [], missing: [] }
  }

  get drawing(): Drawing {
    return this.#drawing
  }

  /** Whether the card lies rather than stands. */
  get isWide(): boolean {
    return this.width > this.height * 1.2
  }

  /** Whether it is so tall that the network's own signs lie over its top and foot. */
  get isTall(): boolean {
    return this.height > this.width * 1.6
  }

  /** What is left of the card inside its margins, above the line at its foot. */
  get body(): Area {
    const side = 9 * this.unit
    const top = this.isTall ? 0.14 * this.height : side
    const bottom = this.foot - (this.#look.sign.trim() === '' ? 0 : 9.5 * this.unit)
    return { x: side, y: top, width: this.width - 2 * side, height: bottom - top }
  }

  /** Where the line at the foot has its lower edge. */
  get foot(): number {
    return this.height - (this.isTall ? 0.18 * this.height : 8 * this.unit)
  }

  field(area: Area, fill: string): void {
    this.#drawing.strokes.push({ kind: 'field', fill, ...area })
  }

  /** Fills the card with a ground. */
  ground({ ground }: Ground): void {
    this.field({ x: 0, y: 0, width: this.width, height: this.height }, ground)
  }

  /** Draws a block of words with its upper edge at `y`; gives its lower edge. */
  block(block: Block, x: number, y: number, fill: string, on: Ground): number {
    block.lines.forEach(({ text, width }, i) => {
      const baseline = y + RISE * block.size + i * block.leading
      this.#drawing.strokes.push(...strokesOf(block.face.run(text), x, baseline, block.size, fill))
      this.#drawing.words.push({
        text,
        fill,
        on: on.ground,
        size: block.size,
        x,
        y: baseline - RISE * block.size,
        width,
        height: block.height - (block.lines.length - 1) * block.leading,
      })
      for (const letter of block.face.missing(text))
        if (!this.#drawing.missing.includes(letter)) this.#drawing.missing.push(letter)
    })
    return y + block.height
  }

  /** The brand's line at the foot, after a small square in the accent. */
  sign(on: Ground): void {
    const words = this.#look.sign.trim()
    if (words === '') return
    const size = 2.9 * this.unit
    const { x, width } = this.body
    const square = 1.5 * this.unit
    const block = inALine(words, this.faces.labels, width - 2.4 * square, size)
    const top = this.foot - block.height
    const from = this.#drawing.strokes.length
    this.field({ x, y: top + RISE * block.size - square, width: square, height: square }, on.accent)
    this.block(block, x + 1.9 * square, top, on.ink, on)
    for (const stroke of this.#drawing.strokes.slice(from)) stroke.still = true
  }
}
