import type { Place } from '../model'

const SOUND = String.raw`u+m+|u+h+|e+r+m*|a+h+|m{2,}|h+m{2,}|mm-?hmm`
const PHRASE = 'you know|I mean|sort of|kind of|like|right|well|okay|ok|so yeah|basically'

const SOUNDS = new RegExp(String.raw`(?:^|(?<=\s))(?:${SOUND})\b[,.…]?\s*`, 'gi')
const PHRASES = new RegExp(
  String.raw`(?<=^|[,;.!?]\s)(?:${PHRASE})(?:,\s*|(?<=[.!?]\s\w+)[.!]\s*|(?=[.!?]))`,
  'gi',
)

/**
 * The fillers of speech in a text, to be shown softly or hidden: sounds of hesitation anywhere
 * ("um"), and phrases that say nothing only where commas fence them ("you know," but not "you
 * know how"). Each place takes the space after it along.
 */
export function fillersIn(text: string): Place[] {
  const found: Place[] = []
  for (const pattern of [SOUNDS, PHRASES])
    for (const match of text.matchAll(pattern))
      found.push({ start: match.index, end: match.index + match[0].length })
  found.sort((a, b) => a.start - b.start)
  return found.filter((f, i) => i === 0 || f.start >= (found[i - 1]?.end ?? 0))
}

/** The sounds of hesitation in a text ("um"). */
export function hesitationsIn(text: string): Place[] {
  return [...text.matchAll(SOUNDS)].map((m) => ({ start: m.index, end: m.index + m[0].length }))
}

const ANY = `(?:${SOUND}|${PHRASE})`

/** What is taken out of speech when it is written down, and what stands for it. */
const WRITTEN: readonly [RegExp, string][] = [
  // "with this, um, this little brush": the speaker began again.
  [new RegExp(String.raw`\b(\w+(?:\s\w+){0,2}),\s*${ANY},\s*\1\b`, 'gi'), '$1'],
  // "like a, like a vein": so did this one. A single word said twice may be meant.
  [/\b(\w+\s\w+),\s\1\b/gi, '$1'],
  [new RegExp(String.raw`,\s*${ANY},\s*`, 'gi'), ' '],
  [new RegExp(String.raw`(^|[.!?]["”’)]?\s+)${ANY}[.!]\s+`, 'gi'), '$1'],
  [new RegExp(String.raw`(^|[.!?]["”’)]?\s+)(?:${ANY},\s*)+`, 'gi'), '$1'],
  [new RegExp(String.raw`,\s*${ANY}(?=[.!?])`, 'gi'), ''],
  [new RegExp(String.raw`(^|\s)(?:${SOUND})\b[,…]?\s*`, 'gi'), '$1'],
]

/**
 * Speech as it is written down: without its fillers, without the commas that fenced them, without
 * the words with which a sentence began again. Sentences begin with a capital.
 *
 * @example withoutFillers('So I, um, I press it.') // 'So I press it.'
 */
export function withoutFillers(text: string): string {
  return WRITTEN.reduce((sum, [pattern, by]) => sum.replace(pattern, by), text)
    .replace(/ {2,}/g, ' ')
    .replace(
      /(^|[.!?]["”’)]?\s+)(\p{Ll})/gu,
      (_, before: string, letter: string) => before + letter.toUpperCase(),
    )
    .trim()
}
