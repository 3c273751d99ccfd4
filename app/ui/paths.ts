import { dateOf, localDay, mondayOf } from '../../core/planning'
import { printOf } from '../../core/text'

/** Where a post is looked at: on its drip's sheet, or on the Horizon where it stands by itself. */
export function postPath(post: {
  id: string
  drip: string | null
  at: string | null
  publishedAt: string | null
}): string {
  if (post.drip) return `/writing/${post.drip}?post=${post.id}`
  const at = post.publishedAt ?? post.at
  const from = at ? `&from=${mondayOf(dateOf(localDay(Date.parse(at), 'UTC')))}` : ''
  return `/horizon?post=${post.id}${from}`
}

/** A name as a file's: lower case, a dash for whatever is no letter or number. */
export function fileName(name: string): string {
  return printOf(name).replaceAll(' ', '-') || 'dripline'
}
