import { expect, it } from 'vitest'
import { oakumYard } from '../../demo/content'
import { webvtt } from '../../world'
import type { Post, WholePiece } from '../model'
import { aBrand, anAccount, aWholePiece } from '../model/samples'
import { formatOf } from '../networks'
import { readTranscript } from '../reading'
import { makeDrip, singlePost, toPassages } from '.'

/* A film goes out whole once on an account of a network that takes it whole; then in parts. */

const [film] = oakumYard().films ?? []
const ids = () => {
  let n = 0
  return () => `id-${n++}`
}

function aFilm(): WholePiece {
  if (!film) throw new Error('There is no film.')
  const titles = ['Before the tide', 'The first hours afloat', 'Pumps and alarms', 'The second morning']
  const chapters = titles.map((title, i) => ({ at: 60 * i, title }))
  const video = {
    url: 'https://yard.example/film.webm',
    seconds: 300,
    chapters: [],
    chaptersFound: false,
    transcript: 'x',
  }
  const read = readTranscript(webvtt(film), { title: film.title, video }, chapters)
  return { ...aWholePiece(), ...read, images: [], video: { ...video, chapters } }
}

const accounts = ['longwave', 'other'].map((id) => anAccount({ id, network: 'longwave', gapMinutes: 0 }))
const piece = aFilm()
const around = {
  now: '2026-11-24T10:00:00.000Z',
  brand: aBrand(),
  piece,
  passages: toPassages(piece, ids()).map((p) => ({ ...p, choice: 'kept' as const })),
}
const drip = (standing: readonly Post[], name = 'first', year = 2026): Post[] => {
  const newId = ids()
  return makeDrip({
    ...around,
    now: `${year}-11-24T10:00:00.000Z`,
    newId: () => `${name} ${newId()}`,
    accounts,
    rhythm: { name: 'Mine', list: [0, 5, 12, 20] },
    startDay: `${year}-11-25`,
    seed: 3,
    pipeline: null,
    gate: 'everything',
    allAccounts: accounts,
    allBrands: [aBrand()],
    standing,
  }).posts
}

/** What each post of an account shows of the film, in order, and whether it gives the chapters. */
const shownBy = (posts: readonly Post[], account: string): string[] =>
  posts
    .filter((p) => p.account === account)
    .map(({ media: [m], wording }) => {
      const what =
        m?.source.from === 'film' ? (m.source.part ? 'part' : 'whole') : (m?.source.from ?? 'nothing')
      return `${what}${/^0:00 Before the tide$/m.test(wording.text) ? ' with chapters' : ''}`
    })

it('the first post of a film shows it whole with its chapters, the others parts without them', () => {
  const posts = drip([])
  for (const { id } of accounts) {
    const [first, ...rest] = shownBy(posts, id)
    expect(first).toBe('whole with chapters')
    expect(rest.length).toBeGreaterThan(0)
    // A passage of over a minute is no clip there.
    expect(rest.filter((r) => r !== 'part' && r !== 'moving')).toEqual([])
    expect(rest).toContain('part')
  }
  const parts = posts.filter((p) => p.media[0]?.source.from === 'film' && p.media[0].source.part)
  expect(new Set(parts.map(formatOf))).toEqual(new Set(['clip']))
})

it('a later drip shows it whole only where it did not stand so yet, or was set aside', () => {
  const before = drip([]).filter((p) => p.account === 'longwave')
  // Years later, so that the captions of before stand in the way of none.
  const later = drip(before, 'second', 2029)
  expect(shownBy(later, 'longwave').length).toBeGreaterThan(1)
  expect(shownBy(later, 'longwave').some((s) => s.startsWith('whole') || s.endsWith('chapters'))).toBe(false)
  expect(shownBy(later, 'other')[0]).toBe('whole with chapters')
  const aside = before.map((p) => ({ ...p, state: 'set aside' as const }))
  expect(shownBy(drip(aside, 'third', 2029), 'longwave')[0]).toBe('whole with chapters')
})

it('is called by its own title when it is whole, and its parts by their chapters', () => {
  const told = piece.video?.chapters.map((c) => c.title) ?? []
  const [first, ...rest] = drip([]).filter((p) => p.account === 'longwave')
  expect(first?.wording.title).toBe(piece.title)
  expect(rest.filter((p) => told.includes(p.wording.title ?? '')).length).toBeGreaterThan(0)
  for (const { media, wording } of rest) {
    const source = media[0]?.source
    const chapter = piece.video?.chapters.findLast(
      (c) => source?.from === 'film' && c.at <= (source.part?.start ?? 0) + 1,
    )
    if (told.includes(wording.title ?? '') && source?.from === 'film')
      expect(wording.title).toBe(chapter?.title)
  }
})

it('one more post of a passage shows the part in which it is said', () => {
  const post = singlePost({
    ...around,
    newId: ids(),
    account: anAccount({ id: 'loop', network: 'loopyard' }),
    passage: null,
    drip: null,
    beat: 0,
    wished: '2026-11-26T12:00:00.000Z',
    seed: 1,
    standing: [],
    pipeline: null,
    angle: null,
  } as Parameters<typeof singlePost>[0])
  expect(post.media[0]?.source).toMatchObject({ from: 'film', part: { filled: false } })
})
