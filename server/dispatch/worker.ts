import { randomUUID } from 'node:crypto'
import PgBoss from 'pg-boss'
import { asFault } from '../../core/model'
import type { Clock } from '../clock'
import type { Database } from '../store/database'
import { backoff } from '../networks/calls'
import type { Sent } from '../networks/connector'
import type { Registry } from '../networks/registry'
import type { Accounts } from '../store/accounts'
import type { Media } from '../store/media'
import { keyOf, LEASE, type Claim } from '../store/deliveries'
import type { Setback } from '../store/rounds'
import type { Spool } from '../store/spool'
import { Rounds } from './rounds'
import { log } from '../log'

const QUEUE = 'account-work'
const TICK = 400
/** How many accounts a server serves at once: so many may stall without taking another's turn. */
const AT_ONCE = 64
/**
 * How long a lease is renewed at most: longer than every time-out of one delivery together. What hangs longer
 * is claimed anew, under the same idempotency key.
 */
const LONGEST = 180_000
/** The longest that a network may have us wait between two tries, in milliseconds of the shared clock. */
const PATIENCE = 3_600_000
/** After so many deliveries the database is tidied. */
const TIDIED = 2_000
/** How long an account's job may wait in the queue before another is sent, in real milliseconds. */
const QUEUED = 5_000

/**
 * Carries deliveries out. Once a tick, every account with due work gets one pg-boss job ("this
 * account has work", at most one waiting an account); whichever server takes it claims deliveries
 * from the spool until there are none, beside all other accounts. The spool's leases, not pg-boss's states, decide who may
 * send, so a job lost in a crash costs nothing.
 */
export class Worker {
  readonly #owner = randomUUID()
  readonly #boss: PgBoss
  readonly #spool: Spool
  readonly #rounds: Rounds
  readonly #chance: () => number
  readonly #accounts: Accounts
  readonly #media: Media
  readonly #clock: Clock
  readonly #registry: Registry
  readonly #longest: number
  readonly #onSetback: (claim: Claim, setback: Setback, now: number) => Promise<void>
  #timer: NodeJS.Timeout | null = null
  #workerId = ''
  /** The accounts that are being served, each with the end of that. */
  readonly #served = new Map<string, Promise<void>>()
  /** The accounts whose job is in the queue, and since when, in real milliseconds. */
  readonly #queued = new Map<string, number>()
  #stopped = false
  /** How many deliveries there were since the database was tidied. */
  #untidy = 0
  readonly #database: Database

