import { randomUUID } from 'node:crypto'
import type { RecallAnswer } from '../../core/model'
import type { Registry } from '../networks/registry'
import type { Accounts } from '../store/accounts'
import { keyOf } from '../store/deliveries'
import type { Spool } from '../store/spool'

/**
 * What may be public is never called recalled: where an answer of a network was lost, the network is asked whether it has
 * the post before anything else happens to it.
 */
export class Doubts {
  readonly #owner = randomUUID()
  readonly #spool: Spool
  readonly #accounts: Accounts
  readonly #registry: Registry
  readonly #now: () => number

  constructor(parts: { spool: Spool; accounts: Accounts; registry: Registry; now: () => number }) {
    this.#spool = parts.spool
    this.#accounts = parts.accounts
    this.#registry = parts.registry
    this.#now = parts.now
  }

  /** Takes a post back before it is sent; one that turns out to be public is answered with its receipt. */
  async recall(post: string): Promise<RecallAnswer> {
    const first = await this.#spool.recall(post)
    if (first.result !== 'in doubt') return first
    await this.settle(post)
    const then = await this.#spool.recall(post)
    // Nobody answered: it is neither recalled nor out, and goes on as if it were being sent.
    return then.result === 'in doubt' ? { ...then, result: 'already sending' } : then
  }

  /** Takes over what other workspaces handed over, each post that may be public after its network was asked. */
  async recallOthers(workspace: string): Promise<void> {
    for (const post of await this.#spool.recallOthers(workspace)) await this.recall(post)
  }

  /** Asks the network for a post in doubt and writes the answer down. Where it does not answer, the doubt stays. */
  async settle(post: string): Promise<void> {
    const claim = await this.#spool.claimDoubt(post, this.#owner, Date.now())
    if (!claim) return
    const asked = await this.#ask(claim.account, keyOf(claim)).catch(() => null)
    const attempts = [...claim.attempts, ...(asked?.attempt ? [asked.attempt] : [])]
    const settle = (outcome: Parameters<Spool['settle']>[3]) =>
      this.#spool.settle(claim, this.#owner, attempts, outcome, this.#now())
    if (asked?.found) await settle(asked.found)
    else if (asked?.found === null) await this.#spool.clearDoubt(claim, this.#owner)
    else if (asked && asked.attempt === null)
      await settle({
        kind: 'unsure',
        reason: 'Its answer was lost and it cannot be asked: it may be public. Look, and say whether it is.',
      })
    else await settle({ kind: 'later', reason: 'The network does not answer.', afterMilliseconds: 60_000 })
  }

  async #ask(account: string, key: string) {
    const login = await this.#accounts.login(account)
    return this.#registry.of(login.connector).find(login, key)
  }
}
