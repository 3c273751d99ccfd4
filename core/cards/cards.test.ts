import process from 'node:process'
import fc from 'fast-check'
import { Resvg } from '@resvg/resvg-js'
import { beforeAll, describe, expect, it } from 'vitest'
import { openFaces } from '../../cli/faces'
import { LAYOUTS, usualLook, type Card, type FaceName, type Layout, type Look } from '../model'
import { drawCard, facesOf, paletteOf, sizeOf, toSvg, type Drawing, type Faces, type FontFile } from '.'
import { SHAPES } from './testing/shapes'

const LOOK: Look = { ...usualLook('The yard'), accent: '#a8432d', sign: 'The yard · boats' }
let files: Record<FaceName, FontFile[]>
let faces: Faces
beforeAll(async () => {
  files = await openFaces()
  faces = facesOf(LOOK, files)
})

const NONE = { head: '', text: '', items: [], speaker: '' }
const card = (layout: Layout, of: Partial<Card>): Card => ({ ...NONE, layout, ...of })
const linesOf = (drawing: Drawing): string[] => drawing.words.map((w) => w.text)

/** The words of every layout, of one text: long, short, with words that are too long for any line. */
function filled(layout: Layout, text: string): Card {
  const cut = (most: number): string => [...text].slice(0, most).join('').trim() || 'a'
  const items = [cut(140), cut(30), cut(80), cut(12), cut(55), cut(140), cut(4)]
  switch (layout) {
    case 'quotation':
      return card(layout, { text, speaker: cut(80) })
    case 'number':
      return card(layout, { head: `${text.length} ${cut(20)}`, text })
    case 'contrast':
      return card(layout, { items: [cut(140), cut(60)] })
    case 'list':
    case 'steps':
      return card(layout, { head: cut(80), items: items.slice(0, 2 + (text.length % 6)) })
    case 'definition':
      return card(layout, { head: cut(60), text })
    default:
      return card(layout, { text })
  }
}

/** Where an outline's ink lies at most, by all points of its path, control points with them. */
function inkOf(stroke: Extract<Drawing['strokes'][number], { kind: 'glyph' }>) {
  const numbers = (stroke.outline.match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number)
  const xs = numbers.filter((_, i) => i % 2 === 0).map((v) => stroke.x + v * stroke.scale)
  const ys = numbers.filter((_, i) => i % 2 === 1).map((v) => stroke.y - v * stroke.scale)
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) }
}

/** Contrast as WCAG 2.2 defines it, written down from there. */
function ratio(a: string, b: string): number {
  const light = (colour: string): number => {
    const [r = 0, g = 0, blue = 0] = [1, 3, 5].map((at) => {
      const part = parseInt(colour.slice(at, at + 2), 16) / 255
      return part <= 0.04045 ? part / 12.92 : Math.pow((part + 0.055) / 1.055, 2.4)
    })
    return 0.2126 * r + 0.7152 * g + 0.0722 * blue
  }
  const [x, y] = [light(a), light(b)]
  return (Math.max(x, y) + 0.05) / (Math.min(x, y) + 0.05)
}

/** What is wrong with a drawing: ink near or over the edge, letters that run into one another's lines, words hard to read. */
function faultsOf(drawing: Drawing): string[] {
  const found: string[] = []
  const { width, height, strokes, words, code } = drawing
  const edge = Math.min(width, height) * 0.02
  strokes.forEach((stroke, i) => {
    if (stroke.kind !== 'glyph') return
    const ink = inkOf(stroke)
    if (ink.left < edge || ink.right > width - edge || ink.top < edge || ink.bottom > height - edge)
      found.push(`ink at ${JSON.stringify(ink)}`)
    // What it stands on is the last field painted before it under its middle.
    const [x, y] = [(ink.left + ink.right) / 2, (ink.top + ink.bottom) / 2]
    const under = strokes
      .slice(0, i)
      .findLast(
        (f) => f.kind === 'field' && f.x <= x && x <= f.x + f.width && f.y <= y && y <= f.y + f.height,
      )
    const ground = under?.kind === 'field' ? under.fill : null
    if (ground === null || ratio(stroke.fill, ground) < 4.495) found.push(`${stroke.fill} on ${ground}`)
  })
  // A code and the light about it stand free.
  const areas = code ? [...words, { ...code, text: 'the code' }] : words
  for (const [i, a] of areas.entries())
    for (const b of areas.slice(i + 1)) {
      const across = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x)
      const down = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y)
      // The opening mark of a quotation is drawn in the upper part of its box only.
      if (across > 1 && down > 1 && a.text !== '“') found.push(`“${a.text}” runs into “${b.text}”`)
    }
  return found
}

