import { beforeEach, describe, expect, it } from 'vitest'
import { connectTo, emptyDatabase } from '../testing/browser'
import { aBrand, anAccount, aPost, aWorkspace } from '../../../core/model/samples'
import type { Credit, LibraryPicture, PostMedia } from '../../../core/model'
import { setWorkspace } from '../api'
import { database } from '../database'
import { all, commit, must, one, put } from '../store'
import { undo } from '../undo'
import { clearing, clearPictures, libraryMedia, removePicture, takePicture, tellPicture } from './library'
import { pictureBytes, shapedPictures } from './pictures'
import { smallOf } from './seeing'

const png = (text: string): Blob => new Blob([text], { type: 'image/png' })
const take = (text: string, brand = 'brand'): Promise<LibraryPicture> =>
  takePicture(brand, png(text), { origin: 'file', title: text })
const credit: Credit = { author: 'Ada Wren', from: '', licence: 'Free', page: null, mustShow: true }

beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand()),
    put('brands', aBrand({ id: 'other' })),
    put('accounts', anAccount()),
  ])
})

/** A post that shows pictures. */
async function showing(id: string, media: PostMedia[], state: 'draft' | 'published' | 'set aside' = 'draft') {
  await commit('machine', [put('posts', aPost({ id, media, state, piece: null, passage: null }))])
}

describe('the library of a brand', () => {
  it('has a picture once, whatever it is called when it comes again, and each brand its own', async () => {
    const first = await take('a seam')
    expect(first).toMatchObject({ origin: 'file', title: 'a seam', width: 1200, height: 800, bytes: 6 })
    expect(first.print).toMatch(/^[0-9a-f]{16}$/)
    expect(await takePicture('brand', png('a seam'), { origin: 'stock', title: 'other' })).toEqual(first)
    const theirs = await take('a seam', 'other')
    expect(theirs.url).toBe(first.url)
    expect((await all('pictures')).map((p) => p.brand).toSorted()).toEqual(['brand', 'other'])
    expect(await (await database()).get('blobs', smallOf(first.url))).toBeDefined()
  })

  it('says whose a picture is to the posts that show it and are still to go out', async () => {
    const picture = await take('a seam')
    const media = [libraryMedia(picture)]
    await showing('open', media)
    await showing('described', [{ ...media[0]!, alt: 'My own words.' }])
    await showing('out', media, 'published')
    await tellPicture(picture.id, { title: 'A seam', alt: 'Cotton in a seam.', credit })
    expect(await must('pictures', picture.id)).toMatchObject({ title: 'A seam', credit })
    expect((await must('posts', 'open')).media).toMatchObject([{ alt: 'Cotton in a seam.', credit }])
    expect((await must('posts', 'described')).media).toMatchObject([{ alt: 'My own words.', credit }])
    expect((await must('posts', 'out')).media[0]).toEqual(media[0])
    await tellPicture(picture.id, { title: 'A seam', alt: 'Cotton, driven home.', credit: null })
    expect((await must('posts', 'open')).media[0]).toEqual({ ...media[0]!, alt: 'Cotton, driven home.' })
    await undo('brand')
    expect((await must('posts', 'open')).media).toMatchObject([{ alt: 'Cotton in a seam.', credit }])
  })

  it('names its maker in the captions that show it, once that has to be, and no more when it has not', async () => {
    const picture = await take('a seam')
    await showing('open', [libraryMedia(picture)])
    const { text } = (await must('posts', 'open')).wording
    await tellPicture(picture.id, { title: 'A seam', alt: 'Cotton.', credit })
    const named = await must('posts', 'open')
    expect(named.wording.text).toBe(`${text}\n\nPicture: Ada Wren`)
    expect(named.checks.map((c) => c.code)).not.toContain('no-credit')
    await tellPicture(picture.id, { title: 'A seam', alt: 'Cotton.', credit: { ...credit, mustShow: false } })
    expect((await must('posts', 'open')).wording.text).toBe(text)
  })

  it('learns whose a picture is when that is known only later, and keeps what was known', async () => {
    const picture = await take('a seam')
    const again = (given: Credit) =>
      takePicture('brand', png('a seam'), { origin: 'stock', title: 'other', credit: given })
    expect(await again(credit)).toEqual({ ...picture, credit })
    expect((await again({ ...credit, author: 'Ben' })).credit).toEqual(credit)
  })

  it('gives up a picture that no post shows, and takes it back with its bytes', async () => {
    const picture = await take('a seam')
    await showing('p', [libraryMedia(picture)])
    await expect(removePicture(picture.id)).rejects.toThrow(
      'A post shows this picture. Give it another one first.',
    )
    await showing('p', [libraryMedia(picture)], 'set aside')
    await removePicture(picture.id)
    expect(await all('pictures')).toEqual([])
    await undo('brand')
    expect(await must('pictures', picture.id)).toEqual(picture)
    expect(await (await pictureBytes(picture.url))?.text()).toBe('a seam')
  })
})

