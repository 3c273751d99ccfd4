import { angleOf } from '../../angles'
import { opensOnKnown, THIRD_PERSON } from '../../language'
import type { FoundPassage, Place } from '../../model'
import { chance } from '../../passages'
import type { Draft } from '../../setting'
import { withoutFillers } from '../../speech'
import { endsSentence } from '../../text'
import { featuresOf, runAt, type Run, type Stock } from '../stock'
import { isByHand, isWhole, mayFollow, worthOf } from '../whole'

/** How far a passage is widened: sentences, characters, and paragraphs of the piece. */
const MOST = { sentences: 8, characters: 1300, blocks: 3 }

/** How surely a sentence must stand alone to open in place of the passage's own first. */
const ALONE = 0.4

/**
 * A passage in the author's own sentences, untouched and in their order: as it stands, entered earlier or
 * later, widened by what follows it, and once with the conclusion of its paragraph told first. Each is a
 * whole thought. One that a person chose always stands.
 */
export function runDrafts(stock: Stock, passage: Place & Pick<FoundPassage, 'reasons'>): Draft[] {
  const own = runAt(stock, passage)
  const byHand = isByHand(passage)
  if (!own) return byHand ? [cutOut(stock, passage)] : []
  const runs = extentsOf(stock, own).filter(
    (run) => isWhole(stock, run) || (byHand && run.from === own.from && run.to === own.to),
  )
  const led = ledBy(stock, own)
  return [...runs.map((run) => runDraft(stock, run)), ...(led ? [led] : [])]
}

/** A stretch that a person cut out of the text, whatever its ends. */
function cutOut({ piece }: Stock, { start, end }: Place): Draft {
  return {
    angle: 'lesson',
    paragraphs: [{ kind: 'prose', sentences: [piece.text.slice(start, end)] }],
    spans: [{ start, end }],
    worth: 0.5,
    whole: false,
  }
}

/** The runs that say a passage: its beginnings and endings inside it, and around it. */
function extentsOf(stock: Stock, own: Run): Run[] {
  const { sentences } = stock.study
  const block = sentences[own.from]?.block
  const found: Run[] = []
  const add = (from: number, to: number): void => {
    found.push({ from, to })
  }
  // Entered before the passage, at it, or inside it.
  for (let from = own.from; from >= 0 && sentences[from]?.block === block; from--) {
    if (from < own.from && !mayOpen(stock, from)) {
      if (!mayFollow(stock, from)) break
      continue
    }
    for (const to of endsOf(stock, from, own)) add(from, to)
  }
  for (let from = own.from + 1; from <= own.to; from++)
    if (mayOpen(stock, from)) for (const to of endsOf(stock, from, own)) add(from, to)
  return found
}

const mayOpen = (stock: Stock, index: number): boolean =>
  mayFollow(stock, index) && chance(stock.chances.odds[index]?.alone ?? 0) >= ALONE

/** Where a run may end that begins at a sentence: inside the passage and, sentence by sentence, behind it. */
function endsOf(stock: Stock, from: number, own: Run): number[] {
  const { sentences } = stock.study
  const first = sentences[from]
  const found: number[] = []
  let blocks = 1
  for (let to = from; to < from + MOST.sentences; to++) {
    const s = sentences[to]
    if (!first || !s || s.end - first.start > MOST.characters) break
    if (to > own.to && !mayFollow(stock, to)) break
    if (s.block !== sentences[to - 1]?.block && to > from) {
      if (++blocks > MOST.blocks || !coheres(stock, from, to)) break
    }
    // Before the passage's own end only where the passage itself begins there, or it would say something else.
    if (to >= own.to || from >= own.from) found.push(to)
  }
  return found
}

