import type { Place } from '../model'
import { withoutFillers } from '../speech'
import { jaccard, type StudiedSentence, type Study } from '../study'
import { placeOf, runsOf, traitsOf, type Run } from './candidates'
import type { SentenceOdds } from './model'

/** A run with how many of ten readers would post it as it stands, as a share. */
export interface Choice {
  run: Run
  score: number
  /** Whether it is good enough to be kept; what is not is spare. */
  kept: boolean
}

/**
 * A passage is kept from the score `KEEP` where its first words stand alone with the probability `STANDS`;
 * the best `FEW` of a piece are kept from `FAIR` all the same, so that a drip can begin. Below, down to
 * `SPARE`, it is shown as a spare one.
 */
const KEEP = 0.5
const STANDS = 0.58
const FAIR = 0.4
const FEW = 2
const SPARE = 0.02
/** With less than this probability to stand alone a sentence opens no run, not even a spare one. */
const HOPELESS = 0.03

/** How many are chosen at most, kept and spare. */
const SHOWN = 24

/** How alike two passages of a choice may be: the Jaccard index of their words of content. */
const ALIKE = 0.5

/** What a passage that ages is worth in a piece that does not, and one spoken with ums. */
const AGEING = 0.4
const UNCLEAN = 0.75

/** The probability of log odds. */
export const chance = (odds: number): number => 1 / (1 + Math.exp(-odds))

/** The probability that readers would post a run, by the weights of its traits (the constant last). */
export function probability(traits: readonly number[], weights: readonly number[]): number {
  return chance(traits.reduce((sum, x, i) => sum + x * (weights[i] ?? 0), weights[traits.length] ?? 0))
}

/**
 * The runs of a piece that are worth quoting, best first: none overlaps another, none says what a better
 * one says. What ages counts for less, unless the piece itself ends with what it tells, as a notice does:
 * `ends` are then the phrases that say when, and what holds one is kept.
 */
export function choosePassages(
  study: Study,
  odds: readonly SentenceOdds[],
  weights: readonly number[],
  ends: readonly Place[] | null = null,
): Choice[] {
  const { sentences, piece } = study
  const all: { run: Run; score: number }[] = []
  const mayOpen = (s: StudiedSentence): boolean =>
    ends !== null || chance(odds[s.index]?.alone ?? 0) >= HOPELESS
  for (const run of runsOf(study, mayOpen)) {
    const { start, end } = placeOf(study, run)
    let score = probability(traitsOf(run, odds, end - start), weights)
    // A list is always there for a person to choose: no sentence of it shows what the whole is worth.
    if (run.steps) score = Math.max(score, SPARE)
    const inside = sentences.slice(run.from, run.to + 1)
    const ageing = inside.some((s) => s.ageing !== null)
    if (ageing && !ends) score *= AGEING
    // What a notice says of its day is what it is for.
    if (ends?.some((p) => p.start < end && p.end > start)) score = Math.max(score, FAIR)
    const text = piece.text.slice(start, end)
    if (piece.video && withoutFillers(text) !== text) score *= UNCLEAN
    if (score >= SPARE || run.steps) all.push({ run, score: Math.round(score * 1000) / 1000 })
  }
  all.sort((a, b) => b.score - a.score || a.run.from - b.run.from)
  const chosen: { run: Run; score: number; lemmas: Set<string> }[] = []
  for (const { run, score } of all) {
    if (chosen.length >= SHOWN) break
    if (chosen.some((c) => c.run.from <= run.to && c.run.to >= run.from)) continue
    const lemmas = new Set(sentences.slice(run.from, run.to + 1).flatMap((s) => s.lemmas))
    if (chosen.some((c) => jaccard(c.lemmas, lemmas) >= ALIKE)) continue
    chosen.push({ run, score, lemmas })
  }
  return chosen.map(({ run, score }, rank) => ({
    run,
    score,
    kept: (score >= KEEP && chance(odds[run.from]?.alone ?? 0) >= STANDS) || (rank < FEW && score >= FAIR),
  }))
}
