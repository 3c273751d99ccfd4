import { parseFeed as parseWithFeedsmith } from 'feedsmith'
import { z } from 'zod'
import { Fault, Instant } from '../model'
import { resolveAddress } from './address'
import { feedDate } from './date'

/** A picture that a feed names for an item. */
const FeedImage = z.object({
  url: z.string(),
  alt: z.string(),
  width: z.number().nullable(),
  height: z.number().nullable(),
})

/** One item of a feed, whatever the feed's format. */
export const FeedItem = z.object({
  title: z.string(),
  url: z.string().nullable(),
  id: z.string(),
  publishedAt: Instant.nullable(),
  author: z.string().nullable(),
  categories: z.array(z.string()),
  summary: z.string(),
  /** The item's body as HTML, empty where the feed carries summaries only. */
  html: z.string(),
  images: z.array(FeedImage),
})
export type FeedItem = z.infer<typeof FeedItem>

export const Feed = z.object({
  title: z.string(),
  url: z.string().nullable(),
  items: z.array(FeedItem),
  /** What had to be mended to read it, in plain words. */
  notes: z.array(z.string()),
})
export type Feed = z.infer<typeof Feed>

/** Whether a document looks like a feed of any kind. */
export function looksLikeFeed(text: string): boolean {
  const head = text.slice(0, 4000)
  if (/<(?:\w+:)?(?:rss|feed|RDF)[\s>]/i.test(head)) return !/<html[\s>]/i.test(head)
  return /^\s*\{/.test(head) && /jsonfeed\.org\/version/.test(head)
}

/**
 * Reads RSS, RDF, Atom or JSON Feed. Addresses come out absolute against `base` (the address the
 * feed was fetched from). A feed that breaks off is read up to its last whole item, with a note.
 * Throws `not-a-feed` where there is nothing to read.
 */
export function parseFeed(text: string, base: string | null = null): Feed {
  const notes: string[] = []
  const trimmed = text.replace(/^[\uFEFF\s]+/, '')
  if (!looksLikeFeed(trimmed))
    throw new Fault(
      'not-a-feed',
      /<html[\s>]/i.test(trimmed.slice(0, 4000))
        ? 'This is a web page, not a feed. Give the address of its feed, or of a page that names one.'
        : 'This is not a feed: it has no RSS, Atom or JSON Feed in it. Check the address.',
    )
  const parsed = parseMended(trimmed, notes)
  const feed = normalise(parsed, base)
  if (feed.items.length === 0 && notes.length === 0) notes.push('The feed has no items yet.')
  return { ...feed, notes: [...notes, ...feed.notes] }
}

const parseString = (text: string) => parseWithFeedsmith(text)
type Parsed = ReturnType<typeof parseString>

function parseMended(text: string, notes: string[]): Parsed {
  // The parser is lenient: it takes half an item for a whole one, which would come again under
  // another id once the feed is whole. A feed whose root is not closed is cut after a whole item.
  const whole = text.startsWith('{') || /<\/(?:\w+:)?(?:rss|feed|RDF)\s*>/i.test(text)
  const attempts: [() => string, string | null][] = [
    ...(whole
      ? ([
          [() => text, null],
          [() => escapeAmpersands(text), 'Unescaped “&” signs were read as they were meant.'],
        ] satisfies [() => string, string | null][])
      : []),
    [
      () => closeBrokenFeed(escapeAmpersands(text)),
      'The feed breaks off in the middle; its whole items were taken, the last one may be missing.',
    ],
  ]
  let last: unknown = null
  for (const [make, note] of attempts) {
    try {
      const parsed = parseString(make())
      if (note) notes.push(note)
      return parsed
    } catch (error) {
      last = error
    }
  }
  const cause = last instanceof Error && last.cause instanceof Error ? ` (${last.cause.message})` : ''
  throw new Fault(
    'not-a-feed',
    `The feed breaks off before its first whole item${cause}. Ask the site to mend it, or try again later.`,
    `line ${text.split('\n').length}`,
  )
}

function escapeAmpersands(text: string): string {
  return text
    .split(/(<!\[CDATA\[[\s\S]*?\]\]>)/)
    .map((part, i) => (i % 2 ? part : part.replace(/&(?!#?\w{1,31};)/g, '&amp;')))
    .join('')
}

/** Cuts a feed after its last whole item and closes what stood open around it. */
function closeBrokenFeed(text: string): string {
  const end = Math.max(text.lastIndexOf('</item>'), text.lastIndexOf('</entry>'))
  if (end < 0) throw new Fault('not-a-feed', 'There is no whole item in it.')
  const kept = text.slice(0, text.indexOf('>', end) + 1)
  const root = /<((?:\w+:)?(?:rss|feed|RDF))[\s>]/i.exec(kept)?.[1] ?? 'rss'
  return `${kept}${root.toLowerCase() === 'rss' ? '</channel>' : ''}</${root}>`
}

function normalise(parsed: Parsed, base: string | null): Feed {
  const notes: string[] = []
  const drafts: (Omit<FeedItem, 'id'> & { id: string | undefined })[] = []
  let title: string
  let site: string | null
  if (parsed.format === 'atom') {
    const { feed } = parsed
    const link = (links: readonly { href?: string; rel?: string }[] | undefined): string | undefined =>
      (links?.find((l) => !l.rel || l.rel === 'alternate') ?? links?.[0])?.href
    title = text(feed.title)
    site = resolveAddress(link(feed.links), base)
    for (const e of feed.entries ?? [])
      drafts.push({
        title: text(e.title),
        url: resolveAddress(link(e.links), site ?? base),
        id: e.id,
        publishedAt: feedDate(e.published ?? e.updated),
        author: e.authors?.[0]?.name ?? e.dc?.creators?.[0] ?? null,
        categories: clean(e.categories?.map((c) => c.label ?? c.term)),
        summary: plain(text(e.summary)),
        html: text(e.content),
        images: mediaImages(e.media, site ?? base),
      })
  } else if (parsed.format === 'json') {
    const { feed } = parsed
    title = feed.title ?? ''
    site = resolveAddress(feed.home_page_url, base)
    for (const i of feed.items ?? [])
      drafts.push({
        title: plain(i.title ?? ''),
        url: resolveAddress(i.url ?? i.external_url, site ?? base),
        id: i.id,
        publishedAt: feedDate(i.date_published ?? i.date_modified),
        author: i.authors?.[0]?.name ?? null,
        categories: clean(i.tags),
        summary: plain(i.summary ?? ''),
        html: i.content_html ?? paragraphs(i.content_text ?? ''),
        images: images([i.image, i.banner_image], site ?? base),
      })
  } else {
    const { feed } = parsed
    title = plain(feed.title ?? '')
    site = resolveAddress(feed.link, base)
    for (const i of feed.items ?? []) {
      const guid = 'guid' in i ? i.guid : undefined
      const body = i.content?.encoded ?? ''
      const description = i.description ?? ''
      const linked = guid?.isPermaLink !== false ? guid?.value : undefined
      drafts.push({
        title: plain(i.title ?? ''),
        url: resolveAddress(i.link, site ?? base) ?? (linked ? resolveAddress(linked) : null),
        id: guid?.value,
        publishedAt: feedDate(('pubDate' in i ? i.pubDate : undefined) ?? i.dc?.dates?.[0]),
        author: i.dc?.creators?.[0] ?? ('authors' in i ? authorName(i.authors?.[0]) : null),
        categories: clean('categories' in i ? i.categories?.map((c) => c.name) : i.dc?.subjects),
        summary: plain(description),
        html: body || (description.length > 1200 || /<p[\s>]/i.test(description) ? description : ''),
        images: [
          ...mediaImages(i.media, site ?? base),
          ...images(
            'enclosures' in i
              ? (i.enclosures ?? []).filter((e) => e.type?.startsWith('image/')).map((e) => e.url)
              : [],
            site ?? base,
          ),
        ],
      })
    }
  }
  const seen = new Set<string>()
  const items: FeedItem[] = []
  let doubled = 0
  for (const draft of drafts) {
    const id = draft.id ?? draft.url ?? `${draft.title} ${draft.publishedAt ?? ''}`.trim()
    if (!id) {
      notes.push('An item without title, address or id was left out.')
      continue
    }
    if (seen.has(id)) {
      doubled++
      continue
    }
    seen.add(id)
    const title = draft.title || draft.summary.split(/(?<=[.!?])\s/)[0]?.slice(0, 120) || draft.url || id
    items.push({ ...draft, id, title })
  }
  if (doubled) notes.push(`${doubled} doubled ${doubled === 1 ? 'item was' : 'items were'} left out.`)
  return { title: title || 'Untitled feed', url: site, items, notes }
}

/** RSS writes authors as `address (name)`; the name is what people read. */
function authorName(author: unknown): string | null {
  const name = typeof author === 'string' ? author : null
  return name ? (/\(([^)]+)\)/.exec(name)?.[1] ?? name) : null
}

/** Atom's text constructs come as plain strings or as objects with a value. */
function text(value: unknown): string {
  if (typeof value === 'string') return value
  if (value && typeof value === 'object' && 'value' in value && typeof value.value === 'string')
    return value.value
  return ''
}

function clean(names: readonly (string | undefined)[] | undefined): string[] {
  return [...new Set((names ?? []).map((n) => plain(n ?? '')).filter(Boolean))]
}

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: '’', nbsp: ' ' }

/** A short field without its markup. */
function plain(html: string): string {
  return html
    .replace(/<[^>]*>/g, ' ')
    .replace(/&(?:#(\d+)|#x([\da-f]+)|(\w+));/gi, (whole, dec?: string, hex?: string, name?: string) => {
      const code = dec ? Number(dec) : hex ? parseInt(hex, 16) : null
      if (code !== null) return code > 0 && code < 0x110000 ? String.fromCodePoint(code) : ''
      return ENTITIES[name?.toLowerCase() ?? ''] ?? whole
    })
    .replace(/\s+/g, ' ')
    .trim()
}

function paragraphs(content: string): string {
  const escape = (s: string): string => s.replace(/&/g, '&amp;').replace(/</g, '&lt;')
  return content
    .split(/\n\s*\n/)
    .filter((p) => p.trim())
    .map((p) => `<p>${escape(p.trim())}</p>`)
    .join('\n')
}

interface MediaLike {
  contents?: readonly { url?: string; medium?: string; type?: string; width?: number; height?: number }[]
  thumbnails?: readonly { url?: string; width?: number; height?: number }[]
}

function mediaImages(media: MediaLike | undefined, base: string | null): FeedItem['images'] {
  const pictures = (media?.contents ?? []).filter((c) => c.medium === 'image' || c.type?.startsWith('image/'))
  return [...pictures, ...(media?.thumbnails ?? [])].flatMap((c) => {
    const url = resolveAddress(c.url, base)
    return url ? [{ url, alt: '', width: c.width ?? null, height: c.height ?? null }] : []
  })
}

function images(urls: readonly (string | undefined)[], base: string | null): FeedItem['images'] {
  return urls.flatMap((u) => {
    const url = resolveAddress(u, base)
    return url ? [{ url, alt: '', width: null, height: null }] : []
  })
}
