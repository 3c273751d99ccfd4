import { describe, expect, it } from 'vitest'
import { Clock } from './clock'
import type { Database } from './store/database'

const HOUR = 3_600_000

/** A database that knows the one setting the clock keeps. */
function settings(start: string | null = null) {
  const kept = { value: start }
  const database = {
    query: (text: string, values: readonly unknown[] = []) => {
      if (text.startsWith('insert')) kept.value = String(values[0])
      return Promise.resolve(text.startsWith('select') && kept.value !== null ? [{ value: kept.value }] : [])
    },
  } as unknown as Database
  return { kept, database: () => database }
}

describe('the clock', () => {
  it('is the system’s outside the demo, and cannot be moved there', async () => {
    const { database } = settings('3600000')
    const clock = new Clock(false, database)
    await clock.load()
    expect(clock.offset).toBe(0)
    await expect(clock.moveTo(Date.now() + HOUR)).rejects.toMatchObject({ code: 'not-demo' })
  })

  it('moves forward, keeps how far, and is there again after a restart', async () => {
    const { kept, database } = settings()
    const clock = new Clock(true, database)
    await clock.load()
    const target = Date.now() + 5 * HOUR
    await clock.moveTo(target)
    expect(clock.now()).toBeGreaterThanOrEqual(target)
    expect(clock.now()).toBeLessThan(target + 5000)
    const again = new Clock(true, database)
    await again.load()
    expect([again.offset, kept.value]).toEqual([clock.offset, String(clock.offset)])
  })

  it('never goes back', async () => {
    const { database } = settings()
    const clock = new Clock(true, database)
    await clock.moveTo(Date.now() + HOUR)
    const { offset } = clock
    await clock.moveTo(Date.now() - 10 * HOUR)
    await clock.moveTo(Date.now() + HOUR / 2)
    expect(clock.offset).toBe(offset)
  })

  it('refuses a jump of more than 400 days', async () => {
    const clock = new Clock(true, settings().database)
    await expect(clock.moveTo(Date.now() + 401 * 24 * HOUR)).rejects.toMatchObject({
      code: 'bad-request',
      where: 'to',
    })
  })
})
