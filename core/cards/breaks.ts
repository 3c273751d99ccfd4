import LineBreaker from 'linebreak'
import type { Face } from './faces'

/** What stands between two places where a line may end. Widths are in ems, without the space behind it. */
interface Segment {
  text: string
  start: number
  end: number
}

/** A text, measured, that can be broken into lines at any width. */
export interface Measured {
  text: string
  segments: readonly Segment[]
  /** How far each character is from the beginning, in ems. */
  at: readonly number[]
  face: Face
}

/** A line: its text and its width, in ems. */
export interface Line {
  text: string
  width: number
}

/** A text in lines, and how badly it is broken: nought where all lines are full and none ends on a weak word. */
export interface Broken {
  lines: Line[]
  cost: number
  /** What the worst of the lines costs. */
  worst: number
}

/** Measures a text, whose lines may end where UAX #14 allows it. */
export function measured(text: string, face: Face): Measured {
  const segments: Segment[] = []
  const breaker = new LineBreaker(text)
  let start = 0
  for (let at = breaker.nextBreak(); at; at = breaker.nextBreak()) {
    const end = start + text.slice(start, at.position).trimEnd().length
    if (end > start) segments.push({ text: text.slice(start, end), start, end })
    start = at.position
  }
  return { text, segments, at: face.run(text).at, face }
}

/** The widest part of a text that no line may end in, in ems. */
export function widest({ segments, at }: Measured): number {
  return Math.max(0, ...segments.map((s) => (at[s.end] ?? 0) - (at[s.start] ?? 0)))
}

/**
 * Breaks a text into lines of at most `measure` ems, all of it at once, so that the lines are even and end where a
 * reader would pause: the least sum of squared white space and of penalties over all ways to break it, found by dynamic
 * programming (Knuth and Plass, "Breaking paragraphs into lines", 1981, without stretching, for lines that are not
 * justified). The last line counts as the others do, so that it is not left short. Null where a part is too wide, or it
 * takes more than `most` lines.
 */
export function breakLines(text: Measured, measure: number, most = Infinity): Broken | null {
  const { segments, at } = text
  const n = segments.length
  const width = (from: number, to: number): number =>
    (at[segments[to]?.end ?? 0] ?? 0) - (at[segments[from]?.start ?? 0] ?? 0)
  const best: { cost: number; from: number; lines: number }[] = [{ cost: 0, from: 0, lines: 0 }]
  for (let end = 1; end <= n; end++) {
    let found = { cost: Infinity, from: 0, lines: 0 }
    for (let from = end - 1; from >= 0; from--) {
      const w = width(from, end - 1)
      if (w > measure) break
      const before = best[from]
      if (!before || before.lines >= most) continue
      const cost = before.cost + lineCost(text, from, end, w, measure)
      if (cost < found.cost) found = { cost, from, lines: before.lines + 1 }
    }
    best.push(found)
  }
  if (n === 0) return { lines: [], cost: 0, worst: 0 }
  if (best[n]?.cost === Infinity) return null
  const lines: Line[] = []
  let worst = 0
  for (let end = n; end > 0; end = best[end]?.from ?? 0) {
    const from = best[end]?.from ?? 0
    worst = Math.max(worst, (best[end]?.cost ?? 0) - (best[from]?.cost ?? 0))
    const [first, last] = [segments[from] as Segment, segments[end - 1] as Segment]
    lines.unshift({ text: text.text.slice(first.start, last.end), width: width(from, end - 1) })
  }
  return { lines, cost: best[n]?.cost ?? 0, worst }
}

/** Articles and the like: a line is not to end on them. */
const ARTICLE =
  /^(?:a|an|the|my|our|your|his|her|its|their|per|de|la|le|el|un|une|der|die|das|ein|eine|um|uma|o|os)$/iu
/** Prepositions and conjunctions: a line had better not end on them. */
const WEAK = /^(?:of|to|in|on|at|by|for|from|with|and|or|but|nor|as|if|than|und|von|zu|do|da|e|y)$/iu
/** Words that lean on the next one, though less. */
const LEANING =
  /^(?:is|are|was|were|be|i|we|he|she|they|you|so|this|that|these|those|no|not|who|which|will|can)$/iu

/** What a line costs: its white space, squared, and what speaks against its end. */
function lineCost(text: Measured, from: number, end: number, width: number, measure: number): number {
  const { segments } = text
  const slack = (measure - width) / measure
  const last = segments[end - 1]?.text ?? ''
  const next = segments[end]?.text
  let cost = 100 * slack * slack
  if (next === undefined) {
    // A widow: a word or a scrap alone in the last line.
    if (from > 0 && end - from === 1) cost += slack > 0.55 ? 300 : 30
    if (from > 0 && slack > 0.7) cost += 60
    return cost
  }
  if (slack > 0.5) cost += 24
  if (ARTICLE.test(last)) cost += 60
  else if (WEAK.test(last)) cost += 24
  else if (LEANING.test(last)) cost += 6
  else if (/[,;:.!?…—–]["”’)]?$/u.test(last)) cost -= 3
  if (/\p{N}$/u.test(last)) cost += 60
  if (/^\p{Lu}/u.test(last) && /^\p{Lu}/u.test(next)) cost += 10
  if (/[-\u00ad]$/u.test(last)) cost += 25
  return cost
}

/**
 * A text whose parts are nowhere wider than `measure` ems: what is wider is cut between letters, words with a hyphen.
 * It is set so only where no size helps.
 */
export function cutToFit(text: Measured, measure: number): Measured {
  const { face } = text
  const long = text.segments.filter((s) => (text.at[s.end] ?? 0) - (text.at[s.start] ?? 0) > measure)
  if (long.length === 0) return text
  const room = measure - face.run('-').width
  let whole = ''
  let from = 0
  for (const segment of long) {
    whole += text.text.slice(from, segment.start)
    whole += cut(segment.text, face, room).join(
      /^[\p{L}\p{M}'’-]+$/u.test(segment.text) ? '-\u200b' : '\u200b',
    )
    from = segment.end
  }
  return measured(whole + text.text.slice(from), face)
}

function cut(word: string, face: Face, room: number): string[] {
  const parts: string[] = ['']
  for (const { segment } of new Intl.Segmenter('en', { granularity: 'grapheme' }).segment(word)) {
    const last = parts.at(-1) ?? ''
    if (last !== '' && face.run(last + segment).width > room) parts.push(segment)
    else parts[parts.length - 1] = last + segment
  }
  return parts
}
