import type { Look } from '../model'
import { colourOf, luminanceOf } from './colours'

/** A pixel's red, green and blue, 0 to 255. */
type Pixel = readonly [number, number, number]

/** Into how many groups the pixels of a picture are parted. */
const GROUPS = 10
/** How small a part of a picture a colour may be and still be one of a brand's. */
const LEAST_PART = 0.004

/**
 * The colours of a logo or another picture as a look: its lightest as the ground, its darkest as the ink, and of the
 * others the most vivid as the accent; found by median cut (Heckbert, "Color image quantization for frame buffer
 * display", 1982). `data` holds red, green, blue and opacity of each pixel; what is see-through counts as white.
 */
export function coloursOf(data: ArrayLike<number>): Pick<Look, 'ground' | 'ink' | 'accent'> {
  const pixels: Pixel[] = []
  for (let i = 0; i + 3 < data.length; i += 4) {
    const opacity = (data[i + 3] ?? 0) / 255
    const over = (channel: number): number => (data[i + channel] ?? 0) * opacity + 255 * (1 - opacity)
    pixels.push([over(0), over(1), over(2)])
  }
  const groups = parted(pixels)
    .filter((g) => g.length >= pixels.length * LEAST_PART)
    .map((g) => ({
      colour: colourOf(meanOf(g)),
      part: g.length / pixels.length,
      vivid: vividness(meanOf(g)),
    }))
    .sort((a, b) => luminanceOf(a.colour) - luminanceOf(b.colour))
  const ink = groups[0]?.colour ?? '#000000'
  const ground = groups.length > 1 ? (groups.at(-1)?.colour ?? '#ffffff') : '#ffffff'
  const [accent] = groups
    .slice(1, -1)
    .sort((a, b) => b.vivid * Math.cbrt(b.part) - a.vivid * Math.cbrt(a.part))
  return { ground, ink, accent: accent?.colour ?? ink }
}

/** Parts pixels into groups of like ones: the group whose colours reach furthest is cut at its median, again and again. */
function parted(pixels: readonly Pixel[]): Pixel[][] {
  const groups: Pixel[][] = pixels.length ? [[...pixels]] : []
  while (groups.length < GROUPS) {
    const reach = groups.map((g) => widestChannel(g))
    const widest = reach.reduce(
      (best, r, i) =>
        r.range * Math.cbrt(groups[i]?.length ?? 0) >
        (reach[best]?.range ?? 0) * Math.cbrt(groups[best]?.length ?? 0)
          ? i
          : best,
      0,
    )
    const { channel, range } = reach[widest] ?? { channel: 0, range: 0 }
    const group = groups[widest]
    if (!group || range < 8) break
    group.sort((a, b) => (a[channel] ?? 0) - (b[channel] ?? 0))
    const middle = cutOf(group, channel)
    groups.splice(widest, 1, group.slice(0, middle), group.slice(middle))
  }
  return groups
}

/** Where a sorted group is cut: at its median, moved to where the value changes, so that like pixels stay together. */
function cutOf(group: readonly Pixel[], channel: number): number {
  const value = (i: number): number => group[i]?.[channel] ?? 0
  const half = Math.floor(group.length / 2)
  for (let away = 0; away < group.length; away++)
    for (const at of [half - away, half + away])
      if (at > 0 && at < group.length && value(at) - value(at - 1) > 1) return at
  return Math.max(1, half)
}

function widestChannel(group: readonly Pixel[]): { channel: number; range: number } {
  const ranges = [0, 1, 2].map((channel) => {
    let [low, high] = [255, 0]
    for (const pixel of group) {
      low = Math.min(low, pixel[channel] ?? 0)
      high = Math.max(high, pixel[channel] ?? 0)
    }
    return high - low
  })
  const channel = ranges.indexOf(Math.max(...ranges))
  return { channel, range: ranges[channel] ?? 0 }
}

const meanOf = (group: readonly Pixel[]): Pixel =>
  [0, 1, 2].map((c) => group.reduce((sum, p) => sum + (p[c] ?? 0), 0) / group.length) as unknown as Pixel

const vividness = (pixel: Pixel): number => Math.max(...pixel) - Math.min(...pixel)
