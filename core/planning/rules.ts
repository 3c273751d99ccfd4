import { z } from 'zod'
import { Account, HourTrial, LocalDate, QuietDay, Slot, WarmUpStep, Weights, Zone } from '../model'

const anyInstant = z.iso.datetime({ offset: true })
/** A moment, or a day in the account's zone. */
const Moment = z.union([anyInstant, LocalDate])

/** A young account: since when it is there, and what it may do a day until it is so many days old. */
const WarmUp = z.object({ since: anyInstant, steps: z.array(WarmUpStep) })

/** An account as the planner sees it: where it may post, and its limits. */
export const PlanAccount = Account.pick({ id: true, network: true }).extend({
  zone: Zone,
  slots: z.array(Slot),
  /** Slots that stand at another time on one day. */
  hourTrials: z.array(HourTrial).nullish(),
  quiet: z.array(QuietDay).default([]),
  maxPerDay: z.int().min(1).default(24),
  maxPerWeek: z.int().min(1).default(168),
  gapMinutes: z.int().min(0).default(0),
  warmUp: WarmUp.nullish(),
  /** What the soft rules count on this account; the plan's own weights where absent. */
  weights: Weights.nullish(),
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

/** At most so many posts of a pipeline a day and a week, over all of its accounts, each post on its account's own day. */
const PlanLimit = z.object({
  id: z.string().min(1),
  aDay: z.int().min(1).nullish(),
  aWeek: z.int().min(1).nullish(),
})
export type PlanLimit = z.infer<typeof PlanLimit>

export const PlanInput = z.object({
  now: anyInstant,
  accounts: z.array(PlanAccount),
  posts: z.array(PlanPost),
  /** The pipelines whose posts are limited. */
  limits: z.array(PlanLimit).default([]),
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
  | 'pipeline day full'
  | 'pipeline week full'
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
  'pipeline day full': 'already has as many posts as the pipeline makes in a day',
  'pipeline week full': 'lies in a week that has as many posts as the pipeline makes',
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
