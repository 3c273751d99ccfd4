import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { connectTo, emptyDatabase, setClock } from '../testing/browser'
import { aBrand, aPipeline, aRow, aSource, aWorkspace, anAccount } from '../../../core/model/samples'
import { NO_LIMITS, PLAIN_MAKE, type Pipeline, type ReleaseRow } from '../../../core/model'
import { takeWriting, toPassages } from '../../../core/pipeline'
import { readFragment } from '../../../core/reading'
import { readArticle } from '../../../demo/content'
import { startDrip } from '../actions/drips'
import { repeatRun, switchOff, switchOn } from '../actions/pipelines'
import { setWorkspace } from '../api'
import { nowIso } from '../clock'
import { all, commit, must, patch, put, putPiece } from '../store'
import { undo } from '../undo'
import { nextRunAt, runPipelines } from './pipelines'

/** Which of the next drips the tab is closed at; 0 for none. */
const closing = vi.hoisted(() => ({ at: 0 }))
vi.mock('../../workers', async () => {
  const workers = await (await import('../testing/workers')).inProcess()
  const heavy = () =>
    new Proxy(workers.heavy(), {
      get: (tasks, name: 'makeDrip') =>
        name === 'makeDrip' && closing.at > 0 && --closing.at === 0
          ? () => Promise.reject(new Error('The tab was closed.'))
          : tasks[name],
    })
  return { ...workers, heavy }
})

const DAY = 86_400_000
const NAMES = ['seven-tools', 'scarf-not-butt', 'oars-that-fit'] as const
let made = 0
/** Three articles, a day between them, the first tagged `news` and the second a film. */
const pieces = NAMES.map((name, i) => {
  const article = readArticle(
    readFileSync(join(import.meta.dirname, `../../../demo/content/oakum-yard/${name}.md`), 'utf8'),
  )
  const whole = takeWriting(
    readFragment(article.html, { title: article.title }),
    { id: name, brand: 'brand', source: 'source', now: '2026-01-01T10:00:00.000Z' },
    { itemId: name, kind: i === 1 ? 'video' : 'manuscript' },
  )
  return {
    ...whole,
    categories: i === 0 ? ['news'] : [],
    publishedAt: `2026-01-0${i + 1}T10:00:00.000Z`,
    keeps: { span: 'evergreen' as const, until: null, phrases: [] },
  }
})
const passages = pieces.flatMap((p) => toPassages(p, () => `passage ${made++}`))

/** Sets the shared clock so many days on from the system's. */
const moveTo = (days: number): Promise<void> => setClock(new Date(Date.now() + days * DAY).toISOString())

const daily = [1, 2, 3, 4, 5, 6, 7].flatMap((weekday) =>
  ['09:00', '12:00', '17:00'].map((at) => ({ weekday, at })),
)
const account = (id: string, network = 'murmur') =>
  anAccount({ id, network, handle: id, zone: 'UTC', slots: daily, maxPerDay: 3, gapMinutes: 0 })
const soon: ReleaseRow['by'] = { kind: 'next openings', posts: 2 }
const takeIn: Pipeline['takeIn'] = { ...aPipeline().takeIn, since: '1970-01-01T00:00:00.000Z' }
const setPipeline = (change: Partial<Pipeline>): Promise<unknown> =>
  commit('machine', [
    put('pipelines', aPipeline({ takeIn, release: [aRow({ accounts: ['one'], by: soon })], ...change })),
  ])

beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  await moveTo(0)
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand({ zone: 'UTC' })),
    put('accounts', account('one')),
    put('accounts', account('hall', 'guildhall')),
    put('sources', aSource({ lastVisit: null })),
    ...pieces.flatMap((p) => putPiece(p)),
    ...passages.map((p) => put('passages', p)),
  ])
})

const drips = async (): Promise<string[]> =>
  (await all('drips')).map((d) => `${d.piece} ${d.row ?? ''} ${d.time}`).sort()
const that = (rule: object): ReleaseRow['pieces'] => ({ kind: 'that', rules: [rule as never] })
const threeRows = [
  aRow({
    id: 'news',
    pieces: that({ kind: 'tags', take: true, tags: ['news'] }),
    accounts: ['one'],
    by: soon,
  }),
  aRow({ id: 'films', pieces: that({ kind: 'kind', kinds: ['video'] }), accounts: ['hall'], by: soon }),
  aRow({ id: 'rest', pieces: { kind: 'rest' }, accounts: ['one', 'hall'], by: { kind: 'soon', hours: 48 } }),
]

