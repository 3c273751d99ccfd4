import { ChatSettings, Fault, NoticeKind, type ChatLine, type ChatState } from '../../core/model'
import type { Database } from '../store/database'
import { Messages, type WaitingMessage } from '../store/messages'
import type { Settings } from '../store/settings'
import { callOutside, waitOf, type Answer } from '../outside'
import { mindKey, ServiceSettings } from './settings'
import { log } from '../log'

const TIMEOUT = 8_000
/** How often what is still to be sent is looked at, in real milliseconds. */
const TICK = 2_000
/** The pause after a first failure, doubled with each further one, and the longest; in milliseconds. */
const PAUSE = 15_000
const LONGEST_PAUSE = 3_600_000
/** What could not be sent for a day is news no longer. */
const GIVEN_UP = 86_400_000

/** How long a key is remembered after it was said: longer than the app tells anything late. */
const REMEMBERED = 30 * 86_400_000

/**
 * The team chat: `POST {address}` with `{ "text": … }`, as incoming webhooks of chats take it. A message is kept
 * until it was taken, so that it goes out when the browser is closed; one key is said once. A chat knows no such
 * key, so a server that dies between an answer and its note says that one message twice.
 */
export class Chat {
  readonly #settings: ServiceSettings<typeof ChatSettings>
  readonly #messages: Messages
  readonly #kept: Settings
  readonly #now: () => number
  #timer: NodeJS.Timeout | null = null
  #sending: Promise<void> | null = null
  #stopped = false

  constructor(database: Database, kept: Settings, now: () => number) {
    this.#messages = new Messages(database)
    this.#kept = kept
    this.#settings = new ServiceSettings(kept, 'chat', ChatSettings)
    this.#now = now
  }

  start(): void {
    const tick = async (): Promise<void> => {
      await this.flush().catch((error: unknown) => {
        if (!this.#stopped) log.error({ err: error }, 'The team chat’s messages could not be read.')
      })
      if (!this.#stopped) this.#timer = setTimeout(() => void tick(), TICK)
    }
    void tick()
  }

  async stop(): Promise<void> {
    this.#stopped = true
    if (this.#timer) clearTimeout(this.#timer)
    await this.#sending?.catch(() => undefined)
  }

  async state(): Promise<ChatState> {
    const kept = await this.#settings.read()
    const waiting = await this.#messages.waiting()
    return {
      host: kept && new URL(kept.settings.address).host,
      waiting: waiting.length,
      trouble: waiting.find(Boolean) ?? null,
    }
  }

  /** Connects a chat; what waits is tried again at once. */
  async connect(settings: ChatSettings): Promise<void> {
    // Whoever has the address may speak in the chat.
    mindKey(settings.address, settings.address)
    await this.#settings.keep(settings, undefined)
    await this.#messages.hasten()
  }

  /** Forgets the chat, and with it what waited for it. */
  async disconnect(): Promise<void> {
    await this.#settings.forget()
    await this.#messages.giveUp(this.#now())
  }

  /** Which notices the chat hears from the server itself, also while the app is closed. */
  async hears(kinds: readonly NoticeKind[]): Promise<void> {
    await this.#kept.keep('notices', JSON.stringify(kinds))
  }

  /** Says a notice of a kind, where the chat hears of it. */
  async notice(kind: NoticeKind, line: ChatLine): Promise<void> {
    const kinds = NoticeKind.array().parse(JSON.parse((await this.#kept.read('notices')) ?? '[]'))
    if (kinds.includes(kind) && (await this.#settings.read())) await this.say([line])
  }

  /** Takes messages to be sent, in their order. Refuses (`no-chat`) where no chat is connected. */
  async say(lines: readonly ChatLine[]): Promise<void> {
    if (!(await this.#settings.read()))
      throw new Fault('no-chat', 'No team chat is connected. Connect one under Services.')
    await this.#messages.forget(this.#now() - REMEMBERED)
    await this.#messages.add(lines, this.#now())
    void this.flush().catch(() => undefined)
  }

  /** Sends what is due, one message after the other; gives once nothing more is. */
  flush(): Promise<void> {
    this.#sending ??= this.#sendAll().finally(() => {
      this.#sending = null
    })
    return this.#sending
  }

  async #sendAll(): Promise<void> {
    const kept = await this.#settings.read()
    if (!kept) return
    while (!this.#stopped) {
      const message = await this.#messages.take(this.#now(), this.#now() + PAUSE)
      if (!message) return
      if (!(await this.#sendOne(kept.settings.address, message))) return
    }
  }

  /** Sends one message; gives whether the chat took or refused it, so that the next one may be tried. */
  async #sendOne(address: string, { key, text, tries, at }: WaitingMessage): Promise<boolean> {
    const answer = await callOutside(
      address,
      {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ text }),
      },
      { milliseconds: TIMEOUT },
    ).catch(() => null)
    const now = this.#now()
    const done = (reason: string): Promise<void> => this.#messages.done(key, now, reason)
    if (answer?.ok) {
      await done('')
      return true
    }
    const reason = troubleOf(new URL(address).host, answer)
    // What is wrong with this message is not mended by sending it again.
    if (answer && [400, 413, 422].includes(answer.status)) {
      await done(reason)
      return true
    }
    if (now - at > GIVEN_UP) {
      await done(reason)
      return false
    }
    const asked = answer ? waitOf(answer.headers.get('retry-after'), answer.headers.get('date')) : null
    const pause = Math.max((asked ?? 0) * 1000, Math.min(LONGEST_PAUSE, PAUSE * 2 ** (tries - 1)))
    await this.#messages.later(key, now + pause, reason)
    return false
  }
}

function troubleOf(host: string, answer: Answer | null): string {
  if (!answer) return `The team chat at ${host} does not answer. Messages wait and are tried again.`
  if (answer.status === 429) return `The team chat at ${host} wants fewer messages; the rest follow.`
  if ([401, 403, 404, 410].includes(answer.status))
    return `The team chat at ${host} does not know this address any more (${answer.status}). Give it anew under Services.`
  return `The team chat at ${host} answered ${answer.status}.`
}
