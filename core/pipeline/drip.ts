import { offers, tellsStories, writeDrip, writeInFormat, type WriteRequest, type WrittenPost } from '../drips'
import { houseOf, linkOf } from '../house'
import { outlivesCheck } from '../judging'
import {
  isWholeFilm,
  pictureKey,
  showings,
  PLAIN_MAKE,
  type Account,
  type Brand,
  type Check,
  type Drip,
  type Gate,
  type Passage,
  type WholePiece,
  type Pipeline,
  type Post,
  type PostMedia,
  type PostState,
  type ReleaseRow,
  type Rhythm,
  type TagFigures,
} from '../model'
import {
  alikeWith,
  blankPost,
  cardShown,
  filmMedia,
  layoutsFor,
  mediaOf,
  wholeCard,
  withPictures,
  type CardLook,
} from './blank'
import { earlierCaptions } from './earlier'
import { placeSoon } from './soon'
import { writeStories } from './stories'
import { shownIn, STORY } from '../networks'
import { standsWith } from '../pictures'
import { addDays, beatDays, clockTime, instantAt, placePosts } from '../planning'

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
  /** The row of the pipeline that it follows, and how often that had dripped the piece before. */
  row?: Pick<ReleaseRow, 'id' | 'format'> | null
  time?: number
  /** Within how many hours each post has to go out; null or absent where the rhythm says when. */
  hours?: number | null
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
    row: request.row?.id ?? null,
    time: request.time ?? 0,
    rhythm: request.rhythm,
    startDay: request.startDay,
    accounts: accounts.map((a) => a.id),
    days,
    missing: [],
    until: request.until ?? null,
    seed: request.seed,
    followed: [],
    held: null,
    endedAt: null,
    createdAt: now,
  }
  const usable = request.passages.filter(
    (p) => p.piece === piece.id && p.choice !== 'left out' && !p.lostPlace,
  )
  const written = writtenFor(request, drip, usable, onProgress)
  const fresh = written.filter((w) => w.wording !== null).map((w) => toPost(w, drip, request, usable))
  const places = {
    now,
    accounts: request.allAccounts,
    brands: request.allBrands,
    standing: request.standing,
    moving: fresh,
    drips: [drip],
    pipelines: request.pipeline ? [request.pipeline] : [],
  }
  const placed = request.hours ? placeSoon(places, request.hours) : placePosts(places)
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

/** The posts of a drip as written; where its pipeline plans some days ahead, those of the days that are in reach. */
function writtenFor(
  request: DripRequest,
  drip: Drip,
  usable: readonly Passage[],
  onProgress?: (done: number, all: number) => void,
): WrittenPost[] {
  const { piece, pipeline, accounts, now } = request
  const make = pipeline?.make ?? PLAIN_MAKE
  const format = request.row?.format ?? null
  const alike = alikeWith(piece, request.standing)
  const order: WriteRequest = {
    piece: withPictures(piece, make),
    passages: keptPassages(request, usable).slice(0, make.passages ?? Infinity),
    accounts: accounts.filter((a) => !offers(a, format) && !tellsStories(a, format)),
    days: drip.days.filter((day) => isInReach(drip, day, pipeline, now)),
    house: houseOf(request.brand, make),
    link: piece.url,
    pipeline: pipeline?.name ?? '',
    seed: request.seed,
    tagFigures: request.tagFigures,
    earlier: earlierCaptions(request.standing, now, piece.id),
    shown: showings(request.standing, drip.startDay, alike),
    alike,
    hasFilm: (passage, id, part) => filmMedia(piece, passage, id, part) !== null,
    filmInPart: filmSeen(piece, request.standing),
    layouts: layoutsFor(request.brand, make),
    pictureDays: request.brand.weights.pictureDays,
  }
  const usual = order.accounts.length ? writeDrip(order, onProgress) : []
  const telling = accounts.filter((a) => tellsStories(a, format))
  const stories = { ...order, accounts: telling }
  const told = telling.length ? writeStories(stories, request.brand, make, onProgress) : []
  const formed = accounts.filter((a) => offers(a, format))
  const made = format && formed.length ? writeInFormat({ ...order, accounts: formed }, format) : []
  return [...usual, ...told, ...made]
}

