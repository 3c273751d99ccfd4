import { ANGLES, type Angle, type Block, type PieceContent, type Place } from '../model'
import { isBelief, isImperative, rarity } from '../language'
import { quantitiesIn } from '../judging'
import { termsOf } from '../setting'
import { sentenceFeatures, type SentenceFeatures, type Study } from '../study'
import { interviewOf } from './interview'

/** Words of everyday English name no subject of their own: up to this rarity. */
const GENERAL = 9
const isGeneral = (lemma: string): boolean => rarity(lemma) < GENERAL

/** What an angle can be made of. */
export const MATERIAL_KINDS = [
  'goal',
  'instruction',
  'steps',
  'number',
  'contrast',
  'belief',
  'question',
  'definition',
  'quotation',
  'anecdote',
  'lesson',
  'warning',
  'cost',
  'time',
  'claim',
  'phrase',
] as const
export type MaterialKind = (typeof MATERIAL_KINDS)[number]

/** A thing of that kind in a piece: where it stands, and what of it a reader would note down. */
export interface Material extends Place {
  kind: MaterialKind
  /** The words that make it one: the goal, the number with its unit, the speaker, the belief. */
  says: string
  /** What belongs to it elsewhere: the answer of a question, what is true instead of a belief. */
  with?: Place
}

/** The angles that each kind of material can carry. */
const CARRIES: Readonly<Record<MaterialKind, readonly Angle[]>> = {
  goal: ['how-to'],
  instruction: ['how-to', 'question'],
  steps: ['checklist', 'how-to'],
  number: ['number'],
  contrast: ['contrast'],
  belief: ['myth'],
  question: ['question'],
  definition: ['definition'],
  quotation: ['quotation'],
  anecdote: ['story'],
  lesson: ['lesson', 'question'],
  warning: ['lesson', 'how-to', 'question'],
  cost: ['number'],
  time: ['number'],
  claim: ['lesson', 'quotation'],
  phrase: [],
}

/**
 * All the material of a piece for its captions, each with its exact place, in the order of the
 * text; furniture has none. By the form of sentences and their parts of speech, so something that
 * says it in an unusual way is missed rather than something made up.
 */
export function materialOf(study: Study): Material[] {
  const { piece } = study
  const terms = termsOf(study)
  const features = study.sentences
    .filter((s) => !s.furniture)
    .map((s) => sentenceFeatures(s, piece.publishedAt))
  return [
    ...goals(piece),
    ...steps(piece, features),
    ...features.filter((f) => f.imperative).map((f) => of('instruction', f)),
    ...quantities(features),
    ...features.filter((f) => f.contrast).map((f) => of('contrast', f)),
    ...beliefs(features),
    ...questions(piece, features),
    ...features.filter((f) => f.definition && f.dangling === null).map((f) => of('definition', f)),
    ...quotations(piece, features),
    ...anecdotes(features),
    ...lessons(piece, features),
    ...claim(piece, features, terms),
    ...phrases(piece, terms),
  ].sort((a, b) => a.start - b.start || MATERIAL_KINDS.indexOf(a.kind) - MATERIAL_KINDS.indexOf(b.kind))
}

/** The angles for which a piece, or a place in it, holds material, in the order of `ANGLES`. */
export function anglesOf(study: Study, places?: readonly Place[]): Angle[] {
  const inside = ({ start, end }: Place): boolean =>
    places === undefined || places.some((p) => start < p.end && end > p.start)
  const carried = new Set(
    materialOf(study)
      .filter((m) => inside(m) || (m.with !== undefined && inside(m.with)))
      .flatMap((m) => CARRIES[m.kind]),
  )
  return ANGLES.filter((a) => carried.has(a))
}

const of = (kind: MaterialKind, { sentence }: SentenceFeatures, says = sentence.text): Material => ({
  kind,
  start: sentence.start,
  end: sentence.end,
  says,
})

const textOf = (piece: PieceContent, { start, end }: Place): string => piece.text.slice(start, end)

