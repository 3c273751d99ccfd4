import { danglingWords, expand, readSentences } from '../language'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ANGLES, HouseStyle, type Brief, type PieceContent } from '../model'
import { aWording } from '../model/samples'
import { graphemes, measure, network, NETWORKS } from '../networks'
import { weighPassages } from '../passages'
import { readTranscript, readWriting } from '../reading'
import { checkCaption, remedyFor, type CheckContext } from './checks'
import { CLOSINGS } from './closings'
import { briefOf, houseOf, PLAIN_HOUSE, type House } from './brief'
import { FRAMES, framesFor } from './frames'
import { likeness } from './likeness'
import { originsOf } from './origin'
import { pollsOf } from './polls'
import { threadOf } from './threads'
import { headlines } from './titles'
import { topicOf } from './topics'
import { reword, rewordSelection, WAYS } from './wordings'
import { writeDrip, type WrittenPost } from './write'

/* A field that neither the demo nor the corpus touches. */
const KITES = readWriting(
  `# Flying a kite from a hill

A kite flies on the difference between two winds. The wind at your knees is half the wind at the height of a house, and a child who runs with a kite is adding speed where there is none.

## Stand still

Stand with your back to the wind. Let a friend carry the kite forty paces downwind and hold it by the edges. Pull once, firmly, when you feel the next gust. A kite that is pulled before the gust falls on its nose, because there is nothing under it.

Many people believe that a stronger wind makes for a better day. It does not. Above seven on the scale the line cuts your hand and the spar breaks before the fun begins.

## Silk or cotton?

Silk weighs 40 grams a square metre and cotton weighs 120. Silk lifts in a wind that hardly moves a leaf, although it costs four times as much. Cotton forgives a tree.

> I have lost nine kites, and every one of them was tied with a clever knot.

My aunt flew hers from the roof of the mill for thirty years. She never ran a step. In the last summer she tied the line to the chimney and went in to lunch, and the kite stayed where it was until the evening.

## Before you go home

1. Wind the line on a flat stick, not on your hand.
2. Wipe the spar dry before it goes into the bag.
3. Hang the sail where no sun reaches it.`,
  'kites',
)

const accounts = NETWORKS.map((n) => ({ id: n.id, network: n.id }))
const write = (
  piece: PieceContent,
  house: House = PLAIN_HOUSE,
  change: Partial<Parameters<typeof writeDrip>[0]> = {},
): WrittenPost[] => {
  const found = weighPassages(piece).map((w) => w.passage)
  return writeDrip({
    piece,
    passages: found.slice(0, 4),
    spare: found.slice(4),
    accounts,
    days: [0, 7, 20, 50],
    house,
    link: 'https://hill.example/kites',
    seed: 2,
    ...change,
  })
}
const made = (posts: readonly WrittenPost[], id?: string) =>
  posts.flatMap((p) => (p.wording && (!id || p.network === id) ? [{ post: p, ...p.wording }] : []))
const house = (style: Partial<HouseStyle>, briefs: Partial<Brief>[] = []): House =>
  houseOf({
    name: 'Hill',
    houseStyle: HouseStyle.parse(style),
    briefs: briefs.map((b) => ({ ...BLANK, ...b })),
  })
const BLANK: Brief = {
  network: 'murmur',
  voice: null,
  reader: 'somebody who tries',
  length: null,
  angles: [],
  hashtags: null,
  hashtagsIn: 'text',
  emoji: 'none',
  link: null,
  closing: null,
}

