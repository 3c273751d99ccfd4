import {
  type Account,
  type Brand,
  type Drip,
  type Passage,
  type Piece,
  type Pipeline,
  type Post,
  type Source,
} from '../model'
import { type LaneFigures } from '../planning'
import type { Change } from './change'

/** What a rehearsal is played with. */
export interface RehearsalRequest {
  now: string
  brand: string
  accounts: readonly Account[]
  brands: readonly Brand[]
  drips: readonly Drip[]
  pipelines: readonly Pipeline[]
  posts: readonly Post[]
  /** The local days between which it is played, both included. */
  from: string
  to: string
  changes: readonly Change[]
  /** Whether new pieces come in as often as they did lately, or none comes. */
  arrivals: boolean
  /** The pieces there are: when they were published, and what the sieves said of them. */
  pieces: readonly Piece[]
  sources: readonly Source[]
  /** What may come from the shelf, and how many times its account's usual each passage earned. */
  passages: readonly Passage[]
  worth: ReadonlyMap<string, number>
}

/** The months to come as they would be played. */
export interface Rehearsal {
  /** The accounts that have a lane, in order; one that is not linked yet among them. */
  accounts: Account[]
  /** The posts that stand or would stand in the span; made-up ones have an id that begins with a space. */
  posts: Post[]
  figures: LaneFigures[]
  /** Posts by account and week of the span, the first week first. */
  weeks: number[][]
  /** The first days of the weeks. */
  mondays: string[]
  /** The last day with a post of each pipeline; null where nothing is planned. */
  dry: { pipeline: string; day: string | null; takesIn: boolean }[]
  pressure: Pressure
}

/** How hard the rules press: what had to stand elsewhere, and which rules stood in the way. */
export interface Pressure {
  /** Posts that stand on another day than they wished, and by how many days on average. */
  moved: number
  meanDays: number
  unplaced: number
  /** How often each rule stood in the way of a post, by its code, most first. */
  rules: { code: string; times: number }[]
}

/** Both ways side by side, and what would have to move for the second. */
export interface Comparison {
  before: Rehearsal
  after: Rehearsal
  /** Posts that are there and would stand elsewhere. */
  moves: { post: Post; from: string | null; to: string | null }[]
  /** Posts that are there and would go out no more. */
  dropped: Post[]
  /** Posts that would have to be written: for each, the one it is worded like, and its account. */
  wanted: { like: string; account: string; wished: string }[]
}
