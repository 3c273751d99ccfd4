const TRACKING = /^(utm_\w+|fbclid|gclid|mc_cid|mc_eid|ref|source)$/i

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
