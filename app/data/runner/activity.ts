import { useSyncExternalStore } from 'react'

/** Long work that is going on, as people are told about it. */
export interface Activity {
  label: string
  done: number
  all: number
  cancel: (() => void) | null
}

let current: Activity | null = null
const listeners = new Set<() => void>()

/** Says what is going on now, or that nothing is. */
export function setActivity(activity: Activity | null): void {
  current = activity
  for (const listener of listeners) listener()
}

export function useActivity(): Activity | null {
  return useSyncExternalStore(
    (listener) => {
      listeners.add(listener)
      return () => listeners.delete(listener)
    },
    () => current,
  )
}
