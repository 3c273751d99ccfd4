import { FEATURES, featureRows, type StudiedSentence, type Study, Vocabulary } from '../study'
import { layOut, logOdds, type LaidOut, type Trees } from './trees'

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
  let sum = 0
  for (let i = 0; i < ids.length; i++) sum += weights[ids[i] as number] as number
  return base + sum / Math.sqrt(Math.max(1, ids.length))
}

/** A model that is ready to be asked: its vocabulary indexed, its features those of this program. */
export interface ReadyModel {
  vocabulary: Vocabulary
  judges: Readonly<Record<Question, { trees: LaidOut; phrases: Float32Array; base: number }>>
  passage: readonly number[]
}

/** Makes a model ready. Throws where it was trained on other features than the program computes. */
export function ready(model: Model): ReadyModel {
  const names = FEATURES.map((f) => f.name)
  if (names.join('|') !== model.features.join('|'))
    throw new Error('The chooser was trained on other features. Run npm run train.')
  const judges = Object.fromEntries(
    QUESTIONS.map((q) => {
      const { trees, phrases, base } = model.judges[q]
      return [q, { trees: layOut(trees), phrases: Float32Array.from(phrases), base }]
    }),
  ) as unknown as ReadyModel['judges']
  return {
    vocabulary: new Vocabulary(model.vocabulary),
    judges,
    passage: model.passage,
  }
}

/** What is said of a sentence that no passage holds. */
const NONE: SentenceOdds = { worth: -9, quotable: -9, alone: -9, never: 9, good: -9 }

/** What a model says of every sentence of a study. */
export function oddsOf(study: Study, model: ReadyModel): SentenceOdds[] {
  // Nothing asks about a heading or what is no part of the piece.
  const asked = (s: StudiedSentence): boolean => !s.furniture && s.kind !== 'heading'
  return featureRows(study, asked).map((row, i) => {
    const sentence = study.sentences[i] as StudiedSentence
    if (!asked(sentence)) return NONE
    return new Asked(model, row, model.vocabulary.numbersOf(sentence))
  })
}

/** The odds of one sentence, each worked out when it is first asked for: most are never asked. */
class Asked implements SentenceOdds {
  readonly #known: Partial<Record<Question, number>> = {}

  constructor(
    readonly model: ReadyModel,
    readonly row: Float32Array,
    readonly phrases: readonly number[],
  ) {}

  #of(question: Question): number {
    const { trees, phrases, base } = this.model.judges[question]
    return (this.#known[question] ??=
      logOdds(trees, this.row) + PHRASE_SHARE * phraseOdds(phrases, base, this.phrases))
  }

  get worth(): number {
    return this.#of('worth')
  }
  get quotable(): number {
    return this.#of('quotable')
  }
  get alone(): number {
    return this.#of('alone')
  }
  get never(): number {
    return this.#of('never')
  }
  get good(): number {
    return this.#of('good')
  }
}
