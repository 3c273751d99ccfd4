import { beforeEach, describe, expect, it } from 'vitest'
import { asEdited, NO_LIMITS, type ReleaseRow, type SieveRule } from '../../../core/model'
import { aBrand, anAccount, aPipeline, aPost, aRow, aWorkspace } from '../../../core/model/samples'
import {
  addPipeline,
  dropDraft,
  goBack,
  putToWork,
  savePipeline,
  switchOff,
  switchOn,
  workDifference,
} from './pipelines'
import { setWorkspace } from '../api'
import { commit, must, put } from '../store'
import { connectTo, emptyDatabase } from '../testing/browser'
import { undo } from '../undo'

it('two changes made from the same view of a pipeline are both kept', async () => {
  await emptyDatabase()
  const seen = aPipeline({ on: false, gate: 'everything', priority: 0 })
  await addPipeline(seen)
  await savePipeline(seen, { gate: 'nothing' }, 'Change a pipeline’s gate')
  await savePipeline(seen, { priority: 3 }, 'Change a pipeline’s priority')
  await savePipeline(seen, { takeIn: { aRun: 1 } }, 'Change how much a pipeline takes in')
  await savePipeline(seen, { takeIn: { changed: true } }, 'Change what becomes of changed pieces')
  await savePipeline(seen, { limits: { aDay: 2 } }, 'Change a pipeline’s limits')
  await savePipeline(seen, { limits: { ahead: 30 } }, 'Change a pipeline’s limits')
  const named = (id: string): ReleaseRow[] => [...seen.release, aRow({ id })]
  await savePipeline(seen, { release: named('x') }, 'Add a row to a release')
  await savePipeline(seen, { release: named('y') }, 'Add a row to a release')
  const kept = await must('pipelines', seen.id)
  expect(kept).toMatchObject({
    gate: 'nothing',
    priority: 3,
    takeIn: { aRun: 1, changed: true, sources: ['source'] },
    limits: { aDay: 2, ahead: 30 },
    version: seen.version + 8,
  })
  expect(kept.release.map((r) => r.id)).toEqual(['row', 'x', 'y'])
})

it('two changes of one rule made from the same view are both kept', async () => {
  await emptyDatabase()
  const rule = { kind: 'words', need: 'any', words: [], lists: [], where: 'the title' } satisfies SieveRule
  const seen = aPipeline({ on: false })
  seen.takeIn.sieve = [rule]
  await addPipeline(seen)
  await savePipeline(seen, { takeIn: { sieve: [{ ...rule, need: 'none' }] } }, 'Change a rule of the sieve')
  await savePipeline(
    seen,
    { takeIn: { sieve: [{ ...rule, words: ['cake'] }] } },
    'Change a rule of the sieve',
  )
  expect((await must('pipelines', seen.id)).takeIn.sieve).toEqual([
    { ...rule, need: 'none', words: ['cake'] },
  ])
})

describe('a pipeline that runs', () => {
  const day = (n: number): string => new Date(Date.now() + n * 86_400_000).toISOString().slice(0, 10)
  const get = () => must('pipelines', 'pipeline')
  beforeEach(async () => {
    connectTo(null)
    setWorkspace('ws')
    await emptyDatabase()
    await commit('machine', [
      put('workspace', aWorkspace()),
      put('brands', aBrand({ zone: 'UTC' })),
      put('accounts', anAccount({ id: 'account', zone: 'UTC' })),
      put('accounts', anAccount({ id: 'other', network: 'guildhall', zone: 'UTC' })),
      put('pipelines', aPipeline({ on: false, release: [aRow({ accounts: ['account', 'other'] })] })),
      ...[2, 2, 4].map((n, i) =>
        put(
          'posts',
          aPost({
            id: `p${i}`,
            pipeline: 'pipeline',
            account: i === 2 ? 'other' : 'account',
            network: i === 2 ? 'guildhall' : 'murmur',
            drip: null,
            piece: `piece ${i}`,
            passage: null,
            wished: `${day(n)}T12:00:00.000Z`,
            at: `${day(n)}T${i === 1 ? '17' : '09'}:00:00.000Z`,
            reasons: [{ code: 'as-wished', message: 'It stands on its wished day.' }],
          }),
        ),
      ),
    ])
    await switchOn('pipeline')
  })

  it('goes on as it is while it is changed, until the changes are put to work or dropped', async () => {
    const runs = await get()
    expect(runs).toMatchObject({ on: true, version: 2, draft: null, versions: [{ version: 2 }] })
    await savePipeline(runs, { gate: 'nothing' }, 'Change a pipeline’s gate')
    await savePipeline(runs, { takeIn: { aWeek: 2 } }, 'Change how much a pipeline takes in')
    expect(await get()).toMatchObject({ gate: 'what is flagged', takeIn: { aWeek: null }, version: 2 })
    expect(asEdited(await get())).toMatchObject({ gate: 'nothing', takeIn: { aWeek: 2 } })
    await dropDraft('pipeline')
    expect(await get()).toEqual(runs)
    await savePipeline(runs, { gate: 'nothing' }, 'Change a pipeline’s gate')
    await putToWork('pipeline', [], [])
    expect(await get()).toMatchObject({ gate: 'nothing', draft: null, version: 3 })
    // Changed back, there is nothing to be put to work.
    await savePipeline(runs, { gate: 'what is flagged' }, 'Change a pipeline’s gate')
    await savePipeline(runs, { gate: 'nothing' }, 'Change a pipeline’s gate')
    expect((await get()).draft).toBeNull()
  })

  it('shows what its new limits move and which posts it would release no more, and does it as one action', async () => {
    await savePipeline(
      await get(),
      {
        limits: { ...NO_LIMITS, aDay: 1 },
        release: (await get()).release.map((r) => ({ ...r, accounts: ['account'] })),
      },
      'Change a pipeline',
    )
    const { moves, unreleased } = await workDifference('pipeline')
    expect(moves).toHaveLength(1)
    expect(moves[0]?.to?.slice(0, 10)).not.toBe(day(2))
    expect(unreleased.map((p) => p.id)).toEqual(['p2'])
    await putToWork('pipeline', moves, unreleased)
    expect((await must('posts', moves[0]?.post.id ?? '')).at).toBe(moves[0]?.to)
    expect((await must('posts', 'p2')).state).toBe('set aside')
    expect(await workDifference('pipeline')).toEqual({ moves: [], unreleased: [] })
    await undo('brand')
    expect((await must('posts', 'p2')).state).toBe('approved')
    expect((await get()).draft).not.toBeNull()
  })

  it('keeps the versions that ran, and goes back to one of them', async () => {
    const runs = await get()
    for (const gate of ['nothing', 'everything'] as const) {
      await savePipeline(runs, { gate }, 'Change a pipeline’s gate')
      await putToWork('pipeline', [], [])
    }
    expect((await get()).versions.map((v) => [v.version, v.recipe.gate])).toEqual([
      [2, 'what is flagged'],
      [3, 'nothing'],
      [4, 'everything'],
    ])
    await goBack('pipeline', 3)
    expect(await get()).toMatchObject({ gate: 'everything', draft: { gate: 'nothing' } })
    await switchOff('pipeline', 'stays')
    await goBack('pipeline', 2)
    expect(await get()).toMatchObject({ gate: 'what is flagged', draft: null })
    await expect(goBack('pipeline', 99)).rejects.toThrow('no longer kept')
  })
})
