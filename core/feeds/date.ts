/**
 * A feed's date as an instant, or null where it says none. RSS dates follow RFC 822, the others
 * RFC 3339; a date without a zone is read as UTC, so that the same feed reads the same anywhere.
 */
export function feedDate(text: string | undefined | null): string | null {
  const trimmed = text?.trim()
  if (!trimmed) return null
  const hasZone = /(Z|[+-]\d{2}:?\d{2}|\b(?:UTC?|GMT|[ECMP][SD]T))\s*(\(.*\))?$/i.test(trimmed)
  const dayOnly = /^\d{4}-\d{2}-\d{2}$/.test(trimmed)
  const time = Date.parse(
    hasZone || dayOnly ? trimmed : /T\d/.test(trimmed) ? `${trimmed}Z` : `${trimmed} UTC`,
  )
  return Number.isNaN(time) ? null : new Date(time).toISOString()
}
