import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { readArticle } from '../../demo/content'
import type { PieceContent } from '../model'
import { analyse, readFragment, readTranscript } from '../reading'
import { findPassages, passageAt, weighPassages } from '.'
import { sentenceFeatures } from '../study'

/** The demo's articles, read as the feed would bring them. */
function articles(): PieceContent[] {
  const folder = join(import.meta.dirname, '../../demo/content/oakum-yard')
  return readdirSync(folder).map((f) => {
    const a = readArticle(readFileSync(join(folder, f), 'utf8'))
    return readFragment(a.html, { title: a.title, author: a.author, categories: a.categories })
  })
}

describe('findPassages', () => {
  it('finds some to keep in every article, exact, apart, whole and without furniture', () => {
    for (const piece of articles()) {
      const found = findPassages(piece)
      expect(found.length, piece.title).toBeGreaterThanOrEqual(2)
      const ends = new Set(piece.sentences.map((s) => s.end))
      for (const p of found) {
        expect(piece.text.slice(p.start, p.end)).toBe(p.text)
        expect(ends.has(p.end), p.text).toBe(true)
        expect(found.every((q) => q === p || q.end <= p.start || q.start >= p.end)).toBe(true)
        expect(p.text).not.toMatch(/^(It (?!is \w+ that)|(They|This(?! year)|But|And|So|However)\b)/)
      }
      expect([...found].sort((a, b) => b.score - a.score)).toEqual(found)
    }
  })

  it('keep a question that ends a paragraph with the answer that opens the next', () => {
    const piece = readFragment(
      '<p>Rain is no excuse. Why do most decks rot from below?</p><p>Water that cannot leave the joists rots a deck from below long before the boards show it. Nobody looks.</p>',
    )
    const asked = weighPassages(piece)
      .map((w) => w.passage.text)
      .find((t) => t.includes('?'))
    expect(asked).toMatch(/Why do most decks rot from below\?\n\nWater that cannot leave/)
  })

  it('ranks what ages last, but not in a piece that ends with it', () => {
    const piece = readFragment(
      '<p>The kiln was lit at six this week and held 1,240 degrees.</p><p>A cup cracks along the line where its handle was joined.</p>',
    )
    const first = (ends: boolean) =>
      weighPassages(
        piece,
        ends ? [{ start: piece.text.indexOf('this week'), end: piece.text.indexOf('this week') + 9 }] : null,
      )[0]?.passage.text
    expect(first(true)).toMatch(/^The kiln/)
    expect(first(false)).toMatch(/^A cup/)
  })

  it('clips of a talk last from five seconds to the longest that every network takes', () => {
    const cue = (from: number, to: number, text: string): string =>
      `00:${String(Math.floor(from / 60)).padStart(2, '0')}:${String(from % 60).padStart(2, '0')}.000 --> 00:${String(Math.floor(to / 60)).padStart(2, '0')}:${String(to % 60).padStart(2, '0')}.000\n${text}`
    const piece = readTranscript(
      [
        'WEBVTT',
        cue(1, 4, 'Four coils of cotton were enough for a hull of nine metres.'),
        cue(60, 72, 'A seam of four millimetres wants two strands of cotton.'),
        cue(80, 175, 'A plank of larch takes nine weeks to lose its water in the shade.'),
      ].join('\n\n'),
      { title: 'A talk' },
    )
    expect(weighPassages(piece).map((w) => w.passage.text)).toEqual([
      'A seam of four millimetres wants two strands of cotton.',
    ])
  })

  it('hears a surprise and a verb that one sees happen, and names them', () => {
    const features = (text: string) => sentenceFeatures(analyse(readFragment(`<p>${text}</p>`))[0]!)
    expect(features('Most people think that bees sleep in winter.')).toMatchObject({ surprise: true })
    expect(features('It turned out that the roof was dry.')).toMatchObject({ surprise: true })
    expect(features('Bees hang in a ball in winter.')).toMatchObject({ surprise: false, strongVerb: false })
    expect(features('The handle broke on a cold morning.')).toMatchObject({ strongVerb: true })
    const piece = readFragment(
      '<p>A cup is weak at the place where its handle was joined.</p><p>A jug will crack at the place where its handle was joined.</p>',
    )
    const jug = weighPassages(piece).find((w) => w.passage.text.startsWith('A jug will crack'))
    expect(jug?.passage.reasons).toContain('strong verb')
  })

  it('keeps a list whole with its lead-in', () => {
    const piece = readFragment(
      '<p>Before you open the box, look at four things:</p><ul><li>gloves on</li><li>clamps open</li><li>path clear</li><li>somebody at the far end who knows what you shout</li></ul><p>Nothing more is needed for it.</p>',
      { title: 'Steam' },
    )
    expect(weighPassages(piece).map((w) => w.passage)).toContainEqual(
      expect.objectContaining({
        kind: 'steps',
        text: expect.stringMatching(/^Before you open[\s\S]*you shout$/) as string,
      }),
    )
  })

  it('opens with no phrase that has no verb, and with no half of a sentence', () => {
    const piece = readFragment(
      '<p>Ten metres of light rope, clipped to a harness and never to a collar.</p><p>and the plank that was left in the rain all winter long split.</p><p>Nobody ever regretted a second coat of varnish.</p>',
    )
    const opened = weighPassages(piece).map((w) => w.passage.text)
    expect(opened.some((t) => /^(?:Ten metres|and )/.test(t))).toBe(false)
    expect(opened.some((t) => t.startsWith('Nobody'))).toBe(true)
  })

  it('never quotes furniture', () => {
    const piece = readFragment(
      `<p>${'An hour in the box for every inch of thickness. '.repeat(2)}</p><div class="author-box"><p>Rita Vance has taught at the yard for 40 years and never broke a frame.</p></div>`,
      { title: 'Steam' },
    )
    for (const p of findPassages(piece)) expect(p.text).not.toMatch(/Rita/)
  })

  it('scores a passage chosen by hand like the others', () => {
    const piece = articles()[0] as PieceContent
    const s = piece.sentences[0]!
    expect(passageAt(piece, s.start, s.end)).toMatchObject({
      text: piece.text.slice(s.start, s.end),
      reasons: expect.arrayContaining(['chosen by hand']) as string[],
    })
  })
})
