import { z } from 'zod'
import { Hold, Id, Instant } from './primitives'

/** What a person can be told of while they look elsewhere. */
export const NOTICE_KINDS = ['failed posts', 'broken accounts', 'dry pipelines', 'things that wait'] as const
export const NoticeKind = z.enum(NOTICE_KINDS)
export type NoticeKind = z.infer<typeof NoticeKind>

/** What is told, and where. In the app it is always told. */
export const Notices = z.object({
  kinds: z.array(NoticeKind),
  /** As a notification of the system, where the browser may. */
  system: z.boolean(),
  /** In the team chat. */
  chat: z.boolean(),
  /** How often the chat hears how everything stands. */
  summary: z.enum(['none', 'daily', 'weekly']),
  summedUpAt: Instant.nullable(),
  /** What was told already, by what it is about; what is over falls out. */
  told: z.array(z.string()),
})
export type Notices = z.infer<typeof Notices>

/** Quiet: what went wrong is told, in the app alone. */
export const USUAL_NOTICES: Notices = {
  kinds: [...NOTICE_KINDS],
  system: false,
  chat: false,
  summary: 'none',
  summedUpAt: null,
  told: [],
}

/** The one record that holds for everything in this browser's database. */
export const Workspace = z.object({
  id: Id,
  /** Set when the workspace is the demo; the world carries the same one. */
  seed: Id.nullable(),
  held: Hold.nullable(),
  lastBundleAt: Instant.nullable(),
  /** Whether a bundle is made by itself each week, and where it goes. */
  weeklyBundle: z.enum(['off', 'download', 'folder']),
  /** When the person's visit began, and the one before. */
  lastVisitAt: Instant.nullable(),
  visitBefore: Instant.nullable(),
  notices: Notices,
  /** Posts of so many days to come are handed over to the server, which publishes them while the browser is closed. */
  aheadDays: z.int().min(1).max(400),
  /** Up to where receipts, readings and followings were collected from the server. */
  receiptCursor: z.int().min(0),
  readingCursor: z.int().min(0),
  followingCursor: z.int().min(0),
  /** How much of old measures was dropped in all to keep within bounds, and when last; null for nothing. */
  thinned: z.object({ readings: z.int().min(0), followings: z.int().min(0), at: Instant }).nullable(),
  createdAt: Instant,
})
export type Workspace = z.infer<typeof Workspace>

/** A workspace as it begins; `seed` is the demo's, or null. */
export function freshWorkspace(id: string, seed: string | null, createdAt: string): Workspace {
  return {
    id,
    seed,
    held: null,
    lastBundleAt: null,
    weeklyBundle: 'off',
    lastVisitAt: null,
    visitBefore: null,
    notices: USUAL_NOTICES,
    aheadDays: 30,
    receiptCursor: 0,
    readingCursor: 0,
    followingCursor: 0,
    thinned: null,
    createdAt,
  }
}
