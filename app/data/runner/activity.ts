import { useSyncExternalStore } from 'react'

/** Long work that is going on, as people are told about it. */
export interface Activity {
  label: string
  done: number
  all: number
  cancel: (() => void) | null
}

/** What is going on, the outermost first: a jump in time, and within it a visit. */
let running: readonly Activity[] = []
const listeners = new Set<() => void>()

function set(next: readonly Activity[]): void {
  running = next
  for (const listener of listeners) listener()
}

/**
 * Shows that something long goes on while `work` runs; `show` says how far it is. What runs
 * within other work is not shown beside it.
 */
export async function during<T>(
  label: string,
  work: (show: (done: number, all: number) => void) => Promise<T>,
  cancel: (() => void) | null = null,
): Promise<T> {
  let mine: Activity = { label, done: 0, all: 0, cancel }
  set([...running, mine])
  try {
    return await work((done, all) => {
      const next = { ...mine, done, all }
      set(running.map((a) => (a === mine ? next : a)))
      mine = next
    })
  } finally {
    set(running.filter((a) => a !== mine))
  }
}

export function useActivity(): Activity | null {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => running[0] ?? null,
  )
}
