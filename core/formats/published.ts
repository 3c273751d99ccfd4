import { generateAtomFeed, generateJsonFeed, generateRssFeed } from 'feedsmith'
import Papa from 'papaparse'
import type { Publication, PublishedDocument } from '../model'
import { guarded } from './planSheet'

/** What each kind of document is served as. */
export const DOCUMENT_TYPES: Readonly<Record<PublishedDocument['kind'], { type: string; ending: string }>> = {
  RSS: { type: 'application/rss+xml; charset=utf-8', ending: 'xml' },
  Atom: { type: 'application/atom+xml; charset=utf-8', ending: 'atom' },
  'JSON Feed': { type: 'application/feed+json; charset=utf-8', ending: 'json' },
  CSV: { type: 'text/csv; charset=utf-8', ending: 'csv' },
}

/** A document of publications that are out, the newest first, as its file. `url` is its own address, `home` where it comes from. */
export function writePublished(
  document: Pick<PublishedDocument, 'kind' | 'title' | 'items'>,
  publications: readonly (Publication & { at: string })[],
  { url, home, now }: { url: string; home: string; now: string },
): string {
  const shown = [...publications].sort((a, b) => (a.at < b.at ? 1 : -1)).slice(0, document.items)
  switch (document.kind) {
    case 'CSV':
      return writeArchive(shown)
    case 'RSS':
      return generateRssFeed({
        title: plain(document.title),
        link: home,
        description: `${plain(document.title)}: what went out, the newest first`,
        lastBuildDate: new Date(shown[0]?.at ?? now),
        items: shown.map((p) => ({
          title: plain(headOf(p)),
          link: whereOf(p) ?? home,
          description: asHtml(plain(bodyOf(p))),
          categories: p.tags.map((name) => ({ name: plain(name) })),
          guid: { value: p.post, isPermaLink: false },
          pubDate: new Date(p.at),
        })),
      })
    case 'Atom':
      return generateAtomFeed({
        id: url,
        title: { value: plain(document.title), type: 'text' },
        updated: new Date(shown[0]?.at ?? now),
        links: [
          { href: url, rel: 'self' },
          { href: home, rel: 'alternate' },
        ],
        authors: [{ name: plain(document.title) }],
        entries: shown.map((p) => ({
          id: `${url}#${encodeURIComponent(p.post)}`,
          title: { value: plain(headOf(p)), type: 'text' },
          updated: new Date(p.at),
          published: new Date(p.at),
          content: { value: plain(bodyOf(p)), type: 'text' },
          links: [{ href: whereOf(p) ?? home, rel: 'alternate' }],
          categories: p.tags.map((term) => ({ term: plain(term) })),
        })),
      })
    case 'JSON Feed':
      return `${JSON.stringify(
        generateJsonFeed({
          title: document.title,
          home_page_url: home,
          feed_url: url,
          items: shown.map((p) => ({
            id: p.post,
            url: whereOf(p) ?? home,
            ...(p.link && p.link !== whereOf(p) ? { external_url: p.link } : {}),
            title: headOf(p),
            content_text: bodyOf(p),
            date_published: new Date(p.at),
            tags: p.tags,
          })),
        }),
        null,
        2,
      )}\n`
  }
}

/** Published posts as a sheet (RFC 4180), one a row. */
export function writeArchive(publications: readonly (Publication & { at: string })[]): string {
  const head = ['published', 'network', 'account', 'piece', 'text', 'link', 'post', 'tags']
  const rows = publications.map((p) => [
    p.at,
    p.network,
    guarded(p.account),
    guarded(p.title),
    guarded(p.text),
    p.link ?? '',
    p.publicUrl ?? '',
    guarded(p.tags.join(' ')),
  ])
  return `${Papa.unparse([head, ...rows], { newline: '\r\n' })}\r\n`
}

const whereOf = (p: Publication): string | null => p.publicUrl ?? p.link
const headOf = (p: Publication): string => p.title || (p.text.split('\n')[0] ?? '').slice(0, 120)
const bodyOf = (p: Publication): string =>
  p.link && !p.text.includes(p.link) ? `${p.text}\n\n${p.link}` : p.text

/** A text as the HTML that readers of RSS take a description for. */
function asHtml(text: string): string {
  return text
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .split(/\n{2,}/)
    .map((part) => `<p>${part.replace(/\n/g, '<br>')}</p>`)
    .join('')
}

/** A text without the signs that XML 1.0 does not allow: controls, halves of characters, and what is none. */
function plain(text: string): string {
  return text.replace(/(?![\t\n\r])\p{Cc}|\p{Cs}|[\uFFFE\uFFFF]/gu, '')
}