/** Whether the paragraph that begins at a sentence goes on about something named in the run before it. */
function coheres({ study, piece }: Stock, from: number, to: number): boolean {
  const [before, next] = [study.sentences[to - 1], study.sentences[to]]
  if (!before || !next || next.section !== before.section) return false
  if (piece.blocks[next.block]?.speaker !== piece.blocks[before.block]?.speaker) return false
  const said = new Set(study.sentences.slice(from, to).flatMap((s) => s.lemmas))
  return study.sentences.some((s) => s.block === next.block && s.lemmas.some((l) => said.has(l)))
}

/** A run as a draft: a paragraph of the piece is one here. */
export function runDraft(stock: Stock, run: Run): Draft {
  const { piece, study } = stock
  const paragraphs: { kind: 'prose'; sentences: string[] }[] = []
  const spans: { start: number; end: number }[] = []
  let block = -1
  for (const s of study.sentences.slice(run.from, run.to + 1)) {
    // What was said is written down without its ums.
    const text = piece.video ? withoutFillers(s.text) : s.text
    const [paragraph, span] = [paragraphs[paragraphs.length - 1], spans[spans.length - 1]]
    if (paragraph && span && s.block === block) {
      paragraph.sentences.push(text)
      span.end = s.end
    } else {
      paragraphs.push({ kind: 'prose', sentences: [text] })
      spans.push({ start: s.start, end: s.end })
    }
    block = s.block
  }
  return {
    angle: angleOf(featuresOf(stock, run)),
    paragraphs,
    spans,
    worth: worthOf(stock, run) * (isUnfinished(stock, run) ? UNFINISHED : 1),
    whole: false,
  }
}

/** What a story is worth that goes on behind its last sentence: its point may be there. */
const UNFINISHED = 0.8

/** Whether a run tells what happened and its paragraph goes on telling. */
function isUnfinished(stock: Stock, run: Run): boolean {
  const [last, next] = [stock.features[run.to], stock.features[run.to + 1]]
  return (
    angleOf(featuresOf(stock, run)) === 'story' &&
    next?.sentence.block === last?.sentence.block &&
    (next?.past ?? false)
  )
}

/** What is lost by telling the conclusion before what leads to it. */
const LED = 0.95

/** So surely must a conclusion be posted by itself to be told first. */
const LEADS = 0.5

/** Words that set a sentence against the one before it. */
const AGAINST = new Set('will rather instead too also either such same else other another'.split(' '))

/**
 * A paragraph's conclusion first, then what leads to it: where the last sentence stands alone, says what is
 * so in general without a pronoun, takes up the words of the others, and none of them announces it.
 */
function ledBy(stock: Stock, own: Run): Draft | null {
  const { study, features } = stock
  const { block } = study.sentences[own.from] ?? {}
  let end = own.from
  while (study.sentences[end + 1]?.block === block) end++
  const [hook, f] = [study.sentences[end], features[end]]
  const rest = { from: own.from, to: end - 1 }
  // What is told first has to end like a sentence, which a paragraph's last one need not.
  if (
    !hook ||
    !f ||
    !endsSentence(hook.text) ||
    rest.to - rest.from < 1 ||
    rest.to - rest.from > 3 ||
    !mayOpen(stock, end)
  )
    return null
  if (f.past || f.imperative || hook.words.length < 5 || hook.tokens[0]?.pos === 'ADP') return null
  if (hook.tokens.some((t) => AGAINST.has(t.lower) || THIRD_PERSON.has(t.lower) || t.lower === 'would'))
    return null
  const said = new Set(study.sentences.slice(rest.from, end).flatMap((s) => s.lemmas))
  if (!hook.lemmas.some((l) => said.has(l)) || opensOnKnown(hook.tokens)) return null
  if (
    worthOf(stock, { from: end, to: end }) < LEADS ||
    !isWhole(stock, rest) ||
    !isWhole(stock, { from: end, to: end })
  )
    return null
  const [first, then] = [runDraft(stock, { from: end, to: end }), runDraft(stock, rest)]
  return {
    ...first,
    paragraphs: [...first.paragraphs, ...then.paragraphs],
    spans: [...first.spans, ...then.spans],
    worth: Math.min(first.worth, then.worth) * LED,
  }
}
