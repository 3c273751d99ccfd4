import type { Look } from '../model'
import { between, contrast, LEAST_CONTRAST, luminanceOf } from './colours'

/** A colour as a page's style sheets use it: for what, and on which property (`background-color`, `color`, `--brand`). */
export interface UsedColour {
  selector: string
  property: string
  /** `#rrggbb`. */
  colour: string
}

/** The page at large. */
const PAGE = /^(?:html|body|:root|html body)$/
/** What a page colours in what is its own: what is to be pressed and followed, and what calls itself so. */
const CALLS = /\b(?:a|button)\b|link|btn|button|cta|accent|brand|primary|highlight|active/i
/** How far apart the channels of a colour are, 0 to 255, for it to count as one, and to be more than a grey. */
const VIVID = 40
const TINTED = 8

/**
 * The colours of a page as a look: the ground and the words of the page at large, and of its vivid colours the one that it uses most
 * for what is to be pressed; `theme` is the one that the page names for the browser's frame, if it does. Null where it has no colours
 * of its own.
 */
export function coloursOfPage(
  used: readonly UsedColour[],
  theme: string | null,
): Pick<Look, 'ground' | 'ink' | 'accent'> | null {
  if (used.length === 0 && theme === null) return null
  const atLarge = (property: RegExp): string | undefined =>
    used.findLast((u) => property.test(u.property) && u.selector.split(',').some((s) => PAGE.test(s.trim())))
      ?.colour
  const ground = atLarge(/^background/) ?? '#ffffff'
  const readable = (c: string): boolean => contrast(c, ground) >= LEAST_CONTRAST
  const words = used.filter(
    (u) => u.property === 'color' && readable(u.colour) && vividness(u.colour) < VIVID,
  )
  const ink = atLarge(/^color$/) ?? mostOf(words) ?? (luminanceOf(ground) > 0.18 ? '#1a1a1a' : '#f5f5f5')
  const weights = new Map<string, number>()
  const count = (colour: string, weight: number): void => {
    if (vividness(colour) < TINTED || colour === ground || colour === ink) return
    weights.set(colour, (weights.get(colour) ?? 0) + weight * Math.sqrt(vividness(colour)))
  }
  for (const { selector, property, colour } of used)
    count(colour, CALLS.test(property.startsWith('--') ? property : selector) ? 3 : 1)
  if (theme !== null) count(theme, 5)
  const byWeight = [...weights].sort((a, b) => b[1] - a[1]).map(([colour]) => colour)
  // A muted page is marked in what it has, one in a single colour in a softer one of its words.
  const accent = byWeight.find((c) => vividness(c) >= VIVID) ?? byWeight[0]
  return { ground, ink, accent: accent ?? between(ink, ground, 0.25) }
}

function mostOf(used: readonly UsedColour[]): string | undefined {
  const counts = new Map<string, number>()
  for (const { colour } of used) counts.set(colour, (counts.get(colour) ?? 0) + 1)
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0]
}

function vividness(colour: string): number {
  const channels = [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16))
  return Math.max(...channels) - Math.min(...channels)
}
