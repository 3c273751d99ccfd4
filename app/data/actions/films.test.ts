import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeEach, expect, it } from 'vitest'
import { aBrand, anAccount, aPost, aWorkspace } from '../../../core/model/samples'
import { ownFilm, type FilmPart } from '../../../core/model'
import { connectTo, emptyDatabase } from '../testing/browser'
import { setWorkspace } from '../api'
import { exportBundle, importBundle, removeBrand } from '../bundle'
import { database } from '../database'
import { commit, must, put, remove, wholePiece } from '../store'
import { undo } from '../undo'
import { fillClip, moveClip, tightenClip } from './clips'
import { dropFilms, filmOf, giveFilm } from './films'
import { clearPictures } from './library'
import { giveTranscript, openFile, takeWriting } from './writing'

/** SHA-256 of the talk, as `sha256sum` gives it. */
const TALK = '477171e33cf538899d29f0c86eedc4e42d1d73489743670b8fb5628fe6868b93'
const file = (path: string, type: string): Blob =>
  new Blob([readFileSync(join(import.meta.dirname, '../../../demo', path))], { type })
const talk = (): Blob => file('talks/weather-books.mp3', 'audio/mpeg')
const vtt = `WEBVTT

00:00.000 --> 00:09.000
Oak bends when it is green, and larch does not bend at all.

00:09.000 --> 00:21.000
Ask for oak, and say that it is for a boat that is going to be used.
`

let piece = ''
beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  await (await database()).clear('blobs')
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand()),
    put('accounts', anAccount({ id: 'loopyard', network: 'loopyard' })),
  ])
  const opened = await openFile('talk.vtt', new TextEncoder().encode(vtt))
  if (opened.kind !== 'transcript') throw new Error(opened.kind)
  ;[piece = ''] = await takeWriting('brand', 'A talk', opened.chapters, 'video')
})

const part: FilmPart = { start: 1, end: 20, hook: '', subtitles: [], filled: false }
async function withPost(url: string, change: Partial<Parameters<typeof aPost>[0]> = {}): Promise<void> {
  const media = [{ source: { from: 'film' as const, url, part }, alt: 'Oak', shape: null, hash: 'made' }]
  await commit('machine', [
    put(
      'posts',
      aPost({
        id: 'p',
        piece,
        account: 'loopyard',
        network: 'loopyard',
        state: 'for review',
        media,
        ...change,
      }),
    ),
  ])
}
const shown = async () => {
  const [media] = (await must('posts', 'p')).media
  if (media?.source.from !== 'film' || !media.source.part) throw new Error('no part of a film')
  return { ...media.source, part: media.source.part, hash: media.hash }
}

it('a piece gets its film from a file: it is told whether it has pictures, and what is to be cut is cut from it', async () => {
  await withPost('https://a.example/gone.mp3')
  await commit('machine', [
    put('pieces', {
      ...(await must('pieces', piece)),
      video: { ...video, url: 'https://a.example/gone.mp3' },
    }),
  ])
  await giveFilm(piece, talk())
  expect((await must('pieces', piece)).video).toMatchObject({ url: ownFilm(TALK), sound: true, seconds: 21 })
  expect(await shown()).toMatchObject({ url: ownFilm(TALK), hash: null })
  const kept = await filmOf(ownFilm(TALK))
  expect(kept).toBeInstanceOf(Blob)
  expect((kept as Blob).size).toBe(talk().size)
  // A film with pictures takes its place, and undoing that brings the talk back.
  await giveFilm(piece, file('films/reading-a-plank.webm', 'video/webm'))
  expect((await must('pieces', piece)).video).not.toHaveProperty('sound')
  await undo('brand')
  expect((await must('pieces', piece)).video).toMatchObject({ url: ownFilm(TALK), sound: true })
})
const video = { seconds: 21, chapters: [], chaptersFound: false, transcript: 'dropped' }

it('what went out, and what shows another film, stays as it is', async () => {
  await withPost('https://a.example/other.mp4')
  await commit('machine', [
    put('pieces', { ...(await must('pieces', piece)), video: { ...video, url: 'https://a.example/f.mp4' } }),
  ])
  await giveFilm(piece, talk())
  expect(await shown()).toMatchObject({ url: 'https://a.example/other.mp4', hash: 'made' })
  await withPost(ownFilm(TALK), { state: 'published', publishedAt: '2026-11-01T08:00:00.000Z' })
  await giveFilm(piece, file('films/reading-a-plank.webm', 'video/webm'))
  expect(await shown()).toMatchObject({ url: ownFilm(TALK), hash: 'made' })
})

