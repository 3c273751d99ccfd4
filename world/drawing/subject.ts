import type { Light, Place } from './places'

/** A thing that is drawn: the words by which it is found, where it stands, and how it looks on a line at y, about x. */
export interface Subject {
  /** One title a light. */
  title: string
  words: readonly string[]
  place: Place
  draw: (l: Light, y: number, variant: number) => string
}

export const at = (x: number, y: number, scale: number, drawn: string): string =>
  `<g transform="translate(${x} ${y}) scale(${scale})">${drawn}</g>`
/** Where the eye is led, by variant: the middle, a side, near or far. */
export const SPOTS = [
  [600, 1],
  [380, 1.25],
  [830, 0.8],
  [520, 1.5],
  [760, 1.1],
] as const
export const placed = (variant: number, y: number, drawn: string): string => {
  const [x, scale] = SPOTS[variant] ?? SPOTS[0]
  return at(x, y, scale, drawn)
}
