import { placesOf } from '../text'
import type { Block } from './fit'

/** A part of a line whose words stand out, by its characters, the end not included. */
export interface MarkedPart {
  line: number
  from: number
  to: number
}

/**
 * The parts of a block's lines that stand out, of phrases that do. A word that had to be cut because it is wider than its card
 * does not. Lines hold the characters of the text in order, without the spaces at their ends.
 */
export function markedParts(block: Block, marked: readonly string[]): MarkedPart[] {
  const places = placesOf(marked, block.text)
  let end = 0
  return places.length === 0
    ? []
    : block.lines.flatMap(({ text }, line) => {
        const start = block.text.indexOf(text, end)
        end = start + text.length
        return places.flatMap(({ from, to }) => {
          const part = { line, from: Math.max(0, from - start), to: Math.min(text.length, to - start) }
          return part.from < part.to ? [part] : []
        })
      })
}
