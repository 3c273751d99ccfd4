import { beforeEach, describe, expect, it } from 'vitest'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { connectTo, emptyDatabase } from '../testing/browser'
import { aBrand, anAccount, aWorkspace } from '../../../core/model/samples'
import type { Post } from '../../../core/model'
import { setWorkspace } from '../api'
import { all, commit, must, put } from '../store'
import { changeHook, changeSubtitles, fillClip, keepStill, letMove, moveClip } from './clips'
import { startDrip } from './drips'
import { changeCard, pictureOptions, showPictures } from './postPictures'
import { openFile, takeWriting } from './writing'

let posts: Post[] = []
const on = (network: string): Post => posts.find((p) => p.network === network) as Post
const shown = async (network: string) => (await must('posts', on(network).id)).media

beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  const networks = ['loopyard', 'shutterleaf', 'rackwell']
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand()),
    ...networks.map((network) => put('accounts', anAccount({ id: network, network }))),
  ])
  const text = readFileSync(join(import.meta.dirname, '../../../bench/corpus/science-why-ice-floats.md'))
  const file = await openFile('ice.md', new Uint8Array(text))
  if (file.kind !== 'writing') throw new Error(file.kind)
  const [piece = ''] = await takeWriting('brand', file.title, file.chapters, 'manuscript')
  await startDrip({
    piece,
    accounts: networks,
    rhythm: { name: 'Mine', list: [0, 9] },
    startDay: '2026-12-01',
    gate: 'everything',
    pipeline: null,
    actor: { brand: 'brand', label: 'Start a drip' },
  })
  posts = (await all('posts')).sort((a, b) => a.beat - b.beat)
})

describe('a network that takes nothing but clips', () => {
  it('has a moving card with each post of a text without pictures, and nothing is missing', () => {
    const mine = posts.filter((p) => p.network === 'loopyard')
    expect(mine.length).toBeGreaterThan(0)
    for (const { media, checks } of mine) {
      expect(media).toMatchObject([{ source: { from: 'moving' }, shape: { width: 9, height: 16 } }])
      expect(checks.filter((c) => c.severity === 'block')).toEqual([])
    }
  })

  it('is offered nothing else, and blocks a post that has none', async () => {
    const { id } = on('loopyard')
    const options = await pictureOptions(id)
    expect(options.length).toBeGreaterThan(0)
    expect(new Set(options.flatMap((o) => o.media.map((m) => m.source.from)))).toEqual(new Set(['moving']))
    await showPictures(id, [])
    expect((await must('posts', id)).checks).toContainEqual(expect.objectContaining({ code: 'no-media' }))
    await expect(keepStill(id)).rejects.toMatchObject({ message: expect.stringMatching(/nothing but clips/) })
  })
})

describe('a card', () => {
  it('is let move in the place of a picture, with the title of its piece, and kept still again', async () => {
    const { id } = on('shutterleaf')
    await changeCard(id, 0, { layout: 'words', head: '', text: 'Ice is light.', items: [], speaker: '' })
    const [before] = await shown('shutterleaf')
    await letMove(id)
    expect(await shown('shutterleaf')).toMatchObject([
      { source: { from: 'moving', hook: 'Why ice floats, and why you should be glad of it' }, hash: null },
    ])
    // A clip stands in for the picture that the network wants.
    expect((await must('posts', id)).checks.filter((c) => c.severity === 'block')).toEqual([])
    await keepStill(id)
    expect(await shown('shutterleaf')).toEqual([before])
  })

  it('is not where the network takes no clips', async () => {
    const plate = { ...on('shutterleaf'), id: 'plate', network: 'rackwell', account: 'rackwell' }
    await commit('machine', [put('posts', plate)])
    await expect(letMove(plate.id)).rejects.toMatchObject({ message: 'Rackwell takes no clips.' })
  })

  it('that moves has its words and what it opens with changed, and is made anew', async () => {
    const { id, media } = on('loopyard')
    const source = media[0]?.source
    if (source?.from !== 'moving') throw new Error('no clip')
    await changeCard(id, 0, { ...source.card, layout: 'words', text: 'Ice is light.' })
    await changeHook(id, 0, '  Why? ')
    expect(await shown('loopyard')).toMatchObject([
      { source: { card: { text: 'Ice is light.' }, hook: 'Why?' }, alt: 'Ice is light.', hash: null },
    ])
    await expect(changeHook(id, 0, 'x'.repeat(121))).rejects.toMatchObject({
      message: expect.stringMatching(/at most 120/),
    })
  })
})

it('a part of a film begins and ends elsewhere within what the network takes, and says other words', async () => {
  const { id } = on('loopyard')
  const subtitles = ['Ice', 'floats'].map((text, i) => ({ from: 1 + i, to: 2 + i, text }))
  const part = { start: 1, end: 9, hook: '', subtitles, filled: false }
  const film = { from: 'film' as const, url: 'https://a.example/f.mp4', part }
  await showPictures(id, [{ source: film, alt: 'Ice', shape: null, hash: 'made' }])
  await moveClip(id, 0, 0.5, 90.5)
  expect(await shown('loopyard')).toMatchObject([{ source: { part: { start: 0.5, end: 90.5 } }, hash: null }])
  // Loopyard takes 5 to 90 s.
  await expect(moveClip(id, 0, 0.5, 90.6)).rejects.toMatchObject({
    message: expect.stringMatching(/90\.1 s/),
  })
  await expect(moveClip(id, 0, 4, 8.9)).rejects.toMatchObject({ message: expect.stringMatching(/4\.9 s/) })
  await expect(moveClip(id, 0, 9, 4)).rejects.toMatchObject({ message: expect.stringMatching(/ends after/) })
  await changeSubtitles(id, 0, ['  Ice does ', ''])
  expect(await shown('loopyard')).toMatchObject([
    {
      source: {
        part: {
          subtitles: [
            { from: 1, text: 'Ice does' },
            { from: 2, text: '' },
          ],
        },
      },
    },
  ])
  await expect(changeSubtitles(id, 0, ['One'])).rejects.toMatchObject({
    message: expect.stringMatching(/There are 2 subtitles.+1 lines/),
  })
})

it('a film fills its clip about what was chosen of it, and is framed again', async () => {
  const { id } = on('loopyard')
  const part = { start: 1, end: 9, hook: 'Ice', subtitles: [], filled: false }
  const cut = { x: 0.1, y: 0, width: 0.3, height: 1 }
  const film = { from: 'film' as const, url: 'https://a.example/f.mp4', part }
  await showPictures(id, [{ source: film, alt: 'Ice', shape: { width: 9, height: 16 }, hash: 'made' }])
  await fillClip(id, 0, true, cut)
  expect(await shown('loopyard')).toMatchObject([{ source: { part: { filled: true } }, cut, hash: null }])
  await changeHook(id, 0, 'Ice floats')
  await fillClip(id, 0, false, null)
  const [framed] = await shown('loopyard')
  expect(framed).toMatchObject({ source: { part: { filled: false, hook: 'Ice floats' } } })
  expect(framed).not.toHaveProperty('cut')
})
