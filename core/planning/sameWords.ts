import { URL_PATTERN } from '../networks'

/**
 * What is left of a caption when case, space, punctuation, links and tags are taken away. Two
 * captions say the same words when these are equal.
 */
export function bareWords(text: string): string {
  return text
    .replace(URL_PATTERN, ' ')
    .replace(/#[\p{L}\p{N}_]+/gu, ' ')
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '')
}
