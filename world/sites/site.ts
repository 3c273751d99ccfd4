import type { FastifyInstance, FastifyReply } from 'fastify'
import type { WorldClock } from '../clock'
import { hash } from '../hash'
import { escape } from '../html'
import { sendRanged } from '../ranges'
import { channelFeed, fileOf, filmPage, talkPage, talksFeed, webvtt, type SiteFilm } from './films'

/** An article of a stand-in site. `day` counts from the day the world was born; later ones appear as its time moves. */
export interface SiteArticle {
  slug: string
  title: string
  author: string
  day: number
  categories: string[]
  summary: string
  /** The article's body as HTML; pictures as `<figure>` with addresses below `/pictures/`. */
  html: string
  picture: string
  pictureAlt: string
  /** What its author changes in it later: from that day on the new words stand for the old ones. */
  changes?: readonly { day: number; from: string; to: string }[]
  /** Elements of its own in the feed, such as a distance. */
  fields?: Readonly<Record<string, string | number>>
}

/** A stand-in site under a host name of its own. */
export interface Site {
  host: string
  title: string
  tagline: string
  biography: Record<string, string>
  /** What its feed is and whether it carries whole articles or summaries. */
  feed: { kind: 'rss' | 'atom' | 'json'; whole: boolean }
  /** The furniture of its pages. */
  newsletter: { title: string; text: string; button: string; line: string }
  articles: SiteArticle[]
  films?: SiteFilm[]
  /** What is only heard. */
  talks?: SiteFilm[]
  /** Files that can be fetched from it, by path, as they stand at an origin. */
  files?: Readonly<Record<string, { type: string; body: (origin: string) => string | Uint8Array }>>
  robots?: string
  /** A drawn picture as PNG, or null where there is none of that name. */
  picture: (name: string) => Buffer | null
}

const DAY = 86_400_000
const FEED_PATH = { rss: '/feed.xml', atom: '/atom.xml', json: '/feed.json' } as const
const FEED_TYPE = {
  rss: 'application/rss+xml',
  atom: 'application/atom+xml',
  json: 'application/feed+json',
} as const

/** When something of a day appears: nine in the morning UTC. */
export function appearsAt({ day }: { day: number }, bornAt: number): number {
  return Math.floor(bornAt / DAY) * DAY + day * DAY + 9 * 3_600_000
}

/** Every moment at which something of a site appears or changes. */
export function momentsOf(site: Site, bornAt: number): number[] {
  return [
    ...site.articles.flatMap((a) => [a, ...(a.changes ?? [])]),
    ...(site.films ?? []),
    ...(site.talks ?? []),
  ].map((thing) => appearsAt(thing, bornAt))
}

/** The articles that are out at a moment, newest first, as they stand then. */
export function articlesAt(site: Site, bornAt: number, now: number): (SiteArticle & { at: number })[] {
  return site.articles
    .map((a) => ({ ...dated(a, bornAt, now), at: appearsAt(a, bornAt) }))
    .filter((a) => a.at <= now)
    .sort((a, b) => b.at - a.at)
}

const WEEKDAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']
const MONTHS = 'January February March April May June July August September October November December'.split(
  ' ',
)

/** An article with its dates written out (`{{day 24}}` is that many days after the world's birth) and its changes made. */
function dated(article: SiteArticle, bornAt: number, now: number): SiteArticle {
  const write = (text: string): string =>
    text
      .replace(/\{\{day (-?\d+)\}\}/g, (_, n: string) => {
        const date = new Date(appearsAt({ day: Number(n) }, bornAt))
        return `${WEEKDAYS[date.getUTCDay()] ?? ''} ${date.getUTCDate()} ${MONTHS[date.getUTCMonth()] ?? ''}`
      })
      .replace(/\{\{year\}\}/g, String(new Date(bornAt).getUTCFullYear()))
  const html = (article.changes ?? [])
    .filter((c) => appearsAt(c, bornAt) <= now)
    .reduce((sum, c) => sum.replace(c.from, c.to), article.html)
  return { ...article, title: write(article.title), summary: write(article.summary), html: write(html) }
}

