import { pictureKey, type Check, type Post } from '../model'
import { hash32 } from '../text'

/** What a post says and shows, as a short text that is another one when any of it is. */
export function reviewPrint({
  wording,
  account,
  media,
  link,
}: Pick<Post, 'wording' | 'account' | 'media' | 'link'>): string {
  const { title, summary, text, parts, poll, firstComment, tags } = wording
  const shown = [
    account,
    title,
    summary,
    text,
    parts,
    poll,
    firstComment,
    tags,
    media[0] ? pictureKey(media[0].source) : null,
    link,
  ]
  const told = JSON.stringify(shown)
  return `${hash32(told).toString(16)}-${hash32([...told].reverse().join('')).toString(16)}`
}

/** A flag as a file of decisions names it. */
export const flagName = ({ code, words }: Pick<Check, 'code' | 'words'>): string => `${code} ${words ?? ''}`
