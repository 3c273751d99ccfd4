import { randomUUID } from 'node:crypto'
import PgBoss from 'pg-boss'
import type { Clock } from '../clock'
import type { Database } from '../database'
import { backoff, type Connector, type MediaFile } from './connector'
import type { Links } from './links'
import { LEASE, type Claim, type Spool } from './spool'

const QUEUE = 'account-work'
const TICK = 400

/**
 * Carries deliveries out. Once a tick, every account with due work gets one pg-boss job ("this
 * account has work", at most one waiting an account); whichever server takes it claims deliveries
 * from the spool until there are none. The spool's leases, not pg-boss's states, decide who may
 * send, so a job lost in a crash costs nothing.
 */
export class Worker {
  readonly #owner = randomUUID()
  readonly #boss: PgBoss
  readonly #spool: Spool
  readonly #links: Links
  readonly #database: Database
  readonly #clock: Clock
  readonly #connector: Connector
  #timer: NodeJS.Timeout | null = null
  #workerId = ''
  #stopped = false

  constructor(parts: { database: Database; spool: Spool; links: Links; clock: Clock; connector: Connector }) {
    this.#database = parts.database
    this.#spool = parts.spool
    this.#links = parts.links
    this.#clock = parts.clock
    this.#connector = parts.connector
    this.#boss = new PgBoss({
      db: { executeSql: (text: string, values?: unknown[]) => parts.database.executeSql(text, values) },
    })
    this.#boss.on('error', (error) => process.stderr.write(`The queue reports: ${error.message}\n`))
  }

  async start(): Promise<void> {
    await this.#boss.start()
    await this.#boss.createQueue(QUEUE, { name: QUEUE, policy: 'short' })
    this.#workerId = await this.#boss.work<{ account: string }>(
      QUEUE,
      { pollingIntervalSeconds: 0.5, batchSize: 4 },
      async (jobs) => {
        await Promise.all(jobs.map((job) => this.#work(job.data.account)))
      },
    )
    const tick = async (): Promise<void> => {
      await this.wake().catch((error: unknown) => {
        if (!this.#stopped) process.stderr.write(`The spool could not be read: ${String(error)}\n`)
      })
      if (!this.#stopped) this.#timer = setTimeout(() => void tick(), TICK)
    }
    void tick()
  }

  async stop(): Promise<void> {
    this.#stopped = true
    if (this.#timer) clearTimeout(this.#timer)
    await this.#boss.stop({ graceful: true, timeout: 10_000, wait: true })
  }

  /** Sends a job for every account that has due work. */
  async wake(): Promise<void> {
    const accounts = await this.#spool.accountsDue(this.#clock.now(), Date.now())
    for (const account of accounts)
      await this.#boss.send(QUEUE, { account }, { singletonKey: account, retryLimit: 0 })
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

  async #work(account: string): Promise<void> {
    while (!this.#stopped) {
      const claim = await this.#spool.claim(account, this.#owner, this.#clock.now(), Date.now())
      if (!claim) return
      await this.#deliver(claim)
    }
  }

  async #deliver(claim: Claim): Promise<void> {
    const { network, token } = await this.#links.token(claim.account)
    const media: MediaFile[] = []
    for (const { hash, alt } of claim.payload.media) {
      const [row] = await this.#database.query<{ type: string; bytes: Uint8Array }>(
        `select type, bytes from media where hash = $1`,
        [hash],
      )
      if (row) media.push({ bytes: row.bytes, type: row.type, alt })
    }
    const key = `${claim.workspace}:${claim.post}:${claim.generation}`
    const keeping = setInterval(
      () => void this.#spool.renew(claim, this.#owner, Date.now()).catch(() => undefined),
      LEASE / 4,
    )
    const { outcome, attempt } = await this.#connector
      .publish(network, token, key, claim.payload, media)
      .finally(() => clearInterval(keeping))
    const settled =
      outcome.kind === 'later'
        ? { ...outcome, afterMilliseconds: Math.max(outcome.afterMilliseconds, backoff(claim.tries)) }
        : outcome
    await this.#spool.settle(claim, this.#owner, [...claim.attempts, attempt], settled, this.#clock.now())
  }
}
