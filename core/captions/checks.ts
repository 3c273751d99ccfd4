import type { Check } from '../model'
import { graphemes, measure, sliceGraphemes, URL_PATTERN, type NetworkProfile } from '../networks'
import { danglingWords, isBalanced } from '../passages'

import { bareWords } from '../planning'
import { ageingWords, readSentences } from '../reading'
import type { House } from './brief'
import { ungrounded } from './grounding'
import { likeness, LIKENESS_BOUND } from './likeness'

/** Everything a caption is held against. */
export interface CheckContext {
  profile: NetworkProfile
  house: House
  /** The piece's text with its title, author and categories. */
  source: string
  pictures: number
  /** Other captions of the same account or of siblings on the network. */
  others: readonly { text: string; sibling: boolean }[]
}

/**
 * Holds a caption against the rules of its network and brand and against its piece. Blocks come
 * first, then flags, then notes; each names the words it concerns. Runs in well under a
 * millisecond a caption apart from the likeness to `others`, so it can run as one types.
 */
export function checkCaption(text: string, context: CheckContext): Check[] {
  const { profile, house } = context
  const checks: Check[] = []
  const say = (severity: Check['severity'], code: string, message: string, words?: string): void => {
    checks.push(words === undefined ? { code, severity, message } : { code, severity, message, words })
  }
  const bare = text.replace(URL_PATTERN, ' ')
  const prose = bare.replace(/(?<![\p{L}\p{N}])#[\p{L}\p{N}_]+/gu, ' ')
  const tags = bare.match(/(?<![\p{L}\p{N}_&/])#[\p{L}\p{N}_]+/gu) ?? []
  const length = measure(text, profile.text)
  if (!prose.trim()) say('block', 'empty', 'There are no words. Write some, or set the post aside.')
  if (length > profile.text.limit)
    say(
      'block',
      'over-limit',
      `${length - profile.text.limit} characters too long for ${profile.name}, which takes ${profile.text.limit}. Shorten it.`,
    )
  if (context.pictures < profile.media.pictures.least)
    say(
      'block',
      'no-media',
      `${profile.name} wants a picture and this piece has none to give. Add one, or set the post aside.`,
    )
  for (const phrase of house.style.neverSay) {
    const found = neverSaid(prose, phrase)
    if (found)
      say('block', 'never-say', `“${found}” is on the brand’s never-say list. Say it another way.`, found)
  }
  if (tags.length > profile.hashtags.most)
    say(
      'block',
      'too-many-hashtags',
      `${tags.length} hashtags; ${profile.name} takes at most ${profile.hashtags.most}. Take some out.`,
    )
  const mine = bareWords(text)
  for (const other of context.others)
    if (other.sibling && mine && bareWords(other.text) === mine) {
      say(
        'block',
        'same-words',
        'The same words go out on another account of this network. Take another wording.',
      )
      break
    }

  for (const { kind, words } of ungrounded(prose, context.source, [house.brand, ...house.style.closingLines]))
    say(
      'flag',
      'not-grounded',
      `${kind === 'quotation' ? 'These quoted words are' : `The ${kind} “${words}” is`} not in the piece. Take it out, or accept it if it is true.`,
      words,
    )
  const ages = ageingWords(prose)
  if (ages)
    say(
      'flag',
      'ages',
      `“${ages}” will not be true for long. Reword it, or accept it for a short drip.`,
      ages,
    )
  const near = context.others.reduce((top, o) => Math.max(top, likeness(text, o.text)), 0)
  if (near > LIKENESS_BOUND)
    say(
      'flag',
      'too-alike',
      `${Math.round(near * 100)} % like another caption of this account or a sibling. Take another wording.`,
    )
  const firstSentence = readSentences(prose.trim().split('\n')[0] ?? '')[0]
  if (firstSentence) {
    const hook = prose.trim().slice(firstSentence.start, firstSentence.end)
    if (profile.text.fold !== null && graphemes(hook) > profile.text.fold)
      say(
        'flag',
        'hook-after-fold',
        `The first sentence runs past the ${profile.text.fold} characters a reader sees. Open with a shorter one.`,
        sliceGraphemes(hook, 40),
      )
    const dangling = danglingWords(firstSentence.tokens, hook)
    if (dangling)
      say(
        'flag',
        'points-nowhere',
        `It opens with “${dangling}”, which points at something left behind in the piece.`,
        dangling,
      )
  }
  if (!isBalanced(prose))
    say('flag', 'unbalanced', 'A quotation mark or bracket opens and does not close, or the other way round.')
  const leftover =
    /\{\{?\w*\}?\}|\[\w+\]|<\/?[a-z][^>]*>|&[a-z]+;|\bundefined\b|\bNaN\b|\*\*|\bLorem ipsum\b/i.exec(prose)
  if (leftover)
    say('flag', 'leftover', `“${leftover[0]}” looks like a leftover of a template or of markup.`, leftover[0])
  if (tags.length > profile.hashtags.sensible && tags.length <= profile.hashtags.most)
    say(
      'note',
      'many-hashtags',
      `${tags.length} hashtags; on ${profile.name} ${profile.hashtags.sensible} are sensible.`,
    )
  const shout = /\b\p{Lu}{5,}(?: \p{Lu}{3,})+\b|!{2,}/u.exec(prose)
  if (shout) say('note', 'shouting', `“${shout[0]}” shouts.`, shout[0])
  return checks
}

/** Whether a phrase stands in a text as whole words, in any case; an ending in s, ed or ing counts too. */
function neverSaid(text: string, phrase: string): string | null {
  const escaped = phrase
    .trim()
    .replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
    .replace(/\s+/g, '\\s+')
  if (!escaped) return null
  return (
    new RegExp(`(?<![\\p{L}\\p{N}])${escaped}(?:s|es|ed|d|ing)?(?![\\p{L}\\p{N}])`, 'iu').exec(text)?.[0] ??
    null
  )
}
