import { describe, expect, it } from 'vitest'
import { oakumYard } from '../../demo/content'
import { webvtt } from '../../world'
import { findPassages } from '../passages'
import { readTranscript } from '../reading'
import { filmMedia } from './blank'
import { formatOf } from '../networks'
import { aPost, aWording } from '../model/samples'

const films = (oakumYard().films ?? []).map((film) => {
  const video = {
    url: `https://yard.example/${film.slug}`,
    seconds: 300,
    chapters: [],
    chaptersFound: false,
    transcript: 'x',
  }
  return { film, piece: readTranscript(webvtt(film), { title: film.title, video }) }
})

describe('what a post shows of a film', () => {
  it.each(films)('is the part in which its passage is said: $film.slug', ({ film, piece }) => {
    const { lines, seconds } = film.recording
    let exact = 0
    const parts = findPassages(piece).flatMap((passage) => {
      const source = filmMedia(piece, passage, 'loopyard', false)?.source
      return source?.from === 'film' && source.part ? [source.part] : []
    })
    for (const { start, end, subtitles } of parts) {
      // It begins and ends in the breath beside what the synthesiser said.
      const begins = lines.some(([from]) => from >= start && from - start <= 0.16)
      if (begins && lines.some(([, to]) => to <= end + 0.01 && end - to <= 0.36)) exact++
      expect(end - start).toBeGreaterThanOrEqual(5)
      expect(end - start).toBeLessThanOrEqual(90)
      expect(end).toBeLessThanOrEqual(seconds + 0.01)
      for (const s of subtitles)
        expect([s.from >= start, s.to <= end, s.text.length <= 60]).toEqual([true, true, true])
    }
    // A sentence that begins in the middle of a caption is placed by its share of it.
    expect(exact).toBeGreaterThanOrEqual(0.7 * parts.length)
  })

  it('is never all of a recording without pictures, which has its passages like a film', () => {
    const { piece } = films[0] ?? { piece: null }
    if (!piece?.video) throw new Error('no film')
    const chapters = [0, 60, 120].map((at) => ({ at, title: `From ${at}` }))
    const heard = { ...piece, video: { ...piece.video, chapters, sound: true as const } }
    expect(filmMedia(heard, null, 'longwave', false)).toBeNull()
    const [passage] = findPassages(piece)
    expect(filmMedia(heard, passage ?? null, 'loopyard', false)?.alt).toMatch(/^A part of the recording “/)
  })

  it('is a clip for most passages', () => {
    const all = films.flatMap(({ piece }) =>
      findPassages(piece).map((p) => filmMedia(piece, p, 'loopyard', false)),
    )
    expect(all.filter((m) => m !== null).length).toBeGreaterThan(0.8 * all.length)
  })

  it('is all of it where the network takes chapters and it has them, and nothing where there is no film', () => {
    const { piece } = films[0] ?? { piece: null }
    if (!piece?.video) throw new Error('no film')
    const chapters = [0, 60, 120].map((at) => ({ at, title: `From ${at}` }))
    const whole = filmMedia({ ...piece, video: { ...piece.video, chapters } }, null, 'longwave', false)
    expect(whole?.source).toMatchObject({ from: 'film', part: null })
    const post = aPost({
      network: 'longwave',
      wording: aWording({ format: 'video' }),
      media: whole ? [whole] : [],
    })
    expect(formatOf(post)).toBe('video')
    expect(filmMedia({ ...piece, video: { ...piece.video, url: null } }, null, 'longwave', false)).toBeNull()
    expect(filmMedia(piece, null, 'rackwell', false)).toBeNull()
  })
})
