import * as hb from 'harfbuzzjs'
import { Fault } from '../model'

/** A glyph where it stands in its run; measures are in ems, the size of the type. */
export interface Glyph {
  /** Its outline as SVG path data in the font's own units, upwards; empty for a space. */
  outline: string
  /** Ems to one of the font's own units. */
  scale: number
  x: number
  y: number
}

/** A run of text as it is set in a face: what it draws, and how wide it is, in ems. */
export interface Run {
  glyphs: Glyph[]
  width: number
  /** How far each character of the text, by its index, is from the beginning, in ems; one more for the end. */
  at: number[]
}

/** The weights in which a face is drawn. */
export type Weight = 'regular' | 'strong'

const WEIGHTS: Readonly<Record<Weight, number>> = { regular: 480, strong: 700 }
/** The size that letters are drawn for, in points, where a font has shapes of its own for small and large ones. */
const OPTICAL = 40

/** A typeface, ready to set words: its own files, and others for the letters that it lacks. */
export class Face {
  readonly #fonts: readonly Font[]

  /** `fallbacks` are asked, in their order, for letters that the face's own files lack. */
  constructor(files: readonly FontFile[], weight: Weight, fallbacks: readonly FontFile[] = []) {
    this.#fonts = [...files, ...fallbacks].map((file) => new Font(file, WEIGHTS[weight]))
  }

  /** Sets a text in one line. A letter that no font has is drawn as a box, and `missing` tells it. */
  run(text: string): Run {
    const run: Run = { glyphs: [], width: 0, at: [] }
    for (const { font, start, end } of this.#parts(text)) font.set(text.slice(start, end), run)
    run.at.push(run.width)
    return run
  }

  /** The letters of a text that no font of the face has, each once. */
  missing(text: string): string[] {
    const lost = [...text].filter((c) => c.trim() !== '' && !this.#fonts.some((f) => f.has(c)))
    return [...new Set(lost)]
  }

  /** A text in parts, each for the first font that has all letters of it; a mark stays with its letter. */
  #parts(text: string): { font: Font; start: number; end: number }[] {
    const parts: { font: Font; start: number; end: number }[] = []
    for (const { segment, index } of LETTERS.segment(text)) {
      const letters = [...segment]
      const before = parts.at(-1)
      const font =
        segment.trim() === '' && before
          ? before.font
          : (this.#fonts.find((f) => letters.every((c) => f.has(c))) ?? (this.#fonts[0] as Font))
      if (before?.font === font) before.end = index + segment.length
      else parts.push({ font, start: index, end: index + segment.length })
    }
    return parts
  }
}

const LETTERS = new Intl.Segmenter('en', { granularity: 'grapheme' })

/** The files of a typeface in the order in which they are asked for a letter: the one with the plain Latin ones first. */
export function inOrder(files: readonly string[]): string[] {
  const rank = (file: string): number => Number(!file.includes('-latin-')) + Number(file.includes('-ext-'))
  return files.toSorted((a, b) => rank(a) - rank(b) || (a < b ? -1 : 1))
}

/** The bytes of a font, opened. */
export class FontFile {
  readonly face: hb.Face

  private constructor(face: hb.Face) {
    this.face = face
  }

  /**
   * Opens the bytes of a TTF or OTF file. Refuses (`bad-request`) what is neither, is cut off, has no letters, or whose
   * letters are not drawn as outlines.
   */
  static open(bytes: Uint8Array): FontFile {
    const magic = String.fromCharCode(...bytes.slice(0, 4))
    const known = magic === 'OTTO' || magic === '\0\x01\0\0' || magic === 'true'
    if (known && isCutOff(bytes))
      throw new Fault('bad-request', 'This font is cut off: its file ends before it should. Take it anew.')
    const face = known ? new hb.Face(new hb.Blob(bytes)) : null
    const letters = face && face.upem > 0 ? lettersOf(face) : []
    if (!face || letters.length === 0)
      throw new Fault(
        'bad-request',
        'This file cannot be read as a font. Choose one that ends in .ttf, .otf or .woff2.',
      )
    const font = new hb.Font(face)
    if (letters.some((letter) => font.glyphToPath(font.nominalGlyph(letter) ?? 0) === ''))
      throw new Fault(
        'bad-request',
        'Some letters of this font have no outlines: they may be pictures. Choose another file.',
      )
    return new FontFile(face)
  }

  /**
   * The family that the file names, with “Italic” for one that slants, and whether it is a strong weight (600 or more; OpenType,
   * tables name and OS/2).
   */
  get told(): { family: string; strong: boolean } {
    const name = (id: number): string => {
      const entry = this.face.listNames().find((n) => n.nameId === id)
      return entry ? this.face.getName(id, entry.language).trim() : ''
    }
    const table = this.face.referenceTable('OS/2')
    const os2 =
      table && table.length >= 64 ? new DataView(table.buffer, table.byteOffset, table.length) : null
    const slants = ((os2?.getUint16(62) ?? 0) & 1) === 1
    const family = name(16) || name(1) || 'A typeface'
    return {
      family: `${family.slice(0, 50)}${slants ? ' Italic' : ''}`,
      strong: (os2?.getUint16(4) ?? 400) >= 600,
    }
  }
}

/** How far letters may reach above and below the baseline, in ems, so that lines do not run into each other. */
const MOST_RISE = 0.84
const MOST_FALL = 0.24

/** How many times its size a font is drawn, at most 1, for its tallest and deepest plain letters to reach no further. */
function fitting(font: hb.Font, upem: number): number {
  const reach = (letters: string, of: (e: hb.GlyphExtents) => number): number =>
    [...letters].reduce((most, letter) => {
      const glyph = font.nominalGlyph(letter.codePointAt(0) ?? 0)
      const extents = glyph ? font.glyphExtents(glyph) : undefined
      return Math.max(most, extents ? of(extents) / upem : 0)
    }, 0.01)
  const rise = reach('bdfhklHM', (e) => e.yBearing)
  const fall = reach('gjpqy', (e) => -(e.yBearing + e.height))
  return Math.min(1, MOST_RISE / rise, MOST_FALL / fall)
}

/** Whether a table reaches beyond the end of a font's file (OpenType 1.9, table directory). */
function isCutOff(bytes: Uint8Array): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.length)
  if (bytes.length < 12) return true
  const tables = view.getUint16(4)
  return Array.from({ length: tables }, (_, i) => 12 + 16 * i).some(
    (at) => at + 16 > bytes.length || view.getUint32(at + 8) + view.getUint32(at + 12) > bytes.length,
  )
}

