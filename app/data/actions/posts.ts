import { linkOf } from '../../../core/house'
import {
  Fault,
  standsInTheWay,
  type Brand,
  type Check,
  type Passage,
  type Post,
  type WholePiece,
  type Wording,
} from '../../../core/model'
import { linkedPage } from '../../../core/pipeline'
import { heavy } from '../../workers'
import { post as send } from '../api'
import { nowIso } from '../clock'
import { all, commit, must, patch, wholePiece } from '../store'
import { isMovable, tryPlaces } from './plan'
import { back, recall } from './recall'

/** A post with what its caption is written from and held against. */
export async function aroundPost(id: string): Promise<{
  post: Post
  brand: Brand
  piece: WholePiece
  passages: Passage[]
  posts: Post[]
}> {
  const post = await must('posts', id)
  if (!post.piece)
    throw new Fault(
      'not-found',
      'This post was written by itself, so there is no piece to word it from. Edit it by hand.',
      id,
    )
  const [brand, piece, passages, posts] = await Promise.all([
    must('brands', post.brand),
    wholePiece(post.piece, post.pieceRevision),
    all('passages', 'piece', post.piece),
    all('posts'),
  ])
  return { post, brand, piece, passages, posts }
}

export async function checksOf(post: Post): Promise<Check[]> {
  const [brand, piece, posts] = await Promise.all([
    must('brands', post.brand),
    post.piece ? wholePiece(post.piece, post.pieceRevision) : null,
    all('posts'),
  ])
  return heavy().recheck(post, brand, piece, posts)
}

/** What the checks would say of a post if its caption were this. */
export function checkWording(post: Post, text: string): Promise<Check[]> {
  return checksOf({ ...post, wording: { ...post.wording, text } })
}

const isBlocked = (checks: readonly Check[]): boolean => checks.some((c) => c.severity === 'block')

/** Writes a caption by hand. An approval stays, unless the new words break a rule. */
export async function editText(id: string, text: string): Promise<void> {
  const post = await must('posts', id)
  await recall(post)
  const wording = { ...post.wording, text }
  // What was found of another address says nothing of this one.
  const linkCheck = linkedPage({ ...post, wording }) === linkedPage(post) ? post.linkCheck : null
  const edited: Post = { ...back(post), wording, linkCheck, edited: true }
  const checks = await checksOf(edited)
  await commit({ brand: post.brand, label: 'Edit a caption' }, [
    patch('posts', id, (p) => ({
      ...back(p),
      wording: { ...p.wording, text },
      linkCheck,
      edited: true,
      checks,
      state: isBlocked(checks) && back(p).state === 'approved' ? 'for review' : back(p).state,
    })),
  ])
}

