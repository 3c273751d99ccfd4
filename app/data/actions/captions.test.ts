import { beforeEach, describe, expect, it } from 'vitest'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { connectTo, emptyDatabase } from '../testing/browser'
import { aBrand, anAccount, aWorkspace } from '../../../core/model/samples'
import { HouseStyle, type Post } from '../../../core/model'
import { setWorkspace } from '../api'
import { all, commit, must, put } from '../store'
import { undo } from '../undo'
import {
  anglesFor,
  anotherAngle,
  exampleOf,
  headlinesOf,
  nextWording,
  otherWordings,
  remedied,
  replaceIn,
  rewordedSelection,
  seriesOf,
  takeWording,
} from './captions'
import { orderColumns, startDrip } from './drips'
import { anotherWording, approve } from './posts'
import { openFile, takeWriting } from './writing'

let posts: Post[] = []
let piece = ''
beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  await commit('machine', [
    put('workspace', aWorkspace()),
    put(
      'brands',
      aBrand({ houseStyle: HouseStyle.parse({ linkTags: [{ name: 'utm_source', value: '{network}' }] }) }),
    ),
    ...['murmur', 'guildhall'].map((network) =>
      put('accounts', anAccount({ id: `${network}-one`, network })),
    ),
  ])
  const text = readFileSync(join(import.meta.dirname, '../../../bench/corpus/science-why-ice-floats.md'))
  const file = await openFile('ice.md', new Uint8Array(text))
  if (file.kind !== 'writing') throw new Error(file.kind)
  ;[piece = ''] = await takeWriting('brand', file.title, file.chapters, 'manuscript')
  await startDrip({
    piece,
    accounts: ['murmur-one', 'guildhall-one'],
    rhythm: { name: 'Mine', list: [0, 3, 9, 20] },
    startDay: '2026-12-01',
    gate: 'everything',
    pipeline: null,
    actor: { brand: 'brand', label: 'Start a drip' },
  })
  posts = (await all('posts')).sort((a, b) => a.beat - b.beat)
})

const wordsOf = async (id: string): Promise<string> => (await must('posts', id)).wording.text

describe('another wording', () => {
  it('keeps the one before, asks for review again, and is undone', async () => {
    const [post] = posts
    const before = post!.wording.text
    await approve([post!.id])
    expect((await must('posts', post!.id)).state).toBe('approved')
    const options = await otherWordings(post!.id, 'another passage')
    expect(options.length).toBeGreaterThan(0)
    await takeWording(post!.id, options[0]!)
    const now = await must('posts', post!.id)
    expect(now).toMatchObject({ state: 'for review', edited: false })
    expect(now.wording.text).toBe(options[0]!.wording.text)
    expect(now.passage).toBe(options[0]!.passage)
    expect(now.others.map((o) => o.text)).toContain(before)
    await undo('brand')
    expect(await must('posts', post!.id)).toMatchObject({ state: 'approved', passage: post!.passage })
    expect(await wordsOf(post!.id)).toBe(before)
  })

  it('is found by one key whether or not one is kept, and goes back', async () => {
    const [post] = posts
    const seen = new Set([await wordsOf(post!.id)])
    for (let i = 0; i < 3; i++) {
      await nextWording(post!.id)
      seen.add(await wordsOf(post!.id))
    }
    expect(seen.size).toBeGreaterThan(1)
  })

  it('that was kept brings its own link back, and is no longer what stood in', async () => {
    const [post] = posts
    const page = 'https://yard.example/a?utm_content='
    const kept = { ...post!.wording, text: `Ice floats because it is lighter. ${page}story-2` }
    const before = {
      fallback: 'It did not answer.',
      link: `${page}lesson-1`,
      shortLink: 'https://s.example/1',
    }
    await commit('machine', [put('posts', { ...post!, ...before, others: [kept] })])
    await anotherWording(post!.id)
    expect(await must('posts', post!.id)).toMatchObject({
      wording: { text: kept.text },
      link: `${page}story-2`,
      fallback: null,
      shortLink: null,
    })
  })

  it('says in a sentence what the piece does not give', async () => {
    await expect(otherWordings(posts[0]!.id, 'as a poll')).rejects.toThrow(/No poll can be made here/)
    await expect(otherWordings(posts[0]!.id, 'another angle', 'story')).rejects.toThrow(
      /No caption in the angle story/,
    )
  })
})

