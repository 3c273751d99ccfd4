import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { repeatsAmong, type PieceImage, type Showing } from '../model'
import { readWriting } from '../reading'
import { choosePictures, type PictureWish } from './choose'
import { likenessIn } from './likeness'

const PARTS = [
  'A choir breathes together. The singers who stand at the back hear the breath of those before them.',
  'The organ has four hundred pipes. Its bellows were sewn of sheepskin a hundred years ago.',
  'We tune the harpsichord before each concert. A tuning hammer turns the pins by a hair.',
  'The bell hangs in an oak frame. Twice a year somebody climbs up and greases its bearings.',
]
const piece = readWriting(PARTS.join('\n\n'), 'music')
const image = (name: string, change: Partial<PieceImage> = {}): PieceImage => ({
  url: `https://music.example/${name}.png`,
  alt: '',
  caption: '',
  width: 900,
  height: 600,
  block: -1,
  ...change,
})
const wish = (part: number, change: Partial<PictureWish> = {}): PictureWish => {
  const words = PARTS[part] ?? ''
  const start = piece.text.indexOf(words)
  return {
    words,
    place: { start, end: start + words.length },
    account: 'a',
    network: 'n',
    day: part,
    needed: true,
    cards: [],
    ...change,
  }
}
const choose = (images: PieceImage[], wishes: PictureWish[], shown: Showing[] = [], rest = 21) =>
  choosePictures({ ...piece, images }, wishes, shown, rest).map((c) => (c && 'image' in c ? c.image : null))

