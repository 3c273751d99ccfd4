import { useEffect, useState } from 'react'

/** A value as it was once it has not changed for a while; for work that follows typing. */
export function useLater<T>(value: T, milliseconds: number): T {
  const [later, setLater] = useState(value)
  useEffect(() => {
    const timer = setTimeout(() => setLater(value), milliseconds)
    return () => clearTimeout(timer)
  }, [value, milliseconds])
  return later
}