/** The first piece's words as they are after they changed at its source. */
async function changeWords(): Promise<void> {
  const words = { ...(await must('texts', 'seven-tools.1')), id: 'seven-tools.2', revision: 2 }
  await commit('machine', [
    put('texts', words),
    patch('pieces', 'seven-tools', (p) => ({ ...p, revision: 2, changedAt: nowIso() })),
  ])
}

describe('a pipeline of rows', () => {
  it('releases each piece by the rows that take it, once, and writes down what it did', async () => {
    await setPipeline({ release: threeRows })
    await runPipelines()
    await runPipelines()
    expect(await drips()).toEqual(['oars-that-fit rest 0', 'scarf-not-butt films 0', 'seven-tools news 0'])
    const posts = await all('posts')
    const where = (piece: string): string[] =>
      [...new Set(posts.filter((p) => p.piece === piece).map((p) => p.account))].sort()
    expect([where('seven-tools'), where('scarf-not-butt'), where('oars-that-fit')]).toEqual([
      ['one'],
      ['hall'],
      ['hall', 'one'],
    ])
    const twoDays = new Date(Date.parse(nowIso()) + 2 * DAY).toISOString()
    expect(posts.filter((p) => p.piece === 'oars-that-fit').every((p) => (p.at ?? '9') <= twoDays)).toBe(true)
    const runs = await all('runs')
    expect(runs).toHaveLength(1)
    expect(runs[0]?.steps.map((s) => [s.what, s.came, s.piece, s.row])).toEqual([
      ['write', 'done', 'seven-tools', 'news'],
      ['write', 'done', 'scarf-not-butt', 'films'],
      ['write', 'done', 'oars-that-fit', 'rest'],
    ])
    expect(runs[0]?.steps[0]?.posts).toBe(posts.filter((p) => p.piece === 'seven-tools').length)
    expect((await must('pieces', 'seven-tools')).seenBy).toEqual(['pipeline'])
  })

  it('that broke off between two rows goes on with the second, and doubles nothing', async () => {
    const release = [
      aRow({ id: 'a', accounts: ['one'], by: soon }),
      aRow({ id: 'b', accounts: ['hall'], by: soon }),
    ]
    await setPipeline({ release })
    const aside = { by: 'set aside', at: nowIso() }
    await commit(
      'machine',
      ['scarf-not-butt', 'oars-that-fit'].map((id) => patch('pieces', id, (p) => ({ ...p, dealt: aside }))),
    )
    closing.at = 2
    await expect(runPipelines()).rejects.toThrow('The tab was closed.')
    closing.at = 0
    expect(await drips()).toEqual(['seven-tools a 0'])
    // A week's fill holds up new pieces only, not what was begun.
    await setPipeline({ release, takeIn: { ...takeIn, aWeek: 1 } })
    await runPipelines()
    expect(await drips()).toEqual(['seven-tools a 0', 'seven-tools b 0'])
    expect((await must('pieces', 'seven-tools')).seenBy).toEqual(['pipeline'])
  })

  it('says of a piece that no row takes, and of one that a row refuses, why; the others are dripped', async () => {
    const by: ReleaseRow['by'] = { kind: 'field', name: 'begins', before: [0] }
    await setPipeline({
      release: [threeRows[0]!, aRow({ id: 'dated', pieces: threeRows[1]!.pieces, accounts: ['one'], by })],
    })
    await runPipelines()
    expect(await drips()).toEqual(['seven-tools news 0'])
    expect((await must('pieces', 'scarf-not-butt')).trouble).toBe(
      'Journal could not drip it: it has no field called begins.',
    )
    expect((await must('pieces', 'oars-that-fit')).trouble).toMatch(/no row of its release takes it/)
    expect((await all('runs'))[0]?.steps.map((s) => s.came).sort()).toEqual(['done', 'failed', 'skipped'])
    await runPipelines()
    const runs = await all('runs')
    expect(runs).toHaveLength(1)
    // Once the piece has its field, the run is repeated; what it did is not done again.
    await commit('machine', [
      patch('pieces', 'scarf-not-butt', (p) => ({ ...p, fields: { begins: nowIso().slice(0, 10) } })),
    ])
    expect(await repeatRun(runs[0]?.id ?? '')).toBe(2)
    await runPipelines()
    expect(await drips()).toEqual(['scarf-not-butt dated 0', 'seven-tools news 0'])
    expect((await must('pieces', 'oars-that-fit')).trouble).toMatch(/no row of its release takes it/)
  })

  it('of which one row refuses a piece makes the drip of the other, and is done with the piece', async () => {
    const dated: ReleaseRow['by'] = { kind: 'field', name: 'begins', before: [0] }
    await setPipeline({
      release: [
        aRow({ id: 'dated', accounts: ['one'], by: dated }),
        { ...threeRows[0]!, accounts: ['hall'] },
      ],
    })
    await runPipelines()
    await runPipelines()
    expect(await drips()).toEqual(['seven-tools news 0'])
    expect(await must('pieces', 'seven-tools')).toMatchObject({ trouble: null, seenBy: ['pipeline'] })
    expect((await must('pieces', 'oars-that-fit')).trouble).toMatch(/could not drip it/)
    expect(await all('runs')).toHaveLength(1)
  })

  it('leaves pictures out, closes each caption with its line, and takes no more passages than it says', async () => {
    const images = [
      { url: 'https://a.example/x.png', alt: 'x', caption: '', width: 900, height: 900, block: 0 },
    ]
    await commit('machine', [patch('pieces', 'seven-tools', (p) => ({ ...p, images }))])
    const by: ReleaseRow['by'] = { kind: 'next openings', posts: 4 }
    const make = {
      ...PLAIN_MAKE,
      passages: 2,
      pictures: 'none' as const,
      after: 'The slip is open on Saturdays.',
    }
    await setPipeline({ make, release: [{ ...threeRows[0]!, by }] })
    await runPipelines()
    const posts = await all('posts', 'piece', 'seven-tools')
    expect(posts.length).toBeGreaterThan(0)
    expect(
      posts.every((p) => p.media.length === 0 && p.wording.text.includes('The slip is open on Saturdays.')),
    ).toBe(true)
    expect(new Set(posts.flatMap((p) => p.passage ?? [])).size).toBeLessThanOrEqual(2)
  })
})

