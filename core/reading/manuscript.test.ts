import { describe, expect, it } from 'vitest'
import { writeDocx } from '../../demo/docx'
import { read, readOwn } from '.'
import { chaptersOf } from './manuscript'

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text)
const lines = (n: number): string =>
  Array.from({ length: n }, (_, i) => `Line ${i} of the book says what the wind did that day.`).join(' ')
const titles = async (text: string, name: string): Promise<string[]> =>
  (await readOwn(bytes(text), name)).chapters.map((c) => c.title)
const BOOK = `# The first night\n\n${lines(3)}\n\n## What to hang up\n\n- Socks\n- Boots\n\n# The second night\n\n${lines(2)}\n`

describe('a manuscript', () => {
  it.each([
    ['Markdown', 'book.md', bytes(BOOK)],
    ['Markdown with front matter', 'book.md', bytes(`---\ntitle: x\nlayout: y\n---\n${BOOK}`)],
    [
      'HTML',
      'book.html',
      bytes(`<h1>The first night</h1><p>${lines(3)}</p><h1>The second night</h1><p>${lines(2)}</p>`),
    ],
    ['a Word document', 'book.docx', writeDocx(BOOK.replace('- Socks\n- Boots', 'Socks and boots.'))],
    [
      'plain text with chapters spelled out',
      'book.txt',
      bytes(`Chapter One: The first night\n\n${lines(3)}\n\nChapter Two: The second night\n\n${lines(2)}`),
    ],
  ])('%s is offered chapter by chapter', async (kind, name, file) => {
    const own = await readOwn(file, name)
    expect(own).toMatchObject({ kind: 'writing', title: kind.includes('front matter') ? 'x' : 'book' })
    expect(own.chapters.map((c) => c.title.replace(/^Chapter \w+: /, ''))).toEqual([
      'The first night',
      'The second night',
    ])
    for (const c of own.chapters) expect(c.text).toContain('what the wind did')
    expect(own.chapters[1]?.text).not.toContain('Line 2')
  })

  it('with a title of its own and sections below it is one article', async () => {
    const sections = `Before it.\n\n## What is it?\n\n${lines(2)}\n\n## What does it cost?\n\n${lines(2)}\n`
    const titled = await readOwn(bytes(`---\ntitle: Heat pumps\n---\n\n${sections}`), 'pumps.md')
    expect(titled.chapters.map((c) => c.title)).toEqual(['Heat pumps'])
    const bare = await readOwn(bytes(sections), 'heat-pumps.md')
    expect(bare.chapters.map((c) => c.title)).toEqual(['heat pumps'])
    const book = await readOwn(bytes(sections.replaceAll(lines(2), lines(120))), 'book.md')
    expect(book.chapters.map((c) => c.title)).toEqual(['What is it?', 'What does it cost?'])
  })

  it('set in from the margin, as manuals are, keeps its words and its headings', async () => {
    const manual = [
      'KILN(7)',
      '',
      'BEFORE FIRING',
      '       A kiln is a slow oven.  Its door',
      '       opens outwards.',
      '',
      '   What may crack',
      '       Wet clay cracks, and a thick foot',
      '       cracks first.',
      '',
    ].join('\n')
    const own = await read(bytes(manual), { name: 'kiln.txt' })
    const piece = own.kind === 'piece' ? own.piece : null
    expect(piece?.title).toBe('kiln')
    expect(piece?.blocks.map((b) => [b.kind, piece.text.slice(b.start, b.end)]).slice(-4)).toEqual([
      ['heading', 'BEFORE FIRING'],
      ['paragraph', 'A kiln is a slow oven. Its door opens outwards.'],
      ['heading', 'What may crack'],
      ['paragraph', 'Wet clay cracks, and a thick foot cracks first.'],
    ])
  })

  it('with one main heading is one piece, called after it', async () => {
    const own = await readOwn(bytes('# A letter\n\nTo whom it concerns: the stove works.'), 'note.md')
    expect(own.title).toBe('A letter')
    expect(own.chapters).toMatchObject([{ title: 'A letter', text: 'To whom it concerns: the stove works.' }])
  })

  it('that is long is parted below its only main heading, and what stands before goes with the first', () => {
    const part = (t: string) => `<h2>${t}</h2><p>${lines(120)}</p>`
    const html = `<p>For Ada.</p><h1>The weather book</h1>${part('Fog')}${part('Wind')}`
    expect(chaptersOf(html, 'x').map((c) => [c.title, c.html.includes('For Ada')])).toEqual([
      ['Fog', true],
      ['Wind', false],
    ])
    expect(chaptersOf(html, 'x', false)).toHaveLength(1)
  })

  it('takes no comment of a script for a title, and no title for a comment', async () => {
    const script =
      'Run it and read what it says:\n\nnot ok 2\n#   Failed test (kiln.pl at line 5)\n# One of two failed.'
    const lamps =
      '# Lamps\n\nA lamp that hums is old.\n\n# Wicks\nA wick is cut at noon.\n\n```\ntrim\n# twice\n```'
    expect(await titles(script, 'kiln.md')).toEqual(['kiln'])
    expect((await readOwn(bytes(lamps), 'lamps.md')).chapters[1]?.text).toContain('trim\n# twice')
    expect(await titles('It says:\n\nok 1\n# One failed.\n\nMend it.', 'kiln.md')).toEqual(['kiln'])
    expect(await titles('To fire it:\n\n# open the flue\n# light the box', 'kiln.md')).toEqual(['kiln'])
    expect(await titles(lamps, 'lamps.md')).toEqual(['Lamps', 'Wicks'])
    expect(await titles('---\ntags: kiln\n---\n# Kilns\n\nA kiln cracks.', 'x.md')).toEqual(['Kilns'])
    expect(await titles('<!-- draft -->\n# Kilns\n\nA kiln cracks.', 'x.md')).toEqual(['Kilns'])
    expect((await readOwn(bytes(script), 'kiln.md')).chapters[0]?.text).toContain('# One of two failed.')
  })

  it('is not called after a heading in the middle of it', async () => {
    const late = `${lines(9)}\n\n# The last night\n\n${lines(2)}`
    expect(await titles(late, 'diary.md')).toEqual(['diary'])
    expect(await titles(`${lines(2)}\n\n# The nights\n\n${lines(9)}`, 'diary.md')).toEqual(['The nights'])
  })

  it('in Word keeps its headings, and one that does not open is refused', async () => {
    const whole = await read(writeDocx('# Closing a hut\n\n## The stove\n\nEmpty it first.'), {
      name: 'a.docx',
    })
    expect(whole).toMatchObject({
      kind: 'piece',
      piece: { title: 'Closing a hut', blocks: [{ kind: 'heading', level: 2 }, { kind: 'paragraph' }] },
    })
    const cut = writeDocx('# A\n\nWords.').slice(0, 300)
    await expect(read(cut, { name: 'a.docx' })).rejects.toThrow(/Word document cannot be opened/)
    await expect(read(writeDocx(''), { name: 'a.docx' })).rejects.toThrow(/holds no text/)
  })

  it('that is no writing is turned away with where it belongs', async () => {
    await expect(readOwn(bytes('<rss version="2.0"><channel/></rss>'), 'a.xml')).rejects.toThrow(
      /its address/,
    )
    await expect(readOwn(bytes('<opml version="2.0"><body/></opml>'), 'a.opml')).rejects.toThrow(
      /list of feeds/,
    )
    await expect(readOwn(bytes('\n \n'), 'a.md')).rejects.toThrow(/empty/)
    await expect(readOwn(new Uint8Array([0x89, 0x50, 0, 0, 0]), 'a.md')).rejects.toThrow(/not a text file/)
  })

  it('that is a saved page is read without the page around it', async () => {
    const own = await readOwn(
      bytes(
        `<html><body><nav class="menu">Home</nav><article><h1>Fog</h1><p>${lines(20)}</p></article><footer>© us</footer></body></html>`,
      ),
      'fog.html',
    )
    expect(own.chapters[0]?.title).toBe('Fog')
    expect(own.chapters[0]?.blocks.filter((b) => b.furniture === null)).toHaveLength(1)
  })
})
