import { isEnglish } from '../language'
import type { Check, FoundPassage, Wording } from '../model'
import { network } from '../networks'
import { checkCaption } from '../judging'
import { plainWording, skeletonDraft, stockOf, type Assignment, type Recipient, type Stock } from '../writers'
import { contextOf, firstSound, onceEach, ranked, unlike, type Propose } from './rank'
import type { WriteRequest, WrittenPost } from './request'
import { turnsOf } from './rotation'
import { saidBefore, saying, type Said } from './said'

/** How many other wordings are kept of each post. */
const OTHERS = 6

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
  const posts = isEnglish(request.piece.language)
    ? writeOut(request, stockOf(request.piece), onProgress)
    : writePlainly(request, onProgress)
  const pictured = withPictures(posts, request.piece.images.length, request.accounts)
  return pictured.map((post) => checked(request, pictured, post))
}

function writeOut(
  request: WriteRequest,
  stock: Stock,
  onProgress?: (done: number, all: number) => void,
): WrittenPost[] {
  const { passages, accounts, days } = request
  const proposed = onceEach()
  const turns = turnsOf(passages, accounts.length, days.length)
  const posts: WrittenPost[] = []
  let said = saidBefore(request.earlier)
  let whole = request.whole !== false && skeletonDraft(stock) !== null
  const had = new Map(accounts.map((a) => [a.id, new Set<FoundPassage>()]))
  days.forEach((day, beat) => {
    const atBeat = new Set<FoundPassage>()
    accounts.forEach((account, column) => {
      const mine = had.get(account.id) ?? new Set()
      const base = { order: request, stock, account, beat, angle: request.angle }
      const first =
        whole && beat === 0 ? taken({ ...base, passage: null }, said, proposed, request.wordings) : null
      const found =
        first ??
        firstOf(
          turns(beat, column).filter((p) => !mine.has(p) && !atBeat.has(p)),
          (passage) => taken({ ...base, passage }, said, proposed, request.wordings),
        )
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
        checks: found ? [] : [tooThin(beat, passages.length, mine.size, account)],
        picture: null,
      })
      onProgress?.(posts.length, days.length * accounts.length)
    })
  })
  return posts
}

interface Taken {
  passage: FoundPassage | null
  wording: Wording
  others: Wording[]
}

/** The best sound wording of an assignment with others beside it, or null. */
function taken(assignment: Assignment, said: Said, proposed: Propose, others = OTHERS): Taken | null {
  const wordings = ranked(assignment, said, proposed)
  const best = firstSound(assignment, said, wordings)
  return (
    best && {
      passage: assignment.passage,
      wording: best,
      others: unlike(
        best,
        wordings.filter((w) => w !== best),
        Math.max(OTHERS, others),
      ),
    }
  )
}

function firstOf<T, R>(list: readonly T[], make: (item: T) => R | null): R | null {
  for (const item of list) {
    const made = make(item)
    if (made !== null) return made
  }
  return null
}

function tooThin(beat: number, kept: number, had: number, account: Recipient): Check {
  const count = kept === 1 ? 'one passage is' : `${kept} passages are`
  const message =
    had >= kept
      ? `The piece is too thin for beat ${beat + 1}: ${count} kept, and each goes out once on an account. Keep or add one in the Reader, or choose a shorter rhythm.`
      : `Nothing is left for ${network(account.network).name} that is whole and opens unlike the drip’s other posts. Keep or add a passage in the Reader, or choose a shorter rhythm.`
  return { code: 'too-thin', severity: 'block', message }
}

/** The posts of a drip of a piece in another language: its passages in turn, each as it stands. */
function writePlainly(
  request: WriteRequest,
  onProgress?: (done: number, all: number) => void,
): WrittenPost[] {
  const { accounts, days, passages } = request
  const used = passages.slice(0, days.length)
  return days.flatMap((day, beat) =>
    accounts.map((account, column): WrittenPost => {
      const passage = beat < used.length ? (used[(beat + column) % used.length] ?? null) : null
      const wording = passage && plainWording(request, passage, account)
      const misfit: Check = {
        code: 'too-thin',
        severity: 'block',
        message: `The passage does not fit ${network(account.network).name} as it stands, and it is not in English, so nothing is shortened. Choose a shorter one in the Reader.`,
      }
      onProgress?.(beat * accounts.length + column + 1, days.length * accounts.length)
      return {
        beat,
        day,
        account: account.id,
        network: account.network,
        passage,
        wording: wording || null,
        others: [],
        checks: wording ? [] : [passage ? misfit : tooThin(beat, used.length, used.length, account)],
        picture: null,
      }
    }),
  )
}

/** A post with what the rules say of it beside all the others. */
function checked(request: WriteRequest, posts: readonly WrittenPost[], post: WrittenPost): WrittenPost {
  const { wording } = post
  if (!wording) return post
  const beside = posts.flatMap((p) =>
    p.wording && p !== post ? [{ account: p.account, network: p.network, text: p.wording.text }] : [],
  )
  const account = { id: post.account, network: post.network }
  const captions = [...(request.earlier ?? []), ...beside]
  const context = contextOf({ order: request, account }, captions, post.picture === null ? 0 : 1)
  return { ...post, checks: checkCaption(wording.text, { ...context, clips: 0, beside: wording }) }
}

/** Pictures go round, and the accounts start at different ones, so that neighbours differ. */
function withPictures(
  posts: readonly WrittenPost[],
  count: number,
  accounts: readonly Recipient[],
): WrittenPost[] {
  if (count === 0) return [...posts]
  const seen = new Map<string, number>()
  return posts.map((post) => {
    const { pictures } = network(post.network).media
    if (!post.wording || pictures.most === 0) return post
    const i = seen.get(post.account) ?? 0
    seen.set(post.account, i + 1)
    const column = accounts.findIndex((a) => a.id === post.account)
    const always = pictures.least > 0
    if (!always && i % 2 === 0) return post
    return { ...post, picture: ((always ? i : (i - 1) / 2) + column) % count }
  })
}
