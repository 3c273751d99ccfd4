import { countWords } from '../text'
import { asideOf } from './asides'

/** Why an element is furniture, by the names its author gave it. */
const NAMES: [RegExp, string][] = [
  [/(^|[-_ ])(bio|biography|author-?(box|bio|info|card)|about-?(the-?)?author)($|[-_ ])/, 'biography'],
  [/subscri|newsletter|sign-?up|mailing/, 'sign-up box'],
  [/related|read-?(next|more)|more-(posts|articles)|recommend|you-?may/, 'related links'],
  [/(^|[-_ ])(share|sharing|social)($|[-_ ])/, 'sharing'],
  [/cookie|consent/, 'cookie notice'],
  [/breadcrumb|(^|[-_ ])(nav|navbar|navigation|menu|pager|pagination|skip-?link)($|[-_ ])/, 'navigation'],
  [/(^|[-_ ])(comments?|respond|disqus)($|[-_ ])/, 'comments'],
  [/(^|[-_ ])(ads?|advert\w*|sponsor\w*|promo)($|[-_ ])/, 'advertisement'],
  [/(^|[-_ ])(byline|post-?meta|entry-?meta|article-?meta|dateline)($|[-_ ])/, 'byline'],
  [/(^|[-_ ])(tags?|tag-?list|categories|post-?tags)($|[-_ ])/, 'tags'],
  [/(^|[-_ ])(footer|colophon|site-?foot)($|[-_ ])/, 'page footer'],
]
const TAGS: Record<string, string> = {
  nav: 'navigation',
  aside: 'aside',
  footer: 'page footer',
  form: 'sign-up box',
  address: 'byline',
}

/** Why an element is furniture by its tag, class, id or role, or null. */
export function furnitureByName(tag: string, names: string): string | null {
  const byTag = TAGS[tag]
  const lower = names.toLowerCase()
  const byName = NAMES.find(([pattern]) => pattern.test(lower))?.[1]
  return byName ?? byTag ?? null
}

const TAIL_HEADING =
  /^(about the author|about (the )?writer|related( (posts|articles|reading))?|read next|keep reading|you (might|may) also (like|enjoy)|more from .{2,40}|share this.*|comments?|leave a (comment|reply)|subscribe(?: (?:now|here|today|to (?:our|my) .*))?[.!]?|join (our|the) .{0,20}(list|newsletter|letter)|newsletter)$/i

/** Headings that are furniture at the foot of a page and may be a subject above it. */
const FOOT_HEADING = /^(comments?|subscribe|newsletter)$/i

/**
 * Whether a heading opens furniture that runs to the next heading of its level or the end; `position`
 * runs from 0 at the top of the piece to 1 at its end.
 */
export function furnitureByHeading(heading: string, position: number): string | null {
  const words = heading.trim()
  if (!TAIL_HEADING.test(words) || (position < 0.6 && FOOT_HEADING.test(words))) return null
  return /author|writer/i.test(heading)
    ? 'biography'
    : /related|next|reading|also|more/i.test(heading)
      ? 'related links'
      : 'sign-up box'
}

const BYLINE = /^(?:[Bb]y \p{Lu}[\p{L}’'-]+ \p{Lu}|(?:[Ww]ritten by|[Pp]osted (?:by|on)|[Pp]ublished) )/u

/** How long a paragraph may be, in words, that is an aside as a whole. */
const LONGEST = 110

/** From where in a piece, from 0 to 1, a single aside colours the short paragraph that it stands in. */
const TAIL = 0.85

/**
 * Why a paragraph is furniture by its words, or null: where three quarters of its words stand in asides; at
 * the end of a piece three in ten, where one of them offers or calls. `author` is the piece's author where known; `position` runs from 0 at the top of the piece to 1 at its end.
 */
export function furnitureByWords(text: string, author: string | null, position: number): string | null {
  const words = countWords(text)
  if (words > LONGEST) return null
  if (position >= TAIL && isLifeOf(author, text)) return 'biography'
  if (position <= 0.1 && words <= 14 && BYLINE.test(text)) return 'byline'
  const sentences = text.split(/(?<=[.!?…]["”’)]*)\s+(?=\S)/)
  const found = sentences.map((s) => asideOf(s, position))
  const lengths = sentences.map((s, i) => (found[i] ? countWords(s) : 0))
  const aside = lengths.reduce((sum, n) => sum + n, 0)
  const coloured = position >= TAIL && found.some((rule) => rule?.colours)
  if (aside === 0 || aside < words * (coloured ? COLOURED : ALL)) return null
  return found[lengths.indexOf(Math.max(...lengths))]?.reason ?? null
}

/** Which share of a paragraph's words must stand in sentences that are asides, and at the end of a piece. */
const ALL = 0.75
const COLOURED = 0.3

/** Whether a paragraph begins with the author's own name and tells of a life. */
function isLifeOf(author: string | null, text: string): boolean {
  const name = author?.split(' ')[0]
  return (
    name !== undefined &&
    name.length > 1 &&
    text.startsWith(`${name} `) &&
    /^\S+(?: \p{Lu}[\p{L}’'-]+){0,3},? (?:has|have|is|was|teaches|writes|lives|works|runs|founded|edits|makes|leads)\b/u.test(
      text,
    )
  )
}
