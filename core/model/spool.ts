import { z } from 'zod'
import { Id, Instant } from './primitives'
import { Attempt, Receipt } from './receipt'

/** What the network is sent, apart from the media's bytes. */
export const Payload = z.object({
  /** The kind of post, one of the network's formats; empty for its usual one. */
  format: z.string().default(''),
  /** Where on the account it goes (a page, a group, a rack), by the network's id; null where there is no choice. */
  target: z.string().nullable().default(null),
  title: z.string().nullable().default(null),
  summary: z.string().nullable().default(null),
  /** Tags in a field of their own. */
  tags: z.array(z.string()).default([]),
  text: z.string(),
  /** What follows the text in a thread, part by part. */
  parts: z.array(z.string()).default([]),
  /** The answers of a poll. */
  poll: z.array(z.string()).default([]),
  firstComment: z.string().nullable(),
  link: z.string().nullable(),
  media: z.array(z.object({ hash: z.string().regex(/^[0-9a-f]{64}$/), alt: z.string() })),
})
export type Payload = z.infer<typeof Payload>

/** The largest number that the server's database keeps in a count. */
const MOST = 2_147_483_647

/** A post handed over to the server: `PUT /api/spool/posts/:id`. */
export const HandOver = z.object({
  id: Id,
  generation: z.int().min(1).max(MOST),
  revision: z.int().min(1).max(MOST),
  account: Id,
  dueAt: Instant,
  /** Elapsed minutes the account leaves between two posts; kept also when posts are late. */
  gapMinutes: z.int().min(0).max(MOST),
  payload: Payload,
  /** The short link in it that no other post has, by which it is counted how often it is followed; null for none. */
  shortLink: z.url().nullable().default(null),
})
export type HandOver = z.infer<typeof HandOver>

/** What the server did with one handed-over post of a batch. */
export const HandOverAnswer = z.object({
  id: Id,
  result: z.enum(['taken', 'older revision', 'media missing', 'not linked', 'already sending', 'finished']),
  message: z.string(),
  /** Where the post is finished already: what came of it. */
  receipt: Receipt.nullable(),
  /** Where a later one of it is here: which. */
  standing: z.object({ generation: z.int().min(1), revision: z.int().min(1) }).nullable(),
})
export type HandOverAnswer = z.infer<typeof HandOverAnswer>

/** A post as its network has it. */
export const ShownPost = z.object({
  title: z.string().nullable().default(null),
  text: z.string(),
  parts: z.array(z.string()).default([]),
  poll: z.array(z.string()).default([]),
  firstComment: z.string().nullable().default(null),
  /** How many pictures stand with it. */
  pictures: z.int().min(0).default(0),
})
export type ShownPost = z.infer<typeof ShownPost>

/** What came of a test delivery. */
export const Trial = z.object({
  arrived: z.boolean(),
  /** Whether nothing of it stands any more. */
  takenDown: z.boolean(),
  message: z.string(),
  shown: ShownPost.nullable(),
  publicUrl: z.string().nullable(),
  attempts: z.array(Attempt),
})
export type Trial = z.infer<typeof Trial>

/** Whether a published post still stands at its network, and says what was sent. */
export const Standing = z.object({
  there: z.boolean(),
  /** Null where it is not there. */
  same: z.boolean().nullable(),
  message: z.string(),
})
export type Standing = z.infer<typeof Standing>

/** What became of a recall: `DELETE /api/spool/posts/:id`. */
export const RecallAnswer = z.object({
  id: Id,
  result: z.enum(['recalled', 'already sending', 'finished', 'unknown']),
  receipt: Receipt.nullable(),
})
export type RecallAnswer = z.infer<typeof RecallAnswer>

/** A page of receipts after a cursor; they are kept until acknowledged. */
export const ReceiptPage = z.object({
  cursor: z.int().min(0),
  receipts: z.array(Receipt),
})
export type ReceiptPage = z.infer<typeof ReceiptPage>

/** How a delivery stands on the server. */
export const DeliveryState = z.enum([
  'waiting',
  'sending',
  'published',
  'failed',
  'unsure',
  'by hand',
  'late',
  'recalled',
  'gone',
])
export type DeliveryState = z.infer<typeof DeliveryState>

/** The clock that app, server and world share. `worldUrl` is there in demo mode only. */
export const ClockAnswer = z.object({
  now: Instant,
  offsetMilliseconds: z.int(),
  demo: z.boolean(),
  worldUrl: z.string().nullable(),
})
export type ClockAnswer = z.infer<typeof ClockAnswer>
