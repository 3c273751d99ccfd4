import fc from 'fast-check'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { aBrand, anAccount, aPost, aWorkspace, aWording } from '../../core/model/samples'
import type { Check, Post } from '../../core/model'
import { emptyDatabase } from './testing/browser'
import { SpoolDouble } from './testing/spoolDouble'

// Made once for all tabs: what they do has no memory, and the model of English is large.
const worker = vi.hoisted((): { made?: Promise<unknown>; english?: Promise<object> } => ({}))
vi.mock('../../core/language/en/sentences', (actual) => (worker.english ??= actual()))
vi.mock('../workers', () => (worker.made ??= import('./testing/workers').then((w) => w.inProcess())))

/** The data layer of one tab: modules of its own, on the database and the locks that all tabs share. */
async function openTab() {
  vi.resetModules()
  const [posts, captions, holds, ending, plan, undo, tick, store, api, kept, life] = await Promise.all([
    import('./actions/posts'),
    import('./actions/captions'),
    import('./actions/holds'),
    import('./actions/ending'),
    import('./actions/plan'),
    import('./undo'),
    import('./runner/tick'),
    import('./store'),
    import('./api'),
    import('./kept'),
    import('./actions/life'),
  ])
  api.setWorkspace('ws')
  return { ...posts, ...captions, ...holds, ...ending, ...plan, ...undo, ...tick, ...store, ...kept, ...life }
}
type Tab = Awaited<ReturnType<typeof openTab>>

const HOUR = 3_600_000
const IDS = ['p1', 'p2', 'p3', 'p4']
const FLAG: Check = { code: 'dated', severity: 'flag', message: 'It speaks of today.', words: 'today' }
const BRAND = { table: 'brands' as const, id: 'brand', brand: 'brand', name: 'the brand' }
const ACCOUNT = { table: 'accounts' as const, id: 'account', brand: 'brand', name: 'the account' }
const thePost = (id: string) => ({ table: 'posts' as const, id, brand: 'brand', name: 'the post' })

/** Something that a person does in a tab, or that happens outside. */
type Step = { tab: number } & (
  | { kind: 'act'; act: keyof typeof ACTS; id: string; text: string }
  | { kind: 'outside'; event: keyof typeof OUTSIDE }
  | { kind: 'reload' }
)

/** What a person can do to a post, or to all of them. */
const ACTS = {
  approve: (t: Tab, id: string) => t.approve([id]),
  'approve all': (t: Tab) => t.approve(IDS),
  edit: (t: Tab, id: string, text: string) => t.editText(id, text),
  'another wording': (t: Tab, id: string) => t.anotherWording(id),
  replace: (t: Tab, _id: string, text: string) => t.replaceIn(IDS, 'seam', text),
  'accept a flag': (t: Tab, id: string) => t.acceptFlag(id, FLAG),
  'set aside': (t: Tab, id: string) => t.setAside([id]),
  'set all aside': (t: Tab) => t.setAside(IDS),
  'bring back': (t: Tab, id: string) => t.bringBack(id),
  hold: (t: Tab, id: string) => t.hold(thePost(id)),
  lift: (t: Tab, id: string) => t.lift(thePost(id)),
  'hold the brand': (t: Tab) => t.hold(BRAND),
  'lift the brand': (t: Tab) => t.lift(BRAND),
  'lift and set aside': (t: Tab) => t.lift(BRAND, 'set aside'),
  'try again': (t: Tab, id: string) => t.tryAgain(id),
  'send now': (t: Tab, id: string) => t.decideLate(id, 'send now'),
  'place anew': (t: Tab, id: string) => t.decideLate(id, 'place anew'),
  'place all anew': async (t: Tab) => t.applyMoves(await t.placedAnew(IDS), 'Place anew'),
  pin: (t: Tab, id: string) => t.pinPosts([id], true),
  bound: (t: Tab, id: string) => t.boundPost(id, { earliest: null, latest: null, priority: 1 }),
  'take down': (t: Tab, id: string) => t.takeDown(id),
  end: (t: Tab) => t.end(ACCOUNT, { kind: 'set aside' }),
  'go on': (t: Tab) => t.goOn(ACCOUNT, 'place anew'),
  undo: (t: Tab) => t.undo('brand'),
  run: (t: Tab) => t.tick(),
} satisfies Record<string, (tab: Tab, id: string, text: string) => Promise<unknown>>

