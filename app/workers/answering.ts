import { asFault, type FaultBody } from '../../core/model'

/** Tasks of a worker, by their names. */
type TaskList = Record<string, (...args: never[]) => unknown>

/** Tasks as they are asked for from elsewhere: each as a promise. */
export type Remoted<T> = {
  [K in keyof T]: T[K] extends (...args: infer A) => infer R ? (...args: A) => Promise<Awaited<R>> : never
}

/** What crosses to the page: a value, or a fault as data, since classes do not cross. */
export type Answer = { ok: true; value: unknown } | { ok: false; fault: FaultBody }

/** What does a task by its name. */
export type Run = (name: string, ...args: unknown[]) => Promise<Answer>

export function answering(tasks: TaskList): Run {
  return async (name, ...args) => {
    try {
      const task = tasks[name] as (...args: unknown[]) => unknown
      return { ok: true, value: await task(...args) }
    } catch (error) {
      return { ok: false, fault: asFault(error).toJSON() }
    }
  }
}
