import { describe, expect, it } from 'vitest'
import type { FeedItem } from '../feeds'
import { aSheetRow, aWholePiece } from '../model/samples'
import { readFragment, blockPrints } from '../reading'
import { quotable, type Passage, type PieceContent, type WholePiece } from '../model'
import {
  carriesFullText,
  finishPiece,
  itemPrint,
  relocate,
  revisePiece,
  takePiece,
  takeRow,
  withTranscript,
} from '.'

const now = '2026-11-24T10:00:00.000Z'
const owner = { id: 'piece', brand: 'brand', source: 'source', now }
const NOTHING = { page: null, transcript: null, chapters: null }
const counter = () => {
  let n = 0
  return () => `id-${n++}`
}
const item = (change: Partial<FeedItem> = {}): FeedItem => ({
  title: 'Paying a seam',
  url: 'https://www.yard.example/films/paying?utm_source=feed',
  id: 'paying',
  publishedAt: now,
  author: 'Rita Vance',
  categories: ['seams'],
  summary: 'A seam in six minutes.',
  html: '<p>In this film we pay a seam.</p>',
  images: [],
  language: null,
  base: null,
  video: null,
  counts: { views: 7 },
  place: null,
  fields: {},
  ...change,
})
const film = (change: Partial<NonNullable<FeedItem['video']>> = {}): FeedItem =>
  item({
    video: {
      url: 'https://yard.example/paying.mp4',
      type: 'video/mp4',
      seconds: 60,
      chapters: [],
      chaptersUrl: null,
      transcripts: [],
      ...change,
    },
  })
const VTT = `WEBVTT

00:01.000 --> 00:08.000
Um, a seam wants two strands of cotton, and no more than two.

00:09.000 --> 00:16.000
Paint goes in on the same day, because bare cotton drinks the river.`
const transcript = { text: VTT, url: 'https://yard.example/paying.vtt' }

describe('a film', () => {
  it('is read from its transcript, with its own chapters or those of the file its feed names', () => {
    const chapters = {
      text: '{"version":"1.2.0","chapters":[{"startTime":0,"title":"Cotton"},{"startTime":9,"title":"Paying"}]}',
      url: 'https://yard.example/c.json',
    }
    const piece = takePiece(film({ chaptersUrl: chapters.url }), { ...NOTHING, transcript, chapters }, owner)
    expect(piece).toMatchObject({
      kind: 'video',
      trouble: null,
      counts: { views: 7 },
      address: 'yard.example/films/paying',
      video: {
        seconds: 60,
        transcript: transcript.url,
        chapters: [
          { at: 0, title: 'Cotton' },
          { at: 9, title: 'Paying' },
        ],
        chaptersFound: false,
      },
    })
    expect(piece.sentences.map((s) => s.from)).toEqual([1, 9])
    expect(carriesFullText(film())).toBe(true)
  })

  it('without one shows its description, quotes nothing of it, and says what is missing', () => {
    const piece = takePiece(film(), NOTHING, owner)
    expect(piece.trouble).toMatch(/no transcript yet.*Drop a WebVTT/)
    expect(piece.text).toBe('In this film we pay a seam.')
    expect(quotable(piece)).toBe('')
    expect(finishPiece(piece, [], now, counter()).passages).toEqual([])
  })

  it('is given its words later, which become its next revision', () => {
    const before = takePiece(film(), NOTHING, owner)
    const { piece, passages } = revisePiece(before, [], withTranscript(before, VTT), {
      others: [],
      now,
      newId: counter(),
    })
    expect(piece).toMatchObject({
      revision: 2,
      trouble: null,
      url: before.url,
      video: { transcript: 'dropped' },
    })
    expect(passages.length).toBeGreaterThan(0)
    expect(() => withTranscript(before, 'no times')).toThrow(/no timed lines/)
  })
})

describe('a row of a content sheet', () => {
  it('goes before what its page says, and keeps its notes and other columns', () => {
    const page = {
      text: '<html><head><title>Page title</title></head><body><article><p>Oak is heavy. Larch is cheap, and it lasts.</p></article></body></html>',
      url: 'https://yard.example/oak?ref=x',
    }
    const row = aSheetRow({
      address: 'https://yard.example/oak',
      title: 'Ours',
      categories: ['wood'],
      notes: 'Ask Tomas.',
      fields: { Season: 'winter' },
    })
    expect(takeRow(row, page, owner)).toMatchObject({
      title: 'Ours',
      url: row.address,
      categories: ['wood'],
      notes: 'Ask Tomas.',
      fields: { Season: 'winter' },
      itemId: row.address,
    })
    expect(takeRow({ ...row, title: '' }, page, owner).title).toBe('Page title')
  })
})

