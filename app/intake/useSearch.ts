import { useDeferredValue, useMemo, useState } from 'react'
import type { Place } from '../../core/model'

/** A search for words in a text, and which of the places found is shown. */
export interface Search {
  typed: string
  /** Whether words are looked for at all. */
  on: boolean
  found: readonly Place[]
  at: number
  type: (words: string) => void
  /** Shows a place so many further on, and after the last the first. */
  go: (by: number) => void
}

export function useSearch(text: string): Search {
  const [typed, setTyped] = useState('')
  const [at, setAt] = useState(0)
  const words = useDeferredValue(typed.trim().toLowerCase())
  const found = useMemo(() => placesOf(text, words), [text, words])
  return {
    typed,
    on: words !== '',
    found,
    at,
    type: (wanted) => {
      setTyped(wanted)
      setAt(0)
    },
    go: (by) => {
      if (found.length) setAt((at + by + found.length) % found.length)
    },
  }
}

/** Where words stand in a text, without regard to case. */
function placesOf(text: string, words: string): Place[] {
  const found: Place[] = []
  const lower = text.toLowerCase()
  if (words.length < 2 || lower.length !== text.length) return found
  for (
    let at = lower.indexOf(words);
    at >= 0 && found.length < 500;
    at = lower.indexOf(words, at + words.length)
  )
    found.push({ start: at, end: at + words.length })
  return found
}
