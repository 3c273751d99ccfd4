import { Fault, quotable, textId, type Piece, type Pipeline, type Post } from '../../../core/model'
import { wordsOf } from '../../../core/pipeline'
import { toWall } from '../../../core/planning'
import { judge, readsText, sieveContext, isFor } from '../../../core/sieve'
import { heavy } from '../../workers'
import { nowIso } from '../clock'
import { all, commit, must, one, patch, put, wholePiece, type Actor } from '../store'
import { byItsWriter } from './byItsWriter'
import { keepHandPosts, tryHandPosts } from './hand'
import { commitRecalled, happens } from './life'
import { tryPlaces } from './plan'

const DAY = 86_400_000

/**
 * Copies a post to an account: what is from a piece is worded anew for its network, from the same
 * passage where that account does not say it yet; what was written by hand keeps its words. The copy
 * takes the legal place nearest to `wished`, or to where the post stands. Where it is part of a larger
 * action, `actor` names that. Gives the copy.
 */
export async function copyPost(
  id: string,
  accountId: string,
  { wished, actor }: { wished?: string; actor?: Actor } = {},
): Promise<Post> {
  const post = await must('posts', id)
  const account = await must('accounts', accountId)
  const by = actor ?? { brand: post.brand, label: `Copy a post to @${account.handle}` }
  const moment = wished ?? post.at ?? post.wished
  if (!post.piece) {
    const on = { date: toWall(Date.parse(moment), account.zone).date, time: null }
    const row = {
      words: wordsOf(post),
      accounts: [accountId],
      on,
      earliest: post.earliest,
      latest: post.latest,
    }
    const [made] = await tryHandPosts(post.brand, [row], { kind: 'next openings' })
    if (!made) throw new Fault('not-found', 'The account is no longer there.', accountId)
    await keepHandPosts(post.brand, [made], by)
    return made.post
  }
  const own = post.account === accountId
  // A beat of a drip has one post an account; what comes beside it stands by itself.
  const there = (await all('posts')).some(
    (p) => p.drip === post.drip && p.beat === post.beat && p.account === accountId && p.state !== 'set aside',
  )
  const drip = there ? null : post.drip
  const worded = await oneMore(post, post.piece, accountId, own ? null : post.passage, {
    revision: post.pieceRevision,
    drip,
    wished: moment,
  })
  const [placed = worded] = await tryPlaces([worded])
  await commit(by, [
    put('posts', placed),
    ...(drip
      ? [
          patch('drips', drip, (d) => ({
            ...d,
            accounts: [...new Set([...d.accounts, accountId])],
          })),
        ]
      : []),
  ])
  return placed
}

/**
 * Lets a post that was published come again in other words: from its passage, or where nothing else can be said of that from the
 * best that is left of its piece; for review, at the first place that no rule forbids. Refuses (`bad-request`) what was written by hand, whose words nobody but a person changes. Gives the new post.
 */
export async function dripAgain(id: string): Promise<Post> {
  const post = await must('posts', id)
  if (!post.piece)
    throw new Fault(
      'bad-request',
      'This post was written by hand, so its words are yours to change. Copy it on the Horizon and write it anew.',
    )
  const wished = new Date(Date.parse(nowIso()) + DAY).toISOString()
  const revision = post.pieceRevision
  const worded = await oneMore(post, post.piece, post.account, post.passage, { revision, drip: null, wished })
  const [placed = worded] = await tryPlaces([{ ...worded, state: 'for review' }])
  await commit({ brand: post.brand, label: 'Drip a post again' }, [put('posts', placed)])
  return placed
}

/**
 * Puts a post of the next piece that its pipeline's sieve would let through in the place of a post,
 * which is set aside. Gives the new post.
 */
export async function replaceByNext(id: string): Promise<Post> {
  const post = await must('posts', id)
  const pipeline = post.pipeline ? await one('pipelines', post.pipeline) : undefined
  if (!pipeline)
    throw new Fault('bad-request', 'This post is of no pipeline, so no sieve says which piece comes next.')
  const piece = await nextPiece(pipeline)
  if (!piece)
    throw new Fault(
      'not-found',
      `No piece that ${pipeline.name}’s sieve lets through is left. Add a source, or widen the sieve.`,
    )
  const worded = await oneMore(post, piece.id, post.account, null, {
    revision: undefined,
    drip: null,
    wished: post.wished,
  })
  const stands = { ...worded, at: post.at, pinned: post.pinned }
  const others = (await all('posts')).filter((p) => p.id !== post.id)
  const [placed = stands] = await tryPlaces([stands], { posts: others })
  await commitRecalled(
    { brand: post.brand, label: `Replace a post by one of “${piece.title}”` },
    [post],
    [
      happens(id, 'set aside'),
      put('posts', placed),
      patch('pieces', piece.id, (p) => ({ ...p, dealt: { by: pipeline.name, at: nowIso() } })),
    ],
  )
  return placed
}

/** One more post of a piece for an account, worded but without a place. */
async function oneMore(
  like: Post,
  pieceId: string,
  accountId: string,
  passage: string | null,
  of: { revision: number | undefined; drip: string | null; wished: string },
): Promise<Post> {
  const [brand, account, piece, passages, standing, pipeline] = await Promise.all([
    must('brands', like.brand),
    must('accounts', accountId),
    wholePiece(pieceId, of.revision),
    all('passages', 'piece', pieceId),
    all('posts'),
    like.pipeline ? one('pipelines', like.pipeline) : undefined,
  ])
  const post = await heavy().singlePost({
    now: nowIso(),
    brand,
    piece,
    passages,
    passage,
    account,
    pipeline: pipeline ?? null,
    drip: of.drip,
    beat: of.drip ? like.beat : 0,
    wished: of.wished,
    seed: standing.length + 1,
    standing,
  })
  return byItsWriter(post, brand, { pipeline, gate: pipeline?.gate ?? 'everything' })
}

/** The piece that a pipeline would take next: what waits for it, the oldest first, then its backlog, the newest first. */
async function nextPiece(pipeline: Pipeline): Promise<Piece | null> {
  const [pieces, sources, lists, { zone }] = await Promise.all([
    all('pieces', 'brand', pipeline.brand),
    all('sources', 'brand', pipeline.brand),
    all('wordLists', 'brand', pipeline.brand),
    must('brands', pipeline.brand),
  ])
  const published = (p: Piece): string => p.publishedAt ?? p.takenAt
  const mine = isFor(pipeline, sources)
  const free = pieces.filter((p) => mine(p) && p.dealt === null && p.words > 0)
  const waiting = free.filter((p) => published(p) >= pipeline.takeIn.since)
  const backlog = free.filter((p) => published(p) < pipeline.takeIn.since)
  const ordered = [
    ...waiting.sort((a, b) => (published(a) < published(b) ? -1 : 1)),
    ...backlog.sort((a, b) => (published(a) > published(b) ? -1 : 1)),
  ]
  const context = sieveContext({ now: nowIso(), zone, lists, sources, pieces })
  for (const piece of ordered) {
    const words = readsText(pipeline.takeIn.sieve)
      ? await one('texts', textId(piece.id, piece.revision))
      : undefined
    if (judge({ ...piece, text: words ? quotable(words) : '' }, pipeline.takeIn.sieve, context).passed)
      return piece
  }
  return null
}
