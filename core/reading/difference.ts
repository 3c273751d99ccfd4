import { diffWordsWithSpace } from 'diff'

/** A run of a text that stayed, went or came. */
export interface Difference {
  kind: 'same' | 'gone' | 'new'
  text: string
}

/** Fewer words than this that stayed between two changes read better as part of one change. */
const ISLAND = 4

/**
 * What changed between two texts, word by word (Myers 1986), so that it can be read: a few words
 * that stayed in the middle of a change are told as part of it. What went stands before what came.
 * Joined without the new runs it is the old text, without the gone ones the new text.
 */
export function differences(before: string, after: string): Difference[] {
  const found: Difference[] = []
  let gone = ''
  let fresh = ''
  const close = (): void => {
    if (gone) found.push({ kind: 'gone', text: gone })
    if (fresh) found.push({ kind: 'new', text: fresh })
    gone = ''
    fresh = ''
  }
  const parts = diffWordsWithSpace(before, after)
  parts.forEach((part, i) => {
    if (part.removed) gone += part.value
    else if (part.added) fresh += part.value
    else {
      const island = part.value.trim().split(/\s+/).length < ISLAND && !part.value.includes('\n\n')
      if ((gone || fresh) && i < parts.length - 1 && island) {
        gone += part.value
        fresh += part.value
        return
      }
      close()
      found.push({ kind: 'same', text: part.value })
    }
  })
  close()
  return found
}

/** Something that stayed, cut at words to what stands around the changes beside it; `reach` in characters. */
export function shortened(text: string, reach: number, sides: { after: boolean; before: boolean }): string {
  if (text.length <= reach * 2.2) return text
  const head = sides.after ? text.slice(0, reach).replace(/\S*$/, '') : ''
  const tail = sides.before ? text.slice(-reach).replace(/^\S*\s/, '') : ''
  return `${head}… ${tail}`
}