/** The letters of a card in the order in which it is read, without spaces and the hyphens of cut words. */
const lettersOf = (text: string): string => text.replace(/[\s\u200b-]/g, '')

const aWord = fc.oneof(
  {
    weight: 12,
    arbitrary: fc.constantFrom(
      ...'a of the seam plank caulking river oak tide Åse naïve wood’s 1,400 fits'.split(' '),
    ),
  },
  {
    weight: 3,
    arbitrary: fc.string({ unit: fc.constantFrom(...'aeinrstlmöß'), minLength: 1, maxLength: 14 }),
  },
  {
    weight: 1,
    arbitrary: fc.constantFrom(
      '“so”',
      'Bootsinstandsetzungsgenossenschaft',
      'https://www.yard.example/boats',
      'W'.repeat(40),
      'и',
      'λόγος',
    ),
  },
)
const aText = fc
  .array(aWord, { minLength: 1, maxLength: 60 })
  .map((words) => [...words.join(' ')].slice(0, 280).join('').trim())
const aColour = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`)
/** What half of the cards carry as a code. */
const aLink = fc.option(fc.webUrl({ withQueryParameters: true }), { freq: 1 })
/** `CARDS=10000 npx vitest run core/cards` draws so many texts on every layout and shape. */
const TEXTS = Number(process.env['CARDS'] ?? 14)

describe('whatever it says, a card', () => {
  it('loses no word, cuts none off, and is readable, on every layout, shape and colour', () => {
    fc.assert(
      fc.property(aText, fc.tuple(aColour, aColour, aColour), aLink, (text, [ground, ink, accent], link) => {
        for (const layout of LAYOUTS)
          for (const shape of SHAPES) {
            // Some of its words stand out, over several lines where they are many.
            const marked = [text.split(' ').slice(2, 9).join(' ').slice(0, 80), 'oak', 'tide seam']
            const made = { ...filled(layout, text), code: true, marked: marked.filter(Boolean) }
            const drawing = drawCard(made, { ...LOOK, ground, ink, accent }, faces, shape, link)
            expect([layout, shape, faultsOf(drawing)]).toEqual([layout, shape, []])
            const said = lettersOf(linesOf(drawing).join(''))
            for (const part of [made.head, made.text, ...made.items, made.speaker])
              expect(said).toContain(lettersOf(part))
          }
      }),
      { numRuns: TEXTS },
    )
  }, 10_000_000)

  it('looks the same to the byte when it is drawn again, also by faces opened anew', async () => {
    const again = facesOf(LOOK, await openFaces())
    for (const layout of LAYOUTS) {
      const made = filled(layout, 'A weep that gets slower every day is a plank still taking up.')
      const svg = toSvg(drawCard(made, LOOK, faces, null))
      expect(toSvg(drawCard(made, LOOK, again, null))).toBe(svg)
    }
  })

  it('has 1080 pixels on its shorter side, and no more than 1920 on the longer', () => {
    expect(SHAPES.map((s) => Object.values(sizeOf(s)).join('x'))).toEqual([
      '1080x1080',
      '1080x1350',
      '1080x1920',
      '1080x1620',
      '1920x1080',
    ])
  })
})

describe('words of a card that stand out', () => {
  const text = 'A weep that gets slower every day is a plank still taking up.'
  const markersOf = (drawing: Drawing) =>
    drawing.strokes.flatMap((s, i) =>
      s.kind === 'field' && drawing.strokes.some((g, k) => k > i && g.kind === 'glyph' && covers(s, g))
        ? [s]
        : [],
    )
  const covers = (f: Extract<Drawing['strokes'][number], { kind: 'field' }>, g: Glyph): boolean => {
    const { left, right, top, bottom } = inkOf(g)
    return f.x <= left && right <= f.x + f.width && f.y - 1 <= top && bottom <= f.y + f.height + 1
  }
  type Glyph = Extract<Drawing['strokes'][number], { kind: 'glyph' }>

  it.each<[string, number]>([
    ['weep', 4],
    ['SLOWER every day', 14],
    ['weep that gets slower every day is', 28],
    ['lower', 0],
  ])('“%s” lies on a marker, all of its letters and no others', (phrase, letters) => {
    for (const shape of SHAPES) {
      const drawing = drawCard(card('words', { text, marked: [phrase] }), LOOK, faces, shape)
      const [, ...markers] = markersOf(drawing)
      const on = drawing.strokes.filter((g) => g.kind === 'glyph' && markers.some((m) => covers(m, g)))
      expect(on).toHaveLength(letters)
      const ink = drawing.words[0]?.fill ?? ''
      for (const [i, a] of markers.entries())
        for (const b of markers.slice(i + 1)) expect(b.y).toBeGreaterThan(a.y + a.height)
      for (const { fill } of markers) {
        expect(ratio(ink, fill)).toBeGreaterThanOrEqual(4.495)
        expect(ratio(drawing.words[0]?.on ?? '', fill)).toBeGreaterThan(1.1)
      }
    }
  })

  it('are told from the ground on every colour', () => {
    fc.assert(
      fc.property(fc.tuple(aColour, aColour, aColour), ([ground, ink, accent]) => {
        const { plain, deep, bright } = paletteOf({ ground, ink, accent })
        for (const on of [plain, deep, bright]) {
          // A ground from which the ink is barely far enough has room for none: a line stands under the words there.
          if (on.marker === null) expect(ratio(on.ink, on.ground)).toBeLessThan(6)
          else {
            expect(ratio(on.ink, on.marker)).toBeGreaterThanOrEqual(4.495)
            expect(ratio(on.ground, on.marker)).toBeGreaterThanOrEqual(1.149)
          }
        }
      }),
    )
  })
})

describe('a card as it is painted by another renderer', () => {
  const painted = (drawing: Drawing) => {
    const image = new Resvg(toSvg(drawing)).render()
    const { pixels, width } = image
    return (x: number, y: number): string =>
      `#${[0, 1, 2].map((i) => (pixels[(y * width + x) * 4 + i] ?? 0).toString(16).padStart(2, '0')).join('')}`
  }

  it('has ink where its words are said to stand, and bare ground around it', () => {
    const drawing = drawCard(card('title', { text: 'How long a refit takes' }), LOOK, faces, null)
    const at = painted(drawing)
    const [line] = drawing.words
    const { x, y, width, height, fill } = line!
    const row = Array.from({ length: Math.round(width) }, (_, i) =>
      at(Math.round(x) + i, Math.round(y + height * 0.5)),
    )
    expect(row.filter((c) => c === fill).length).toBeGreaterThan(20)
    for (let i = 0; i < 1080; i += 9)
      for (const colour of [at(i, 10), at(i, 1070), at(1070, i)])
        expect([LOOK.ink, '#3a4542']).toContain(i < 40 ? LOOK.ink : colour)
  })

  it('parts the two sides of a contrast: each on a ground of its own', () => {
    const two = card('contrast', { items: ['A dry board swells.', 'A wet one shrinks.'] })
    const at = painted(drawCard(two, LOOK, faces, { width: 16, height: 9 }))
    expect([at(20, 20), at(1900, 20)]).toEqual([LOOK.ground, LOOK.ink])
  })
})

