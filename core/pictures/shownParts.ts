import type { FilmPart, PieceContent, Stretch } from '../model'
import { hesitationsIn, LEVEL_SECONDS, toLeaveOut } from '../speech'

/** Seconds as they are kept. */
export const thousandths = (seconds: number): number => Math.round(seconds * 1000) / 1000

type Timed = Pick<FilmPart, 'start' | 'end' | 'leftOut'>

/** What of its film a part shows, one after the other: all of it but what is left out. */
export function shownParts({ start, end, leftOut = [] }: Timed): Stretch[] {
  const shown: Stretch[] = []
  let from = start
  for (const gone of [...leftOut, { from: end, to: end }]) {
    if (Math.min(gone.from, end) > from) shown.push({ from, to: Math.min(gone.from, end) })
    from = Math.max(from, gone.to)
  }
  return shown
}

/** How long a part of a film plays, in seconds. */
export function partSeconds(part: Timed): number {
  return shownParts(part).reduce((sum, { from, to }) => sum + to - from, 0)
}

/** How far into its clip a moment of the film stands, in seconds; what is left out stands where it is missed. */
export function clipMoment(part: Timed, moment: number): number {
  return shownParts(part).reduce((sum, { from, to }) => sum + Math.max(0, Math.min(to, moment) - from), 0)
}

/** The moment of its film that a part shows so far into its clip, in seconds. */
export function filmMoment(part: Timed, into: number): number {
  let left = into
  for (const { from, to } of shownParts(part)) {
    if (left < to - from) return from + left
    left -= to - from
  }
  return part.end
}

/** Pauses and sounds of hesitation that a part of a film may be shown without (`toLeaveOut`), by how loud it is from its start on. */
export function pausesOf(
  { sentences, text }: Pick<PieceContent, 'sentences' | 'text'>,
  { start, end }: Pick<FilmPart, 'start' | 'end'>,
  levels: readonly number[],
): Stretch[] {
  const moments = sentences.flatMap((s) => {
    const { from = 0, to = 0 } = s
    if (to <= start || from >= end) return []
    // A sentence is taken to be said evenly.
    const a = (to - from) / (s.end - s.start)
    return hesitationsIn(text.slice(s.start, s.end)).map((h) => from + (a * (h.start + h.end)) / 2 - start)
  })
  return toLeaveOut(levels, moments).map(({ from, to }) => ({
    from: thousandths(start + from),
    to: thousandths(start + to),
  }))
}

/**
 * The levels of a part of a film, from its start on, as so many bars: how loud what is shown sounds against its loudest bar, from 0 to
 * 1. Loudness grows with the power of 0.6 of the sound's pressure (Stevens, The measurement of loudness, 1955).
 */
export function barsOf(part: Timed, levels: readonly number[], count: number): number[] {
  const shown = levels.filter((_, i) => {
    const at = part.start + (i + 0.5) * LEVEL_SECONDS
    return shownParts(part).some(({ from, to }) => from <= at && at < to)
  })
  const squares = Array.from({ length: count }, (_, bar) => {
    const [from, to] = [bar, bar + 1].map((n) => (n * shown.length) / count) as [number, number]
    const of = shown.slice(Math.floor(from), Math.max(Math.floor(from) + 1, Math.floor(to)))
    return of.reduce((sum, level) => sum + level * level, 0) / Math.max(1, of.length)
  })
  const loudest = Math.max(...squares)
  return squares.map((square) => (loudest > 0 ? (square / loudest) ** 0.3 : 0))
}