it.each([
  ['a text', new Blob(['no film'], { type: 'video/mp4' })],
  ['a film that is cut off in its head', file('films/paying-a-seam.mp4', 'video/mp4').slice(0, 500)],
])('%s is refused, and the piece stays as it was', async (_, blob) => {
  const before = await must('pieces', piece)
  await expect(giveFilm(piece, blob)).rejects.toMatchObject({
    code: 'bad-answer',
    message: expect.stringMatching(/cannot be read as a film/),
  })
  expect(await must('pieces', piece)).toEqual(before)
})

it('a film too large is refused before it is read', async () => {
  const large = new Blob([])
  Object.defineProperty(large, 'size', { value: 500 * 1024 * 1024 + 1 })
  await expect(giveFilm(piece, large)).rejects.toMatchObject({
    message: expect.stringMatching(/501 MB; 500 MB/),
  })
})

it('stays in this browser: no bundle has it, and one that is read in finds it where it is still wanted', async () => {
  await giveFilm(piece, talk())
  const bundle = new Uint8Array(await (await exportBundle()).arrayBuffer())
  expect(bundle.length).toBeLessThan(talk().size)
  await importBundle(bundle, 'ws')
  expect(await filmOf(ownFilm(TALK))).toBeInstanceOf(Blob)
  await (await database()).delete('blobs', ownFilm(TALK))
  await expect(filmOf(ownFilm(TALK))).rejects.toMatchObject({
    message: expect.stringMatching(/Choose the file again/),
  })
})

it('is dropped once nothing is cut from it', async () => {
  await giveFilm(piece, talk())
  await withPost(ownFilm(TALK))
  await commit('machine', [remove('pieces', piece)])
  await dropFilms()
  expect(await filmOf(ownFilm(TALK))).toBeInstanceOf(Blob)
  await commit('machine', [remove('posts', 'p')])
  await clearPictures('brand')
  await expect(filmOf(ownFilm(TALK))).rejects.toMatchObject({ code: 'not-found' })
})

it('pauses are left out of a part and put back; where its ends move they are looked for anew', async () => {
  await giveFilm(piece, talk())
  await withPost(ownFilm(TALK))
  await tightenClip('p', 0, true)
  // Nobody is heard from 3 to 5 s and from 13 to 15 s; 0.15 s stay on either side.
  expect(await shown()).toMatchObject({
    part: {
      start: 1,
      end: 20,
      leftOut: [
        { from: 3.15, to: 4.85 },
        { from: 13.15, to: 14.85 },
      ],
    },
    hash: null,
  })
  await moveClip('p', 0, 1, 11)
  expect((await shown()).part.leftOut).toEqual([{ from: 3.15, to: 4.85 }])
  // Loopyard takes clips of at least 5 s: 6.5 s without the pause of 1.7 s are too short.
  await expect(moveClip('p', 0, 1, 7.5)).rejects.toMatchObject({
    message: expect.stringMatching(/4\.8 s long/),
  })
  await tightenClip('p', 0, false)
  expect((await shown()).part).not.toHaveProperty('leftOut')
  await moveClip('p', 0, 6, 12)
  await expect(tightenClip('p', 0, true)).rejects.toMatchObject({
    message: expect.stringMatching(/nothing to leave out/),
  })
})

it('goes with its brand', async () => {
  await giveFilm(piece, talk())
  await removeBrand('brand')
  await expect(filmOf(ownFilm(TALK))).rejects.toMatchObject({ code: 'not-found' })
})

it('fills its clip about what is most worth showing, and about its middle where that cannot be seen', async () => {
  await giveFilm(piece, file('films/reading-a-plank.webm', 'video/webm'))
  const url = (await must('pieces', piece)).video?.url ?? ''
  await withPost(url)
  await commit('machine', [
    put('posts', {
      ...(await must('posts', 'p')),
      media: (await must('posts', 'p')).media.map((m) => ({ ...m, shape: { width: 9, height: 16 } })),
    }),
  ])
  await fillClip('p', 0, true, null)
  expect((await must('posts', 'p')).media[0]).toMatchObject({
    cut: { x: 0.6, width: 0.3 },
    source: { part: { filled: true } },
  })
  await fillClip('p', 0, false, null)
  expect((await must('posts', 'p')).media[0]).not.toHaveProperty('cut')
  // The film lies in this browser no more.
  await (await database()).delete('blobs', url)
  await fillClip('p', 0, true, null)
  expect((await must('posts', 'p')).media[0]).not.toHaveProperty('cut')
})

it('stays the film of its piece when the words of that are read anew', async () => {
  await giveFilm(piece, talk())
  const other = vtt.replace('Ask for oak', 'Ask for larch')
  await giveTranscript(piece, other)
  expect((await wholePiece(piece)).text).toContain('Ask for larch')
  expect((await must('pieces', piece)).video).toMatchObject({ url: ownFilm(TALK), sound: true })
})
