import type { FoundPassage, PassageKind, PieceContent, Place } from '../model'
import { isEnglish } from '../language'
import { formOf, studyOf, type SentenceForm, type Study } from '../study'
import { placeOf, traitsOf, type Run } from './candidates'
import { chance, choosePassages, probability } from './choose'
import { oddsOf, ready, type Model, type ReadyModel, type SentenceOdds } from './model'
import { plainPassages } from './plain'
import weights from './weights.json'

let known: ReadyModel | null = null
/** The trained chooser, made ready once. */
const chooser = (): ReadyModel => (known ??= ready(weights as unknown as Model))

/** A passage with whether it is good enough to be kept; the others are spare ones, for a person to choose from. */
export interface WeighedPassage {
  passage: FoundPassage
  kept: boolean
}

/**
 * The passages of a piece that may be worth quoting, best first, none overlapping another. The score is
 * the probability that readers would post it as it stands, as learned from articles that readers rated
 * (`npm run train`, after Bendersky and Smith 2012 and Danescu-Niculescu-Mizil and others 2012). `ends`
 * are the phrases that say when the piece itself ends, as a notice of an event does; null where it does not.
 */
export function weighPassages(piece: PieceContent, ends: readonly Place[] | null = null): WeighedPassage[] {
  if (!isEnglish(piece.language)) return plainPassages(piece)
  const study = studyOf(piece)
  const odds = oddsOf(study, chooser())
  return choosePassages(study, odds, chooser().passage, ends).map(({ run, score, kept }) => ({
    passage: found(study, run, score, odds),
    kept,
  }))
}

/** What the chooser says of a piece: of each sentence, and how likely readers would post a run of them. */
export interface Chances {
  odds: readonly SentenceOdds[]
  /** The probability that readers would post the sentences from one index to another, 0 to 1. */
  ofRun: (from: number, to: number) => number
}

/** Asks the chooser about every sentence of a piece in English. */
export function chancesOf(study: Study): Chances {
  const odds = oddsOf(study, chooser())
  return {
    odds,
    ofRun: (from, to) => {
      const run = { from, to, steps: false }
      const { start, end } = placeOf(study, run)
      return probability(traitsOf(run, odds, end - start), chooser().passage)
    },
  }
}

/** The passages that are kept of a piece, best first, at most `count` of them; see `weighPassages`. */
export function findPassages(piece: PieceContent, { count = 24 } = {}): FoundPassage[] {
  return weighPassages(piece)
    .filter((w) => w.kept)
    .slice(0, count)
    .map((w) => w.passage)
}

/** A passage of a person's own choosing, scored like the others; any range of the text will do. */
export function passageAt(piece: PieceContent, start: number, end: number): FoundPassage {
  const byHand = {
    start,
    end,
    text: piece.text.slice(start, end),
    kind: 'statement' as const,
    score: 0,
    reasons: ['chosen by hand'],
  }
  if (!isEnglish(piece.language)) return byHand
  const study = studyOf(piece)
  const odds = oddsOf(study, chooser())
  const inside = study.sentences.filter((s) => s.start < end && s.end > start)
  const { text } = byHand
  const [first] = inside
  const last = inside[inside.length - 1]
  if (!first || !last) return byHand
  const run: Run = { from: first.index, to: last.index, steps: false }
  const score = probability(traitsOf(run, odds, end - start), chooser().passage)
  const passage = found(study, run, Math.round(score * 1000) / 1000, odds)
  return { ...passage, start, end, text, reasons: ['chosen by hand', ...passage.reasons] }
}

function found(study: Study, run: Run, score: number, odds: readonly SentenceOdds[]): FoundPassage {
  const { start, end } = placeOf(study, run)
  const inside = study.sentences.slice(run.from, run.to + 1)
  const forms = inside.map(formOf)
  const ageing = inside.find((s) => s.ageing)?.ageing ?? null
  return {
    start,
    end,
    text: study.piece.text.slice(start, end),
    kind: run.steps ? 'steps' : kindOf(forms),
    score,
    reasons: reasonsFor(run, forms, ageing, odds),
  }
}

/** Why a passage was chosen, in words a person understands: what the model says, then what it is made of. */
function reasonsFor(
  run: Run,
  inside: readonly SentenceForm[],
  ageing: string | null,
  odds: readonly SentenceOdds[],
): string[] {
  const said = odds.slice(run.from, run.to + 1)
  const most = (question: keyof SentenceOdds): number => chance(Math.max(...said.map((o) => o[question])))
  const reasons: string[] = []
  if (chance(said[0]?.alone ?? 0) >= 0.35) reasons.push('stands alone')
  else reasons.push('may need what stands before it')
  if (most('quotable') >= 0.35) reasons.push('a line to stop at')
  if (most('never') >= 0.25) reasons.push('sounds like an offer or an aside')
  if (run.steps) reasons.push('a list with its lead-in')
  const made: [string, boolean][] = [
    ['number', inside.some((f) => f.numbers > 0)],
    ['named', inside.some((f) => f.names > 0)],
    ['instruction', inside.some((f) => f.imperative)],
    ['contrast', inside.some((f) => f.contrast)],
    ['question', inside[0]?.question ?? false],
    ['surprise', inside.some((f) => f.surprise)],
    ['strong verb', inside.some((f) => f.strongVerb)],
    ['story', inside.filter((f) => f.past).length > inside.length / 2],
  ]
  for (const [reason, is] of made) if (is) reasons.push(reason)
  if (ageing) reasons.push(`ages: “${ageing}”`)
  return reasons
}

function kindOf(run: readonly SentenceForm[]): PassageKind {
  const first = run[0]
  if (!first) return 'statement'
  if (first.question) return 'question'
  const told = run.filter((f) => f.imperative).length
  if (told >= Math.max(1, run.length / 2)) return 'instruction'
  if (run.filter((f) => f.past).length > run.length / 2) return 'story'
  if (first.numbers > 0) return 'number'
  if (run.some((f) => f.contrast)) return 'contrast'
  if (first.definition) return 'definition'
  return run.some((f) => f.numbers > 0) ? 'number' : 'statement'
}
