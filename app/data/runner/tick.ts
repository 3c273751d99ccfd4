import {
  asFault,
  TABLE_NAMES,
  type Post,
  type HandOver,
  type HandOverAnswer,
  type LinkedAccount,
  type ReceiptPage,
  type TableName,
} from '../../../core/model'
import { extendRecurrences } from '../actions/recurring'
import { heldBy, readHolds } from '../actions/holds'
import { recall } from '../actions/recall'
import { visitSource } from '../actions/visit'
import { addDays } from '../../../core/planning'
import { call, get, post as send } from '../api'
import { nowIso, readClock } from '../clock'
import { shortLinks } from '../services'
import { all, commit, onWrite, patch, put, type Write } from '../store'
import { during } from './activity'
import { publishCalendars } from './calendars'
import { mindLinks } from './links'
import { forgetUploads, readyPicture } from './media'
import { publishPages } from './pages'
import { runPipelines } from './pipelines'
import { withReceipt } from './receipts'

/** How many posts go over in one request. */
const BATCH = 50

/** Tables written since they were last worked through, in whichever tab; at first all of them. */
const dirty = new Set<TableName>(TABLE_NAMES)
onWrite((tables) => {
  for (const table of tables) dirty.add(table)
})

/** What decides whether a pipeline takes a piece in, and whether a post is handed over or recalled. */
const FOR_PIPELINES: readonly TableName[] = [
  'pipelines',
  'pieces',
  'sources',
  'wordLists',
  'workspace',
  'brands',
]
const FOR_DELIVERY: readonly TableName[] = [
  'posts',
  'accounts',
  'workspace',
  'brands',
  'pipelines',
  'drips',
  'recurrences',
]

/**
 * One round of the work that runs by itself: collect receipts, see how the accounts are, visit
 * the sources that are due, let pipelines take in pieces, recall what is held, hand over what is
 * approved. Pipelines and hand-over look only when something they depend on was written. Ticks of all
 * tabs run one after the other. A step that fails stops no other one; the first fault is thrown at the end,
 * and what was to be looked at is looked at again in the next round.
 */
export async function tick(): Promise<void> {
  await navigator.locks.request('dripline-tick', async () => {
    const faults: unknown[] = []
    const step = async (work: () => Promise<unknown>): Promise<void> => {
      await work().catch((error: unknown) => void faults.push(error))
    }
    await readClock()
    await Promise.all([step(collectReceipts), step(seeAccounts)])
    await visitDueSources(step)
    const touched = new Set(dirty)
    dirty.clear()
    if (FOR_PIPELINES.some((t) => touched.has(t))) await step(runPipelines)
    await step(extendRecurrences)
    if (FOR_DELIVERY.some((t) => touched.has(t) || dirty.has(t)))
      for (const work of [recallHeld, handOver, publishPages, publishCalendars]) await step(work)
    await step(() => mindLinks(touched.has('posts')))
    if (faults.length === 0) return
    for (const table of touched) dirty.add(table)
    throw faults[0]
  })
}

/** The next moment at which the app itself has something to do, or null: the next visit. */
export async function nextOwnEvent(): Promise<string | null> {
  const due = (await all('sources')).filter((s) => s.held === null).flatMap((s) => s.nextVisitAt ?? [])
  // Recurring posts are made further ahead long before the last of them goes out.
  const recurring = (await all('recurrences')).flatMap((r) =>
    r.endedAt === null && r.madeUntil ? [`${addDays(r.madeUntil, -28)}T00:00:00.000Z`] : [],
  )
  const now = nowIso()
  return [...due, ...recurring.filter((at) => at > now)].sort()[0] ?? null
}

/**
 * Asks the server once which of the handed-over posts it still has. What it lost, or another
 * browser's take-over recalled, is approved again and handed over anew; what went out meanwhile
 * answers with its receipt then.
 */
export async function reconcile(): Promise<void> {
  await collectReceipts()
  const posts = (await all('posts', 'state', 'handed over')).map((p) => p.id)
  if (posts.length === 0) return
  const { held } = await send<{ held: string[] }>('/api/spool/held', { posts })
  const known = new Set(held)
  await commit(
    'machine',
    posts.flatMap((id) =>
      known.has(id)
        ? []
        : [patch('posts', id, (p) => (p.state === 'handed over' ? { ...p, state: 'approved' } : p))],
    ),
  )
}

async function collectReceipts(): Promise<void> {
  for (;;) {
    const [workspace] = await all('workspace')
    if (!workspace) return
    const page = await get<ReceiptPage>(`/api/spool/receipts?after=${workspace.receiptCursor}`)
    if (page.receipts.length === 0) return
    const posts = new Map((await all('posts')).map((p) => [p.id, p]))
    const writes: Write[] = page.receipts.flatMap((receipt) => {
      const post = posts.get(receipt.post)
      if (!post) return []
      return [
        put('receipts', { ...receipt, brand: post.brand }),
        patch('posts', post.id, (p) => withReceipt(p, receipt)),
      ]
    })
    await commit('machine', [
      ...writes,
      patch('workspace', workspace.id, (w) => ({ ...w, receiptCursor: page.cursor })),
    ])
    await send('/api/spool/receipts/acknowledge', { cursor: page.cursor })
  }
}

async function seeAccounts(): Promise<void> {
  const { accounts } = await get<{ accounts: LinkedAccount[] }>('/api/accounts')
  const known = new Map(accounts.map((a) => [a.id, a]))
  const writes = (await all('accounts')).flatMap((account) => {
    const seen = known.get(account.id)
    const health = seen
      ? { state: seen.state, since: seen.since, message: seen.message }
      : {
          state: 'withdrawn' as const,
          since: nowIso(),
          message: 'This server has no permission for the account. Link it again.',
        }
    const same = health.state === account.health.state && health.message === account.health.message
    return same ? [] : [patch('accounts', account.id, (a) => ({ ...a, health }))]
  })
  await commit('machine', writes)
}

