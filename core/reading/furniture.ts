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
  /^(about the author|about (the )?writer|related( (posts|articles|reading))?|read next|keep reading|you (might|may) also (like|enjoy)|more from .{2,40}|share this.*|comments?|leave a (comment|reply)|subscribe.*|join (our|the) .{0,20}(list|newsletter|letter)|newsletter)$/i

/** Whether a heading opens furniture that runs to the next heading of its level or the end. */
export function furnitureByHeading(heading: string): string | null {
  if (!TAIL_HEADING.test(heading.trim())) return null
  return /author|writer/i.test(heading)
    ? 'biography'
    : /related|next|reading|also|more/i.test(heading)
      ? 'related links'
      : 'sign-up box'
}

const CALLS =
  /^(subscribe\b|sign up\b|follow us\b|join our (newsletter|mailing|list|letter)|share this\b|leave a comment|like what you|get (our|the) .{0,30}(newsletter|letter|inbox)|click here\b|read more\b|continue reading|never miss\b|all rights reserved|©|copyright\b)|\b(to|for) (our|the) ([A-Z]\w+ )?(newsletter|letter)\b.*\b(inbox|week|month|free)\b/i
const CREDIT = /^(photo(graph)?s?|pictures?|images?|illustrations?|drawings?)( credit)?( by|:)/i

const DISCLAIMER =
  /^(?:this (?:page|article|post|guide|text|leaflet)?\s?(?:is|gives|contains|offers)|the (?:information|advice) (?:here|on this page|above)|nothing (?:here|on this page|in this \w+)) .*\b(?:general|not|no)\b.*\b(?:advice|doctor|lawyer|replace|substitute|guarantee)/i

/**
 * Why a paragraph is furniture by its words, or null. `author` is the piece's author where known;
 * `position` runs from 0 at the top of the piece to 1 at its end.
 */
export function furnitureByWords(text: string, author: string | null, position: number): string | null {
  const words = text.split(/\s+/).length
  if (words <= 45 && CALLS.test(text)) return 'call to subscribe'
  if (words <= 45 && DISCLAIMER.test(text)) return 'disclaimer'
  if (words <= 20 && CREDIT.test(text)) return 'picture credit'
  if (position >= 0.75 && words <= 90 && isBiography(text, author)) return 'biography'
  if (position <= 0.1 && words <= 14 && /^(by|written by|posted (by|on)|published)\b/i.test(text))
    return 'byline'
  return null
}

const LIFE =
  /^(has (taught|written|worked|been|run|lived)|have (taught|written|worked|been|run)|is an? |teaches|writes|lives|works|runs|was born|is the (author|founder|editor|head|owner)|founded|edits)\b/

function isBiography(text: string, author: string | null): boolean {
  const name = /^((?:[A-Z][\w’'-]+\s){1,3})/.exec(text)?.[1]?.trim()
  if (!name) return false
  const rest = text.slice(name.length).trim()
  const known = author !== null && (name === author || author.split(' ').includes(name.split(' ')[0] ?? ''))
  return LIFE.test(rest) && (known || name.includes(' '))
}
