import { resolveAddress } from '../feeds'
import { type Queried, type Queryable, squeeze, absolute, instantOf, personName } from './pageWords'
import { linkedData } from './linkedData'

/** What is known of a piece before its page is read, for instance from its feed. */
export interface Known {
  url?: string | null
  /** What addresses in its text are relative to, where that is not its own address. */
  base?: string | null
  language?: string | null
  title?: string
  author?: string | null
  publishedAt?: string | null
  categories?: string[]
  summary?: string
  images?: readonly { url: string; alt: string; width: number | null; height: number | null }[]
}

/** What a page says of its article. */
export interface About {
  title: string
  url: string | null
  author: string | null
  publishedAt: string | null
  language: string | null
  categories: string[]
  summary: string
  images: NonNullable<Known['images']>
  video: null
  base: string | null
}

/**
 * What a page says of its article, wherever pages keep it: its meta tags (Open Graph, Dublin Core and
 * the plain ones), JSON-LD (schema.org), microdata, time elements, bylines and lists of tags. What is
 * known from its feed goes before.
 */
export function aboutPage(page: Queryable, known: Known): About {
  const meta = metaOf(page)
  const linked = linkedData(page)
  const stated = page.querySelector('base[href]')?.getAttribute('href')
  const first = known.url ?? absolute(meta('og:url')) ?? linked.url ?? absolute(stated) ?? null
  const url =
    resolveAddress(page.querySelector('link[rel~="canonical"]')?.getAttribute('href'), first) ?? first
  const base = resolveAddress(stated, url) ?? known.base ?? known.url ?? url
  const heading = headingOf(page)
  const byline = bylineOf(page)
  return {
    title: unmarked(
      squeeze(known.title || heading || linked.title || (meta('og:title') ?? '') || titleTag(page)),
    ),
    url,
    author:
      known.author ||
      personName(
        meta('author', 'article:author', 'dc.creator', 'dcterms.creator', 'parsely-author', 'byl'),
      ) ||
      linked.author ||
      personName(
        textOf(
          page,
          '[rel~="author"], [itemprop="author"] [itemprop="name"], [itemprop="author"], .p-author, .byline .author, .author-name, .author .name',
        ),
      ) ||
      byline.author,
    publishedAt:
      known.publishedAt ??
      instantOf(
        meta(
          'article:published_time',
          'og:published_time',
          'datepublished',
          'date',
          'dc.date',
          'dcterms.created',
          'dc.date.issued',
          'pubdate',
          'publish-date',
          'parsely-pub-date',
        ),
      ) ??
      linked.publishedAt ??
      instantOf(attributeOf(page, '[itemprop="datePublished"]', 'content', 'datetime')) ??
      timeOf(page) ??
      byline.publishedAt ??
      instantOf(
        textOf(
          page,
          '[itemprop="datePublished"], .dt-published, .entry-date, .post-date, .published, .date, .pubdate',
        ),
      ),
    language:
      attributeOf(page, 'html[lang]', 'lang') ??
      meta('og:locale', 'content-language', 'dc.language') ??
      known.language ??
      null,
    categories: tagsOf(page, known, linked.tags, meta('keywords', 'news_keywords', 'parsely-tags')),
    summary: known.summary || (meta('description', 'og:description') ?? linked.summary),
    images: [
      ...(known.images ?? []),
      ...leadImages(meta('og:image', 'og:image:url'), linked.images, base, known),
    ],
    video: null,
    base,
  }
}

/** What is known of a fragment, which is all piece: what its feed or file says, and a heading for a title. */
export function aboutFragment(page: Queryable, known: Known): About {
  const url = known.url ?? null
  return {
    title: squeeze(known.title ?? page.querySelector('h1')?.textContent ?? ''),
    url,
    author: known.author || null,
    publishedAt: known.publishedAt ?? null,
    language: known.language ?? null,
    categories: known.categories ?? [],
    summary: known.summary ?? '',
    images: known.images ?? [],
    video: null,
    base: known.base ?? url,
  }
}

