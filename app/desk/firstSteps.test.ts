import { expect, it } from 'vitest'
import { aDrip, aPost, anAccount, aSource } from '../../core/model/samples'
import { isUnderWay, stepsOf } from './FirstSteps'

type Rows = Parameters<typeof stepsOf>[0]
const none: Rows = { accounts: [], sources: [], pipelines: [], drips: [], posts: [] }
const done = (change: Partial<Rows>) => stepsOf({ ...none, ...change }).map((s) => s.done)

it('the first steps tick themselves off, in any order', () => {
  expect(done({})).toEqual([false, false, false, false])
  expect(done({ sources: [aSource()] })).toEqual([false, true, false, false])
  expect(done({ pipelines: [{ on: false }] })).toEqual([false, false, false, false])
  expect(done({ pipelines: [{ on: true }] })).toEqual([false, false, true, false])
  expect(done({ drips: [aDrip()], posts: [aPost({ state: 'published' })] })).toEqual([
    false,
    false,
    true,
    true,
  ])
})

it('the first steps are out of the way once the first post will go out by itself', () => {
  const rows = { ...none, accounts: [anAccount()], sources: [aSource()], drips: [aDrip()] }
  const under = (posts: Rows['posts']) => isUnderWay(stepsOf({ ...rows, posts }), posts)
  expect(under([aPost({ state: 'for review' })])).toBe(false)
  expect(under([aPost({ state: 'approved', at: null })])).toBe(false)
  expect(under([aPost({ state: 'approved', at: '2026-12-01T10:00:00.000Z' })])).toBe(true)
  const posts = [aPost({ state: 'approved', at: '2026-12-01T10:00:00.000Z' })]
  expect(isUnderWay(stepsOf({ ...rows, accounts: [], posts }), posts)).toBe(false)
})
