import type { Post, Receipt } from '../../../core/model'

/** What a receipt makes of its post. Receipts of an older generation change nothing. */
export function withReceipt(post: Post, receipt: Receipt): Post {
  if (receipt.generation < post.generation) return post
  switch (receipt.outcome) {
    case 'published':
      return {
        ...post,
        state: 'published',
        publishedAt: receipt.finishedAt,
        publicUrl: receipt.publicUrl,
        visibility: receipt.visibility,
        failure: null,
      }
    case 'failed':
      return { ...post, state: 'failed', failure: receipt.reason }
    case 'late':
      return { ...post, state: 'approved', held: { reason: receipt.reason, since: receipt.finishedAt } }
    case 'gone':
      return { ...post, state: 'set aside', visibility: 'gone', at: null, generation: post.generation + 1 }
  }
}
