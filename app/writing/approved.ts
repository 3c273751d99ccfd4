import type { Approval } from '../data'
import { count } from '../ui'

/** What approving several captions came to, in a sentence or two. */
export function approvedWords({ approved, moved, left }: Approval): string {
  const why = [...new Set(left.map((l) => l.why))]
  return [
    `${count(approved, 'caption was', 'captions were')} approved.`,
    ...(moved ? [`${count(moved, 'post', 'posts')} had lost their time and were placed anew.`] : []),
    ...(why.length ? [`${left.length} left: ${why.slice(0, 2).join(' ')}`] : []),
  ].join(' ')
}
