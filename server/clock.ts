/** Milliseconds since 1970 as the whole of Dripline sees them. No business rule reads another clock. */
export interface Clock {
  /** Whether it can be moved. */
  readonly demo: boolean
  /** How far it is ahead of the system's. */
  readonly offset: number
  now(): number
}

/** The clock of a real run: the system's. */
export const SYSTEM_CLOCK: Clock = { demo: false, offset: 0, now: () => Date.now() }
