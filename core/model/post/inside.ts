import { drawnCard, isClip } from './media'
import type { Post } from './post'

/** What hangs inside the drop by which a post is drawn: its format. */
export type Inside = 'plain' | 'picture' | 'card' | 'clip' | 'thread'

/** What hangs inside a post's drop. */
export function insideOf(post: Pick<Post, 'wording' | 'media'>): Inside {
  if (post.wording.parts.length > 0) return 'thread'
  const [first] = post.media
  if (!first) return 'plain'
  if (isClip(first)) return 'clip'
  return drawnCard(first.source) ? 'card' : 'picture'
}
