import type { Place } from '../model'

const SOUNDS = /(?:^|(?<=\s))(?:u+m+|u+h+|e+r+m*|a+h+|m{2,}|h+m{2,}|mm-?hmm)\b[,.…]?\s*/gi
const PHRASES =
  /(?<=^|[,;.!?]\s)(?:you know|I mean|sort of|kind of|like|right|well|okay|ok|so yeah|basically)(?:,\s*|(?=[.!?]))/gi

/**
 * The fillers of speech in a text: sounds of hesitation anywhere ("um"), and phrases that say
 * nothing only where commas fence them ("you know," but not "you know how"). Each place takes
 * the space after it along, so that leaving it out leaves whole sentences.
 */
export function fillersIn(text: string): Place[] {
  const found: Place[] = []
  for (const pattern of [SOUNDS, PHRASES])
    for (const match of text.matchAll(pattern))
      found.push({ start: match.index, end: match.index + match[0].length })
  found.sort((a, b) => a.start - b.start)
  return found.filter((f, i) => i === 0 || f.start >= (found[i - 1]?.end ?? 0))
}

/** A text of speech without its fillers: sentences begin with a capital again, commas do not double. */
export function withoutFillers(text: string): string {
  const places = fillersIn(text)
  if (places.length === 0) return text
  let kept = ''
  let from = 0
  for (const { start, end } of places) {
    kept += text.slice(from, start)
    const opens = /(?:^|[.!?]["”’)]?\s+)$/.test(kept)
    const rest = text.slice(end)
    const next = rest.charAt(0)
    if (opens && next && next !== next.toUpperCase()) {
      kept += next.toUpperCase()
      from = end + 1
    } else from = end
  }
  kept += text.slice(from)
  return kept
    .replace(/\s+([,.;!?])/g, '$1')
    .replace(/,+(?=[.!?,])/g, '')
    .replace(/ {2,}/g, ' ')
    .trim()
}
