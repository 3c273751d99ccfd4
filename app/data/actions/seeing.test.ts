import { beforeEach, describe, expect, it, vi } from 'vitest'
import { connectTo, emptyDatabase } from '../testing/browser'
import { aBrand, aPiece, aPost, aWorkspace } from '../../../core/model/samples'
import type { PieceImage } from '../../../core/model'
import { setWorkspace } from '../api'
import { all, commit, must, put } from '../store'
import { seenPiece, seePictures } from './seeing'

const image = (name: string): PieceImage => ({
  url: `https://a.example/${name}.png`,
  alt: '',
  caption: '',
  width: null,
  height: null,
  block: -1,
})

/** A server that has some pictures; the bytes of each are its name but for what follows a dash. */
const asked: string[] = []
const serve = (answers: Record<string, number>) =>
  vi.stubGlobal('fetch', (_: string, init: { body: string }) => {
    const { url } = JSON.parse(init.body) as { url: string }
    asked.push(url)
    const name = /(\w+)(?:-\w+)?\.png$/.exec(url)?.[1] ?? ''
    const status = answers[name] ?? 200
    if (status === 0) return Promise.reject(new TypeError('fetch failed'))
    if (status !== 200)
      return Promise.resolve(
        new Response(JSON.stringify({ code: 'bad-answer', message: 'There is no picture.', where: null }), {
          status,
        }),
      )
    return Promise.resolve(new Response(new Blob([name], { type: 'image/png' })))
  })

let serial = 0
const unlike = (): string => `pic${++serial}`

beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  asked.length = 0
  await emptyDatabase()
  await commit('machine', [put('workspace', aWorkspace()), put('brands', aBrand())])
})

describe('the pictures of a piece', () => {
  it('are looked at once: their size, their print, or what is wrong with them', async () => {
    const [one, two] = [unlike(), unlike()]
    serve({ [two]: 502 })
    await commit('machine', [put('pieces', aPiece({ images: [image(one), image(two)] }))])
    await seenPiece('piece')
    const { images } = await must('pieces', 'piece')
    expect(images[0]).toMatchObject({ width: 1200, height: 800, seen: { trouble: null } })
    expect(images[0]?.seen?.print).toMatch(/^[0-9a-f]{16}$/)
    expect(images[1]).toMatchObject({ width: null, seen: { print: null, trouble: 'There is no picture.' } })
    await seenPiece('piece')
    expect(asked).toHaveLength(2)
  })

  it('stay unseen while nobody answers, and posts that show one are told its print', async () => {
    const [there, away] = [unlike(), unlike()]
    serve({ [away]: 0 })
    const pieces = [
      aPiece({ id: 'a', images: [image(`${there}-large`)] }),
      aPiece({ id: 'b', images: [image(away), image(there)] }),
    ]
    const media = [there, away].map((name) => ({
      source: { from: 'address' as const, url: image(name).url },
      alt: '',
      shape: null,
      hash: null,
    }))
    await commit('machine', [...pieces.map((p) => put('pieces', p)), put('posts', aPost({ media }))])
    expect(await seePictures(pieces, 3)).toBe(2)
    const images = (await all('pieces')).flatMap((p) => p.images)
    expect(images.map((i) => i.seen !== undefined)).toEqual([true, false, true])
    expect(images[0]?.seen).toEqual(images[2]?.seen)
    const [post] = await all('posts')
    expect(post?.media.map((m) => m.print)).toEqual([images[2]?.seen?.print, undefined])
    // It is not asked for again at once.
    expect(await seePictures(await all('pieces'))).toBe(0)
    expect(asked).toHaveLength(3)
  })
})
