import { baseOf } from './grammar'
import { oneSpelling } from './spelling'

/** A word without its endings, in one spelling, by which its forms are known for the same. */
export function stem(word: string): string {
  const plain = oneSpelling(baseOf(word.toLowerCase()))
  const bare = plain.replace(/(?:ings?|edly|ied|ies|ed|es|s|ly|ers?|est|d)$/, '')
  const kept = bare.length >= 3 ? bare : plain
  return kept.replace(/(?:e|i|y|([b-df-hj-np-tv-z])(?=\1$))$/, '').replace(/([b-df-hj-np-tv-z])\1$/, '$1')
}