it('an item’s print follows what its feed says, not its address or its counts', () => {
  const print = itemPrint(item())
  expect(itemPrint(item({ url: 'https://other.example/', counts: { views: 8 } }))).toBe(print)
  expect(itemPrint(item({ html: '<p>In this film we pay two seams.</p>' }))).not.toBe(print)
  expect(itemPrint(item({ title: 'Paying it' }))).not.toBe(print)
})

const SENTENCES = [
  'A plank takes the shape of the frame that holds it, and keeps it.',
  'Nobody ever regretted a second coat of varnish.',
  'A seam that is caulked too hard opens the plank beside it.',
  'Most boats rot from the inside, where nobody looks.',
]
const content = (sentences: readonly string[]): PieceContent =>
  readFragment(sentences.map((s) => `<p>${s}</p>`).join(''), {
    title: 'A seam',
    url: 'https://yard.example/seam',
  })
const taken = (sentences: readonly string[]) =>
  finishPiece(aWholePiece(content(sentences)), [], now, counter())

describe('finishing a piece', () => {
  it('leaves what repeats elsewhere, and what ages, out of the kept passages', () => {
    const house = 'Bread, letters and a bed are all that we sell at any of the twelve huts.'
    const others = [1, 2].map((n) => new Set(blockPrints(content([`Page ${n} is about fog.`, house]))))
    const whole = aWholePiece(
      content([...SENTENCES, house, 'A boat that nobody painted this year is a boat that nobody loves.']),
    )
    const { piece, passages, sketch } = finishPiece(whole, others, now, counter())
    expect(passages.some((p) => p.text.includes('all that we sell'))).toBe(false)
    const ageing = passages.find((p) => p.text.includes('this year'))
    expect(ageing?.choice).toBe('spare')
    expect(ageing?.reasons.join()).toMatch(/ages: “this year”/)
    expect(piece.keeps.phrases.length).toBeGreaterThan(0)
    expect(sketch).toMatchObject({ id: 'piece', brand: 'brand' })
    expect(sketch.sample).toEqual([...sketch.sample].sort((a, b) => a - b))
  })
})

it('a notice keeps the passages that say when it is', () => {
  const notice = [
    'On 12 December the yard is open from ten, and there is soup in the loft at noon.',
    'Steam two frames with us on 12 December, and hold a clamp if you promise to keep hold of it.',
  ]
  const { piece, passages } = taken(notice)
  expect(piece.keeps).toMatchObject({ span: 'weeks', until: '2026-12-12' })
  expect(passages.map((p) => p.choice)).toEqual(passages.map(() => 'kept'))
  expect(passages.some((p) => p.text.includes('12 December'))).toBe(true)
})

describe('a piece that changed', () => {
  const { piece, passages } = taken(SENTENCES)
  const revise = (
    sentences: readonly string[],
    kept: readonly Passage[] = passages,
    before: WholePiece = piece,
  ) => revisePiece(before, kept, content(sentences), { others: [], now, newId: counter() })

  it('keeps every passage that still stands, at its new place, with what a person chose', () => {
    const chosen = passages.map((p, i): Passage => ({
      ...p,
      choice: i === 0 ? 'left out' : p.choice,
      by: 'person',
    }))
    const after = revise(['A word before we begin.', ...SENTENCES], chosen)
    expect(after.piece).toMatchObject({ revision: 2, changedAt: now })
    for (const [i, p] of after.passages.slice(0, chosen.length).entries()) {
      expect(p).toMatchObject({ id: chosen[i]?.id, choice: chosen[i]?.choice, lostPlace: false, revision: 2 })
      expect(after.piece.text.slice(p.start, p.end)).toBe(p.text)
    }
  })

  it('marks what is gone, and adds what is new as spare', () => {
    const after = revise([
      ...SENTENCES.slice(0, 2),
      'Varnish wants nine dry hours and a cloth that sheds nothing.',
      ...SENTENCES.slice(3),
    ])
    const gone = after.passages.filter((p) => p.lostPlace)
    expect(gone.map((p) => p.text)).toEqual([SENTENCES[2]])
    const fresh = after.passages.filter((p) => p.text.startsWith('Varnish'))
    expect(fresh.map((p) => p.choice)).toEqual(['spare'])
    // What comes back finds its passage again.
    const back = revise(SENTENCES, after.passages, after.piece)
    expect(back.passages.some((p) => p.lostPlace && p.text === SENTENCES[2])).toBe(false)
  })

  it('finds the right one of two alike by what stands around it', () => {
    const text = 'We start. It rings. Then we stop. It rings. And go home.'
    const at = text.lastIndexOf('It rings.')
    const passage: Passage = {
      ...(passages[0] as Passage),
      text: 'It rings.',
      start: at,
      end: at + 9,
      before: 'stop. ',
      after: ' And go',
    }
    const moved = relocate(passage, { text: `Today. ${text}`, revision: 4 })
    expect(moved).toMatchObject({ start: at + 7, end: at + 16, revision: 4, lostPlace: false })
  })
})