/** A heading without the sign by which it is linked to. */
const unmarked = (heading: string): string => heading.replace(/\s*[¶🔗]$/u, '')

/**
 * The heading that names a page: of several main ones that which its title names too. Where it names none of them they head its
 * parts, as in a manual on one page, and the title has to do.
 */
function headingOf(page: Queryable): string {
  const first = squeeze(
    page.querySelector('article h1, main h1, [itemprop="headline"], h1')?.textContent ?? '',
  )
  const title = titleTag(page).toLowerCase()
  const all = [...page.querySelectorAll('h1')].map((h) => squeeze(h.textContent ?? '')).filter(Boolean)
  if (all.length < 2 || !title) return first
  const named = (heading: string): boolean => {
    const bare = unmarked(heading).toLowerCase()
    return title.includes(bare) || bare.includes(title)
  }
  // A site's own name may stand in both; the article's is the longer one, or comes after it.
  return all.filter(named).reduce((best, h) => (h.length >= best.length ? h : best), '')
}

function titleTag(page: Queryable): string {
  const title = squeeze(page.querySelector('title')?.textContent ?? '')
  // "The title – The site": the longer part is the title, unless both are long.
  const parts = title.split(/\s+[|–—·»]\s+/)
  return parts.length > 1 && (parts[0]?.length ?? 0) >= 12 ? (parts[0] ?? title) : title
}

/** A look-up of meta tags by property, name or http-equiv, whatever their case. */
function metaOf(page: Queryable): (...names: string[]) => string | null {
  const found = new Map<string, string>()
  for (const tag of page.querySelectorAll('meta')) {
    const name = (
      tag.getAttribute('property') ??
      tag.getAttribute('name') ??
      tag.getAttribute('http-equiv') ??
      ''
    ).toLowerCase()
    const content = squeeze(tag.getAttribute('content') ?? '')
    if (name && content && !found.has(name)) found.set(name, content)
  }
  return (...names) => names.map((n) => found.get(n)).find((v) => v !== undefined) ?? null
}

const textOf = (page: Queryable, selector: string): string =>
  squeeze(page.querySelector(selector)?.textContent ?? '')

function attributeOf(page: Queryable, selector: string, ...names: string[]): string | null {
  const element = page.querySelector(selector)
  return names.map((n) => element?.getAttribute(n)?.trim()).find(Boolean) ?? null
}

/** The publication time of a page among its time elements: one that says so, else the first of its article. */
function timeOf(page: Queryable): string | null {
  const all = [...page.querySelectorAll('time[datetime], time')]
  const time = (t: Queried): string | null =>
    instantOf(t.getAttribute('datetime') ?? squeeze(t.textContent ?? ''))
  const marked = all.find(
    (t) =>
      t.getAttribute('pubdate') !== null ||
      /publish|entry-date|dt-published/.test(t.getAttribute('class') ?? ''),
  )
  const own = all.find(
    (t) => t.closest('article, main') !== null && t.closest('aside, .comments, .related, footer') === null,
  )
  return [marked, own, all[0]].map((t) => (t ? time(t) : null)).find((t) => t !== null) ?? null
}

