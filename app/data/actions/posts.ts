import { houseOf, linkOf, type House } from '../../../core/house'
import {
  Fault,
  drawnCard,
  may,
  next,
  refusal,
  waitsForReview,
  type Brand,
  type Check,
  type Passage,
  type Post,
  type Standing,
  type WholePiece,
  type Wording,
  openFlagsOf,
} from '../../../core/model'
import { STORY, network } from '../../../core/networks'
import { datedLine, linkedPage, neighboursOf } from '../../../core/pipeline'
import { heavy } from '../../workers'
import { get, post as send } from '../api'
import { nowIso } from '../clock'
import { all, commit, must, newAction, one, wholePiece } from '../store'
import { changePost, commitRecalled, happening, happens, happensIfMay } from './life'
import { isMovable, tryPlaces } from './plan'

/** A post with what its caption is written from and held against. */
export async function aroundPost(id: string): Promise<{
  post: Post
  brand: Brand
  piece: WholePiece
  passages: Passage[]
  posts: Post[]
  /** The brand's house, with what the post's pipeline makes otherwise. */
  house: House
}> {
  const post = await must('posts', id)
  if (!post.piece)
    throw new Fault(
      'not-found',
      'This post was written by itself, so there is no piece to word it from. Edit it by hand.',
      id,
    )
  const [brand, piece, passages, posts, pipeline] = await Promise.all([
    must('brands', post.brand),
    wholePiece(post.piece, post.pieceRevision),
    all('passages', 'piece', post.piece),
    all('posts'),
    post.pipeline ? one('pipelines', post.pipeline) : undefined,
  ])
  // What names an occasion stays, however else its post is worded.
  const house = { ...houseOf(brand, pipeline?.make), dated: datedLine(post) }
  return { post, brand, piece, passages, posts, house }
}

export async function checksOf(post: Post): Promise<Check[]> {
  const [brand, piece, posts] = await Promise.all([
    must('brands', post.brand),
    post.piece ? wholePiece(post.piece, post.pieceRevision) : null,
    all('posts'),
  ])
  return heavy().recheck(post, brand, piece, neighboursOf(post, posts))
}

/** What the checks would say of a post if its caption were this. */
export function checkWording(post: Post, text: string): Promise<Check[]> {
  return checksOf({ ...post, wording: { ...post.wording, text } })
}

const isBlocked = (checks: readonly Check[]): boolean => checks.some((c) => c.severity === 'block')

/** Writes a caption by hand. An approval stays, unless the new words break a rule. */
export async function editText(id: string, text: string): Promise<void> {
  const post = await must('posts', id)
  const wording = { ...post.wording, text }
  // What was found of another address says nothing of this one.
  const linkCheck = linkedPage({ ...post, wording }) === linkedPage(post) ? post.linkCheck : null
  const checks = await checksOf({ ...post, wording, linkCheck, edited: true })
  await changePost(post, 'Edit a caption', 'edit', (p) =>
    doubted({ ...p, wording: { ...p.wording, text }, linkCheck, edited: true, checks }),
  )
}

/** A post whose checks were made anew: an approval falls where they find a broken rule. */
export function doubted(post: Post): Post {
  return isBlocked(post.checks) ? next(post, 'doubt') : post
}

/** A post with another wording and others beside it: link, short link and reasons belong to its words. */
export function withWording(post: Post, wording: Wording, others: Wording[]): Post {
  return {
    ...post,
    wording: asBefore(post, wording),
    others,
    link: linkOf(wording, post.link),
    shortLink: null,
    fallback: null,
    edited: false,
    accepted: [],
  }
}

/** A wording in the format of its post, where a person let that be a story. */
function asBefore({ network: id, wording: { format } }: Post, wording: Wording): Wording {
  return format === STORY && wording.format === network(id).formats[0] ? { ...wording, format } : wording
}

