import { danglingWords, isBalanced, isBelief, promisesList, type Token } from '../language'
import type { FoundPassage } from '../model'
import { chance } from '../passages'
import { endsSentence } from '../text'
import { lacksItsTerm, type SentenceFeatures } from '../study'
import { featuresOf, strangerIn, type Run, type Stock } from './stock'

/** With this probability or more that it must never go out a sentence is left out of every widening. */
const NEVER = 0.25

/** With less than this probability to be worth posting it is taken along with nothing. */
const WORTH = 0.2

/** What announces something that may not follow. */
const ANNOUNCES =
  /^(?:now|next|then|week|day|step|part|first|second|third|finally|last|the (?:first|second|third|last|next))\b/i
/** What takes back or limits what the sentence before it says. */
const LIMITS = /^(?:but|except|unless|however|though|only|not (?:if|when|that)|that said)\b/i

/**
 * Whether a run of sentences is a whole thought to somebody who has not read the piece: nothing in it
 * points out of it, nobody is a stranger, an answer has its question, what it announces follows, and no
 * caveat is cut off behind it.
 */
export function isWhole(stock: Stock, run: Run): boolean {
  const sentences = featuresOf(stock, run)
  const first = sentences[0]
  const last = sentences[sentences.length - 1]
  if (!first || !last || !opens(stock, run, first) || !closes(stock, run, sentences)) return false
  if (sentences.slice(0, -1).some((f) => !endsSentence(f.sentence.text))) return false
  if (sentences.some((f) => f.ageing !== null || /[:;,–-]$/.test(f.sentence.text))) return false
  if (sentences.some((f) => !f.verb && ANNOUNCES.test(f.sentence.text))) return false
  let before: readonly Token[] = first.sentence.tokens
  for (const f of sentences.slice(1)) {
    if (danglingWords(f.sentence.tokens, f.sentence.text, before) !== null) return false
    before = [...before, ...f.sentence.tokens]
  }
  const text = sentences.map((f) => f.sentence.text).join(' ')
  return isBalanced(text) && !isUnsigned(stock, run, text) && strangerIn(stock, run) === null
}

/** Whether a run stands wholly in quotation marks though nobody is known who says it: then it is a stranger's word. */
function isUnsigned(stock: Stock, { from }: Run, text: string): boolean {
  const block = stock.piece.blocks[stock.study.sentences[from]?.block ?? -1]
  return block?.speaker === undefined && /^["“][^"”]*["”]$/.test(text)
}

/** Whether a sentence may open: it leans on nothing, and is no answer that lost its question. */
function opens(stock: Stock, { from, to }: Run, first: SentenceFeatures): boolean {
  if (first.dangling !== null || !first.verb || /^\p{Ll}/u.test(first.sentence.text)) return false
  if (first.question && to === from) return false
  const own = stock.study.sentences[from]
  if (own && lacksItsTerm(stock.study, own)) return false
  const before = stock.features[from - 1]
  const asked =
    before?.question === true &&
    (before.sentence.block === first.sentence.block || (own?.inBlock === 0 && own.kind === 'paragraph'))
  return !asked || first.sentence.text.split(' ').length > 8
}

/** What asks the reader to picture something that then follows. */
const LEADS =
  /^(?:consider|imagine|suppose|say|picture|take|let[’']s (?:say|take|look|start|see)|look at|think of)\b|\b(?:for example|for instance|an example|the analogy)[^.]*\.$/i

/** What was so once: the point is what came of it. */
const WAS = /\bused to\b/i

/** Whether it may end there: not on a question, a promise, a belief, or before what takes it back. */
function closes(stock: Stock, { to }: Run, sentences: readonly SentenceFeatures[]): boolean {
  const last = sentences[sentences.length - 1] as SentenceFeatures
  const earlier = sentences[sentences.length - 2]
  if (last.question || promisesList(last.sentence.text) || isBelief(last.sentence.text)) return false
  const next = stock.features[to + 1]
  const goesOn = next?.sentence.block === last.sentence.block
  if (goesOn && (LEADS.test(last.sentence.text) || WAS.test(last.sentence.text))) return false
  // "Week three, on a long line." at the beginning of a paragraph announces what follows.
  if (!last.verb && earlier && earlier.sentence.block !== last.sentence.block) return false
  return !(goesOn && LIMITS.test(next.sentence.text))
}

/** Whether a person chose a passage: then it stands as it is. */
export const isByHand = ({ reasons }: Pick<FoundPassage, 'reasons'>): boolean =>
  reasons.includes('chosen by hand')

/** Whether a sentence may be taken along with a passage: it is no offer or aside, and speaks for the piece. */
export function mayFollow(stock: Stock, index: number): boolean {
  const s = stock.study.sentences[index]
  const block = s && stock.piece.blocks[s.block]
  if (!s || !block || s.furniture || (block.kind !== 'paragraph' && block.kind !== 'quotation')) return false
  const { never = 0, worth = 0 } = stock.chances.odds[index] ?? {}
  return chance(never) < NEVER && chance(worth) >= WORTH
}

/**
 * How likely readers would post a run: as the chooser says of up to three sentences, less the chance that
 * one of the further ones must not go out.
 */
export function worthOf({ chances }: Stock, { from, to }: Run): number {
  const worth = chances.ofRun(from, Math.min(to, from + 2))
  let kept = 1
  for (let i = from + 3; i <= to; i++) kept *= 1 - chance(chances.odds[i]?.never ?? 0)
  return worth * kept
}