describe('a mark', () => {
  // Twice as wide as high, all of it red.
  const png = new Resvg(
    '<svg xmlns="http://www.w3.org/2000/svg" width="200" height="100"><rect width="200" height="100" fill="#ff0000"/></svg>',
  )
    .render()
    .asPng()
  const hash = 'c'.repeat(64)
  const marked = (sign: string): Look => ({ ...LOOK, sign, mark: { hash, width: 200, height: 100 } })
  const url = `data:image/png;base64,${png.toString('base64')}`

  it('stands at the foot of every layout and shape, whole, before the brand’s line and clear of all words', () => {
    for (const [i, layout] of LAYOUTS.entries())
      for (const [n, shape] of SHAPES.entries()) {
        const made = { ...filled(layout, 'A weep that gets slower every day.'), code: true }
        const look = marked((i + n) % 2 ? 'The yard' : '')
        const drawing = drawCard(made, look, faces, shape, 'https://a.example/b')
        const { left, right, top, foot, filled: red } = redIn(drawing)
        // Its shape is kept, it is all there, and it lies inside the margins.
        expect((right - left) / (foot - top)).toBeCloseTo(2, 0)
        expect(red).toBeGreaterThan(0.85)
        expect(left).toBeGreaterThan(0.04 * drawing.width)
        expect(foot).toBeLessThan(drawing.height - 0.04 * Math.min(drawing.width, drawing.height))
        for (const word of drawing.words) {
          const across = Math.min(word.x + word.width, right) - Math.max(word.x, left)
          const down = Math.min(word.y + word.height, foot) - Math.max(word.y, top)
          expect([layout, shape, word.text, across > 4 && down > 4]).toEqual([
            layout,
            shape,
            word.text,
            false,
          ])
        }
      }
  }, 60_000)

  /** Where red is in a drawing that is painted 270 pixels wide, in its own pixels, and how much of that is red, 0 to 1. */
  function redIn(drawing: Drawing) {
    const { pixels, width } = new Resvg(toSvg(drawing, new Map([[hash, url]])), {
      fitTo: { mode: 'width', value: 270 },
    }).render()
    const scale = drawing.width / width
    let [left, right, top, foot, count] = [Infinity, 0, Infinity, 0, 0]
    for (let at = 0; at < pixels.length; at += 4) {
      if ((pixels[at] ?? 0) < 250 || (pixels[at + 1] ?? 0) > 5 || (pixels[at + 2] ?? 0) > 5) continue
      const [x, y] = [(at / 4) % width, Math.floor(at / 4 / width)]
      left = Math.min(left, x)
      right = Math.max(right, x + 1)
      top = Math.min(top, y)
      foot = Math.max(foot, y + 1)
      count++
    }
    const part = count / Math.max(1, (right - left) * (foot - top))
    return { left: left * scale, right: right * scale, top: top * scale, foot: foot * scale, filled: part }
  }
})

