/** A hashtag; what stands in an address or after a letter is none. */
const TAG = /(?<![\p{L}\p{N}_&/])#[\p{L}\p{N}_]+/gu

/** The hashtags of a text with their signs, in order. Take the addresses out before. */
export function tagsIn(text: string): string[] {
  return text.includes('#') ? (text.match(TAG) ?? []) : []
}

/** A text without its hashtags; something else may stand in their place. */
export function withoutTags(text: string, by: string | ((tag: string) => string) = ' '): string {
  if (!text.includes('#')) return text
  return text.replace(TAG, typeof by === 'string' ? () => by : by)
}
