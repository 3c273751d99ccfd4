import { nanoid } from 'nanoid'
import { asFault, type Pipeline, type Run, type RunStep } from '../../../core/model'
import { nowIso } from '../clock'
import { all, commit, put, remove } from '../store'

const DAY = 86_400_000
/** So many runs of a pipeline are kept, the newest. */
const KEPT = 60

/** What a person has to put right: it is told in the run, and troubles nothing else. */
const EXPECTED: ReadonlySet<string> = new Set(['bad-request', 'no-chat'])

type About = Pick<RunStep, 'what' | 'piece' | 'title' | 'row'>

/** Writes down what a run of a pipeline does, step by step. */
export class RunLog {
  readonly #pipeline: Pipeline
  readonly #began = performance.now()
  readonly #at = nowIso()
  readonly #steps: RunStep[] = []
  #fault: unknown = null

  constructor(pipeline: Pipeline) {
    this.#pipeline = pipeline
  }

  note(about: About, came: RunStep['came'], message: string): void {
    this.#steps.push({ ...about, came, message, posts: 0, drip: null, milliseconds: 0 })
  }

  /**
   * Does a step and writes down what came of it. One that fails stops no other: a refusal is its message, and any
   * other fault is thrown once the run is over. Gives whether it was done.
   */
  async step(
    about: About,
    work: () => Promise<Pick<RunStep, 'message' | 'posts' | 'drip'>>,
  ): Promise<boolean> {
    const began = performance.now()
    const milliseconds = (): number => Math.round(performance.now() - began)
    try {
      const came = await work()
      this.#steps.push({ ...about, ...came, came: 'done', milliseconds: milliseconds() })
      return true
    } catch (error) {
      const fault = asFault(error)
      if (!EXPECTED.has(fault.code)) this.#fault ??= error
      this.#steps.push({
        ...about,
        came: 'failed',
        message: fault.message,
        posts: 0,
        drip: null,
        milliseconds: milliseconds(),
      })
      return false
    }
  }

  /** Does something whose success is written down elsewhere or not at all; a failure is written down. Gives whether it was done. */
  async attempt(about: About, work: () => Promise<unknown>): Promise<boolean> {
    try {
      await work()
      return true
    } catch (error) {
      const fault = asFault(error)
      if (!EXPECTED.has(fault.code)) this.#fault ??= error
      this.note(about, 'failed', fault.message)
      return false
    }
  }

  /** Keeps the run, where anything came of it, in the place of the oldest; throws the first fault that was none of a piece. */
  async end(): Promise<void> {
    const { id: pipeline, brand, version } = this.#pipeline
    const steps = this.#steps
    if (steps.length > 0) {
      const run: Run = {
        id: nanoid(),
        brand,
        pipeline,
        version,
        at: this.#at,
        milliseconds: Math.round(performance.now() - this.#began),
        steps,
      }
      const before = (await all('runs', 'pipeline', pipeline)).sort((a, b) => (a.at < b.at ? 1 : -1))
      const [last] = before
      const lately = last !== undefined && Date.parse(last.at) > Date.parse(this.#at) - DAY
      // What fails the same way round after round is told once a day.
      if (!lately || !failsAlike(last.steps, steps))
        await commit('machine', [
          put('runs', run),
          ...before.slice(KEPT - 1).map((r) => remove('runs', r.id)),
        ])
    }
    if (this.#fault !== null) throw this.#fault
  }
}

function failsAlike(before: readonly RunStep[], now: readonly RunStep[]): boolean {
  const told = (steps: readonly RunStep[]): string =>
    JSON.stringify(steps.map((s) => [s.what, s.piece, s.row, s.came, s.message]))
  return now.every((s) => s.came === 'failed') && told(before) === told(now)
}
