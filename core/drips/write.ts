import { isEnglish } from '../language'
import {
  inPart,
  pictureKey,
  type Card,
  type Check,
  type FoundPassage,
  type PieceContent,
  type Wording,
} from '../model'
import { network, shownOn } from '../networks'
import { checkCaption } from '../judging'
import { cardsFor, choosePictures, type PictureWish } from '../pictures'
import { isByHand, linkFor, plainWording, skeletonDraft, stockOf, type Recipient } from '../writers'
import { contextOf, firstSound, onceEach, ranked, unlike } from './rank'
import type { WriteRequest, WrittenPost } from './request'
import { turnsOf } from './rotation'
import { saidBefore, saying, type Said } from './said'

/** How many other wordings are kept of each post. */
const OTHERS = 6
/** For so many days a picture rests on a network, where nobody says otherwise. */
const PICTURE_DAYS = 21

/**
 * Writes the posts of a drip. Passages rotate over the accounts (`turnsOf`); where nothing good can be made
 * of the one whose turn it is, the next takes its turn that neither the account nor the beat has had. An
 * account gets no more posts than there are kept passages, and one more where the piece has a skeleton:
 * that goes out once in the drip, first, on the first account with room for it. Where nothing is left that
 * is whole, fits and is unlike the others, the post says so: a shorter drip beats a padded one.
 */
export function writeDrip(
  request: WriteRequest,
  onProgress?: (done: number, all: number) => void,
): WrittenPost[] {
  const hand = isEnglish(request.piece.language) ? writingHand(request) : plainHand(request)
  const posts = rotate(request, hand, onProgress)
  const pictured = withPictures(request, posts)
  return pictured.map((post) => checked(request, pictured, post))
}

/** What writes the posts of a drip, one after the other. */
interface Hand {
  /** Whether a post of the whole piece is still to be written. */
  whole: boolean
  /** The best wording of a passage, or of the whole piece, for an account at a beat; null where there is none. */
  take: (passage: FoundPassage | null, account: Recipient, beat: number, said: Said) => Taken | null
  /** Why there is none though passages are left. */
  nothing: (account: Recipient) => string
}

interface Taken {
  passage: FoundPassage | null
  wording: Wording
  others: Wording[]
}

/** Goes through beats and accounts, the passages in turn, until each has its post or none is left for it. */
function rotate(
  request: WriteRequest,
  hand: Hand,
  onProgress?: (done: number, all: number) => void,
): WrittenPost[] {
  const { passages, accounts, days } = request
  const turns = turnsOf(passages, accounts.length, days.length)
  const posts: WrittenPost[] = []
  let said = saidBefore(request.earlier)
  let { whole } = hand
  const had = new Map(accounts.map((a) => [a.id, new Set<FoundPassage>()]))
  days.forEach((day, beat) => {
    const atBeat = new Set<FoundPassage>()
    accounts.forEach((account, column) => {
      const mine = had.get(account.id) ?? new Set()
      const left = turns(beat, column).filter((p) => !mine.has(p) && !atBeat.has(p))
      const first = whole && beat === 0 ? hand.take(null, account, beat, said) : null
      const found = first ?? firstOf(left, (passage) => hand.take(passage, account, beat, said))
      if (found) {
        if (found.passage === null) whole = false
        else {
          mine.add(found.passage)
          atBeat.add(found.passage)
        }
        said = saying(said, found.wording, account)
      }
      posts.push({
        beat,
        day,
        account: account.id,
        network: account.network,
        passage: found?.passage ?? null,
        wording: found?.wording ?? null,
        others: found?.others ?? [],
        link: linkFor({ order: request, account, beat }, found?.wording.angle ?? null),
        checks: found ? [] : [tooThin(beat, passages.length, mine.size, hand.nothing(account))],
        picture: null,
      })
      onProgress?.(posts.length, days.length * accounts.length)
    })
  })
  return posts
}

/** The writer of pieces in English. */
function writingHand(request: WriteRequest): Hand {
  const stock = stockOf(request.piece)
  const proposed = onceEach()
  return {
    whole: request.whole !== false && skeletonDraft(stock) !== null,
    take: (passage, account, beat, said) => {
      const part = showsPart(request, account.id, said.drip)
      const assignment = { order: request, stock, account, passage, beat, angle: request.angle, part }
      const wordings = ranked(assignment, said, proposed)
      // What a person chose is written all the same, and its doubts are said for a person to decide.
      const chosen = passage !== null && isByHand(passage)
      const best = firstSound(assignment, said, wordings) ?? (chosen ? (wordings[0] ?? null) : null)
      const rest = wordings.filter((w) => w !== best)
      return (
        best && {
          passage,
          wording: best,
          others: unlike(best, rest, Math.max(OTHERS, request.wordings ?? 0)),
        }
      )
    },
    nothing: (account) =>
      `Nothing is left for ${network(account.network).name} that is whole and opens unlike the drip’s other posts. Keep or add a passage in the Reader, or choose a shorter rhythm.`,
  }
}

