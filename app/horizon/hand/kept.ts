import { useEffect, useState } from 'react'
import { ownPictureHash, type HandWords } from '../../../core/model'

export const EMPTY_WORDS: HandWords = { title: null, text: '', link: null, picture: null }

/** Whether an address is whole, as a link of a post has to be. */
export function isAddress(text: string): boolean {
  return /^https?:\/\/[^\s.]+\.?\S+$/i.test(text) && URL.canParse(text)
}

/** Whether a picture can be had by an address: from the web, or out of the workspace itself. */
export function isPictureAddress(url: string): boolean {
  return isAddress(url) || ownPictureHash(url) !== null
}

/** Words without an address that is not whole yet. */
export function soundWords(words: HandWords): HandWords {
  return {
    ...words,
    link: words.link && isAddress(words.link) ? words.link : null,
    picture: words.picture && isPictureAddress(words.picture.url) ? words.picture : null,
  }
}

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
