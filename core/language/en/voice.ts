import type { Voice } from '../../model'

/** What is left as it is: quotations, addresses and hashtags. */
const KEPT = /“[^”]*”|"[^"\n]*"|https?:\/\/\S+|#[\p{L}\p{N}_]+/gu

/**
 * A text in a brand's voice, as far as grammar can be trusted: contractions for a casual voice and
 * none for a formal one, semicolons parted for a plain one and drawn as dashes for a vivid one, no
 * exclamation mark for a reserved one. Quotations are never touched.
 */
export function inVoice(text: string, voice: Voice): string {
  let said = text
  if (voice.formality <= -1) said = outside(said, contract)
  if (voice.formality >= 1) said = outside(said, expand)
  if (voice.vividness <= -1) said = outside(said, partSemicolons)
  if (voice.vividness >= 1) said = outside(said, (t) => t.replace(/ ?; (?=\p{Ll})/gu, ' – '))
  if (voice.warmth <= -1) said = outside(said, (t) => t.replace(/!+/g, '.'))
  return said
}

/** Applies a change to what stands between quotations, addresses and hashtags. */
export function outside(text: string, change: (part: string) => string): string {
  let at = 0
  let result = ''
  for (const match of text.matchAll(KEPT)) {
    result += change(text.slice(at, match.index)) + match[0]
    at = match.index + match[0].length
  }
  return result + change(text.slice(at))
}

/** Before these no clause can be contracted: "how old it is", "wherever you are in town". */
const FREE = /\b(?:what|who|whoever|how|where|wherever|whatever|which|than|as|why|when|whether)\b[^.,;:?!]*$/i

/** "Do not" as "don’t", "you are" as "you’re": only where a word follows and the verb bears no stress. */
export function contract(text: string): string {
  const mark = text.includes("'") ? "'" : '’'
  return text
    .replace(
      /\b(do|does|did|is|are|was|were|has|have|had|could|should|would) not\b(?! only\b| just\b| merely\b)/gi,
      `$1n${mark}t`,
    )
    .replace(/\bcan ?not\b(?! only\b| just\b)/gi, (m) =>
      m.charAt(0) === 'C' ? `Can${mark}t` : `can${mark}t`,
    )
    .replace(/\b(w)ill not\b(?! only\b| just\b)/gi, `$1on${mark}t`)
    .replace(
      /\b(I am|(?:you|we|they) are|(?:it|that|there|he|she) is|(?:I|you|we|they|it|he|she) will)(?= \p{L})/giu,
      (pair, _whole, at: number, all: string) => {
        if (FREE.test(all.slice(0, at))) return pair
        const [who, verb] = pair.split(' ')
        const short = { am: 'm', are: 're', is: 's', will: 'll' }[(verb ?? '').toLowerCase()]
        return `${who}${mark}${short}`
      },
    )
}

const NEGATED: Readonly<Record<string, string>> = { wo: 'will', ca: 'can', sha: 'shall' }

/** "Don’t" as "do not", "it’s" as "it is": only where the long form is certain. */
export function expand(text: string): string {
  return text
    .replace(/\b([a-z]+)n[’']t\b(?! (?:I|you|we|they|he|she|it)\b)/gi, (whole, stem: string) => {
      if (!/^(do|does|did|is|are|was|were|has|have|had|could|should|would|must|need|wo|ca|sha)$/i.test(stem))
        return whole
      const full = NEGATED[stem.toLowerCase()]
      const verb = full ? (/^[A-Z]/.test(stem) ? full.charAt(0).toUpperCase() + full.slice(1) : full) : stem
      return /^can$/i.test(verb) ? `${verb}not` : `${verb} not`
    })
    .replace(/\b(I)[’']m\b/g, '$1 am')
    .replace(/\b(you|we|they)[’']re\b/gi, '$1 are')
    .replace(/\b(I|you|we|they|it|he|she)[’']ll\b/gi, '$1 will')
    .replace(/\b(I|you|we|they)[’']ve\b/gi, '$1 have')
    .replace(/\b(l)et[’']s\b/gi, '$1et us')
    .replace(
      /\b(it|that|there|he|she|what|who|where)[’']s (?=(\p{L}+))/giu,
      (_, who: string, next: string) =>
        /^(been|got|become|had)$/i.test(next) ? `${who} has ` : `${who} is `,
    )
}

/** One sentence with one semicolon as two sentences; a list keeps its semicolons. */
function partSemicolons(text: string): string {
  return text.replace(/[^.!?]+/g, (sentence) => {
    if (sentence.split('; ').length !== 2) return sentence
    const [left = '', right = ''] = sentence.split('; ')
    const whole = (part: string): boolean => part.trim().split(/\s+/).length >= 3
    if (
      !whole(left) ||
      !whole(right) ||
      !/^(?:the|a|an|it|you|we|they|he|she|I|this|that|there|no|nobody|in|on|at|for|by|your|our)\b/i.test(
        right,
      )
    )
      return sentence
    return `${left}. ${right.charAt(0).toUpperCase()}${right.slice(1)}`
  })
}
