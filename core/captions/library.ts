import { CLOSINGS } from './closings'
import { FRAMES } from './frames'

let words: string | null = null

/** All words of the library's openers and closing lines as one text, which need no ground in a piece. */
export function frameWords(): string {
  words ??= [
    ...Object.values(FRAMES).flatMap((list) => list.map((f) => f.text)),
    ...Object.values(CLOSINGS).flatMap((list) => list.map((c) => c.text)),
    'Link in the first comment. Link in the profile. in three four five six seven eight steps',
  ]
    .join('\n')
    .replace(/\{\w+\}/g, '')
  return words
}
