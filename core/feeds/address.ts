const TRACKING =
  /^(utm_\w+|fbclid|gclid|dclid|msclkid|yclid|igshid|mc_[ce]id|_hs\w+|mkt_tok|vero_\w+|ref|ref_src|source|cmpid|campaign|spm|s_kwcid|amp)$/i

/** An address resolved against a base, or null when it is none a browser would follow. */
export function resolveAddress(address: string | undefined | null, base?: string | null): string | null {
  if (!address) return null
  try {
    const url = new URL(address.trim(), base ?? undefined)
    return url.protocol === 'http:' || url.protocol === 'https:' ? url.href : null
  } catch {
    return null
  }
}

/** An address in its plainest clothes: no fragment, no tracking parameters, no trailing slash. */
export function canonicalAddress(address: string): string {
  const resolved = resolveAddress(address)
  if (!resolved) return address
  const url = new URL(resolved)
  url.hash = ''
  for (const name of [...url.searchParams.keys()]) if (TRACKING.test(name)) url.searchParams.delete(name)
  if (url.pathname.length > 1) url.pathname = url.pathname.replace(/\/+$/, '')
  return url.href
}

/**
 * A key under which all clothes of one address are the same: beside what `canonicalAddress` takes
 * off, the scheme, `www` and mobile hosts, a mobile or print ending, an index file, the order of
 * parameters and the case of the host.
 */
export function sameAddress(address: string): string {
  const resolved = resolveAddress(canonicalAddress(address))
  if (!resolved) return address.trim().toLowerCase()
  const url = new URL(resolved)
  const host = url.host.replace(/^(?:www\d?|m|mobile|amp)\./, '').replace(/:(?:80|443)$/, '')
  const path = url.pathname
    .replace(/\/(?:index|default)\.(?:html?|php|aspx?)$/i, '')
    .replace(/\/(?:amp|print|mobile)\/?$/i, '')
    .replace(/\/{2,}/g, '/')
    .replace(/\/+$/, '')
  const query = [...url.searchParams].sort(([a], [b]) => (a < b ? -1 : a > b ? 1 : 0))
  return `${host}${path}${query.length ? `?${new URLSearchParams(query).toString()}` : ''}`
}
