import { describe, expect, it } from 'vitest'
import type { PieceContent } from '../model'
import { filmPartOf, movedSubtitles, subtitleFile } from '.'

const text = 'Oak bends. Um, larch will not bend at all, and it splits where you ask it to. Ask for oak.'
const at = (words: string) => ({ start: text.indexOf(words), end: text.indexOf(words) + words.length })
const said = (words: string, from: number, to: number) =>
  ({ ...at(words), from, to }) as PieceContent['sentences'][number]
const sentences = [
  said('Oak bends.', 1, 3),
  said('Um, larch will not bend at all, and it splits where you ask it to.', 3.1, 11.1),
  said('Ask for oak.', 20, 22),
]
const video: PieceContent['video'] = {
  url: 'https://a.example/f.mp4',
  seconds: 22.1,
  chapters: [],
  chaptersFound: false,
  transcript: 'dropped',
}
const piece = { text, sentences, video }
const WIDE = { least: 1, most: 90 }
const part = (words: string, bound = WIDE) => filmPartOf(piece, at(words), 'Oak', bound)

describe('the part of a film in which a passage is said', () => {
  it('leaves a breath before and after, but nothing of what is said beside it', () => {
    // 0.15 s before and 0.35 s after; the next sentence begins 0.1 s after the first one.
    expect(part('Oak bends.')).toMatchObject({ start: 0.85, end: 3.1 })
    expect(part('Um, larch will not bend at all, and it splits where you ask it to.')).toMatchObject({
      start: 3,
      end: 11.45,
    })
    // The film is over before the breath is.
    expect(part('Ask for oak.')).toMatchObject({ start: 19.85, end: 22.1 })
  })

  it('is none where it is too short or too long for the network, or its words have no times', () => {
    expect(part('Oak bends.', { least: 2.25, most: 90 })).not.toBeNull()
    expect(part('Oak bends.', { least: 2.26, most: 90 })).toBeNull()
    expect(part('Oak bends.', { least: 1, most: 2.24 })).toBeNull()
    const timeless = { ...piece, sentences: sentences.map(({ from: _, to: __, ...s }) => s) }
    expect(filmPartOf(timeless, at('Oak bends.'), '', WIDE)).toBeNull()
  })

  it('has its sentences as subtitles, without fillers, long ones in parts for their share of the time', () => {
    const subtitles = part(text.slice(at('Oak bends.').start, at('it to.').end))?.subtitles ?? []
    expect(subtitles.map((s) => s.text)).toEqual([
      'Oak bends.',
      'Larch will not bend at all,',
      'and it splits where you ask it to.',
    ])
    expect(subtitles[0]).toMatchObject({ from: 1, to: 3 })
    // 27 and 34 letters in 8 s from 3.1 s on.
    expect(subtitles[1]?.from).toBe(3.1)
    expect(subtitles[1]?.to).toBeCloseTo(3.1 + (8 * 27) / 61, 2)
    expect(subtitles[2]?.to).toBe(11.1)
  })
})

describe('a part of a film whose ends are moved', () => {
  const words = (start: number, end: number, standing = 'Larch, by hand') =>
    movedSubtitles(piece, [{ from: 3.1, to: 11.1, text: standing }], { start, end }).map((s) => s.text)

  it('has subtitles for what is said by then, and keeps those it had as they were changed', () => {
    expect(words(3, 11.4)).toEqual(['Larch, by hand'])
    expect(words(0.9, 11.4)).toEqual(['Oak bends.', 'Larch, by hand'])
    expect(words(0.9, 20.1, '')).toEqual(['Oak bends.', '', 'Ask for oak.'])
    // What ends as it begins, or begins as it ends, is not heard; what it had comes back when it grows again.
    expect(words(5, 20)).toEqual(['Larch, by hand'])
  })

  it('that had none has those of its sentences, each part by its own time', () => {
    expect(movedSubtitles(piece, [], { start: 0, end: 5 }).map((s) => s.text)).toEqual([
      'Oak bends.',
      'Larch will not bend at all,',
    ])
  })
})

it('subtitles stand in files of their own, counted from the clip’s beginning', () => {
  const of = {
    start: 60,
    end: 3800,
    hook: '',
    filled: false,
    subtitles: [
      // What is said before the clip, what is left empty, and what is said after it stand in none.
      { from: 50, to: 59, text: 'Before.' },
      { from: 100, to: 101, text: '' },
      { from: 3900, to: 3901, text: 'After.' },
      { from: 60.15, to: 62, text: 'Oak bends.' },
      { from: 3725.0405, to: 3727.5, text: 'Larch does not.' },
    ],
  }
  // As the examples of the standard write times: hours, minutes, seconds and thousandths.
  expect(subtitleFile(of, 'vtt')).toBe(
    'WEBVTT\n\n1\n00:00:00.150 --> 00:00:02.000\nOak bends.\n\n2\n01:01:05.041 --> 01:01:07.500\nLarch does not.\n',
  )
  expect(subtitleFile(of, 'srt')).toBe(
    '1\n00:00:00,150 --> 00:00:02,000\nOak bends.\n\n2\n01:01:05,041 --> 01:01:07,500\nLarch does not.\n',
  )
  // One that is under way when the clip begins or ends is shown for as long as that lasts.
  const cut = { ...of, start: 61, end: 3726, subtitles: of.subtitles.slice(3) }
  expect(subtitleFile(cut, 'srt')).toBe(
    '1\n00:00:00,000 --> 00:00:01,000\nOak bends.\n\n2\n01:01:04,041 --> 01:01:05,000\nLarch does not.\n',
  )
})
