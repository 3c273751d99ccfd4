import { isImperative, leanOf, NUMBER_WORDS } from '../../language'
import type { StudiedSentence } from '../../study'
import { isEmptyHeading, type Draft } from '../../setting'
import type { Stock } from '../stock'

/** So many points are worth a post of their own, and no more fit in one. */
const POINTS = { least: 3, most: 15 }

/** How a point may not lean: a pronoun may mean what the title names, another place may not. */
const LEANS = new Set(['elsewhere', 'joins'])
/** A stage of a journey or a course, which is no point. */
const STAGE = /^(?:day|week|month|year|chapter|part|episode|stage) \d/i

/** So many words a point has, on the average, that says something. */
const SAYS = 3

/** A title that promises a count of things, a way to do something, or what to know. */
const PROMISES =
  /\b(?:how to|ways?|things?|reasons?|mistakes?|rules?|tips?|steps?|signs?|questions?|lessons?|habits?|myths?|facts?|tools?|ideas?|checklist|guide|what to)\b/i

/** What numbers a heading as one point among others: "Myth #3:", "Mistake 2.". */
const NUMBERED =
  /^(?:myth|problem|mistake|tip|reason|rule|lesson|sign|step|habit|question|principle|idea|way|fact)s? (?:no\.? ?|number |#)?(\d{1,2})\s*[:.–—-]\s*/i

/** A point of a piece: its heading, and what of that is said. */
export interface Point {
  heading: StudiedSentence
  text: string
}

/** A whole piece as its points: what its title promises and, in order, what each part says. */
export interface Skeleton {
  title: string
  points: readonly Point[]
  /** Whether they are counted. */
  ordered: boolean
}

/**
 * The skeleton of a list article, a how-to or a numbered piece, or null for every other: its numbered
 * headings, or all headings of one level where the title counts them, or promises them and most tell what
 * to do. None is left out but what frames them, an introduction and a conclusion.
 */
export function skeletonOf(stock: Stock): Skeleton | null {
  const title = stock.piece.title.replace(/[.:]+$/, '').trim()
  const counted = countIn(title)
  const points = numberedPoints(stock) ?? plainPoints(stock, title, counted)
  if (!title || !points || points.length < POINTS.least || points.length > POINTS.most) return null
  if (counted !== null && counted !== points.length) return null
  const words = points.reduce((n, p) => n + p.text.split(/\s+/).length, 0) / points.length
  const clear = points.every(({ text, heading }) => {
    const tokens = heading.tokens.filter((t) => t.start >= heading.end - text.length)
    return (
      text.length <= 110 &&
      !text.endsWith(':') &&
      !STAGE.test(text) &&
      !LEANS.has(leanOf(tokens, text)?.kind ?? '')
    )
  })
  // Points say something; mere names of parts ("Biting", "Recall") do not, and questions leave one asking.
  if (!clear || words < SAYS || points.filter((p) => p.text.endsWith('?')).length > points.length / 2)
    return null
  return { title, points, ordered: counted !== null || /\bsteps?\b/i.test(title) }
}

const headingsOf = ({ study, piece }: Stock): StudiedSentence[] =>
  study.sentences.filter((s) => s.kind === 'heading' && !s.furniture && s.text !== piece.title)

/** Headings that number themselves from one on, or null where there are no three. */
function numberedPoints(stock: Stock): Point[] | null {
  const found = headingsOf(stock).flatMap((heading) => {
    const number = NUMBERED.exec(heading.text)
    return number ? [{ heading, text: heading.text.slice(number[0].length), number: Number(number[1]) }] : []
  })
  const runs = found.every((p, i) => p.number === i + 1)
  return found.length >= POINTS.least && runs ? found.map(({ heading, text }) => ({ heading, text })) : null
}

/** The headings of the highest level, where the title or their form says that they are points. */
function plainPoints(stock: Stock, title: string, counted: number | null): Point[] | null {
  const headings = headingsOf(stock)
  const level = (s: StudiedSentence): number => stock.piece.blocks[s.block]?.level ?? 2
  const top = Math.min(...headings.map(level))
  const own = headings.filter((s) => level(s) === top && !isEmptyHeading(s.text))
  const orders = own.filter((s) => isImperative(s.tokens)).length
  // One more than the title counts is the writer's goodbye.
  if (counted !== null && own.length === counted + 1) own.pop()
  if (counted === null && orders < own.length * (PROMISES.test(title) ? 0.75 : 0.8)) return null
  return own.map((heading) => ({ heading, text: heading.text }))
}

/** The number of things that a title names: "Seven tools", "5 ways"; null where it counts nothing. */
function countIn(title: string): number | null {
  const words = title.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? []
  for (const [i, word] of words.slice(0, 4).entries()) {
    const value = /^\d{1,2}$/.test(word) ? Number(word) : (NUMBER_WORDS[word] ?? null)
    if (value !== null && Number.isInteger(value) && value >= 3 && i < 3) return value
  }
  return null
}

/** How likely a skeleton is posted: the author made it, and it is whole by construction. */
const WORTH = 0.8

/** A skeleton as a draft: the title, and one point a line. */
export function skeletonDraft(stock: Stock): Draft | null {
  const skeleton = skeletonOf(stock)
  if (!skeleton) return null
  const { title, points, ordered } = skeleton
  return {
    angle: 'checklist',
    paragraphs: [
      {
        kind: 'list',
        lead: /[?!]$/.test(title) ? title : `${title}:`,
        items: points.map((p) => p.text),
        ordered,
      },
    ],
    spans: points.map(({ heading: { start, end } }) => ({ start, end })),
    worth: WORTH,
    whole: true,
  }
}
