import { createHash } from 'node:crypto'
import { imageSize } from 'image-size'
import { beforeAll, describe, expect, it } from 'vitest'
import { readBundle, type Bundle } from '../core/formats'
import { network } from '../core/networks'
import { isQuiet, toWall } from '../core/planning'
import { ACCOUNTS, oakumYard, readArticle, SPARE_ACCOUNTS } from './content'
import { picturePng } from './pictures'
import { makeSeed } from './seed'

const site = oakumYard()
const out = site.articles.filter((a) => a.day < 0)

describe('the yard’s articles', () => {
  it('are at least eight at the start, and others follow as time moves', () => {
    expect(out.length).toBeGreaterThanOrEqual(8)
    expect(site.articles.filter((a) => a.day > 0).length).toBeGreaterThanOrEqual(4)
    expect(new Set(site.articles.map((a) => a.slug)).size).toBe(site.articles.length)
  })

  it.each(site.articles.map((a) => [a.slug, a] as const))(
    '%s is long, signed, tagged and illustrated',
    (_, a) => {
      const words = a.html
        .replace(/<[^>]*>/g, ' ')
        .split(/\s+/)
        .filter(Boolean).length
      expect(words).toBeGreaterThanOrEqual(690)
      expect(words).toBeLessThanOrEqual(1600)
      expect(site.biography[a.author]).toBeTruthy()
      expect(a.categories.length).toBeGreaterThan(0)
      expect(a.html).toContain('<h2>')
      const pictures = [...a.html.matchAll(/src="\/pictures\/([\w-]+)\.png" alt="([^"]*)"/g)]
      expect(pictures.length).toBeGreaterThanOrEqual(2)
      for (const [, name, alt] of pictures) {
        expect(alt).not.toBe('')
        const png = picturePng(name ?? '')
        expect(png && imageSize(png)).toMatchObject({ width: 1200, height: 800 })
      }
    },
  )

  it('have pictures that differ from one another', () => {
    const names = site.articles.flatMap((a) =>
      [...a.html.matchAll(/\/pictures\/([\w-]+)\.png/g)].map((m) => m[1] ?? ''),
    )
    const prints = names.map((n) =>
      createHash('sha256')
        .update(picturePng(n) ?? '')
        .digest('hex'),
    )
    expect(new Set(prints).size).toBe(new Set(names).size)
    expect(picturePng('no-such-picture')).toBeNull()
  })

  it('say what is missing from their head', () => {
    expect(() => readArticle('No head.')).toThrow('The article has no head.')
    expect(() => readArticle('---\ntitle: A\n---\nText.')).toThrow('The article has no slug.')
  })
})

it('leaves a login free on every network for linking by hand', () => {
  for (const { network: id } of ACCOUNTS) expect(SPARE_ACCOUNTS.map((a) => a.network)).toContain(id)
  const ids = [...ACCOUNTS, ...SPARE_ACCOUNTS].map((a) => a.id)
  expect(new Set(ids).size).toBe(ids.length)
})

describe('the seed', () => {
  const now = Date.parse('2026-11-25T10:00:00.000Z')
  const make = (at = now) => makeSeed({ seed: 'seed-1', bornAt: now, now: at, port: 4601, site })
  let bundle: Bundle
  beforeAll(async () => {
    bundle = readBundle(await make())
  })

  it('is a bundle that the application takes, the same for the same moment', async () => {
    expect(bundle.workspace).toBe('seed-1')
    expect(bundle.rows.workspace[0]).toMatchObject({ id: 'seed-1', seed: 'seed-1' })
    expect(await make()).toEqual(await make())
  })

  it('has the brand with its accounts, its source, and every article that is out', () => {
    expect(bundle.rows.accounts.map((a) => a.network).sort()).toEqual([
      'guildhall',
      'murmur',
      'murmur',
      'shutterleaf',
    ])
    expect(bundle.rows.pieces).toHaveLength(out.length)
    expect(bundle.rows.sources[0]?.url).toBe('http://oakum-yard.localhost:4601/feed.xml')
    for (const text of bundle.rows.texts) expect(text.blocks.some((b) => b.furniture !== null)).toBe(true)
  })

  it('has drips under way and one that waits for review, all in the future and in slots', () => {
    expect(bundle.rows.drips).toHaveLength(3)
    const states = new Set(bundle.rows.posts.map((p) => p.state))
    expect(states).toEqual(new Set(['approved', 'for review']))
    for (const post of bundle.rows.posts) {
      const account = bundle.rows.accounts.find((a) => a.id === post.account)
      expect(Date.parse(post.at ?? '')).toBeGreaterThan(now)
      const wall = toWall(Date.parse(post.at ?? ''), account?.zone ?? 'UTC')
      const fits = account?.slots.some(
        (s) =>
          s.weekday === wall.weekday &&
          ('at' in s ? s.at === wall.time : s.from <= wall.time && wall.time <= s.to),
      )
      expect([post.at, fits]).toEqual([post.at, true])
      expect(isQuiet(wall.date, bundle.rows.brands[0]?.quiet ?? [])).toBe(false)
    }
  })

  it('approves nothing that is blocked or flagged, and gives pictures where a network demands them', () => {
    for (const post of bundle.rows.posts) {
      if (post.state === 'approved') expect(post.checks.filter((c) => c.severity !== 'note')).toEqual([])
      if (network(post.network).media.pictures.least > 0) expect(post.media).not.toBeNull()
    }
  })

  it('never repeats words on an account or its sibling', () => {
    const said = bundle.rows.posts.filter((p) => p.network === 'murmur').map((p) => p.wording.text)
    expect(new Set(said).size).toBe(said.length)
  })

  it('looks ahead from whatever moment it is made at', async () => {
    const later = now + 40 * 86_400_000
    for (const post of readBundle(await make(later)).rows.posts)
      expect(Date.parse(post.at ?? '')).toBeGreaterThan(later)
  })
})
