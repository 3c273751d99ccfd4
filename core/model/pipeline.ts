import { z } from 'zod'
import { Angle } from './angle'
import { Brief } from './house'
import { Hold, Id, Instant, LocalDate } from './primitives'
import { Rhythm } from './rhythm'
import { SieveRule } from './sieve'

/** How much is held for a person. */
export const Gate = z.enum(['everything', 'what is flagged', 'nothing'])
export type Gate = z.infer<typeof Gate>

export const HUES = ['indigo', 'sky', 'violet', 'rose', 'brown', 'slate', 'jade', 'graphite'] as const
export const Hue = z.enum(HUES)
export type Hue = z.infer<typeof Hue>

/** What a pipeline takes in. */
export const TakeIn = z.object({
  sources: z.array(Id),
  /** Groups of sources, by name: whatever is in them counts. */
  groups: z.array(z.string()),
  sieve: z.array(SieveRule),
  /** Pieces published before this moment are left to the person. */
  since: Instant,
  /** At most so many pieces a run, and in any seven days; null where nothing bounds them. */
  aRun: z.int().min(1).max(1000).nullable(),
  aWeek: z.int().min(1).max(1000).nullable(),
  /** Whether what is still to come of a piece is made anew when its words change at the source. */
  changed: z.boolean(),
})
export type TakeIn = z.infer<typeof TakeIn>

/** What a pipeline makes of each piece; what is empty or null goes by the brand. */
export const Make = z.object({
  /** At most so many passages of a piece, the best; null for all that are kept. */
  passages: z.int().min(1).max(60).nullable(),
  /** The angles that may be used; empty for all. */
  angles: z.array(Angle),
  /** Its own briefs, in the place of the brand's. */
  briefs: z.array(Brief),
  pictures: z.enum(['piece and cards', 'from the piece', 'cards', 'none']),
  /** A line of the brand's own that closes each caption, in the place of the closing lines. */
  after: z.string().trim().min(1).max(200).nullable(),
})
export type Make = z.infer<typeof Make>

/** Which passage of the shelf comes first. */
export const SHELF_ORDERS = ['the longest unseen first', 'the oldest first', 'the best first'] as const
export const ShelfOrder = z.enum(SHELF_ORDERS)
export type ShelfOrder = z.infer<typeof ShelfOrder>

/** When the posts of a piece go out. */
export const Timing = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rhythm'), rhythm: Rhythm }),
  /** A post on each of the next days that have an opening. */
  z.object({ kind: z.literal('next openings'), posts: z.int().min(1).max(60) }),
  /** One post as soon as possible: in an opening within so many hours, or else at the first moment the limits allow. */
  z.object({ kind: z.literal('soon'), hours: z.int().min(1).max(168) }),
  /** So many days before the day that a field of the piece names, 0 for the day itself. */
  z.object({
    kind: z.literal('field'),
    name: z.string().trim().min(1).max(80),
    before: z.array(z.int().min(0).max(365)).min(1).max(12),
  }),
  /** The next days that a recurrence rule names (RFC 5545). */
  z.object({
    kind: z.literal('rule'),
    rule: z.string().min(1).max(500),
    posts: z.int().min(1).max(60),
  }),
  /** Not when a piece comes, but from the shelf: what was out before, again, so many posts a day or a week on each account. */
  z.object({
    kind: z.literal('shelf'),
    posts: z.int().min(1).max(20),
    per: z.enum(['day', 'week']),
    order: ShelfOrder,
    /** For so many days a passage is not seen on an account before it comes again there. */
    restDays: z.int().min(7).max(1500),
    /** How many times its account's usual a passage has to have earned; null whatever it earned. */
    earned: z.number().min(0).max(10).nullable(),
  }),
])
export type Timing = z.infer<typeof Timing>
/** How a row drips from the shelf. */
export type FromShelf = Extract<Timing, { kind: 'shelf' }>
/** When the posts of a piece go out that has come. */
export type FromPiece = Exclude<Timing, FromShelf>

/** One row of what a pipeline releases: for which pieces, to whom, when. */
export const ReleaseRow = z.object({
  id: Id,
  /** Every piece, those that keep some rules, or those that no row above takes. */
  pieces: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('all') }),
    z.object({ kind: z.literal('that'), rules: z.array(SieveRule).min(1) }),
    z.object({ kind: z.literal('rest') }),
  ]),
  /** The format of its posts where a network offers several; null for the one its brief is written for. */
  format: z.string().nullable(),
  accounts: z.array(Id),
  /** Groups of accounts, by name: whoever is in them counts. */
  groups: z.array(z.string()),
  by: Timing,
  /** So many days after the last post of a piece its posts are made again, so many times; null for never. */
  again: z.object({ days: z.int().min(7).max(1500), times: z.int().min(1).max(50) }).nullable(),
})
export type ReleaseRow = z.infer<typeof ReleaseRow>

