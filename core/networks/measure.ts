import { withoutAddresses } from '../text'
import type { NetworkProfile } from './profile'

const segmenter = new Intl.Segmenter('en', { granularity: 'grapheme' })
/** Characters none of which joins another: Latin letters and marks of punctuation. */
const PLAIN = /^[\n\x20-\x7e\u00a0-\u02ff\u2010-\u2027\u2030-\u205e]*$/

/**
 * The number of graphemes of a text: extended grapheme clusters after Unicode Standard Annex 29,
 * what a reader sees as one character.
 */
export function graphemes(text: string): number {
  if (PLAIN.test(text)) return text.length
  let count = 0
  for (const _ of segmenter.segment(text)) count++
  return count
}

/** The first `count` graphemes of a text, never half of one. */
export function sliceGraphemes(text: string, count: number): string {
  if (PLAIN.test(text)) return text.slice(0, count)
  let seen = 0
  for (const segment of segmenter.segment(text)) {
    if (seen === count) return text.slice(0, segment.index)
    seen++
  }
  return text
}

/**
 * The length of a text as a network measures it: graphemes, with every link counting for the
 * profile's fixed number where it gives one.
 *
 * @example measure('Look: https://a.example/long', { linkCounts: 24 }) // 30
 */
export function measure(text: string, rule: Pick<NetworkProfile['text'], 'linkCounts'>): number {
  if (rule.linkCounts === null) return graphemes(text)
  let links = 0
  const rest = withoutAddresses(text, () => {
    links++
    return ''
  })
  return graphemes(rest) + links * rule.linkCounts
}
