import {
  asFault,
  Fault,
  may,
  next,
  refusal,
  type Post,
  type PostEvent,
  type RecallAnswer,
  type Row,
} from '../../../core/model'
import { call } from '../api'
import { commit, one, patch, rewrite, type Actor, type Write } from '../store'

/**
 * A write by which something happens to a post: asked of the record as it stands inside the transaction, and
 * refused with a sentence where it may not happen then. `change` is given the post after the event.
 */
export function happens(
  id: string,
  event: PostEvent,
  change: (post: Post) => Row<'posts'> = (post) => post,
): Write {
  return patch('posts', id, (post) => {
    const why = refusal(post, event)
    if (why !== null) throw new Fault('older-revision', why, id)
    return change(next(post, event))
  })
}

/** As `happens`, but a post to which the event may not happen is left as it is: for many posts at once. */
export function happensIfMay(
  id: string,
  event: PostEvent,
  change: (post: Post) => Row<'posts'> = (post) => post,
): Write {
  return patch('posts', id, (post) => (refusal(post, event) === null ? change(next(post, event)) : undefined))
}

/** How something happens to so many posts: a single one is refused with a sentence, of many those are left that may not. */
export function happening(count: number): typeof happens {
  return count === 1 ? happens : happensIfMay
}

/** What happens to one post in an action of its own; it is taken back from the server first. */
export async function changePost(
  post: Pick<Post, 'id' | 'brand'>,
  label: string,
  event: PostEvent,
  change?: (post: Post) => Row<'posts'>,
): Promise<void> {
  await commitRecalled({ brand: post.brand, label }, [post], [happens(post.id, event, change)])
}

/** A write that deletes a post, unless it has gone out or was set aside meanwhile. */
export function removeIfMay(id: string): Write {
  return rewrite('posts', id, (row) => (row && may(row as Post, 'remove') ? null : undefined))
}

/** What the server has may be another than this browser believes: the runner asks before it does anything else. */
export function doubt(): void {
  inDoubt = true
  channel?.postMessage('doubt')
}

/** Whether what the server has is in doubt; so it is at the start, and a while after it was last asked. */
export function isInDoubt(): boolean {
  return inDoubt || Date.now() - settledAt > TRUSTED
}

/** Says that the server was asked. */
export function settled(): void {
  inDoubt = false
  settledAt = Date.now()
}

/** So long the server is not asked again what it has: a tab that was closed in the middle of a change tells nobody. */
const TRUSTED = 60_000
let inDoubt = true
let settledAt = 0
const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('dripline-spool')
channel?.addEventListener('message', () => {
  inDoubt = true
})

/**
 * Work with nothing of the spool between its parts: a recall and the write that follows it, or a hand-over
 * from its first write to its last. One at a time in all tabs; it must not be asked for within itself. Where it
 * breaks off, what the server has is in doubt.
 */
export function alone<T>(work: () => Promise<T>): Promise<T> {
  return navigator.locks.request('dripline-spool', async () => {
    try {
      return await work()
    } catch (error) {
      doubt()
      throw error
    }
  })
}

/**
 * Takes posts back from the server where it has them, and writes. Nothing is handed over between the two.
 * Where it is too late for a single post, `already-sending` is thrown and nothing is written; of many, those
 * are left as they are. Gives the ids of the records that were written.
 */
export async function commitRecalled(
  actor: Actor,
  posts: readonly Pick<Post, 'id'>[],
  writes: readonly Write[],
): Promise<Set<string>> {
  return alone(async () => {
    const late = new Set<string>()
    for (const { id } of posts) {
      const post = await one('posts', id)
      try {
        if (post) await recall(post)
      } catch (error) {
        if (posts.length === 1 || asFault(error).code !== 'already-sending') throw error
        late.add(id)
      }
    }
    return commit(
      actor,
      writes.filter((w) => w.table !== 'posts' || !late.has(w.id)),
    )
  })
}

/**
 * Takes a post back from the server where it was handed over, so that it can be changed. Throws
 * `already-sending` where it is too late. What follows it stands in the same `alone`.
 */
export async function recall(post: Post): Promise<void> {
  if (post.state !== 'handed over') return
  const answer = await call<RecallAnswer>('DELETE', `/api/spool/posts/${encodeURIComponent(post.id)}`)
  if (answer.result === 'recalled' || answer.result === 'unknown') return
  throw new Fault(
    'already-sending',
    answer.result === 'already sending'
      ? 'This post is being sent right now, so it cannot be changed. Look again in a minute.'
      : 'This post has gone out already. Take it down instead, if you must.',
    post.id,
  )
}
