import { nanoid } from 'nanoid'
import {
  afterReceipt,
  asFault,
  Fault,
  may,
  next,
  sameContent,
  type Account,
  type HandOver,
  type HandOverAnswer,
  type Payload,
  type Post,
  type Trial,
} from '../../../core/model'
import { formatOf, STORY } from '../../../core/networks'
import { alone, happensIfMay, isInDoubt, recall, settled } from '../actions/life'
import { heldBy, readHolds } from '../actions/holds'
import { post as send } from '../api'
import { nowIso } from '../clock'
import { shortLinks } from '../services'
import { all, commit, must, patch, put } from '../store'
import { forgetUploads, readyPictures } from './media'

const DAY = 86_400_000
/** How many posts go over in one request. */
const BATCH = 50
/** How many posts are asked about at once. */
const ASKED = 10_000

/**
 * Asks the server which of the handed-over posts it still has, where that is in doubt: at the start, after an
 * answer was lost, and every minute. What it does not have, or another browser's take-over recalled, is approved again and
 * handed over anew. What it no longer has because it is finished has a receipt by then, so `collect` fetches those
 * between the question and what follows from it.
 */
export async function reconcile(collect: () => Promise<void>): Promise<void> {
  if (!isInDoubt()) return
  await alone(async () => {
    const posts = (await all('posts', 'state', 'handed over')).map((p) => p.id)
    for (let from = 0; from < posts.length; from += ASKED) {
      const asked = posts.slice(from, from + ASKED)
      const { held } = await send<{ held: string[] }>('/api/spool/held', { posts: asked })
      const known = new Set(held)
      await collect()
      await commit(
        'machine',
        asked.filter((id) => !known.has(id)).map((id) => happensIfMay(id, 'recall')),
      )
    }
    settled()
  })
}

/** Takes back from the server what is held since it was handed over. */
export async function recallHeld(): Promise<void> {
  const holds = await readHolds()
  for (const { id } of (await all('posts', 'state', 'handed over')).filter((p) => heldBy(p, holds) !== null))
    await alone(async () => {
      try {
        await recall(await must('posts', id))
        await commit('machine', [happensIfMay(id, 'recall')])
      } catch (error) {
        // It is being sent or has gone out, which its receipt will say; anything else is trouble.
        if (asFault(error).code !== 'already-sending') throw error
      }
    })
}

/** A post that is packed for the server, as it was then. */
interface Parcel {
  post: Post
  entry: HandOver
  shortLink: string | null
}

/** When the next approved post comes so near that it is handed over; null where none waits for that. */
let nextNear: string | null = null
export const nextHandOverAt = (): string | null => nextNear

/**
 * Hands over what is approved, has a place within the days that are handed over, and is held by nothing, on accounts
 * that are linked.
 */
export async function handOver(): Promise<void> {
  const holds = await readHolds()
  const accounts = new Map((await all('accounts')).map((a) => [a.id, a]))
  const [workspace] = await all('workspace')
  const ahead = (workspace?.aheadDays ?? 0) * DAY
  const horizon = new Date(Date.parse(nowIso()) + ahead).toISOString()
  const approved = await all('posts', 'state', 'approved')
  const [far] = approved.flatMap((p) => (p.at !== null && p.at > horizon ? p.at : [])).sort()
  nextNear = far === undefined ? null : new Date(Date.parse(far) - ahead).toISOString()
  const ready = approved
    .filter(
      (p) =>
        may(p, 'hand over') &&
        (p.at ?? '') <= horizon &&
        heldBy(p, holds) === null &&
        accounts.get(p.account)?.health.state === 'linked',
    )
    .sort((a, b) => ((a.at ?? '') < (b.at ?? '') ? -1 : 1))
  for (let from = 0; from < ready.length; from += BATCH) {
    const posts = ready.slice(from, from + BATCH)
    const shorts = await shortLinksFor(posts)
    const batch: Parcel[] = []
    for (const post of posts) {
      const parcel = await packed(post, accounts.get(post.account), shorts.get(post.id) ?? null)
      if (parcel) batch.push(parcel)
    }
    if (batch.length) await alone(() => sendBatch(batch))
  }
}

/** Faults of the server itself: no picture is to blame, and all of it is tried again. */
const OURS: ReadonlySet<string> = new Set([
  'no-session',
  'not-ready',
  'no-space',
  'wrong-workspace',
  'too-many',
])

/** A post as it goes to the server; null where a picture of it could not be made, for which it is held. */
async function packed(
  post: Post,
  account: Account | undefined,
  shortLink: string | null,
): Promise<Parcel | null> {
  try {
    const media = await readyPictures(post, shortLink ?? post.link)
    const entry: HandOver = {
      id: post.id,
      generation: post.generation,
      revision: post.revision + 1,
      account: post.account,
      dueAt: post.at as string,
      // Where a person put a post, the gap does not move it.
      gapMinutes: post.pinned ? 0 : (account?.gapMinutes ?? 0),
      payload: payloadOf(post, media, shortLink),
      shortLink,
    }
    return { post, entry, shortLink }
  } catch (error) {
    const fault = asFault(error)
    if ((fault.code === 'unreachable' && fault.where === null) || OURS.has(fault.code)) throw fault
    await commit('machine', [
      happensIfMay(post.id, 'hold', (p) => ({
        ...p,
        held: { reason: `Its picture could not be made: ${fault.message}`, since: nowIso() },
      })),
    ])
    return null
  }
}