describe('the picture of a post', () => {
  it('is the one whose words are its own, wherever it stands', () => {
    const images = [
      image('bell', { alt: 'A bell in its frame of oak' }),
      image('choir', { caption: 'Singers, taking breath' }),
      image('pins', { alt: 'A hammer on the pins of a harpsichord' }),
      image('organ', { alt: 'Organ pipes' }),
    ]
    expect(
      choose(
        images,
        [0, 1, 2, 3].map((i) => wish(i)),
      ),
    ).toEqual([1, 3, 2, 0])
  })

  it('is the one beside its passage, where pictures say nothing', () => {
    const images = [3, 1, 0, 2].map((block) => image(`after-${block}`, { block }))
    expect(
      choose(
        images,
        [0, 1, 2, 3].map((i) => wish(i)),
      ),
    ).toEqual([2, 1, 3, 0])
  })

  it('goes by words in which a piece differs, not by those that are all over it', () => {
    const again = readWriting(
      PARTS.map(
        (p, i) => `${p} The music of ${['spring', 'summer', 'autumn', 'winter'][i]} is music for the hall.`,
      ).join('\n\n'),
      'music',
    )
    const like = likenessIn(again)
    const speech = { words: 'The music of winter is music for the hall.', place: null }
    const [everywhere, rare] = [image('x', { alt: 'Music in the hall' }), image('y', { alt: 'Winter' })]
    expect(like(speech, rare)).toBeGreaterThan(like(speech, everywhere))
    expect(like({ words: '', place: null }, rare)).toBe(0)
  })

  it('is likelier the nearer it stands, and by the words beside it', () => {
    const like = likenessIn(piece)
    const { place } = wish(0)
    const far = [0, 1, 3].map((block) => like({ words: '', place }, image('x', { block })))
    expect(far[0]).toBeGreaterThan(far[1] ?? 0)
    expect(far[1]).toBeGreaterThan(far[2] ?? 0)
    const speech = { words: PARTS[2] ?? '', place: null }
    expect(like(speech, image('x', { block: 2 }))).toBeGreaterThan(like(speech, image('x', { block: 0 })))
  })

  it('is one that was not used yet, where two suit it alike', () => {
    const images = [image('a', { alt: 'Organ pipes' }), image('b', { alt: 'Organ pipes' })]
    const asked = ['n', 'm', 'o', 'p'].map((network, day) => wish(1, { network, account: network, day }))
    expect(choose(images, asked)).toEqual([0, 1, 0, 1])
  })

  it('is another one where its network shows that picture within the days of rest, on whichever account', () => {
    const images = [
      image('organ', { alt: 'Organ pipes and bellows' }),
      image('bell', { alt: 'A bell in its frame' }),
    ]
    const before = (day: number, change: Partial<Showing> = {}): Showing[] => [
      { picture: images[0]?.url ?? '', account: 'other', network: 'n', day, ...change },
    ]
    expect(choose(images, [wish(1)])).toEqual([0])
    expect(choose(images, [wish(1)], before(-19))).toEqual([1])
    expect(choose(images, [wish(1)], before(21))).toEqual([1])
    expect(choose(images, [wish(1)], before(22))).toEqual([0])
    expect(choose(images, [wish(1)], before(-20))).toEqual([0])
    expect(choose(images, [wish(1)], before(0, { network: 'm' }))).toEqual([0])
    // A neighbour on the account itself keeps it away for however long it is past.
    expect(choose(images, [wish(1)], before(-90, { account: 'a' }))).toEqual([1])
  })

  it('is none that was shown under another address or painted anew, and none that cannot be fetched', () => {
    const images = [
      image('bell', { alt: 'A bell in its frame of oak' }),
      image('bell-large', { alt: 'A bell in its frame of oak, near' }),
      image('organ', { alt: 'Organ pipes' }),
    ]
    const alike = (key: string): string => key.replace('-large', '')
    const shownAs = (with_: (key: string) => string) =>
      choosePictures({ ...piece, images }, [wish(3), wish(3, { day: 5 })], [], 21, with_)
    expect(shownAs((key) => key)).not.toContainEqual({ image: 2 })
    expect(shownAs(alike)).toContainEqual({ image: 2 })

    const gone = images.map((i, at) => ({ ...i, seen: { print: null, trouble: at < 2 ? 'Gone.' : null } }))
    expect(choose(gone, [wish(3)])).toEqual([2])
    // Not even where everything else was shown a moment ago.
    expect(choose(gone, [wish(3)], [{ picture: gone[2]!.url, account: 'a', network: 'n', day: 2 }])).toEqual([
      2,
    ])
    expect(choose(gone.slice(0, 2), [wish(3)])).toEqual([null])
  })

  it('is rather another one than what a second network shows in the same week, unless it suits much better', () => {
    const alike = [image('one'), image('two')]
    const two = (apart: number) => [wish(0), wish(0, { network: 'm', account: 'b', day: apart })]
    // Both suit alike; that it was used before is told apart by what stands there already.
    const there = (day: number): Showing[] => [{ picture: alike[0]!.url, account: 'b', network: 'm', day }]
    expect(choose(alike, [wish(0)], there(6))).toEqual([1])
    expect(choose(alike, [wish(0)], there(7))).toEqual([0])
    expect(new Set(choose(alike, two(0))).size).toBe(2)
    const bell = [image('bell', { alt: 'A bell in its frame of oak', block: 3 }), image('other')]
    expect(choose(bell, [wish(3, { day: 0 })], [{ ...there(1)[0]!, picture: bell[0]!.url }])).toEqual([0])
  })

  it('comes again after the longest time, where a network takes nothing without one', () => {
    const images = [image('a'), image('b'), image('c')]
    const daily = Array.from({ length: 7 }, (_, day) => wish(0, { day, place: null }))
    expect(choose(images, daily)).toEqual([0, 1, 2, 0, 1, 2, 0])
    expect(choose(images.slice(0, 1), daily.slice(0, 2))).toEqual([0, 0])
  })

  it('is none where none is needed and none fits, and not twice so in a row', () => {
    const images = [image('a'), image('bell', { alt: 'A bell in its frame of oak' })]
    const free = [0, 1, 2, 3].map((i) => wish(i, { needed: false }))
    const [first, second, , bell] = choose(images, free, [], 1)
    expect([first, bell]).toEqual([null, 1])
    expect(second).not.toBeNull()
    expect(choose([], [wish(0)])).toEqual([null])
  })
})