  /** `longest` is how long a lease is renewed at most, in milliseconds. */
  constructor(parts: {
    database: Database
    spool: Spool
    accounts: Accounts
    media: Media
    clock: Clock
    registry: Registry
    longest?: number
    /** Numbers from 0 to 1, which keep many deliveries from being tried again at one moment. */
    chance?: () => number
    /** Hears of what went wrong for good; the delivery is settled by then. */
    onSetback?: (claim: Claim, setback: Setback, now: number) => Promise<void>
  }) {
    this.#onSetback = parts.onSetback ?? (() => Promise.resolve())
    this.#longest = parts.longest ?? LONGEST
    this.#database = parts.database
    this.#spool = parts.spool
    this.#rounds = new Rounds(parts.spool, () => ({
      owner: this.#owner,
      now: parts.clock.now(),
      realNow: Date.now(),
    }))
    this.#chance = parts.chance ?? Math.random
    this.#accounts = parts.accounts
    this.#media = parts.media
    this.#clock = parts.clock
    this.#registry = parts.registry
    this.#boss = new PgBoss({
      db: { executeSql: (text: string, values?: unknown[]) => parts.database.executeSql(text, values) },
    })
    this.#boss.on('error', (error) => log.error({ err: error }, 'The queue reports a fault.'))
  }

  async start(): Promise<void> {
    await this.#boss.start()
    await this.#boss.createQueue(QUEUE, { name: QUEUE, policy: 'short' })
    this.#workerId = await this.#boss.work<{ account: string }>(
      QUEUE,
      { pollingIntervalSeconds: 2, batchSize: AT_ONCE },
      async (jobs) => {
        for (const { data } of jobs) await this.#serve(data.account)
      },
    )
    const tick = async (): Promise<void> => {
      await this.wake().catch((error: unknown) => {
        if (!this.#stopped) log.error({ err: error }, 'The spool could not be read.')
      })
      if (!this.#stopped) this.#timer = setTimeout(() => void tick(), TICK)
    }
    void tick()
  }

  async stop(): Promise<void> {
    this.#stopped = true
    if (this.#timer) clearTimeout(this.#timer)
    const patience = new Promise((resolve) => setTimeout(resolve, 10_000).unref())
    await Promise.race([Promise.all(this.#served.values()), patience])
    await this.#boss.stop({ graceful: true, timeout: 10_000, wait: true })
  }

  /** Sends a job for every account that has due work. */
  async wake(): Promise<void> {
    if (this.#untidy >= TIDIED) {
      this.#untidy = 0
      await this.#database.tidy()
    }
    if (this.#served.size >= AT_ONCE) return
    const now = Date.now()
    const due = await this.#spool.accountsDue(this.#clock.now(), now)
    const accounts = due.filter((account) => !this.#served.has(account))
    for (const account of accounts) {
      if (now - (this.#queued.get(account) ?? 0) < QUEUED) continue
      this.#queued.set(account, now)
      await this.#boss.send(QUEUE, { account }, { singletonKey: account, retryLimit: 0 })
    }
    if (accounts.length && this.#workerId) this.#boss.notifyWorker(this.#workerId)
  }

  /** Waits until nothing is due or being sent, at most half a minute. */
  async settle(): Promise<void> {
    const until = Date.now() + 30_000
    while (!this.#stopped && Date.now() < until) {
      if (await this.#spool.isSettled(this.#clock.now())) return
      await this.wake()
      await new Promise((resolve) => setTimeout(resolve, 60))
    }
  }

  /** Begins to serve an account, and gives once there is room for another. */
  async #serve(account: string): Promise<void> {
    this.#queued.delete(account)
    if (this.#served.has(account)) return
    const work = this.#work(account)
      .catch((error: unknown) => log.error({ err: error, account }, 'A delivery broke off.'))
      .finally(() => this.#served.delete(account))
    this.#served.set(account, work)
    while (this.#served.size >= AT_ONCE) await Promise.race(this.#served.values())
  }

  async #work(account: string): Promise<void> {
    while (!this.#stopped) {
      const claim = await this.#rounds.claim(account)
      if (!claim) return
      await this.#deliver(claim)
    }
  }

  async #deliver(claim: Claim): Promise<void> {
    const until = Date.now() + this.#longest
    const keeping = setInterval(() => {
      if (Date.now() > until) clearInterval(keeping)
      else void this.#spool.renew(claim, this.#owner, Date.now()).catch(() => undefined)
    }, LEASE / 4)
    this.#untidy++
    const { outcome, attempts } = await this.#publish(claim).finally(() => clearInterval(keeping))
    const settled =
      outcome.kind === 'later'
        ? { ...outcome, afterMilliseconds: this.#wait(outcome.afterMilliseconds, claim.tries) }
        : outcome
    const setback = await this.#rounds.settle({
      claim,
      attempts: [...claim.attempts, ...attempts],
      outcome: settled,
    })
    log.info(
      {
        post: claim.post,
        account: claim.account,
        tries: claim.tries,
        outcome: outcome.kind,
        requests: attempts.length,
      },
      'A delivery was carried out.',
    )
    if (setback) await this.#onSetback(claim, setback, this.#clock.now()).catch(() => undefined)
  }

  /** As long as the network asks, within bounds; longer with each try, and up to a fifth longer by chance. */
  #wait(asked: number, tries: number): number {
    const least = Math.max(Math.min(asked, PATIENCE), backoff(tries))
    return Math.round(least * (1 + this.#chance() / 5))
  }

  /** Sends a claimed post. What is wrong on this side before anything is sent (a picture that is not here, a key) is an outcome too. */
  async #publish(claim: Claim): Promise<Sent> {
    try {
      const login = await this.#accounts.login(claim.account)
      const connector = this.#registry.of(login.connector)
      const media = await this.#media.of(claim.payload)
      const before = { doubt: claim.doubt, ...this.#media.uploads(claim.account, this.#clock.now()) }
      return await connector.publish(login, keyOf(claim), claim.payload, media, before)
    } catch (error) {
      const { code, message: reason } = asFault(error)
      return {
        outcome:
          code === 'bad-request'
            ? { kind: 'refused', reason }
            : { kind: 'later', reason, afterMilliseconds: backoff(1) },
        attempts: [],
      }
    }
  }
}