/** Some of a font's letters and digits, the first of them, by their code points. */
function lettersOf(face: hb.Face): number[] {
  return [...face.collectUnicodes()].filter((c) => /[\p{L}\p{N}]/u.test(String.fromCodePoint(c))).slice(0, 80)
}

/** A font file at one weight. */
class Font {
  readonly #font: hb.Font
  readonly #scale: number
  readonly #outlines = new Map<number, string>()
  readonly #has = new Map<string, boolean>()

  constructor({ face }: FontFile, weight: number) {
    this.#font = new hb.Font(face)
    const axes = face.getAxisInfos()
    const wanted = { wght: weight, opsz: OPTICAL }
    const chosen = Object.entries(wanted).flatMap(([tag, value]) => {
      const axis = axes[tag]
      return axis ? [new hb.Variation(tag, Math.max(axis.min, Math.min(axis.max, value)))] : []
    })
    if (chosen.length) this.#font.setVariations(chosen)
    this.#scale = fitting(this.#font, face.upem) / face.upem
  }

  has(letter: string): boolean {
    let known = this.#has.get(letter)
    if (known === undefined) {
      known = !!this.#font.nominalGlyph(letter.codePointAt(0) ?? 0) || INVISIBLE.test(letter)
      this.#has.set(letter, known)
    }
    return known
  }

  /** Sets a text after what a run has already. */
  set(text: string, run: Run): void {
    const buffer = new hb.Buffer()
    buffer.addText(text)
    buffer.guessSegmentProperties()
    hb.shape(this.#font, buffer)
    const from = run.at.length
    for (let i = 0; i < text.length; i++) run.at.push(run.width)
    for (const glyph of buffer.getGlyphInfosAndPositions()) {
      const scale = this.#scale
      run.glyphs.push({
        outline: this.#outline(glyph.codepoint),
        scale,
        x: run.width + (glyph.xOffset ?? 0) * scale,
        y: (glyph.yOffset ?? 0) * scale,
      })
      run.width += (glyph.xAdvance ?? 0) * scale
      for (let i = glyph.cluster + 1; i < text.length; i++) run.at[from + i] = run.width
    }
  }

  #outline(id: number): string {
    let outline = this.#outlines.get(id)
    if (outline === undefined) {
      outline = this.#font.glyphToPath(id)
      this.#outlines.set(id, outline)
    }
    return outline
  }
}

/** Letters that draw nothing: joiners, selectors and marks of direction. */
const INVISIBLE = /^(?:[\u200b-\u200f\u2028-\u202e\u2060-\u2064\ufeff]|\p{Variation_Selector})$/u