/** A row that drips from the shelf. */
export type ShelfRow = ReleaseRow & { by: FromShelf }
/** A row that drips a piece when it comes. */
export type PieceRow = ReleaseRow & { by: FromPiece }

/** Whether a row drips from the shelf. */
export function isShelfRow(row: ReleaseRow): row is ShelfRow {
  return row.by.kind === 'shelf'
}

/** Whether a row drips a piece when it comes. */
export function isPieceRow(row: ReleaseRow): row is PieceRow {
  return row.by.kind !== 'shelf'
}

/** What bounds a pipeline. */
export const Limits = z.object({
  /** The days between which its posts may go out, both included; null where nothing bounds them. */
  from: LocalDate.nullable(),
  to: LocalDate.nullable(),
  /** At most so many posts a day and a week, over all of its accounts. */
  aDay: z.int().min(1).max(500).nullable(),
  aWeek: z.int().min(1).max(2000).nullable(),
  /** Posts are written so many days ahead; null for a whole drip at once. */
  ahead: z.int().min(7).max(400).nullable(),
  /** Whether nothing is taken in while one of its accounts does not let us post. */
  pauseWhenDown: z.boolean(),
})
export type Limits = z.infer<typeof Limits>

/** What of a pipeline's work is told in the team chat. */
export const TOLD = ['is taken in', 'is published', 'fails', 'is finished'] as const
export const Told = z.enum(TOLD)
export type Told = z.infer<typeof Told>

export const FEED_FORMATS = ['RSS', 'Atom', 'JSON Feed'] as const
export const FeedFormat = z.enum(FEED_FORMATS)
export type FeedFormat = z.infer<typeof FeedFormat>

/** Something that follows a pipeline's work by itself. */
export const Follow = z.discriminatedUnion('kind', [
  /** A message in the team chat; `text` may hold words in braces that are filled in (core/pipeline/follows.ts). */
  z.object({ kind: z.literal('chat'), id: Id, when: Told, text: z.string().trim().min(1).max(1000) }),
  /** A row for each published post in an archive sheet (CSV). */
  z.object({ kind: z.literal('sheet'), id: Id, title: z.string().trim().min(1).max(80) }),
  /** The published posts as a feed of their own, so many of the newest. */
  z.object({
    kind: z.literal('feed'),
    id: Id,
    title: z.string().trim().min(1).max(80),
    format: FeedFormat,
    items: z.int().min(1).max(200),
  }),
  /** Another pipeline that takes over each piece once all of its posts are out, or each published post as a piece of its own. */
  z.object({
    kind: z.literal('pipeline'),
    id: Id,
    pipeline: Id,
    takes: z.enum(['the finished piece', 'the published posts']),
  }),
])
export type Follow = z.infer<typeof Follow>

/** What a pipeline says, apart from which pipeline it is: what its file holds and its versions keep. */
export const Recipe = z.object({
  takeIn: TakeIn,
  make: Make,
  release: z.array(ReleaseRow).min(1).max(40),
  gate: Gate,
  limits: Limits,
  /** What follows what it does. */
  follows: z.array(Follow).max(12).default([]),
  /** Its posts' priority: above 0 they have their place before others. */
  priority: z.int().min(-10).max(10),
})
export type Recipe = z.infer<typeof Recipe>

/** A version of a pipeline that was put to work. */
export const PipelineVersion = z.object({ version: z.int().min(1), at: Instant, recipe: Recipe })
export type PipelineVersion = z.infer<typeof PipelineVersion>

/** From sources to accounts by itself. */
export const Pipeline = Recipe.extend({
  id: Id,
  brand: Id,
  name: z.string().min(1).max(80),
  hue: Hue,
  on: z.boolean(),
  held: Hold.nullable(),
  endedAt: Instant.nullable(),
  /** What was changed while it is on and waits to be put to work; null where nothing was. */
  draft: Recipe.nullable(),
  /** What was put to work, the newest last. */
  versions: z.array(PipelineVersion),
  version: z.int().min(1),
  savedAt: Instant,
  createdAt: Instant,
})
export type Pipeline = z.infer<typeof Pipeline>

/** What a pipeline says, without which pipeline it is. */
export function recipeOf({ takeIn, make, release, gate, limits, follows, priority }: Recipe): Recipe {
  return { takeIn, make, release, gate, limits, follows, priority }
}

/** A pipeline as it would be once what was changed is put to work. */
export function asEdited(pipeline: Pipeline): Pipeline {
  return pipeline.draft ? { ...pipeline, ...pipeline.draft } : pipeline
}

/** A make that adds nothing to what the brand says. */
export const PLAIN_MAKE: Make = {
  passages: null,
  angles: [],
  briefs: [],
  pictures: 'piece and cards',
  after: null,
}

/** Limits that bound nothing. */
export const NO_LIMITS: Limits = {
  from: null,
  to: null,
  aDay: null,
  aWeek: null,
  ahead: null,
  pauseWhenDown: false,
}