/** What happens without a person. */
const OUTSIDE = {
  'an hour': (s: SpoolDouble) => s.advance(HOUR),
  'a day': (s: SpoolDouble) => s.advance(24 * HOUR),
  'sending begins': (s: SpoolDouble) => s.beginSending(),
  'the network takes it': (s: SpoolDouble) => s.finishSending(true),
  'the network refuses it': (s: SpoolDouble) => s.finishSending(false),
  'due posts go out': (s: SpoolDouble) => {
    s.beginSending()
    s.finishSending(true)
  },
  'a request is lost': (s: SpoolDouble) => void s.faults.push('request lost'),
  'an answer is lost': (s: SpoolDouble) => void s.faults.push('answer lost'),
  // Receipts are asked for first in every round: what is lost after them is a recall or a hand-over.
  'the second answer is lost': (s: SpoolDouble) => void s.faults.push(null, 'answer lost'),
  'the second request is lost': (s: SpoolDouble) => void s.faults.push(null, 'request lost'),
} satisfies Record<string, (spool: SpoolDouble) => void>

const anAct = fc.record({
  kind: fc.constant('act' as const),
  tab: fc.nat(1),
  act: fc.oneof(
    { weight: 3, arbitrary: fc.constantFrom(...(Object.keys(ACTS) as (keyof typeof ACTS)[])) },
    { weight: 1, arbitrary: fc.constant('run' as const) },
  ),
  id: fc.constantFrom(...IDS),
  text: fc.constantFrom('Two strands are enough.', 'Pay the seam the same day.', 'x'.repeat(301)),
})
const anEvent = fc.record({
  kind: fc.constant('outside' as const),
  tab: fc.nat(1),
  event: fc.constantFrom(...(Object.keys(OUTSIDE) as (keyof typeof OUTSIDE)[])),
})
const aReload = fc.record({ kind: fc.constant('reload' as const), tab: fc.nat(1) })
const aStep: fc.Arbitrary<Step> = fc.oneof(
  { weight: 20, arbitrary: anAct },
  { weight: 12, arbitrary: anEvent },
  { weight: 1, arbitrary: aReload },
)
const aRun: fc.Arbitrary<Step> = anAct.map((step) => ({ ...step, act: 'run' }))
/** Steps of which those of one entry run at the same time; most often the runner is at work beside them. */
const aWalk = fc.array(
  fc.oneof(
    fc.array(aStep, { minLength: 1, maxLength: 3 }),
    fc.tuple(aRun, aStep),
    fc.tuple(aStep, aRun, aStep),
  ),
  { minLength: 8, maxLength: 26 },
)

const tabs: Tab[] = []
let spool: SpoolDouble

async function begin(seed: number): Promise<void> {
  let state = seed >>> 0
  spool = new SpoolDouble(() => (state = (state * 1664525 + 1013904223) >>> 0) / 2 ** 32)
  vi.stubGlobal('fetch', spool.fetch)
  while (tabs.length < 2) tabs.push(await openTab())
  await emptyDatabase()
  for (const tab of tabs) {
    tab.forget(['posts'])
    await tab.tick().catch(() => undefined)
  }
  const at = (hours: number): string => new Date(spool.now() + hours * HOUR).toISOString()
  const states: Post['state'][] = ['approved', 'for review', 'draft', 'approved']
  await tabs[0]!.commit('machine', [
    tabs[0]!.put('workspace', aWorkspace()),
    tabs[0]!.put('brands', aBrand()),
    tabs[0]!.put('accounts', anAccount({ maxPerDay: 20, maxPerWeek: 99, gapMinutes: 0 })),
    ...IDS.map((id, i) =>
      tabs[0]!.put(
        'posts',
        aPost({
          id,
          piece: null,
          drip: null,
          passage: null,
          state: states[i] ?? 'draft',
          wished: at(i + 1),
          at: at(i + 1),
          checks: i === 1 ? [FLAG] : [],
          wording: aWording({ text: `Number ${id}: a seam wants cotton.` }),
          others: [aWording({ text: `Number ${id}: oakum and pitch.` })],
        }),
      ),
    ),
  ])
}

