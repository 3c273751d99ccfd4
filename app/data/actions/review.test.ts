import { beforeEach, expect, it } from 'vitest'
import { readDecisions, flagName, reviewPrint, type Decisions } from '../../../core/formats'
import { aBrand, anAccount, aPost, aWording, aWorkspace } from '../../../core/model/samples'
import { setWorkspace } from '../api'
import { all, commit, must, patch, put } from '../store'
import { undo } from '../undo'
import { connectTo, emptyDatabase } from '../testing/browser'
import { makePacket, takeDecisions } from './review'

const flag = { code: 'ages', severity: 'flag' as const, message: 'It ages.', words: 'this year' }
const block = { code: 'too-long', severity: 'block' as const, message: 'It is too long.' }
const later = '2031-12-01T09:00:00.000Z'
const post = (id: string, change: Parameters<typeof aPost>[0] = {}) =>
  aPost({
    id,
    piece: null,
    drip: null,
    passage: null,
    state: 'for review',
    at: later,
    wording: aWording({ text: `What ${id} says.` }),
    ...change,
  })

beforeEach(async () => {
  connectTo(null)
  setWorkspace('ws')
  await emptyDatabase()
  await commit('machine', [
    put('workspace', aWorkspace()),
    put('brands', aBrand()),
    put('accounts', anAccount()),
    put('posts', post('plain')),
    put('posts', post('flagged', { checks: [flag] })),
    put('posts', post('blocked', { checks: [block] })),
    put('posts', post('no')),
    put('posts', post('open')),
    put('posts', post('changed', { checks: [flag] })),
  ])
})

/** What the packet that is made now would give back. */
async function decided(by: Record<string, ['approve' | 'reject' | 'open', string?]>): Promise<Decisions> {
  const posts = (await all('posts')).filter((p) => by[p.id])
  const html = await (await makePacket(aBrand(), posts, '', (at) => at)).text()
  const { packet, posts: kept } = JSON.parse(
    /<script type="application\/json" id="packet">(.*?)<\/script>/.exec(html)?.[1] ?? '',
  ) as { packet: string; posts: { post: string; print: string; flags: string[] }[] }
  return readDecisions(
    JSON.stringify({
      format: 'dripline-decisions',
      schema: 1,
      packet,
      by: 'Ada',
      at: '2026-11-28T10:00:00.000Z',
      decisions: kept.map((k) => ({ ...k, decision: by[k.post]?.[0], comment: by[k.post]?.[1] ?? '' })),
    }),
  )
}

it('decisions are done as one action: approved with the doubts that were shown, rejected set aside, comments kept', async () => {
  const decisions = await decided({
    plain: ['approve'],
    flagged: ['approve', 'True, I asked.'],
    blocked: ['approve'],
    no: ['reject', 'Not us.'],
    open: ['open', 'Ask Rita.'],
    changed: ['approve'],
  })
  await commit('machine', [
    patch('posts', 'changed', (p) => ({ ...p, wording: aWording({ text: 'Said otherwise.' }) })),
  ])
  const before = await all('posts')
  const came = await takeDecisions('brand', decisions)
  expect(came).toMatchObject({ approved: 2, rejected: 1, remarks: 3, changed: 1 })
  expect(came.left.map((l) => l.post.id)).toEqual(['blocked'])
  const states = Object.fromEntries((await all('posts')).map((p) => [p.id, p.state]))
  expect(states).toEqual({
    plain: 'approved',
    flagged: 'approved',
    blocked: 'for review',
    no: 'set aside',
    open: 'for review',
    changed: 'for review',
  })
  expect((await must('posts', 'flagged')).accepted).toMatchObject([{ code: 'ages', words: 'this year' }])
  expect((await must('posts', 'changed')).accepted).toEqual([])
  expect((await must('posts', 'no')).remarks).toMatchObject([
    { by: 'Ada', decision: 'reject', text: 'Not us.' },
  ])
  expect((await must('posts', 'open')).remarks).toMatchObject([{ decision: 'open', text: 'Ask Rita.' }])
  // The same file once more changes nothing.
  const after = await all('posts')
  expect(await takeDecisions('brand', decisions)).toMatchObject({ approved: 0, rejected: 0 })
  expect(await all('posts')).toEqual(after)
  await undo('brand')
  expect(await all('posts')).toEqual(before)
})

it('a doubt that came up since the packet was made is not accepted with it', async () => {
  const decisions = await decided({ plain: ['approve'] })
  await commit('machine', [patch('posts', 'plain', (p) => ({ ...p, checks: [flag] }))])
  const came = await takeDecisions('brand', decisions)
  expect(came).toMatchObject({ approved: 0, changed: 0 })
  expect(came.left.map((l) => l.post.id)).toEqual(['plain'])
  expect(decisions.decisions[0]).toMatchObject({ print: reviewPrint(post('plain')), flags: [] })
  expect(flagName(flag)).toBe('ages this year')
})

it('posts of another brand answer to nobody', async () => {
  await commit('machine', [put('posts', post('theirs', { brand: 'other' }))])
  const decisions = await decided({ theirs: ['reject', 'Gone.'] })
  expect(await takeDecisions('brand', decisions)).toMatchObject({ rejected: 0, remarks: 0, changed: 1 })
  expect(await must('posts', 'theirs')).toMatchObject({ state: 'for review', remarks: [] })
})
