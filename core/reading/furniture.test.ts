import { describe, expect, it } from 'vitest'
import { blockPrints, markRepeats, readFragment } from '.'
import { aWholePiece } from '../model/samples'

const whole = (html: string) => aWholePiece({ ...readFragment(html), id: html.slice(0, 9) })
const prints = (html: string): Set<string> => new Set(blockPrints(whole(html)))

describe('what repeats across the pages of a source', () => {
  const line = '<p>Bread, letters, and a bed for the night: that is all we sell.</p>'
  const others = [prints(`<p>About fog.</p>${line}`), prints(`<p>About wind.</p>${line}`)]

  it('is furniture where it stands on two others, word for word, whatever its marks', () => {
    const piece = whole(`<p>About snow, and much of it.</p>${line.replace(/[,:]/g, ' –')}`)
    const marked = markRepeats(piece, others)
    expect(marked.blocks.map((b) => b.furniture)).toEqual([null, 'repeats on other pages'])
    expect(marked.words).toBe(6)
    expect(marked.text).toBe(piece.text)
  })

  it('is not where it stands on one, or is only alike, or a short heading', () => {
    const piece = whole(`<h2>About us</h2><p>About snow.</p>${line.replace('bed', 'chair')}<p>Read on.</p>`)
    expect(markRepeats(piece, [...others, prints('<h2>About us</h2>'), prints('<h2>About us</h2>')])).toBe(
      piece,
    )
    expect(markRepeats(whole(line), others.slice(1)).blocks[0]?.furniture).toBeNull()
  })
})

describe('words of a page that look like furniture and are not', () => {
  const kept = (html: string) => {
    const { blocks, text } = readFragment(html)
    return blocks.filter((b) => b.furniture === null).map((b) => text.slice(b.start, b.end))
  }
  const sentence = (n: number): string =>
    `Glue number ${n} wants warm wood, a quiet room and the patience of whoever stirs it.`

  it.each(['mailing-lists', 'social-contract', 'comments', 'menu-planning', 'share-of-the-work'])(
    'stand in a section whose id is %s',
    (id) => {
      const section = [1, 2, 3].map((n) => `<p>${sentence(n)}</p>`).join('')
      const page = `<h1>Glue</h1><p>${sentence(0)}</p><section id="${id}"><h2 id="${id}">On glue</h2>${section}</section>`
      // The first heading is the title.
      expect(kept(page)).toEqual([sentence(0), 'On glue', sentence(1), sentence(2), sentence(3)])
    },
  )

  it('stand in a list within a list, with an item around it or without', () => {
    const inner = `<ul><li>${sentence(2)}</li></ul>`
    for (const list of [
      `<ul><li>${sentence(1)}</li>${inner}<li>${sentence(3)}</li></ul>`,
      `<ol><li><p>${sentence(1)}</p>${inner}</li><li>${sentence(3)}</li></ol>`,
      `<ul><ul><li>${sentence(1)}</li></ul><ol>${inner}<li>${sentence(3)}</li></ol></ul>`,
    ])
      expect(kept(list)).toEqual([sentence(1), sentence(2), sentence(3)])
  })

  it('stand as a title in a sentence, quoted or not', () => {
    const said = 'As we read in <cite>The Glue Pot</cite>, warmth is half of it.'
    const plain = 'As we read in The Glue Pot, warmth is half of it.'
    expect(kept(`<p>${said}</p>`)).toEqual([plain])
    expect(kept(`<blockquote><p>${said}</p></blockquote>`)).toEqual([plain])
    expect(kept(`<blockquote><p>${said} — <cite>Ada Fell</cite></p></blockquote>`)[0]).toMatch(
      /^As we read in The Glue Pot/,
    )
  })
})

describe('a quotation', () => {
  const speaker = (html: string) =>
    readFragment(html)
      .blocks.filter((b) => b.kind === 'quotation')
      .map((b) => b.speaker)

  it.each([
    ['by a footer', '<blockquote><p>Fog lifts.</p><footer>— Ada Fell</footer></blockquote>', 'Ada Fell'],
    ['by a cite', '<blockquote><p>Fog lifts.</p><cite>Ada Fell</cite></blockquote>', 'Ada Fell'],
    [
      'by the caption of its figure',
      '<figure><blockquote><p>Fog lifts.</p></blockquote><figcaption>Ada Fell, warden</figcaption></figure>',
      'Ada Fell, warden',
    ],
    [
      'by a last line after a dash',
      '<blockquote><p>Fog lifts.</p><p>– Ada Fell</p></blockquote>',
      'Ada Fell',
    ],
  ])('knows its speaker %s', (_, html, name) => {
    expect(speaker(html)).toEqual([name])
    expect(readFragment(html).text).toBe('Fog lifts.')
  })

  it('without one has none', () => {
    expect(speaker('<blockquote><p>Fog lifts – always.</p></blockquote>')).toEqual([undefined])
  })
})

describe('what a piece says beside its subject', () => {
  const marks = (...blocks: string[]): (string | null)[] =>
    readFragment(blocks.map((b) => (b.startsWith('<') ? b : `<p>${b}</p>`)).join('')).blocks.map(
      (b) => b.furniture,
    )
  const said = 'Larch lasts thirty years at sea, and oak lasts sixty where it is kept wet all the time.'

  it('is furniture where it fills a paragraph, anywhere', () => {
    expect(
      marks(
        said,
        'Enjoying this article? Download our free checklist and find out more.',
        said.replace('Larch', 'Pine'),
        'Let’s get started!',
        said.replace('Larch', 'Fir'),
      ),
    ).toEqual([null, 'offer', null, 'promise of what follows', null])
  })

  it('is not where the paragraph says something else as well, unless it closes the piece', () => {
    const mixed = `Oak wants patience and a sharp iron, and most people bring neither. Book your place today.`
    expect(marks(mixed, ...Array.from({ length: 9 }, (_, i) => `${i} ${said}`))[0]).toBeNull()
    const closing = `I teach on Tuesdays. There are three places left in June.`
    expect(marks(...Array.from({ length: 9 }, (_, i) => `${i} ${said}`), closing).at(-1)).toBe('offer')
  })

  it('is a table of contents where a list only names the headings below it', () => {
    const list = '<ul><li>Why it leaks</li><li>Where it leaks</li><li>What to do</li></ul>'
    const parts = ['Why it leaks', 'Where it leaks', 'What to do'].flatMap((h) => [`<h2>${h}</h2>`, said + h])
    expect(marks(said, list, ...parts).slice(1, 4)).toEqual(['contents', 'contents', 'contents'])
    expect(marks(said, list, said.replace('Larch', 'Pine')).slice(1, 4)).toEqual([null, null, null])
  })
})
