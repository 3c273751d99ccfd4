import { expose } from 'comlink'
import { asFault, type FaultBody } from '../../core/model'
import { tasks } from './tasks'

/** What crosses to the page: a value, or a fault as data, since classes do not cross. */
export type Answer = { ok: true; value: unknown } | { ok: false; fault: FaultBody }

/** Does a task by its name. */
async function run(name: keyof typeof tasks, ...args: unknown[]): Promise<Answer> {
  try {
    const task = tasks[name] as (...args: unknown[]) => unknown
    return { ok: true, value: await task(...args) }
  } catch (error) {
    return { ok: false, fault: asFault(error).toJSON() }
  }
}

export type Run = typeof run

expose(run)
