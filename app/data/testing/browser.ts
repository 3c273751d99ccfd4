import 'fake-indexeddb/auto'
import { vi } from 'vitest'
import { TABLE_NAMES } from '../../../core/model'
import { readClock } from '../clock'
import { database } from '../database'
import { forget } from '../kept'

/*
 * What the data layer expects of a browser, for tests in Node: IndexedDB in memory, locks that one
 * tab always gets, and requests that go to a server from the application's origin.
 */

const turns = new Map<string, Promise<unknown>>()

/** Web Locks among the callers of this process: one after the other by name. */
async function request(name: string, ...rest: unknown[]): Promise<unknown> {
  const work = rest[rest.length - 1] as () => unknown
  const before = turns.get(name) ?? Promise.resolve()
  const mine = before.catch(() => undefined).then(work)
  turns.set(name, mine)
  return mine
}

vi.stubGlobal('navigator', { locks: { request } })

const real = globalThis.fetch

/** Sends the data layer's requests to a server, or nowhere where the port is null. */
export function connectTo(port: number | null): void {
  vi.stubGlobal('fetch', (path: string, init: RequestInit = {}) =>
    port === null || !path.startsWith('/')
      ? path.startsWith('/')
        ? Promise.reject(new TypeError('fetch failed'))
        : real(path, init)
      : real(`http://localhost:${port}${path}`, {
          ...init,
          headers: { ...(init.headers as Record<string, string>), origin: `http://localhost:${port}` },
        }),
  )
}

/** Empties every store. */
export async function emptyDatabase(): Promise<void> {
  const db = await database()
  const stores = [...TABLE_NAMES, 'blobs', 'columns'] as const
  const tx = db.transaction(stores, 'readwrite')
  for (const store of stores) await tx.objectStore(store).clear()
  await tx.done
  forget(TABLE_NAMES)
}

/** Sets the shared clock to a moment (ISO 8601), while every other request to the server fails. */
export async function setClock(moment: string): Promise<void> {
  const answer = {
    now: moment,
    offsetMilliseconds: Date.parse(moment) - Date.now(),
    demo: true,
    worldUrl: null,
  }
  vi.stubGlobal('fetch', (path: string) =>
    path === '/api/clock'
      ? Promise.resolve(new Response(JSON.stringify(answer)))
      : Promise.reject(new TypeError('fetch failed')),
  )
  await readClock()
}
