import { parseHTML } from 'linkedom'
import { resolveAddress } from './address'

/** A feed that a page names, or that may lie in a common place. */
export interface NamedFeed {
  url: string
  title: string
}

const FEED_TYPE = /^(?:application|text)\/(?:(?:rss|atom|rdf)\+xml|feed\+json|rss|xml)/i
const FEED_PATH =
  /(?:^|\/)(?:feeds?|rss|atom|index)(?:\.(?:xml|rss|atom|json))?\/?$|\.(?:rss|atom)$|[?&](?:feed|format)=(?:rss|atom|rss2)/i

/** The feeds a page names: in its link elements first, then in links whose address or words say so. */
export function discoverFeeds(html: string, base: string): NamedFeed[] {
  const { document } = parseHTML(html)
  const found = new Map<string, NamedFeed>()
  const own = resolveAddress(document.querySelector('base[href]')?.getAttribute('href'), base) ?? base
  const add = (href: string | null, title: string): void => {
    const url = resolveAddress(href, own)
    if (url && url !== base && !found.has(url)) found.set(url, { url, title: title.trim() })
  }
  for (const link of document.querySelectorAll('link[rel~="alternate"]'))
    if (FEED_TYPE.test(link.getAttribute('type') ?? ''))
      add(link.getAttribute('href'), link.getAttribute('title') ?? '')
  for (const a of document.querySelectorAll('a[href]')) {
    const href = a.getAttribute('href') ?? ''
    const words = (a.textContent ?? '').trim()
    if (
      FEED_PATH.test(href.split('#')[0] ?? '') ||
      /^(?:rss|atom|(?:rss |atom |web ?)?feed|subscribe by rss)$/i.test(words)
    )
      add(href, '')
  }
  return [...found.values()].slice(0, MOST)
}

/** How many feeds of one page are looked at. */
const MOST = 12

/** Where feeds commonly lie, for a site whose page names none: below the page, then at the root. */
export function commonPlaces(base: string): string[] {
  const below = base.endsWith('/') ? base : `${base}/`
  const names = ['feed', 'feed.xml', 'rss.xml', 'atom.xml', 'index.xml', 'feed.json', 'rss']
  return [
    ...new Set(
      [...names.map((n) => `/${n}`), 'feed', 'feed.xml'].flatMap((n) => resolveAddress(n, below) ?? []),
    ),
  ]
}
