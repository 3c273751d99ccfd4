import { angleOf } from '../../angles'
import { danglingWords, hasVerb, isBalanced, THIRD_PERSON } from '../../language'
import type { Place } from '../../model'
import { chance } from '../../passages'
import { isEmptyHeading, type Draft } from '../../setting'
import type { StudiedSentence } from '../../study'
import { endsSentence } from '../../text'
import { featuresOf, runAt, type Run, type Stock } from '../stock'
import { isWhole, worthOf } from '../whole'
import { runDraft } from './runs'

/** How likely an answer is posted that only its question makes whole, of what its substance is worth. */
const ASKED = 0.8
/** How many sentences of an answer, or of what a heading says, are taken. */
const MOST = 4

/**
 * What stands right under a heading together with it, where the heading is a question that it answers or a
 * sentence that it goes on from: then the heading is the piece's own hook. Never a label.
 */
export function headedDrafts(stock: Stock, passage: Place): Draft[] {
  const { study } = stock
  const own = runAt(stock, passage)
  const first = own && study.sentences[own.from]
  const over = first && study.sentences[study.sections[first.section]?.from ?? -1]
  if (!own || !over || over.kind !== 'heading' || own.from !== over.index + 1) return []
  const hook = hookOf(over)
  if (!hook) return []
  const found: Draft[] = []
  for (let to = own.from; to < own.from + MOST; to++) {
    if (study.sentences[to]?.block !== first.block) break
    const run = { from: own.from, to }
    if (to >= own.to && follows(stock, over, run)) found.push(headed(stock, over, hook, run))
  }
  return found
}

/** A heading as a sentence, or null where it is a mere name of its part. */
function hookOf(heading: StudiedSentence): { text: string; asks: boolean } | null {
  const { text, tokens } = heading
  const words = text.split(/\s+/)
  if (words.length > 12 || /^\d/.test(text) || isEmptyHeading(text) || !isBalanced(text)) return null
  if (danglingWords(tokens, text) !== null || inTitleCase(words)) return null
  // "What about the ones who still do not know them?": what it means stands in the part above it.
  if (tokens.some((t) => THIRD_PERSON.has(t.lower)) || /^(?:what about|and|but)\b|\bthe ones?\b/i.test(text))
    return null
  if (text.endsWith('?')) return words.length >= 3 ? { text, asks: true } : null
  if (/[:;,–-]$/.test(text) || words.length < 4 || !hasVerb(tokens)) return null
  // "How long an oar should be", "Before you go": clauses, no sentences.
  if (
    /^(?:how|what|why|when|where|who|which|before|after|if|while|for|with|without|as|in|on|at|from|to)\b/i.test(
      text,
    )
  )
    return null
  return { text: /[.!]$/.test(text) ? text : `${text}.`, asks: false }
}

/** "When To Turn Back On A Ridge": capitals that no sentence has. */
const inTitleCase = (words: readonly string[]): boolean => {
  const later = words.slice(1).filter((w) => w.length > 3)
  return later.length > 1 && later.filter((w) => /^\p{Lu}/u.test(w)).length > later.length / 2
}

/** Whether a run is whole with the heading before it, which may hold what it points to. */
function follows(stock: Stock, over: StudiedSentence, run: Run): boolean {
  if (isWhole(stock, run)) return true
  const first = stock.study.sentences[run.from]
  const rest = { from: run.from + 1, to: run.to }
  if (!first || danglingWords(first.tokens, first.text, over.tokens) !== null) return false
  const closes =
    run.to === run.from ? endsSentence(first.text) && !first.text.endsWith('?') : isWhole(stock, rest)
  return closes && (stock.features[run.from]?.verb ?? false) && stock.features[run.from]?.ageing === null
}

function headed(stock: Stock, over: StudiedSentence, hook: { text: string; asks: boolean }, run: Run): Draft {
  const body = runDraft(stock, run)
  const [first, ...rest] = body.paragraphs
  const sentences = first?.kind === 'prose' ? first.sentences : []
  const substance = Math.max(
    ...stock.chances.odds.slice(run.from, run.to + 1).map((o) => Math.min(o.worth, -o.never)),
  )
  return {
    ...body,
    angle: hook.asks ? 'question' : angleOf(featuresOf(stock, run)),
    paragraphs: [{ kind: 'prose', sentences: [hook.text, ...sentences] }, ...rest],
    spans: [{ start: over.start, end: over.end }, ...body.spans],
    worth: Math.max(worthOf(stock, run), ASKED * chance(substance)),
  }
}