describe('how much a pipeline takes in', () => {
  it('a run is bounded: the next piece comes after the next visit, or a day later', async () => {
    await setPipeline({ takeIn: { ...takeIn, aRun: 1 } })
    await runPipelines()
    await runPipelines()
    expect(await drips()).toEqual(['seven-tools row 0'])
    expect(Date.parse(nextRunAt() ?? '') - Date.parse(nowIso())).toBeGreaterThan(0.9 * DAY)
    const visit = {
      at: new Date(Date.parse(nowIso()) + 1).toISOString(),
      ok: true,
      message: '',
      newPieces: 0,
      notes: [],
    }
    await moveTo(0.1)
    await commit('machine', [patch('sources', 'source', (s) => ({ ...s, lastVisit: visit }))])
    await runPipelines()
    await runPipelines()
    expect(await drips()).toEqual(['scarf-not-butt row 0', 'seven-tools row 0'])
    await moveTo(1.2)
    await runPipelines()
    expect(await drips()).toHaveLength(3)
  })

  it('a week is bounded over its last seven days', async () => {
    await setPipeline({ takeIn: { ...takeIn, aWeek: 2 } })
    await runPipelines()
    expect(await drips()).toEqual(['scarf-not-butt row 0', 'seven-tools row 0'])
    await moveTo(6.9)
    await runPipelines()
    expect(await drips()).toHaveLength(2)
    await moveTo(7.1)
    await runPipelines()
    expect(await drips()).toHaveLength(3)
  })

  it('is nothing after its last day, or while an account that it waits for is down', async () => {
    const yesterday = new Date(Date.parse(nowIso()) - DAY).toISOString().slice(0, 10)
    await setPipeline({ limits: { ...NO_LIMITS, to: yesterday } })
    await runPipelines()
    expect(await drips()).toEqual([])
    await setPipeline({ limits: { ...NO_LIMITS, pauseWhenDown: true } })
    const health = (state: 'expired' | 'linked') =>
      commit('machine', [
        patch('accounts', 'one', (a) => ({
          ...a,
          health: { state, since: nowIso(), message: '', endsAt: null },
        })),
      ])
    await health('expired')
    await runPipelines()
    expect(await drips()).toEqual([])
    await health('linked')
    await runPipelines()
    expect(await drips()).toHaveLength(3)
  })
})

