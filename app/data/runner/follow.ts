import type { Account, ChatLine, Drip, Follow, Piece, Pipeline, Post } from '../../../core/model'
import { network } from '../../../core/networks'
import { filledIn, followsSince, isFinished } from '../../../core/pipeline'
import { heavy } from '../../workers'
import { post as send } from '../api'
import { nowIso } from '../clock'
import { all, commit, must, one, patch, put, putPiece, type Write } from '../store'
import { RunLog } from './runLog'

const DAY = 86_400_000
/** What is older is no news for the chat. */
const NEWS = 2 * DAY
/** So many messages of one kind a round; what is more is one further message. */
const MOST = 8
/** A caption in a message is cut here. */
const LONGEST = 600

type Of<K extends Follow['kind']> = Extract<Follow, { kind: K }>

/** What a pipeline made, and what is around it. */
interface Work {
  pipeline: Pipeline
  posts: Post[]
  drips: Drip[]
  titles: ReadonlyMap<string, Piece>
  accounts: ReadonlyMap<string, Account>
  log: RunLog
}

/** A message with the write that notes that it was said. */
interface Said {
  line: ChatLine
  write: Write
  piece: string
}

/**
 * Does what follows what the pipelines did: tells the team chat, and hands pieces and posts on to other pipelines.
 * Each is noted at the post or drip that it follows, so that it is done once; what was done and not noted, since the
 * tab was closed between, is done under the same key or id. A pipeline that fails stops no other.
 */
export async function followUp(): Promise<void> {
  let fault: unknown = null
  const pipelines = (await all('pipelines')).filter((p) => p.endedAt === null)
  for (const pipeline of pipelines) {
    const follows = pipeline.follows.filter((f) => f.kind === 'chat' || f.kind === 'pipeline')
    if (follows.length === 0) continue
    const [posts, drips, pieces, accounts] = await Promise.all([
      all('posts', 'brand', pipeline.brand),
      all('drips', 'brand', pipeline.brand),
      all('pieces', 'brand', pipeline.brand),
      all('accounts', 'brand', pipeline.brand),
    ])
    const work: Work = {
      pipeline,
      posts: posts.filter((p) => p.pipeline === pipeline.id),
      drips: drips.filter((d) => d.pipeline === pipeline.id),
      titles: new Map(pieces.map((p) => [p.id, p])),
      accounts: new Map(accounts.map((a) => [a.id, a])),
      log: new RunLog(pipeline),
    }
    try {
      for (const follow of follows)
        if (follow.kind === 'chat') await tell(follow, work)
        else await handOn(follow, work, pipelines)
      await work.log.end()
    } catch (error) {
      fault ??= error
    }
  }
  if (fault !== null) throw fault
}

async function tell(follow: Of<'chat'>, work: Work): Promise<void> {
  const { pipeline, log } = work
  const now = nowIso()
  const oldest = new Date(Date.parse(now) - NEWS).toISOString()
  const since = followsSince(pipeline, follow.id)
  const told = messages(follow, work, since > oldest ? since : oldest)
  const [first] = told
  if (!first) return
  const lines = told.slice(0, MOST).map((s) => s.line)
  if (told.length > MOST) {
    const more = told.length - MOST
    lines.push({
      key: `${told.at(-1)?.line.key ?? ''} and more`,
      text: `${pipeline.name}: and ${more} more of the same.`,
    })
  }
  const about = {
    what: 'follow' as const,
    piece: first.piece,
    title: work.titles.get(first.piece)?.title ?? '',
    row: null,
  }
  const done = await log.attempt(about, () => send('/api/chat/messages', { messages: lines }))
  if (done)
    await commit(
      'machine',
      told.map((s) => s.write),
    )
}

/** What there is to say, the oldest first. */
function messages({ id, when, text }: Of<'chat'>, work: Work, since: string): Said[] {
  const { pipeline, posts, titles, accounts } = work
  const words = (piece: string | null): { title: string; link: string; pipeline: string } => ({
    title: titles.get(piece ?? '')?.title ?? '',
    link: titles.get(piece ?? '')?.url ?? '',
    pipeline: pipeline.name,
  })
  if (when === 'is taken in')
    return work.drips
      .filter((d) => d.time === 0 && d.createdAt >= since && !d.followed.includes(id))
      .sort((a, b) => (a.createdAt < b.createdAt ? -1 : 1))
      .map((d) => ({
        line: {
          key: `${id} ${d.id}`,
          text: filledIn(text, {
            ...words(d.piece),
            posts: postsWords(posts.filter((p) => p.drip === d.id).length),
          }),
        },
        write: noteAtDrip(d.id, id),
        piece: d.piece,
      }))
  if (when === 'is finished')
    return finished(work, id, since).map(({ drip, count }) => ({
      line: {
        key: `${id} ${drip.id}`,
        text: filledIn(text, { ...words(drip.piece), posts: postsWords(count) }),
      },
      write: noteAtDrip(drip.id, id),
      piece: drip.piece,
    }))
  return posts
    .flatMap((p) => {
      const mark = when === 'fails' ? `${id} ${p.generation}` : id
      const at = when === 'fails' ? failedAt(p) : p.state === 'published' ? p.publishedAt : null
      return at === null || at < since || p.followed.includes(mark) ? [] : [{ p, at, mark }]
    })
    .sort((a, b) => (a.at < b.at ? -1 : 1))
    .map(({ p, mark }) => ({
      line: {
        key: `${mark} ${p.id}`,
        text: filledIn(text, {
          ...words(p.piece),
          text: p.wording.text.length > LONGEST ? `${p.wording.text.slice(0, LONGEST)} …` : p.wording.text,
          network: network(p.network).name,
          account: `@${accounts.get(p.account)?.handle ?? ''}`,
          link: p.publicUrl ?? p.link ?? '',
          reason: p.failure ?? '',
        }),
      },
      write: patch('posts', p.id, (row) => ({ ...row, followed: [...new Set([...row.followed, mark])] })),
      piece: p.piece ?? '',
    }))
}

