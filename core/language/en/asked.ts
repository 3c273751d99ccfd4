import { danglingWords } from './alone'
import { readSentences } from './sentences'
import { isImperative } from './verbs'

/** Orders that make no question of what one does. */
const NO_HABIT =
  /^(?:let|imagine|think|remember|note|look|see|take care|suppose|consider|say|please|bring|thank|enjoy)\b/i

/** "Name a turning time before breakfast." as "Do you name a turning time before breakfast?"; null for any other sentence. */
export function asked(sentence: string): string | null {
  const [read, more] = readSentences(sentence)
  const [verb] = read?.tokens ?? []
  if (!read || more || !verb || !isImperative(read.tokens)) return null
  if (verb.pos !== 'VERB' || verb.lower !== verb.lemma || NO_HABIT.test(sentence)) return null
  if (danglingWords(read.tokens, sentence) !== null || sentence.length > 100) return null
  if (/[,:;“”"()–]|\byourself\b/.test(sentence) || !sentence.endsWith('.')) return null
  return `Do you ${sentence.charAt(0).toLowerCase()}${sentence.slice(1, -1)}?`
}
