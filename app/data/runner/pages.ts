import { briefOf, houseOf } from '../../../core/house'
import type { Brand, PageLink, Piece, Post } from '../../../core/model'
import { network } from '../../../core/networks'
import { call } from '../api'
import { all } from '../store'

/** So many of the newest links travel; the page shows fewer. */
const KEPT = 500
const published = new Map<string, string>()

/** The links of a brand's posts on networks where a link stands in the profile only. */
export function pageLinks(brand: Brand, posts: readonly Post[], pieces: readonly Piece[]): PageLink[] {
  const house = houseOf(brand)
  const titles = new Map(pieces.map((p) => [p.id, p.title]))
  return posts
    .filter((p) => p.state === 'handed over' || p.state === 'published')
    .filter((p) => briefOf(network(p.network), house).link === 'profile')
    .flatMap((p) => {
      const at = p.publishedAt ?? p.at
      return at && p.link
        ? [{ title: titles.get(p.piece ?? '') ?? p.link, url: p.shortLink ?? p.link, at }]
        : []
    })
    .sort((a, b) => b.at.localeCompare(a.at))
    .slice(0, KEPT)
}

/** Publishes the pages of links that changed. What is to come travels too, with its moment. */
export async function publishPages(): Promise<void> {
  const accounts = await all('accounts')
  for (const brand of await all('brands')) {
    // Thousands of posts are read only where one of them may stand on the page.
    const house = houseOf(brand)
    const has = accounts.some(
      (a) => a.brand === brand.id && briefOf(network(a.network), house).link === 'profile',
    )
    if (!has && !published.has(brand.id)) continue
    const [posts, pieces] = await Promise.all([
      all('posts', 'brand', brand.id),
      all('pieces', 'brand', brand.id),
    ])
    const links = pageLinks(brand, posts, pieces)
    const page = JSON.stringify([brand.name, links])
    if (published.get(brand.id) === page || (links.length === 0 && !published.has(brand.id))) continue
    await call('PUT', `/api/pages/${encodeURIComponent(brand.id)}`, { name: brand.name, links })
    published.set(brand.id, page)
  }
}