/** A post without words. */
const WORDLESS = {
  target: null,
  title: null,
  summary: null,
  tags: [],
  text: '',
  parts: [],
  poll: [],
  firstComment: null,
}

/**
 * What the network is sent of a post: its words with the link as it goes out, and its pictures by the hashes of their bytes.
 * A story has no words.
 */
function payloadOf(post: Post, media: Payload['media'], shortLink: string | null): Payload {
  const short = (text: string): string =>
    post.link && shortLink ? text.split(post.link).join(shortLink) : text
  const { title, summary, tags, text, parts, poll, firstComment } = post.wording
  const format = formatOf(post)
  if (format === STORY) return { ...WORDLESS, format, link: shortLink ?? post.link, media }
  return {
    format,
    // The server knows which place of its login the account stands for.
    target: null,
    title,
    summary: summary && short(summary),
    tags,
    text: short(text),
    parts: parts.map(short),
    poll,
    firstComment: firstComment && short(firstComment),
    link: shortLink ?? post.link,
    media,
  }
}

/**
 * A test delivery of a post that is kept nowhere: sent by the server now, read back as it arrived, and taken down again.
 * Refuses (`bad-request`) what would break a rule of the network.
 */
export async function deliverTrial(post: Post): Promise<Trial> {
  const block = post.checks.find((c) => c.severity === 'block')
  if (block) throw new Fault('bad-request', `It is not sent, not even for a test: ${block.message}`)
  const body = {
    id: nanoid(),
    account: post.account,
    payload: payloadOf(post, await readyPictures(post, post.link), null),
  }
  return send<Trial>('/api/spool/trials', body)
}

/**
 * Short links for posts whose brand wants them, by the post, where they are shorter: each its own, so that who follows it is
 * counted for that post. Long ones go where none are to be had.
 */
async function shortLinksFor(posts: readonly Post[]): Promise<ReadonlyMap<string, string>> {
  const wanted = new Set((await all('brands')).flatMap((b) => (b.houseStyle.shortLinks ? [b.id] : [])))
  const linked = posts.flatMap(({ id, generation, brand, link }) =>
    link && wanted.has(brand) ? [{ id, url: link, key: `${id}:${generation}` }] : [],
  )
  if (linked.length === 0) return new Map()
  const made = await shortLinks(linked.map(({ url, key }) => ({ url, key }))).catch(() => [])
  return new Map(
    linked.flatMap(({ id, url }, i) => {
      const short = made[i]
      return short && short.length < url.length ? [[id, short]] : []
    }),
  )
}

/** Whether a post says, where and when, what it did as it was packed. */
function isAsPacked(now: Post, then: Post): boolean {
  const said = ({ wording, link, account, at, pinned, media, generation, revision }: Post): unknown => ({
    wording,
    link,
    account,
    at,
    pinned,
    pictures: media.map((m) => ({ ...m, hash: null })),
    generation,
    revision,
  })
  return sameContent(said(now), said(then))
}

/**
 * Sends a batch. Each post is written down as handed over before it is sent: whatever becomes of the answer,
 * or of this tab, nobody changes it after that without asking the server. Posts that changed since they were
 * packed stay for the next round.
 */
async function sendBatch(batch: readonly Parcel[]): Promise<void> {
  const going = await commit(
    'machine',
    batch.map(({ post, entry, shortLink }) =>
      patch('posts', post.id, (p) =>
        may(p, 'hand over') && isAsPacked(p, post)
          ? { ...next(p, 'hand over'), revision: entry.revision, shortLink }
          : undefined,
      ),
    ),
  )
  const sent = batch.filter(({ post }) => going.has(post.id))
  if (sent.length === 0) return
  const { answers } = await send<{ answers: HandOverAnswer[] }>('/api/spool/posts', {
    posts: sent.map((p) => p.entry),
  })
  const brands = new Map(sent.map(({ post }) => [post.id, post.brand]))
  if (answers.some((a) => a.result === 'media missing')) forgetUploads()
  await commit(
    'machine',
    answers.flatMap(({ id, result, standing, receipt }) => {
      // A receipt of its own is on its way where it is being sent.
      if (result === 'taken' || result === 'already sending') return []
      return [
        ...(receipt ? [put('receipts', { ...receipt, brand: brands.get(id) ?? '' })] : []),
        happensIfMay(id, 'recall', (p) => {
          const known = standing
            ? {
                ...p,
                generation: Math.max(p.generation, standing.generation),
                revision: Math.max(p.revision, standing.revision),
              }
            : p
          return receipt ? afterReceipt(known, receipt) : known
        }),
      ]
    }),
  )
}