describe('each network gets its own shape', () => {
  const posts = write(KITES)

  it('with the fields it has, within its limits, every sentence accounted for', () => {
    for (const { post, title, summary, tags, text } of made(posts)) {
      const profile = network(post.network)
      expect(measure(text, profile.text)).toBeLessThanOrEqual(profile.text.limit ?? Infinity)
      expect(title === null).toBe(profile.title === null)
      if (profile.title) expect(graphemes(title ?? '')).toBeLessThanOrEqual(profile.title.limit)
      if (profile.summary) expect(graphemes(summary ?? '')).toBeLessThanOrEqual(profile.summary.limit)
      if (profile.tags) expect(tags.length).toBeGreaterThan(0)
      for (const { sentence, origin } of originsOf(text, KITES))
        expect([sentence, origin]).not.toContain(null)
    }
    expect(new Set(made(posts).map((m) => m.post.network)).size).toBe(NETWORKS.length)
  })

  it('a letter is a part of the piece in Markdown, lists as lists; plates and films have titles of their own', () => {
    const letters = made(posts, 'broadside').map((m) => m.text)
    expect(letters.some((t) => /^## /m.test(t) || /^1\. /m.test(t))).toBe(true)
    for (const id of ['rackwell', 'longwave', 'broadside']) {
      const titles = made(posts, id).map((m) => m.title)
      expect(new Set(titles).size).toBe(titles.length)
    }
  })

  it('links stand where they are live, or are asked for', () => {
    for (const { post, text, firstComment } of made(posts)) {
      const { place } = network(post.network).link
      expect(/https:/.test(text)).toBe(place === 'text')
      expect(firstComment !== null).toBe(place === 'first comment')
    }
    const beside = write(
      KITES,
      house({}, [{ network: 'guildhall', hashtagsIn: 'first comment', hashtags: 2 }]),
    )
    const [tagged] = made(beside, 'guildhall')
    expect(tagged?.text).not.toMatch(/#\w/)
    expect(tagged?.firstComment).toMatch(/https:\S+\n#\w+/)
    const none = write(KITES, house({}, [{ network: 'murmur', link: 'none' }]))
    for (const { text } of made(none, 'murmur')) expect(text).not.toMatch(/https:/)
  })

  it('a film’s description carries its chapters where a player takes them', () => {
    const SAID = [
      'A kite of silk flies in a wind that would not turn a leaf.',
      'Most lines break at the knot, because a knot is where the fibres are bent.',
      'A tail steadies a kite by its drag and never by its weight.',
      'Nobody learns to land a kite before losing one in a tree.',
      'Forty metres of line are enough for anybody who has to carry it home.',
      'A spar that bends saves the sail, and a stiff one saves nothing.',
      'Wet silk is twice as heavy as dry silk and half as strong.',
      'If the line hums, the wind is stronger up there than it is on the ground.',
    ]
    const clock = (s: number): string =>
      `00:${String(Math.floor(s / 60)).padStart(2, '0')}:${String(s % 60).padStart(2, '0')}.000`
    const cues = SAID.map((text, i) => `${clock(i * 7)} --> ${clock(i * 7 + 7)}\n${text}`)
    const film = readTranscript(`WEBVTT\n\n${cues.join('\n\n')}`, { title: 'Kites of silk' })
    const at = (...marks: number[]): PieceContent => ({
      ...film,
      video: { ...film.video!, chapters: marks.map((m, i) => ({ at: m, title: `Chapter ${i + 1}` })) },
    })
    const only = { accounts: [{ id: 'longwave', network: 'longwave' }] }
    const text = (piece: PieceContent): string => made(write(piece, PLAIN_HOUSE, only))[0]?.text ?? ''
    expect(text(at(0, 20, 40))).toContain('0:00 Chapter 1\n0:20 Chapter 2\n0:40 Chapter 3')
    // Too few, too near, or not from the beginning: no player would take them.
    for (const marks of [
      [0, 20],
      [0, 4, 40],
      [5, 20, 40],
    ])
      expect(text(at(...marks))).not.toContain('Chapter 1')
  })
})

describe('the house and the brief', () => {
  it('write in their words, spelling and voice, and close with the house’s lines', () => {
    const own = 'What flies where you are?'
    const style = {
      swaps: [{ from: 'kite', to: 'paper bird', network: null }],
      spelling: 'American' as const,
      closingLines: [own],
      voice: { formality: -2, vividness: 0, warmth: 0, speaker: 'we' as const },
      credit: true,
    }
    const texts = made(write({ ...KITES, author: 'Ada Moor' }, house(style)))
    const all = texts.map((t) => t.text).join('\n')
    expect(all).toContain('paper bird')
    expect(all.replace(/https:\S+|#\S+/g, '')).not.toMatch(/\bkites?\b/i)
    expect(all).not.toMatch(/\b(?:does|do) not\b/)
    expect(all).toContain(own)
    expect(all).toContain('By Ada Moor.')
    for (const { summary } of texts) expect(summary ?? '').not.toMatch(/\bkites?\b/i)
  })

  it('keep to the angles, the length and the tags of the brief', () => {
    const brief = {
      network: 'murmur',
      angles: ['how-to' as const],
      length: { least: 40, most: 150 },
      hashtags: 3,
    }
    const texts = made(write(KITES, house({}, [brief])), 'murmur')
    expect(texts.length).toBeGreaterThan(0)
    for (const t of texts) {
      expect(t.angle).toBe('how-to')
      expect(measure(t.text, network('murmur').text)).toBeLessThanOrEqual(150)
    }
    expect(briefOf(network('murmur'), house({}, [brief])).hashtags).toBe(3)
  })

  it('put marks where a brief asks for them, never for a formal voice', () => {
    const emoji = {
      network: 'hearthside',
      emoji: 'where it helps' as const,
      angles: ['checklist' as const, 'how-to' as const],
    }
    const list = readWriting(
      '# Before you sail\n\nTake with you:\n\n- Water for two days at the least.\n- A rope of forty metres.\n- The chart, dry.',
      'x',
    )
    const only = { accounts: [{ id: 'hearthside', network: 'hearthside' }] }
    const marks = (style: Partial<HouseStyle>): string =>
      made(write(list, house(style, [emoji]), only))
        .map((m) => m.text)
        .join('')
    expect(marks({})).toContain('✅')
    expect(marks({ voice: { formality: 2, vividness: 0, warmth: 0, speaker: 'nobody' } })).not.toContain('✅')
  })
})

describe('the library', () => {
  it('has at least twelve openers and twelve closings an angle, and each is right in its grammar', () => {
    for (const angle of ANGLES) {
      expect([angle, FRAMES[angle].length >= 12]).toEqual([angle, true])
      expect([angle, new Set(CLOSINGS[angle].map((c) => c.text)).size >= 12]).toEqual([angle, true])
      for (const { text } of FRAMES[angle]) expect(text).toMatch(/^(?:\{|\p{Lu})[^.!?]*:$/u)
      for (const { text } of CLOSINGS[angle]) expect(text).toMatch(/^\p{Lu}.*\?$/u)
    }
  })

  it('offers a frame only where its slot can be filled, and what follows suits it', () => {
    const nothing = { label: null, noun: null, field: null, doing: null, lemmas: new Set<string>() }
    const voice = PLAIN_HOUSE.style.voice
    for (const angle of ANGLES)
      for (const { text } of framesFor(angle, nothing, voice, 'order', new Set()))
        expect(text).not.toMatch(/[{}]/)
    const topic = topicOf(KITES)
    expect(topic).toMatchObject({ doing: 'flying a kite', label: 'Flying a kite from a hill' })
    const orders = framesFor('how-to', topic, voice, 'order', new Set()).map((f) => f.text)
    expect(orders).toContain('When flying a kite:')
    expect(framesFor('how-to', topic, voice, 'event', new Set()).map((f) => f.text)).not.toContain(
      'When flying a kite:',
    )
    expect(
      framesFor('how-to', topic, { ...voice, speaker: 'we' }, 'order', new Set()).map((f) => f.text),
    ).toContain('Our advice:')
  })

  it.each([
    ['What to do with a sprained ankle', 'a sprained ankle', null],
    ['How to caulk a seam', 'a seam', 'caulking a seam'],
    ['Your deposit and how to get it back', null, null],
    ['Write the label for the person with a child', null, null],
    ['What we learned from losing nine hours of orders', null, null],
    ['Choosing larch or oak', null, 'choosing larch or oak'],
    ['Ten questions about tomatoes', 'tomatoes', null],
  ])('calls “%s” %s and %s', (title, noun, doing) => {
    expect(topicOf({ ...KITES, title })).toMatchObject({ noun, doing })
  })

  it('comes again neither in a drip nor among the last thirty on a network', () => {
    const first = made(write(KITES))
    const frames = first.flatMap((w) => (w.frame && w.frame !== 'asked' ? [w.frame] : []))
    expect(new Set(frames).size).toBe(frames.length)
    const closings = first.flatMap((w) => w.closing ?? [])
    expect(new Set(closings).size).toBe(closings.length)
    const earlier = first.map((w) => ({
      account: 'other',
      network: w.post.network,
      text: 'Another text altogether.',
      frame: w.frame,
      closing: w.closing,
    }))
    for (const w of made(write(KITES, PLAIN_HOUSE, { earlier }))) {
      const before = earlier.filter((e) => e.network === w.post.network)
      if (w.frame && w.frame !== 'asked') expect(before.map((e) => e.frame)).not.toContain(w.frame)
      if (w.closing) expect(before.map((e) => e.closing)).not.toContain(w.closing)
    }
  })
})

describe('threads and polls', () => {
  it('a thread’s every part stands alone and fits', () => {
    const profile = network('murmur')
    const threads = weighPassages(KITES)
      .map((w) => w.passage)
      .flatMap((p) => threadOf(KITES, p, profile, briefOf(profile), 'https://hill.example/kites') ?? [])
    expect(threads.length).toBeGreaterThan(0)
    for (const { parts } of threads) {
      expect(parts.length).toBeGreaterThanOrEqual(3)
      expect(parts.at(-1)).toContain('https://hill.example/kites')
      for (const part of parts) {
        expect(measure(part, profile.text)).toBeLessThanOrEqual(300)
        const said = part.replace(/https:\S+|^\d+\. |^[^:\n]+:\n\d+\. /g, '')
        const [first] = readSentences(said)
        expect([part, danglingWords(first?.tokens ?? [], said.slice(first?.start, first?.end))]).toEqual([
          part,
          null,
        ])
      }
    }
  })

  it('threads and polls follow the house: its words, its link tags, its never-say list', () => {
    const found = weighPassages(KITES).map((w) => w.passage)
    const forms = (style: Partial<HouseStyle>) =>
      found
        .flatMap((passage) =>
          (['as a thread', 'as a poll'] as const).flatMap((way) =>
            reword({
              piece: KITES,
              passages: found,
              spare: [],
              house: house(style),
              link: 'https://hill.example/kites',
              seed: 1,
              account: { id: 'murmur', network: 'murmur' },
              current: aWording(),
              passage,
              way,
            }),
          ),
        )
        .map(({ wording }) => wording)
    const tagged = forms({
      linkTags: [{ name: 'utm_source', value: '{network}' }],
      swaps: [{ from: 'silk', to: 'nylon', network: null }],
    })
    expect(tagged.length).toBeGreaterThan(1)
    for (const w of tagged) {
      expect([w.text, ...w.parts].join(' ')).toContain('kites?utm_source=murmur')
      expect([w.text, ...w.parts, ...w.poll].join(' ')).not.toMatch(/\bsilk\b/i)
    }
    for (const w of forms({ neverSay: ['silk'] }))
      expect([w.text, ...w.parts].join(' ')).not.toMatch(/\bsilk\b/i)
  })

  it('polls are alternatives that the piece puts itself, on networks that have them', () => {
    expect(pollsOf(KITES, network('murmur')).map((p) => [p.question, p.answers])).toEqual([
      ['Silk or cotton?', ['Silk', 'Cotton']],
    ])
    expect(pollsOf(KITES, network('shutterleaf'))).toEqual([])
    const advice = { ...KITES, title: 'Eat before you board, or very late', blocks: [], sentences: [] }
    expect(pollsOf(advice, network('murmur'))).toEqual([])
  })
})

describe('headlines', () => {
  it('are the piece’s, unlike each other, and stand alone', () => {
    const found = headlines(KITES)
    expect(found[0]).toMatchObject({ text: 'Flying a kite from a hill', why: 'its title' })
    expect(found.length).toBeGreaterThan(3)
    expect(found.length).toBeLessThanOrEqual(10)
    expect(new Set(found.map((h) => h.text.toLowerCase())).size).toBe(found.length)
    for (const h of found) {
      expect(h.text).not.toMatch(/\.$/)
      if (h.why === 'a sentence') expect(KITES.text).toContain(h.text)
    }
  })
})

describe('other wordings', () => {
  const found = weighPassages(KITES).map((w) => w.passage)
  const post = write(KITES).find((p) => p.network === 'murmur' && p.wording && p.beat === 1)!
  const ask = (way: (typeof WAYS)[number], change = {}) =>
    reword({
      piece: KITES,
      passages: found.slice(0, 4),
      spare: found.slice(4),
      house: PLAIN_HOUSE,
      link: 'https://hill.example/kites',
      seed: 1,
      account: { id: 'murmur', network: 'murmur' },
      current: post.wording!,
      passage: post.passage,
      way,
      ...change,
    })
  const size = (text: string): number => measure(text, network('murmur').text)

  it.each(WAYS)('%s: differ from what there is, keep to the piece, and are what was asked', (way) => {
    const current = post.wording!
    for (const { wording, passage } of ask(way)) {
      expect(wording.text).not.toBe(current.text)
      for (const text of [wording.text, ...wording.parts])
        expect(originsOf(expand(text), KITES).filter((o) => o.origin === null)).toEqual([])
      if (way === 'shorter') expect(size(wording.text)).toBeLessThan(size(current.text))
      if (way === 'longer') expect(size(wording.text)).toBeGreaterThan(size(current.text))
      if (way === 'as a question') expect(wording.text.split(/(?<=[.!?]) /)[0]).toContain('?')
      if (way === 'another angle') expect(wording.angle).not.toBe(current.angle)
      if (way === 'another passage') expect(passage.start).not.toBe(post.passage?.start)
      if (way === 'as a poll') expect(wording.poll.length).toBeGreaterThan(1)
    }
  })

  it('there is another passage, another angle and a poll of this piece', () => {
    for (const way of ['another passage', 'another angle', 'as a poll'] as const)
      expect(ask(way).length).toBeGreaterThan(0)
    const story = ask('another angle', { to: 'myth' })
    expect(story.every((w) => w.wording.angle === 'myth')).toBe(true)
  })

  it('change a selection by grammar alone', () => {
    expect(rewordSelection('The cloth keeps the bread soft, because steam cannot leave.', 'shorter')).toEqual(
      ['The cloth keeps the bread soft.'],
    )
    expect(rewordSelection('Stand with your back to the wind.', 'as a question')).toEqual([
      'Do you stand with your back to the wind?',
    ])
    expect(rewordSelection('Do not run.', 'warmer')).toEqual(['Don’t run.'])
    expect(rewordSelection('Silk lifts.', 'as a question')).toEqual([])
    expect(rewordSelection('', 'shorter')).toEqual([])
  })
})

describe('remedies', () => {
  const context: CheckContext = {
    profile: network('murmur'),
    house: PLAIN_HOUSE,
    source: KITES.text,
    pictures: 0,
    others: [],
  }
  const mend = (text: string, code: string, change: Partial<CheckContext> = {}): string | null => {
    const all = { ...context, ...change }
    const check = checkCaption(text, all).find((c) => c.code === code)
    expect(check?.remedy, code).toBeTruthy()
    return remedyFor(check!, text, all.profile)
  }

  it.each([
    ['A kite flies. #A #B #C', 'many-hashtags', 'A kite flies. #A #B'],
    ['A kite flies!! On wind!', 'shouting', 'A kite flies! On wind.'],
    ['A kite {{name}} flies.', 'leftover', 'A kite flies.'],
    ['A kite flies., on wind.', 'doubled-marks', null],
    ['A kite flies 🪁🪁🪁', 'many-emoji', 'A kite flies'],
  ])('%s (%s)', (text, code, mended) => {
    if (mended !== null) expect(mend(text, code)).toBe(mended)
  })

  it('take whole sentences from the end of what is too long, and keep link and tags', () => {
    const text = `${'A kite flies on the difference between two winds. '.repeat(8)}https://hill.example/kites #Kites`
    const short = mend(text, 'over-limit') ?? ''
    expect(measure(short, context.profile.text)).toBeLessThanOrEqual(300)
    expect(short).toMatch(/winds\. https:\/\/hill\.example\/kites #Kites$/)
  })

  it('take a link out of a text where it is not live', () => {
    expect(
      mend('A kite flies. https://hill.example/kites', 'link-not-live', {
        profile: network('shutterleaf'),
        pictures: 1,
      }),
    ).toBe('A kite flies.')
  })

  it('leave nothing of what they mended, whatever is typed', () => {
    const bits = fc.array(
      fc.constantFrom(
        'A kite flies.',
        '!!',
        '#Kite',
        '#Silk',
        '{{x}}',
        '..',
        ' ,',
        '🪁',
        '\n',
        'Silk lifts',
        '**',
        'https://hill.example/a',
      ),
      { maxLength: 14 },
    )
    fc.assert(
      fc.property(bits, (list) => {
        const text = list.join(' ')
        for (const check of checkCaption(text, context).filter((c) => c.remedy)) {
          const mended = remedyFor(check, text, context.profile)
          if (mended === null) continue
          const same = checkCaption(mended, context).filter(
            (c) => c.code === check.code && c.words === check.words,
          )
          const before = checkCaption(text, context).filter(
            (c) => c.code === check.code && c.words === check.words,
          )
          expect(same.length).toBeLessThanOrEqual(before.length)
          expect(mended.trim()).not.toBe('')
        }
      }),
      { numRuns: 80 },
    )
  })

  it.each([
    ['a title is missing', { profile: network('rackwell'), pictures: 1, beside: { title: '' } }, 'no-title'],
    [
      'a title is too long',
      { profile: network('rackwell'), pictures: 1, beside: { title: 'x'.repeat(101) } },
      'title-too-long',
    ],
    ['a clip is missing', { profile: network('loopyard') }, 'no-media'],
    [
      'a link is missing where one is wanted',
      { profile: network('rackwell'), pictures: 1, link: null },
      'no-link',
    ],
    ['a part is too long', { beside: { parts: ['x'.repeat(301)] } }, 'over-limit'],
    ['the format is unknown', { beside: { format: 'letter' } }, 'no-such-format'],
    ['a poll has one answer', { beside: { poll: ['Silk'] } }, 'poll'],
  ])('blocks where %s', (_, change, code) => {
    expect(checkCaption('A kite flies.', { ...context, ...change })).toContainEqual(
      expect.objectContaining({ code, severity: 'block' }),
    )
  })

  it('notes what has no alternative text, and what is hard to read', () => {
    expect(checkCaption('A kite flies.', { ...context, alts: [''] }).map((c) => c.code)).toContain('no-alt')
    const hard =
      'Aerodynamic considerations notwithstanding, meteorological predictability necessitates comprehensive preparation.'
    expect(checkCaption(hard, { ...context, source: hard }).map((c) => c.code)).toContain('hard-to-read')
  })

  it('a long-past year is history where one knows when it was written', () => {
    const text = 'A kite of 2019 flies.'
    const codes = (writtenAt: string | null) =>
      checkCaption(text, { ...context, source: text, writtenAt }).map((c) => c.code)
    expect(codes('2026-03-01T00:00:00Z')).not.toContain('ages')
  })
})

it('the same thought for two networks is shaped twice, and opens twice', () => {
  const posts = made(write(KITES))
  for (const [i, a] of posts.entries())
    for (const b of posts.slice(i + 1))
      if (a.post.network !== b.post.network && a.post.passage?.start === b.post.passage?.start)
        expect([a.text === b.text, likeness(a.text, b.text) < 1 || a.title !== b.title]).toEqual([
          false,
          true,
        ])
  expect(aWording().parts).toEqual([])
})
