/** An element of it. */
export interface Queried {
  getAttribute(name: string): string | null
  textContent: string | null
  closest(selector: string): unknown
  childElementCount: number
}

/** The part of a document that is looked into. */
export interface Queryable {
  querySelector(selector: string): Queried | null
  querySelectorAll(selector: string): Iterable<Queried>
}

/** One space for every run of white space; soft hyphens and zero-width spaces are none. */
export function squeeze(text: string): string {
  // Most texts have nothing to squeeze, which a search tells much sooner.
  if (!/[^\S ]|[ \u00AD\u200B\uFEFF]{2}|[\u00AD\u200B\uFEFF]/.test(text)) return text.trim()
  return text
    .replace(/[\s\u00AD\u200B\uFEFF]+/g, (run) => (/^[\u00AD\u200B\uFEFF]+$/.test(run) ? '' : ' '))
    .trim()
}

/** A full web address, or null. */
export const absolute = (address: string | null | undefined): string | null =>
  address && /^https?:\/\//i.test(address.trim()) ? address.trim() : null

const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ')

/**
 * An instant (ISO 8601) from what pages write: ISO with or without a zone, "8 February 2025",
 * "February 8th, 2025", RFC 2822. A day alone is its beginning in UTC; figures with slashes say nothing
 * that is certain.
 */
export function instantOf(text: string | null | undefined): string | null {
  if (!text) return null
  const value = text.trim()
  const iso =
    /^(\d{4})-(\d{2})-(\d{2})(?:[T ](\d{2}:\d{2}(?::\d{2})?(?:\.\d+)?)\s*(Z|[+-]\d{2}:?\d{2})?)?/.exec(value)
  if (iso) return valid(`${iso[1]}-${iso[2]}-${iso[3]}T${iso[4] ?? '00:00'}${zone(iso[5])}`)
  const written =
    /\b(\d{1,2})(?:st|nd|rd|th)?(?: of)?[ .]+([a-z]{3,9})\.?,? +(\d{4})\b/i.exec(value) ??
    swap(/\b([a-z]{3,9})\.? +(\d{1,2})(?:st|nd|rd|th)?,? +(\d{4})\b/i.exec(value))
  if (written) {
    const month = MONTHS.indexOf((written[2] ?? '').slice(0, 3).toLowerCase())
    const day = Number(written[1])
    if (month < 0 || day < 1 || day > 31) return null
    const clock = /\b(\d{1,2}):(\d{2})(?::(\d{2}))?\s*(GMT|UTC|Z|[+-]\d{4})?/.exec(
      value.slice(written.index + written[0].length),
    )
    const time = clock ? `${(clock[1] ?? '').padStart(2, '0')}:${clock[2]}:${clock[3] ?? '00'}` : '00:00:00'
    const offset = clock?.[4]?.startsWith('+') || clock?.[4]?.startsWith('-') ? clock[4] : 'Z'
    return valid(
      `${written[3]}-${String(month + 1).padStart(2, '0')}-${String(day).padStart(2, '0')}T${time}${zone(offset)}`,
    )
  }
  return null
}

const zone = (offset: string | undefined): string =>
  offset && offset !== 'Z' ? offset.replace(/^([+-]\d{2})(\d{2})$/, '$1:$2') : 'Z'

function swap(match: RegExpExecArray | null): RegExpExecArray | null {
  if (match) [match[1], match[2]] = [match[2] ?? '', match[1] ?? '']
  return match
}

function valid(iso: string): string | null {
  const time = Date.parse(iso)
  return Number.isNaN(time) ? null : new Date(time).toISOString()
}

/** A person's name out of "By Anna Ruff" or "Anna Ruff, carpenter"; null for addresses and dates. */
export function personName(text: string | null): string | null {
  const name = squeeze(text ?? '')
    .replace(/^(?:written |posted |story |words |text )?by:?\s+/i, '')
    .replace(/\s*(?:[|·•]| – | — |, (?:on |\d|[a-z])|\son \w+ \d).*$/, '')
    .trim()
  return name && name.length <= 60 && !/https?:|@|\d{4}/.test(name) ? name : null
}
