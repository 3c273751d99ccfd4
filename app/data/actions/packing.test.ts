import JSZip from 'jszip'
import { beforeEach, expect, it } from 'vitest'
import { connectTo, emptyDatabase } from '../testing/browser'
import { aBrand, anAccount, aPost, aWorkspace } from '../../../core/model/samples'
import { ownPicture } from '../../../core/model'
import { setWorkspace } from '../api'
import { all, commit, put } from '../store'
import { libraryMedia, takePicture } from './library'
import { packed } from './packing'

const account = anAccount({ id: 'a', network: 'guildhall', handle: 'yard', zone: 'UTC' })
beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  await commit('machine', [put('workspace', aWorkspace()), put('brands', aBrand()), put('accounts', account)])
})

it('posts are taken away as a zip that another program opens: captions, pictures, and what is missing', async () => {
  const seam = await takePicture('brand', new Blob(['a seam'], { type: 'image/jpeg' }), {
    origin: 'file',
    title: 'seam',
    credit: { author: 'Ada Wren', from: '', licence: 'Free', page: null, mustShow: false },
  })
  const lost = {
    ...libraryMedia(seam),
    source: { from: 'address' as const, url: ownPicture('0'.repeat(64)) },
  }
  const post = (id: string, hour: number, media = [libraryMedia(seam)]) =>
    aPost({ id, account: 'a', network: 'guildhall', at: `2026-12-01T${hour}:00:00.000Z`, media })
  await commit('machine', [put('posts', post('p', 10)), put('posts', post('q', 11, [lost]))])
  const told: number[] = []
  const zip = await packed(await all('posts'), [account], (done) => told.push(done))
  expect(told).toEqual([0, 1, 2])

  const files = await JSZip.loadAsync(await zip.arrayBuffer(), { checkCRC32: true })
  const read = async (name: string): Promise<string> => (await files.file(name)?.async('string')) ?? ''
  expect(Object.keys(files.files)).toHaveLength(6)
  expect(await read('guildhall-yard/2026-12-01-1000.jpg')).toBe('a seam')
  expect(await read('guildhall-yard/2026-12-01-1100.txt')).toContain(post('q', 11).wording.text)
  expect(await read('captions.csv')).toContain('guildhall-yard/2026-12-01-1000.jpg')
  expect(await read('credits.txt')).toBe('guildhall-yard/2026-12-01-1000.jpg: Picture: Ada Wren; Free\n')
  expect(await read('missing pictures.txt')).toMatch(/^guildhall-yard\/2026-12-01-1100: .+ any more/)
})

it('is refused where there is nothing to take, and stopped where it is cancelled', async () => {
  await expect(packed([], [account])).rejects.toThrow('There are no posts to take away')
  const stop = new AbortController()
  stop.abort()
  const posts = [aPost({ account: 'a', network: 'guildhall' })]
  await expect(packed(posts, [account], undefined, stop.signal)).rejects.toThrow('It was cancelled')
})
