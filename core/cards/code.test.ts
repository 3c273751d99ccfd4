import fc from 'fast-check'
import { Resvg } from '@resvg/resvg-js'
import jsQR from 'jsqr'
import { beforeAll, describe, expect, it } from 'vitest'
import { openFaces } from '../../cli/faces'
import { usualLook, type Card, type Look } from '../model'
import { drawCard, facesOf, toSvg, type Drawing, type Faces } from '.'
import { SHAPES } from './testing/shapes'

const LOOK: Look = usualLook('The yard')
const CARD: Card = {
  layout: 'words',
  head: '',
  text: 'Reading rot is done with a screwdriver.',
  items: [],
  speaker: '',
  code: true,
}
let faces: Faces
beforeAll(async () => {
  faces = facesOf(LOOK, await openFaces())
})

/** What another program reads from a drawing that another one painted, so many pixels wide. */
function readBack(drawing: Drawing, width = drawing.width): string | null {
  const image = new Resvg(toSvg(drawing), { fitTo: { mode: 'width', value: width } }).render()
  return jsQR(new Uint8ClampedArray(image.pixels), image.width, image.height)?.data ?? null
}

describe('a code on a card', () => {
  const link = 'https://oakum.example/rot?utm_source=shutterleaf&utm_medium=social&utm_campaign=evergreen'

  it.each(SHAPES)('is read back from a shape of $width to $height, alone and in a corner', (shape) => {
    for (const layout of ['words', 'code'] as const)
      expect(readBack(drawCard({ ...CARD, layout }, LOOK, faces, shape, link))).toBe(link)
  })

  it('is read back in any colours, and from a picture a third as large', () => {
    const colour = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`)
    fc.assert(
      fc.property(colour, colour, fc.webUrl({ withQueryParameters: true }), (ground, ink, url) => {
        const look = { ...LOOK, ground, ink }
        expect(readBack(drawCard({ ...CARD, layout: 'code' }, look, faces, SHAPES[0]!, url))).toBe(url)
      }),
      { numRuns: 12 },
    )
    const short = 'https://tiny.example/a7Bq3'
    expect(readBack(drawCard(CARD, LOOK, faces, SHAPES[1]!, short), 360)).toBe(short)
  }, 60_000)

  it('is there only where it is asked for and there is a link', () => {
    expect(drawCard({ ...CARD, code: false }, LOOK, faces, null, link).code).toBeNull()
    expect(drawCard(CARD, LOOK, faces, null).code).toBeNull()
    expect(readBack(drawCard({ ...CARD, code: false }, LOOK, faces, null, link))).toBeNull()
  })

  it('grows for a long link rather than become too small to be read, and refuses one that no code holds', () => {
    const long = `${link}&note=${'a'.repeat(500)}`
    const drawing = drawCard(CARD, LOOK, faces, SHAPES[1]!, long)
    expect(readBack(drawing)).toBe(long)
    expect(() => drawCard(CARD, LOOK, faces, null, 'a'.repeat(2332))).toThrow('too long for a code')
  })

  it('has light of four modules about it, and its side is a whole number of pixels a module', () => {
    const { code, strokes } = drawCard(CARD, LOOK, faces, SHAPES[0]!, 'https://tiny.example/a7Bq3')
    // 26 bytes need version 2 at level M: 25 modules a side (ISO/IEC 18004, table 7).
    const module = (code?.width ?? 0) / (25 + 8)
    expect(Number.isInteger(module)).toBe(true)
    const dark = strokes.find((s) => s.kind === 'glyph' && s.scale === module)
    expect(dark).toMatchObject({ x: (code?.x ?? 0) + 4 * module, y: (code?.y ?? 0) + 4 * module })
  })
})
