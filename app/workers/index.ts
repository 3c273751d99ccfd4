import { proxy, wrap, type Remote } from 'comlink'
import { Fault } from '../../core/model'
import type { Answer, Tasks } from './tasks'
import type { Pictures } from './pictures'

let heavyWorker: Remote<Tasks> | null = null
let pictureWorker: Remote<Pictures> | null = null

/** The worker for reading, passages, captions and planning, started when first needed. */
export function heavy(): Remote<Tasks> {
  heavyWorker ??= wrap<Tasks>(
    new Worker(new URL('./heavy.ts', import.meta.url), { type: 'module', name: 'heavy' }),
  )
  return heavyWorker
}

/** The worker that crops pictures. */
export function pictures(): Remote<Pictures> {
  pictureWorker ??= wrap<Pictures>(
    new Worker(new URL('./pictures.ts', import.meta.url), { type: 'module', name: 'pictures' }),
  )
  return pictureWorker
}

/** A worker's answer, or its fault thrown. */
export async function unwrap<T>(answer: Promise<Answer<T>>): Promise<T> {
  const result = await answer
  if (result.ok) return result.value
  throw new Fault(result.fault.code, result.fault.message, result.fault.where)
}

export { proxy }