async function take(step: Step): Promise<void> {
  if (step.kind === 'outside') return OUTSIDE[step.event](spool)
  if (step.kind === 'reload') {
    tabs[step.tab] = await openTab()
    return
  }
  try {
    await ACTS[step.act](tabs[step.tab]!, step.id, step.text)
  } catch (error) {
    // A person is told why not; anything else is a mistake of ours.
    if ((error as Error).name !== 'Fault') throw error
  }
}

/** Lets everything that is under way come to its end, with a connection that holds. */
async function settle(): Promise<void> {
  spool.faults.length = 0
  spool.finishSending(true)
  for (let round = 0; round < 4; round++) for (const tab of tabs) await tab.tick()
}

/** Says what is wrong between what the application believes and what stands on the network and in the spool. */
async function contradictions(): Promise<string[]> {
  const posts = new Map((await tabs[0]!.all('posts')).map((p) => [p.id, p]))
  const wrong: string[] = [...spool.unknown]
  for (const id of IDS) {
    const post = posts.get(id)
    const up = spool.publications.filter((p) => p.post === id && p.up)
    if (!post) wrong.push(`${id} is lost`)
    if (up.length > 1) wrong.push(`${id} is public ${up.length} times`)
    const [out] = up
    if (out && post?.state !== 'published') wrong.push(`${id} is public, and ${post?.state} here`)
    if (!out && post?.state === 'published') wrong.push(`${id} is published here, and not public`)
    if (out && post && out.text !== post.wording.text) wrong.push(`${id} says other words in public`)
    const waits = spool.waiting().find((e) => e.id === id)
    if (waits && post?.state !== 'handed over') wrong.push(`${id} would go out, and is ${post?.state} here`)
    if (!waits && post?.state === 'handed over') wrong.push(`${id} is handed over, and the spool has it not`)
    if (waits && post && (waits.payload.text !== post.wording.text || waits.dueAt !== post.at))
      wrong.push(`${id} would go out with other words or at another time`)
  }
  return wrong
}

