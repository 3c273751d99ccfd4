import type { Check, Post } from '../../core/model'

/** The flags of a post that nobody has accepted. */
export function openFlagsOf(post: Post): Check[] {
  return post.checks.filter(
    (c) =>
      c.severity === 'flag' && !post.accepted.some((a) => a.code === c.code && a.words === (c.words ?? '')),
  )
}

/** The first thing that keeps a post from being approved: a block, else an open flag. */
export function standsInTheWay(post: Post): Check | null {
  return post.checks.find((c) => c.severity === 'block') ?? openFlagsOf(post)[0] ?? null
}
