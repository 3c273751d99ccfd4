import type { Receipt } from '../receipt'
import { standsInTheWay, type Post, type PostState } from './post'

/**
 * What happens to a post. `publish`, `fail`, `come late` and `vanish` are what a receipt says; `hand over` and
 * `recall` are the runner's; everything else a person does, or a pipeline in a person's name.
 */
export type PostEvent =
  | 'approve'
  /** Its words are changed by hand: an approval stays. */
  | 'edit'
  /** It gets other words than a person read: it asks for review again. */
  | 'reword'
  /** Its words break a rule: it asks for review again. */
  | 'doubt'
  /** A flag on it is accepted. */
  | 'accept'
  /** It gets another moment, other bounds or a pin, or loses its place. */
  | 'move'
  /** It is to go out now. */
  | 'send now'
  /** It is kept back, or let go. */
  | 'hold'
  | 'hand over'
  /** The server no longer has it. */
  | 'recall'
  | 'set aside'
  | 'bring back'
  /** It failed, and is tried once more. */
  | 'try again'
  | 'take down'
  /** It is deleted, since nothing asks for it any more. */
  | 'remove'
  /** A person says that it is out: it was published by hand, or nobody knew. */
  | 'say it is out'
  | 'publish'
  | 'fail'
  | 'come late'
  | 'vanish'

type Life = Partial<Record<PostState, PostState>>

const STAYS: Life = { draft: 'draft', 'for review': 'for review', approved: 'approved' }
/** What leaves a post's state alone, but for one that the server has: that is taken back for it. */
const CHANGES: Life = { ...STAYS, 'handed over': 'approved' }
const FROM_ANYWHERE = (to: PostState): Life => ({
  draft: to,
  'for review': to,
  approved: to,
  'handed over': to,
  published: to,
  failed: to,
  'set aside': to,
})

/** The life of a post: for each event the states that take it, and the state that each becomes. */
const LIFE: Record<PostEvent, Life> = {
  approve: { draft: 'approved', 'for review': 'approved' },
  edit: { ...CHANGES, failed: 'failed' },
  reword: {
    draft: 'draft',
    'for review': 'for review',
    approved: 'for review',
    'handed over': 'for review',
  },
  doubt: { draft: 'draft', 'for review': 'for review', approved: 'for review', 'handed over': 'for review' },
  accept: { ...STAYS, 'handed over': 'handed over', failed: 'failed' },
  move: CHANGES,
  'send now': CHANGES,
  hold: { ...STAYS, 'handed over': 'handed over' },
  'hand over': { approved: 'handed over' },
  recall: { 'handed over': 'approved' },
  'set aside': {
    draft: 'set aside',
    'for review': 'set aside',
    approved: 'set aside',
    'handed over': 'set aside',
    failed: 'set aside',
  },
  'bring back': { 'set aside': 'for review' },
  'try again': { failed: 'approved' },
  'take down': { published: 'published' },
  remove: CHANGES,
  'say it is out': { approved: 'published', failed: 'published' },
  // A receipt is the truth: what is public is published, whatever was done to it here meanwhile.
  publish: FROM_ANYWHERE('published'),
  fail: { draft: 'failed', 'for review': 'failed', approved: 'failed', 'handed over': 'failed' },
  'come late': { ...STAYS, 'handed over': 'approved' },
  vanish: FROM_ANYWHERE('set aside'),
}

/** Whether a post is still to go out: it neither went out nor failed, and is not set aside. */
export function isToCome(post: Pick<Post, 'state'>): boolean {
  return CHANGES[post.state] !== undefined
}

/** Whether a post waits for a person, who has not approved it yet. */
export function waitsForReview(post: Pick<Post, 'state'>): boolean {
  return LIFE.approve[post.state] !== undefined
}

/** Why an event may not happen to a post as it stands, in a sentence; null where it may. */
export function refusal(post: Post, event: PostEvent): string | null {
  if (LIFE[event][post.state] === undefined) return SENTENCES[post.state]
  if (event === 'approve') return standsInTheWay(post)?.message ?? null
  if (event === 'hand over') {
    if (post.at === null) return 'It has no place yet.'
    return post.held ? post.held.reason : null
  }
  if (event === 'say it is out' && post.state === 'approved' && post.held === null)
    return 'It goes out by itself at its time.'
  if (event === 'take down' && post.visibility === 'gone') return 'It was taken down already.'
  return null
}

const SENTENCES: Record<PostState, string> = {
  draft: 'It is still a draft. Approve it first.',
  'for review': 'It waits for review. Approve it first.',
  approved: 'It is approved and has not gone out.',
  'handed over': 'The server has it and sends it at its time.',
  published: 'It has gone out, so it stays as it is. Take it down instead, if you must.',
  failed: 'It failed. Try it again or set it aside first.',
  'set aside': 'It is set aside. Bring it back first.',
}

/** Whether an event may happen to a post as it stands. */
export function may(post: Post, event: PostEvent): boolean {
  return refusal(post, event) === null
}

/**
 * The post after an event: its state, and what belongs to that state. An event that may not happen changes
 * nothing; `refusal` says why. The generation rises where the network is to be asked anew for a post that it
 * refused, or that was taken down, so that the spool does not answer with the old receipt.
 */
export function next(post: Post, event: PostEvent): Post {
  if (!may(post, event)) return post
  const after = { ...post, state: LIFE[event][post.state] ?? post.state }
  switch (event) {
    case 'set aside':
      return { ...after, at: null, pinned: false, reasons: [] }
    case 'bring back':
    case 'try again':
      return {
        ...after,
        generation: post.failure === null ? post.generation : post.generation + 1,
        failure: null,
        at: null,
        pinned: false,
        publishedAt: null,
        publicUrl: null,
        visibility: null,
      }
    case 'vanish':
      return { ...after, visibility: 'gone', at: null, pinned: false, generation: post.generation + 1 }
    default:
      return after
  }
}

/**
 * What a receipt makes of its post. Receipts of an older generation change nothing, nor do those of lateness at another
 * moment or before the post was handed over once more.
 */
export function afterReceipt(post: Post, receipt: Receipt): Post {
  if (receipt.generation < post.generation) return post
  const known = { ...post, generation: receipt.generation }
  switch (receipt.outcome) {
    case 'published':
      return {
        ...next(known, 'publish'),
        publishedAt: receipt.finishedAt,
        publicUrl: receipt.publicUrl,
        visibility: receipt.visibility,
        failure: null,
      }
    case 'failed':
    case 'unsure':
      return may(known, 'fail') ? { ...next(known, 'fail'), failure: receipt.reason } : known
    case 'late':
    case 'by hand':
      // One of an earlier moment comes after the post was placed anew, one of an earlier revision after it was taken back
      // and handed over again: the server has it, and will say so of that too.
      if (post.at !== null && Date.parse(post.at) !== Date.parse(receipt.dueAt)) return post
      if (receipt.revision < post.revision) return post
      return may(known, 'come late')
        ? { ...next(known, 'come late'), held: { reason: receipt.reason, since: receipt.finishedAt } }
        : known
    case 'gone':
      return next(known, 'vanish')
  }
}