describe('clearing', () => {
  it('frees what no post shows and what was made for posts that are out, and nothing else', async () => {
    const [used, unused, shared] = await Promise.all(['a seam', 'a frame', 'an oar'].map((t) => take(t)))
    await take('an oar', 'other')
    await showing('draft', [libraryMedia(used!)])
    const card: PostMedia = {
      source: { from: 'card', card: { layout: 'words', head: '', text: 'Oak.', items: [], speaker: '' } },
      alt: 'Oak.',
      shape: { width: 1, height: 1 },
      hash: null,
    }
    await showing('out', [card])
    const [made] = await shapedPictures(await must('posts', 'out'))
    expect((await clearing('brand')).made).toEqual([])
    await commit('machine', [put('posts', { ...(await must('posts', 'out')), state: 'published' })])

    const found = await clearing('brand')
    expect(found.unused.map((p) => p.title).toSorted()).toEqual(['a frame', 'an oar'])
    expect(found.made).toEqual([made!.hash])
    // The oar stays for the other brand.
    expect(found.bytes).toBe('a frame'.length + made!.blob.size)

    expect(await clearPictures('brand')).toEqual(found)
    expect((await all('pictures')).map((p) => [p.brand, p.title])).toEqual(
      expect.arrayContaining([
        ['brand', 'a seam'],
        ['other', 'an oar'],
      ]),
    )
    expect(await all('pictures')).toHaveLength(2)
    const small = async (of: typeof used) => (await database()).get('blobs', smallOf(of!.url))
    expect(await small(unused)).toBeUndefined()
    for (const kept of [used, shared]) expect(await small(kept)).toBeDefined()
    await expect(pictureBytes(unused!.url)).rejects.toMatchObject({ code: 'not-found' })
    expect(await (await pictureBytes(used!.url))?.text()).toBe('a seam')
    expect(await (await pictureBytes(shared!.url))?.text()).toBe('an oar')
    expect(await one('media', made!.hash)).toBeUndefined()
    expect(await clearing('brand')).toEqual({ unused: [], made: [], bytes: 0 })
    // What was made is made again where it is wanted.
    expect(await shapedPictures(await must('posts', 'out'))).toMatchObject([{ hash: made!.hash }])
  })

  it('leaves a picture that a post shows which may be brought back', async () => {
    const picture = await take('a seam')
    await showing('aside', [libraryMedia(picture)], 'set aside')
    expect(await clearing('brand')).toEqual({ unused: [], made: [], bytes: 0 })
  })

  it('leaves what was made for one post that is out and one that is not', async () => {
    const picture = await take('a seam')
    await showing('out', [libraryMedia(picture)])
    await shapedPictures(await must('posts', 'out'))
    const { media } = await must('posts', 'out')
    await showing('out', media, 'published')
    await showing('open', media)
    expect(await clearing('brand')).toEqual({ unused: [], made: [], bytes: 0 })
  })
})
