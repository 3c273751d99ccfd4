import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { Resvg } from '@resvg/resvg-js'
import { beforeEach, describe, expect, it } from 'vitest'
import { emptyDatabase } from '../testing/browser'
import { withServers } from '../testing/servers'
import type { PostMedia } from '../../../core/model'
import { aBrand, aPost, aWorkspace } from '../../../core/model/samples'
import { exportBundle, importBundle } from '../bundle'
import { all, commit, must, put } from '../store'
import { addFace, removeFace, setMark } from './faces'
import { saveLook } from './look'

withServers()
beforeEach(async () => {
  await emptyDatabase()
  await commit('machine', [put('workspace', aWorkspace()), put('brands', aBrand())])
})

const MODULES = join(import.meta.dirname, '../../../node_modules')
const file = (path: string): Blob => new Blob([new Uint8Array(readFileSync(join(MODULES, path)))])
const liberation = (name: string): Blob => file(`pdfjs-dist/standard_fonts/LiberationSans-${name}.ttf`)
const packed = '@fontsource-variable/literata/files/literata-latin-opsz-normal.woff2'
const brand = () => must('brands', 'brand')
const look = async () => (await brand()).look

describe('a typeface of the brand’s own', () => {
  it('comes out of its files, those of one family together, in whatever order', async () => {
    expect(await addFace('brand', liberation('Bold'))).toBe('Liberation Sans')
    const [alone] = (await look()).own ?? []
    expect(alone?.strong).toBe(alone?.regular)
    await addFace('brand', liberation('Regular'))
    const [both, ...others] = (await look()).own ?? []
    expect(others).toEqual([])
    expect(both).toMatchObject({ name: 'Liberation Sans', strong: alone?.regular })
    expect(both?.regular).not.toBe(alone?.regular)
    expect((await all('media')).map((m) => m.type)).toEqual(['font/sfnt', 'font/sfnt'])
  })

  it('is unpacked where it is packed as WOFF2, and no shipped one loses its name to it', async () => {
    expect(await addFace('brand', file(packed))).toBe('Literata (own)')
    expect((await look()).own?.map((f) => f.name)).toEqual(['Literata (own)'])
  })

  it('is in the bundle of its brand', async () => {
    await addFace('brand', liberation('Regular'))
    const [face] = (await look()).own ?? []
    const bundle = new Uint8Array(await (await exportBundle('brand')).arrayBuffer())
    await emptyDatabase()
    await importBundle(bundle, 'ws')
    expect((await all('media')).map((m) => m.id)).toEqual([face?.regular])
  })

  it('is taken out again, and what was set in it is set in a shipped one', async () => {
    await addFace('brand', liberation('Regular'))
    await saveLook(await brand(), { ...(await look()), words: 'Liberation Sans' })
    await removeFace('brand', 'Liberation Sans')
    expect(await look()).toMatchObject({ words: 'Literata', labels: 'Schibsted Grotesk', own: [] })
  })

  it.each([
    ['is a text', () => new Blob(['A font.']), 'cannot be read as a font'],
    ['is packed the older way', () => new Blob(['wOFF and more']), 'Take its TTF, OTF or WOFF2 file'],
    ['is a WOFF2 that is cut off', () => file(packed).slice(0, 9000), 'it may be cut off'],
    ['only calls itself a WOFF2', () => new Blob(['wOF2']), 'no WOFF2 font'],
    ['is too large', () => new Blob([new Uint8Array(5_000_001)]), 'a font may have 5 MB'],
    ['would unpack to too much', () => tooLarge(), 'more than 30 MB'],
  ])('is refused with a sentence where its file %s, and nothing is kept', async (_, made, why) => {
    await expect(addFace('brand', made())).rejects.toThrow(why)
    expect([(await look()).own, await all('media')]).toEqual([undefined, []])
  })

  it('is one of at most six', async () => {
    const own = [1, 2, 3, 4, 5, 6].map((n) => ({ name: `Face ${n}`, regular: 'a'.repeat(64), strong: null }))
    await saveLook(await brand(), { ...(await look()), own })
    await expect(addFace('brand', liberation('Regular'))).rejects.toThrow('Take one out first')
  })
})

it('what is made in a look is made anew in another one: cards, and clips in the brand’s frame', async () => {
  const part = { start: 0, end: 9, hook: '', subtitles: [], filled: false }
  const media: PostMedia[] = [
    { source: { from: 'film', url: 'https://a.example/film', part }, alt: '', shape: null, hash: 'a' },
    { source: { from: 'address', url: 'https://a.example/a.png' }, alt: '', shape: null, hash: 'b' },
  ]
  await commit('machine', [put('posts', aPost({ media, state: 'approved' }))])
  await saveLook(await brand(), { ...(await look()), ink: '#123456' })
  expect((await must('posts', aPost().id)).media.map((m) => m.hash)).toEqual([null, 'b'])
})

describe('a mark', () => {
  const svg = '<svg xmlns="http://www.w3.org/2000/svg" width="90" height="60"/>'
  const png = () => new Blob([new Uint8Array(new Resvg(svg).render().asPng())], { type: 'image/png' })

  it('comes out of a file and is in the bundle of its brand', async () => {
    await setMark('brand', png())
    const { mark } = await look()
    expect((await all('media')).map((m) => m.id)).toEqual([mark?.hash])
    const bundle = new Uint8Array(await (await exportBundle('brand')).arrayBuffer())
    await emptyDatabase()
    await importBundle(bundle, 'ws')
    expect([(await look()).mark, (await all('media')).map((m) => m.id)]).toEqual([mark, [mark?.hash]])
  })

  it('is refused with a sentence where its file is no picture', async () => {
    await expect(setMark('brand', new Blob(['A mark.']))).rejects.toThrow('this file is none of these')
    expect((await look()).mark).toBeUndefined()
  })
})

/** A WOFF2 file whose header says that it unpacks to 31 MB. */
function tooLarge(): Blob {
  const bytes = readFileSync(join(MODULES, packed))
  bytes.writeUInt32BE(31_000_000, 16)
  return new Blob([new Uint8Array(bytes)])
}

it('two changes of a look made from the same view are both kept', async () => {
  const seen = await brand()
  await saveLook(seen, { ...seen.look, ink: '#123456' })
  await saveLook(seen, { ...seen.look, accent: '#654321' })
  expect(await look()).toMatchObject({ ink: '#123456', accent: '#654321' })
})