/** The accounts on which the whole film of a piece stands, or is to. */
function filmSeen({ video }: WholePiece, standing: readonly Post[]): Set<string> {
  const shows = ({ media, state }: Post): boolean =>
    state !== 'set aside' && media.some((m) => isWholeFilm(m) && pictureKey(m.source) === video?.url)
  return new Set(video?.url ? standing.filter(shows).map((p) => p.account) : [])
}

/** Whether a day of a drip is near enough to be written: its pipeline may plan some days ahead only. */
export function isInReach(
  drip: Pick<Drip, 'startDay'>,
  day: number,
  pipeline: Pick<Pipeline, 'limits'> | null,
  now: string,
): boolean {
  const ahead = pipeline?.limits.ahead ?? null
  return ahead === null || addDays(drip.startDay, day) <= addDays(now.slice(0, 10), ahead)
}

/**
 * The passages to write from, the best first, those that a person chose before them; where the piece was dripped
 * before, what its posts have not said yet comes first.
 */
function keptPassages(request: DripRequest, usable: readonly Passage[]): Passage[] {
  const accounts = new Set(request.accounts.map((a) => a.id))
  const said = new Set(
    request.standing.flatMap((p) =>
      p.piece === request.piece.id && accounts.has(p.account) && p.state !== 'set aside' && p.passage
        ? [p.passage]
        : [],
    ),
  )
  return usable
    .filter((p) => p.choice === 'kept')
    .sort(
      (a, b) =>
        Number(said.has(a.id)) - Number(said.has(b.id)) ||
        Number(b.by === 'person') - Number(a.by === 'person') ||
        b.score - a.score,
    )
}

function toPost(written: WrittenPost, drip: Drip, request: DripRequest, passages: readonly Passage[]): Post {
  const account = request.accounts.find((a) => a.id === written.account) as Account
  return writtenPost(
    written,
    account,
    request.piece,
    passages,
    {
      id: request.newId(),
      brand: drip.brand,
      drip: drip.id,
      pipeline: drip.pipeline,
      beat: written.beat,
      wished: wishedAt(drip, written.beat, account, request.brand.weights.staggerMinutes),
      // What a pipeline makes ends with its piece; a person's drip is placed as it was asked for.
      latest: drip.pipeline ? request.piece.keeps.until : null,
    },
    request.brand.look,
  )
}

/** A caption that was written from a piece, as a post of an account. Its wording must be there. */
export function writtenPost(
  written: WrittenPost,
  account: Account,
  piece: WholePiece,
  passages: readonly Passage[],
  of: Pick<Post, 'id' | 'brand' | 'drip' | 'pipeline' | 'beat' | 'wished' | 'latest'>,
  look: CardLook,
): Post {
  const wording = written.wording as Post['wording']
  const passage = passages.find((p) => p.start === written.passage?.start && p.end === written.passage.end)
  const { picture } = written
  const media = picture ? shownMedia(picture, written, piece, look) : []
  return blankPost(account, {
    ...of,
    piece: piece.id,
    pieceRevision: piece.revision,
    passage: passage?.id ?? null,
    wording,
    others: written.others,
    link: linkOf(wording, written.link),
    media: shownIn({ network: account.network, wording }, media),
    checks: written.checks,
  })
}

function shownMedia(
  picture: NonNullable<WrittenPost['picture']>,
  { passage, wording, network: networkId }: Pick<WrittenPost, 'passage' | 'wording' | 'network'>,
  piece: WholePiece,
  look: CardLook,
): PostMedia[] {
  if ('film' in picture) {
    const film = filmMedia(piece, passage, networkId, picture.film === 'part')
    return film ? [film] : []
  }
  if ('card' in picture)
    return wording?.format === STORY
      ? wholeCard(picture.card, networkId, look)
      : cardShown(picture.card, piece.title, networkId, look)
  const image = piece.images[picture.image] as WholePiece['images'][number]
  return [mediaOf(image, standsWith(image, piece), networkId)]
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
  return instantAt(day, clockTime(minutes), account.zone)
}

/** The state in which a gate leaves a post with such checks. Blocks pass no gate. */
export function gateState(checks: readonly Check[], gate: Gate): PostState {
  const blocked = checks.some((c) => c.severity === 'block')
  const flagged = checks.some((c) => c.severity === 'flag')
  if (blocked || gate === 'everything') return 'for review'
  return gate === 'what is flagged' && flagged ? 'for review' : 'approved'
}
