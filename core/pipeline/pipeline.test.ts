import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { readArticle } from '../../demo/content'
import type { FeedItem } from '../feeds'
import type { Account, Check, Passage, WholePiece } from '../model'
import { aBrand, aPassage, aPost, anAccount, aWholePiece } from '../model/samples'
import { network } from '../networks'
import { toWall } from '../planning'
import { carriesFullText, contextFor, gateState, makeDrip, takePiece, toPassages } from '.'

const now = '2026-11-24T10:00:00.000Z'
const owner = { id: 'piece', brand: 'brand', source: 'source', now }
const NOTHING = { page: null, transcript: null, chapters: null }
const counter = () => {
  let n = 0
  return () => `id-${n++}`
}

function itemOf(name: string): FeedItem {
  const a = readArticle(
    readFileSync(join(import.meta.dirname, `../../demo/content/oakum-yard/${name}.md`), 'utf8'),
  )
  return {
    title: a.title,
    url: `https://yard.example/${a.slug}?utm_source=feed`,
    id: a.slug,
    publishedAt: now,
    author: a.author,
    categories: a.categories,
    summary: a.summary,
    html: a.html.replace(/src="\//g, 'src="https://yard.example/'),
    images: [],
    language: null,
    base: null,
    video: null,
    counts: {},
    place: null,
    fields: {},
  }
}

describe('taking a piece in', () => {
  it('reads the item’s own text where it carries it, the page where it does not', () => {
    const item = itemOf('reading-rot')
    expect(carriesFullText(item)).toBe(true)
    const summaryOnly = { ...item, html: '' }
    expect(carriesFullText(summaryOnly)).toBe(false)
    const page = `<html><body><nav class="menu">Home</nav><article><h1>${item.title}</h1>${item.html}</article></body></html>`
    const fromFeed = takePiece(item, NOTHING, owner)
    const fromPage = takePiece(
      summaryOnly,
      { ...NOTHING, page: { text: page, url: 'https://yard.example/reading-rot' } },
      owner,
    )
    expect(fromPage.words).toBe(fromFeed.words)
    expect(fromPage.images.map((i) => i.url)).toEqual(fromFeed.images.map((i) => i.url))
  })

  it('takes the canonical address, and a fingerprint that follows the words alone', () => {
    const item = itemOf('reading-rot')
    const piece = takePiece(item, NOTHING, owner)
    expect(piece.url).toBe('https://yard.example/reading-rot')
    const spaced = takePiece({ ...item, html: item.html.replace(/ /g, '  ') }, NOTHING, owner)
    const changed = takePiece({ ...item, html: item.html.replace('rot', 'decay') }, NOTHING, owner)
    expect(spaced.fingerprint).toBe(piece.fingerprint)
    expect(changed.fingerprint).not.toBe(piece.fingerprint)
  })

  it('keeps the best passages, each with its exact quotation and what stands around it', () => {
    const piece = takePiece(itemOf('reading-rot'), NOTHING, owner)
    const passages = toPassages(piece, counter())
    const kept = passages.filter((p) => p.choice === 'kept')
    expect(kept.length).toBeGreaterThan(2)
    expect(kept.length).toBeLessThanOrEqual(8)
    expect(Math.max(...passages.map((p) => p.score))).toBe(Math.max(...kept.map((p) => p.score)))
    for (const p of passages) {
      expect(piece.text.slice(p.start, p.end)).toBe(p.text)
      expect(piece.text.slice(p.start - p.before.length, p.start)).toBe(p.before)
      expect(p.before.length).toBeLessThanOrEqual(40)
      expect(piece.text.slice(p.end, p.end + p.after.length)).toBe(p.after)
    }
  })
})

describe('the gate', () => {
  const check = (severity: Check['severity']): Check => ({ code: 'x', severity, message: '' })
  it.each([
    ['everything', [], 'for review'],
    ['what is flagged', [], 'approved'],
    ['what is flagged', ['note'], 'approved'],
    ['what is flagged', ['flag'], 'for review'],
    ['nothing', ['flag'], 'approved'],
    ['nothing', ['block'], 'for review'],
    ['what is flagged', ['block', 'note'], 'for review'],
  ] as const)('that holds %s leaves a post with %j %s', (gate, severities, state) => {
    expect(gateState(severities.map(check), gate)).toBe(state)
  })
})

describe('a drip', () => {
  const accounts: Account[] = ['murmur', 'guildhall', 'shutterleaf'].map((id) =>
    anAccount({ id, network: id }),
  )
  const piece: WholePiece = takePiece(itemOf('seven-tools'), NOTHING, owner)
  const passages: Passage[] = toPassages(piece, counter())
  const make = (change: Partial<Parameters<typeof makeDrip>[0]> = {}) =>
    makeDrip({
      now,
      newId: counter(),
      brand: aBrand(),
      piece,
      passages,
      accounts,
      rhythm: { name: 'Mine', days: 30, beats: 6, thinning: 1.2 },
      startDay: '2026-11-25',
      seed: 3,
      pipeline: null,
      gate: 'everything',
      allAccounts: accounts,
      allBrands: [aBrand()],
      standing: [],
      ...change,
    })

  it('that a person begins is placed as asked, with a flag on what comes after the piece’s end', () => {
    const ended: WholePiece = {
      ...piece,
      keeps: { span: 'past', until: '2026-11-25', because: 'Its title names a time.', phrases: [] },
    }
    const { posts } = make({ piece: ended })
    expect(posts.every((p) => p.at !== null)).toBe(true)
    for (const post of posts)
      expect(post.checks.some((c) => c.code === 'outlives-piece')).toBe(post.at!.slice(0, 10) > '2026-11-25')
    expect(posts.some((p) => p.at!.slice(0, 10) > '2026-11-25')).toBe(true)
  })

  it('is the same for the same request', () => {
    expect(make()).toEqual(make())
  })

  it('gives every post a passage of its own at its beat, and every account each passage once', () => {
    const { posts } = make()
    for (const beat of [0, 1, 2, 3, 4, 5]) {
      const used = posts.filter((p) => p.beat === beat).map((p) => p.passage)
      expect(new Set(used).size).toBe(used.length)
    }
    for (const account of accounts) {
      const used = posts.filter((p) => p.account === account.id).map((p) => p.passage)
      expect(new Set(used).size).toBe(used.length)
    }
  })

  it('stands in the slots, within reach of its rhythm, one post a day and account', () => {
    const { posts, drip } = make()
    for (const post of posts) {
      expect(post.at).not.toBeNull()
      expect(toWall(Date.parse(post.at ?? ''), 'Europe/Lisbon').time).toMatch(/^(09|17):00$/)
      expect(Math.abs(Date.parse(post.at ?? '') - Date.parse(post.wished))).toBeLessThan(3 * 86_400_000)
    }
    expect(drip.days).toHaveLength(6)
    const places = posts.map((p) => `${p.account} ${p.at?.slice(0, 10)}`)
    expect(new Set(places).size).toBe(places.length)
  })

  it('gives pictures a shape that the network takes', () => {
    const shapes = network('shutterleaf').media.shapes
    for (const post of make().posts.filter((p) => p.network === 'shutterleaf'))
      expect(shapes).toContainEqual(post.media[0]?.shape)
  })

  it('leads to its page with the house’s tags, also where the words carry no link', () => {
    const { houseStyle } = aBrand()
    const linkTags = [{ name: 'from', value: '{network}-{beat}' }]
    const tagged = make({ brand: aBrand({ houseStyle: { ...houseStyle, linkTags } }) }).posts
    const links = tagged.flatMap((p) => (p.network === 'shutterleaf' ? [p.link] : []))
    expect(links.length).toBeGreaterThan(1)
    for (const link of links) expect(link).toMatch(/\?from=shutterleaf-\d$/)
  })

  it('does not use what was left out or lost its place, and says which cells stay empty', () => {
    const few = passages.map((p, i): Passage => ({
      ...p,
      choice: i < 2 ? 'kept' : 'left out',
      lostPlace: i === 1,
    }))
    const { posts, drip } = make({ passages: few })
    expect(new Set(posts.map((p) => p.passage))).toEqual(new Set([few[0]?.id]))
    expect(drip.missing.length).toBe(18 - posts.length)
    for (const m of drip.missing) expect(m.message).toMatch(/too thin|Nothing is left/)
  })

  it('puts a person’s own passage before the machine’s', () => {
    const last = passages.length - 1
    const own = aPassage({ ...passages[last], id: 'own', by: 'person', choice: 'kept', score: 0.1 })
    const { posts } = make({
      passages: [...passages.slice(0, last), own],
      rhythm: { name: 'Once', list: [0] },
    })
    expect(posts.map((p) => p.passage)).toContain('own')
  })

  it('keeps away from what the account said lately', () => {
    const first = make()
    const again = make({ standing: first.posts, startDay: '2027-01-10' })
    for (const post of again.posts)
      for (const earlier of first.posts.filter((p) => p.account === post.account))
        expect(post.wording.text).not.toBe(earlier.wording.text)
  })
})

it('checks a caption against its network’s other captions, siblings told apart', () => {
  const posts = [
    aPost(),
    aPost({ id: 'same', account: 'account' }),
    aPost({ id: 'sibling', account: 'other' }),
    aPost({ id: 'elsewhere', network: 'guildhall' }),
    aPost({ id: 'aside', state: 'set aside' }),
  ]
  const context = contextFor(posts[0]!, aBrand(), aWholePiece(), posts)
  expect(context.others.map((o) => o.sibling)).toEqual([false, true])
})