describe('several posts at once', () => {
  it('get another angle in one action, and it is said how many have none', async () => {
    const ids = posts.map((p) => p.id)
    const { changed, left } = await anotherAngle(ids)
    expect(changed + left).toBe(ids.length)
    expect(changed).toBeGreaterThan(0)
    const angles = new Map((await all('posts')).map((p) => [p.id, p.wording.angle]))
    expect(posts.filter((p) => angles.get(p.id) !== p.wording.angle)).toHaveLength(changed)
    await undo('brand')
    for (const p of posts) expect(await wordsOf(p.id)).toBe(p.wording.text)
  })

  it('have words replaced as they are written, keep approvals, and lose one where a rule is broken', async () => {
    const ids = posts.map((p) => p.id)
    await approve(ids)
    const approved = new Set((await all('posts', 'state', 'approved')).map((p) => p.id))
    const found = posts.filter((p) => p.wording.text.includes('ice'))
    expect(await replaceIn(ids, 'ice', 'frozen water')).toEqual({ changed: found.length, left: 0 })
    for (const p of found) {
      expect(await wordsOf(p.id)).toBe(p.wording.text.replaceAll('ice', 'frozen water'))
      expect((await must('posts', p.id)).edited).toBe(true)
    }
    await commit('machine', [
      put('brands', aBrand({ houseStyle: HouseStyle.parse({ neverSay: ['slush'] }) })),
    ])
    await replaceIn(ids, 'frozen water', 'slush')
    for (const p of found.filter((f) => approved.has(f.id)))
      expect(await must('posts', p.id)).toMatchObject({
        state: 'for review',
        checks: expect.arrayContaining([expect.objectContaining({ code: 'never-say' })]) as unknown,
      })
    await expect(replaceIn(ids, ' ', 'x')).rejects.toThrow(/which words/)
  })
})

describe('what is only shown', () => {
  it('an example, a series and headlines keep nothing', async () => {
    const brand = await must('brands', 'brand')
    const before = JSON.stringify([await all('posts'), await all('changes')])
    const example = await exampleOf(brand, piece, ['murmur', 'broadside'])
    expect(new Set(example.map((p) => p.network))).toEqual(new Set(['murmur', 'broadside']))
    const series = await seriesOf(brand, piece, ['murmur', 'guildhall'], 'most useful', 6)
    expect(series.length).toBeGreaterThan(3)
    expect(new Set(series.map((p) => p.passage.start)).size).toBe(series.length)
    expect(new Set(series.map((p) => p.network))).toEqual(new Set(['murmur', 'guildhall']))
    expect((await headlinesOf(piece))[0]?.why).toBe('its title')
    expect(JSON.stringify([await all('posts'), await all('changes')])).toBe(before)
  })

  it('what is asked of the passages says which come first', async () => {
    const brand = await must('brands', 'brand')
    const first = async (asked: 'most useful' | 'most surprising' | 'most debatable') =>
      (await seriesOf(brand, piece, ['murmur'], asked, 3)).map((p) => p.passage.start).join()
    expect(await first('most useful')).not.toBe(await first('most debatable'))
  })

  it('a remedy and a selection are worked out and given back', async () => {
    const check = { code: 'shouting', severity: 'note' as const, message: '', words: '!!' }
    expect(await remedied(posts[0]!, check, 'Ice floats!!')).toBe('Ice floats!')
    expect(await rewordedSelection('Do not wait.', 'warmer')).toEqual(['Don’t wait.'])
  })
})

describe('the columns of a drip', () => {
  it('stand in the order they are put in, posts as they were, and go back', async () => {
    const [drip] = await all('drips')
    const before = JSON.stringify(await all('posts'))
    await orderColumns(drip!.id, ['guildhall-one', 'murmur-one'])
    expect((await must('drips', drip!.id)).accounts).toEqual(['guildhall-one', 'murmur-one'])
    // An order that forgets one, or names another's, loses none.
    await orderColumns(drip!.id, ['elsewhere', 'murmur-one'])
    expect((await must('drips', drip!.id)).accounts).toEqual(['murmur-one', 'guildhall-one'])
    expect(JSON.stringify(await all('posts'))).toBe(before)
    await undo('brand')
    expect((await must('drips', drip!.id)).accounts).toEqual(['guildhall-one', 'murmur-one'])
  })
})

it('the angles on offer are those for which the piece has material', async () => {
  const angles = await anglesFor(piece)
  expect(angles).toContain('myth')
  const { angle: mine } = posts[1]!.wording
  const found = await Promise.all(
    angles
      .filter((a) => a !== mine)
      .map(async (angle) => ({
        angle,
        options: await otherWordings(posts[1]!.id, 'another angle', angle).catch(() => []),
      })),
  )
  expect(found.some(({ options }) => options.length > 0)).toBe(true)
  for (const { angle, options } of found) for (const o of options) expect(o.wording.angle).toBe(angle)
})
