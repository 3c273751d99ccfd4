import type { PageLink } from '../model'
import { escape, htmlPage } from './html'

/** How many links the page shows. */
const SHOWN = 24

/**
 * The links of a brand's page as it stands at a moment: those that have gone out by then, each
 * page once, by its newest post; the newest first.
 */
export function linksAt(links: readonly PageLink[], now: string): PageLink[] {
  const seen = new Set<string>()
  return [...links]
    .filter((l) => l.at <= now)
    .sort((a, b) => b.at.localeCompare(a.at))
    .filter(({ url }) => {
      const page = url.replace(/[?#].*$/, '')
      return !seen.has(page) && seen.add(page)
    })
    .slice(0, SHOWN)
}

/**
 * The page of a brand's current links, for networks where a link stands in the profile only: one
 * HTML file without scripts or anything from elsewhere.
 */
export function linkPage(name: string, links: readonly PageLink[]): string {
  const items = links.map(
    (l) =>
      `<li><a href="${escape(l.url)}">${escape(l.title)}</a><br><time datetime="${l.at}">${day(l.at)}</time></li>`,
  )
  const body = `<h1>${escape(name)}</h1>
${items.length ? `<ul>\n${items.join('\n')}\n</ul>` : '<p>There are no links yet.</p>'}`
  return htmlPage({ title: `${name}: links`, style: STYLE, body })
}

const day = (at: string): string =>
  new Intl.DateTimeFormat('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  }).format(new Date(at))

const STYLE = `
body { margin: 0 auto; max-width: 36rem; padding: 2rem 1.25rem; background: #f7f5ef; color: #1e2925; font: 18px/1.5 Georgia, serif }
h1 { font-size: 1.5rem } ul { list-style: none; padding: 0 } li { border-top: 1px solid #ddd8ca; padding: 0.9rem 0 }
a { color: #12666b } time { color: #5c6862; font-size: 0.85rem }
@media (prefers-color-scheme: dark) { body { background: #1b211f; color: #e9e5d9 } li { border-color: #3a423f } a { color: #6fb9bd } time { color: #a3aca7 } }
`
