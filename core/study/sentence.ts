import {
  contentLemmas,
  danglingWords,
  hasVerb,
  isContrast,
  isDefinition,
  isImperative,
  isPast,
  isSurprise,
  numbersIn,
  STRONG_VERBS,
  withoutOpener,
} from '../language'
import { ageingWords, type ReadSentence } from '../reading'

/** What form a sentence has. */
export interface SentenceForm {
  imperative: boolean
  past: boolean
  numbers: number
  names: number
  contrast: boolean
  definition: boolean
  question: boolean
  surprise: boolean
  strongVerb: boolean
}

/** What is known of each sentence of a piece before runs are formed. */
export interface SentenceFeatures extends SentenceForm {
  sentence: ReadSentence
  dangling: string | null
  verb: boolean
  ageing: string | null
  lemmas: string[]
}

/** What form a sentence has, apart from an "Okay," that only opens it. */
export function formOf(sentence: Pick<ReadSentence, 'text' | 'tokens'>): SentenceForm {
  const { text } = sentence
  const tokens = withoutOpener(sentence.tokens)
  return {
    imperative: isImperative(tokens),
    past: isPast(tokens),
    numbers: numbersIn(tokens).length,
    names: tokens.filter((t, i) => i > 0 && t.pos === 'PROPN').length,
    contrast: isContrast(text),
    definition: isDefinition(tokens),
    question: text.endsWith('?'),
    surprise: isSurprise(text),
    strongVerb: tokens.some((t) => t.pos === 'VERB' && STRONG_VERBS.has(t.lemma)),
  }
}

/** What is known of a sentence; `writtenAt` (ISO 8601, or null) decides which dates in it age. */
export function sentenceFeatures(sentence: ReadSentence, writtenAt: string | null = null): SentenceFeatures {
  const { text } = sentence
  const tokens = withoutOpener(sentence.tokens)
  return {
    sentence,
    dangling: danglingWords(tokens, text),
    verb: hasVerb(tokens),
    ...formOf(sentence),
    ageing: ageingWords(text, writtenAt),
    lemmas: contentLemmas(tokens),
  }
}
