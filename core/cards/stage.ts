import type { Card, Look } from '../model'
import { QUIET, type Code } from './code'
import { codeColours, paletteOf, type Ground, type Palette } from './colours'
import { strokesOf, type Area, type Drawing } from './drawing'
import type { Face, Run } from './faces'
import { FALL, inALine, RISE, type Block } from './fit'
import { markedParts, type MarkedPart } from './marked'

/** The faces that a card is set in. */
export interface Faces {
  words: Face
  strongWords: Face
  labels: Face
  strongLabels: Face
}

/** The side of a code in the corner of a card, in units, and the fewest pixels that a module of it has. */
const CORNER = 23
const FEWEST = 4

/** How far a marker reaches beyond its words, in ems. */
const BEYOND = 0.1

/** How large a mark is at most, in units. */
const MARK = { width: 18, height: 5 }

/** The side of a code with the light about it, of whole pixels a module: at most `side`, unless its modules would be too small. */
function codeSide({ modules }: Code, side: number): number {
  const all = modules + 2 * QUIET
  return Math.max(FEWEST, Math.floor(side / all)) * all
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
  readonly #code: Code | null
  readonly #drawing: Drawing

  /** `code` is what stands on the card for readers to scan, if anything does. */
  constructor(
    card: Card,
    look: Look,
    faces: Faces,
    size: { width: number; height: number },
    code: Code | null = null,
  ) {
    this.width = size.width
    this.height = size.height
    this.unit = (Math.min(size.width, size.height) / 100) * (size.width > size.height * 1.2 ? 1.2 : 1)
    this.palette = paletteOf(look)
    this.faces = faces
    this.card = card
    this.#look = look
    this.#code = code
    this.#drawing = { ...size, strokes: [], words: [], code: null, missing: [] }
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

  get hasCode(): boolean {
    return this.#code !== null
  }

  /** What is left of the card inside its margins, above the line at its foot, and above or beside a code in its corner. */
  get body(): Area {
    const side = 9 * this.unit
    const top = this.isTall ? 0.14 * this.height : side
    const corner = this.#corner
    const taken = corner === 0 ? 0 : corner + 4 * this.unit
    const bare = this.#look.sign.trim() === '' && !this.#look.mark
    const signed = bare ? 0 : (this.#look.mark ? 11.5 : 9.5) * this.unit
    const bottom = this.foot - (this.isWide ? signed : Math.max(signed, taken))
    const width = this.width - 2 * side - (this.isWide ? taken : 0)
    return { x: side, y: top, width, height: bottom - top }
  }

  /** The side of a code that stands in the corner of a card that says something by itself. */
  get #corner(): number {
    return this.#code && this.card.layout !== 'code' ? codeSide(this.#code, CORNER * this.unit) : 0
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

  /** Draws words of the card in the ink of their ground, those that are to stand out on a marker; gives the lower edge. */
  said(block: Block, x: number, y: number, on: Ground): number {
    return this.block(block, x, y, on.ink, on, markedParts(block, this.card.marked ?? []))
  }

  /** Draws a block of words with its upper edge at `y`; gives its lower edge. */
  block(
    block: Block,
    x: number,
    y: number,
    fill: string,
    on: Ground,
    marked: readonly MarkedPart[] = [],
  ): number {
    block.lines.forEach(({ text, width }, i) => {
      const baseline = y + RISE * block.size + i * block.leading
      const run = block.face.run(text)
      for (const part of marked) if (part.line === i) this.#marker(part, run, block, { x, y: baseline }, on)
      this.#drawing.strokes.push(...strokesOf(run, x, baseline, block.size, fill))
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

  /**
   * A marker behind a part of a line whose baseline begins at `from`, as high as a line is, so that it does not run into that of the
   * next; or a line under it where no marker would do.
   */
  #marker(part: MarkedPart, { at }: Run, block: Block, from: { x: number; y: number }, on: Ground): void {
    const [a = 0, b = 0] = [at[part.from], at[part.to]]
    const width = (Math.abs(b - a) + 2 * BEYOND) * block.size
    const height = (RISE + FALL) * block.size
    const x = from.x + (Math.min(a, b) - BEYOND) * block.size
    if (on.marker) this.field({ x, y: from.y + FALL * block.size - height, width, height }, on.marker)
    else this.field({ x, y: from.y + 0.16 * block.size, width, height: 0.06 * block.size }, on.ink)
  }

  /**
   * Draws the code, the light about it included, into a square of at most `side` pixels, unless it needs more. Where that light
   * is not told from the ground, it is the code itself that begins at the square's edge: `out` says to which sides it is moved.
   */
  code(x: number, y: number, side: number, on: Ground, out: { x: -1 | 0 | 1; y: 0 | 1 }): void {
    const code = this.#code
    if (!code) return
    const whole = codeSide(code, side)
    const { light, dark } = codeColours(this.#look)
    const scale = whole / (code.modules + 2 * QUIET)
    const moved = light === on.ground ? QUIET * scale : 0
    const area = {
      x: Math.round(x + out.x * moved),
      y: Math.round(y + out.y * moved),
      width: whole,
      height: whole,
    }
    const from = this.#drawing.strokes.length
    this.field(area, light)
    const [left, top] = [area.x + QUIET * scale, area.y + QUIET * scale]
    this.#drawing.strokes.push({ kind: 'glyph', outline: code.outline, fill: dark, x: left, y: top, scale })
    this.#drawing.code = area
    for (const stroke of this.#drawing.strokes.slice(from)) stroke.still = true
  }

  /**
   * The code in the corner of a card, and the brand's line at the foot, after its mark or a small square in the accent. `under`
   * is the ground of the corner.
   */
  sign(on: Ground, under = on): void {
    const corner = this.#corner
    const x = 9 * this.unit
    if (corner > 0) this.code(this.width - x - corner, this.foot - corner, corner, under, { x: 1, y: 1 })
    const from = this.#drawing.strokes.length
    const width = this.width - 2 * x - (corner === 0 ? 0 : corner + 4 * this.unit)
    const mark = this.#mark(x, on)
    const words = this.#look.sign.trim()
    const square = 1.5 * this.unit
    if (words !== '') {
      const before = mark ? mark.width + 1.6 * this.unit : 1.9 * square
      const block = inALine(words, this.faces.labels, width - before - 0.5 * square, 2.9 * this.unit)
      const top = mark ? mark.y + (mark.height - block.height) / 2 : this.foot - block.height
      if (!mark)
        this.field({ x, y: top + RISE * block.size - square, width: square, height: square }, on.accent)
      this.block(block, x + before, top, on.ink, on)
    }
    for (const stroke of this.#drawing.strokes.slice(from)) stroke.still = true
  }

  /**
   * The brand's mark at the foot, on a field of its plain ground where the card stands on another one, which it was not drawn
   * for; gives what it takes. Null where the brand has none.
   */
  #mark(x: number, on: Ground): Area | null {
    const mark = this.#look.mark
    if (!mark) return null
    const plain = this.palette.plain.ground
    const edge = on.ground === plain ? 0 : 0.8 * this.unit
    const times = Math.min(MARK.height / mark.height, MARK.width / mark.width) * this.unit
    const [width, height] = [mark.width * times, mark.height * times]
    const area = { x, y: this.foot - height - 2 * edge, width: width + 2 * edge, height: height + 2 * edge }
    if (edge > 0) this.field(area, plain)
    this.#drawing.strokes.push({
      kind: 'picture',
      hash: mark.hash,
      x: x + edge,
      y: area.y + edge,
      width,
      height,
    })
    return area
  }
}