/** "How to …" and gerunds over a part: what somebody wants to get done. */
function goals(piece: PieceContent): Material[] {
  const found: Material[] = []
  for (const block of piece.blocks) {
    if (block.furniture !== null) continue
    const text = textOf(piece, block)
    const gerund =
      block.kind === 'heading' &&
      /^(?!(?:morning|evening|spring|nothing|something|during)\b)[A-Z][a-z]+ing\b/.test(text)
    if (gerund) found.push({ kind: 'goal', start: block.start, end: block.end, says: text })
    for (const match of text.matchAll(/\bhow to (?!do (?:it|that|this)\b)[a-z]+(?: [\p{L}’'-]+){1,7}/giu))
      found.push({
        kind: 'goal',
        start: block.start + match.index,
        end: block.start + match.index + match[0].length,
        says: match[0],
      })
  }
  return found
}

/** Lists, runs of orders, and headings that tell what to do one after the other. */
function steps(piece: PieceContent, features: readonly SentenceFeatures[]): Material[] {
  const found: Material[] = []
  const add = (from: Place | undefined, to: Place | undefined, count: number): void => {
    if (from && to) found.push({ kind: 'steps', start: from.start, end: to.end, says: `${count} steps` })
  }
  const lists = new Map<number, Block[]>()
  for (const block of piece.blocks)
    if (block.list && block.furniture === null)
      lists.set(block.list.id, [...(lists.get(block.list.id) ?? []), block])
  for (const items of lists.values())
    if (items.length >= 2) add(items[0], items[items.length - 1], items.length)
  let run: SentenceFeatures[] = []
  let between = 0
  const close = (): void => {
    if (run.length >= 2) add(run[0]?.sentence, run[run.length - 1]?.sentence, run.length)
    run = []
  }
  for (const f of features) {
    const before = run[run.length - 1]
    if (before && f.sentence.block > before.sentence.block + 1) close()
    if (f.imperative) {
      // One sentence that explains may stand between two orders.
      if (between > 1) close()
      between = 0
      run.push(f)
    } else between++
  }
  close()
  const orders = features.filter(
    (f) => piece.blocks[f.sentence.block]?.kind === 'heading' && isImperative(f.sentence.tokens),
  )
  if (orders.length >= 3) add(orders[0]?.sentence, orders[orders.length - 1]?.sentence, orders.length)
  return found
}

const MONEY = /(?:[€£$]\s?\d[\d,.]*|\b\d[\d,.]* ?(?:euros?|pounds|dollars|cents|crowns|francs)\b)/i
const DURATION = new Set(
  'second seconds minute minutes hour hours day days night nights week weekend weekends weeks month months year years decade decades'.split(
    ' ',
  ),
)

/** Numbers with what they count; costs and times by their unit. */
function quantities(features: readonly SentenceFeatures[]): Material[] {
  return features.flatMap((f) => {
    const found: Material[] = []
    const money = MONEY.exec(f.sentence.text)
    if (money) found.push(of('cost', f, money[0]))
    for (const { words, after } of quantitiesIn(f.sentence.text)) {
      const unit = /^[ -]?([\p{L}%°]+)/u.exec(after)?.[1] ?? ''
      const says = `${words}${unit && !words.endsWith(unit) ? `${after.startsWith('-') ? '-' : ' '}${unit}` : ''}`
      if (DURATION.has(unit.toLowerCase())) found.push(of('time', f, says))
      found.push(of('number', f, says))
    }
    if (found.length === 0 && f.numbers > 0) found.push(of('number', f, f.sentence.text))
    return found
  })
}

/** What people believe, with the sentences after it that put it right. */
function beliefs(features: readonly SentenceFeatures[]): Material[] {
  return features.flatMap((f, i) => {
    const next = features[i + 1]
    if (!isBelief(f.sentence.text)) return []
    const corrects = next && next.sentence.block <= f.sentence.block + 1 && !isBelief(next.sentence.text)
    return corrects ? [{ ...of('belief', f), with: place(next) }] : []
  })
}

const place = ({ sentence: { start, end } }: SentenceFeatures): Place => ({ start, end })

/** Questions, and headings that ask, with the sentence that answers them. */
function questions(piece: PieceContent, features: readonly SentenceFeatures[]): Material[] {
  return features.flatMap((f, i) => {
    const answer = features[i + 1]
    if (!f.question && !asksAsHeading(piece, f)) return []
    return answer && !answer.question ? [{ ...of('question', f), with: place(answer) }] : []
  })
}

function asksAsHeading(piece: PieceContent, { sentence }: SentenceFeatures): boolean {
  return (
    piece.blocks[sentence.block]?.kind === 'heading' &&
    /^(?:how|what|why|when|where|which|who|should|can|do|does|is|are)\b/i.test(sentence.text)
  )
}

/** What somebody says: quotations with a speaker, or between marks with who said it. */
function quotations(piece: PieceContent, features: readonly SentenceFeatures[]): Material[] {
  const blocks = piece.blocks.flatMap((b): Material[] =>
    b.kind === 'quotation' && b.furniture === null
      ? [{ kind: 'quotation', start: b.start, end: b.end, says: b.speaker ?? '' }]
      : [],
  )
  const interview = interviewOf(piece)
  const answers = interview?.name
    ? piece.blocks.flatMap((b): Material[] =>
        b.kind === 'paragraph' && b.furniture === null && interview.answers(b)
          ? [{ kind: 'quotation', start: b.start, end: b.end, says: interview.name ?? '' }]
          : [],
      )
    : []
  const spoken = features.flatMap((f) => {
    const said = /“[^”]{8,}”|"[^"]{8,}"/.exec(f.sentence.text)
    const who =
      /\b(\p{Lu}[\p{L}’-]+(?: \p{Lu}[\p{L}’-]+)?|he|she|they|I|we) (?:says?|said|asks?|asked|writes?|wrote|told|answered)\b/u.exec(
        f.sentence.text,
      )
    return said && who ? [of('quotation', f, who[1])] : []
  })
  return [...blocks, ...answers, ...spoken]
}

/** What happened to somebody. */
function anecdotes(features: readonly SentenceFeatures[]): Material[] {
  const found: Material[] = []
  let run: SentenceFeatures[] = []
  const close = (): void => {
    const [first] = run
    const last = run[run.length - 1]
    const past = run.filter((f) => f.past).length
    if (first && last && past >= 1) found.push({ ...of('anecdote', first), end: last.sentence.end })
    run = []
  }
  for (const f of features) {
    if (run.length && run[0]?.sentence.block !== f.sentence.block) close()
    // One sentence of what is so may stand within a story.
    if (f.past || (run.length > 0 && run[run.length - 1]?.past)) run.push(f)
    else close()
  }
  close()
  return found
}

const WARNS =
  /^(?:never|do not|don[’']t|beware|avoid|watch out)\b|\b(?:danger(?:ous)?|careful|too late|at your (?:own )?risk|will (?:crack|break|burn|ruin|kill))\b/i

/** What is so in general, and what to beware of: flat statements that stand alone. */
function lessons(piece: PieceContent, features: readonly SentenceFeatures[]): Material[] {
  return features.flatMap((f) => {
    const { kind } = piece.blocks[f.sentence.block] ?? {}
    if (kind !== 'paragraph' && kind !== 'quotation' && kind !== 'item') return []
    if (WARNS.test(f.sentence.text)) return [of('warning', f)]
    return f.verb && !f.question && !f.imperative && !f.past && !isBelief(f.sentence.text)
      ? [of('lesson', f)]
      : []
  })
}

/**
 * The claim of a piece in one sentence: of those that stand alone and say what is so, the one whose
 * words come most often in the piece and in its title (after Nenkova and Vanderwende 2005), with
 * some weight for the beginning and the end, where claims are made.
 */
function claim(
  piece: PieceContent,
  features: readonly SentenceFeatures[],
  terms: readonly string[],
): Material[] {
  const counts = new Map<string, number>()
  for (const f of features)
    for (const l of f.lemmas) if (!isGeneral(l)) counts.set(l, (counts.get(l) ?? 0) + 1)
  const named = new Set(terms.flatMap((p) => p.split(' ')))
  const title = piece.title.toLowerCase()
  let best: { f: SentenceFeatures; score: number } | null = null
  features.forEach((f, i) => {
    const { text, block } = f.sentence
    if (piece.blocks[block]?.kind !== 'paragraph') return
    if (f.dangling !== null || !f.verb || f.question || f.past || f.imperative || f.ageing) return
    if (text.length < 40 || text.length > 180 || isBelief(text)) return
    const own = f.lemmas.filter((l) => !isGeneral(l))
    if (own.length === 0) return
    const central = own.reduce((sum, l) => sum + (counts.get(l) ?? 0), 0) / own.length
    const about = own.filter((l) => title.includes(l) || named.has(l)).length
    const edge = i < features.length * 0.15 || i > features.length * 0.85 ? 1.25 : 1
    const score = central * (1 + about) * edge
    if (!best || score > best.score) best = { f, score }
  })
  const found = best as { f: SentenceFeatures } | null
  return found ? [of('claim', found.f)] : []
}

/** The terms of a piece's field, each where it stands first. */
function phrases(piece: PieceContent, terms: readonly string[]): Material[] {
  return terms.flatMap((says): Material[] => {
    const pattern = new RegExp(says.replace(/[.*+?^${}()|[\]\\]/g, '\\$&'), 'iu')
    for (const block of piece.blocks) {
      const found = block.furniture === null ? pattern.exec(textOf(piece, block)) : null
      if (!found) continue
      const start = block.start + found.index
      return [{ kind: 'phrase', start, end: start + found[0].length, says }]
    }
    return []
  })
}
