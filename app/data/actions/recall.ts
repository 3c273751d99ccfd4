import { Fault, type Post, type RecallAnswer } from '../../../core/model'
import { call } from '../api'
import { must } from '../store'

/**
 * Takes a post back from the server where it was handed over, so that it can be changed. Throws
 * `already-sending` where it is too late.
 */
export async function recall(post: Post): Promise<void> {
  if (post.state !== 'handed over') return
  const answer = await call<RecallAnswer>('DELETE', `/api/spool/posts/${encodeURIComponent(post.id)}`)
  if (answer.result === 'recalled' || answer.result === 'unknown') return
  if (answer.result === 'already sending')
    throw new Fault(
      'already-sending',
      'This post is being sent right now, so it cannot be changed. Look again in a minute.',
      post.id,
    )
  throw new Fault(
    'already-sending',
    'This post has gone out already. Take it down instead, if you must.',
    post.id,
  )
}

/** Takes posts back as they stand now, whatever they were when they were read. */
export async function recallAll(posts: readonly Pick<Post, 'id'>[]): Promise<void> {
  for (const { id } of posts) await recall(await must('posts', id))
}

/** A post as it stands once it is back from the server. */
export function back(post: Post): Post {
  return post.state === 'handed over' ? { ...post, state: 'approved' } : post
}
