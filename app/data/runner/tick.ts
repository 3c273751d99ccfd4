import {
  afterReceipt,
  may,
  TABLE_NAMES,
  type FollowingPage,
  type LinkedAccount,
  type ReadingPage,
  type Receipt,
  type ReceiptPage,
  type TableName,
} from '../../../core/model'
import { happensIfMay } from '../actions/life'
import { tryPlaces } from '../actions/plan'
import { seePictures } from '../actions/seeing'
import { visitSource } from '../actions/visit'
import { addDays } from '../../../core/planning'
import { get, post as send } from '../api'
import { nowIso, readClock } from '../clock'
import { all, commit, one, onWrite, patch, put, type Write } from '../store'
import { during } from './activity'
import { publishCalendars } from './calendars'
import { publishDocuments } from './documents'
import { handOver, nextHandOverAt, recallHeld, reconcile } from './handOver'
import { mindLinks } from './links'
import { publishPages } from './pages'
import { sendNotices } from './notices'
import { sendWatched } from './watch'
import { learnSome } from './learn'
import { nextRunAt, runPipelines } from './pipelines'

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
 * One round of the work that runs by itself: collect receipts, see how the accounts are, settle which posts
 * the server has where that is in doubt, visit the sources that are due, let pipelines take in pieces, recall what is held, hand over what is
 * approved, publish what shows the plan, and do what follows pipelines. Pipelines and hand-over look only when something they depend on was written. Ticks of all
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
    await Promise.all([
      step(collectReceipts),
      step(collectReadings),
      step(collectFollowings),
      step(seeAccounts),
    ])
    await step(() => reconcile(collectReceipts))
    await visitDueSources(step)
    const touched = new Set(dirty)
    dirty.clear()
    const due = (nextRunAt() ?? '9') <= nowIso()
    if (due || FOR_PIPELINES.some((t) => touched.has(t))) await step(runPipelines)
    await step(learnSome)
    await step(extendSome)
    await step(trySome)
    if (touched.has('pieces')) await step(seeSome)
    const near = (nextHandOverAt() ?? '9') <= nowIso()
    if (near || FOR_DELIVERY.some((t) => touched.has(t) || dirty.has(t)))
      for (const work of [
        recallHeld,
        handOver,
        publishPages,
        publishCalendars,
        publishDocuments,
        followSome,
        sendNotices,
      ])
        await step(work)
    if (touched.has('sources') || dirty.has('sources') || dirty.has('brands')) await step(sendWatched)
    if (touched.has('readings') || touched.has('followings')) await step(thinSome)
    await step(() => mindLinks(touched.has('posts')))
    if (faults.length === 0) return
    for (const table of touched) dirty.add(table)
    throw faults[0]
  })
}

/** The next moment at which the app itself has something to do, or null: a visit, a recurring post, an occasion, a trial of other hours, a run, a post that comes near enough to be handed over. */
export async function nextOwnEvent(): Promise<string | null> {
  const due = (await all('sources')).filter((s) => s.held === null).flatMap((s) => s.nextVisitAt ?? [])
  // Recurring posts are made further ahead long before the last of them goes out.
  const recurring = (await all('recurrences')).flatMap((r) =>
    r.endedAt === null && r.madeUntil ? [`${addDays(r.madeUntil, -28)}T00:00:00.000Z`] : [],
  )
  const now = nowIso()
  const yearly = (await all('occasions')).some((o) => o.again)
  const renewal = yearly ? await (await import('../actions/occasionPosts')).nextRenewal() : null
  const draw = (await triesHours()) ? await (await import('./hourTrials')).nextDraw() : null
  const noted = [nextRunAt(), nextHandOverAt(), renewal, draw].flatMap((at) => at ?? [])
  return [...due, ...[...recurring, ...noted].filter((at) => at > now)].sort()[0] ?? null
}

/**
 * Fetches page by page what the server keeps until it is told that it is here. What `keep` makes of a page and how far it
 * reached are written down together; `after` follows each page once that is done.
 */
async function collect<T extends { cursor: number }>(
  name: 'receipts' | 'readings' | 'followings',
  cursor: 'receiptCursor' | 'readingCursor' | 'followingCursor',
  keep: (page: T) => Promise<Write[]>,
  after: (page: T) => Promise<void> = () => Promise.resolve(),
): Promise<void> {
  for (;;) {
    const [workspace] = await all('workspace')
    if (!workspace) return
    const page = await get<T>(`/api/spool/${name}?after=${workspace[cursor]}`)
    if (page.cursor === workspace[cursor]) return
    await commit('machine', [
      ...(await keep(page)),
      patch('workspace', workspace.id, (w) => ({ ...w, [cursor]: page.cursor })),
    ])
    await send(`/api/spool/${name}/acknowledge`, { cursor: page.cursor })
    await after(page)
  }
}

