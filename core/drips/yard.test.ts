import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { readArticle } from '../../demo/content'
import { PLAIN_HOUSE } from '../house'
import { likeness, LIKENESS_BOUND, opening, sourceText, ungrounded } from '../judging'
import type { PieceContent } from '../model'
import { measure, network } from '../networks'
import { findPassages } from '../passages'
import { beatDays, RHYTHMS } from '../planning'
import { readFragment } from '../reading'
import { writeDrip, type WrittenPost } from '.'
import { strangeSentences } from './testing/verbatim'

const ACCOUNTS = ['murmur', 'guildhall', 'shutterleaf'].map((n) => ({ id: n, network: n }))

/** Texts of other fields, so that nothing is tuned to boats. */
const OTHERS: Record<string, string> = {
  sleep: `<p>Hospitals are loud places. A ward at three in the morning measures about 60 decibels, which is the noise of a busy restaurant. Patients sleep four hours and call it resting.</p><h2>Why it matters</h2><p>Sleep is when the body mends. In one study of 120 people after hip surgery, those who slept less than five hours needed twice the pain relief of those who slept seven. However, nobody writes sleep on the chart.</p><p>Dr. Ines Okafor, who ran the study, puts it plainly: “We measure everything about a patient except the thing that would send them home.” She has a clock in her office that stops at ten.</p><h2>How do you sleep on a ward?</h2><p>Ask for ear plugs on the first day. Tell the evening nurse when you usually go to bed. Keep your phone on the far side of the table. If you wake at three, do not look at the clock, because you will start counting what is left.</p><p>A good night is not one without waking. Healthy people wake six times and forget it. What ruins sleep is worrying about the waking.</p>`,
  bread: `<p>Bread forgives almost everything except hurry. A dough that rises for eighteen hours in a cold kitchen needs no kneading at all, because time does the work of your hands.</p><h2>How wet should it be?</h2><p>For 500 grams of flour we use 375 grams of water. Beginners use less, because a wet dough sticks to everything. But a dry dough bakes into a brick, and no oven can save it. Wet your hands instead of flouring the table.</p><h2>The oven</h2><p>Heat the oven for an hour with the pot inside. Put the dough in, close the lid, and bake for thirty minutes. Then take the lid off and bake until the crust is darker than you dare. A pale loaf tastes of flour, and a dark one tastes of bread.</p>`,
  law: `<p>A lease is a contract to live somewhere without owning it. Most disputes about one begin on the last day, over things that should have been written down on the first. Photograph every room before you carry a chair in.</p><p>The deposit belongs to the tenant until a reason is shown to keep it. Wear is not damage. A carpet that has been walked on for six years is worn, and nobody may charge for that. A carpet with a burn in it is damaged, and the landlord may keep what it costs to mend.</p><p>Never withhold the last month’s rent. It feels fair, but courts have ruled against it for forty years. Send a letter that names the date, the sum and the account, and keep a copy.</p>`,
}

function pieces(): PieceContent[] {
  const folder = join(import.meta.dirname, '../../demo/content/oakum-yard')
  const own = readdirSync(folder).map((f) => {
    const a = readArticle(readFileSync(join(folder, f), 'utf8'))
    return readFragment(a.html.replace(/src="\//g, 'src="https://yard.example/'), {
      title: a.title,
      author: a.author,
      categories: a.categories,
      url: `https://yard.example/${a.slug}`,
    })
  })
  return [
    ...own,
    ...Object.entries(OTHERS).map(([title, html]) =>
      readFragment(html, { title: `About ${title}`, url: `https://texts.example/${title}` }),
    ),
  ]
}

function write(piece: PieceContent, house = PLAIN_HOUSE): WrittenPost[] {
  return writeDrip({
    piece,
    passages: findPassages(piece),
    accounts: ACCOUNTS,
    days: beatDays(RHYTHMS[0]!),
    house,
    link: piece.url,
    seed: 3,
  })
}

const drips = pieces().map((piece) => ({ piece, posts: write(piece) }))
const written = drips.flatMap(({ piece, posts }) =>
  posts.flatMap((post) => (post.wording ? [{ piece, post, text: post.wording.text }] : [])),
)

