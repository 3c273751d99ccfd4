import type { parseFeed as parseWithFeedsmith } from 'feedsmith'
import { resolveAddress } from './address'
import { chaptersIn, seconds } from './chapters'
import { feedDate } from './date'
import { jsonFields } from './fields'
import type { FeedItem } from './item'
import { bodyOf, names, paragraphs, plain, summaryOf } from './plain'

type Parsed = ReturnType<typeof parseWithFeedsmith<string>>
type Of<F extends Parsed['format']> = Extract<Parsed, { format: F }>['feed']
type ItemOf<F extends 'atom' | 'json' | 'rss' | 'rdf'> = NonNullable<
  F extends 'atom'
    ? Of<'atom'>['entries']
    : F extends 'json'
      ? Of<'json'>['items']
      : F extends 'rss'
        ? Of<'rss'>['items']
        : Of<'rdf'>['items']
>[number]

/** An item whose id and title may still be missing. */
export type ItemDraft = Omit<FeedItem, 'id' | 'fields'> & {
  id: string | undefined
  fields: Record<string, string>
}

/** A feed's title, site and items as one shape, from any format's own. */
export function normalise(
  parsed: Parsed,
  base: string | null,
  raw: unknown,
): { title: string; site: string | null; items: ItemDraft[] } {
  if (parsed.format === 'atom') return ofAtom(parsed.feed, base)
  if (parsed.format === 'json') return ofJson(parsed.feed, base, raw)
  return ofRss(parsed.feed, base)
}

function ofAtom(feed: Of<'atom'>, base: string | null): ReturnType<typeof normalise> {
  const feedBase = resolveAddress(feed.xml?.base, base) ?? base
  const site = resolveAddress(alternate(feed.links), feedBase)
  const by = feed.authors?.[0]?.name ?? null
  const items = (feed.entries ?? []).map((e): ItemDraft => {
    const own = resolveAddress(e.xml?.base, feedBase) ?? site ?? feedBase
    const html = words(e.content)
    const summary = words(e.summary) || mediaDescription(e.media)
    return {
      title: plain(words(e.title)) || plain(mediaTitle(e.media)),
      url: resolveAddress(alternate(e.links) ?? e.content?.src, own),
      id: e.id,
      publishedAt: feedDate(e.published ?? e.updated),
      author: plain(e.authors?.[0]?.name ?? e.dc?.creators?.[0] ?? by ?? '') || null,
      language: e.xml?.lang ?? e.dc?.languages?.[0] ?? feed.xml?.lang ?? null,
      categories: names([...(e.categories ?? []).map((c) => c.label ?? c.term), ...keywords(e.media)]),
      summary: summaryOf(summary),
      html: bodyOf(e.content && isPlain(e.content) ? paragraphs(html) : html, summary),
      base: own,
      images: mediaImages(e.media, own),
      video: videoOf(
        {
          media: e.media,
          enclosures: filesOf(e),
          itunes: e.itunes,
          psc: e.psc,
          description: summary || html,
          named: e.yt?.videoId !== undefined,
        },
        own,
      ),
      counts: countsOf({
        media: e.media,
        comments: e.thr?.total ?? e.links?.find((l) => l.rel === 'replies')?.thr?.count ?? e.slash?.comments,
      }),
      place: placeOf(e),
      fields: {},
    }
  })
  return { title: plain(words(feed.title)), site, items }
}