function collectReceipts(): Promise<void> {
  const keep = async ({ receipts }: ReceiptPage): Promise<Write[]> => {
    const posts = new Map((await all('posts')).map((p) => [p.id, p]))
    return receipts.flatMap((receipt) => {
      const post = posts.get(receipt.post)
      return post
        ? [
            put('receipts', { ...receipt, brand: post.brand }),
            patch('posts', post.id, (p) => afterReceipt(p, receipt)),
          ]
        : []
    })
  }
  return collect('receipts', 'receiptCursor', keep, ({ receipts }) => placeAfterBreak(receipts))
}

/** Makes the next posts of what comes again, if anything does; what makes them is loaded only then. */
async function extendSome(): Promise<void> {
  if ((await all('recurrences')).length > 0) await (await import('../actions/recurring')).extendRecurrences()
  if ((await all('occasions')).some((o) => o.again))
    await (await import('../actions/occasionPosts')).renewOccasions()
}

/** Drops what is too much of old measures; what knows how is loaded only then. */
async function thinSome(): Promise<void> {
  await (await import('./thin')).thinMeasures()
}

/** Draws trials of other hours, if any account makes some; what draws them is loaded only then. */
async function trySome(): Promise<void> {
  if (await triesHours()) await (await import('./hourTrials')).drawHourTrials()
}

const triesHours = async (): Promise<boolean> =>
  (await all('accounts')).some((a) => a.hourTrials !== undefined && a.endedAt === null)

/** Does what follows pipelines, if any has something that follows; what does it is loaded only then. */
async function followSome(): Promise<void> {
  if ((await all('pipelines')).some((p) => p.follows.length > 0)) await (await import('./follow')).followUp()
}

/** Keeps what the server read of published posts; of posts that are no longer there it is of no use. */
function collectReadings(): Promise<void> {
  return collect<ReadingPage>('readings', 'readingCursor', async ({ readings }) => {
    const posts = await Promise.all([...new Set(readings.map((r) => r.post))].map((id) => one('posts', id)))
    const brands = new Map(posts.flatMap((p) => (p ? [[p.id, p.brand]] : [])))
    return readings.flatMap((reading) => {
      const brand = brands.get(reading.post)
      return brand === undefined ? [] : [put('readings', { ...reading, brand })]
    })
  })
}

/** Keeps how many follow the accounts. */
function collectFollowings(): Promise<void> {
  return collect<FollowingPage>('followings', 'followingCursor', async ({ followings }) => {
    const brands = new Map((await all('accounts')).map((a) => [a.id, a.brand]))
    return followings.flatMap((following) => {
      const brand = brands.get(following.account)
      return brand === undefined ? [] : [put('followings', { ...following, brand })]
    })
  })
}

/**
 * Places anew what came late because its account's permission was lost at its time, and is there again: it was held for
 * that alone, so nobody has to decide.
 */
async function placeAfterBreak(receipts: readonly Receipt[]): Promise<void> {
  const accounts = new Map((await all('accounts')).map((a) => [a.id, a]))
  const ids = receipts.flatMap(({ outcome, post, account, dueAt }) => {
    const health = accounts.get(account)?.health
    return outcome === 'late' && health?.state === 'linked' && health.since > dueAt ? [post] : []
  })
  const posts = (await all('posts')).filter((p) => ids.includes(p.id) && may(p, 'move') && p.held !== null)
  if (posts.length === 0) return
  const now = nowIso()
  const placed = await tryPlaces(
    posts.map((p) => ({ ...p, held: null, at: null, wished: now, pinned: false })),
  )
  await commit(
    'machine',
    placed.map(({ id, at, reasons }) =>
      happensIfMay(id, 'move', (p) => ({ ...p, held: null, pinned: false, at, reasons })),
    ),
  )
}

/** How many pictures of pieces are looked at in a round. */
const PICTURES_A_ROUND = 24

/** Looks at some pictures of pieces that nobody has looked at yet. As that is written down, the next round looks at the next. */
async function seeSome(): Promise<void> {
  await seePictures(
    (await all('pieces')).filter((p) => p.images.some((i) => !i.seen)),
    PICTURES_A_ROUND,
  )
}

async function seeAccounts(): Promise<void> {
  const { accounts } = await get<{ accounts: LinkedAccount[] }>('/api/accounts')
  const known = new Map(accounts.map((a) => [a.id, a]))
  const writes = (await all('accounts')).flatMap((account) => {
    const seen = known.get(account.id)
    const health = seen
      ? { state: seen.state, since: seen.since, message: seen.message, endsAt: seen.expiresAt }
      : {
          state: 'withdrawn' as const,
          since: nowIso(),
          message: 'This server has no permission for the account. Link it again.',
          endsAt: null,
        }
    const { state, message, endsAt } = account.health
    const same = health.state === state && health.message === message && health.endsAt === endsAt
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