const wishes = fc.array(
  fc.record({
    part: fc.nat(3),
    account: fc.constantFrom('a', 'b', 'c'),
    day: fc.nat(60),
    needed: fc.boolean(),
  }),
  { maxLength: 14 },
)
const shown = fc.array(
  fc.record({
    picture: fc.constantFrom('0', '1', '2'),
    account: fc.constantFrom('a', 'b', 'c', 'd'),
    day: fc.integer({ min: -40, max: 90 }),
  }),
  { maxLength: 6 },
)
/** Two accounts share a network. */
const networkOf = (account: string): string => (account === 'c' ? 'other' : 'shared')

describe('over random drips', () => {
  const images = [0, 1, 2, 3, 4].map((i) =>
    image(String(i), { block: i - 1, alt: PARTS[i]?.slice(0, 30) ?? '' }),
  )
  const url = (i: number): string => images[i]?.url ?? ''

  it('no picture is shown too soon again, but where one is needed and all are kept away', () => {
    fc.assert(
      fc.property(wishes, shown, fc.nat(30), (drawn, before, rest) => {
        const asked = drawn.map(({ part, account, day, needed }) =>
          wish(part, { account, network: networkOf(account), day, needed }),
        )
        const stood = before.map((s) => ({
          ...s,
          picture: url(Number(s.picture)),
          network: networkOf(s.account),
        }))
        const chosen = choose(images, asked, stood, rest)
        const all = [
          ...stood,
          ...asked.flatMap((w, i) => {
            const picture = chosen[i]
            return picture == null ? [] : [{ ...w, picture: url(picture), i }]
          }),
        ]
        /** Whether a picture would stand too near to the same one, by a reading of the rule that goes through all. */
        const tooNear = (w: PictureWish, i: number, picture: string): boolean => {
          const others = all.filter((o) => !('i' in o) || o.i !== i)
          const near = others.some(
            (o) => o.picture === picture && o.network === w.network && Math.abs(o.day - w.day) < rest,
          )
          // One account's posts in their order; on one day what stood before comes first.
          const line = others
            .filter((o) => o.account === w.account)
            .concat({ ...w, picture: 'this one', i })
            .map((o) => ({ ...o, rank: 'i' in o ? o.i : -1 }))
            .sort((x, y) => x.day - y.day || x.rank - y.rank)
          const at = line.findIndex((o) => o.picture === 'this one')
          return near || line[at - 1]?.picture === picture || line[at + 1]?.picture === picture
        }
        asked.forEach((w, i) => {
          const picture = chosen[i]
          if (picture == null) return expect(w.needed).toBe(false)
          if (!tooNear(w, i, url(picture))) return
          expect(w.needed).toBe(true)
        })
      }),
      { numRuns: 400 },
    )
  })

  it('the sheet marks nothing as shown again too soon that was chosen freely', () => {
    fc.assert(
      fc.property(wishes, shown, fc.nat(30), (drawn, before, rest) => {
        const asked = drawn.map(({ part, account, day }) =>
          wish(part, { account, network: networkOf(account), day, needed: false }),
        )
        const stood = before.map((s) => ({
          ...s,
          picture: url(Number(s.picture)),
          network: networkOf(s.account),
        }))
        const fresh = choose(images, asked, stood, rest).flatMap((picture, i) =>
          picture === null ? [] : [{ ...(asked[i] as PictureWish), picture: url(picture) }],
        )
        const marked = [...repeatsAmong([...stood, ...fresh], rest)]
        expect(marked.filter((i) => i >= stood.length)).toEqual([])
      }),
      { numRuns: 300 },
    )
  })

  it('pictures suit their posts nearly as well as in the best of all ways to choose', () => {
    const like = likenessIn(piece)
    let [found, best] = [0, 0]
    fc.assert(
      fc.property(fc.array(fc.nat(3), { minLength: 1, maxLength: 4 }), (parts) => {
        const asked = parts.map((part, day) => wish(part, { day }))
        const sum = (of: readonly (number | null)[]): number =>
          of.reduce<number>((s, p, i) => s + like(asked[i] as PictureWish, images[p ?? 0] as PieceImage), 0)
        // All ways to give each post another picture.
        const ways = (left: number): number[][] =>
          left === 0
            ? [[]]
            : ways(left - 1).flatMap((w) => images.flatMap((_, p) => (w.includes(p) ? [] : [[...w, p]])))
        found += sum(choose(images, asked))
        best += Math.max(...ways(parts.length).map(sum))
      }),
      { numRuns: 60 },
    )
    expect(found).toBeLessThanOrEqual(best + 1e-9)
    expect(found / best).toBeGreaterThan(0.97)
  })
})