function ofJson(feed: Of<'json'>, base: string | null, raw: unknown): ReturnType<typeof normalise> {
  const site = resolveAddress(feed.home_page_url, base)
  const own = site ?? base
  const sources = (raw as { items?: unknown[] }).items ?? []
  const same = sources.length === (feed.items ?? []).length
  const items = (feed.items ?? []).map((i, index): ItemDraft => {
    const attached = (i.attachments ?? []).find((a) => /^(video|audio)\//.test(a.mime_type ?? ''))
    return {
      title: plain(i.title ?? ''),
      url: resolveAddress(i.url ?? i.external_url, own),
      id: i.id,
      publishedAt: feedDate(i.date_published ?? i.date_modified),
      author: plain(i.authors?.[0]?.name ?? feed.authors?.[0]?.name ?? '') || null,
      language: i.language ?? feed.language ?? null,
      categories: names(i.tags),
      summary: summaryOf(i.summary ?? ''),
      html: bodyOf(i.content_html ?? paragraphs(i.content_text ?? ''), i.summary ?? ''),
      base: own,
      images: images([i.image, i.banner_image], own),
      video: attached
        ? {
            url: resolveAddress(attached.url, own),
            type: attached.mime_type ?? '',
            seconds: attached.duration_in_seconds || null,
            chapters: chaptersIn(i.content_text ?? i.content_html ?? i.summary ?? ''),
            chaptersUrl: null,
            transcripts: (i.attachments ?? []).flatMap((a) => {
              const url = TIMED.test(a.mime_type ?? '') ? resolveAddress(a.url, own) : null
              return url ? [{ url, type: a.mime_type ?? '', language: null }] : []
            }),
          }
        : null,
      counts: {},
      place: null,
      fields: same ? jsonFields(sources[index] ?? {}) : {},
    }
  })
  return { title: plain(feed.title ?? ''), site, items }
}

function ofRss(feed: Of<'rss'> | Of<'rdf'>, base: string | null): ReturnType<typeof normalise> {
  const site = resolveAddress(feed.link, base)
  const own = site ?? base
  const by = feed.dc?.creators?.[0] ?? ('itunes' in feed ? feed.itunes?.author : undefined) ?? null
  const language = ('language' in feed ? feed.language : undefined) ?? feed.dc?.languages?.[0] ?? null
  const items = (feed.items ?? []).map((item): ItemDraft => {
    const i = item as ItemOf<'rss'>
    const body = i.content?.encoded ?? ''
    const description = i.description ?? ''
    const described = description || i.itunes?.summary || mediaDescription(i.media)
    const linked = i.guid?.isPermaLink !== false ? i.guid?.value : undefined
    return {
      title: plain(i.title ?? '') || plain(mediaTitle(i.media)),
      url: resolveAddress(i.link, own) ?? (linked ? resolveAddress(linked) : null),
      id: i.guid?.value,
      publishedAt: feedDate(i.pubDate ?? i.dc?.dates?.[0]),
      author:
        plain(i.dc?.creators?.[0] ?? authorName(i.authors?.[0]) ?? i.itunes?.author ?? by ?? '') || null,
      language,
      categories: names([
        ...(i.categories ?? []).map((c) => c.name),
        ...(i.dc?.subjects ?? []),
        ...keywords(i.media),
      ]),
      summary: summaryOf(described),
      html: bodyOf(body, described),
      base: own,
      images: [
        ...mediaImages(i.media, own),
        ...images(
          (i.enclosures ?? []).filter((e) => e.type?.startsWith('image/')).map((e) => e.url),
          own,
        ),
        ...images([i.itunes?.image], own),
      ],
      video: videoOf(
        {
          media: i.media,
          enclosures: i.enclosures,
          itunes: i.itunes,
          podcast: i.podcast,
          psc: i.psc,
          description: description || mediaDescription(i.media) || body,
          named: false,
        },
        own,
      ),
      counts: countsOf({ media: i.media, comments: i.slash?.comments ?? i.thr?.total }),
      place: placeOf(i),
      fields: {},
    }
  })
  return { title: plain(feed.title ?? ''), site, items }
}

/** The files of an Atom entry: those it links to as enclosures, and a content that is elsewhere and no page. */
function filesOf(entry: ItemOf<'atom'>): Thing[] {
  const { content } = entry
  const linked = (entry.links ?? []).filter((l) => l.rel === 'enclosure')
  return [
    ...linked.map((l) => ({ url: l.href, type: l.type })),
    ...(content?.src && /^(?:video|audio)\//.test(content.type ?? '')
      ? [{ url: content.src, type: content.type }]
      : []),
  ]
}

const alternate = (links: readonly { href?: string; rel?: string }[] | undefined): string | undefined =>
  (
    links?.find((l) => !l.rel || l.rel === 'alternate') ??
    links?.find((l) => l.rel !== 'enclosure' && l.rel !== 'self')
  )?.href

/** RSS writes authors as `address (name)`; the name is what people read. */
function authorName(author: unknown): string | null {
  const name = typeof author === 'string' ? author : null
  return name ? (/\(([^)]+)\)/.exec(name)?.[1] ?? name) : null
}

/** Atom's text constructs come as plain strings or as objects with a value. */
function words(value: unknown): string {
  if (typeof value === 'string') return value
  if (value && typeof value === 'object' && 'value' in value && typeof value.value === 'string')
    return value.value
  return ''
}

function isPlain(content: unknown): boolean {
  const type = content && typeof content === 'object' && 'type' in content ? content.type : undefined
  const value = words(content)
  return (type === 'text' || type === undefined || type === 'text/plain') && !/<\w+[^>]*>/.test(value)
}

interface Thing {
  url?: string | undefined
  medium?: string
  type?: string | undefined
  width?: number
  height?: number
  duration?: number
  description?: { value?: string }
  thumbnails?: readonly { url?: string; width?: number; height?: number }[]
}

interface MediaLike extends Thing {
  contents?: readonly (Thing & { thumbnails?: readonly Thing[] })[]
  groups?: readonly MediaLike[]
  title?: { value?: string }
  keywords?: readonly string[]
  community?: { statistics?: { views?: number; favorites?: number }; starRating?: { count?: number } }
  subTitles?: readonly { type?: string; lang?: string; href?: string }[]
}

