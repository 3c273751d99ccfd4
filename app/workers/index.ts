import { proxy, wrap, type Remote } from 'comlink'
import { Fault } from '../../core/model'
import type { Answer, Run } from './heavy'
import type { Remoted } from './tasks'
import type { Cards } from './cards'
import type { Pictures } from './pictures'

let heavyWorker: Remoted | null = null
let pictureWorker: Remote<Pictures> | null = null
let cardWorker: Remote<Cards> | null = null

/** The worker for reading, passages, captions and planning, started when first needed. Its faults are thrown here. */
export function heavy(): Remoted {
  heavyWorker ??= remoted(
    wrap<Run>(new Worker(new URL('./heavy.ts', import.meta.url), { type: 'module', name: 'heavy' })),
  )
  return heavyWorker
}

/** The tasks by their names, each of which asks the worker. */
function remoted(run: Remote<Run>): Remoted {
  const ask = async (name: keyof Remoted, ...args: unknown[]): Promise<unknown> => {
    const answer: Answer = await run(name, ...args)
    if (answer.ok) return answer.value
    throw new Fault(answer.fault.code, answer.fault.message, answer.fault.where)
  }
  return new Proxy({} as Remoted, {
    get:
      (_, name: keyof Remoted) =>
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
