import { beforeEach, describe, expect, it } from 'vitest'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { connectTo, emptyDatabase } from '../testing/browser'
import { aBrand, anAccount, aWorkspace } from '../../../core/model/samples'
import { firstPicture, ownPicture, type Post } from '../../../core/model'
import { setWorkspace } from '../api'
import { all, commit, must, put } from '../store'
import { undo } from '../undo'
import { nextWording, otherWordings, takeWording } from './captions'
import { startDrip } from './drips'
import { shapedPictures } from './pictures'
import {
  asSlides,
  changeCard,
  cutPicture,
  describePicture,
  exampleCards,
  nextPicture,
  pictureOptions,
  showFile,
  showOwn,
  showPictures,
} from './postPictures'
import { saveLook } from './look'
import { approve } from './posts'
import { openFile, takeWriting } from './writing'

let leaf: Post[] = []
let piece = ''
beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand()),
    ...['shutterleaf', 'murmur'].map((network) => put('accounts', anAccount({ id: network, network }))),
  ])
  const text = readFileSync(join(import.meta.dirname, '../../../bench/corpus/science-why-ice-floats.md'))
  const file = await openFile('ice.md', new Uint8Array(text))
  if (file.kind !== 'writing') throw new Error(file.kind)
  ;[piece = ''] = await takeWriting('brand', file.title, file.chapters, 'manuscript')
  await startDrip({
    piece,
    accounts: ['shutterleaf', 'murmur'],
    rhythm: { name: 'Mine', list: [0, 9, 30] },
    startDay: '2026-12-01',
    gate: 'everything',
    pipeline: null,
    actor: { brand: 'brand', label: 'Start a drip' },
  })
  const posts = (await all('posts')).sort((a, b) => a.beat - b.beat)
  leaf = posts.filter((p) => p.network === 'shutterleaf')
})

const shownBy = async (post: Post): Promise<string | null> => firstPicture(await must('posts', post.id))

describe('a text without pictures', () => {
  it('has a card with each post of a network that wants a picture, none twice, in a shape the network takes', async () => {
    expect(leaf.length).toBeGreaterThan(1)
    expect(new Set(leaf.map(firstPicture)).size).toBe(leaf.length)
    for (const { media, checks } of leaf) {
      expect(media).toMatchObject([{ source: { from: 'card' }, shape: { width: 4, height: 5 } }])
      expect(media[0]?.alt).not.toBe('')
      expect(checks.filter((c) => c.severity !== 'note')).toEqual([])
    }
  })
})

