import { asFault, Fault, type Attempt, type Payload, type Trial } from '../../core/model'
import type { Database } from '../store/database'
import type { Sent } from '../networks/connector'
import type { Registry } from '../networks/registry'
import type { Accounts } from '../store/accounts'
import { BegunTrials, type BegunTrial } from '../store/begunTrials'
import type { Media } from '../store/media'

/** How long after its start an unfinished trial counts as left behind, in real milliseconds. */
const LEFT_BEHIND = 60_000

/**
 * Test deliveries: a post that is really sent, read back as it arrived, and taken down again. Each is written down
 * before it is sent, so that one that a crash or a lost answer left standing is taken down later: what was sent and
 * never answered is found again under the same idempotency key.
 */
export class Trials {
  readonly #begun: BegunTrials
  readonly #accounts: Accounts
  readonly #media: Media
  readonly #registry: Registry
  readonly #now: () => number

  constructor(parts: {
    database: Database
    accounts: Accounts
    media: Media
    registry: Registry
    /** The shared clock. */
    now: () => number
  }) {
    this.#begun = new BegunTrials(parts.database)
    this.#accounts = parts.accounts
    this.#media = parts.media
    this.#registry = parts.registry
    this.#now = parts.now
  }

  /** Sends, reads back and takes down. What the network refuses is an outcome, not a fault. */
  async run(id: string, account: string, payload: Payload): Promise<Trial> {
    const login = await this.#accounts.login(account)
    const connector = this.#registry.of(login.connector)
    if (!connector.capabilities.reads)
      throw new Fault(
        'bad-request',
        'This account cannot show a post as it arrived, so there is nothing to test.',
      )
    await this.#media.of(payload)
    await this.#begun.begin({ id, account, payload }, Date.now())
    const { outcome, attempts: sent } = await this.#publish(id, account, payload, false)
    if (outcome.kind !== 'published') {
      // Without an answer nobody knows whether it stands: it is looked for again.
      const answered = sent.at(-1)?.answer !== null
      if (answered) await this.#begun.forget(id)
      return {
        arrived: false,
        takenDown: answered,
        message: outcome.reason,
        shown: null,
        publicUrl: null,
        attempts: [...sent],
      }
    }
    await this.#begun.stands(id, outcome.remoteId)
    const attempts: Attempt[] = [...sent]
    const read = await connector.read(login, outcome.remoteId)
    attempts.push(read.attempt)
    let takenDown = true
    let message = 'It arrived, and was taken down again.'
    try {
      attempts.push(await connector.takeDown(login, outcome.remoteId))
      await this.#begun.forget(id)
    } catch (error) {
      takenDown = false
      message = `It arrived and still stands: ${asFault(error).message} It is taken down as soon as the network lets us.`
    }
    return { arrived: true, takenDown, message, shown: read.shown, publicUrl: outcome.publicUrl, attempts }
  }

  /** Takes down what was begun before a moment (real milliseconds) and left standing. Gives how many stand still. */
  async sweep(before = Date.now() - LEFT_BEHIND): Promise<number> {
    let left = 0
    for (const begun of await this.#begun.before(before))
      if (!(await this.#takeDown(begun).catch(() => false))) left++
    return left
  }

  async #takeDown({ id, account, payload, remoteId }: BegunTrial): Promise<boolean> {
    const login = await this.#accounts.login(account)
    let remote = remoteId
    if (remote === null) {
      const { outcome } = await this.#publish(id, account, payload, true)
      if (outcome.kind === 'published') remote = outcome.remoteId
      else if (outcome.kind === 'refused') {
        await this.#begun.forget(id)
        return true
      } else return false
      await this.#begun.stands(id, remote)
    }
    await this.#registry.of(login.connector).takeDown(login, remote)
    await this.#begun.forget(id)
    return true
  }

  async #publish(id: string, account: string, payload: Payload, doubt: boolean): Promise<Sent> {
    const login = await this.#accounts.login(account)
    const before = { doubt, ...this.#media.uploads(account, this.#now()) }
    const media = await this.#media.of(payload)
    return this.#registry.of(login.connector).publish(login, keyOf(id), payload, media, before)
  }
}

const keyOf = (id: string): string => `trial:${id}`