describe('letters', () => {
  it('that a typeface lacks come from another, and what none has is told', () => {
    const mono = facesOf({ ...LOOK, words: 'Spline Sans Mono' }, files)
    expect(mono.words.missing('Привет, Ἀθῆναι')).toEqual([])
    const drawing = drawCard(card('words', { text: 'Boat is 船 there.' }), LOOK, faces, null)
    expect(drawing.missing).toEqual(['船'])
    // It is drawn all the same, as a box.
    expect(drawing.strokes.filter((s) => s.kind === 'glyph').length).toBeGreaterThanOrEqual(
      'Boatis船there.'.length,
    )
  })

  it('stand closer where they fit into each other, and join where the face joins them', () => {
    const width = (text: string): number => faces.words.run(text).width
    expect(width('AVA')).toBeLessThan(width('A') + width('V') + width('A'))
    expect(faces.words.run('fi').glyphs).toHaveLength(1)
  })
})

describe('lines', () => {
  it.each([
    ['Nobody has ever come into a hut and said they wished they had turned back later.'],
    ['A plank at eighteen per cent moisture will swell a little when it meets the river and close itself.'],
    ['The rot you have found costs money, and the rot you have not found costs the season.'],
    ['Every librarian we asked said the same thing: an average is a number that nobody counted.'],
  ])('of “%s” end on no article and leave no word alone', (text) => {
    for (const shape of SHAPES)
      for (const layout of ['words', 'quotation', 'title'] as const) {
        const lines = linesOf(drawCard(card(layout, { text }), { ...LOOK, sign: '' }, faces, shape)).filter(
          (l) => l !== '“',
        )
        for (const line of lines.slice(0, -1)) expect(line).not.toMatch(/\b(?:a|an|the|per|his|our)$/)
        const [last = ''] = lines.slice(-1)
        const longest = Math.max(...lines.map((l) => l.length))
        expect([shape, layout, lines, last.includes(' ') || last.length > longest * 0.4]).toEqual([
          shape,
          layout,
          lines,
          true,
        ])
      }
  })
})
