import { useEffect, useState } from 'react'

/** A form's draft that is there again after a reload, until it is forgotten; another key is another draft. */
export function useKept<T extends object>(key: string, first: T): [T, (value: T) => void, () => void] {
  const [draft, setDraft] = useState({ key, value: keptUnder(key, first), done: false })
  const mine = draft.key === key ? draft : { key, value: keptUnder(key, first), done: false }
  if (mine !== draft) setDraft(mine)
  useEffect(() => {
    if (!draft.done) localStorage.setItem(draft.key, JSON.stringify(draft.value))
  }, [draft])
  const forget = (): void => {
    setDraft({ ...mine, done: true })
    localStorage.removeItem(key)
  }
  return [mine.value, (value) => setDraft({ ...mine, value }), forget]
}

function keptUnder<T extends object>(key: string, first: T): T {
  try {
    return { ...first, ...(JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<T>) }
  } catch {
    return first
  }
}