/** The routes of one site: its pages with real furniture, its feeds, its films, its pictures. */
export function siteRoutes(
  app: FastifyInstance,
  site: Site,
  parts: { clock: WorldClock; bornAt: () => number; origin: string; isAway: (path: string) => boolean },
): void {
  const prefix = `/sites/${site.host}`
  const base = baseOf(site, parts.origin)
  const html = (reply: FastifyReply, body: string): FastifyReply =>
    reply.header('content-type', 'text/html; charset=utf-8').send(body)
  const nothing = (reply: FastifyReply): FastifyReply =>
    html(
      reply.status(404),
      frame(
        site,
        'Not found',
        '<main><h1>There is nothing here</h1><p>The page you asked for is not on this site.</p></main>',
      ),
    )
  const feedReply = (
    reply: FastifyReply,
    known: string | undefined,
    type: string,
    body: string,
  ): FastifyReply => {
    const etag = `"${printOf(body)}"`
    void reply.header('etag', etag)
    if (known === etag) return reply.status(304).send()
    return reply.header('content-type', `${type}; charset=utf-8`).send(body)
  }

  app.get(`${prefix}/`, async (_request, reply) => {
    const articles = articlesAt(site, parts.bornAt(), await parts.clock.now())
    return html(
      reply,
      frame(
        site,
        site.title,
        `<main><h1>${escape(site.title)}</h1><p>${escape(site.tagline)}</p>${articles.map((a) => `<section><h2><a href="/${a.slug}">${escape(a.title)}</a></h2><p>${escape(a.summary)}</p></section>`).join('')}</main>`,
      ),
    )
  })

  app.get(`${prefix}/robots.txt`, async (_request, reply) =>
    reply
      .header('content-type', 'text/plain; charset=utf-8')
      .send(site.robots ?? 'User-agent: *\nDisallow: /members/\n'),
  )

  app.get(`${prefix}${FEED_PATH[site.feed.kind]}`, async (request, reply) => {
    return feedReply(
      reply,
      request.headers['if-none-match'],
      FEED_TYPE[site.feed.kind],
      feedOf(site, parts.bornAt(), await parts.clock.now(), parts.origin),
    )
  })

  app.get<{ Params: { name: string } }>(`${prefix}/pictures/:name`, async (request, reply) => {
    const png = site.picture(request.params.name.replace(/\.png$/, ''))
    return png
      ? reply.header('content-type', 'image/png').header('cache-control', 'public, max-age=86400').send(png)
      : reply.status(404).send({ error: 'not_found', reason: 'There is no such picture.' })
  })

  const recordings = (folder: 'films' | 'talks', feed: typeof channelFeed, page: typeof filmPage): void => {
    const shown = async () => recordingsOf(site[folder], parts.bornAt(), await parts.clock.now())
    const name = folder === 'films' ? 'Films' : 'Talks'
    app.get(`${prefix}/${folder}/feed.xml`, async (request, reply) =>
      feedReply(
        reply,
        request.headers['if-none-match'],
        folder === 'films' ? FEED_TYPE.atom : FEED_TYPE.rss,
        feed(site.title, await shown(), base),
      ),
    )
    app.get(`${prefix}/${folder}`, async (_request, reply) =>
      html(
        reply,
        frame(
          site,
          name,
          `<main><h1>${name}</h1>${(await shown()).map((f) => `<section><h2><a href="/${folder}/${f.slug}">${escape(f.title)}</a></h2><p>${escape(f.about)}</p></section>`).join('')}</main>`,
          undefined,
          `<link rel="alternate" type="application/${folder === 'films' ? 'atom' : 'rss'}+xml" title="${escape(site.title)}: ${folder}" href="/${folder}/feed.xml">`,
        ),
      ),
    )
    app.get<{ Params: { name: string } }>(`${prefix}/${folder}/:name`, async (request, reply) => {
      const film = (await shown()).find((f) => request.params.name.replace(/\.\w+$/, '') === f.slug)
      if (!film) return nothing(reply)
      if (request.url.endsWith(fileOf(film)))
        return sendRanged(request, reply, film.recording.bytes(), film.recording.type)
      if (request.params.name.endsWith('.vtt'))
        return reply.header('content-type', 'text/vtt; charset=utf-8').send(webvtt(film))
      return html(reply, frame(site, film.title, page(film)))
    })
  }
  if (site.films) recordings('films', channelFeed, filmPage)
  if (site.talks) recordings('talks', talksFeed, talkPage)

  for (const [path, file] of Object.entries(site.files ?? {}))
    app.get(`${prefix}${path}`, async (_request, reply) => {
      const body = file.body(parts.origin)
      return reply.header('content-type', file.type).send(typeof body === 'string' ? body : Buffer.from(body))
    })

  app.get<{ Params: { slug: string } }>(`${prefix}/:slug`, async (request, reply) => {
    const { slug } = request.params
    const away = parts.isAway(`${site.host}/${slug}`)
    const page = away ? null : pageOf(site, slug, parts.bornAt(), await parts.clock.now())
    return page ? html(reply, page) : nothing(reply)
  })
}

