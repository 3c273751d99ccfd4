import { tellsStories, writeDrip, type WriteRequest } from '../drips'
import { houseOf, type House } from '../house'
import { checkCaption } from '../judging'
import {
  Brief,
  Fault,
  PLAIN_MAKE,
  showings,
  type Account,
  type Angle,
  type Brand,
  type Passage,
  type Pipeline,
  type Post,
  type Reader,
  type WholePiece,
} from '../model'
import { STORY } from '../networks'
import { writtenPost } from './drip'
import { earlierCaptions } from './earlier'
import { alikeWith, filmMedia, layoutsFor, withPictures } from './blank'
import { contextFor } from './recheck'
import { writeStories } from './stories'

/** What one more post is worded from. */
export interface SingleRequest {
  now: string
  newId: () => string
  brand: Brand
  piece: WholePiece
  passages: readonly Passage[]
  /** The passage to word, or null for the best that is left. */
  passage: string | null
  account: Account
  pipeline: Pick<Pipeline, 'id' | 'name' | 'make'> | null
  drip: string | null
  beat: number
  wished: string
  seed: number
  standing: readonly Post[]
  /** Whether it is a story where the account's network has such; absent for no. */
  story?: boolean
  /** The angle of it; null or absent for whichever suits. */
  angle?: Angle | null
  /** Whom it is for; null or absent for as the network's brief says. */
  reader?: Reader | null
  /** The line that closes it and names the day on which it goes out; null or absent for none. */
  line?: string | null
}

/**
 * One post of a piece, worded for an account and unlike what stands there; it has no place yet and
 * waits for review. Refuses (`bad-request`) where no caption can be made.
 */
export function singlePost(request: SingleRequest): Post {
  const { account, brand, pipeline } = request
  const make = pipeline?.make ?? PLAIN_MAKE
  const piece = withPictures(request.piece, make)
  const alike = alikeWith(piece, request.standing)
  const usable = request.passages
    .filter((p) => p.choice !== 'left out' && !p.lostPlace)
    .sort((a, b) => b.score - a.score)
  const first = usable.filter((p) => p.id === request.passage)
  const taken = new Set(
    request.standing.flatMap((p) => (p.account === account.id && p.passage ? [p.passage] : [])),
  )
  const rest = usable.filter((p) => p.id !== request.passage)
  const fresh = rest.filter((p) => !taken.has(p.id))
  const order: WriteRequest = {
    piece,
    passages: [...first, ...fresh, ...(first.length || fresh.length ? [] : rest)],
    accounts: [account],
    days: [0],
    house: houseFor(request),
    angle: request.angle ?? undefined,
    link: piece.url,
    pipeline: pipeline?.name ?? '',
    seed: request.seed,
    // What is asked for is a passage, with the part of a film in which it is said.
    whole: false,
    hasFilm: (passage, id, part) => filmMedia(piece, passage, id, part) !== null,
    filmInPart: new Set([account.id]),
    earlier: earlierCaptions(request.standing, request.now, piece.id),
    shown: showings(request.standing, request.wished.slice(0, 10), alike),
    alike,
    layouts: layoutsFor(brand, make),
    pictureDays: brand.weights.pictureDays,
  }
  const story = request.story === true && tellsStories(account, STORY)
  const [written] = story ? writeStories(order, brand, make) : writeDrip(order)
  if (!written?.wording)
    throw new Fault(
      'bad-request',
      written?.checks[0]?.message ?? `No caption can be made of “${piece.title}” for this account.`,
    )
  const post: Post = writtenPost(
    written,
    account,
    piece,
    usable,
    {
      id: request.newId(),
      brand: brand.id,
      drip: request.drip,
      pipeline: pipeline?.id ?? null,
      beat: request.beat,
      wished: request.wished,
      latest: pipeline ? piece.keeps.until : null,
    },
    brand.look,
  )
  const context = contextFor(post, brand, piece, request.standing)
  const dated = request.line ?? null
  const checks = checkCaption(post.wording.text, { ...context, house: { ...context.house, dated } })
  return { ...post, checks, state: 'for review' }
}

/** The brand's house as a pipeline makes it, with the line and the reader that are asked for. */
function houseFor({ brand, pipeline, account, reader, line }: SingleRequest): House {
  const house = houseOf(brand, pipeline?.make)
  const own =
    house.briefs.find((b) => b.network === account.network) ?? Brief.parse({ network: account.network })
  return {
    ...house,
    dated: line ?? null,
    ...(reader ? { briefs: [...house.briefs.filter((b) => b !== own), { ...own, reader }] } : {}),
  }
}
