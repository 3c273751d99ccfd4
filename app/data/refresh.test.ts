import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { refresh } from './refresh'

const refreshed = vi.hoisted(() => [] as number[])
vi.mock('swr', () => ({
  mutate: (asks: (key: unknown) => boolean) =>
    refreshed.push([['rows', 'posts'], ['rows', 'drips'], ['picture']].filter(asks).length),
}))

let start = 0
beforeEach(() => {
  vi.useFakeTimers({ now: (start += 1e9) })
  refreshed.length = 0
})
afterEach(() => vi.useRealTimers())

const wrote = (table: 'posts' | 'drips', byMachine: boolean) =>
  refresh({ tables: [table], changed: [], reads: null, byMachine })

it('refreshes at once after one write, and once a second while the machine writes on', () => {
  wrote('posts', true)
  expect(refreshed).toEqual([1])
  for (let i = 0; i < 30; i++) {
    wrote(i % 2 ? 'posts' : 'drips', true)
    vi.advanceTimersByTime(100)
  }
  // Three seconds of writing: three refreshes, each of all that was written meanwhile.
  expect(refreshed).toEqual([1, 2, 2, 2])
  vi.advanceTimersByTime(5_000)
  expect(refreshed).toHaveLength(4)
})

it('never lets a person wait, and takes along what the machine wrote', () => {
  wrote('posts', true)
  wrote('drips', true)
  wrote('posts', false)
  expect(refreshed).toEqual([1, 2])
  vi.advanceTimersByTime(5_000)
  expect(refreshed).toHaveLength(2)
})
