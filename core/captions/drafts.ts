import {
  danglingWords,
  isBalanced,
  isImperative,
  lowerFirst,
  NUMBER_WORDS,
  opensOnKnown,
  promisesList,
  readSentences,
  STOP_WORDS,
  THIRD_PERSON,
  type Token,
  turned,
  unjoined,
} from '../language'
import type { Angle, PassageKind, PieceContent, Place } from '../model'
import { endsSentence } from '../text'
import { withoutFillers } from '../speech'
import { analyse, type ReadSentence } from '../reading'
import { isBelief } from './belief'
import { isGeneral } from './hashtags'
import { headingOver } from './headings'
import { interviewOf, SPEAKS } from './interview'
import { SOMEBODY } from './material'
import { isEmptyHeading } from './titles'
import { sentenceFeatures, type SentenceFeatures } from '../study'

/** What a first sentence does: tells the reader what to do, says what is so, or tells what happened. */
export type Opens = 'order' | 'statement' | 'event' | 'other'

/** A body for a post before it is fitted: paragraphs, where they come from, and how they argue. */
export interface Draft {
  angle: Angle
  paragraphs: string[]
  spans: Place[]
  /** Whether the first words are not the piece's own order: a label or a question from a heading. */
  framed: boolean
  /** Whether it begins with "the" and a thing that the piece named before it. */
  known: boolean
  /** The short heading over its part of the piece, which may be its label; null where there is none. */
  heading: string | null
  /** What its first sentence is, which says which openers may stand before it. */
  opens: Opens
  /** Its words of substance as lemmas, by which one sees what it is about. */
  lemmas: ReadonlySet<string>
}

/** A draft of which nothing is known but its words and the place that they are of. */
export function bareDraft(angle: Angle, paragraphs: string[], { start, end }: Place): Draft {
  return {
    angle,
    paragraphs,
    spans: [{ start, end }],
    framed: false,
    known: false,
    heading: null,
    opens: 'other',
    lemmas: new Set(),
  }
}

/** A passage as the writer sees it. */
export interface Extract extends Place {
  kind: PassageKind
}

const ANGLE_OF: Readonly<Record<PassageKind, Angle>> = {
  statement: 'lesson',
  number: 'number',
  contrast: 'contrast',
  instruction: 'how-to',
  steps: 'checklist',
  story: 'story',
  definition: 'definition',
  question: 'question',
}

interface Section {
  heading: string | null
  headingPlace: Place | null
  /** Whether the first of the sentences follows right after the heading. */
  opens: boolean
  sentences: SentenceFeatures[]
}

/**
 * All the ways a passage can be said, from the piece's own sentences: as it stands, its beginning
 * alone, its strongest sentence alone or moved to the front, with its heading as a question or a
 * label, widened by the sentences around it, or opened by another sentence of its section that
 * stands alone. Every body is made of whole sentences; nothing in it points out of it.
 */
export function draftsFor(piece: PieceContent, passage: Extract): Draft[] {
  const own = allDrafts(piece, passage)
  const heading = labelOver(piece, passage)
  const drafts = [...own, ...own.flatMap((d) => reordered(d) ?? [])]
    .map((d) => ({ ...d, heading }))
    .flatMap((d) => saidBy(piece, d) ?? [])
  if (!piece.video) return drafts
  // What was said is written down without its ums.
  return drafts.map((d) => ({ ...d, paragraphs: d.paragraphs.map(withoutFillers) }))
}

