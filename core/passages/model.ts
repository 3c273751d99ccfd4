import { FEATURES, featureRows, phrasesOf, type Study } from '../study'
import { logOdds, type Trees } from './trees'

/** What is asked of a sentence. */
export const QUESTIONS = ['worth', 'quotable', 'alone', 'never', 'good'] as const
export type Question = (typeof QUESTIONS)[number]

/** A model of one question: boosted trees over the features and weights of phrases, added up. */
export interface Judge {
  trees: Trees
  /** The weight of each phrase of the vocabulary, and the log odds of a sentence with none. */
  phrases: readonly number[]
  base: number
}

/** The whole chooser as data, as `npm run train` writes it. */
export interface Model {
  /** The names of the features in the order of the trees' numbers. */
  features: readonly string[]
  /** The phrases that have weights. */
  vocabulary: readonly string[]
  judges: Readonly<Record<Question, Judge>>
  /** Weights of the log odds and other traits of a passage (`PASSAGE_TRAITS`), the constant last. */
  passage: readonly number[]
}

/** The log odds that readers would say yes to each question of a sentence. */
export type SentenceOdds = Readonly<Record<Question, number>>

/** How much the phrases count beside the trees. */
export const PHRASE_SHARE = 0.4

/** What a linear model of phrases says: their weights over the root of their number. */
export function phraseOdds(weights: ArrayLike<number>, base: number, ids: readonly number[]): number {
  const scale = 1 / Math.sqrt(Math.max(1, ids.length))
  return ids.reduce((sum, id) => sum + (weights[id] ?? 0) * scale, base)
}

/** The numbers, in a vocabulary, of the phrases of each sentence of a study. */
export function phraseNumbers(study: Study, vocabulary: ReadonlyMap<string, number>): number[][] {
  return study.sentences.map((s) => {
    const ids: number[] = []
    for (const phrase of phrasesOf(s)) {
      const id = vocabulary.get(phrase)
      if (id !== undefined) ids.push(id)
    }
    return ids
  })
}

/** A model that is ready to be asked: its vocabulary indexed, its features those of this program. */
export interface ReadyModel extends Model {
  index: ReadonlyMap<string, number>
}

/** Makes a model ready. Throws where it was trained on other features than the program computes. */
export function ready(model: Model): ReadyModel {
  const names = FEATURES.map((f) => f.name)
  if (names.join('|') !== model.features.join('|'))
    throw new Error('The chooser was trained on other features. Run npm run train.')
  return { ...model, index: new Map(model.vocabulary.map((phrase, id) => [phrase, id])) }
}

/** What a model says of every sentence of a study. */
export function oddsOf(study: Study, model: ReadyModel): SentenceOdds[] {
  const rows = featureRows(study)
  const phrases = phraseNumbers(study, model.index)
  return rows.map((row, i) => {
    const odds = {} as Record<Question, number>
    for (const question of QUESTIONS) {
      const { trees, phrases: weights, base } = model.judges[question]
      odds[question] = logOdds(trees, row) + PHRASE_SHARE * phraseOdds(weights, base, phrases[i] ?? [])
    }
    return odds
  })
}
