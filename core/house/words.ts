import { cased, gerund, indefinite, outside, past, plural, respell } from '../language'
import { Fault, type HouseStyle } from '../model'

/** A text in the house's own words and spelling, for one network. Quotations stay as they were said. */
export function inHouse(text: string, style: HouseStyle, network: string): string {
  const swaps = [
    ...style.swaps.filter((s) => s.network === network),
    ...style.swaps.filter((s) => s.network === null),
  ]
  if (swaps.length === 0 && style.spelling === 'as written') return text
  return outside(text, (part) => {
    const swapped = swapWords(part, swaps)
    return style.spelling === 'as written' ? swapped : respell(swapped, style.spelling)
  })
}

/**
 * Puts words in place of others in the same form: plural for plural, "-ing" for "-ing", a capital
 * for a capital, and "a" or "an" before it as it sounds. All at once, so that no swap meets the
 * words of another; where two swap the same word, the first wins.
 */
export function swapWords(text: string, swaps: readonly { from: string; to: string }[]): string {
  if (swaps.length === 0) return text
  const forms = new Map<string, string>()
  for (const { from, to } of swaps)
    for (const [old, fresh] of pairs(from.toLowerCase(), to)) if (!forms.has(old)) forms.set(old, fresh)
  const words = [...forms.keys()].sort((a, b) => b.length - a.length).map(escaped)
  const pattern = new RegExp(`(?<![\\p{L}\\p{N}])(?:(an?) )?(${words.join('|')})(?![\\p{L}\\p{N}])`, 'giu')
  return text.replace(pattern, (_, article: string | undefined, word: string) => {
    const fresh = cased(forms.get(word.toLowerCase()) ?? word, word)
    return article ? `${cased(indefinite(fresh), article)} ${fresh}` : fresh
  })
}

/** A word's forms beside those of the word that takes its place. */
function pairs(from: string, to: string): [string, string][] {
  return [
    [from, to],
    [plural(from), plural(to)],
    [past(from), past(to)],
    [gerund(from), gerund(to)],
  ]
}

const escaped = (word: string): string => word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&').replace(/\s+/g, '\\s+')

const patterns = new Map<string, RegExp | null>()

/** The words of a text that an entry means, a word or phrase in any of its forms or a pattern between slashes; or null. */
export function wordsFound(text: string, entry: string): string | null {
  let pattern = patterns.get(entry)
  if (pattern === undefined) {
    pattern = patternOf(entry)
    if (patterns.size > 2000) patterns.clear()
    patterns.set(entry, pattern)
  }
  return pattern?.exec(text)?.[0] ?? null
}

function patternOf(entry: string): RegExp | null {
  const own = ownPattern(entry)
  if (own) return own
  const words = entry.trim().toLowerCase().split(/\s+/).filter(Boolean)
  if (words.length === 0) return null
  const forms = words.map(
    (word) => `(?:${[...new Set([word, plural(word), past(word), gerund(word)])].map(escaped).join('|')})`,
  )
  return new RegExp(`(?<![\\p{L}\\p{N}])${forms.join('[\\s-]+')}(?![\\p{L}\\p{N}])`, 'iu')
}

/** An entry between slashes as the regular expression it is, or null. Throws where it is none that works. */
export function ownPattern(entry: string): RegExp | null {
  const [, body] = /^\/(.+)\/$/.exec(entry.trim()) ?? []
  if (!body) return null
  try {
    return new RegExp(body, 'iu')
  } catch (error) {
    throw new Fault(
      'bad-request',
      `${entry} is no pattern that works (${error instanceof Error ? error.message : ''}). Mend it, or take the slashes away.`,
      entry,
    )
  }
}
