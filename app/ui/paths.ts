import { dateOf, localDay, mondayOf } from '../../core/planning'
import { printOf } from '../../core/text'

/** Where a post is looked at: on its drip's sheet, beside the other occasions while its day is to come, or on the Horizon. */
export function postPath(post: {
  id: string
  drip: string | null
  at: string | null
  publishedAt: string | null
  occasion?: object | undefined
}): string {
  if (post.drip) return `/writing/${post.drip}?post=${post.id}`
  if (post.occasion && !post.publishedAt) return `/writing/occasions?post=${post.id}`
  const at = post.publishedAt ?? post.at
  const from = at ? `&from=${mondayOf(dateOf(localDay(Date.parse(at), 'UTC')))}` : ''
  return `/horizon?post=${post.id}${from}`
}

/** A name as a file's: lower case, a dash for whatever is no letter or number. */
export function fileName(name: string): string {
  return printOf(name).replaceAll(' ', '-') || 'dripline'
}