describe('another picture', () => {
  it('is the best that may stand there, then the next, and round again; an approval stays', async () => {
    const [post] = leaf
    await approve([post!.id])
    const options = (await pictureOptions(post!.id)).map((o) => firstPicture(o))
    expect(options.length).toBeGreaterThan(1)
    const seen = [await shownBy(post!)]
    for (let i = 0; i < options.length; i++) {
      await nextPicture(post!.id)
      seen.push(await shownBy(post!))
    }
    expect(new Set(seen)).toEqual(new Set(options))
    expect(seen.at(-1)).toBe(seen[0])
    expect((await must('posts', post!.id)).state).toBe('approved')
    await undo('brand')
    expect(await shownBy(post!)).toBe(seen.at(-2))
  })

  it('says where the same one stands too near', async () => {
    const [one, two] = leaf
    await showPictures(two!.id, one!.media)
    const again = (await pictureOptions(one!.id)).find((o) => firstPicture(o) === firstPicture(one!))
    expect(again?.near).toEqual({ account: 'shutterleaf', days: 9 })
  })

  it('is refused where the network takes no more, and blocks a post that is left without one it needs', async () => {
    const [post] = leaf
    const many = Array.from({ length: 11 }, () => post!.media[0]!)
    await expect(showPictures(post!.id, many)).rejects.toMatchObject({
      message: expect.stringMatching(/at most 10/),
    })
    await approve([post!.id])
    await showPictures(post!.id, [])
    const bare = await must('posts', post!.id)
    expect(bare.state).toBe('for review')
    expect(bare.checks).toContainEqual(expect.objectContaining({ code: 'no-media', severity: 'block' }))
  })

  it('of the library brings its credit into the caption and takes it away again; one made to order wants a look', async () => {
    const [post] = leaf
    await approve([post!.id])
    const credit = { author: 'Ada Wren', from: 'Drawer', licence: 'Named', page: null, mustShow: true }
    const stock = {
      url: ownPicture('a'.repeat(64)),
      alt: 'A boat',
      credit,
      print: null,
      size: { width: 900, height: 900 },
    }
    await showOwn(post!.id, stock, [])
    const shown = await must('posts', post!.id)
    expect(shown.state).toBe('approved')
    expect(shown.media).toMatchObject([{ alt: 'A boat', credit, shape: { width: 1, height: 1 } }])
    expect(shown.wording.text.endsWith('\n\nPicture: Ada Wren, Drawer')).toBe(true)
    expect(shown.checks.map((c) => c.code)).not.toContain('no-credit')
    await showOwn(post!.id, { ...stock, url: ownPicture('b'.repeat(64)), credit: null, origin: 'order' }, [])
    const made = await must('posts', post!.id)
    expect(made.state).toBe('for review')
    expect(made.wording.text).toBe(post!.wording.text)
  })

  it('is shown of the part that a person chose, until they choose what is proposed', async () => {
    const [post] = leaf
    const whole = { url: ownPicture('a'.repeat(64)), alt: 'A boat', credit: null, print: null }
    await showOwn(post!.id, whole, [])
    const cut = { x: 0.1, y: 0, width: 0.4, height: 0.5 }
    await cutPicture(post!.id, 0, { width: 4, height: 5 }, cut)
    expect((await must('posts', post!.id)).media).toMatchObject([
      { shape: { width: 4, height: 5 }, cut, hash: null },
    ])
    await cutPicture(post!.id, 0, { width: 4, height: 5 }, null)
    expect((await must('posts', post!.id)).media[0]).not.toHaveProperty('cut')
    await undo('brand')
    expect((await must('posts', post!.id)).media[0]?.cut).toEqual(cut)
  })

  it('out of a file is asked to be described before it goes out by itself', async () => {
    const [post] = leaf
    await showFile(post!.id, new Blob(['a boat'], { type: 'image/png' }), [])
    const shown = await must('posts', post!.id)
    expect(shown.media[0]?.source).toMatchObject({ from: 'address', url: expect.stringMatching(/^picture:/) })
    expect(shown.checks).toContainEqual(expect.objectContaining({ code: 'no-alt', severity: 'flag' }))
    await describePicture(post!.id, 0, '  A boat on the slip.')
    const described = await must('posts', post!.id)
    expect(described.media[0]?.alt).toBe('A boat on the slip.')
    expect(described.checks.map((c) => c.code)).not.toContain('no-alt')
  })
})