/** The heading over a place where it is short, names something and points at nothing. */
function labelOver(piece: PieceContent, place: Place): string | null {
  const block = headingOver(piece, place)
  const heading = block ? piece.text.slice(block.start, block.end).trim() : ''
  const words = heading.split(/\s+/).length
  if (!block || words > 6 || heading.length < 5 || /[?.!:]$|^\d/.test(heading) || isEmptyHeading(heading))
    return null
  const tokens = analyse(piece)
    .filter((s) => s.start >= block.start && s.end <= block.end)
    .flatMap((s) => s.tokens)
  if (danglingWords(tokens, heading) !== null || !isBalanced(heading)) return null
  // It speaks for its first paragraph, and for another only where that takes its words up.
  const next = piece.blocks.find((b) => b.start > block.start && b.furniture === null)
  if (next && place.start >= next.start && place.start < next.end) return heading
  const said = new Set(
    analyse(piece)
      .filter((s) => s.start < place.end && s.end > place.start)
      .flatMap((s) => s.tokens)
      .map((t) => t.lemma),
  )
  const taken = tokens.some(
    (t) => t.word && !STOP_WORDS.has(t.lower) && !isGeneral(t.lemma) && said.has(t.lemma),
  )
  return taken ? heading : null
}

/**
 * What somebody says of himself in an interview, as a quotation with his name: in the words of the
 * brand it would be the brand that speaks. Null where nobody is named or it is no single paragraph.
 */
