const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ')

/**
 * A feed's date as an instant, or null where it says none. RSS dates follow RFC 822, the others
 * RFC 3339, and real feeds neither: `24.11.2026 10:00`, `2026-11-24 10:00:00`, `24 Nov 2026`,
 * `Nov 24, 2026`, seconds since 1970. A date without a zone is read as UTC, so that the same feed
 * reads the same anywhere; of `24/11/2026` the day comes first unless that makes no date.
 */
export function feedDate(text: string | undefined | null): string | null {
  const trimmed = text?.trim().replace(/\s+/g, ' ')
  if (!trimmed) return null
  const stamp = /^\d{9,13}$/.exec(trimmed)
  if (stamp) return instant(Number(trimmed) * (trimmed.length > 11 ? 1 : 1000))
  const parts = /^(\d{1,2})([./-])(\d{1,2})\2(\d{4})(?:,?[ T](\d{1,2}):(\d\d)(?::(\d\d))?)?$/.exec(trimmed)
  if (parts) {
    const [a, b, year] = [Number(parts[1]), Number(parts[3]), Number(parts[4])]
    const [day, month] = b > 12 ? [b, a] : [a, b]
    if (day > 31 || month > 12) return null
    return instant(
      Date.UTC(year, month - 1, day, Number(parts[5] ?? 0), Number(parts[6] ?? 0), Number(parts[7] ?? 0)),
    )
  }
  const named = /^(?:\w{3,9},? )?(\d{1,2})(?:st|nd|rd|th)? (\w{3})\w*,? (\d{4})$/i.exec(trimmed)
  if (named) {
    const month = MONTHS.indexOf((named[2] ?? '').toLowerCase())
    if (month >= 0) return instant(Date.UTC(Number(named[3]), month, Number(named[1])))
  }
  const iso = trimmed.replace(/^(\d{4}-\d\d-\d\d) (?=\d\d:)/, '$1T').replace(/ (?=[+-]\d\d:?\d\d$)/, '')
  const hasZone = /(Z|[+-]\d{2}:?\d{2}|\b(?:UTC?|GMT|[ECMP][SD]T))\s*(\(.*\))?$/i.test(iso)
  const dayOnly = /^\d{4}-\d{2}-\d{2}$/.test(iso)
  const zone = /T\d/.test(iso) ? 'Z' : ' UTC'
  return instant(Date.parse(hasZone || dayOnly ? iso.replace(/\bUT$/, 'UTC') : `${iso}${zone}`))
}

function instant(time: number): string | null {
  return Number.isNaN(time) || Math.abs(time) > 8.64e15 ? null : new Date(time).toISOString()
}