/** Takes the next wording there is; the present one goes to the end of the others. It asks for review again. */
export async function anotherWording(id: string, choice = 0): Promise<void> {
  const post = await must('posts', id)
  const chosen = post.others[choice]
  if (!chosen)
    throw new Fault(
      'not-found',
      'There is no other wording of this passage left. Edit it by hand, or keep another passage in the Reader.',
    )
  const others = [...post.others.filter((o) => o !== chosen), post.wording]
  const media = await mediaWith(post, chosen)
  const checks = await checksOf({ ...withWording(post, chosen, others), media })
  await changePost(post, 'Take another wording', 'reword', (p) => ({
    ...withWording(p, chosen, others),
    media,
    checks,
  }))
}

/** The pictures of a post as they go with another wording: a card of its words says the new ones. */
export async function mediaWith(post: Post, wording: Wording): Promise<Post['media']> {
  if (!post.piece || !post.media.some((m) => drawnCard(m.source))) return post.media
  const { look } = await must('brands', post.brand)
  return heavy().mediaAfter(post, wording, await wholePiece(post.piece, post.pieceRevision), look)
}

/** What approving did: how many went through, how many of them moved, and which were left and why. */
export interface Approval {
  approved: number
  /** Their time had passed while they waited, or they had none; they were placed anew. */
  moved: number
  left: { post: Post; why: string }[]
}

/**
 * Approves posts. Blocks and open flags are left, and it is said which. What waited past its time
 * is placed anew in the same action, so that nothing is handed over late. `action` makes it a part of a larger one.
 */
export async function approve(ids: readonly string[], action?: string): Promise<Approval> {
  const posts = (await all('posts')).filter((p) => ids.includes(p.id) && waitsForReview(p))
  const now = nowIso()
  const left: Approval['left'] = []
  const through = posts.filter((post) => {
    const why = refusal(post, 'approve')
    if (why !== null) left.push({ post, why })
    return why === null
  })
  const lapsed = through.filter((p) => p.at === null || (p.at < now && !p.pinned))
  const placed = new Map(
    lapsed.length
      ? (
          await tryPlaces(lapsed.map((p) => ({ ...p, at: null, wished: p.wished < now ? now : p.wished })))
        ).map((p) => [p.id, p])
      : [],
  )
  const writes = through.map((post) =>
    happensIfMay(post.id, 'approve', (p) => {
      const place = placed.get(p.id)
      return place ? { ...p, at: place.at, reasons: place.reasons } : p
    }),
  )
  const brand = posts[0]?.brand ?? ''
  const label = writes.length === 1 ? 'Approve a caption' : `Approve ${writes.length} captions`
  const approved = await commit({ brand, label, ...(action ? { action } : {}) }, writes)
  return { approved: approved.size, moved: [...placed.values()].filter((p) => p.at !== null).length, left }
}

/** Accepts one flag on one post, with the time. `action` makes it a part of a larger one. */
export async function acceptFlag(id: string, check: Check, action?: string): Promise<void> {
  const post = await must('posts', id)
  await commit({ brand: post.brand, label: 'Accept a flag', ...(action ? { action } : {}) }, [
    happens(id, 'accept', (p) => ({
      ...p,
      accepted: [...p.accepted, { code: check.code, words: check.words ?? '', at: nowIso() }],
    })),
  ])
}

/** Approves a post with every doubt that is open on it, as one action. */
export async function approveAsItIs(id: string): Promise<Approval> {
  const action = newAction()
  for (const flag of openFlagsOf(await must('posts', id))) await acceptFlag(id, flag, action)
  return approve([id], action)
}

