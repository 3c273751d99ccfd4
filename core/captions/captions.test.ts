import { readFileSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readArticle } from '../../demo/content'
import type { PieceContent } from '../model'
import { measure, network } from '../networks'
import { weighPassages } from '../passages'
import { beatDays, RHYTHMS } from '../planning'
import { readFragment } from '../reading'
import {
  checkCaption,
  likeness,
  LIKENESS_BOUND,
  opening,
  PLAIN_HOUSE,
  sourceText,
  writeDrip,
  type WrittenPost,
} from '.'
import { briefOf } from './brief'
import { ASKED, compose } from './compose'
import { frameWords } from './library'
import { originsOf } from './origin'
import { ungrounded } from './grounding'
import { camelCase, hashtagsFor } from './hashtags'

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
  const found = weighPassages(piece).map((w) => w.passage)
  const days = beatDays(RHYTHMS[0]!)
  return writeDrip({
    piece,
    passages: found.slice(0, days.length),
    spare: found.slice(days.length),
    accounts: ACCOUNTS,
    days,
    house,
    link: piece.url,
    seed: 3,
  })
}

const drips = pieces().map((piece) => ({ piece, posts: write(piece) }))
const written = drips.flatMap(({ piece, posts }) =>
  posts.flatMap((post) => (post.wording ? [{ piece, post, text: post.wording.text }] : [])),
)