/** The text of a site's feed at a moment, and of its films' feed where it has one. */
export function feedOf(site: Site, bornAt: number, now: number, origin: string): string {
  return FEEDS[site.feed.kind](site, articlesAt(site, bornAt, now), baseOf(site, origin))
}

/** The films, or the talks, that are out at a moment, newest first. */
export function recordingsOf(
  films: readonly SiteFilm[] = [],
  bornAt: number,
  now: number,
): (SiteFilm & { at: number })[] {
  return films
    .map((f) => ({ ...f, at: appearsAt(f, bornAt) }))
    .filter((f) => f.at <= now)
    .sort((a, b) => b.at - a.at)
}

/** The page of an article at a moment, or null where there is none. */
export function pageOf(site: Site, slug: string, bornAt: number, now: number): string | null {
  const articles = articlesAt(site, bornAt, now)
  const article = articles.find((a) => a.slug === slug)
  if (!article) return null
  const related = articles
    .filter((a) => a !== article && a.categories.some((c) => article.categories.includes(c)))
    .slice(0, 3)
  return frame(site, article.title, articleBody(site, article, related), article)
}

/** Where a site stands in a world. */
export function baseOf(site: Pick<Site, 'host'>, origin: string): string {
  return origin.replace('//', `//${site.host}.`)
}

export const FEED_PATHS: Readonly<Record<Site['feed']['kind'], string>> = FEED_PATH

/** A short print of a text, for its validator. */
function printOf(text: string): string {
  return `${text.length}-${(hash(text) >>> 0).toString(16)}`
}

function articleBody(
  site: Site,
  article: SiteArticle & { at: number },
  related: readonly SiteArticle[],
): string {
  const { newsletter } = site
  return `<main><article><h1>${escape(article.title)}</h1>
<p class="byline">By <a rel="author" href="/people/${article.author.toLowerCase().replace(/\W+/g, '-')}">${escape(article.author)}</a> · <time datetime="${new Date(article.at).toISOString()}">${new Date(article.at).toDateString()}</time></p>
${article.html}
<p class="tags">Filed under ${article.categories.map((c) => `<a rel="tag" href="/tags/${c.replace(/\s/g, '-')}">${escape(c)}</a>`).join(', ')}</p>
<div class="author-box"><p>${escape(site.biography[article.author] ?? '')}</p></div>
<div class="newsletter"><h3>${escape(newsletter.title)}</h3><p>${escape(newsletter.text)}</p><form><input type="email" placeholder="Your address"><button>${escape(newsletter.button)}</button></form></div>
<div class="related"><h3>Read next</h3><ul>${related.map((r) => `<li><a href="/${r.slug}">${escape(r.title)}</a></li>`).join('')}</ul></div></article></main>`
}