/** What a line such as "By Anna Ruff | 8 February 2025" says at the top of an article. */
function bylineOf(page: Queryable): { author: string | null; publishedAt: string | null } {
  for (const element of page.querySelectorAll(
    'p, div, span, td, address, font, small, em, i, center, h2, h3, h4, h5',
  )) {
    if (element.childElementCount > 6) continue
    const text = squeeze(element.textContent ?? '')
    if (text.length < 6 || text.length > 120) continue
    const by =
      /^(?:(?:written|posted|published|words|text|story)\s+)?by:?\s+((?:\p{Lu}[\p{L}.'’-]*)(?:\s+(?:(?:de|van|von|der|la|du|di|of|and)\s+)?\p{Lu}[\p{L}.'’-]*){0,4})/iu.exec(
        text,
      )
    const dated = /^(?:posted|published|first published|last updated|updated|written|date)\b/i.test(text)
      ? instantOf(text)
      : null
    const bare =
      /^(?:(?:mon|tues?|wed(?:nes)?|thu(?:rs)?|fri|sat(?:ur)?|sun)(?:day)?,?\s+)?(?:\d{1,2}(?:st|nd|rd|th)? \p{L}{3,9}\.?,? \d{4}|\p{L}{3,9}\.? \d{1,2}(?:st|nd|rd|th)?,? \d{4})\b/iu.test(
        text,
      ) && text.length < 60
        ? instantOf(text)
        : null
    if (by) return { author: personName(by[1] ?? null), publishedAt: instantOf(text) ?? laterDate(page) }
    if (dated ?? bare) return { author: null, publishedAt: dated ?? bare }
  }
  return { author: null, publishedAt: null }
}

/** A line that is only a date, somewhere on the page. */
function laterDate(page: Queryable): string | null {
  for (const element of page.querySelectorAll('p, div, span, td, font, small, em, i')) {
    if (element.childElementCount > 6) continue
    if (element.childElementCount > 2) continue
    const text = squeeze(element.textContent ?? '')
    if (text.length < 60 && text.length > 7) {
      const instant =
        /^(?:posted |published )?(?:on )?(?:\p{L}+day,? )?(?:\d{1,2}(?:st|nd|rd|th)? \p{L}{3,9}|\p{L}{3,9} \d{1,2}(?:st|nd|rd|th)?),? \d{4}\b/iu.test(
          text,
        )
          ? instantOf(text)
          : null
      if (instant) return instant
    }
  }
  return null
}

/** The tags an author gave: of the feed, of meta tags and JSON-LD, links with rel=tag, and lists called tags. */
function tagsOf(page: Queryable, known: Known, linked: readonly string[], keywords: string | null): string[] {
  const own = [...page.querySelectorAll('meta[property="article:tag"]')].map(
    (m) => m.getAttribute('content') ?? '',
  )
  const links = [
    ...page.querySelectorAll(
      'a[rel~="tag"], a[rel~="category"], .p-category, .tags a, .tags li, .tag-list a, .tag-list li, .post-tags a, .entry-tags a, .tagged a, .article-tags a, [itemprop="keywords"]',
    ),
  ].flatMap((a) => (a.getAttribute('content') ?? a.textContent ?? '').split(','))
  const line = [...page.querySelectorAll('p, div, footer')]
    .filter((e) => e.childElementCount < 20)
    .map((e) => squeeze(e.textContent ?? ''))
    .filter((t) => t.length < 160)
    .map(
      (t) =>
        /^(?:tags|tagged|filed under|topics|categories|keywords)(?: (?:as|with|in))?:\s*(.+)$/i.exec(
          t,
        )?.[1] ?? '',
    )
    .find(Boolean)
  const all = [
    ...(known.categories ?? []),
    ...own,
    ...linked,
    ...(keywords ?? '').split(','),
    ...links,
    ...(line ?? '').split(/[,·|]/),
  ]
  const found = new Map<string, string>()
  for (const tag of all) {
    const name = squeeze(tag)
      .replace(/^#|^(?:tags?|topics?):?\s*/i, '')
      .replace(/[.;]$/, '')
    if (name.length > 1 && name.length <= 40 && !found.has(name.toLowerCase()))
      found.set(name.toLowerCase(), name)
  }
  return [...found.values()].slice(0, 20)
}

function leadImages(
  meta: string | null,
  linked: readonly string[],
  base: string | null,
  known: Known,
): NonNullable<Known['images']> {
  const have = new Set((known.images ?? []).map((i) => i.url))
  return [meta ?? '', ...linked]
    .flatMap((u) => resolveAddress(u || null, base) ?? [])
    .filter((u, i, all) => !have.has(u) && all.indexOf(u) === i)
    .slice(0, 1)
    .map((url) => ({ url, alt: '', width: null, height: null }))
}
