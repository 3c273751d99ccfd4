import type { Opening } from '../model'
import { firstSentence, withoutAddresses } from '../text'

/** How a caption opens, by its first sentence. */
export function openingOf(text: string): Opening {
  const first = firstSentence(withoutAddresses(text).trim().split('\n')[0] ?? '')
  if (/^["“‘«„]/.test(first)) return 'a quotation'
  if (/\?["”’)]*$/.test(first)) return 'a question'
  return /\d/.test(first) ? 'a number' : 'a statement'
}