const postsWords = (count: number): string => `${count} ${count === 1 ? 'post' : 'posts'}`

/** A failed post is told while it is failed; when it failed stands in its receipt alone, its time is near enough. */
const failedAt = (post: Post): string | null => (post.state === 'failed' ? post.at : null)

const noteAtDrip = (drip: string, mark: string): Write =>
  patch('drips', drip, (d) => ({ ...d, followed: [...new Set([...d.followed, mark])] }))

/** The pieces of which everything is out since a moment and that were not followed yet, each by its latest drip. */
function finished({ drips, posts }: Work, mark: string, since: string): { drip: Drip; count: number }[] {
  const byPiece = new Map<string, Drip[]>()
  for (const d of drips) byPiece.set(d.piece, [...(byPiece.get(d.piece) ?? []), d])
  return [...byPiece.entries()].flatMap(([piece, own]) => {
    const latest = own.reduce((a, b) => (a.createdAt >= b.createdAt ? a : b))
    const mine = posts.filter((p) => p.piece === piece)
    const out = mine.flatMap((p) => (p.state === 'published' ? (p.publishedAt ?? []) : []))
    const last = [...out].sort().at(-1) ?? ''
    if (latest.followed.includes(mark) || last < since || !isFinished(own, mine)) return []
    return [{ drip: latest, count: out.length }]
  })
}

async function handOn(follow: Of<'pipeline'>, work: Work, pipelines: readonly Pipeline[]): Promise<void> {
  const to = pipelines.find((p) => p.id === follow.pipeline && p.brand === work.pipeline.brand)
  if (!to) return
  const since = followsSince(work.pipeline, follow.id)
  if (follow.takes === 'the finished piece')
    for (const { drip } of finished(work, follow.id, since)) await handPieceOn(drip, follow, to, work)
  else
    for (const post of work.posts)
      if (
        post.state === 'published' &&
        (post.publishedAt ?? '') >= since &&
        !post.followed.includes(follow.id)
      )
        await handPostOn(post, follow, to, work)
}

async function handPieceOn(
  drip: Drip,
  follow: Of<'pipeline'>,
  to: Pipeline,
  { log, titles }: Work,
): Promise<void> {
  const piece = titles.get(drip.piece)
  const about = { what: 'follow' as const, piece: drip.piece, title: piece?.title ?? '', row: null }
  const had = piece?.seenBy.includes(to.id) || piece?.through.includes(to.id)
  await commit('machine', [
    noteAtDrip(drip.id, follow.id),
    ...(piece && !had
      ? [patch('pieces', piece.id, (p) => ({ ...p, handedTo: [...new Set([...p.handedTo, to.id])] }))]
      : []),
  ])
  if (had) log.note(about, 'skipped', `Not handed on: ${to.name} has had it already.`)
  else log.note(about, 'done', `Its posts are all out: handed on to ${to.name}.`)
}

async function handPostOn(post: Post, follow: Of<'pipeline'>, to: Pipeline, work: Work): Promise<void> {
  const { pipeline, log } = work
  const noted = patch('posts', post.id, (p) => ({ ...p, followed: [...new Set([...p.followed, follow.id])] }))
  const piece = post.piece ? await one('pieces', post.piece) : undefined
  const about = { what: 'follow' as const, piece: post.piece ?? '', title: piece?.title ?? '', row: null }
  if (!piece || piece.through.includes(to.id)) {
    await commit('machine', [noted])
    if (piece) log.note(about, 'skipped', `Not handed on: it came from ${to.name} itself.`)
    return
  }
  await log.attempt(about, async () => {
    const made = await heavy().pieceOfPost(post, await must('pieces', piece.id), {
      id: `${post.id}.${follow.id}`,
      from: pipeline.id,
      to: to.id,
      by: pipeline.name,
      now: nowIso(),
    })
    await commit('machine', [
      noted,
      ...(made ? [...putPiece(made.piece), ...made.passages.map((p) => put('passages', p))] : []),
    ])
    if (made) log.note(about, 'done', `A post of it is out: handed on to ${to.name}.`)
  })
}
