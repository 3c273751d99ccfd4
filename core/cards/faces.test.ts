import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { createCanvas, GlobalFonts } from '@napi-rs/canvas'
import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { openFaces } from '../../cli/faces'
import { usualLook, type FaceName, type Look } from '../model'
import { drawCard, facesOf, FontFile, type Drawing } from '.'

/* Fonts that come with a library for PDF files. */
const FOLDER = join(import.meta.dirname, '../../node_modules/pdfjs-dist/standard_fonts')
const bytesOf = (name: string): Uint8Array => new Uint8Array(readFileSync(join(FOLDER, name)))
const fontOf = (name: string): FontFile => FontFile.open(bytesOf(`LiberationSans-${name}.ttf`))

let shipped: Record<FaceName, FontFile[]>
beforeAll(async () => {
  shipped = await openFaces()
})

describe('the file of a font', () => {
  it('says its family and whether it is strong; one that slants goes by itself', () => {
    expect(['Regular', 'Bold', 'Italic', 'BoldItalic'].map((name) => fontOf(name).told)).toEqual([
      { family: 'Liberation Sans', strong: false },
      { family: 'Liberation Sans', strong: true },
      { family: 'Liberation Sans Italic', strong: false },
      { family: 'Liberation Sans Italic', strong: true },
    ])
  })

  it.each([
    ['of the older kind of outlines', () => bytesOf('FoxitSerif.pfb'), 'cannot be read as a font'],
    ['that is a text', () => new TextEncoder().encode('A font.'), 'cannot be read as a font'],
    ['that is empty', () => new Uint8Array(), 'cannot be read as a font'],
    ['that only begins like one', () => bytesOf('LiberationSans-Bold.ttf').slice(0, 4), 'is cut off'],
    ['that is cut off', () => cutOff(0.4), 'is cut off'],
    ['that lacks its end', () => cutOff(0.98), 'is cut off'],
  ])('is refused with a sentence where it is one %s', (_, made, why) => {
    expect(() => FontFile.open(made())).toThrow(why)
  })

  it('is opened or refused, and nothing else, whatever is broken in it', () => {
    const whole = bytesOf('LiberationSans-Regular.ttf')
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(whole.length - 1), fc.nat(255)), { maxLength: 60 }), (changes) => {
        const broken = whole.slice()
        for (const [at, byte] of changes) broken[at % (at % 2 ? broken.length : 600)] = byte
        try {
          facesOf(ownLook('x'), shipped, new Map([[HASH, FontFile.open(broken)]])).words.run(
            'Seams, 14 “days”.',
          )
        } catch (error) {
          expect(String(error)).toMatch(/cannot be read as a font|no outlines|is cut off/)
        }
      }),
      { numRuns: 60 },
    )
  })

  function cutOff(part: number): Uint8Array {
    const whole = bytesOf('LiberationSans-Regular.ttf')
    return whole.slice(0, Math.round(whole.length * part))
  }
})

const HASH = 'a'.repeat(64)
const BOLD = 'b'.repeat(64)
const ownLook = (words: string, strong: string | null = BOLD): Look => ({
  ...usualLook('The yard'),
  words,
  own: [{ name: words, regular: HASH, strong }],
})

/** How far down each point of a letter's outline lies, in pixels of its card. */
const heightsOf = (stroke: Drawing['strokes'][number]): number[] =>
  stroke.kind === 'glyph'
    ? (stroke.outline.match(/-?\d+(?:\.\d+)?/g) ?? [])
        .filter((_, i) => i % 2 === 1)
        .map((up) => stroke.y - Number(up) * stroke.scale)
    : []

describe('a look with a typeface of its own', () => {
  const own = () =>
    new Map([
      [HASH, fontOf('Regular')],
      [BOLD, fontOf('Bold')],
    ])
  /** How wide another program sets a text in the same file, in ems. */
  const measured = (file: string, text: string): number => {
    GlobalFonts.registerFromPath(join(FOLDER, `LiberationSans-${file}.ttf`), file)
    const context = createCanvas(10, 10).getContext('2d')
    context.font = `1000px ${file}`
    return context.measureText(text).width / 1000
  }
  const TEXT = 'AVAST, a weep that gets slower.'

  it('is set in its files, each weight in its own', () => {
    const faces = facesOf(ownLook('Ours'), shipped, own())
    expect(faces.words.run(TEXT).width).toBeCloseTo(measured('Regular', TEXT), 2)
    expect(faces.strongWords.run(TEXT).width).toBeCloseTo(measured('Bold', TEXT), 2)
    expect(measured('Bold', TEXT) - measured('Regular', TEXT)).toBeGreaterThan(0.3)
  })

  it('does with one file for both weights, and with a shipped typeface where there is none', () => {
    const one = facesOf(ownLook('Ours', null), shipped, own())
    expect(one.strongWords.run(TEXT).width).toBe(one.words.run(TEXT).width)
    const literata = facesOf(usualLook('The yard'), shipped).words.run(TEXT).width
    expect(facesOf(ownLook('Ours'), shipped).words.run(TEXT).width).toBe(literata)
    expect(facesOf({ ...usualLook('x'), words: 'Unknown' }, shipped).words.run(TEXT).width).toBe(literata)
  })

  it('is drawn smaller where its letters would run into the lines above and below', () => {
    // The same font, told that its em is much smaller: letters then rise by 1.24 ems.
    const large = bytesOf('LiberationSans-Regular.ttf')
    const view = new DataView(large.buffer)
    const head = Array.from({ length: view.getUint16(4) }, (_, i) => 12 + 16 * i).find(
      (at) => String.fromCharCode(...large.slice(at, at + 4)) === 'head',
    )
    view.setUint16(view.getUint32((head ?? 0) + 8) + 18, 1200)
    const look = ownLook('Ours', null)
    const faces = facesOf(look, shipped, new Map([[HASH, FontFile.open(large)]]))
    const text = 'gjpqy gjpqy gjpqy bdfhkl bdfhkl bdfhkl gjpqy gjpqy gjpqy bdfhkl bdfhkl bdfhkl'
    const card = { layout: 'title' as const, head: '', text, items: [], speaker: '' }
    const glyphs = drawCard(card, look, faces, null).strokes.filter((s) => s.kind === 'glyph' && !s.still)
    const baselines = [...new Set(glyphs.map((glyph) => glyph.y))]
    expect(baselines.length).toBeGreaterThan(2)
    const inks = baselines.map((y) => glyphs.filter((glyph) => glyph.y === y).flatMap(heightsOf))
    inks.slice(1).forEach((ink, i) => expect(Math.max(...(inks[i] ?? []))).toBeLessThan(Math.min(...ink)))
  })

  it('takes letters that it lacks from the shipped ones', () => {
    const faces = facesOf(ownLook('Ours'), shipped, own())
    expect(faces.words.missing('Ωmega 船')).toEqual(['船'])
  })
})
