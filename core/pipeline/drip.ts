import { writeDrip, type EarlierCaption, type WrittenPost } from '../drips'
import { houseOf, linkOf } from '../house'
import { outlivesCheck } from '../judging'
import type {
  Account,
  Brand,
  Check,
  Drip,
  Gate,
  Passage,
  WholePiece,
  Pipeline,
  Post,
  PostState,
  Rhythm,
  TagFigures,
} from '../model'
import { blankPost, mediaOf } from './blank'
import { addDays, beatDays, clockTime, fromWall, placePosts, startOfDay } from '../planning'

/** All that is needed to make a drip; ids and the moment are passed in. */
export interface DripRequest {
  now: string
  newId: () => string
  brand: Brand
  piece: WholePiece
  passages: readonly Passage[]
  /** The accounts of the drip, in the order of its columns. */
  accounts: readonly Account[]
  rhythm: Rhythm
  startDay: string
  /** The last day on which a post of it may go out; null or absent where nothing bounds it. */
  until?: string | null
  seed: number
  pipeline: Pipeline | null
  /** Who lets posts through: the pipeline's gate, or everything held for a drip begun by hand. */
  gate: Gate
  /** All accounts of the workspace and their posts, for the planner and for likeness. */
  allAccounts: readonly Account[]
  allBrands: readonly Brand[]
  standing: readonly Post[]
  /** How often tags are posted with, by network, where the networks tell it. */
  tagFigures?: Readonly<Record<string, TagFigures>>
}

export interface DripResult {
  drip: Drip
  posts: Post[]
}

/** Days for which earlier captions of an account count for likeness. */
const EARLIER_DAYS = 90

/** Writes and places the posts of one piece on some accounts: a drip. */
export function makeDrip(request: DripRequest, onProgress?: (done: number, all: number) => void): DripResult {
  const { piece, accounts, brand, now } = request
  const days = beatDays(request.rhythm)
  const drip: Drip = {
    id: request.newId(),
    brand: brand.id,
    piece: piece.id,
    revision: piece.revision,
    pipeline: request.pipeline?.id ?? null,
    rhythm: request.rhythm,
    startDay: request.startDay,
    accounts: accounts.map((a) => a.id),
    days,
    missing: [],
    until: request.until ?? null,
    seed: request.seed,
    held: null,
    endedAt: null,
    createdAt: now,
  }
  const usable = request.passages.filter(
    (p) => p.piece === piece.id && p.choice !== 'left out' && !p.lostPlace,
  )
  const byScore = (a: Passage, b: Passage): number =>
    Number(b.by === 'person') - Number(a.by === 'person') || b.score - a.score
  const written = writeDrip(
    {
      piece,
      passages: usable.filter((p) => p.choice === 'kept').sort(byScore),
      accounts,
      days,
      house: houseOf(brand),
      link: piece.url,
      pipeline: request.pipeline?.name ?? '',
      seed: request.seed,
      tagFigures: request.tagFigures,
      earlier: earlierCaptions(request.standing, now),
    },
    onProgress,
  )
  const fresh = written.filter((w) => w.wording !== null).map((w) => toPost(w, drip, request, usable))
  const placed = placePosts({
    now,
    accounts: request.allAccounts,
    brands: request.allBrands,
    standing: request.standing,
    moving: fresh,
    drips: [drip],
    pipelines: request.pipeline ? [request.pipeline] : [],
  })
  const posts = placed.map((p) => {
    const outlives = outlivesCheck(piece.keeps.until, (p.at ?? p.wished).slice(0, 10))
    const checks = outlives ? [...p.checks, outlives] : p.checks
    return { ...p, checks, state: gateState(checks, request.gate) }
  })
  const missing = written
    .filter((w) => w.wording === null)
    .map((w) => ({ beat: w.beat, account: w.account, message: w.checks[0]?.message ?? '' }))
  return { drip: { ...drip, missing }, posts }
}

/** The captions of the last 90 days and of those to come, the newest last, as the writer minds them. */
export function earlierCaptions(posts: readonly Post[], now: string): EarlierCaption[] {
  const since = new Date(Date.parse(now) - EARLIER_DAYS * 86_400_000).toISOString()
  return posts
    .filter((p) => p.state !== 'set aside' && (p.at ?? p.publishedAt ?? p.wished) >= since)
    .sort((a, b) => (a.at ?? a.wished).localeCompare(b.at ?? b.wished))
    .map(({ account, network: on, wording: { text, closing } }) => ({ account, network: on, text, closing }))
}

function toPost(written: WrittenPost, drip: Drip, request: DripRequest, passages: readonly Passage[]): Post {
  const account = request.accounts.find((a) => a.id === written.account) as Account
  return writtenPost(written, account, request.piece, passages, {
    id: request.newId(),
    brand: drip.brand,
    drip: drip.id,
    pipeline: drip.pipeline,
    beat: written.beat,
    wished: wishedAt(drip, written.beat, account, request.brand.weights.staggerMinutes),
    // What a pipeline makes ends with its piece; a person's drip is placed as it was asked for.
    latest: drip.pipeline ? request.piece.keeps.until : null,
  })
}

/** A caption that was written from a piece, as a post of an account. Its wording must be there. */
export function writtenPost(
  written: WrittenPost,
  account: Account,
  piece: WholePiece,
  passages: readonly Passage[],
  of: Pick<Post, 'id' | 'brand' | 'drip' | 'pipeline' | 'beat' | 'wished' | 'latest'>,
): Post {
  const wording = written.wording as Post['wording']
  const passage = passages.find((p) => p.start === written.passage?.start && p.end === written.passage.end)
  const image = written.picture === null ? undefined : piece.images[written.picture]
  return blankPost(account, {
    ...of,
    piece: piece.id,
    pieceRevision: piece.revision,
    passage: passage?.id ?? null,
    wording,
    others: written.others,
    link: linkOf(wording, piece.url),
    media: mediaOf(image, piece.title, account.network),
    checks: written.checks,
  })
}

/**
 * The moment a drip's rhythm asks for: noon of the beat's day in the account's zone, and for each
 * further account of the drip the brand's stagger later, so that a beat is not served all at once.
 */
export function wishedAt(
  drip: Pick<Drip, 'startDay' | 'days' | 'accounts'>,
  beat: number,
  account: Pick<Account, 'id' | 'zone'>,
  staggerMinutes: number,
): string {
  const later = Math.max(0, drip.accounts.indexOf(account.id)) * staggerMinutes
  const noon = 12 * 60
  // Within a day a stagger of minutes stays on the day; one of days moves on by whole days.
  const days = Math.floor(later / (24 * 60))
  const minutes = Math.min(noon + (later % (24 * 60)), 23 * 60 + 59)
  const day = addDays(drip.startDay, (drip.days[beat] ?? 0) + days)
  return new Date(
    fromWall(day, clockTime(minutes), account.zone) ?? startOfDay(day, account.zone),
  ).toISOString()
}

/** The state in which a gate leaves a post with such checks. Blocks pass no gate. */
export function gateState(checks: readonly Check[], gate: Gate): PostState {
  const blocked = checks.some((c) => c.severity === 'block')
  const flagged = checks.some((c) => c.severity === 'flag')
  if (blocked || gate === 'everything') return 'for review'
  return gate === 'what is flagged' && flagged ? 'for review' : 'approved'
}
