import { readSentences } from '../../language'
import { measure } from '../../networks'
import type { NetworkProfile } from '../../networks'
import type { Rule } from '../rule'

/** Whether the text, or a part of a thread, is longer than the network takes. */
export const length: Rule = {
  code: 'over-limit',
  english: false,
  blocks: true,
  finds: ({ text }, { profile, beside = {} }) => {
    const limit = profile.text.limit ?? Infinity
    return [text, ...(beside.parts ?? [])].flatMap((part, index) => {
      const over = measure(part, profile.text) - limit
      if (over <= 0) return []
      return {
        severity: 'block',
        message: `${over} characters too long for ${profile.name}, which takes ${limit}${index ? ` a part; it is part ${index + 1}` : ''}. Shorten it.`,
        ...(index ? {} : { remedy: 'Shorten it' }),
      }
    })
  },
  mends: (text, _, profile) => withoutLastSentences(text, profile),
}

/** Whole sentences taken from the end of the words until the text fits, links and tags kept. */
function withoutLastSentences(text: string, profile: NetworkProfile): string | null {
  const limit = profile.text.limit ?? Infinity
  const [, body = text, tail = ''] =
    /^([\s\S]*?)((?:\s*(?:https?:\/\/\S+|#[\p{L}\p{N}_]+))*\s*)$/u.exec(text) ?? []
  const sentences = readSentences(body)
  for (let kept = sentences.length - 1; kept >= 1; kept--) {
    const shorter = body.slice(0, sentences[kept - 1]?.end) + tail
    if (measure(shorter, profile.text) <= limit) return shorter
  }
  return null
}
