import { createHash } from 'node:crypto'
import { imageSize } from 'image-size'
import { beforeAll, describe, expect, it } from 'vitest'
import { readBundle, type Bundle } from '../core/formats'
import { anAccount } from '../core/model/samples'
import { network, NETWORKS } from '../core/networks'
import { isQuiet, toWall } from '../core/planning'
import { ACCOUNTS, oakumYard, readArticle, sites, SPARE_ACCOUNTS } from './content'
import { picturePng } from './pictures'
import { historyOf } from './history'
import { makeSeed } from './seed'

const site = oakumYard()
const out = site.articles.filter((a) => a.day < 0)

const NOTICES = new Set(['open-day', 'course-prices', 'new-slip'])

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
      // A notice, a price list and a report are a little shorter than what is meant to last.
      expect(words).toBeGreaterThanOrEqual(NOTICES.has(a.slug) ? 650 : 690)
      expect(words).toBeLessThanOrEqual(1600)
      expect(site.biography[a.author]).toBeTruthy()
      expect(a.categories.length).toBeGreaterThan(0)
      expect(a.html).toContain('<h2>')
      const pictures = [...a.html.matchAll(/src="\/pictures\/([\w-]+)\.png" alt="([^"]*)"/g)]
      expect(pictures.length).toBeGreaterThanOrEqual(NOTICES.has(a.slug) ? 1 : 2)
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
    expect(() => readArticle('---\ntitle: A\n---\nText.')).toThrow('There is no slug.')
  })
})

it('leaves a login free on every network for linking by hand', () => {
  const all = Object.values(ACCOUNTS).flat()
  for (const { network: id } of all) expect(SPARE_ACCOUNTS.map((a) => a.network)).toContain(id)
  const ids = [...all, ...SPARE_ACCOUNTS].map((a) => a.id)
  expect(new Set(ids).size).toBe(ids.length)
})

