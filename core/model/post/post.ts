import { z } from 'zod'
import { Angle } from '../angle'
import { Acceptance, Check } from '../check'
import { Hold, Id, Instant, LinkCheck, LocalDate, Place } from '../primitives'
import { PostMedia } from './media'

/** One way of saying it: the words, how they open and argue, and where in the piece they come from. */
export const Wording = z.object({
  by: z.enum(['built-in', 'connected', 'person']),
  /** Null where a person wrote it: nobody chose one. */
  angle: Angle.nullable(),
  /** The kind of post it is shaped as, one of the network's formats. */
  format: z.string(),
  /** Fields beside the text, null or empty where the network has none of the kind. */
  title: z.string().nullable(),
  summary: z.string().nullable(),
  text: z.string(),
  /** What follows the text in a thread, part by part. */
  parts: z.array(z.string()),
  /** Tags that stand in a field of their own. */
  tags: z.array(z.string()),
  poll: z.array(z.string()),
  firstComment: z.string().nullable(),
  hashtags: z.array(z.string()),
  spans: z.array(Place),
  /** The house's closing line in it, so that it does not come again soon. */
  closing: z.string().nullable(),
  score: z.number(),
})
export type Wording = z.infer<typeof Wording>

export const PostState = z.enum([
  'draft',
  'for review',
  'approved',
  'handed over',
  'published',
  'failed',
  'set aside',
])
export type PostState = z.infer<typeof PostState>

/** What somebody said of a post who read it outside Dripline. */
export const Remark = z.object({
  by: z.string(),
  at: Instant,
  decision: z.enum(['approve', 'reject', 'open']),
  text: z.string(),
})
export type Remark = z.infer<typeof Remark>

/** One caption with its media, account and time. */
export const Post = z.object({
  id: Id,
  brand: Id,
  /** Null, as its piece, where a person wrote it by itself. */
  drip: Id.nullable(),
  pipeline: Id.nullable(),
  piece: Id.nullable(),
  /** The revision of the piece whose words it quotes. */
  pieceRevision: z.int().min(1),
  beat: z.int().min(0),
  /** The row of its pipeline that took it from the shelf, and for which day; absent where none did. */
  shelf: z.object({ row: Id, day: LocalDate }).optional(),
  /** The occasion that it was written for, and its day; absent where none is. */
  occasion: z.object({ id: Id, day: LocalDate }).optional(),
  /** What it comes back by, where it is one of a recurring post. */
  recurrence: Id.nullable(),
  /** The day of the recurring post's rule that it stands for, also once it was moved. */
  occurrence: LocalDate.nullable(),
  account: Id,
  network: Id,
  passage: Id.nullable(),
  wording: Wording,
  /** The earlier and other wordings, newest first. */
  others: z.array(Wording),
  edited: z.boolean(),
  /** Why the built-in writer wrote it in place of the connected one; null where that was not asked. */
  fallback: z.string().nullable(),
  link: z.string().nullable(),
  /** What the link goes out as, once it was made short. */
  shortLink: z.string().nullable(),
  /** When the page its link leads to was last looked at, where it has no piece that says so. */
  linkCheck: LinkCheck.nullable(),
  /** Its pictures, in the order in which they are shown. */
  media: z.array(PostMedia),
  checks: z.array(Check),
  accepted: z.array(Acceptance),
  /** What came back with review packets, the newest last. */
  remarks: z.array(Remark),
  /** When its rhythm wants it, and when it goes out; null while it has no place. */
  wished: Instant,
  at: Instant.nullable(),
  /** The first and the last day on which it may go out, in its account's zone; null where nothing bounds it. */
  earliest: LocalDate.nullable(),
  latest: LocalDate.nullable(),
  /** Above 0 it has its place before others, below 0 after them. */
  priority: z.int().min(-10).max(10),
  reasons: z.array(z.object({ code: z.string(), message: z.string() })),
  state: PostState,
  held: Hold.nullable(),
  pinned: z.boolean(),
  /** Raised only after a definite refusal or a take-down; part of the idempotency key. */
  generation: z.int().min(1),
  /** Raised with every hand-over, so that an older one is refused. */
  revision: z.int().min(0),
  publishedAt: Instant.nullable(),
  publicUrl: z.string().nullable(),
  visibility: z.enum(['visible', 'waiting for a moderator', 'gone']).nullable(),
  failure: z.string().nullable(),
  /** What of its pipeline's follows was done with it: their ids, with its generation where it failed. */
  followed: z.array(z.string()),
})
export type Post = z.infer<typeof Post>

/** The link that readers of a post follow: the short one, once it was made. */
export function linkShown({ shortLink, link }: Pick<Post, 'shortLink' | 'link'>): string | null {
  return shortLink ?? link
}

/** When a post goes out or went out (ISO 8601 in UTC), or null. */
export function momentOf({ publishedAt, at }: Pick<Post, 'publishedAt' | 'at'>): string | null {
  return publishedAt ?? at
}

/** The flags of a post that nobody has accepted. */
export function openFlagsOf(post: Pick<Post, 'checks' | 'accepted'>): Check[] {
  return post.checks.filter(
    (c) =>
      c.severity === 'flag' && !post.accepted.some((a) => a.code === c.code && a.words === (c.words ?? '')),
  )
}

/** The first thing that keeps a post from being approved: a block, else an open flag. */
export function standsInTheWay(post: Pick<Post, 'checks' | 'accepted'>): Check | null {
  return post.checks.find((c) => c.severity === 'block') ?? openFlagsOf(post)[0] ?? null
}
