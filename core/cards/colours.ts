import type { Look } from '../model'

/** The least contrast of words with what they stand on: WCAG 2.2, success criterion 1.4.3. */
export const LEAST_CONTRAST = 4.5

type Rgb = readonly [number, number, number]

const rgb = (hex: string): Rgb => [
  parseInt(hex.slice(1, 3), 16),
  parseInt(hex.slice(3, 5), 16),
  parseInt(hex.slice(5, 7), 16),
]
/** Red, green and blue, 0 to 255, as a colour is written. */
export const colourOf = (c: Rgb): string =>
  `#${c.map((v) => Math.round(v).toString(16).padStart(2, '0')).join('')}`

/** How light a colour is, from 0 to 1: the relative luminance of WCAG 2.2. */
export function luminanceOf(colour: string): number {
  const [r, g, b] = rgb(colour).map((v) => {
    const c = v / 255
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
  }) as unknown as Rgb
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

/** The contrast of two colours, from 1 to 21, after WCAG 2.2. */
export function contrast(a: string, b: string): number {
  const [light, dark] = [luminanceOf(a), luminanceOf(b)].sort((x, y) => y - x) as [number, number]
  return (light + 0.05) / (dark + 0.05)
}

/** The least contrast of a code with what is about it, so that it is read also in bad light. */
const CODE_CONTRAST = 7

const BLACK = '#000000'
const WHITE = '#ffffff'

/** A colour between two, `part` of the way from the first. */
export function between(a: string, b: string, part: number): string {
  const [x, y] = [rgb(a), rgb(b)]
  return colourOf([0, 1, 2].map((i) => (x[i] ?? 0) + ((y[i] ?? 0) - (x[i] ?? 0)) * part) as unknown as Rgb)
}

/** A colour itself where it is readable on another one; else moved towards black or white until it is. */
export function readable(colour: string, on: string): string {
  const far = contrast(WHITE, on) >= contrast(BLACK, on) ? WHITE : BLACK
  for (let step = 0; step < 20; step++) {
    const moved = between(colour, far, step / 20)
    if (contrast(moved, on) >= LEAST_CONTRAST) return moved
  }
  return far
}

/** A ground with what is written and marked on it. */
export interface Ground {
  ground: string
  ink: string
  /** The accent as words are set in it. */
  accent: string
  /** Lines and small shapes, which nobody has to read. */
  quiet: string
  /** What lies behind words that stand out; null where nothing there would be seen and leave them readable. */
  marker: string | null
}

/** The grounds of a look: plain, turned round, and in the accent. All words on them are readable. */
export interface Palette {
  plain: Ground
  deep: Ground
  bright: Ground
}

function groundOf(ground: string, ink: string, accent: string): Ground {
  const readableInk = readable(ink, ground)
  return {
    ground,
    ink: readableInk,
    accent: readable(accent, ground),
    quiet: between(ground, readableInk, 0.25),
    marker: markerOn(ground, readableInk, accent),
  }
}

/** How far the colour behind marked words is from the ground, at most. */
const MARKER = 0.4
/** The contrast of a marker with its ground at which it is seen well, and the least at which it is seen at all. */
const SEEN = [1.35, 1.15] as const

/**
 * What lies behind marked words: the ground moved towards the accent as far as the ink stays readable on it; towards white or
 * black where the accent is too near the ground to be told from it.
 */
function markerOn(ground: string, ink: string, accent: string): string | null {
  const parts = Array.from({ length: 10 }, (_, i) => MARKER * (1 - i / 10))
  const moved = [accent, WHITE, BLACK].flatMap((colour) => parts.map((part) => between(ground, colour, part)))
  const readableOn = moved.filter((colour) => contrast(colour, ink) >= LEAST_CONTRAST)
  const seen = SEEN.map((least) => readableOn.find((colour) => contrast(colour, ground) >= least))
  return seen.find((colour) => colour !== undefined) ?? null
}

/** The grounds of a look. Where its ink is hard to read on its ground, it is the ground that gives way. */
export function paletteOf({ ground, ink, accent }: Pick<Look, 'ground' | 'ink' | 'accent'>): Palette {
  const plain = contrast(ground, ink) >= LEAST_CONTRAST ? ground : readable(ground, ink)
  return {
    plain: groundOf(plain, ink, accent),
    deep: groundOf(ink, plain, between(accent, plain, 0.35)),
    bright: groundOf(accent, plain, plain),
  }
}

/** The colours of a code: those of a look, the lighter one about it, where they are far enough apart; else white and black. */
export function codeColours({ ground, ink }: Pick<Look, 'ground' | 'ink'>): { light: string; dark: string } {
  if (contrast(ground, ink) < CODE_CONTRAST) return { light: WHITE, dark: BLACK }
  return luminanceOf(ground) > luminanceOf(ink) ? { light: ground, dark: ink } : { light: ink, dark: ground }
}