describe('the drips of the yard’s articles and of texts in other fields', () => {
  it('have a cell for every beat and account, and each that is empty says so', () => {
    for (const { piece, posts } of drips) {
      expect(posts).toHaveLength(24)
      const made = posts.filter((p) => p.wording).length
      const kept = findPassages(piece).length
      expect(made, piece.title).toBeGreaterThanOrEqual(Math.floor(kept / 2))
      expect(made, piece.title).toBeLessThanOrEqual(kept * 3 + 1)
      for (const p of posts)
        if (!p.wording) expect(p.checks[0]).toMatchObject({ code: 'too-thin', severity: 'block' })
    }
    expect(written.length).toBeGreaterThan(50)
  })

  it('stay within every limit and before every fold', () => {
    for (const { post, text } of written) {
      const profile = network(post.network)
      expect(measure(text, profile.text)).toBeLessThanOrEqual(profile.text.limit ?? Infinity)
      expect(post.checks.filter((c) => c.code === 'over-limit' || c.code === 'hook-after-fold')).toEqual([])
    }
  })

  it('say nothing that is not in the piece', () => {
    const lines = ['Link in the first comment. Link in the profile.']
    for (const { piece, text } of written)
      expect(ungrounded(text, sourceText(piece), lines), text).toEqual([])
  })

  it('are made of whole sentences: each is the piece’s, or made of one of its', () => {
    for (const { piece, text } of written)
      expect(strangeSentences(text, `${piece.title}\n${piece.text}`), text).toEqual([])
  })

  it('say where in the piece their words stand: every span begins and ends where a sentence does', () => {
    for (const { piece, post } of written)
      for (const span of post.wording?.spans ?? []) {
        const words = piece.text.slice(span.start, span.end)
        expect(words).toMatch(/^["“‘(]?[\p{Lu}\p{N}]/u)
        const whole = piece.sentences.some((s) => s.end === span.end)
        expect(whole || piece.blocks.some((b) => b.end === span.end), words).toBe(true)
      }
  })

  it('open no two captions alike, and keep an account’s captions apart', () => {
    for (const { posts } of drips) {
      const openings = posts.flatMap((p) => (p.wording ? [opening(p.wording.text)] : []))
      expect(new Set(openings).size).toBe(openings.length)
      for (const a of posts)
        for (const b of posts)
          if (a !== b && a.account === b.account && a.wording && b.wording)
            expect(likeness(a.wording.text, b.wording.text)).toBeLessThanOrEqual(LIKENESS_BOUND)
    }
  })

  it('have no leftovers, doubled marks, dangling openings or tags in the middle', () => {
    for (const { post, text } of written) {
      expect(
        post.checks.filter((c) => ['leftover', 'points-nowhere', 'unbalanced', 'too-alike'].includes(c.code)),
        text,
      ).toEqual([])
      expect(text).not.toMatch(/\.\.(?!\.)|[,;:][.,]|[?!]{2}| {2}|\n{3}/)
      expect(text).not.toMatch(/#[\w]+ [a-z]/)
    }
  })

  it('rotate the passages: no beat carries one twice', () => {
    for (const { posts } of drips)
      for (let beat = 0; beat < 8; beat++) {
        const starts = posts
          .filter((p) => p.beat === beat && p.passage && p.wording)
          .map((p) => p.passage?.start)
        expect(new Set(starts).size).toBe(starts.length)
      }
  })

  it('give every post of a network that demands one a picture, and neighbours different ones', () => {
    const shots = drips[0]!.posts.filter((p) => p.network === 'shutterleaf' && p.wording)
    for (const [i, p] of shots.entries()) {
      expect(p.picture).not.toBeNull()
      if (i) expect(p.picture).not.toEqual(shots[i - 1]?.picture)
    }
  })

  it('block a post whose network demands a picture where the piece has none', () => {
    const post = write({ ...drips[0]!.piece, images: [] }).find(
      (p) => p.network === 'shutterleaf' && p.wording,
    )
    expect(post?.checks).toContainEqual(expect.objectContaining({ code: 'no-media', severity: 'block' }))
  })

  it('are the same for the same seed', () => {
    expect(write(drips[1]!.piece)).toEqual(drips[1]!.posts)
  })

  it('never say a word of the never-say list', () => {
    const house = { ...PLAIN_HOUSE, style: { ...PLAIN_HOUSE.style, neverSay: ['oak', 'plank'] } }
    for (const { piece } of drips.slice(0, 6))
      for (const p of write(piece, house))
        if (p.wording)
          expect(p.wording.text.replace(/https?:\S+|#\S+/g, '')).not.toMatch(/\b(oak|plank)s?\b/i)
  })

  it('carry the tags that the networks’ own figures favour', () => {
    const piece = drips.find((d) => d.piece.categories.length > 2)!.piece
    const tags = (tagFigures: Record<string, Record<string, number>>): string[] =>
      writeDrip({
        piece: { ...piece, categories: ['Caulking', 'Wood'] },
        passages: findPassages(piece),
        accounts: [{ id: 'm', network: 'murmur' }],
        days: [0, 1, 2],
        house: PLAIN_HOUSE,
        link: null,
        seed: 1,
        tagFigures,
      }).flatMap((w) => w.wording?.hashtags ?? [])
    const plain = tags({ murmur: { Caulking: 9000, Wood: 0 } })
    const other = tags({ murmur: { Caulking: 0, Wood: 9000 } })
    expect(plain.filter((t) => t === 'Caulking').length).toBeGreaterThan(
      other.filter((t) => t === 'Caulking').length,
    )
  })
})
