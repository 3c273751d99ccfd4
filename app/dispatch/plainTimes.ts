import type { Account } from '../../core/model'
import { timesOf, type AccountTimes } from '../data'

/** What is edited of an account's times; its trials come of their share. */
export type PlainTimes = Omit<AccountTimes, 'hourTrials'>

/** The times of an account as they are edited. */
export function plainTimesOf(account: Account): PlainTimes {
  const { hourTrials: _, ...times } = timesOf(account)
  return times
}

/** The times with trials of a share of the slots; with none of it what was drawn is gone. */
export function triesOf(times: PlainTimes, { hourTrials }: Account, share: number): AccountTimes {
  if (share === 0) return times
  const { until = null, days = [] } = hourTrials ?? {}
  return { ...times, hourTrials: { share, until, days } }
}
