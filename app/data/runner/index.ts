import { asFault, type Fault } from '../../../core/model'
import { get, post } from '../api'
import { clockNow, readClock } from '../clock'
import { during } from './activity'
import { onWrite } from '../store'

export { during, useActivity } from './activity'

const PAUSE = 3000
const SOON = 150
/** How long the first round waits, so that the first screen has the page to itself. */
const FIRST = 800

/** The work itself, loaded only after the first screen. */
const rounds = () => import('./tick')

/**
 * Runs the work in the one tab that holds the runner's lock; the others wait for it to be free.
 * `afterRound` is done after each round. Gives a function that stops it.
 */
export function startRunner(
  onTrouble: (fault: Fault | null) => void,
  afterRound: () => Promise<void>,
): () => void {
  const stopped = new AbortController()
  let wake: () => void = () => undefined
  const unwatch = onWrite(() => wake())
  void navigator.locks
    .request('dripline-runner', { signal: stopped.signal }, async () => {
      // The screen comes first.
      await new Promise((resolve) => setTimeout(resolve, FIRST))
      while (!stopped.signal.aborted) {
        let written = false
        wake = () => {
          written = true
        }
        try {
          const [{ tick }, { weeklyBundle }] = await Promise.all([rounds(), import('../weekly')])
          await tick()
          await weeklyBundle()
          await afterRound()
          onTrouble(null)
        } catch (error) {
          onTrouble(asFault(error))
          // What the round itself wrote before it failed is no reason to hurry.
          written = false
        }
        // A write while the work ran, or while it rests, starts the next round soon.
        await new Promise<void>((resolve) => {
          setTimeout(resolve, written ? SOON : PAUSE)
          wake = () => void setTimeout(resolve, SOON)
        })
      }
    })
    .catch(() => undefined)
  return () => {
    unwatch()
    stopped.abort()
    wake()
  }
}

/**
 * Moves the demo's clock forward, event by event: the next due post, article or visit, each
 * settled before the next. Can be cancelled between two events; shows a count of hours.
 */
export async function jump(milliseconds: number): Promise<void> {
  await readClock()
  const from = clockNow()
  const target = from + milliseconds
  const until = new Date(target).toISOString()
  const hours = Math.max(1, Math.round(milliseconds / 3_600_000))
  let cancelled = false
  await during(
    'Moving the demo’s time, hour by hour',
    async (show) => {
      const { nextOwnEvent, tick } = await rounds()
      await tick()
      while (!cancelled && clockNow() < target) {
        show(Math.min(hours, Math.round((clockNow() - from) / 3_600_000)), hours)
        const [{ at }, own] = await Promise.all([
          get<{ at: string | null }>(`/api/clock/next?until=${encodeURIComponent(until)}`),
          nextOwnEvent(),
        ])
        const now = new Date(clockNow()).toISOString()
        const [next = until] = [until, at, own].filter((m): m is string => m !== null && m > now).sort()
        await post('/api/clock/advance', { to: next })
        await tick()
      }
    },
    () => {
      cancelled = true
    },
  )
}
