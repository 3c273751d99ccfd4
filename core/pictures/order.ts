import type { Look } from '../model'
import { firstSentence } from '../text'

/** How a picture that is made to order looks, where a brief says nothing of it. */
export const USUAL_PICTURE =
  'One thing, seen close, on a plain ground. Calm, flat colours; no people looking into the picture.'

/** The most of a passage that an order tells, in characters. */
const TOLD = 320

/** What a picture is ordered for. */
export interface OrderFor {
  /** The words of the passage that the post says, or else of its caption. */
  words: string
  /** Of the piece; empty where there is none. */
  title: string
  /** How pictures for its network look (`Brief.picture`). */
  brief: string | undefined
  look: Pick<Look, 'ground' | 'ink' | 'accent'>
}

/** The words of an order, for a person to look at and change: how it looks, what it shows, what it must not have. */
export function orderOf({ words, title, brief, look }: OrderFor): string {
  const said = words.replace(/\s+/g, ' ').trim()
  const whole = said.length <= TOLD ? said : firstSentence(said).slice(0, TOLD)
  return [
    brief?.trim() || USUAL_PICTURE,
    `It shows what this says: “${whole.replace(/[“”"]/g, '')}”${title ? `, from a text called “${title}”` : ''}.`,
    `Colours near ${look.ground}, ${look.ink} and ${look.accent}. No letters, no numbers, no logos, no frame.`,
  ].join('\n\n')
}

/** The longer side of a picture that is ordered, in pixels. */
const LONGEST = 1200

/** The size that is ordered for a shape, in pixels, both sides even. */
export function orderSize(shape: { width: number; height: number } | null): {
  width: number
  height: number
} {
  const { width, height } = shape ?? { width: 3, height: 2 }
  const scale = LONGEST / Math.max(width, height)
  const even = (n: number): number => Math.round((n * scale) / 2) * 2
  return { width: even(width), height: even(height) }
}