describe('a card', () => {
  it('of a caption says the new words once that has another wording; words of a person stay', async () => {
    const post = leaf.find(
      (p) => p.media[0]?.source.from === 'card' && p.media[0].source.card.layout === 'words',
    )!
    const [other] = await otherWordings(post.id, 'another passage')
    await takeWording(post.id, other!)
    const after = await must('posts', post.id)
    const source = after.media[0]?.source
    if (source?.from !== 'card') throw new Error('no card')
    expect(source.card.text).not.toBe(post.media[0]?.source.from === 'card' && post.media[0].source.card.text)
    expect(after.wording.text.startsWith(source.card.text.slice(0, 20))).toBe(true)
    // A code that was put on it by hand stays on what the next words make.
    await changeCard(post.id, 0, { ...source.card, code: true })
    await nextWording(post.id)
    expect((await must('posts', post.id)).media[0]?.source).toMatchObject({ card: { code: true } })
    await changeCard(post.id, 0, { ...source.card, text: 'Ours.' })
    await nextWording(post.id)
    expect((await must('posts', post.id)).media[0]?.source).toMatchObject({ card: { text: 'Ours.' } })
  })

  it('is refused half filled, with what it lacks, and told by its new words', async () => {
    const [post] = leaf
    const card = { layout: 'number' as const, head: '', text: 'Ice floats.', items: [], speaker: '' }
    await expect(changeCard(post!.id, 0, card)).rejects.toMatchObject({
      message: expect.stringMatching(/Number with its unit.+empty/),
    })
    await changeCard(post!.id, 0, { ...card, head: '9 per cent' })
    expect((await must('posts', post!.id)).media[0]).toMatchObject({
      alt: '9 per cent. Ice floats.',
      hash: null,
    })
  })

  it('of steps is parted into slides that are shown in order; nothing else is', async () => {
    const [post] = leaf
    await expect(asSlides(post!.id)).rejects.toMatchObject({
      message: expect.stringMatching(/a list or steps/),
    })
    const steps = {
      layout: 'steps' as const,
      head: 'Ice in a glass',
      text: '',
      items: ['Fill it.', 'Wait.'],
      speaker: '',
    }
    await changeCard(post!.id, 0, steps)
    await asSlides(post!.id)
    const { media } = await must('posts', post!.id)
    expect(media.map((m) => m.alt)).toEqual(['Ice in a glass.', '1. Fill it.', '2. Wait.', 'The yard.'])
    expect((await shapedPictures(await must('posts', post!.id))).length).toBe(4)
  })

  it('is drawn once, and anew in another look where it is still to go out', async () => {
    const [post, out] = leaf
    const [first] = await shapedPictures(post!)
    expect((await must('posts', post!.id)).media[0]?.hash).toBe(first?.hash)
    expect(await shapedPictures(await must('posts', post!.id))).toMatchObject([{ hash: first?.hash }])
    await shapedPictures(out!)
    await commit('machine', [put('posts', { ...(await must('posts', out!.id)), state: 'published' })])
    const brand = await must('brands', 'brand')
    await saveLook(brand, { ...brand.look, accent: '#aa3300' })
    expect((await must('posts', post!.id)).media[0]?.hash).toBeNull()
    expect((await must('posts', out!.id)).media[0]?.hash).not.toBeNull()
    const [anew] = await shapedPictures(await must('posts', post!.id))
    expect(anew?.hash).not.toBe(first?.hash)
    await undo('brand')
    expect((await must('brands', 'brand')).look.accent).toBe(brand.look.accent)
  })

  it('with a code is drawn anew for the link with which it goes out', async () => {
    const [post] = leaf
    const link = 'https://yard.example/ice?utm_source=shutterleaf'
    await commit('machine', [put('posts', { ...post!, link })])
    const { source } = post!.media[0]!
    const words = source.from === 'card' ? source.card : null
    const plain = await shapedPictures(await must('posts', post!.id))
    expect(await shapedPictures(await must('posts', post!.id), 'https://tiny.example/a')).toMatchObject([
      { hash: plain[0]?.hash },
    ])
    await changeCard(post!.id, 0, { ...words!, code: true })
    const [long] = await shapedPictures(await must('posts', post!.id))
    const [short] = await shapedPictures(await must('posts', post!.id), 'https://tiny.example/a')
    expect(short?.hash).not.toBe(long?.hash)
    expect((await must('posts', post!.id)).media[0]?.hash).toBe(short?.hash)
    await undo('brand')
  })

  it('of each of the best passages is shown to whoever sees to the look, in the layouts that are used', async () => {
    const shown = await exampleCards(piece, ['title', 'words'])
    expect(shown.passages).toHaveLength(3)
    for (const { layout } of shown.passages) expect(['title', 'words']).toContain(layout)
    expect(shown.layouts.title?.text).toBe('Why ice floats, and why you should be glad of it')
  })
})
