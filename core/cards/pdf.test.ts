import { Resvg } from '@resvg/resvg-js'
import { createCanvas } from '@napi-rs/canvas'
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
import { beforeAll, expect, it } from 'vitest'
import { openFaces } from '../../cli/faces'
import { usualLook, type Card, type Look } from '../model'
import { drawCard, facesOf, toPdf, toSvg, type Drawing, type Faces } from '.'

const LOOK: Look = { ...usualLook('The yard'), accent: '#a8432d' }
const SHAPE = { width: 4, height: 5 }
let faces: Faces
let pages: Drawing[]
beforeAll(async () => {
  faces = facesOf(LOOK, await openFaces())
  const cards: Partial<Card>[] = [
    { layout: 'title', text: 'How to reef a seam' },
    { layout: 'number', head: '1', text: 'Rake the old oakum out, Åse says.' },
    { layout: 'words', text: 'Roll the new one in.', code: true },
  ]
  pages = cards.map((c) =>
    drawCard(
      { head: '', text: '', items: [], speaker: '', layout: 'words', ...c },
      LOOK,
      faces,
      SHAPE,
      'https://tiny.example/a7Bq3',
    ),
  )
})

it('cards become the pages of one file, in order and of their size, with its title', async () => {
  const document = await getDocument({ data: await toPdf(pages, 'How to reef a seam') }).promise
  expect(document.numPages).toBe(3)
  const { info } = (await document.getMetadata()) as { info: { Title?: string } }
  expect(info.Title).toBe('How to reef a seam')
  const [, , width, height] = (await document.getPage(1)).view
  expect([width, height]).toEqual([540, 675])
})

it('each page looks as the card does, painted by others', async () => {
  const document = await getDocument({ data: await toPdf(pages, '') }).promise
  for (const [i, drawing] of pages.entries()) {
    const page = await document.getPage(i + 1)
    const viewport = page.getViewport({ scale: 1 })
    const canvas = createCanvas(540, 675)
    await page.render({ canvas: canvas as never, viewport }).promise
    const shown = canvas.getContext('2d').getImageData(0, 0, 540, 675).data
    const wanted = new Resvg(toSvg(drawing), { fitTo: { mode: 'width', value: 540 } }).render().pixels
    let differ = 0
    for (let at = 0; at < wanted.length; at += 4)
      if (Math.abs((wanted[at] ?? 0) - (shown[at] ?? 0)) > 64) differ++
    // Edges are smoothed differently; a letter that lacks, or stands elsewhere, would be thousands.
    expect(differ).toBeLessThan(200)
  }
})

it('a page shows the brand’s mark the right way up', async () => {
  const drawn =
    '<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100"><rect width="100" height="50" fill="#ff0000"/><rect y="50" width="100" height="50" fill="#0000ff"/></svg>'
  const bytes = new Uint8Array(new Resvg(drawn).render().asPng())
  const picture = { kind: 'picture' as const, hash: 'a', x: 40, y: 100, width: 200, height: 200 }
  const pdf = await toPdf([{ width: 1080, height: 1080, strokes: [picture] }], '', new Map([['a', bytes]]))
  const page = await (await getDocument({ data: pdf }).promise).getPage(1)
  const canvas = createCanvas(540, 540)
  await page.render({ canvas: canvas as never, viewport: page.getViewport({ scale: 1 }) }).promise
  const at = (x: number, y: number) => [...canvas.getContext('2d').getImageData(x, y, 1, 1).data].slice(0, 3)
  expect([at(70, 60), at(70, 140), at(10, 60), at(70, 160)]).toEqual([
    [255, 0, 0],
    [0, 0, 255],
    [255, 255, 255],
    [255, 255, 255],
  ])
})

it('the same pages and title give the same bytes', async () => {
  expect(await toPdf(pages, 'Seams')).toEqual(await toPdf(pages, 'Seams'))
})
