import { isEnglish } from '../language'
import type { Check } from '../model'
import type { NetworkProfile } from '../networks'
import { tagsIn, withoutAddresses, withoutTags } from '../text'
import type { Caption, CheckContext, Rule } from './rule'
import { sameWords, tooAlike } from './rules/alike'
import { empty, fields, format, media } from './rules/fields'
import { credit } from './rules/credit'
import { grounded, ownWords } from './rules/grounded'
import { mostHashtags, sensibleHashtags } from './rules/hashtags'
import { neverSay } from './rules/house'
import { knownLanguage } from './rules/language'
import { ages, outlives } from './rules/lasts'
import { length } from './rules/length'
import { link, liveLink } from './rules/link'
import { balanced, doubled, exclamations, leftover, shouting } from './rules/marks'
import { offer } from './rules/offer'
import { hook, points } from './rules/opening'
import { ease, emoji } from './rules/reader'

/** All rules, in the order in which a person reads what they find. */
export const RULES: readonly Rule[] = [
  empty,
  length,
  fields,
  format,
  media,
  credit,
  link,
  mostHashtags,
  neverSay,
  sameWords,
  knownLanguage,
  grounded,
  ownWords,
  ages,
  offer,
  hook,
  points,
  balanced,
  leftover,
  doubled,
  liveLink,
  sensibleHashtags,
  shouting,
  exclamations,
  emoji,
  ease,
  outlives,
  tooAlike,
]
const BLOCKING = RULES.filter((rule) => rule.blocks)

/** A line of a video's chapters, which is a name and no prose. */
const CHAPTER = /^\d+:\d\d(?::\d\d)? .*$/gm

/** A caption in its parts. The lines that name whose pictures it shows are no prose of its own. */
function captionOf(text: string, { credits = [] }: Pick<CheckContext, 'credits'>): Caption {
  const own = credits.reduce((rest, line) => rest.split(line).join(''), text)
  const bare = withoutAddresses(own, ' ')
  return { text, prose: withoutTags(bare).replace(CHAPTER, '').replace(/\s+$/gm, ''), tags: tagsIn(bare) }
}

/**
 * Holds a caption against the rules of its network and brand and against its piece. Each check names the
 * words it concerns and, where it can be mended by itself, what a click would do (`remedyFor`). Runs in
 * about a millisecond a caption apart from the likeness to `others`, so it can run as one types.
 */
export function checkCaption(text: string, context: CheckContext): Check[] {
  const caption = captionOf(text, context)
  const english = isEnglish(context.language ?? null)
  return RULES.filter((rule) => english || !rule.english).flatMap((rule) =>
    rule.finds(caption, context).map((finding): Check => ({ code: rule.code, ...finding })),
  )
}

/** Whether a caption breaks a rule that no gate lets pass, for choosing among drafts. */
export function isBlocked(text: string, context: CheckContext): boolean {
  const caption = captionOf(text, context)
  return BLOCKING.some((rule) => rule.finds(caption, context).some((f) => f.severity === 'block'))
}

/**
 * The caption as a check's remedy leaves it, or null where the check has none or nothing would
 * change. Pure; the caller checks again.
 */
export function remedyFor(
  check: Pick<Check, 'code' | 'words'>,
  text: string,
  profile: NetworkProfile,
): string | null {
  const mended = RULES.find((rule) => rule.code === check.code)?.mends?.(text, check, profile) ?? null
  return mended === null || mended === text || !mended.trim() ? null : mended
}
