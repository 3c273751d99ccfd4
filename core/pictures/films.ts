import type { FilmPart, PieceContent, Subtitle } from '../model'
import { graphemes } from '../networks'
import { withoutFillers } from '../speech'
import { clipMoment, thousandths } from './shownParts'

/** About so many characters stand on a clip at once, and so many more or fewer where that breaks better: two short lines. */
const AT_ONCE = 44
const GIVE = 14
/** Seconds that are left before the first word and after the last, so that neither is cut. */
const BEFORE = 0.15
const AFTER = 0.35

/**
 * The part of a film in which a passage is said, with what is said as subtitles; null where the words have no times or are
 * shorter or longer than the network takes clips, in seconds. `hook` stands over it.
 */
export function filmPartOf(
  { sentences, video, text }: Pick<PieceContent, 'sentences' | 'text' | 'video'>,
  passage: { start: number; end: number },
  hook: string,
  { least, most }: { least: number; most: number },
): FilmPart | null {
  const said = sentences.filter((s) => s.start < passage.end && s.end > passage.start)
  const [first, last] = [said[0], said.at(-1)]
  if (first?.from === undefined || last?.to === undefined) return null
  const before = sentences.findLast((s) => s.end <= first.start)?.to ?? 0
  const after = sentences.find((s) => s.start >= last.end)?.from ?? video?.seconds ?? Infinity
  const start = Math.max(0, Math.min(first.from, Math.max(before, first.from - BEFORE)))
  const end = Math.max(last.to, Math.min(after, last.to + AFTER))
  if (end - start < least || end - start > most) return null
  const subtitles = subtitlesOf({ sentences: said, text })
  return { start: thousandths(start), end: thousandths(end), hook, subtitles, filled: false }
}

/** What sentences say, as subtitles; those without times have none. */
function subtitlesOf({ sentences, text }: Pick<PieceContent, 'sentences' | 'text'>): Subtitle[] {
  return sentences.flatMap((s) =>
    s.from === undefined || s.to === undefined
      ? []
      : inParts(withoutFillers(text.slice(s.start, s.end)).replace(/\s+/g, ' ').trim(), s.from, s.to),
  )
}

/**
 * The subtitles of a part of a film whose ends were moved, in seconds: those it has, as they were changed, and before and after
 * them what the film's sentences say there.
 */
export function movedSubtitles(
  { sentences, text }: Pick<PieceContent, 'sentences' | 'text'>,
  standing: readonly Subtitle[],
  { start, end }: { start: number; end: number },
): Subtitle[] {
  const [first, last] = [standing[0]?.from ?? Infinity, standing.at(-1)?.to ?? -Infinity]
  const shown = sentences.filter(({ from = Infinity, to = -Infinity }) => from < end && to > start)
  const said = subtitlesOf({ sentences: shown, text }).filter((s) => s.from < end && s.to > start)
  if (standing.length === 0) return said
  return [...said.filter((s) => s.to <= first), ...standing, ...said.filter((s) => s.from >= last)]
}

/** A sentence in as many parts as stand on a clip at once, all about alike long, each for its share of the time. */
function inParts(text: string, from: number, to: number): Subtitle[] {
  if (text === '') return []
  const count = Math.ceil(graphemes(text) / AT_ONCE)
  const parts: string[] = []
  let rest = text
  for (let left = count; left > 1; left--) {
    const at = breakNear(rest, rest.length / left)
    parts.push(rest.slice(0, at).trim())
    rest = rest.slice(at).trim()
  }
  parts.push(rest)
  const letters = parts.reduce((sum, p) => sum + p.length, 0)
  let clock = from
  return parts
    .filter((p) => p !== '')
    .map((part) => {
      const begins = clock
      clock += ((to - from) * part.length) / letters
      return { from: thousandths(begins), to: thousandths(clock), text: part }
    })
}

/** The space at which a text breaks best near a place: after punctuation rather than between words. */
function breakNear(text: string, near: number): number {
  let best = Math.round(near)
  let least = Infinity
  for (let at = text.indexOf(' '); at >= 0; at = text.indexOf(' ', at + 1)) {
    const cost = Math.abs(at - near) - (/[,;:.!?–—]/.test(text[at - 1] ?? '') ? GIVE : 0)
    if (cost < least) [best, least] = [at, cost]
  }
  return best
}

/** A time as WebVTT writes it (W3C, WebVTT 3.3), and as SubRip does where `mark` is a comma. */
function stamp(seconds: number, mark: '.' | ','): string {
  const all = Math.round(seconds * 1000)
  const two = (n: number): string => String(n).padStart(2, '0')
  return `${two(Math.floor(all / 3_600_000))}:${two(Math.floor(all / 60_000) % 60)}:${two(Math.floor(all / 1000) % 60)}${mark}${String(all % 1000).padStart(3, '0')}`
}

/** The subtitles that show in a clip as a file of their own, counted from its beginning, as WebVTT or as SubRip. */
export function subtitleFile(part: FilmPart, format: 'vtt' | 'srt'): string {
  const mark = format === 'vtt' ? '.' : ','
  const cues = part.subtitles
    .map(({ from, to, text }) => ({ from: clipMoment(part, from), to: clipMoment(part, to), text }))
    .filter((s) => s.text !== '' && s.to > s.from)
    .map(({ from, to, text }, i) => `${i + 1}\n${stamp(from, mark)} --> ${stamp(to, mark)}\n${text}\n`)
  return format === 'vtt' ? `WEBVTT\n\n${cues.join('\n')}` : cues.join('\n')
}
