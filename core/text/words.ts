import { withoutAddresses } from './addresses'
import { withoutTags } from './tags'

const WORD = /[\p{L}\p{N}]+(?:[’'-][\p{L}\p{N}]+)*/gu

/** The words of a text in lower case: runs of letters and digits, with apostrophes and hyphens inside. */
export function wordsIn(text: string): string[] {
  return text.toLowerCase().match(WORD) ?? []
}

/** The words of a text, apart by one space, without case and marks: by which two texts are held together. */
export function printOf(text: string): string {
  return text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
}

/**
 * What is left of a caption when case, space, punctuation, addresses and tags are taken away. Two
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
  return withoutTags(withoutAddresses(text, ' '))
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '')
}

/** The number of words of a text; see `wordsIn`. */
export function countWords(text: string): number {
  let words = 0
  /** Whether the character before is a letter, or an apostrophe or hyphen after one. */
  let before: 'letter' | 'joint' | 'none' = 'none'
  for (let i = 0; i < text.length; i++) {
    const code = text.codePointAt(i) as number
    if (code > 0xffff) i++
    if (isLetter(code)) {
      if (before === 'none') words++
      before = 'letter'
    } else before = before === 'letter' && JOINTS.has(code) ? 'joint' : 'none'
  }
  return words
}

const LETTER = /[\p{L}\p{N}]/u
const JOINTS = new Set(["'", '’', '-'].map((c) => c.charCodeAt(0)))

/** Whether a character is a letter or digit; the plain ones are known without asking. */
function isLetter(code: number): boolean {
  if (code < 128)
    return (code >= 97 && code <= 122) || (code >= 65 && code <= 90) || (code >= 48 && code <= 57)
  return LETTER.test(String.fromCodePoint(code))
}
