import { withoutAddresses } from './addresses'
import { withoutTags } from './tags'
import { wordsIn } from './words'

/** So many captions are remembered: more than a workspace of some years holds, about 2 kB each. */
const MOST_KNOWN = 15_000
const known = new Map<string, ReadonlySet<string>>()

/** Lower-cased word trigrams of a caption, links and tags left out. */
export function trigrams(text: string): ReadonlySet<string> {
  const before = known.get(text)
  if (before) return before
  const words = wordsIn(withoutTags(withoutAddresses(text, ' ')))
  const grams = new Set<string>()
  for (let i = 0; i + 2 < words.length; i++) grams.add(words.slice(i, i + 3).join(' '))
  if (known.size > MOST_KNOWN) known.clear()
  known.set(text, grams)
  return grams
}
