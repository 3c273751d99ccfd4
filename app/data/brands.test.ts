import { beforeEach, describe, expect, it } from 'vitest'
import { connectTo, emptyDatabase } from './testing/browser'
import { ownPicture, TABLE_NAMES, type Post } from '../../core/model'
import {
  aBrand,
  aDrip,
  aPipeline,
  aPost,
  aRow,
  aSource,
  aWholePiece,
  aWorkspace,
  anAccount,
} from '../../core/model/samples'
import { copyBrand } from './actions/brands'
import { storePicture } from './actions/pictures'
import { setWorkspace } from './api'
import { addBrands, exportBundle, importBundle, removeBrand } from './bundle'
import { database } from './database'
import { all, commit, must, patch, put, putPiece } from './store'

const hash = async (text: string): Promise<string> => {
  const digest = await crypto.subtle.digest('SHA-256', new TextEncoder().encode(text))
  return Buffer.from(digest).toString('hex')
}
const picture = async (text: string) => ({
  blob: new Blob([text], { type: 'image/png' }),
  hash: await hash(text),
  type: 'image/png',
  width: 4,
  height: 4,
})
const media = (h: string): Post['media'] => [
  { source: { from: 'address', url: ownPicture(h) }, alt: '', shape: null, hash: null },
]
/** How many rows each table has of a brand. */
const rowsOf = async (brand: string) =>
  Object.fromEntries(
    (
      await Promise.all(
        TABLE_NAMES.map(async (t) => [
          t,
          (await all(t)).filter((r) => (t === 'brands' ? r.id : (r as { brand?: string }).brand) === brand)
            .length,
        ]),
      )
    ).filter(([, n]) => n !== 0) as [string, number][],
  )

beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  await storePicture(await picture('mine'))
  await storePicture(await picture('both'))
  const [mine, both] = [await hash('mine'), await hash('both')]
  await commit('machine', [
    put('workspace', aWorkspace({ id: 'ws' })),
    ...['yard', 'huts'].flatMap((brand) => [
      put('brands', aBrand({ id: brand, name: brand.toUpperCase() })),
      put('accounts', anAccount({ id: `${brand}-a`, brand })),
      put('sources', aSource({ id: `${brand}-s`, brand })),
      ...putPiece(aWholePiece({ id: `${brand}-p`, brand, source: `${brand}-s` })),
      put('drips', aDrip({ id: `${brand}-d`, brand, piece: `${brand}-p`, accounts: [`${brand}-a`] })),
      put(
        'posts',
        aPost({
          id: `${brand}-1`,
          brand,
          drip: `${brand}-d`,
          piece: `${brand}-p`,
          account: `${brand}-a`,
          state: 'approved',
          media: media(brand === 'yard' ? mine : both),
        }),
      ),
      put(
        'posts',
        aPost({
          id: `${brand}-2`,
          brand,
          drip: null,
          piece: null,
          account: `${brand}-a`,
          media: media(both),
        }),
      ),
      put('wordLists', { id: `${brand}-l`, brand, name: 'Not us', words: ['sale'] }),
    ]),
    put(
      'pipelines',
      aPipeline({
        id: 'l1',
        brand: 'yard',
        takeIn: {
          ...aPipeline().takeIn,
          sources: ['yard-s'],
          sieve: [
            { kind: 'words', need: 'none', words: [], lists: ['yard-l'], where: 'the title' },
            { kind: 'source', take: true, sources: ['yard-s'] },
          ],
        },
        release: [aRow({ accounts: ['yard-a'] })],
        follows: [{ kind: 'pipeline', id: 'f', pipeline: 'l2', takes: 'the finished piece' }],
      }),
    ),
    put('pipelines', aPipeline({ id: 'l2', brand: 'yard', name: 'Round' })),
  ])
})

describe('a brand', () => {
  it('is removed with all that is its own, and nothing that another one uses', async () => {
    const others = await rowsOf('huts')
    await removeBrand('yard')
    expect(await rowsOf('yard')).toEqual({})
    expect(await rowsOf('huts')).toEqual(others)
    const kept = (await (await database()).getAllKeys('blobs')).map(String)
    expect(kept).toEqual([await hash('both')])
    expect((await all('media')).map((m) => m.id)).toEqual(kept)
  })

  it('stays whole where what was handed over cannot be recalled', async () => {
    await commit('machine', [patch('posts', 'yard-1', (p) => ({ ...p, state: 'handed over' }))])
    const before = await rowsOf('yard')
    await expect(removeBrand('yard')).rejects.toThrow()
    expect(await rowsOf('yard')).toEqual(before)
  })

  it('is saved alone, and comes back beside the others as it was', async () => {
    const before = await rowsOf('yard')
    const bytes = new Uint8Array(await (await exportBundle('yard')).arrayBuffer())
    expect((await all('workspace'))[0]?.lastBundleAt).toBeNull()
    await expect(addBrands(bytes, 'ws')).rejects.toThrow('YARD is here already')
    await removeBrand('yard')
    expect(await addBrands(bytes, 'ws')).toEqual(['YARD'])
    expect(await rowsOf('yard')).toEqual(before)
    expect(await rowsOf('huts')).toMatchObject({ posts: 2, pieces: 1 })
    const blob = await (await database()).get('blobs', await hash('mine'))
    expect(await blob?.blob.text()).toBe('mine')
    expect((await must('posts', 'yard-1')).held).toBeNull()
  })

  it('that comes from another workspace comes held, so that nothing goes out twice', async () => {
    const bytes = new Uint8Array(await (await exportBundle('yard')).arrayBuffer())
    await removeBrand('yard')
    await addBrands(bytes, 'another workspace')
    expect((await must('posts', 'yard-1')).held?.reason).toMatch(/another workspace/)
  })

  it('alone is a bundle like any other: it can replace everything', async () => {
    const bytes = new Uint8Array(await (await exportBundle('huts')).arrayBuffer())
    await importBundle(bytes, 'ws')
    expect((await all('brands')).map((b) => b.id)).toEqual(['huts'])
  })
})

it('a brand that begins like another has its settings and pipelines, off, and nothing that is the other’s', async () => {
  const id = await copyBrand('yard', ' Slip ')
  expect(await must('brands', id)).toMatchObject({ name: 'Slip', endedAt: null })
  expect(await rowsOf(id)).toEqual({ brands: 1, wordLists: 1, pipelines: 2, changes: 1 })
  const [list] = await all('wordLists', 'brand', id)
  const pipelines = await all('pipelines', 'brand', id)
  const journal = pipelines.find((p) => p.name === 'Journal')
  const round = pipelines.find((p) => p.name === 'Round')
  expect(journal).toMatchObject({
    on: false,
    takeIn: { sources: [], sieve: [{ lists: [list?.id] }, { kind: 'source', sources: [] }] },
    release: [{ accounts: [] }],
    follows: [{ pipeline: round?.id }],
  })
  expect(JSON.stringify(pipelines)).not.toMatch(/yard-/)
})
