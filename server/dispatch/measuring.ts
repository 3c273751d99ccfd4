import { ageAfter, asFault, whenRead, type NextReading, type Reading } from '../../core/model'
import { backoff } from '../networks/calls'
import type { Measured } from '../networks/connector'
import type { Registry } from '../networks/registry'
import type { Accounts } from '../store/accounts'
import type { DueReading, Readings, Taken } from '../store/readings'
import type { Shortener } from '../services/shortener'
import { log } from '../log'

/** How often it is looked whether readings are due, in real milliseconds. */
const TICK = 30_000
/** How many readings are claimed at once, and how many accounts are asked at the same time. */
const BATCH = 200
const AT_ONCE = 8
/** The longest that a network may have a reading wait. */
const PATIENCE = 3_600_000

/**
 * Asks the networks how published posts are taken: at fixed ages, an account's posts one after the other, so that reading
 * never crowds out publishing; and the shortener how often their own short links were followed. What could not be read in its time is kept as missing, with the reason.
 */
export class Measuring {
  readonly #readings: Readings
  readonly #accounts: Accounts
  readonly #registry: Registry
  readonly #shortener: Pick<Shortener, 'clicks'>
  readonly #now: () => number
  #timer: NodeJS.Timeout | undefined
  #looking: Promise<void> | null = null

  constructor(parts: {
    readings: Readings
    accounts: Accounts
    registry: Registry
    shortener: Pick<Shortener, 'clicks'>
    now: () => number
  }) {
    this.#readings = parts.readings
    this.#shortener = parts.shortener
    this.#accounts = parts.accounts
    this.#registry = parts.registry
    this.#now = parts.now
  }

  start(): void {
    this.#timer = setInterval(
      () =>
        void this.look().catch((error: unknown) => log.error({ err: error }, 'Measures could not be read.')),
      TICK,
    )
  }

  async stop(): Promise<void> {
    clearInterval(this.#timer)
    await this.#looking?.catch(() => undefined)
  }

  /** Takes all readings that are due, one look at a time. */
  look(): Promise<void> {
    this.#looking ??= this.#takeAll().finally(() => {
      this.#looking = null
    })
    return this.#looking
  }

  async #takeAll(): Promise<void> {
    for (;;) {
      const due = await this.#readings.claim(this.#now(), Date.now(), BATCH)
      const waiting = [...new Set(due.map((d) => d.account))].map((a) => due.filter((d) => d.account === a))
      const taken: Taken[] = []
      const work = async (): Promise<void> => {
        for (let mine = waiting.shift(); mine; mine = waiting.shift())
          taken.push(...(await this.#takeOf(mine)))
      }
      await Promise.all(Array.from({ length: AT_ONCE }, work))
      const counted = await this.#withClicks(taken)
      if (counted.length > 0) await this.#readings.keep(counted)
      const readings = counted.flatMap((t) => t.readings)
      if (readings.length > 0)
        log.info(
          { readings: readings.length, missing: readings.filter((r) => r.measures === null).length },
          'Measures were read.',
        )
      if (due.length < BATCH) return
    }
  }

  /** Readings of one account, one after the other; once the network asks to wait, the rest waits as well. */
  async #takeOf(due: readonly DueReading[]): Promise<Taken[]> {
    const taken: Taken[] = []
    let rest: Extract<Measured, { kind: 'later' | 'unlinked' }> | null = null
    for (const one of due) {
      const came: Measured = rest ?? (await this.#ask(one))
      if (came.kind === 'later' || came.kind === 'unlinked') rest ??= came
      taken.push(whatToKeep(one, came, this.#now()))
    }
    if (rest?.kind === 'unlinked' && due[0])
      await this.#accounts.checked(due[0].account, { state: rest.state, message: rest.reason }, this.#now())
    return taken
  }

  /** What was taken, with how often the posts' own short links were followed; a shortener that is silent leaves that out. */
  async #withClicks(taken: readonly Taken[]): Promise<Taken[]> {
    const isCounted = ({ due, readings }: Taken): boolean =>
      due.shortLink !== null && readings.some((r) => r.measures !== null)
    const shorts = taken.filter(isCounted).flatMap((t) => t.due.shortLink ?? [])
    if (shorts.length === 0) return [...taken]
    try {
      const clicks = new Map((await this.#shortener.clicks(shorts)).map((l) => [l.short, l.clicks]))
      return taken.map((one) => {
        const followed = clicks.get(one.due.shortLink ?? '')
        if (followed === undefined) return one
        const readings = one.readings.map((r) =>
          r.measures === null ? r : { ...r, measures: { ...r.measures, 'link clicks': followed } },
        )
        return { ...one, readings }
      })
    } catch (error) {
      log.warn({ err: error }, 'The shortener did not say how often its links were followed.')
      return [...taken]
    }
  }

  async #ask({ account, remoteId, shortLink }: DueReading): Promise<Measured> {
    try {
      const login = await this.#accounts.login(account)
      const connector = this.#registry.of(login.connector)
      if (!connector.capabilities.measures)
        return shortLink === null
          ? { kind: 'refused', reason: 'This account does not say how its posts are read.' }
          : { kind: 'read', measures: {} }
      return await connector.measures(login, remoteId)
    } catch (error) {
      return { kind: 'later', reason: asFault(error).message, afterMilliseconds: backoff(1) }
    }
  }
}

/** What a network's answer, or its silence, makes of a due reading at a moment. */
export function whatToKeep(due: DueReading, came: Measured, now: number): Taken {
  const readings: Reading[] = []
  const { post, generation, account, publishedAt } = due
  const reading = (age: Reading['age'], measures: Reading['measures'], reason: string): void => {
    readings.push({
      id: `${post}:${generation}:${age}`,
      post,
      generation,
      account,
      age,
      takenAt: new Date(now).toISOString(),
      measures,
      reason,
    })
  }
  // Ages whose time went by, while nobody asked or nobody answered, are missing; the answer stands for the age that is now.
  const silent =
    came.kind === 'later' || came.kind === 'unlinked' ? came.reason : 'Nobody asked at that time.'
  let next: NextReading | null = whenRead(publishedAt, due.age)
  while (next && now > next.until) {
    reading(next.age, null, silent)
    next = after(publishedAt, next)
  }
  if (!next) return { due, readings, next: null }
  if (came.kind === 'gone' || came.kind === 'refused') {
    reading(next.age, null, came.kind === 'gone' ? 'The network no longer has the post.' : came.reason)
    return { due, readings, next: null }
  }
  if (now < next.at) return { due, readings, next }
  if (came.kind === 'read') {
    reading(next.age, came.measures, '')
    return { due, readings, next: after(publishedAt, next) }
  }
  const wait = came.kind === 'later' ? Math.min(came.afterMilliseconds, PATIENCE) : 0
  return { due, readings, next: { ...next, at: now + wait } }
}

function after(publishedAt: number, { age }: NextReading): NextReading | null {
  const later = ageAfter(age)
  return later && whenRead(publishedAt, later)
}
