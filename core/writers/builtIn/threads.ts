import { danglingWords, isBalanced, promisesList } from '../../language'
import type { WholeBrief } from '../../house'
import type { FoundPassage, Place } from '../../model'
import { measure, type NetworkProfile } from '../../networks'
import { withoutFillers } from '../../speech'
import type { SentenceFeatures } from '../../study'
import type { Stock } from '../stock'
import { skeletonOf } from './skeleton'

/** A thread before it is set: its parts and where their words stand. */
export interface Thread {
  parts: string[]
  spans: Place[]
}

/** Fewer parts are a post, more tire. */
const LEAST = 3
const MOST = 7
/** A part this short says too little to stand alone. */
const SHORT = 40

/**
 * The part of a piece around a passage as a thread: whole sentences, a new part wherever one
 * begins that points at nothing before it, so that each part stands alone. A list gives a part an
 * item. Null where that makes fewer than three parts, or one that does not fit.
 */
export function threadOf(
  stock: Stock,
  passage: FoundPassage,
  profile: NetworkProfile,
  brief: WholeBrief,
  link: string | null,
): Thread | null {
  if (!profile.thread) return null
  const limit = Math.min(profile.text.limit ?? Infinity, brief.length.most)
  const tail = link && brief.link === 'text' ? `\n${link}` : ''
  const { piece } = stock
  const spoken = (text: string): string => (piece.video ? withoutFillers(text) : text)
  const steps = passage.kind === 'steps' ? stepsOf(stock, passage) : null
  const parts = steps ?? partsOf(stock, passage, limit)
  if (parts.length < LEAST) return null
  const kept = parts.slice(0, Math.min(MOST, profile.thread.parts))
  // A list that is cut short is no list.
  if (steps && kept.length < steps.length) return null
  const texts = kept.map((p, i) => spoken(p.text) + (i === kept.length - 1 ? tail : ''))
  if (texts.some((t) => measure(t, profile.text) > limit)) return null
  return { parts: texts, spans: kept.map(({ start, end }) => ({ start, end })) }
}

type Part = Place & { text: string }

function partsOf({ piece, study, features }: Stock, passage: FoundPassage, limit: number): Part[] {
  const at = piece.blocks.findIndex((b) => b.start <= passage.start && passage.start < b.end)
  let end = at + 1
  while (
    piece.blocks[end] &&
    piece.blocks[end]?.kind === 'paragraph' &&
    piece.blocks[end]?.furniture === null
  )
    end++
  const mine = study.sentences.filter((s) => s.block >= at && s.block < end && s.start >= passage.start)
  const parts: { run: SentenceFeatures[] }[] = []
  for (const { index } of mine) {
    const f = features[index] as SentenceFeatures
    const open = parts[parts.length - 1]
    const length = open ? textOf(piece, open.run).length : 0
    const joins = open && (f.dangling !== null || !f.verb || length < SHORT)
    if (joins && length + f.sentence.text.length + 1 <= limit) open.run.push(f)
    else if (f.dangling === null && f.verb && f.ageing === null) parts.push({ run: [f] })
    else break
  }
  return parts
    .map(({ run }) => ({
      start: run[0]?.sentence.start ?? 0,
      end: run[run.length - 1]?.sentence.end ?? 0,
      text: textOf(piece, run),
      run,
    }))
    .filter(({ text, run }) => stands(text, run))
    .map(({ start, end: to, text }) => ({ start, end: to, text }))
}

function textOf(piece: Stock['piece'], run: readonly SentenceFeatures[]): string {
  return piece.text.slice(run[0]?.sentence.start, run[run.length - 1]?.sentence.end).replace(/\s+/g, ' ')
}

function stands(text: string, run: readonly SentenceFeatures[]): boolean {
  const last = run[run.length - 1]
  return last !== undefined && last.verb && !last.question && !promisesList(text) && isBalanced(text)
}

/** A list as parts: its lead-in, then an item each; null where an item does not stand alone. */
function stepsOf({ piece, study }: Stock, passage: FoundPassage): Part[] | null {
  const blocks = piece.blocks.filter((b) => b.start < passage.end && b.end > passage.start)
  const lead = blocks[0] && blocks[0].kind !== 'item' ? blocks[0] : null
  const items = blocks.filter((b) => b.kind === 'item')
  const heading = piece.blocks.findLast((b) => b.kind === 'heading' && b.start <= passage.start)
  const over = lead ?? heading
  if (!over || items.length < LEAST - 1) return null
  const opening = piece.text
    .slice(Math.max(over.start, lead ? passage.start : over.start), over.end)
    .replace(/[.:]?$/, ':')
  const alone = items.every((b) => {
    const first = study.sentences.find((s) => s.start === b.start)
    return first !== undefined && danglingWords(first.tokens, first.text) === null
  })
  if (!alone) return null
  const numbered = items.map((b, i) => ({
    start: b.start,
    end: b.end,
    text: `${items[0]?.list?.ordered ? `${i + 1}. ` : ''}${piece.text.slice(b.start, b.end)}`,
  }))
  const [one, ...rest] = numbered
  // The lead-in alone promises and says nothing; it opens the first item's part.
  return one ? [{ start: over.start, end: one.end, text: `${opening}\n${one.text}` }, ...rest] : null
}

/**
 * The whole piece as a thread: the title with the first point, then a part a point, each with the
 * sentence of it that readers would rather post than any other where one stands alone. Null where the
 * piece has no skeleton, or a part does not fit.
 */
export function wholeThread(stock: Stock, profile: NetworkProfile, link: string | null): Thread | null {
  const skeleton = skeletonOf(stock)
  if (!skeleton || !profile.thread || skeleton.points.length > profile.thread.parts) return null
  const { study, features, chances } = stock
  const limit = profile.text.limit ?? Infinity
  const parts = skeleton.points.map((point, i): Part => {
    const { heading } = point
    const section = study.sections[heading.section]
    const best = study.sentences
      .slice(heading.index + 1, section?.to)
      .filter((s) => s.kind === 'paragraph' && !s.furniture && features[s.index]?.dangling === null)
      .filter((s) => chances.ofRun(s.index, s.index) >= ADDS)
      .sort((a, b) => chances.ofRun(b.index, b.index) - chances.ofRun(a.index, a.index))[0]
    const head = `${i + 1}. ${/[.!?]$/.test(point.text) ? point.text : `${point.text}.`}`
    const text = [i === 0 ? `${skeleton.title.replace(/[.:]$/, '')}:\n${head}` : head, best?.text]
    return { start: heading.start, end: best?.end ?? heading.end, text: text.filter(Boolean).join(' ') }
  })
  const texts = parts.map((p, i) => p.text + (link && i === parts.length - 1 ? `\n${link}` : ''))
  if (texts.some((t) => measure(t, profile.text) > limit)) return null
  return { parts: texts, spans: parts.map(({ start, end }) => ({ start, end })) }
}

/** So likely must a sentence be posted to be added to its point. */
const ADDS = 0.4