describe('writeDrip', () => {
  it('fills the sheet of every article of the yard, and says so where a short text is too thin', () => {
    for (const { piece, posts } of drips) {
      expect(posts).toHaveLength(24)
      const made = posts.filter((p) => p.wording).length
      if (piece.words > 600) expect(made, piece.title).toBeGreaterThanOrEqual(18)
      for (const p of posts)
        if (!p.wording) expect(p.checks[0]).toMatchObject({ code: 'too-thin', severity: 'block' })
    }
  })

  it('stays within every limit and before every fold', () => {
    for (const { post, text } of written) {
      const profile = network(post.network)
      expect(measure(text, profile.text)).toBeLessThanOrEqual(profile.text.limit ?? Infinity)
      expect(post.checks.filter((c) => c.code === 'over-limit' || c.code === 'hook-after-fold')).toEqual([])
    }
  })

  it('says nothing that is not in the piece, nor in the library', () => {
    for (const { piece, text } of written)
      expect(ungrounded(text, sourceText(piece), [frameWords()]), text).toEqual([])
  })

  it('is made of whole sentences: each is the piece’s, one reworded by grammar, or the library’s', () => {
    for (const { piece, text } of written)
      for (const { sentence, origin } of originsOf(text, piece))
        expect([sentence, origin]).not.toContain(null)
  })

  it('says where in the piece its words stand: every span begins and ends where a sentence does', () => {
    for (const { piece, post } of written)
      for (const span of post.wording?.spans ?? []) {
        const words = piece.text.slice(span.start, span.end)
        expect(words).toMatch(/^["“‘(]?[\p{Lu}\p{N}]/u)
        const whole = piece.sentences.some((s) => s.end === span.end)
        expect(whole || piece.blocks.some((b) => b.end === span.end), words).toBe(true)
      }
  })

  it('opens no two captions of a drip alike, and keeps an account’s captions apart', () => {
    for (const { posts } of drips) {
      const openings = posts.flatMap((p) => (p.wording ? [opening(p.wording.text)] : []))
      expect(new Set(openings).size).toBe(openings.length)
      for (const a of posts)
        for (const b of posts)
          if (a !== b && a.account === b.account && a.wording && b.wording)
            expect(likeness(a.wording.text, b.wording.text)).toBeLessThanOrEqual(LIKENESS_BOUND)
    }
  })

  it('opens at most a third with words that are not the piece’s, and never twice with the same', () => {
    for (const { posts } of drips) {
      const made = posts.flatMap((p) => p.wording ?? [])
      const frames = made.flatMap((w) => w.frame ?? [])
      expect(frames.length * 3).toBeLessThanOrEqual(made.length + 3)
      const library = frames.filter((f) => f !== ASKED)
      expect(new Set(library).size).toBe(library.length)
      for (const wording of made.filter((w) => w.frame === null)) {
        const [first] = originsOf(wording.text, drips.find((d) => d.posts === posts)?.piece as PieceContent)
        expect(['the library', 'the house']).not.toContain(first?.origin)
      }
    }
  })

  it('has no leftovers, doubled marks, dangling openings or tags in the middle', () => {
    for (const { post, text } of written) {
      expect(
        post.checks.filter((c) => ['leftover', 'points-nowhere', 'unbalanced', 'too-alike'].includes(c.code)),
        text,
      ).toEqual([])
      expect(text).not.toMatch(/\.\.(?!\.)|[,;:][.,]|[?!]{2}| {2}|\n{3}/)
      expect(text).not.toMatch(/#[\w]+ [a-z]/)
    }
  })

  it('rotates the passages: no beat carries one twice', () => {
    for (const { posts } of drips)
      for (let beat = 0; beat < 8; beat++) {
        const starts = posts
          .filter((p) => p.beat === beat && p.passage && p.wording)
          .map((p) => p.passage?.start)
        expect(new Set(starts).size).toBe(starts.length)
      }
  })

  it('gives every post of a network that demands one a picture, and neighbours different ones', () => {
    const shots = drips[0]!.posts.filter((p) => p.network === 'shutterleaf' && p.wording)
    for (const [i, p] of shots.entries()) {
      expect(p.picture).not.toBeNull()
      if (i) expect(p.picture).not.toBe(shots[i - 1]?.picture)
    }
  })

  it('blocks a post whose network demands a picture where the piece has none', () => {
    const post = drips
      .find((d) => d.piece.images.length === 0)!
      .posts.find((p) => p.network === 'shutterleaf' && p.wording)
    expect(post?.checks).toContainEqual(expect.objectContaining({ code: 'no-media', severity: 'block' }))
  })

  it('is the same for the same seed', () => {
    expect(write(drips[1]!.piece)).toEqual(drips[1]!.posts)
  })

  it('never writes a word of the never-say list', () => {
    const house = { ...PLAIN_HOUSE, style: { ...PLAIN_HOUSE.style, neverSay: ['oak', 'plank'] } }
    for (const p of write(drips[0]!.piece, house))
      if (p.wording) expect(p.wording.text.replace(/https?:\S+|#\S+/g, '')).not.toMatch(/\b(oak|plank)s?\b/i)
  })
})

describe('checks', () => {
  const context = {
    profile: network('murmur'),
    house: PLAIN_HOUSE,
    source: 'Green oak bends at 96 °C. “Say it aloud,” said Rita. It takes twenty seconds.',
    pictures: 0,
    others: [],
  }
  const codes = (text: string, change = {}): string[] =>
    checkCaption(text, { ...context, ...change }).map((c) => c.code)

  it.each([
    ['Green oak bends at 140 °C.', 'not-grounded'],
    ['Green oak bends, says Marta Lind.', 'not-grounded'],
    ['As they say, “oak is for kings”.', 'not-grounded'],
    ['Green oak bends better this year.', 'ages'],
    ['It takes twenty seconds.', 'points-nowhere'],
    ['“Say it aloud, said Rita.', 'unbalanced'],
    ['Green oak bends. {{link}}', 'leftover'],
    ['Green oak bends!!', 'shouting'],
    ['Green oak bends. #a #b #c', 'many-hashtags'],
    ['Green oak bends. #a #b #c #d #e #f', 'too-many-hashtags'],
    ['  ', 'empty'],
  ])('%s → %s', (text, code) => {
    expect(codes(text)).toContain(code)
  })

  it('finds nothing in an honest caption, with numbers as words or figures', () => {
    expect(
      codes(
        'Green oak bends at 96 °C. Rita says: “Say it aloud”. That takes 20 seconds. https://a.example/x #Oak',
      ),
    ).toEqual([])
  })

  it('blocks the never-say list by word, with common endings, not inside other words', () => {
    const house = { ...PLAIN_HOUSE, style: { ...PLAIN_HOUSE.style, neverSay: ['hack'] } }
    expect(codes('Five hacks for oak.', { house })).toContain('never-say')
    expect(codes('Hackney carriages are oak.', { house })).not.toContain('never-say')
  })

  it('blocks the same words on a sibling and flags what is too alike', () => {
    const text = 'Green oak bends when it is hot and wet through.'
    const same = codes(text, { others: [{ text: `${text} #Oak`, sibling: true }] })
    expect(same).toContain('same-words')
    expect(same).not.toContain('too-alike')
    const near = codes(text, { others: [{ text: `${text} Always.`, sibling: true }] })
    expect(near).toContain('too-alike')
    expect(near).not.toContain('same-words')
    expect(codes(text, { others: [{ text: 'Larch is another matter.', sibling: true }] })).not.toContain(
      'too-alike',
    )
  })

  it('never throws and always finds what is over the limit, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 400 }), (text) => {
        const found = checkCaption(text, context)
        expect(found.some((c) => c.code === 'over-limit')).toBe(measure(text, context.profile.text) > 300)
      }),
      { numRuns: 60 },
    )
  })
})

describe('fitting', () => {
  it('never cuts inside a sentence and never exceeds the band', () => {
    const sentence = fc.integer({ min: 2, max: 30 }).map((n) => `${'Oak '.repeat(n).trim()}.`)
    fc.assert(
      fc.property(
        fc.array(sentence, { minLength: 1, maxLength: 6 }),
        fc.array(fc.constantFrom('Oak', 'SteamBox', 'GreenTimber', 'Ribband'), { maxLength: 6 }),
        fc.constantFrom('murmur', 'guildhall', 'shutterleaf'),
        (sentences, hashtags, id) => {
          const profile = network(id)
          const made = compose(
            {
              angle: 'lesson',
              paragraphs: [sentences.join(' ')],
              spans: [],
              framed: false,
              known: false,
              heading: null,
              opens: 'statement',
              lemmas: new Set(),
            },
            profile,
            briefOf(profile),
            {
              piece: { title: 'A piece', author: null, video: null },
              link: 'https://a.example/piece',
              hashtags,
              phrases: [],
              closing: null,
              opener: null,
              title: null,
              credit: false,
              house: (text) => text,
            },
          )
          if (!made) return
          expect(made.text.startsWith(sentences.join(' '))).toBe(true)
          expect(measure(made.text, profile.text)).toBeLessThanOrEqual(
            Math.min(profile.text.limit ?? Infinity, briefOf(profile).length.most),
          )
          expect(made.hashtags.length).toBeLessThanOrEqual(profile.hashtags.most)
        },
      ),
    )
  })

  it('puts the link where the network makes it useful', () => {
    const [mu, gu, sh] = ['murmur', 'guildhall', 'shutterleaf'].map((n) =>
      written.find((w) => w.post.network === n && w.piece.url),
    )
    expect(mu?.text).toContain('https://')
    expect(gu?.text).not.toContain('https://')
    expect(gu?.post.wording?.firstComment).toContain('https://')
    expect(sh?.text).toContain('Link in the profile.')
  })
})

it('makes hashtags in CamelCase, standing ones first, none twice', () => {
  expect(camelCase('winter lay-up')).toBe('WinterLayUp')
  const tags = hashtagsFor(drips[0]!.piece, ['OakumYard'])
  expect(tags[0]).toBe('OakumYard')
  expect(new Set(tags.map((t) => t.toLowerCase())).size).toBe(tags.length)
})

describe('hashtags with the networks’ own figures', () => {
  const { piece } = drips[0]!
  const plain = hashtagsFor(piece, [])

  it('rank what is used before what nobody finds, without leaving the piece', () => {
    const [first, second, third] = plain
    const figures = { [first!]: 0, [second!]: 4000, [third!]: 0 }
    const ranked = hashtagsFor(piece, [], figures)
    expect(ranked[0]).toBe(second)
    expect(new Set(ranked)).toEqual(new Set(plain))
  })

  it('leave a crowded tag behind one that is well used, and the house’s own before all', () => {
    const [first, second] = plain
    const figures = { [first!]: 90_000_000, [second!]: 9000, OakumYard: 0 }
    expect(hashtagsFor(piece, ['OakumYard'], figures).slice(0, 2)).toEqual(['OakumYard', second])
  })

  it('decide which tags a caption carries', () => {
    expect(tagsIn({})).toContain('Seam')
    const told = tagsIn({ murmur: { Seam: 0, Cotton: 9999 } })
    expect(told).toContain('Cotton')
    expect(told).not.toContain('Seam')
  })

  function tagsIn(tagFigures: Record<string, Record<string, number>>): string[] {
    const found = weighPassages(piece).map((w) => w.passage)
    return writeDrip({
      piece,
      passages: found.slice(0, 5),
      spare: found.slice(5),
      accounts: [{ id: 'm', network: 'murmur' }],
      days: [0, 1, 2, 3, 4],
      house: PLAIN_HOUSE,
      link: null,
      seed: 1,
      tagFigures,
    }).flatMap((w) => w.wording?.hashtags ?? [])
  }
})

it('a link whose page is gone is flagged, with the address', () => {
  const context = {
    profile: network('murmur'),
    house: PLAIN_HOUSE,
    source: 'A seam wants two strands of cotton.',
    pictures: 0,
    others: [],
    link: 'https://yard.example/gone',
  }
  const said = (linkTrouble: string | null) =>
    checkCaption('A seam wants two strands of cotton.', { ...context, linkTrouble }).find(
      (c) => c.code === 'link-broken',
    )
  expect(said(null)).toBeUndefined()
  expect(said('There is nothing at this address.')).toMatchObject({
    severity: 'flag',
    words: 'https://yard.example/gone',
  })
})
