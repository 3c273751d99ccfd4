import { generateOpml, parseOpml as parseWithFeedsmith } from 'feedsmith'
import { Fault } from '../model'
import { resolveAddress } from './address'
import { plain } from './plain'

/** A feed that a list names, with the heading it stands under. */
export interface ListedFeed {
  url: string
  title: string
  group: string | null
}

interface Outline {
  text?: string
  title?: string
  xmlUrl?: string
  outlines?: readonly Outline[]
}

/** Whether a document is an OPML list of feeds. */
export function looksLikeOpml(text: string): boolean {
  return /<opml[\s>]/i.test(text.slice(0, 2000))
}

/** The feeds of an OPML list, each address once, with the innermost heading as their group. Throws `bad-file`. */
export function readOpml(text: string): ListedFeed[] {
  let outlines: readonly Outline[]
  try {
    outlines = (parseWithFeedsmith(text.replace(/^[\uFEFF\s]+/, '')).body?.outlines ??
      []) as readonly Outline[]
  } catch {
    throw new Fault('bad-file', 'This is not a list of feeds: it cannot be read as OPML. Export it again.')
  }
  const found = new Map<string, ListedFeed>()
  const walk = (list: readonly Outline[], group: string | null): void => {
    for (const o of list) {
      const title = plain(o.title ?? o.text ?? '')
      const url = resolveAddress(o.xmlUrl)
      if (url && !found.has(url)) found.set(url, { url, title: title || url, group })
      if (o.outlines) walk(o.outlines, title || group)
    }
  }
  walk(outlines, null)
  if (found.size === 0)
    throw new Fault('bad-file', 'There is no feed in this list: none of its entries has an address (xmlUrl).')
  return [...found.values()]
}

/** A list of feeds as OPML 2.0, grouped. */
export function writeOpml(feeds: readonly ListedFeed[], title: string): string {
  const outline = (f: ListedFeed) => ({ text: f.title, title: f.title, type: 'rss', xmlUrl: f.url })
  const groups = [...new Set(feeds.flatMap((f) => f.group ?? []))]
  return generateOpml({
    head: { title },
    body: {
      outlines: [
        ...feeds.filter((f) => f.group === null).map(outline),
        ...groups.map((g) => ({
          text: g,
          title: g,
          outlines: feeds.filter((f) => f.group === g).map(outline),
        })),
      ],
    },
  })
}
