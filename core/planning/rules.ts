import { z } from 'zod'
import { Account, LocalDate, QuietDay, Slot, Zone } from '../model'

const anyInstant = z.iso.datetime({ offset: true })
/** A moment, or a day in the account's zone. */
const Moment = z.union([anyInstant, LocalDate])

/** Posts a day that a young account may make until it is so many days old, youngest first. */
export const WarmUp = z.object({
  since: anyInstant,
  steps: z.array(z.object({ days: z.int().positive(), postsPerDay: z.int().positive() })),
})
export type WarmUp = z.infer<typeof WarmUp>

/** An account as the planner sees it: where it may post, and its limits. */
export const PlanAccount = Account.pick({ id: true, network: true }).extend({
  zone: Zone,
  slots: z.array(Slot),
  quiet: z.array(QuietDay).default([]),
  maxPerDay: z.int().min(1).default(24),
  maxPerWeek: z.int().min(1).default(168),
  gapMinutes: z.int().min(0).default(0),
  warmUp: WarmUp.nullish(),
  /** What each hour of the week is worth, Monday 0 h first, 0 to 1; absent while it is not known. */
  hours: z.array(z.number().min(0).max(1)).length(168).nullish(),
})
export type PlanAccount = z.infer<typeof PlanAccount>

/** A post as the planner sees it. `at` is where it stands now, `pinnedAt` where a person put it. */
export const PlanPost = z.object({
  id: z.string().min(1),
  account: z.string().min(1),
  piece: z.string().nullish(),
  passage: z.string().nullish(),
  picture: z.string().nullish(),
  pipeline: z.string().nullish(),
  /** What the posts of one beat have in common: they are not served in the same minute. */
  beat: z.string().nullish(),
  text: z.string().nullish(),
  wished: Moment,
  earliest: Moment.nullish(),
  latest: Moment.nullish(),
  priority: z.number().min(-10).max(10).default(0),
  pinnedAt: anyInstant.nullish(),
  at: anyInstant.nullish(),
})
export type PlanPost = z.infer<typeof PlanPost>

/**
 * How much each soft rule counts, in days: 1 for `distance` is the price of a day away from the
 * wish, and 4 for `picture` says that a post goes up to four days away so as not to show a picture again too soon.
 */
export const Weights = z.object({
  /** A day away from the wished day. */
  distance: z.number().min(0.05).max(20).default(1),
  /** The same picture again on an account within `pictureDays`. */
  picture: z.number().min(0).max(20).default(4),
  /** The same passage again on an account within `passageDays`. */
  passage: z.number().min(0).max(20).default(8),
  /** Each other post of the same pipeline in an account's week. */
  share: z.number().min(0).max(20).default(0.2),
  /** Each other post on an account's day. */
  even: z.number().min(0).max(20).default(0.5),
  /** An hour that is worth nothing, where the hours' worth is known. */
  hours: z.number().min(0).max(20).default(1),
  /** Another account served with the same beat within the brand's stagger. */
  stagger: z.number().min(0).max(20).default(0.8),
  pictureDays: z.int().min(0).max(365).default(21),
  passageDays: z.int().min(0).max(730).default(60),
  staggerMinutes: z.int().min(0).max(20_160).default(120),
})
export type Weights = z.infer<typeof Weights>

/** The weights taken where none were set. */
export const USUAL_WEIGHTS: Weights = Weights.parse({})

export const PlanInput = z.object({
  now: anyInstant,
  accounts: z.array(PlanAccount),
  posts: z.array(PlanPost),
  /** Days within which sibling accounts may not carry the same words; 0 switches the rule off. */
  siblingDays: z.int().min(0).default(7),
  weights: Weights.prefault({}),
})
export type PlanInput = z.input<typeof PlanInput>
/** The input after its defaults were filled in. */
export type Plan = z.output<typeof PlanInput>

/** The hard rules: what a placement may never break. */
export type Rule =
  | 'past'
  | 'no slot'
  | 'out of bounds'
  | 'quiet day'
  | 'taken'
  | 'gap'
  | 'day full'
  | 'warming up'
  | 'week full'
  | 'same piece'
  | 'same words'
  | 'same minute'

/** What each rule says of a day or a moment. */
export const RULE_WORDS: Record<Rule, string> = {
  past: 'lies in the past',
  'no slot': 'has no slot at that time',
  'out of bounds': 'lies before the post’s first day or after its last',
  'quiet day': 'is a quiet day',
  taken: 'was already taken',
  gap: 'is closer to its neighbour than the account’s smallest gap',
  'day full': 'already has as many posts as the account takes in a day',
  'warming up': 'already has as many posts as the young account takes in a day while it warms up',
  'week full': 'lies in a week that is full',
  'same piece': 'already has a post of this piece on this account',
  'same words': 'is within the sibling days of the same words on another account of the network',
  'same minute': 'is the minute in which another account is served with the same beat',
}

/** Why a post stands where it stands, or has no place: a code for the machine, a sentence for people. */
export interface Reason {
  code: string
  message: string
}

export interface Placement {
  id: string
  /** ISO 8601 in UTC, or null where the post has no place. */
  at: string | null
  reasons: Reason[]
}

export interface PlanOutput {
  posts: Placement[]
}