/** Visits the sources that are due, each as a step of its own. */
async function visitDueSources(step: (work: () => Promise<unknown>) => Promise<void>): Promise<void> {
  const now = nowIso()
  const ended = new Set((await all('brands')).flatMap((b) => (b.endedAt ? [b.id] : [])))
  for (const source of (await all('sources')).filter(
    (s) => s.held === null && !ended.has(s.brand) && s.nextVisitAt !== null && s.nextVisitAt <= now,
  )) {
    await step(() => during(`Reading ${source.title}`, (show) => visitSource(source.id, show)))
  }
}

async function recallHeld(): Promise<void> {
  const holds = await readHolds()
  for (const post of await all('posts', 'state', 'handed over')) {
    if (heldBy(post, holds) === null) continue
    try {
      await recall(post)
      await commit('machine', [
        patch('posts', post.id, (p) => (p.state === 'handed over' ? { ...p, state: 'approved' } : p)),
      ])
    } catch (error) {
      // It is being sent or has gone out, which its receipt will say; anything else is trouble.
      if (asFault(error).code !== 'already-sending') throw error
    }
  }
}

async function handOver(): Promise<void> {
  const holds = await readHolds()
  const accounts = new Map((await all('accounts')).map((a) => [a.id, a]))
  const ready = (await all('posts', 'state', 'approved'))
    .filter(
      (p) => p.at !== null && heldBy(p, holds) === null && accounts.get(p.account)?.health.state === 'linked',
    )
    .sort((a, b) => ((a.at ?? '') < (b.at ?? '') ? -1 : 1))
  for (let from = 0; from < ready.length; from += BATCH) {
    const batch: Parcel[] = []
    const posts = ready.slice(from, from + BATCH)
    const shorts = await shortLinksFor(posts)
    for (const post of posts) {
      try {
        const hash = await readyPicture(post)
        const shortLink = shorts.get(post.link ?? '') ?? null
        const short = (text: string): string =>
          post.link && shortLink ? text.split(post.link).join(shortLink) : text
        const { text, parts, poll, firstComment } = post.wording
        const entry: HandOver = {
          id: post.id,
          generation: post.generation,
          revision: post.revision + 1,
          account: post.account,
          dueAt: post.at as string,
          // Where a person put a post, the gap does not move it.
          gapMinutes: post.pinned ? 0 : (accounts.get(post.account)?.gapMinutes ?? 0),
          payload: {
            text: short(text),
            parts: parts.map(short),
            poll,
            firstComment: firstComment && short(firstComment),
            link: shortLink ?? post.link,
            media: hash && post.media ? [{ hash, alt: post.media.alt }] : [],
          },
        }
        batch.push({ entry, post, shortLink })
      } catch (error) {
        const fault = asFault(error)
        if (fault.code === 'unreachable' && fault.where === null) throw fault
        await commit('machine', [
          patch('posts', post.id, (p) => ({
            ...p,
            held: { reason: `Its picture could not be made: ${fault.message}`, since: nowIso() },
          })),
        ])
      }
    }
    if (batch.length) await sendBatch(batch)
  }
}

/** A post on its way to the server, as it was when it was packed. */
interface Parcel {
  entry: HandOver
  post: Post
  shortLink: string | null
}

/** Short links for posts whose brand wants them, where they are shorter; long ones go where none are to be had. */
async function shortLinksFor(posts: readonly Post[]): Promise<ReadonlyMap<string, string>> {
  const wanted = new Set((await all('brands')).flatMap((b) => (b.houseStyle.shortLinks ? [b.id] : [])))
  const urls = [...new Set(posts.flatMap((p) => (p.link && wanted.has(p.brand) ? [p.link] : [])))]
  if (urls.length === 0) return new Map()
  const made = await shortLinks(urls).catch(() => new Map<string, string>())
  return new Map([...made].filter(([url, short]) => short.length < url.length))
}

async function sendBatch(batch: readonly Parcel[]): Promise<void> {
  const { answers } = await send<{ answers: HandOverAnswer[] }>('/api/spool/posts', {
    posts: batch.map((p) => p.entry),
  })
  if (answers.some((a) => a.result === 'media missing')) {
    forgetUploads()
    dirty.add('posts')
  }
  const results = new Map(answers.map((a) => [a.id, a.result]))
  const brandOf = (id: string): string => batch.find((p) => p.post.id === id)?.post.brand ?? ''
  const overtaken: string[] = []
  await commit(
    'machine',
    batch.flatMap(({ entry, post, shortLink }) => {
      const result = results.get(entry.id)
      const known = result === 'older revision' || result === 'taken' || result === 'already sending'
      if (!known) return []
      return [
        patch('posts', entry.id, (p) => {
          const revised = { ...p, revision: Math.max(p.revision, entry.revision) }
          if (result === 'older revision') return revised
          const same = p.state === 'approved' && p.wording.text === post.wording.text && p.at === entry.dueAt
          if (!same && p.state !== 'handed over') overtaken.push(p.id)
          return same ? { ...revised, shortLink, state: 'handed over' } : revised
        }),
      ]
    }),
  )
  await commit(
    'machine',
    answers.flatMap(({ id, receipt }) =>
      receipt
        ? [
            put('receipts', { ...receipt, brand: brandOf(id) }),
            patch('posts', id, (p) => withReceipt(p, receipt)),
          ]
        : [],
    ),
  )
  // A person changed these while they were on their way: take the old words back at once.
  for (const id of overtaken) await call('DELETE', `/api/spool/posts/${encodeURIComponent(id)}`)
}
