import { Fault } from '../../core/model'
import type { Clock } from '../clock'
import type { Settings } from '../store/settings'

const KEPT = 'clock-offset'
const FARTHEST = 400 * 86_400_000

/** The demo's clock: it can be moved forward, never back, and stays ahead after a restart. */
export class MovableClock implements Clock {
  readonly demo = true
  #offset = 0
  readonly #settings: () => Pick<Settings, 'read' | 'keep'>

  constructor(settings: () => Pick<Settings, 'read' | 'keep'>) {
    this.#settings = settings
  }

  get offset(): number {
    return this.#offset
  }

  now(): number {
    return Date.now() + this.#offset
  }

  /** Reads how far it was moved. */
  async load(): Promise<void> {
    this.#offset = Number((await this.#settings().read(KEPT)) ?? 0)
  }

  /** Moves it forward to a moment. It never goes back. */
  async moveTo(moment: number): Promise<void> {
    const ahead = moment - this.now()
    if (ahead > FARTHEST) throw new Fault('bad-request', 'The clock moves at most 400 days at once.', 'to')
    if (ahead <= 0) return
    const offset = Math.ceil(this.#offset + ahead)
    await this.#settings().keep(KEPT, String(offset))
    this.#offset = offset
  }
}