/** Sets posts aside, which gives up their places; those that may not be are left. Gives how many were. */
export async function setAside(ids: readonly string[], action?: string): Promise<number> {
  const posts = (await all('posts')).filter((p) => ids.includes(p.id))
  const brand = posts[0]?.brand
  if (!brand) return 0
  const label = posts.length === 1 ? 'Set a post aside' : `Set ${posts.length} posts aside`
  const going = posts.filter((p) => posts.length === 1 || may(p, 'set aside'))
  const happen = happening(posts.length)
  const writes = going.map((p) => happen(p.id, 'set aside'))
  return (await commitRecalled({ brand, label, ...(action ? { action } : {}) }, going, writes)).size
}

/** Brings a post back for review that was set aside; a place is found for it anew. */
export async function bringBack(id: string): Promise<void> {
  const post = await must('posts', id)
  const [placed] = await tryPlaces([next(post, 'bring back')])
  await commit({ brand: post.brand, label: 'Bring a post back' }, [
    happens(id, 'bring back', (p) => ({ ...p, at: placed?.at ?? null, reasons: placed?.reasons ?? [] })),
  ])
}

/** Says between which days a post may go out, and whether before others; it moves where it has to. */
export async function boundPost(
  id: string,
  bounds: Pick<Post, 'earliest' | 'latest' | 'priority'>,
): Promise<Post> {
  const post = await must('posts', id)
  if (bounds.earliest && bounds.latest && bounds.earliest > bounds.latest)
    throw new Fault('bad-request', 'Its last day would lie before its first. Change the other one first.')
  const bound = { ...post, ...bounds }
  const [placed = bound] = isMovable(post) ? await tryPlaces([bound]) : [bound]
  await changePost(post, 'Bound a post', 'move', (p) => ({
    ...p,
    ...bounds,
    at: placed.at,
    reasons: placed.reasons,
  }))
  return placed
}

/** Tries a failed post again at its account's next opening, as a new generation. */
export async function tryAgain(id: string): Promise<void> {
  const post = await must('posts', id)
  const checks = await checksOf(post)
  const [placed] = await tryPlaces([{ ...next(post, 'try again'), wished: nowIso() }])
  await commit({ brand: post.brand, label: 'Try a failed post again' }, [
    happens(id, 'try again', (p) =>
      doubted({ ...p, checks, at: placed?.at ?? null, reasons: placed?.reasons ?? [] }),
    ),
  ])
}

/** Decides about a post that came too late: send it now, or find it another place. */
export async function decideLate(id: string, decision: 'send now' | 'place anew'): Promise<void> {
  const post = await must('posts', id)
  const now = nowIso()
  if (decision === 'send now')
    return changePost(post, 'Send a late post now', 'send now', (p) => ({
      ...p,
      held: null,
      at: now,
      pinned: true,
      reasons: [{ code: 'now', message: 'A person sent it at once.' }],
    }))
  const [placed] = await tryPlaces([{ ...post, held: null, at: null, wished: now, pinned: false }])
  return changePost(post, 'Place a late post anew', 'move', (p) => ({
    ...p,
    held: null,
    pinned: false,
    at: placed?.at ?? null,
    reasons: placed?.reasons ?? [],
  }))
}

/** Notes that a post is out: a person published it by hand, or looked and found it there. `url` is where, if anywhere. */
export async function sayItIsOut(id: string, url: string | null): Promise<void> {
  const post = await must('posts', id)
  await changePost(post, 'Say that a post is out', 'say it is out', (p) => ({
    ...p,
    held: null,
    failure: null,
    publishedAt: nowIso(),
    publicUrl: url,
    visibility: 'visible',
  }))
}

/** Asks the network whether a published post is still there, and still the same. Throws where nobody can say. */
export function standingOf(id: string): Promise<Standing> {
  return get<Standing>(`/api/spool/posts/${encodeURIComponent(id)}/standing`)
}

/** Takes a published post down at its network. This cannot be undone. */
export async function takeDown(id: string): Promise<void> {
  const why = refusal(await must('posts', id), 'take down')
  if (why !== null) throw new Fault('older-revision', why, id)
  await send(`/api/spool/posts/${encodeURIComponent(id)}/takedown`, {})
}
