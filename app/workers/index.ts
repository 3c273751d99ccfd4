import { proxy, wrap, type Remote } from 'comlink'
import { Fault } from '../../core/model'
import type { Remoted, Run } from './answering'
import type { ResultsTasks } from './resultsTasks'
import type { Tasks } from './tasks'
import type { Cards } from './cards'
import type { Pictures } from './pictures'

let heavyWorker: Remoted<Tasks> | null = null
let resultsWorker: Remoted<ResultsTasks> | null = null
let pictureWorker: Remote<Pictures> | null = null
let cardWorker: Remote<Cards> | null = null

/** The worker for reading, passages, captions and planning, started when first needed. Its faults are thrown here. */
export function heavy(): Remoted<Tasks> {
  heavyWorker ??= remoted<Tasks>(
    wrap<Run>(new Worker(new URL('./heavy.ts', import.meta.url), { type: 'module', name: 'heavy' })),
  )
  return heavyWorker
}

/** The worker for what posts earned. It begins at once, since it knows nothing of language. Its faults are thrown here. */
export function results(): Remoted<ResultsTasks> {
  resultsWorker ??= remoted<ResultsTasks>(
    wrap<Run>(
      new Worker(new URL('./resultsWorker.ts', import.meta.url), { type: 'module', name: 'results' }),
    ),
  )
  return resultsWorker
}

/** Tasks by their names, each of which asks the worker. */
function remoted<T>(run: Remote<Run>): Remoted<T> {
  const ask = async (name: string, ...args: unknown[]): Promise<unknown> => {
    const answer = await run(name, ...args)
    if (answer.ok) return answer.value
    throw new Fault(answer.fault.code, answer.fault.message, answer.fault.where)
  }
  return new Proxy({} as Remoted<T>, {
    get:
      (_, name: string) =>
      (...args: unknown[]) =>
        ask(name, ...args),
  })
}

/** The worker that crops pictures. */
export function pictures(): Remote<Pictures> {
  pictureWorker ??= wrap<Pictures>(
    new Worker(new URL('./pictures.ts', import.meta.url), { type: 'module', name: 'pictures' }),
  )
  return pictureWorker
}

/** The worker that draws cards, with the typefaces that come with Dripline. */
export function cards(): Remote<Cards> {
  cardWorker ??= wrap<Cards>(
    new Worker(new URL('./cards.ts', import.meta.url), { type: 'module', name: 'cards' }),
  )
  return cardWorker
}

export { proxy }
