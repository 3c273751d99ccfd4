import { danglingWords, isBalanced, promisesList, readSentences } from '../language'
import type { FoundPassage, PieceContent, Place } from '../model'
import { measure, type NetworkProfile } from '../networks'
import { sentenceFeatures, type SentenceFeatures } from '../study'
import { analyse } from '../reading'
import { withoutFillers } from '../speech'
import type { WholeBrief } from './brief'
import { headingOver } from './headings'

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
  piece: PieceContent,
  passage: FoundPassage,
  profile: NetworkProfile,
  brief: WholeBrief,
  link: string | null,
): Thread | null {
  if (!profile.thread) return null
  const limit = Math.min(profile.text.limit ?? Infinity, brief.length.most)
  const tail = link && brief.link === 'text' ? `\n${link}` : ''
  const spoken = (text: string): string => (piece.video ? withoutFillers(text) : text)
  const steps = passage.kind === 'steps' ? stepsOf(piece, passage) : null
  const parts = steps ?? partsOf(piece, passage, limit)
  if (parts.length < LEAST) return null
  const kept = parts.slice(0, Math.min(MOST, profile.thread.parts))
  // A list that is cut short is no list.
  if (steps && kept.length < steps.length) return null
  const texts = kept.map((p, i) => spoken(p.text) + (i === kept.length - 1 ? tail : ''))
  if (texts.some((t) => measure(t, profile.text) > limit)) return null
  return { parts: texts, spans: kept.map(({ start, end }) => ({ start, end })) }
}

type Part = Place & { text: string }

function partsOf(piece: PieceContent, passage: FoundPassage, limit: number): Part[] {
  const at = piece.blocks.findIndex((b) => b.start <= passage.start && passage.start < b.end)
  let end = at + 1
  while (
    piece.blocks[end] &&
    piece.blocks[end]?.kind === 'paragraph' &&
    piece.blocks[end]?.furniture === null
  )
    end++
  const features = analyse(piece)
    .filter((s) => s.block >= at && s.block < end && s.start >= passage.start)
    .map((s) => sentenceFeatures(s, piece.publishedAt))
  const parts: { run: SentenceFeatures[] }[] = []
  for (const f of features) {
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

function textOf(piece: PieceContent, run: readonly SentenceFeatures[]): string {
  return piece.text.slice(run[0]?.sentence.start, run[run.length - 1]?.sentence.end).replace(/\s+/g, ' ')
}

function stands(text: string, run: readonly SentenceFeatures[]): boolean {
  const last = run[run.length - 1]
  return last !== undefined && last.verb && !last.question && !promisesList(text) && isBalanced(text)
}

/** A list as parts: its lead-in, then an item each; null where an item does not stand alone. */
function stepsOf(piece: PieceContent, passage: FoundPassage): Part[] | null {
  const blocks = piece.blocks.filter((b) => b.start < passage.end && b.end > passage.start)
  const lead = blocks[0] && blocks[0].kind !== 'item' ? blocks[0] : null
  const items = blocks.filter((b) => b.kind === 'item')
  const heading = headingOver(piece, passage)
  const over = lead ?? heading
  if (!over || items.length < LEAST - 1) return null
  const opening = piece.text
    .slice(Math.max(over.start, lead ? passage.start : over.start), over.end)
    .replace(/[.:]?$/, ':')
  const alone = items.every((b) => {
    const [first] = readSentences(piece.text.slice(b.start, b.end))
    return first !== undefined && danglingWords(first.tokens, piece.text.slice(b.start, b.end)) === null
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