/** What media tags say, whether they stand in a group or not. */
const inMedia = <T>(
  media: MediaLike | undefined,
  take: (part: MediaLike) => readonly T[] | undefined,
): T[] => (media ? [...(take(media) ?? []), ...(media.groups ?? []).flatMap((g) => take(g) ?? [])] : [])

const mediaTitle = (media: MediaLike | undefined): string =>
  inMedia(media, (m) => [m.title?.value ?? ''])[0] ?? ''
const mediaDescription = (media: MediaLike | undefined): string =>
  inMedia(media, (m) => [m.description?.value ?? '']).find(Boolean) ?? ''
const keywords = (media: MediaLike | undefined): string[] =>
  inMedia(media, (m) => m.keywords).flatMap((k) => k.split(','))

function mediaImages(media: MediaLike | undefined, base: string | null): FeedItem['images'] {
  const contents = inMedia(media, (m) => m.contents)
  const pictures = contents.filter((c) => c.medium === 'image' || c.type?.startsWith('image/'))
  const thumbnails = [...inMedia(media, (m) => m.thumbnails), ...contents.flatMap((c) => c.thumbnails ?? [])]
  return [...pictures, ...thumbnails].flatMap((c) => {
    const url = resolveAddress(c.url, base)
    const alt = plain((c as Thing).description?.value ?? '')
    return url ? [{ url, alt, width: c.width ?? null, height: c.height ?? null }] : []
  })
}

function images(urls: readonly (string | undefined)[], base: string | null): FeedItem['images'] {
  return urls.flatMap((u) => {
    const url = resolveAddress(u, base)
    return url ? [{ url, alt: '', width: null, height: null }] : []
  })
}

/** Types of timed text: WebVTT, SubRip, and what hosts call them. */
const TIMED = /vtt|srt|subrip/i

/** The film or recording of an item: a video before a sound, the longest text of its kind before none. */
function videoOf(
  item: {
    media: MediaLike | undefined
    enclosures?: readonly Thing[] | undefined
    itunes?: { duration?: number } | undefined
    podcast?:
      | {
          transcripts?: readonly { url?: string; type?: string; language?: string }[]
          chapters?: { url?: string }
        }
      | undefined
    psc?: { chapters?: readonly { start?: string; title?: string }[] } | undefined
    description: string
    named: boolean
  },
  base: string | null,
): FeedItem['video'] {
  const contents = inMedia(item.media, (m) => m.contents)
  const things: Thing[] = [...contents, ...(item.enclosures ?? [])]
  const isVideo = (t: Thing): boolean => t.medium === 'video' || /^video\//.test(t.type ?? '')
  const isSound = (t: Thing): boolean => t.medium === 'audio' || /^audio\//.test(t.type ?? '')
  const thing = things.find(isVideo) ?? things.find(isSound)
  if (!thing && !item.named) return null
  const transcripts = [
    ...(item.podcast?.transcripts ?? []).map((t) => ({ url: t.url, type: t.type, language: t.language })),
    ...inMedia(item.media, (m) => m.subTitles).map((t) => ({ url: t.href, type: t.type, language: t.lang })),
  ].flatMap((t) => {
    const url = resolveAddress(t.url, base)
    return url ? [{ url, type: t.type ?? '', language: t.language ?? null }] : []
  })
  const inFeed = (item.psc?.chapters ?? []).flatMap((c) => {
    const at = seconds(c.start)
    return at === null || !c.title ? [] : [{ at, title: c.title }]
  })
  return {
    url: resolveAddress(thing?.url, base),
    type: thing?.type ?? '',
    seconds: thing?.duration || item.itunes?.duration || null,
    chapters: inFeed.length ? inFeed : chaptersIn(item.description),
    chaptersUrl: resolveAddress(item.podcast?.chapters?.url, base),
    transcripts: transcripts.sort((a, b) => Number(TIMED.test(b.type)) - Number(TIMED.test(a.type))),
  }
}

function countsOf(item: { media: MediaLike | undefined; comments: number | undefined }): FeedItem['counts'] {
  const community = inMedia(item.media, (m) => [m.community]).find(Boolean)
  const views = community?.statistics?.views
  const likes = community?.starRating?.count ?? community?.statistics?.favorites
  return {
    ...(item.comments === undefined ? {} : { comments: item.comments }),
    ...(views === undefined ? {} : { views }),
    ...(likes === undefined ? {} : { likes }),
  }
}

interface Placed {
  georss?: { point?: { lat?: number; lng?: number } }
  geo?: { lat?: number; long?: number }
}

function placeOf(item: unknown): FeedItem['place'] {
  const { georss, geo } = item as Placed
  const latitude = georss?.point?.lat ?? geo?.lat
  const longitude = georss?.point?.lng ?? geo?.long
  return latitude === undefined || longitude === undefined ? null : { latitude, longitude }
}