describe('what a pipeline does later', () => {
  const [first] = threeRows as [ReleaseRow]
  const only = { ...first, id: 'row' }

  it('writes the posts of the days that come within reach, each once', async () => {
    const rhythm = { name: 'Own', list: [0, 20, 45] }
    await setPipeline({
      release: [{ ...only, by: { kind: 'rhythm', rhythm } }],
      limits: { ...NO_LIMITS, ahead: 30 },
    })
    await runPipelines()
    const beats = async (): Promise<number[]> => (await all('posts')).map((p) => p.beat).sort()
    expect(await beats()).toEqual([0, 1])
    expect((await all('drips'))[0]?.days).toEqual([0, 20, 45])
    const due = nextRunAt() ?? ''
    expect(Math.round((Date.parse(due) - Date.parse(nowIso().slice(0, 10))) / DAY)).toBe(15)
    await moveTo(16)
    await runPipelines()
    await runPipelines()
    expect(await beats()).toEqual([0, 1, 2])
    const texts = (await all('posts')).map((p) => p.wording.text)
    expect(new Set(texts).size).toBe(3)
  })

  it('drips a piece again so many days after its last post, in other words, as often as it says', async () => {
    const publish = async (): Promise<void> => {
      await commit(
        'machine',
        (await all('posts'))
          .filter((p) => p.publishedAt === null)
          .map((p) => patch('posts', p.id, (x) => ({ ...x, state: 'published', publishedAt: nowIso() }))),
      )
    }
    await setPipeline({ release: [{ ...only, again: { days: 30, times: 1 } }] })
    await runPipelines()
    const before = (await all('posts')).map((p) => p.wording.text)
    await publish()
    await moveTo(29)
    await runPipelines()
    expect(await drips()).toEqual(['seven-tools row 0'])
    await moveTo(31)
    await runPipelines()
    await runPipelines()
    expect(await drips()).toEqual(['seven-tools row 0', 'seven-tools row 1'])
    const posts = await all('posts')
    const later = posts.filter((p) => p.publishedAt === null).map((p) => p.wording.text)
    expect(later.length).toBeGreaterThan(0)
    expect(later.filter((t) => before.includes(t))).toEqual([])
    // What has not been said yet comes first.
    const said = (out: boolean): string[] =>
      posts.filter((p) => (p.publishedAt !== null) === out).flatMap((p) => p.passage ?? [])
    expect(said(false).filter((p) => said(true).includes(p))).toEqual([])
    await publish()
    await moveTo(90)
    await runPipelines()
    expect(await drips()).toHaveLength(2)
  })

  it('makes anew what is still to come of a piece whose words changed, where it says so', async () => {
    await setPipeline({ release: [only], gate: 'nothing' })
    await runPipelines()
    const old = (await all('posts')).map((p) => p.id)
    await changeWords()
    await runPipelines()
    expect((await all('posts')).filter((p) => p.state === 'set aside')).toEqual([])
    await setPipeline({ release: [only], gate: 'nothing', takeIn: { ...takeIn, changed: true } })
    await runPipelines()
    const posts = await all('posts')
    expect(posts.filter((p) => old.includes(p.id)).every((p) => p.state === 'set aside')).toBe(true)
    expect(posts.filter((p) => !old.includes(p.id)).length).toBeGreaterThan(0)
    expect((await must('pieces', 'seven-tools')).changedAt).toBeNull()
    expect((await all('drips')).every((d) => d.row === 'row' && d.time === 0)).toBe(true)
  })

  it('leaves what a person began of a changed piece to that person', async () => {
    await setPipeline({ release: [only], gate: 'nothing', takeIn: { ...takeIn, changed: true } })
    await runPipelines()
    const drip = await startDrip({
      piece: 'seven-tools',
      accounts: ['hall'],
      rhythm: { name: 'Once', list: [3] },
      startDay: nowIso().slice(0, 10),
      gate: 'everything',
      pipeline: null,
      actor: { brand: 'brand', label: 'Start a drip' },
    })
    await changeWords()
    await runPipelines()
    expect((await all('posts', 'drip', drip)).map((p) => p.state)).toEqual(['for review'])
    expect((await must('pieces', 'seven-tools')).changedAt).not.toBeNull()
    const made = (await all('drips')).length
    await runPipelines()
    expect(await all('drips')).toHaveLength(made)
  })
})

describe('switching a pipeline off', () => {
  it('lets what is planned go out, wait, or go', async () => {
    await setPipeline({ gate: 'nothing' })
    await runPipelines()
    const states = async (): Promise<string[]> => [...new Set((await all('posts')).map((p) => p.state))]
    expect(await switchOff('pipeline', 'stays')).toBe(0)
    expect(await must('pipelines', 'pipeline')).toMatchObject({ on: false, held: null })
    await switchOn('pipeline')
    await switchOff('pipeline', 'waits')
    expect((await must('pipelines', 'pipeline')).held?.reason).toBe('Journal is switched off.')
    await switchOn('pipeline')
    expect(await must('pipelines', 'pipeline')).toMatchObject({ on: true, held: null })
    const planned = (await all('posts')).length
    expect(await switchOff('pipeline', 'goes')).toBe(planned)
    expect(await states()).toEqual(['set aside'])
    await undo('brand')
    expect(await states()).not.toContain('set aside')
    expect((await must('pipelines', 'pipeline')).on).toBe(true)
  })
})