describe('a random walk through the life of posts', () => {
  beforeEach(() => vi.restoreAllMocks())

  it(
    'loses, doubles and un-publishes none, in two tabs and over a bad line',
    { timeout: 1_200_000 },
    async () => {
      await fc.assert(
        fc.asyncProperty(aWalk, fc.nat(), async (walk, seed) => {
          await begin(seed)
          for (const together of walk) {
            await Promise.all(together.map(take))
            const twice = IDS.filter(
              (id) => spool.publications.filter((p) => p.post === id && p.up).length > 1,
            )
            expect(twice).toEqual([])
          }
          await settle()
          expect(await contradictions()).toEqual([])
          spool.advance(60 * 24 * HOUR)
          spool.beginSending()
          await settle()
          expect(await contradictions()).toEqual([])
        }),
        { numRuns: Number(process.env.WALKS ?? 30) },
      )
    },
  )

  it('hands over the words that stand when their turn comes, not those that were packed', async () => {
    await begin(1)
    const [one, other] = tabs as [Tab, Tab]
    let packed: () => void = () => undefined
    const turn = new Promise<void>((resolve) => (packed = resolve))
    // Another tab has the spool to itself until the runner has packed and waits.
    const changing = other.alone(async () => {
      await turn
      const words = (p: Post): Post => ({ ...p, wording: { ...p.wording, text: 'Changed meanwhile.' } })
      await other.commit('machine', [other.patch('posts', 'p1', words)])
    })
    const running = one.tick()
    await new Promise((resolve) => setTimeout(resolve, 200))
    packed()
    await Promise.all([changing, running])
    expect(spool.waiting().map((e) => e.payload.text)).not.toContain('Number p1: a seam wants cotton.')
    await settle()
    expect(spool.waiting().map((e) => e.payload.text)).toContain('Changed meanwhile.')
    expect(await contradictions()).toEqual([])
  })

  it('takes back what a person sets aside while it is on its way to the server', async () => {
    await begin(1)
    const [one, other] = tabs as [Tab, Tab]
    let aside: Promise<unknown> | null = null
    spool.underWay = async (request) => {
      if (request !== 'POST /api/spool/posts' || aside) return
      aside = other.setAside(['p1'])
      // Long enough for it to be done, if nothing kept it back.
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
    await one.tick()
    await aside
    await settle()
    expect((await one.must('posts', 'p1')).state).toBe('set aside')
    expect(await contradictions()).toEqual([])
  })

  it('undoes nothing that another tab changed while the post was being taken back', async () => {
    await begin(1)
    const [one, other] = tabs as [Tab, Tab]
    await one.editText('p1', 'Two strands are enough.')
    await one.tick()
    spool.underWay = async (request) => {
      if (request.startsWith('DELETE')) await other.acceptFlag('p1', FLAG)
    }
    await expect(one.undo('brand')).rejects.toThrow(/changed again since/)
    expect((await one.must('posts', 'p1')).wording.text).toBe('Two strands are enough.')
    await settle()
    expect(await contradictions()).toEqual([])
  })

  it('leaves of many posts the one that is being sent, and refuses it with a sentence where it is alone', async () => {
    await begin(1)
    const [one] = tabs as [Tab, Tab]
    await one.approve(IDS)
    await one.tick()
    spool.advance(1.5 * HOUR)
    spool.beginSending()
    expect(spool.deliveries.find((d) => d.entry.id === 'p1')?.state).toBe('sending')
    await expect(one.setAside(['p1'])).rejects.toThrow(/being sent right now/)
    expect(await one.setAside(['p1', 'p4'])).toBe(1)
    expect((await one.must('posts', 'p4')).state).toBe('set aside')
    await settle()
    expect((await one.must('posts', 'p1')).state).toBe('published')
    expect(await contradictions()).toEqual([])
  })

  it('reads the receipt of a post that came too late before it takes it for lost', async () => {
    await begin(1)
    await tabs[0]!.tick()
    // A new tab asks what the server has; its question about receipts gets no answer at first.
    tabs[0] = await openTab()
    spool.advance(24 * HOUR)
    spool.beginSending()
    expect(spool.deliveries.find((d) => d.entry.id === 'p1')?.state).toBe('late')
    spool.faults.push('answer lost')
    await tabs[0].tick().catch(() => undefined)
    expect(spool.waiting().map((e) => e.id)).not.toContain('p1')
    await settle()
    expect((await tabs[0].must('posts', 'p1')).held?.reason).toBe('It is late.')
    expect(await contradictions()).toEqual([])
  })

  it('hears nothing of how late a post came before it was taken back and handed over again', async () => {
    await begin(1)
    const [one] = tabs as [Tab, Tab]
    await one.tick()
    spool.advance(24 * HOUR)
    spool.beginSending()
    await one.pinPosts(['p1'], true)
    // Receipts are asked for first: their answer is lost, and p1 is handed over again in the same round.
    spool.faults.push('answer lost')
    await one.tick().catch(() => undefined)
    expect(spool.waiting().map((e) => e.id)).toContain('p1')
    await one.tick()
    expect(await one.must('posts', 'p1')).toMatchObject({ state: 'handed over', held: null })
    spool.beginSending()
    await settle()
    expect((await one.must('posts', 'p1')).held?.reason).toBe('It is late.')
    expect(await contradictions()).toEqual([])
  })
})
