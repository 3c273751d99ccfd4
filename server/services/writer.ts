import { z } from 'zod'
import {
  Fault,
  WriterSettings,
  type ChatMessage,
  type WriterAnswer,
  type WriterState,
} from '../../core/model'
import type { Database } from '../store/database'
import type { Settings } from '../store/settings'
import { WriterUse } from '../store/writerUse'
import { CallFailed, callOutside, parseJson, waitOf, type Answer } from '../outside'
import { ServiceSettings } from './settings'

/** How long one answer may take, how often a question is put again, and the pause before that. */
export interface Patience {
  answerMilliseconds: number
  /** What each further caption of the same answer may take. */
  furtherMilliseconds: number
  retries: number
  pauseMilliseconds: number
  longestPauseMilliseconds: number
}

const PATIENCE: Patience = {
  answerMilliseconds: 20_000,
  furtherMilliseconds: 5_000,
  retries: 2,
  pauseMilliseconds: 600,
  longestPauseMilliseconds: 15_000,
}

const Completion = z.object({
  choices: z.array(z.object({ message: z.object({ content: z.string().nullable() }) })).min(1),
})
const Refusal = z.object({ error: z.object({ message: z.string() }) })

/** The words of a text, as they are counted against a day's budget. */
export const wordsIn = (text: string): number => text.split(/\s+/).filter(Boolean).length

/** About so many tokens a word, which is the unit of the length that is asked for. */
const TOKENS_A_WORD = 1.6

/**
 * A connected writer: a service that speaks the chat-completions form. Questions are put again
 * after 429 (as long after as it says) and 5xx, never after a time-out, since a slow service gets
 * no faster by being asked twice. The words of a day are counted, those of failed questions too,
 * and a day's budget that is spent refuses further ones.
 */
export class ConnectedWriter {
  readonly #settings: ServiceSettings<typeof WriterSettings>
  readonly #use: WriterUse
  readonly #now: () => number
  readonly #patience: Patience

  constructor(database: Database, kept: Settings, now: () => number, patience: Partial<Patience> = {}) {
    this.#use = new WriterUse(database)
    this.#settings = new ServiceSettings(kept, 'writer', WriterSettings)
    this.#now = now
    this.#patience = { ...PATIENCE, ...patience }
  }

  async state(): Promise<WriterState> {
    const day = this.#day()
    const use = await this.#use.of(day)
    return {
      ...(await this.#settings.state()),
      day,
      ...use,
    }
  }

  async connect(settings: WriterSettings, key: string | undefined): Promise<void> {
    await this.#settings.keep(settings, key)
  }

  async disconnect(): Promise<void> {
    await this.#settings.forget()
  }

  /**
   * Puts a question and gives the answer's text; `answers` is how many captions it is for, each of which may
   * have the length that was set. Throws what went wrong, in words a person can act on.
   */
  async ask(messages: readonly ChatMessage[], answers = 1): Promise<WriterAnswer> {
    const kept = await this.#settings.read()
    if (!kept)
      throw new Fault('no-writer', 'No writer is connected. Connect one under Services, or use the built-in.')
    const { settings, key } = kept
    const asked = messages.reduce((sum, m) => sum + wordsIn(m.content), 0)
    const { words } = await this.state()
    if (words + asked > settings.dailyWords)
      throw new Fault(
        'over-budget',
        `The connected writer’s budget of ${settings.dailyWords} words for today is spent (${words} used). Raise it under Services, or go on tomorrow.`,
      )
    const started = performance.now()
    for (let tries = 0; ; tries++) {
      const answer = await this.#once(settings, key, messages, answers)
      await this.#use.count(this.#day(), asked + wordsIn(answer.text ?? ''))
      if (answer.text !== null)
        return {
          text: answer.text,
          words: asked + wordsIn(answer.text),
          milliseconds: Math.round(performance.now() - started),
        }
      if (!answer.again || tries >= this.#patience.retries) throw answer.fault
      const pause = answer.after ?? this.#patience.pauseMilliseconds * 2 ** tries
      if (pause > this.#patience.longestPauseMilliseconds) throw answer.fault
      await new Promise((resolve) => setTimeout(resolve, pause))
    }
  }

  async #once(
    settings: WriterSettings,
    key: string,
    messages: readonly ChatMessage[],
    answers: number,
  ): Promise<{ text: string } | { text: null; fault: Fault; again: boolean; after: number | null }> {
    const { host } = new URL(settings.address)
    const no = (fault: Fault, again = false, after: number | null = null) => ({
      text: null,
      fault,
      again,
      after,
    })
    const patience = this.#patience.answerMilliseconds + this.#patience.furtherMilliseconds * (answers - 1)
    let response: Answer
    try {
      response = await callOutside(
        `${settings.address.replace(/\/+$/, '')}/chat/completions`,
        {
          method: 'POST',
          headers: {
            'content-type': 'application/json',
            ...(key ? { authorization: `Bearer ${key}` } : {}),
          },
          body: JSON.stringify({
            model: settings.model,
            messages,
            temperature: settings.creativity,
            max_tokens: Math.ceil(settings.length * answers * TOKENS_A_WORD),
          }),
        },
        { milliseconds: patience },
      )
    } catch (error) {
      const trouble = error instanceof CallFailed ? error.trouble : 'broken off'
      if (trouble === 'too slow')
        return no(
          new Fault(
            'too-slow',
            `The connected writer at ${host} did not answer within ${Math.round(patience / 1000)} seconds.`,
          ),
        )
      if (trouble === 'too large')
        return no(
          new Fault(
            'bad-answer',
            `The connected writer at ${host} answered with more than a caption can be. Check its address.`,
          ),
        )
      return no(
        new Fault(
          'unreachable',
          `The connected writer at ${host} does not answer. Check its address, and that it is up.`,
          settings.address,
        ),
        true,
      )
    }
    const parsed = parseJson(response.text)
    if (response.ok) {
      const completion = Completion.safeParse(parsed)
      const text = completion.success ? completion.data.choices[0]?.message.content : null
      if (text?.trim()) return { text }
      return no(
        new Fault(
          'bad-answer',
          `The connected writer at ${host} answered without words in the chat-completions form. Check its address.`,
        ),
      )
    }
    const reason = Refusal.safeParse(parsed).data?.error.message.slice(0, 300)
    const said = reason ? `: ${reason.replace(/[.\s]+$/, '')}.` : '.'
    const { status } = response
    if (status === 429) {
      const seconds = waitOf(response.headers.get('retry-after')) ?? 0
      return no(
        new Fault('too-many', `The connected writer at ${host} asks to be asked less often${said}`),
        true,
        seconds > 0 ? seconds * 1000 : null,
      )
    }
    if (status === 401 || status === 403)
      return no(new Fault('not-linked', `The connected writer at ${host} does not accept the key${said}`))
    if (status === 404)
      return no(
        new Fault('not-found', `The connected writer at ${host} knows no such address or model${said}`),
      )
    return no(
      new Fault('bad-answer', `The connected writer at ${host} answered ${status}${said}`),
      status >= 500,
    )
  }

  #day(): string {
    return new Date(this.#now()).toISOString().slice(0, 10)
  }
}
