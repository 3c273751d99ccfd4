import type { Claim } from '../store/deliveries'
import type { At, Setback, Settlement } from '../store/rounds'
import type { Spool } from '../store/spool'

interface Waiting<T> {
  resolve: (value: T) => void
  reject: (error: unknown) => void
}
type Claiming = Waiting<Claim | null> & { account: string }
type Settling = Waiting<Setback | null> & { settlement: Settlement }

/**
 * Gathers what the accounts that are served at once want of the spool: while one transaction runs, what is asked meanwhile
 * waits for the next and shares it.
 */
export class Rounds {
  readonly #spool: Pick<Spool, 'round'>
  readonly #at: () => At
  #claims: Claiming[] = []
  #settlements: Settling[] = []
  #running = false

  constructor(spool: Pick<Spool, 'round'>, at: () => At) {
    this.#spool = spool
    this.#at = at
  }

  claim(account: string): Promise<Claim | null> {
    return new Promise((resolve, reject) => {
      this.#claims.push({ account, resolve, reject })
      this.#run()
    })
  }

  settle(settlement: Settlement): Promise<Setback | null> {
    return new Promise((resolve, reject) => {
      this.#settlements.push({ settlement, resolve, reject })
      this.#run()
    })
  }

  #run(): void {
    if (this.#running) return
    this.#running = true
    // What becomes free in the same turn takes part.
    setImmediate(() => void this.#rounds())
  }

  async #rounds(): Promise<void> {
    while (this.#claims.length + this.#settlements.length > 0) {
      const [settlements, claims] = [this.#settlements, this.#claims]
      this.#settlements = []
      this.#claims = []
      try {
        await this.#one(settlements, claims)
      } catch (error) {
        // One of them may be to blame: each by itself, so that it stops no other.
        if (settlements.length + claims.length === 1) [...settlements, ...claims][0]?.reject(error)
        else await this.#apart(settlements, claims)
      }
    }
    this.#running = false
  }

  async #one(settlements: readonly Settling[], claims: readonly Claiming[]): Promise<void> {
    const done = await this.#spool.round(
      settlements.map((s) => s.settlement),
      claims.map((c) => c.account),
      this.#at(),
    )
    settlements.forEach((s, i) => s.resolve(done.setbacks[i] ?? null))
    for (const { account, resolve } of claims) resolve(done.claims.get(account) ?? null)
  }

  async #apart(settlements: readonly Settling[], claims: readonly Claiming[]): Promise<void> {
    for (const settling of settlements) await this.#one([settling], []).catch(settling.reject)
    for (const claiming of claims) await this.#one([], [claiming]).catch(claiming.reject)
  }
}
