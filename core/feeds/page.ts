import { parseHTML } from 'linkedom'
import { canonicalAddress, resolveAddress } from './address'
import { chaptersIn, seconds } from './chapters'
import { feedDate } from './date'
import type { FeedItem } from './item'
import { plain, summaryOf } from './plain'

const TRANSCRIPT = /\.(?:vtt|srt)(?:[?#]|$)/i

/**
 * One page as an item of its own: an article that is read from the page, or a film with whatever
 * the page says of it. A film is known by a `VideoObject` of schema.org, a `video` element or
 * `og:video`; its transcript by a track, by that object, or by a link to a timed text.
 */
export function itemOfPage(html: string, address: string): FeedItem {
  const { document } = parseHTML(html)
  const attribute = (selector: string, name: string): string | null =>
    document.querySelector(selector)?.getAttribute(name)?.trim() || null
  const meta = (...names: string[]): string | null =>
    names
      .map((n) => attribute(`meta[property="${n}"], meta[name="${n}"]`, 'content'))
      .find((v) => v !== null) ?? null
  const url = canonicalAddress(resolveAddress(attribute('link[rel="canonical"]', 'href'), address) ?? address)
  const object = videoObject([...document.querySelectorAll('script[type="application/ld+json"]')])
  const player = document.querySelector('video')
  const film = resolveAddress(
    object?.contentUrl ??
      player?.getAttribute('src') ??
      player?.querySelector('source')?.getAttribute('src') ??
      meta('og:video:secure_url', 'og:video:url', 'og:video'),
    url,
  )
  const isFilm = object !== null || player !== null || film !== null
  const tracks = [...document.querySelectorAll('track')]
    .filter((t) => /^(?:captions|subtitles)?$/i.test(t.getAttribute('kind') ?? ''))
    .map((t) => ({ href: t.getAttribute('src'), language: t.getAttribute('srclang') }))
  const links = [...document.querySelectorAll('a[href]')]
    .map((a) => ({ href: a.getAttribute('href'), language: null }))
    .filter(({ href }) => TRANSCRIPT.test(href ?? ''))
  const about = object?.description ?? meta('og:description', 'description') ?? ''
  const told = [...document.querySelectorAll('article, main')].map((e) => e.innerHTML)
  const picture = resolveAddress(object?.thumbnailUrl ?? meta('og:image'), url)
  return {
    title: plain(
      object?.name ??
        meta('og:title') ??
        (document.querySelector('h1') ?? document.querySelector('title'))?.textContent ??
        '',
    ),
    url,
    id: url,
    publishedAt: feedDate(object?.uploadDate ?? meta('article:published_time') ?? undefined),
    author: object?.author ?? meta('author'),
    language: document.documentElement?.getAttribute('lang') ?? null,
    categories: [],
    summary: summaryOf(about),
    html: '',
    base: url,
    images: isFilm && picture ? [{ url: picture, alt: '', width: null, height: null }] : [],
    video: isFilm
      ? {
          url: film,
          type: '',
          seconds: seconds(object?.duration ?? meta('og:video:duration', 'video:duration')) || null,
          chapters: object?.chapters.length ? object.chapters : chaptersIn([about, ...told].join('\n')),
          chaptersUrl: null,
          transcripts: [...tracks, ...links].flatMap(({ href, language }) => {
            const at = resolveAddress(href, url)
            return at ? [{ url: at, type: 'text/vtt', language }] : []
          }),
        }
      : null,
    counts: {},
    place: null,
    fields: {},
  }
}

interface VideoObject {
  name: string | null
  description: string | null
  contentUrl: string | null
  thumbnailUrl: string | null
  duration: string | null
  uploadDate: string | null
  author: string | null
  chapters: { at: number; title: string }[]
}

/** The first film that a page's linked data describes (schema.org/VideoObject), wherever it stands in it. */
function videoObject(scripts: readonly { textContent: string | null }[]): VideoObject | null {
  for (const script of scripts) {
    let data: unknown
    try {
      data = JSON.parse(script.textContent ?? '')
    } catch {
      continue
    }
    const found = search(data, 0)
    if (found) return readObject(found)
  }
  return null
}

type Loose = Record<string, unknown>

function search(data: unknown, depth: number): Loose | null {
  if (data === null || typeof data !== 'object' || depth > 6) return null
  if (!Array.isArray(data) && [(data as Loose)['@type']].flat().includes('VideoObject')) return data as Loose
  for (const inner of Object.values(data)) {
    const found = search(inner, depth + 1)
    if (found) return found
  }
  return null
}

function readObject(object: Loose): VideoObject {
  const text = (value: unknown): string | null => {
    const [first] = [value].flat()
    if (typeof first === 'string') return first.trim() || null
    const name = (first as Loose | undefined)?.['name'] ?? (first as Loose | undefined)?.['url']
    return typeof name === 'string' ? name : null
  }
  return {
    name: text(object['name']),
    description: text(object['description']),
    contentUrl: text(object['contentUrl']),
    thumbnailUrl: text(object['thumbnailUrl']),
    duration: text(object['duration']),
    uploadDate: text(object['uploadDate']),
    author: text(object['author'] ?? object['creator']),
    chapters: [object['hasPart']].flat().flatMap((part) => {
      const { name, startOffset } = (part ?? {}) as Loose
      const at = seconds(startOffset as string | number | undefined)
      return typeof name === 'string' && at !== null ? [{ at, title: name }] : []
    }),
  }
}
