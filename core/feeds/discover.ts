import { parseHTML } from 'linkedom'
import { resolveAddress } from './address'

/** A feed that a page names. */
export interface NamedFeed {
  url: string
  title: string
}

const FEED_TYPE = /^application\/(rss\+xml|atom\+xml|rdf\+xml|feed\+json)/i

/** The feeds a page names in its link elements, in its order, each once. */
export function discoverFeeds(html: string, base: string): NamedFeed[] {
  const { document } = parseHTML(html)
  const found = new Map<string, NamedFeed>()
  for (const link of document.querySelectorAll('link[rel~="alternate"]')) {
    if (!FEED_TYPE.test(link.getAttribute('type') ?? '')) continue
    const url = resolveAddress(link.getAttribute('href'), base)
    if (url && !found.has(url)) found.set(url, { url, title: link.getAttribute('title') ?? '' })
  }
  return [...found.values()]
}
