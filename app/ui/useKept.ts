import { useEffect, useState } from 'react'

/** A form's draft that is there again after a reload, until it is forgotten. */
export function useKept<T extends object>(key: string, first: T): [T, (value: T) => void, () => void] {
  const [value, setValue] = useState<T>(() => {
    try {
      return { ...first, ...(JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<T>) }
    } catch {
      return first
    }
  })
  const [done, setDone] = useState(false)
  useEffect(() => {
    if (!done) localStorage.setItem(key, JSON.stringify(value))
  }, [key, value, done])
  const forget = (): void => {
    setDone(true)
    localStorage.removeItem(key)
  }
  return [value, setValue, forget]
}