/** A post with another wording and others beside it: link, short link and reasons belong to its words. */
export function withWording(post: Post, wording: Wording, others: Wording[]): Post {
  return {
    ...back(post),
    wording,
    others,
    link: linkOf(wording, post.link),
    shortLink: null,
    fallback: null,
    edited: false,
    accepted: [],
  }
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
  await recall(post)
  const others = [...post.others.filter((o) => o !== chosen), post.wording]
  const next = withWording(post, chosen, others)
  const checks = await checksOf(next)
  await commit({ brand: post.brand, label: 'Take another wording' }, [
    patch('posts', id, (p) => ({
      ...withWording(p, chosen, others),
      checks,
      state: p.state === 'draft' || p.state === 'set aside' ? p.state : 'for review',
    })),
  ])
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
 * is placed anew in the same action, so that nothing is handed over late.
 */
export async function approve(ids: readonly string[]): Promise<Approval> {
  const posts = (await all('posts')).filter(
    (p) => ids.includes(p.id) && (p.state === 'for review' || p.state === 'draft'),
  )
  const now = nowIso()
  const left: Approval['left'] = []
  const through = posts.filter((post) => {
    const stop = standsInTheWay(post)
    if (stop) left.push({ post, why: stop.message })
    return stop === null
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
    patch('posts', post.id, (p) => {
      const place = placed.get(p.id)
      return { ...p, state: 'approved', ...(place ? { at: place.at, reasons: place.reasons } : {}) }
    }),
  )
  const brand = posts[0]?.brand
  if (brand && writes.length)
    await commit(
      { brand, label: writes.length === 1 ? 'Approve a caption' : `Approve ${writes.length} captions` },
      writes,
    )
  return { approved: writes.length, moved: [...placed.values()].filter((p) => p.at !== null).length, left }
}

/** Accepts one flag on one post, with the time. */
export async function acceptFlag(id: string, check: Check): Promise<void> {
  const post = await must('posts', id)
  await commit({ brand: post.brand, label: 'Accept a flag' }, [
    patch('posts', id, (p) => ({
      ...p,
      accepted: [...p.accepted, { code: check.code, words: check.words ?? '', at: nowIso() }],
    })),
  ])
}

/** Sets a post aside, or brings it back for review. Its place is given up and found anew. */
export async function setAside(id: string): Promise<void> {
  const post = await must('posts', id)
  await recall(post)
  if (post.state !== 'set aside') {
    await commit({ brand: post.brand, label: 'Set a post aside' }, [
      patch('posts', id, (p) => ({ ...p, state: 'set aside', at: null, pinned: false })),
    ])
    return
  }
  const [placed] = await tryPlaces([{ ...post, state: 'for review', at: null }])
  await commit({ brand: post.brand, label: 'Bring a post back' }, [
    patch('posts', id, (p) => ({
      ...p,
      state: 'for review',
      at: placed?.at ?? null,
      reasons: placed?.reasons ?? [],
    })),
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
  if (placed.at !== post.at) await recall(post)
  await commit({ brand: post.brand, label: 'Bound a post' }, [
    patch('posts', id, (p) => ({
      ...(placed.at === p.at ? p : back(p)),
      ...bounds,
      at: placed.at,
      reasons: placed.reasons,
    })),
  ])
  return placed
}

/** Tries a failed post again at its account's next opening, as a new generation. */
export async function tryAgain(id: string): Promise<void> {
  const post = await must('posts', id)
  if (post.state !== 'failed') return
  const checks = await checksOf(post)
  const [placed] = await tryPlaces([
    { ...post, state: 'approved', wished: nowIso(), at: null, pinned: false },
  ])
  await commit({ brand: post.brand, label: 'Try a failed post again' }, [
    patch('posts', id, (p) => ({
      ...p,
      checks,
      state: isBlocked(checks) ? 'for review' : 'approved',
      generation: p.generation + 1,
      failure: null,
      at: placed?.at ?? null,
      reasons: placed?.reasons ?? [],
    })),
  ])
}

/** Decides about a post that came too late: send it now, or find it another place. */
export async function decideLate(id: string, decision: 'send now' | 'place anew'): Promise<void> {
  const post = await must('posts', id)
  const now = nowIso()
  if (decision === 'send now') {
    await commit({ brand: post.brand, label: 'Send a late post now' }, [
      patch('posts', id, (p) => ({
        ...p,
        held: null,
        at: now,
        pinned: true,
        reasons: [{ code: 'now', message: 'A person sent it at once.' }],
      })),
    ])
    return
  }
  const [placed] = await tryPlaces([{ ...post, held: null, at: null, wished: now, pinned: false }])
  await commit({ brand: post.brand, label: 'Place a late post anew' }, [
    patch('posts', id, (p) => ({
      ...p,
      held: null,
      pinned: false,
      at: placed?.at ?? null,
      reasons: placed?.reasons ?? [],
    })),
  ])
}

/** Takes a published post down at its network. This cannot be undone. */
export async function takeDown(id: string): Promise<void> {
  await send(`/api/spool/posts/${encodeURIComponent(id)}/takedown`, {})
}