function saidBy(piece: PieceContent, draft: Draft): Draft | null {
  const interview = interviewOf(piece)
  const [only = '', more] = draft.paragraphs
  const own = draft.paragraphs.join('\n').replace(/“[^”]*”/g, '')
  if (!interview || !SPEAKS.test(own) || !draft.spans.some((s) => interview.answers(s))) return draft
  if (interview.name === null || more !== undefined || draft.framed || /[“”"\n]/.test(only)) return null
  return { ...draft, angle: 'quotation', opens: 'other', paragraphs: [`“${only}” — ${interview.name}`] }
}

/** The same with the first sentence's clause at its other end, where grammar is certain of it. */
function reordered(draft: Draft): Draft | null {
  const [paragraph = ''] = draft.paragraphs
  if (draft.framed || /^[“"]|\n/.test(paragraph)) return null
  const [first] = readSentences(paragraph)
  const sentence = first && paragraph.slice(first.start, first.end)
  const other = sentence ? turned(sentence) : null
  if (!sentence || !other) return null
  return { ...draft, paragraphs: [other + paragraph.slice(sentence.length), ...draft.paragraphs.slice(1)] }
}

/** A sentence that opens with a mere connective, without it; null for every other. */
function entered(f: SentenceFeatures): SentenceFeatures | null {
  if (f.dangling === null) return null
  const text = unjoined(f.sentence.text)
  if (text === null) return null
  const [read] = readSentences(text)
  return read ? sentenceFeatures({ ...f.sentence, text, tokens: read.tokens }) : null
}

function allDrafts(piece: PieceContent, passage: Extract): Draft[] {
  if (passage.kind === 'steps') return stepDrafts(piece, passage)
  const section = sectionOf(piece, passage)
  const run = section.sentences.filter(
    (f) => f.sentence.start >= passage.start && f.sentence.end <= passage.end,
  )
  const whole =
    run.length > 0 &&
    run[0]?.sentence.start === passage.start &&
    run[run.length - 1]?.sentence.end === passage.end
  // What somebody else says goes out as a quotation with the name, or not at all.
  if (saidByOther(piece, passage)) return whole ? quotationDrafts(piece, run) : []
  const angle = ANGLE_OF[passage.kind]
  if (!whole) return [bareDraft(angle, [piece.text.slice(passage.start, passage.end)], passage)]
  const drafts: Draft[] = []
  const add = (
    sentences: readonly SentenceFeatures[],
    as: Angle = angleOf(sentences, angle),
    parts = [sentences],
  ): void => {
    if (stands(sentences)) drafts.push(draftFrom(parts, as))
  }
  const at = section.sentences.indexOf(run[0] as SentenceFeatures)
  for (let length = run.length; length >= 1; length--) add(run.slice(0, length))
  // The same thought entered at a later sentence.
  for (let from = 1; from < run.length; from++) {
    const first = run[from] as SentenceFeatures
    if (opensOnKnown(first.sentence.tokens)) continue
    add([first], angleOf([first], angle))
    if (from < run.length - 1) add(run.slice(from), angleOf(run.slice(from), angle))
    const onward = section.sentences.slice(at + from, at + run.length + 2)
    if (onward.length > run.length - from && coheres(onward)) add(onward, angleOf(onward, angle))
  }
  for (let from = Math.max(0, at - 1); from < at + run.length + 2; from++) {
    const first = section.sentences[from]
    const start = first && entered(first)
    if (!start) continue
    const after = section.sentences
      .slice(from + 1, from + 3)
      .filter((f) => f.sentence.block === start.sentence.block)
    for (let more = after.length; more >= 0; more--) {
      const part = [start, ...after.slice(0, more)]
      add(part, angleOf(part, angle))
    }
  }
  const strong = run[run.length - 1]
  const rest = run.slice(0, -1)
  const next = section.sentences[at + run.length]
  const concludes = next === undefined || next.sentence.block !== strong?.sentence.block
  if (strong && concludes && canLead(strong, rest) && stands(rest))
    drafts.push(draftFrom([[strong], rest], angleOf([strong], angle)))
  for (const extra of [1, 2, 3]) {
    const wider = section.sentences.slice(at, at + run.length + extra)
    if (wider.length === run.length + extra && coheres(wider)) add(wider)
  }
  const sameBlock = (f: SentenceFeatures | undefined): boolean =>
    f !== undefined && f.sentence.block === run[0]?.sentence.block
  const before = section.sentences[at - 1]
  if (before && sameBlock(before)) add([before, ...run])
  drafts.push(...headingDrafts(piece, section, run, at))
  drafts.push(...longDrafts(section, run, angle))
  drafts.push(...questionDrafts(section, at, run.length))
  drafts.push(...quotationDrafts(piece, run))
  return drafts
}

/** Whether a place is somebody's words who is not the brand: a quotation or turn of a talk with a name. */
function saidByOther(piece: PieceContent, place: Place): boolean {
  const block = piece.blocks.find((b) => b.start <= place.start && place.start < b.end)
  return block?.kind === 'quotation' && block.speaker !== undefined
}

/** How a run of sentences argues, by what it is made of. */
export function angleOf(sentences: readonly SentenceFeatures[], fallback: Angle): Angle {
  const first = sentences[0]
  if (!first) return fallback
  if (first.question) return 'question'
  if (sentences.length >= 2 && isBelief(first.sentence.text)) return 'myth'
  const orders = sentences.filter((f) => f.imperative).length
  if (orders * 2 >= sentences.length) return orders >= 3 ? 'checklist' : 'how-to'
  const past = sentences.filter((f) => f.past).length
  if (past * 2 > sentences.length) {
    // What happened is a story; where it happened to nobody and counts, its number is the point.
    const somebody = sentences.some((f) => SOMEBODY.test(f.sentence.text) || f.names > 0)
    return !somebody && first.numbers > 0 ? 'number' : 'story'
  }
  if (first.numbers > 0) return 'number'
  if (first.definition) return 'definition'
  if (sentences.some((f) => f.contrast)) return 'contrast'
  return CARRIED.has(fallback) ? 'lesson' : fallback
}

/** Angles that a passage has by its own sentences only, not by its neighbours'. */
const CARRIED: ReadonlySet<Angle> = new Set([
  'how-to',
  'story',
  'number',
  'question',
  'checklist',
  'contrast',
  'definition',
])

/** Whether every paragraph of a run goes on about something that was named before it. */
function coheres(sentences: readonly SentenceFeatures[]): boolean {
  const said = new Set<string>()
  let block = sentences[0]?.sentence.block
  for (let i = 0; i < sentences.length; i++) {
    const f = sentences[i] as SentenceFeatures
    if (f.sentence.block !== block) {
      const part = sentences.slice(i).filter((s) => s.sentence.block === f.sentence.block)
      if (!part.some((s) => s.lemmas.some((l) => said.has(l)))) return false
      block = f.sentence.block
    }
    for (const lemma of f.lemmas) if (!isGeneral(lemma)) said.add(lemma)
  }
  return true
}

/** Words that set a sentence against the one before it. */
const LEANS = new Set('will rather instead too also either such same else other another'.split(' '))

/**
 * Whether a sentence can be taken from its place and put in front of the others: it is the last
 * of its paragraph, where conclusions stand, and says what is so in general, without a pronoun, a
 * thing known from before, or a place in an order of steps or events. The others are the
 * paragraph's sentences before it, none of which announces it.
 */
function canLead(hook: SentenceFeatures, rest: readonly SentenceFeatures[]): boolean {
  const { tokens, text, block } = hook.sentence
  if (!endsSentence(text) || !stands([hook]) || hook.past || hook.imperative || opensOnKnown(tokens))
    return false
  if (tokens.some((t) => LEANS.has(t.lower))) return false
  // "In summer the sun would melt it": one in a row of events, or of things only imagined.
  if (tokens[0]?.pos === 'ADP' || tokens.some((t) => t.lower === 'would')) return false
  const said = new Set(rest.flatMap((f) => f.lemmas))
  if (!hook.lemmas.some((l) => said.has(l) && !isGeneral(l))) return false
  if (text.split(/\s+/).length < 5 || tokens.some((t) => THIRD_PERSON.has(t.lower))) return false
  const end = rest[rest.length - 1]
  return (
    rest.length >= 2 &&
    rest.every((f) => f.sentence.block === block && f.sentence.end <= hook.sentence.start && !f.question) &&
    end !== undefined &&
    !promisesList(end.sentence.text)
  )
}

const ANNOUNCES =
  /^(?:now|next|then|week|day|step|part|first|second|third|finally|last|the (?:first|second|third|last|next))\b/i

/** Whether a run reads as a whole: nothing dangles, no caveat is cut off, it ends on a statement. */
function stands(sentences: readonly SentenceFeatures[]): boolean {
  const first = sentences[0]
  const last = sentences[sentences.length - 1]
  if (
    !first ||
    !last ||
    first.dangling !== null ||
    !first.verb ||
    last.question ||
    // "Week three, on a long line." at the beginning of a paragraph announces what follows.
    (!last.verb &&
      sentences.length > 1 &&
      sentences[sentences.length - 2]?.sentence.block !== last.sentence.block) ||
    // A belief alone would be told as if it were so.
    isBelief(last.sentence.text) ||
    promisesList(last.sentence.text)
  )
    return false
  // A line without an end runs into the next where paragraphs are joined.
  if (sentences.slice(0, -1).some((f) => !endsSentence(f.sentence.text))) return false
  // "Now the inside.", "Week four, in a field.": it announces what may not follow.
  if (sentences.some((f) => !f.verb && ANNOUNCES.test(f.sentence.text))) return false
  if (sentences.some((f) => f.ageing !== null || /[:;,–-]$/.test(f.sentence.text))) return false
  let before: ReadSentence['tokens'] = [...first.sentence.tokens]
  for (const f of sentences.slice(1)) {
    if (danglingWords(f.sentence.tokens, f.sentence.text, before) !== null) return false
    before = [...before, ...f.sentence.tokens]
  }
  return isBalanced(sentences.map((f) => f.sentence.text).join(' '))
}

/** Joins sentences to paragraphs; neighbours in one block run on, a new block begins a paragraph. */
function draftFrom(parts: readonly (readonly SentenceFeatures[])[], angle: Angle): Draft {
  const paragraphs: string[] = []
  const spans: Place[] = []
  for (const part of parts) {
    let block = -1
    let open = false
    for (const { sentence } of part) {
      const { text } = sentence
      const last = spans[spans.length - 1]
      if (open && sentence.block === block) {
        paragraphs[paragraphs.length - 1] += ` ${text}`
        if (last) last.end = sentence.end
      } else {
        paragraphs.push(text)
        spans.push({ start: sentence.start, end: sentence.end })
      }
      block = sentence.block
      open = true
    }
  }
  const first = parts[0]?.[0]
  const known = first !== undefined && opensOnKnown(first.sentence.tokens)
  const lemmas = new Set(parts.flat().flatMap((f) => f.lemmas))
  return {
    angle,
    paragraphs,
    spans,
    framed: false,
    known,
    heading: null,
    opens: first ? opensAs(first) : 'other',
    lemmas,
  }
}

function opensAs(first: SentenceFeatures): Draft['opens'] {
  if (first.imperative) return 'order'
  if (first.past) return SOMEBODY.test(first.sentence.text) || first.names > 0 ? 'event' : 'other'
  const own = /\b(?:I|we|my|our|us|me)\b/i.test(first.sentence.text)
  return first.question || own || first.sentence.tokens[0]?.pos === 'PROPN' ? 'other' : 'statement'
}

/**
 * Questions that the text answers: "What is a scarf?" before its definition, and "Do you … ?" made
 * of an order that is followed by its reason. Both are the piece's words in a question's order.
 */
function questionDrafts(section: Section, at: number, length: number): Draft[] {
  const run = section.sentences.slice(at, at + length)
  const [first, ...after] = run
  if (!first) return []
  const framed = (question: string, sentences: readonly SentenceFeatures[], angle: Angle): Draft => {
    const body = draftFrom([sentences], angle)
    return {
      ...body,
      paragraphs: [`${question} ${body.paragraphs[0] ?? ''}`, ...body.paragraphs.slice(1)],
      framed: true,
      known: false,
      opens: 'other',
    }
  }
  const found: Draft[] = []
  const defined = first.definition
    ? /^((?:An?|The) [\p{Ll}][\p{Ll} -]{2,40}?) is an? /u.exec(first.sentence.text)?.[1]
    : undefined
  if (defined && stands(run))
    found.push(framed(`What is ${defined.charAt(0).toLowerCase()}${defined.slice(1)}?`, run, 'definition'))
  const rest = after.length
    ? after
    : section.sentences.slice(at + 1, at + 3).filter((f) => f.sentence.block === first.sentence.block)
  const reason = rest[0]
  const asked = askedOf(first)
  if (asked && reason && !reason.imperative && !reason.question && stands([first, ...rest])) {
    const body = draftFrom([rest], 'question')
    found.push({
      ...body,
      paragraphs: [`${asked} ${body.paragraphs[0] ?? ''}`, ...body.paragraphs.slice(1)],
      spans: draftFrom([[first, ...rest]], 'question').spans,
      framed: true,
      known: false,
      opens: 'other',
      lemmas: new Set([...first.lemmas, ...body.lemmas]),
    })
  }
  return found
}

/** "Name a turning time before breakfast." as "Do you name a turning time before breakfast?", or null. */
function askedOf(f: SentenceFeatures): string | null {
  const { tokens, text } = f.sentence
  const [verb] = tokens
  if (!f.imperative || !verb || verb.pos !== 'VERB' || verb.lower !== verb.lemma) return null
  if (f.dangling !== null || text.length > 100 || /[,:;“”"()–]|\byourself\b/.test(text) || !/\.$/.test(text))
    return null
  if (
    /^(?:let|imagine|think|remember|note|look|see|take care|suppose|consider|say|please|bring|thank|enjoy)\b/i.test(
      text,
    )
  )
    return null
  return `Do you ${text.charAt(0).toLowerCase()}${text.slice(1, -1)}?`
}

/** The same for a sentence by itself, as it stands in a caption. */
export function askedSentence(sentence: string): string | null {
  const [read, more] = readSentences(sentence)
  return read && !more ? askedOf(sentenceFeatures({ ...read, text: sentence, block: 0 })) : null
}

/** What somebody said, with who said it; and one striking sentence of the author's as a quotation. */
function quotationDrafts(piece: PieceContent, run: readonly SentenceFeatures[]): Draft[] {
  const block = piece.blocks[run[0]?.sentence.block ?? -1]
  const speaker = block?.kind === 'quotation' ? (block.speaker ?? null) : null
  const found: Draft[] = []
  const quoted = (sentences: readonly SentenceFeatures[], who: string): void => {
    const body = draftFrom([sentences], 'quotation')
    if (body.paragraphs.length !== 1 || /[“”"]/.test(body.paragraphs[0] ?? '')) return
    found.push({ ...body, paragraphs: [`“${body.paragraphs[0] ?? ''}” — ${who}`], opens: 'other' })
  }
  if (speaker) quoted(run, speaker)
  const [only] = run
  const author = piece.author?.trim()
  // Who says "I" in an interview is not who wrote it.
  const others = piece.blocks.filter(
    (b) => b.kind === 'quotation' || (b.kind === 'heading' && piece.text.slice(b.start, b.end).endsWith('?')),
  )
  if (
    !speaker &&
    author &&
    others.length < 2 &&
    run.length === 1 &&
    only &&
    !only.imperative &&
    !only.question &&
    !piece.video &&
    !/\b(?:I|me|my)\b/.test(only.sentence.text)
  ) {
    const { length } = only.sentence.text
    if (length >= 40 && length <= 150 && stands(run) && !opensOnKnown(only.sentence.tokens))
      quoted(run, author)
  }
  return found
}

const ASKS =
  /^(?!do not\b|don[’']t\b)(how|what|why|when|where|which|who|whose|should|can|do|does|is|are|will)\b/i

/** A heading that asks, followed by its answer; or a short heading as the label of instructions. */
function headingDrafts(
  piece: PieceContent,
  section: Section,
  run: readonly SentenceFeatures[],
  at: number,
): Draft[] {
  const { heading, headingPlace } = section
  if (!heading || !headingPlace || at !== 0 || !section.opens) return []
  const first = run[0]
  if (!first || first.question) return []
  const words = heading.replace(/[?.!:]+$/, '').split(/\s+/)
  const tokens = analyse(piece)
    .filter((s) => s.start >= headingPlace.start && s.end <= headingPlace.end)
    .flatMap((s) => s.tokens)
  const dangles = danglingWords(tokens, heading)
  if (dangles !== null || /^\d/.test(heading) || words.length > 9) return []
  const found: Draft[] = []
  for (let length = run.length; length >= 1; length--) {
    const part = run.slice(0, length)
    if (!stands(part)) continue
    const body = draftFrom([part], angleOf(part, 'lesson'))
    const withHeading = (opener: string, angle: Angle): Draft => ({
      ...body,
      opens: 'other',
      angle,
      paragraphs: [`${opener} ${body.paragraphs[0] ?? ''}`, ...body.paragraphs.slice(1)],
      spans: [{ ...headingPlace }, ...body.spans],
      known: false,
    })
    const statement = asSentence(heading, tokens)
    if (statement) {
      found.push({ ...withHeading(statement, part[0]?.imperative ? 'how-to' : 'lesson') })
      found.push({
        ...withHeading(statement, part[0]?.imperative ? 'how-to' : 'lesson'),
        paragraphs: [statement, ...body.paragraphs],
      })
    }
    const asks = ASKS.test(heading) && words.length >= 3 && !isClause(words, tokens)
    if (asks) found.push(withHeading(`${words.join(' ')}?`, 'question'))
    else if (
      words.length >= 2 &&
      words.length <= 5 &&
      part.some((f) => f.imperative) &&
      /^(before|after|when|for|with|without|where|in|on|at|how to)\b/i.test(heading) &&
      !/[.?!]$/.test(heading)
    )
      found.push({
        ...withHeading(`${words.join(' ')}:`, 'how-to'),
        paragraphs: [
          `${words.join(' ')}: ${lowerFirst(body.paragraphs[0] ?? '')}`,
          ...body.paragraphs.slice(1),
        ],
      })
  }
  return found
}

/** A heading that is a sentence without its full stop, "Wear is not damage", as one; null for any other. */
function asSentence(heading: string, tokens: readonly Token[]): string | null {
  if (/[?:.!]$/.test(heading) || ASKS.test(heading) || heading.split(/\s+/).length < 4) return null
  if (
    /^(?:before|after|when|if|while|for|with|without|as|in|on|at|from|to|the \w+ (?:everyone|everybody|you|we|that|who))\b/i.test(
      heading,
    )
  )
    return null
  const finite =
    tokens.some((t) => t.pos === 'AUX' && !/^(?:to|be|been|being)$/.test(t.lower)) || isImperative(tokens)
  return finite && !/\bto$/.test(heading) ? `${heading}.` : null
}

/**
 * "What it teaches", "Why we scarf" and "How long an oar should be" are noun clauses: with a
 * question mark they are no question. "How much cotton" and "How much is too much" are.
 */
function isClause(words: readonly string[], tokens: readonly Token[]): boolean {
  const [head, second, third] = words.map((w) => w.toLowerCase())
  const asks = (word: string | undefined): boolean =>
    /^(is|are|was|were|do|does|did|can|could|should|would|will|has|have)$/.test(word ?? '')
  if (head === 'how')
    return !asks(second) && !asks(third) && tokens.some((t) => t.pos === 'VERB' || t.pos === 'AUX')
  if (!head || !/^(what|why|when|where|which|who)$/.test(head)) return false
  return !asks(second)
}

/**
 * Long bodies for networks that like them: a hook that stands alone, then short paragraphs of
 * what follows it, or the paragraph's conclusion moved to the front and then what leads to it.
 * Beyond that the piece's own order is kept.
 */
function longDrafts(section: Section, run: readonly SentenceFeatures[], angle: Angle): Draft[] {
  const found: Draft[] = []
  const from = section.sentences.indexOf(run[0] as SentenceFeatures)
  const add = (hook: SentenceFeatures, body: readonly SentenceFeatures[]): void => {
    const parts = [[hook], ...inPairs(body)]
    if (body.length < 2 || parts.length < 3 || parts.length > 6 || !coheres(parts.flat())) return
    const orders = body.filter((f) => f.imperative).length
    found.push(
      draftFrom(parts, hook.imperative && orders >= 2 ? 'checklist' : angleOf([hook, ...body], angle)),
    )
  }
  for (const start of [from - 2, from - 1, from, from + 1]) {
    const hook = section.sentences[start]
    if (!hook || hook.question || hook.sentence.text.length > 200 || !stands([hook])) continue
    const before = section.sentences[start - 1]
    // Orders are followed in order: none begins where an earlier one was left behind.
    if (hook.imperative && before?.imperative && before.sentence.block === hook.sentence.block) continue
    for (const extra of [5, 4, 3, 2, 1, 0]) {
      const body = section.sentences.slice(start + 1, from + run.length + extra)
      if (body.length < from + run.length + extra - start - 1 || !stands([hook, ...body])) continue
      add(hook, body)
      break
    }
  }
  const block = run[0]?.sentence.block
  const paragraph = section.sentences.filter((f) => f.sentence.block === block)
  const last = paragraph[paragraph.length - 1]
  const rest = paragraph.slice(0, -1)
  if (last && last.sentence.text.length <= 200 && canLead(last, rest) && stands(rest)) add(last, rest)
  return found
}

/** Breaks a body into paragraphs of one or two sentences, never before one that leans on the last. */
function inPairs(body: readonly SentenceFeatures[]): SentenceFeatures[][] {
  const parts: SentenceFeatures[][] = []
  for (const f of body) {
    const open = parts[parts.length - 1]
    const leans = f.dangling !== null || !f.verb
    const joined = open && open[open.length - 1]?.sentence.block === f.sentence.block
    if (open && joined && (open.length < 2 || (leans && open.length < 3))) open.push(f)
    else parts.push([f])
  }
  return parts
}

/** Index of the chapter of a talk in which a block is spoken; 0 for what is read. */
function chapterOf(piece: PieceContent, block: number): number {
  const from = piece.video ? piece.sentences.find((s) => s.block === block)?.from : undefined
  return from === undefined ? 0 : (piece.video?.chapters.filter((c) => c.at <= from + 0.5).length ?? 0)
}

/**
 * The running paragraphs around a place: up to its heading, and broken by whatever is not running
 * text; of a talk, by another voice and another chapter.
 */
function sectionOf(piece: PieceContent, place: Place): Section {
  const block = piece.blocks.findIndex((b) => b.start <= place.start && place.start < b.end)
  const chapter = chapterOf(piece, block)
  const runs = (i: number): boolean => {
    const b = piece.blocks[i]
    return (
      b !== undefined &&
      b.furniture === null &&
      (b.kind === 'paragraph' || b.kind === 'quotation') &&
      b.speaker === piece.blocks[block]?.speaker &&
      chapterOf(piece, i) === chapter
    )
  }
  let top = block
  while (top >= 0 && piece.blocks[top]?.kind !== 'heading') top--
  let first = block
  while (runs(first - 1)) first--
  let end = block + 1
  while (runs(end)) end++
  const heading = top >= 0 ? piece.blocks[top] : undefined
  return {
    heading: heading ? piece.text.slice(heading.start, heading.end) : null,
    headingPlace: heading ? { start: heading.start, end: heading.end } : null,
    opens: first === top + 1,
    sentences: analyse(piece)
      .filter((s) => s.block >= first && s.block < end && runs(s.block))
      .map((s) => sentenceFeatures(s)),
  }
}

/** Whether a heading may stand over a list: it names no other count than the list has. */
function mayHead(heading: string, count: number): boolean {
  return heading
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter((w) => w !== 'first' && w !== 'second' && w !== 'once' && w !== 'one')
    .every((w) => {
      const number = NUMBER_WORDS[w] ?? (/^\d+$/.test(w) ? Number(w) : null)
      return number === null || number === count
    })
}

/** A list with its lead-in or its heading, whole: one step a line, numbered where the piece does. */
function stepDrafts(piece: PieceContent, passage: Extract): Draft[] {
  const blocks = piece.blocks.filter((b) => b.start < passage.end && b.end > passage.start)
  const items = blocks.filter((b) => b.kind === 'item')
  const first = items[0]
  if (!first) return []
  const leadText =
    blocks[0] && blocks[0].kind !== 'item'
      ? piece.text.slice(Math.max(blocks[0].start, passage.start), blocks[0].end)
      : null
  const section = sectionOf(piece, first)
  const title = [section.heading, piece.title].find((t) => t !== null && mayHead(t, items.length))
  if (!leadText && !title) return []
  const lead = leadText ?? `${title?.replace(/[.:!?]+$/, '') ?? ''}:`
  const ordered = first.list?.ordered ?? false
  const lines = items.map((b, i) => `${ordered ? `${i + 1}.` : '–'} ${piece.text.slice(b.start, b.end)}`)
  const spans = [
    ...(leadText === null && section.headingPlace && lead.startsWith(section.heading?.slice(0, 5) ?? '?')
      ? [section.headingPlace]
      : []),
    { start: passage.start, end: passage.end },
  ]
  const drafts: Draft[] = [
    {
      angle: 'checklist',
      paragraphs: [lead, lines.join('\n')],
      spans,
      framed: leadText === null,
      known: false,
      heading: null,
      opens: 'other',
      lemmas: new Set(items.flatMap((b) => featuresIn(piece, b)).flatMap((f) => f.lemmas)),
    },
  ]
  const alone = (ordered ? [] : items)
    .map((b) => featuresIn(piece, b))
    .filter(
      (run) =>
        run.length > 0 &&
        stands(run) &&
        run.every((f) => isImperative(f.sentence.tokens)) &&
        run.reduce((n, f) => n + f.sentence.text.length, 0) >= 40,
    )
  for (const run of alone) drafts.push(draftFrom([run], 'how-to'))
  return drafts
}

function featuresIn(piece: PieceContent, place: Place): SentenceFeatures[] {
  return analyse(piece)
    .filter((s) => s.start >= place.start && s.end <= place.end)
    .map((s) => sentenceFeatures(s))
}
