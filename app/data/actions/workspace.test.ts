import { afterAll, beforeEach, expect, it } from 'vitest'
import { connectTo, emptyDatabase, setClock } from '../testing/browser'
import { USUAL_NOTICES } from '../../../core/model'
import { aWorkspace } from '../../../core/model/samples'
import { commit, must, put } from '../store'
import { claimNotices, claimSummary, noteVisit, saveNotices } from './workspace'

// Files of one worker share the clock: the next one finds it as it is.
afterAll(() => setClock(new Date().toISOString()))

const BEGAN = Date.parse('2026-11-24T10:00:00.000Z')
const at = (hours: number): string => new Date(BEGAN + hours * 3_600_000).toISOString()

/** Sets the shared clock to some hours after it began. */
const moveTo = (hours: number): Promise<void> => setClock(at(hours))

beforeEach(async () => {
  connectTo(null)
  await emptyDatabase()
  await moveTo(0)
  await commit('machine', [put('workspace', aWorkspace({ id: 'ws' }))])
})
const visits = async (): Promise<(string | null)[]> => {
  const { lastVisitAt, visitBefore } = await must('workspace', 'ws')
  // The clock goes on by itself, so minutes are enough.
  return [visitBefore, lastVisitAt].map((v) => v && v.slice(0, 16))
}

it('who comes back to the Desk within three hours is on the same visit still', async () => {
  await noteVisit('ws')
  expect(await visits()).toEqual([null, at(0).slice(0, 16)])
  await moveTo(2)
  await noteVisit('ws')
  expect(await visits()).toEqual([null, at(0).slice(0, 16)])
  await moveTo(30)
  await noteVisit('ws')
  expect(await visits()).toEqual([at(0), at(30)].map((v) => v.slice(0, 16)))
})

it('a notice is told once, by one tab, and again once it had been over', async () => {
  const keys = async (...found: string[]) =>
    (
      await claimNotices(
        'ws',
        found.map((key) => ({ key })),
      )
    ).map((n) => n.key)
  const both = await Promise.all([keys('a', 'b'), keys('a', 'b')])
  expect(both.flat().sort()).toEqual(['a', 'b'])
  expect(await keys('a', 'b', 'c')).toEqual(['c'])
  expect(await keys('b')).toEqual([])
  expect(await keys('a', 'b')).toEqual(['a'])
})

it('a summary is told by one tab, and begins when it is asked for', async () => {
  await saveNotices('ws', { summary: 'daily' })
  const { notices } = await must('workspace', 'ws')
  expect(notices).toMatchObject({ kinds: USUAL_NOTICES.kinds, summary: 'daily' })
  expect(notices.summedUpAt?.slice(0, 16)).toBe(at(0).slice(0, 16))
  expect(await claimSummary('ws', at(-1))).toBe(false)
  expect(await Promise.all([claimSummary('ws', at(22)), claimSummary('ws', at(22))])).toEqual([true, false])
  expect(await claimSummary('ws', at(22))).toBe(false)
})
