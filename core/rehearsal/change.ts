import type { Account, Drip, Pipeline, QuietDay, Rhythm, Slot } from '../model'
import { beatDays, spanOf } from '../planning'

/** What could be otherwise, for trying it out before it is done. */
export type Change =
  /** Nothing of a pipeline goes out, and it takes nothing in. */
  | { kind: 'pause'; pipeline: string }
  /** Another rhythm for a pipeline: for the drips to come, and for what is still to come of those there are. */
  | { kind: 'rhythm'; pipeline: string; rhythm: Rhythm }
  /** One more account for a pipeline; it may be one that is not linked yet. */
  | { kind: 'account'; pipeline: string; account: Account }
  /** Other slots for an account. */
  | { kind: 'slots'; account: string; slots: Slot[] }
  /** Days on which the brand is quiet. */
  | { kind: 'quiet'; brand: string; days: QuietDay[] }

/**
 * A drip by another rhythm. Beats beyond it stay in the count at their days, so that the numbers of
 * those that went out stay right.
 */
export function withRhythm(drip: Drip, rhythm: Rhythm): Drip {
  const days = beatDays(rhythm)
  return { ...drip, rhythm, days: drip.days.map((day, k) => days[k] ?? day) }
}

/** A pipeline whose rows that follow a rhythm follow another one. */
export function inRhythm<P extends Pick<Pipeline, 'release'>>(pipeline: P, rhythm: Rhythm): P {
  const release = pipeline.release.map((row) =>
    row.by.kind === 'rhythm' ? { ...row, by: { kind: 'rhythm' as const, rhythm } } : row,
  )
  return { ...pipeline, release }
}

/** A pipeline that releases to one more account, by its first row. */
export function toAccount<P extends Pick<Pipeline, 'release'>>(pipeline: P, account: string): P {
  const [first, ...rest] = pipeline.release
  if (!first || first.accounts.includes(account)) return pipeline
  return { ...pipeline, release: [{ ...first, accounts: [...first.accounts, account] }, ...rest] }
}

/** Whether a drip follows a row of a pipeline that goes by a rhythm. */
export function followsRhythm(
  drip: Pick<Drip, 'row'>,
  pipeline: Pick<Pipeline, 'release'> | undefined,
): boolean {
  return pipeline?.release.some((row) => row.id === drip.row && row.by.kind === 'rhythm') ?? false
}

/** Slots of which so many are left, as evenly over the week as they stood. */
export function thinnedSlots(slots: readonly Slot[], keep: number): Slot[] {
  const sorted = [...slots].sort((a, b) => minuteOf(a) - minuteOf(b))
  if (keep >= sorted.length) return sorted
  return Array.from(
    { length: Math.max(0, keep) },
    (_, i) => sorted[Math.floor(((i + 0.5) * sorted.length) / keep)],
  ).filter((s): s is Slot => s !== undefined)
}

function minuteOf(slot: Slot): number {
  return (slot.weekday - 1) * 1440 + spanOf(slot).from
}
