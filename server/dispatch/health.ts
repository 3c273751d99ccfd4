import { network } from '../../core/networks'
import type { Registry } from '../networks/registry'
import type { Chat } from '../services/chat'
import type { Accounts } from '../store/accounts'
import type { Followings } from '../store/followings'

const HOUR = 3_600_000
const DAY = 24 * HOUR
/** So long before a permission ends a person is told. */
const WARNING = 7 * DAY
/** How often it is looked whether a check is due, in real milliseconds. */
const TICK = 60_000

/**
 * Asks the networks how the logins are, and how many follow them: each once a day, and again before posts are handed over where the last answer is an
 * hour old. Permissions that can be renewed are; of one that ends within a week the team chat hears once.
 */
export class HealthWatch {
  readonly #accounts: Accounts
  readonly #registry: Registry
  readonly #chat: Chat
  readonly #followings: Followings
  readonly #now: () => number
  #timer: NodeJS.Timeout | undefined

  constructor(parts: {
    accounts: Accounts
    registry: Registry
    chat: Chat
    followings: Followings
    now: () => number
  }) {
    this.#accounts = parts.accounts
    this.#followings = parts.followings
    this.#registry = parts.registry
    this.#chat = parts.chat
    this.#now = parts.now
  }

  start(): void {
    this.#timer = setInterval(() => void this.look().catch(() => undefined), TICK)
  }

  stop(): void {
    clearInterval(this.#timer)
  }

  /** Checks every login that was not looked at for a day, and tells of permissions that end soon. */
  async look(): Promise<void> {
    // Those that will be due within the hour are asked along with it.
    const due = await this.#accounts.unchecked(this.#now() - DAY)
    const along = due.length === 0 ? [] : await this.#accounts.unchecked(this.#now() - DAY + HOUR)
    for (const account of along) await this.check(account)
    for (const id of await this.#accounts.endingSoon(this.#now() + WARNING, this.#now())) {
      const { handle, network: profile, expiresAt } = await this.#accounts.one(id)
      await this.#chat.notice('broken accounts', {
        key: `notice ending ${id} ${expiresAt ?? ''}`,
        text: `The permission for ${network(profile).name} (@${handle}) ends on ${(expiresAt ?? '').slice(0, 10)}. Link it again before that, and nothing has to wait.`,
      })
    }
  }

  /** The first moment after `now` at which a login was not looked at for a day; null where none is linked. */
  async nextAt(now: number): Promise<number | null> {
    const first = await this.#accounts.firstChecked()
    return first === null ? null : Math.max(first + DAY, now + 1)
  }

  /** Checks those of some accounts that were not looked at for an hour. */
  async freshen(accounts: readonly string[]): Promise<void> {
    const asked = new Set(accounts)
    const due = await this.#accounts.uncheckedAmong([...asked], this.#now() - HOUR)
    await Promise.all(due.map((account) => this.check(account)))
  }

  /** Asks how one login is, and writes the answer down; gives whether there was one. */
  async check(account: string): Promise<boolean> {
    const login = await this.#accounts.login(account)
    const health = await this.#registry.of(login.connector).check(login)
    await this.#accounts.checked(account, health, this.#now())
    if (health?.followers) await this.#followings.keep(account, health.followers, this.#now())
    return health !== null
  }
}
