import type { FastifyInstance, FastifyReply } from 'fastify'
import type { WorldClock } from '../clock'
import { escape } from '../html'

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
}

/** A stand-in site under a host name of its own. */
export interface Site {
  host: string
  title: string
  tagline: string
  biography: Record<string, string>
  articles: SiteArticle[]
  /** A drawn picture as PNG, or null where there is none of that name. */
  picture: (name: string) => Buffer | null
}

const DAY = 86_400_000

/** When an article appears: nine in the morning UTC of its day. */
export function appearsAt(article: SiteArticle, bornAt: number): number {
  return Math.floor(bornAt / DAY) * DAY + article.day * DAY + 9 * 3_600_000
}

/** The routes of one site: its pages with real furniture, its feed, its pictures. */
export function siteRoutes(
  app: FastifyInstance,
  site: Site,
  parts: { clock: WorldClock; bornAt: () => number; origin: string },
): void {
  const prefix = `/sites/${site.host}`
  const visible = async (): Promise<(SiteArticle & { at: number })[]> => {
    const now = await parts.clock.now()
    return site.articles
      .map((a) => ({ ...a, at: appearsAt(a, parts.bornAt()) }))
      .filter((a) => a.at <= now)
      .sort((a, b) => b.at - a.at)
  }
  const html = (reply: FastifyReply, body: string): FastifyReply =>
    reply.header('content-type', 'text/html; charset=utf-8').send(body)

  app.get(`${prefix}/`, async (_request, reply) => {
    const articles = await visible()
    return html(
      reply,
      frame(
        site,
        site.title,
        `<main><h1>${escape(site.title)}</h1><p>${escape(site.tagline)}</p>${articles.map((a) => `<section><h2><a href="/${a.slug}">${escape(a.title)}</a></h2><p>${escape(a.summary)}</p></section>`).join('')}</main>`,
      ),
    )
  })

  app.get(`${prefix}/feed.xml`, async (request, reply) => {
    const articles = await visible()
    const etag = `"${articles.length}-${articles[0]?.slug ?? ''}"`
    void reply.header('etag', etag)
    if (request.headers['if-none-match'] === etag) return reply.status(304).send()
    return reply
      .header('content-type', 'application/rss+xml; charset=utf-8')
      .send(feed(site, articles, parts.origin))
  })

  app.get<{ Params: { name: string } }>(`${prefix}/pictures/:name`, async (request, reply) => {
    const png = site.picture(request.params.name.replace(/\.png$/, ''))
    return png
      ? reply.header('content-type', 'image/png').header('cache-control', 'public, max-age=86400').send(png)
      : reply.status(404).send({ error: 'not_found', reason: 'There is no such picture.' })
  })

  app.get<{ Params: { slug: string } }>(`${prefix}/:slug`, async (request, reply) => {
    const articles = await visible()
    const article = articles.find((a) => a.slug === request.params.slug)
    if (!article)
      return html(
        reply.status(404),
        frame(
          site,
          'Not found',
          '<main><h1>There is nothing here</h1><p>The page you asked for is not on this site.</p></main>',
        ),
      )
    const related = articles
      .filter((a) => a !== article && a.categories.some((c) => article.categories.includes(c)))
      .slice(0, 3)
    return html(reply, frame(site, article.title, articleBody(site, article, related), article))
  })
}

function articleBody(
  site: Site,
  article: SiteArticle & { at: number },
  related: readonly SiteArticle[],
): string {
  return `<main><article><h1>${escape(article.title)}</h1>
<p class="byline">By <a rel="author" href="/people/${article.author.toLowerCase().replace(/\W+/g, '-')}">${escape(article.author)}</a> · <time datetime="${new Date(article.at).toISOString()}">${new Date(article.at).toDateString()}</time></p>
${article.html}
<p class="tags">Filed under ${article.categories.map((c) => `<a rel="tag" href="/tags/${c.replace(/\s/g, '-')}">${escape(c)}</a>`).join(', ')}</p>
<div class="author-box"><p>${escape(site.biography[article.author] ?? '')}</p></div>
<div class="newsletter"><h3>The Sunday letter</h3><p>One page about old boats, every Sunday. No photographs of sunsets.</p><form><input type="email" placeholder="Your address"><button>Send it to me</button></form></div>
<div class="related"><h3>Read next</h3><ul>${related.map((r) => `<li><a href="/${r.slug}">${escape(r.title)}</a></li>`).join('')}</ul></div></article></main>`
}

function frame(site: Site, title: string, body: string, article?: SiteArticle & { at: number }): string {
  const meta = article
    ? `<meta name="author" content="${escape(article.author)}"><meta name="description" content="${escape(article.summary)}"><meta property="article:published_time" content="${new Date(article.at).toISOString()}">${article.categories.map((c) => `<meta property="article:tag" content="${escape(c)}">`).join('')}`
    : ''
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escape(title)}${title === site.title ? '' : ` – ${escape(site.title)}`}</title>
<link rel="alternate" type="application/rss+xml" title="${escape(site.title)}" href="/feed.xml">${meta}
<style>body{font:18px/1.6 Georgia,serif;margin:0;background:#fdfcf8}header,footer{background:#2d3b3a;color:#eee;padding:1rem}header a,footer a{color:#eee;margin-right:1rem}main{max-width:42rem;margin:2rem auto;padding:0 1rem}img{max-width:100%}.cookie-notice{position:fixed;bottom:0;left:0;right:0;background:#eee;padding:.5rem 1rem;font-size:.8rem}</style></head>
<body><header><nav class="site-nav"><a href="/">Journal</a><a href="/courses">Courses</a><a href="/visit">Visit</a><a href="/shop">Shop</a></nav></header>${body}
<footer><p>© ${escape(site.title)}. All rights reserved.</p><nav><a href="/imprint">Imprint</a><a href="/privacy">Privacy</a></nav></footer>
<div class="cookie-notice"><p>We use one cookie, to remember that you have read this.</p><button>Fine</button></div></body></html>`
}

/** An article's body as its feed carries it: absolute addresses, and the furniture feeds have. */
export function feedBody(site: Site, article: SiteArticle, base: string): string {
  const body = article.html.replace(/(src|href)="\//g, `$1="${base}/`)
  return `${body}<p>${escape(site.biography[article.author] ?? '')}</p><p>Subscribe to the Sunday letter: one page about old boats, every week, in your inbox.</p>`
}

function feed(site: Site, articles: readonly (SiteArticle & { at: number })[], origin: string): string {
  const base = `${origin.replace('//', `//${site.host}.`)}`
  const items = articles
    .map(
      (
        a,
      ) => `<item><title>${escape(a.title)}</title><link>${base}/${a.slug}</link><guid isPermaLink="true">${base}/${a.slug}</guid>
<pubDate>${new Date(a.at).toUTCString()}</pubDate><dc:creator>${escape(a.author)}</dc:creator>${a.categories.map((c) => `<category>${escape(c)}</category>`).join('')}
<description>${escape(a.summary)}</description><media:content url="${base}/pictures/${a.picture}.png" medium="image" type="image/png" width="1200" height="800"><media:description>${escape(a.pictureAlt)}</media:description></media:content>
<content:encoded><![CDATA[${feedBody(site, a, base)}]]></content:encoded></item>`,
    )
    .join('\n')
  return `<?xml version="1.0" encoding="utf-8"?>
<rss version="2.0" xmlns:content="http://purl.org/rss/1.0/modules/content/" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:media="http://search.yahoo.com/mrss/">
<channel><title>${escape(site.title)}</title><link>${base}/</link><description>${escape(site.tagline)}</description><language>en</language>
${items}
</channel></rss>`
}