function frame(
  site: Site,
  title: string,
  body: string,
  article?: SiteArticle & { at: number },
  head = '',
): string {
  const meta = article
    ? `<meta name="author" content="${escape(article.author)}"><meta name="description" content="${escape(article.summary)}"><meta property="article:published_time" content="${new Date(article.at).toISOString()}">${article.categories.map((c) => `<meta property="article:tag" content="${escape(c)}">`).join('')}`
    : ''
  const { kind } = site.feed
  const named =
    head ||
    `<link rel="alternate" type="${FEED_TYPE[kind]}" title="${escape(site.title)}" href="${FEED_PATH[kind]}">`
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(title)}${title === site.title ? '' : ` – ${escape(site.title)}`}</title>
${named}${meta}
<style>body{font:18px/1.6 Georgia,serif;margin:0;background:#fdfcf8}header,footer{background:#2d3b3a;color:#eee;padding:1rem}header a,footer a{color:#eee;margin-right:1rem}main{max-width:42rem;margin:2rem auto;padding:0 1rem}img{max-width:100%}.cookie-notice{position:fixed;bottom:0;left:0;right:0;background:#eee;padding:.5rem 1rem;font-size:.8rem}</style></head>
<body><header><nav class="site-nav"><a href="/">${escape(site.title)}</a><a href="/courses">Courses</a><a href="/visit">Visit</a><a href="/shop">Shop</a></nav></header>${body}
<footer><p>© ${escape(site.title)}. All rights reserved.</p><nav><a href="/imprint">Imprint</a><a href="/privacy">Privacy</a></nav></footer>
<div class="cookie-notice"><p>We use one cookie, to remember that you have read this.</p><button>Fine</button></div></body></html>`
}

/** An article's body as its feed carries it: absolute addresses, and the furniture feeds have. */
export function feedBody(site: Site, article: SiteArticle, base: string): string {
  const body = article.html.replace(/(src|href)="\//g, `$1="${base}/`)
  return `${body}<p>${escape(site.biography[article.author] ?? '')}</p><p>${escape(site.newsletter.line)}</p>`
}

type Out = readonly (SiteArticle & { at: number })[]

const FEEDS = {
  rss: (site: Site, articles: Out, base: string): string => `<?xml version="1.0" encoding="utf-8"?>
<rss version="2.0" xmlns:content="http://purl.org/rss/1.0/modules/content/" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:media="http://search.yahoo.com/mrss/">
<channel><title>${escape(site.title)}</title><link>${base}/</link><description>${escape(site.tagline)}</description><language>en</language>
${articles
  .map(
    (
      a,
    ) => `<item><title>${escape(a.title)}</title><link>${base}/${a.slug}</link><guid isPermaLink="true">${base}/${a.slug}</guid>
<pubDate>${new Date(a.at).toUTCString()}</pubDate><dc:creator>${escape(a.author)}</dc:creator>${a.categories.map((c) => `<category>${escape(c)}</category>`).join('')}
<description>${escape(a.summary)}</description><media:content url="${base}/pictures/${a.picture}.png" medium="image" type="image/png" width="1200" height="800"><media:description>${escape(a.pictureAlt)}</media:description></media:content>
${site.feed.whole ? `<content:encoded><![CDATA[${feedBody(site, a, base)}]]></content:encoded>` : ''}</item>`,
  )
  .join('\n')}
</channel></rss>`,

  atom: (site: Site, articles: Out, base: string): string => `<?xml version="1.0" encoding="utf-8"?>
<feed xmlns="http://www.w3.org/2005/Atom" xml:lang="en" xml:base="${base}/"><title>${escape(site.title)}</title><subtitle>${escape(site.tagline)}</subtitle>
<id>${base}/</id><link rel="self" href="${base}/atom.xml"/><link href="${base}/"/><updated>${new Date(articles[0]?.at ?? 0).toISOString()}</updated>
${articles
  .map(
    (
      a,
    ) => `<entry><title>${escape(a.title)}</title><id>${base}/${a.slug}</id><link href="${a.slug}"/><published>${new Date(a.at).toISOString()}</published><updated>${new Date(a.at).toISOString()}</updated>
<author><name>${escape(a.author)}</name></author>${a.categories.map((c) => `<category term="${escape(c)}"/>`).join('')}<summary>${escape(a.summary)}</summary>${site.feed.whole ? `<content type="html">${escape(feedBody(site, a, base))}</content>` : ''}</entry>`,
  )
  .join('\n')}
</feed>`,

  json: (site: Site, articles: Out, base: string): string =>
    JSON.stringify(
      {
        version: 'https://jsonfeed.org/version/1.1',
        title: site.title,
        description: site.tagline,
        home_page_url: `${base}/`,
        feed_url: `${base}/feed.json`,
        language: 'en',
        items: articles.map((a) => ({
          id: `${site.host}-${a.slug}`,
          url: `${base}/${a.slug}`,
          title: a.title,
          summary: a.summary,
          date_published: new Date(a.at).toISOString(),
          authors: [{ name: a.author }],
          tags: a.categories,
          ...(site.feed.whole ? { content_html: feedBody(site, a, base) } : {}),
          ...(a.fields ? { _walk: a.fields } : {}),
        })),
      },
      null,
      1,
    ),
}
