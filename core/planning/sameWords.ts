import { URL_PATTERN } from '../networks'

/**
 * What is left of a caption when case, space, punctuation, links and tags are taken away. Two
 * captions say the same words when these are equal.
 */
export function bareWords(text: string): string {
  let bare = known.get(text)
  if (bare === undefined) {
    if (known.size >= KEPT) known.clear()
    known.set(text, (bare = strip(text)))
  }
  return bare
}

/** The planner asks for the same captions again and again. */
const known = new Map<string, string>()
const KEPT = 50_000

function strip(text: string): string {
  return text
    .replace(URL_PATTERN, ' ')
    .replace(/#[\p{L}\p{N}_]+/gu, ' ')
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '')
}