/** Whether a film is shown to an account in part only: whole it goes out once, with the first of the posts that the account has before. */
const showsPart = (
  { filmInPart }: WriteRequest,
  account: string,
  before: readonly { account: string }[],
): boolean => filmInPart?.has(account) === true || before.some((p) => p.account === account)

/** What sets the passages of a piece in another language, each as it stands. */
const plainHand = (request: WriteRequest): Hand => ({
  whole: false,
  take: (passage, account, _beat, said) => {
    const order = showsPart(request, account.id, said.drip)
      ? { ...request, piece: inPart(request.piece) }
      : request
    const wording = passage && plainWording(order, passage, account)
    return wording ? { passage, wording, others: [] } : null
  },
  nothing: (account) =>
    `No passage that is left fits ${network(account.network).name} as it stands, and the piece is not in English, so nothing is shortened. Choose a shorter one in the Reader.`,
})

function firstOf<T, R>(list: readonly T[], make: (item: T) => R | null): R | null {
  for (const item of list) {
    const made = make(item)
    if (made !== null) return made
  }
  return null
}

function tooThin(beat: number, kept: number, had: number, nothing: string): Check {
  const count = kept === 1 ? 'one passage is' : `${kept} passages are`
  const message =
    had >= kept
      ? `The piece is too thin for beat ${beat + 1}: ${count} kept, and each goes out once on an account. Keep or add one in the Reader, or choose a shorter rhythm.`
      : nothing
  return { code: 'too-thin', severity: 'block', message }
}

/** A post with what the rules say of it beside all the others. */
export function checked(
  request: WriteRequest,
  posts: readonly WrittenPost[],
  post: WrittenPost,
): WrittenPost {
  const { wording } = post
  if (!wording) return post
  const beside = posts.flatMap((p) =>
    p.wording && p !== post ? [{ account: p.account, network: p.network, text: p.wording.text }] : [],
  )
  const account = { id: post.account, network: post.network }
  const captions = [...(request.earlier ?? []), ...beside]
  const shown = post.picture === null ? 0 : 1
  const { moving } = shownOn(network(post.network))
  const context = contextOf(
    { order: request, account },
    captions,
    moving ? { pictures: 0, clips: shown } : { pictures: shown, clips: 0 },
  )
  return { ...post, checks: checkCaption(wording.text, { ...context, beside: wording }) }
}

/** Gives each post the picture of the piece or the card that suits it, where its network shows any, be they moving. */
function withPictures(request: WriteRequest, posts: readonly WrittenPost[]): WrittenPost[] {
  const { piece, shown = [], pictureDays = PICTURE_DAYS, layouts = [], alike } = request
  const worded = posts.filter((p) => p.wording)
  const part = (p: WrittenPost): boolean => showsPart(request, p.account, worded.slice(0, worded.indexOf(p)))
  const filmed = (p: WrittenPost): boolean =>
    p.wording !== null &&
    shownOn(network(p.network)).moving &&
    request.hasFilm?.(p.passage, p.network, part(p)) === true
  const taking = posts.filter((p) => p.wording && shownOn(network(p.network)).any && !filmed(p))
  const cards = taking.map(({ wording }) => (wording ? cardsFor(wording, piece, layouts) : []))
  const choices = choosePictures(
    piece,
    taking.map((post, i) => wishOf(piece, post, cards[i] ?? [], request.onCards === true)),
    shown,
    pictureDays,
    alike,
  )
  return posts.map((post) => {
    if (filmed(post)) return { ...post, picture: { film: part(post) ? 'part' : 'whole' } }
    const i = taking.indexOf(post)
    const choice = choices[i] ?? null
    const card = choice && 'card' in choice ? cards[i]?.[choice.card] : undefined
    return { ...post, picture: card ? { card } : choice && 'image' in choice ? choice : null }
  })
}

/** What a post wants of a picture. Its wording must be there. */
function wishOf(
  { text }: Pick<PieceContent, 'text'>,
  { account, network: id, day, passage, wording }: Omit<WrittenPost, 'picture'>,
  cards: readonly Card[],
  onCards: boolean,
): PictureWish {
  const said = passage ? text.slice(passage.start, passage.end) : ''
  const shown = shownOn(network(id))
  return {
    account,
    network: id,
    day,
    words: `${wording?.text ?? ''} ${said}`,
    place: passage,
    needed: shown.needed || onCards,
    drawn: shown.moving || onCards,
    cards: cards.map((card) => pictureKey({ from: 'card', card })),
  }
}