describe('the seed', () => {
  const now = Date.parse('2026-11-25T10:00:00.000Z')
  const made = (at = now) => makeSeed({ seed: 'seed-1', bornAt: now, now: at, port: 4601, sites: sites() })
  const make = async (at = now) => (await made(at)).bundle
  let bundle: Bundle
  beforeAll(async () => {
    bundle = readBundle(await make())
  })

  it('is a bundle that the application takes, the same for the same moment', async () => {
    expect(bundle.workspace).toBe('seed-1')
    expect(bundle.rows.workspace[0]).toMatchObject({ id: 'seed-1', seed: 'seed-1' })
    expect(await make()).toEqual(await make())
  })

  const of = <R extends { brand: string }>(rows: readonly R[], brand: string): R[] =>
    rows.filter((r) => r.brand === brand)

  it('has both brands with their accounts and a source of every kind', () => {
    const networks = (brand: string) =>
      of(bundle.rows.accounts, brand)
        .map((a) => a.network)
        .sort()
    expect(networks('oakum-yard')).toEqual([
      'broadside',
      'guildhall',
      'hearthside',
      'hearthside',
      'longwave',
      'loopyard',
      'murmur',
      'murmur',
      'rackwell',
      'rackwell',
      'rackwell',
      'shutterleaf',
    ])
    expect(networks('fernhollow')).toEqual(['courier', 'guildhall', 'hearthside', 'murmur', 'shutterleaf'])
    const kinds = (brand: string) => of(bundle.rows.sources, brand).map((s) => `${s.kind} ${s.id}`)
    expect(kinds('oakum-yard')).toEqual(['feed yard-films', 'feed yard-journal'])
    expect(kinds('fernhollow').sort()).toEqual([
      'feed huts-journal',
      'feed partner-letter',
      'sheet reading-list',
      'writing huts-handbook',
    ])
    expect(bundle.rows.sheetRows.map((r) => r.ready)).toHaveLength(5)
  })

  it('has every article and film that is out, furniture marked, films with times and chapters', () => {
    const from = (source: string) => bundle.rows.pieces.filter((p) => p.source === source)
    expect(from('yard-journal')).toHaveLength(out.length)
    expect(from('huts-handbook')).toHaveLength(3)
    const words = new Map(bundle.rows.texts.map((t) => [t.piece, t]))
    for (const piece of [...from('yard-journal'), ...from('huts-journal')])
      expect(words.get(piece.id)?.blocks.some((b) => b.furniture !== null)).toBe(true)
    const films = from('yard-films')
    expect(films).toHaveLength(3)
    for (const film of films) {
      expect(film.kind).toBe('video')
      expect(film.video?.seconds).toBeGreaterThan(240)
      expect(film.video?.seconds).toBeLessThan(540)
      expect(film.video?.chapters.length).toBeGreaterThanOrEqual(3)
      const sentences = words.get(film.id)?.sentences ?? []
      expect(sentences.every((s) => (s.to ?? 0) > (s.from ?? Infinity))).toBe(true)
    }
    expect(films.map((f) => f.video?.chaptersFound)).toContain(true)
  })

  it('folds what the partner tells again, and catches what is off the path', () => {
    const letter = bundle.rows.pieces.filter((p) => p.source === 'partner-letter')
    expect(letter.map((p) => p.double?.why ?? '').sort()).toEqual([
      '',
      '',
      '',
      'an excerpt',
      'the same story',
      'the same story',
    ])
    const verdicts = letter.flatMap((p) => p.verdicts)
    expect(verdicts.map((v) => v.passed)).toEqual([false, false, false])
  })

  it('knows which pieces do not keep', () => {
    const span = (title: RegExp) => bundle.rows.pieces.find((p) => title.test(p.title))?.keeps.span
    expect(span(/^Open day/)).toBe('weeks')
    expect(span(/^What our courses cost/)).not.toBe('evergreen')
    expect(span(/^The new slip/)).toBe('months')
    for (const title of [/^Steaming/, /^Larch or oak/, /^A winter/, /^A blister/, /^Reading a sky/])
      expect([title, span(title) ?? 'evergreen']).toEqual([title, 'evergreen'])
  })

  it('has drips under way and one that waits for review, all in the future and in slots', () => {
    // Five to come, and seven of before.
    expect(of(bundle.rows.drips, 'oakum-yard')).toHaveLength(12)
    const toCome = bundle.rows.posts.filter((p) => p.state !== 'published' && p.state !== 'failed')
    expect(new Set(toCome.map((p) => p.state))).toEqual(new Set(['approved', 'for review']))
    for (const post of toCome) {
      const account = bundle.rows.accounts.find((a) => a.id === post.account)
      expect(Date.parse(post.at ?? '')).toBeGreaterThan(now)
      const wall = toWall(Date.parse(post.at ?? ''), account?.zone ?? 'UTC')
      const fits = account?.slots.some(
        (s) =>
          s.weekday === wall.weekday &&
          ('at' in s ? s.at === wall.time : s.from <= wall.time && wall.time <= s.to),
      )
      expect([post.at, fits]).toEqual([post.at, true])
      expect(isQuiet(wall.date, bundle.rows.brands.find((b) => b.id === post.brand)?.quiet ?? [])).toBe(false)
    }
  })

  it('approves nothing that is blocked or flagged, and gives pictures where a network demands them', () => {
    for (const post of bundle.rows.posts) {
      if (post.state === 'approved') expect(post.checks.filter((c) => c.severity !== 'note')).toEqual([])
      if (network(post.network).media.pictures.least > 0) expect(post.media).not.toEqual([])
    }
  })

  it('never repeats words on an account or its sibling', () => {
    const said = bundle.rows.posts.filter((p) => p.network === 'murmur').map((p) => p.wording.text)
    expect(new Set(said).size).toBe(said.length)
  })

  it('had half a year out, read at every age that each post has by now, as the stand-in networks keep it', async () => {
    const out = bundle.rows.posts.filter((p) => p.state === 'published')
    for (const account of ['mu-yard', 'gu-yard', 'mu-huts', 'gu-huts'])
      expect(out.filter((p) => p.account === account).length).toBeGreaterThan(35)
    const days = out.map((p) => (now - Date.parse(p.publishedAt ?? '')) / 86_400_000)
    expect(Math.min(...days)).toBeGreaterThan(0)
    expect(Math.max(...days)).toBeGreaterThan(170)
    const world = (await made()).out
    expect(world.map((p) => p.id).toSorted()).toEqual(out.map((p) => p.id).toSorted())
    const ages = [1, 6, 24, 72, 168, 720, 2160]
    for (const post of out) {
      const mine = bundle.rows.readings
        .filter((r) => r.post === post.id)
        .sort((a, b) => (a.takenAt < b.takenAt ? -1 : 1))
      const hours = (now - Date.parse(post.publishedAt ?? '')) / 3_600_000
      // A few seconds pass until it is read.
      expect(mine).toHaveLength(ages.filter((a) => a + 0.01 < hours).length)
      const seen = mine.map((r) => r.measures?.impressions ?? -1)
      expect(seen).toEqual(seen.toSorted((a, b) => a - b))
      expect(Math.min(...seen)).toBeGreaterThanOrEqual(0)
    }
  })

  it('has one permission that ran out, one refusal with its reason, and months ahead on every network', () => {
    const broken = bundle.rows.accounts.filter((a) => a.health.state !== 'linked')
    expect(broken.map((a) => [a.network, a.health.state])).toEqual([['longwave', 'expired']])
    const failed = bundle.rows.posts.filter((p) => p.state === 'failed')
    expect(failed.map((p) => p.failure)).toEqual([
      'Shutterleaf: The picture is 1200 by 800; Shutterleaf takes 1:1 or 4:5.',
    ])
    expect(bundle.rows.receipts).toMatchObject([{ post: failed[0]?.id, outcome: 'failed' }])
    const out = new Set(bundle.rows.posts.filter((p) => p.state === 'published').map((p) => p.network))
    expect([...out].sort()).toEqual(NETWORKS.map((n) => n.id).sort())
    const ahead = Math.max(...bundle.rows.posts.map((p) => Date.parse(p.at ?? '') - now)) / 86_400_000
    expect(ahead).toBeGreaterThan(100)
    // Each place has its own followers, day by day.
    const days = bundle.rows.followings.filter((f) => f.account === 'he-yard-oakum-yard')
    expect(days.length).toBeGreaterThan(180)
    // Nobody says how many follow before an account was linked, nor after its permission ran out.
    const known = (account: string) =>
      bundle.rows.followings
        .filter((f) => f.account === account)
        .map((f) => f.day)
        .sort()
    expect(known('lw-yard').at(-1)).toBe('2026-11-22')
    expect(known('lo-yard')[0]).toBe('2026-11-15')
  })

  it.each(['Europe/Lisbon', 'Europe/Dublin', 'America/St_Johns', 'Australia/Lord_Howe'])(
    'knows the followers of each day once, whatever the hour, where the clocks changed: %s',
    (zone) => {
      const account = anAccount({ id: 'a', zone, linkedAt: '2026-01-01T00:00:00.000Z' })
      const login = { id: 'l', network: account.network, zone, handle: 'l', name: 'L', about: '' }
      for (let hour = 0; hour < 24; hour++) {
        const moment = Date.parse('2026-11-30T00:30:00.000Z') + hour * 3_600_000
        const around = { seed: 's', bornAt: moment, now: moment, days: 300, origin: 'http://localhost' }
        const { followings } = historyOf([], [account], new Map([['a', login]]), around)
        expect(new Set(followings.map((f) => f.day)).size).toBe(300)
        expect(followings.every((f) => toWall(Date.parse(f.takenAt), zone).date === f.day)).toBe(true)
      }
    },
  )

  it('looks ahead from whatever moment it is made at', async () => {
    const later = now + 40 * 86_400_000
    for (const post of readBundle(await make(later)).rows.posts.filter(
      (p) => p.state !== 'published' && p.state !== 'failed',
    ))
      expect(Date.parse(post.at ?? '')).toBeGreaterThan(later)
  })
})
