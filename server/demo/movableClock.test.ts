import { describe, expect, it } from 'vitest'
import { MovableClock } from './movableClock'

const HOUR = 3_600_000

/** Settings that keep one value, the clock's. */
function settings() {
  const kept: { value: string | null } = { value: null }
  const read = () => Promise.resolve(kept.value)
  const keep = (_name: string, value: string) => {
    kept.value = value
    return Promise.resolve()
  }
  return { kept, settings: () => ({ read, keep }) }
}

describe('the demo’s clock', () => {
  it('moves forward, keeps how far, and is there again after a restart', async () => {
    const kept = settings()
    const clock = new MovableClock(kept.settings)
    await clock.load()
    const target = Date.now() + 5 * HOUR
    await clock.moveTo(target)
    expect(clock.now()).toBeGreaterThanOrEqual(target)
    expect(clock.now()).toBeLessThan(target + 5000)
    const again = new MovableClock(kept.settings)
    await again.load()
    expect([again.offset, kept.kept.value]).toEqual([clock.offset, String(clock.offset)])
  })

  it('never goes back', async () => {
    const kept = settings()
    const clock = new MovableClock(kept.settings)
    await clock.moveTo(Date.now() + HOUR)
    const { offset } = clock
    await clock.moveTo(Date.now() - 10 * HOUR)
    await clock.moveTo(Date.now() + HOUR / 2)
    expect(clock.offset).toBe(offset)
  })

  it('refuses a jump of more than 400 days', async () => {
    const clock = new MovableClock(settings().settings)
    await expect(clock.moveTo(Date.now() + 401 * 24 * HOUR)).rejects.toMatchObject({
      code: 'bad-request',
      where: 'to',
    })
  })
})