describe('cards among the pictures', () => {
  const chosen = (images: PieceImage[], wishes: PictureWish[], shown: Showing[] = [], rest = 21) =>
    choosePictures({ ...piece, images }, wishes, shown, rest)
  const card = (layout: string, said: string): string => `card:${layout}:["","${said}",[],""]`

  it('come where the piece brings no picture, the best of each post', () => {
    const wishes = [0, 1].map((i) => wish(i, { cards: [card('words', `a${i}`), card('title', 't')] }))
    expect(chosen([], wishes)).toEqual([{ card: 0 }, { card: 1 }])
    // The second would stand next to a card of the same layout; with days between on another account it may.
    const apart = [wishes[0]!, { ...wishes[1]!, account: 'b' }]
    expect(chosen([], apart)).toEqual([{ card: 0 }, { card: 0 }])
  })

  it('give way to a picture that says what the post says, and come before one that says nothing of it', () => {
    const images = [image('bell', { alt: 'A bell in its frame of oak', block: 3 })]
    const asked = [
      wish(3, { cards: [card('words', 'bell')] }),
      wish(1, { day: 30, cards: [card('words', 'organ')] }),
    ]
    expect(chosen(images, asked)).toEqual([{ image: 0 }, { card: 0 }])
  })

  it('of one title do not come twice in a row, nor on two accounts of a network within its rest', () => {
    const title = card('title', 't')
    const wishes = ['a', 'b'].map((account) => wish(0, { account, cards: [title] }))
    expect(chosen([], wishes)).toEqual([{ card: 0 }, null])
    const before = [{ picture: title, account: 'a', network: 'n', day: -5 }]
    expect(chosen([], [wish(0, { cards: [title] })], before, 3)).toEqual([null])
    expect(chosen([], [wish(0, { account: 'b', cards: [title] })], before, 3)).toEqual([{ card: 0 }])
  })

  it('come where none is needed only with something to show, and after a post without a picture', () => {
    const plain = [0, 1, 2].map((i) => wish(i, { needed: false, cards: [card('words', `w${i}`)] }))
    expect(chosen([], plain)).toEqual([null, null, null])
    const telling = plain.map((w, i) => ({ ...w, cards: [card('number', `n${i}`)] }))
    expect(chosen([], telling)).toEqual([null, { card: 0 }, null])
  })

  it('never stand too near to themselves over random drips, and a post never shows another one’s card', () => {
    const layouts = fc.constantFrom('words', 'title', 'number')
    const drawn = fc.array(
      fc.record({
        part: fc.nat(3),
        account: fc.constantFrom('a', 'b'),
        day: fc.nat(60),
        needed: fc.boolean(),
        cards: fc.array(fc.tuple(layouts, fc.constantFrom('x', 'y', 'z')), { maxLength: 3 }),
      }),
      { maxLength: 9 },
    )
    fc.assert(
      fc.property(drawn, fc.nat(2), fc.nat(25), (posts, pictures, rest) => {
        const images = Array.from({ length: pictures }, (_, i) => image(`p${i}`, { block: i }))
        const asked = posts.map(({ part, cards, ...of }) =>
          wish(part, { ...of, cards: [...new Set(cards.map(([l, said]) => card(l, said)))] }),
        )
        const keys = chosen(images, asked, [], rest).map((c, i) =>
          c === null ? null : 'image' in c ? images[c.image]?.url : asked[i]?.cards[c.card],
        )
        for (const [i, key] of keys.entries()) {
          if (key === null) continue
          expect(key).toBeDefined()
          if (key?.startsWith('https:')) continue
          for (const [j, other] of keys.entries())
            if (j !== i && other === key)
              expect(Math.abs(asked[i]!.day - asked[j]!.day)).toBeGreaterThanOrEqual(rest)
        }
      }),
      { numRuns: 400 },
    )
  })
})
