import type { Cut } from '../model'

/** Pixels as a canvas gives them: red, green, blue and how much covers, 0 to 255 each, row by row. */
interface Pixels {
  width: number
  height: number
  data: ArrayLike<number>
}

/** The longer side on which lines of text are looked for, in pixels: letters of one in eighty of it are found. */
export const LOOKED_AT = 640

/** How much lighter or darker the next but one pixel is at the edge of a stroke, of 255. */
const EDGE = 48
/** Strokes of a line are no further apart than this, in pixels: about a space between words. */
const APART = 14
/** How high a line may be, in pixels, and how many times as long as it is high at least. */
const LOWEST = 5
const HIGHEST = 90
const LONG = 2.2
/**
 * How many edges a row of a line crosses for each height of it, at least, and altogether: a letter has two, and is about half as
 * wide as high; three letters are a word.
 */
const DENSE = 1.1
const CROSSED = 6
/** So many of a line's rows cross edges. */
const FULL = 0.6

/**
 * The lines of text in a picture, by the edges of their strokes: along a row of text light and dark follow each other closely
 * (Zhong, Karu and Jain, "Locating text in complex color images", 1995); rows are joined over the spaces between letters (run
 * length smoothing; Wong, Casey and Wahl 1982), and of what hangs together that is kept which is as long and as dense as a line.
 * The picture is at most about `LOOKED_AT` pixels long.
 */
export function textLines({ width, height, data }: Pixels): Cut[] {
  const edges = edgesOf({ width, height, data })
  const found = componentsOf(smoothed(edges, width, height), width, height)
  return found.flatMap(({ left, top, right, bottom }) => {
    const [w, h] = [right - left + 1, bottom - top + 1]
    if (h < LOWEST || h > HIGHEST || w < LONG * h) return []
    let crossed = 0
    let rows = 0
    for (let y = top; y <= bottom; y++) {
      let count = 0
      for (let x = left; x <= right; x++) if (edges[y * width + x] && !edges[y * width + x - 1]) count++
      crossed += count
      if (count >= (0.5 * w) / h) rows++
    }
    if (crossed < DENSE * w || crossed < CROSSED * h || rows < FULL * h) return []
    return [{ x: left / width, y: top / height, width: w / width, height: h / height }]
  })
}

/** Where strokes begin and end along each row. */
function edgesOf({ width, height, data }: Pixels): Uint8Array {
  const light = new Float32Array(width * height)
  for (let i = 0; i < light.length; i++) {
    const [r = 0, g = 0, b = 0] = [data[4 * i], data[4 * i + 1], data[4 * i + 2]]
    light[i] = 0.299 * r + 0.587 * g + 0.114 * b
  }
  const edges = new Uint8Array(width * height)
  for (let y = 0; y < height; y++)
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x
      if (Math.abs((light[at + 1] ?? 0) - (light[at - 1] ?? 0)) >= EDGE) edges[at] = 1
    }
  return edges
}

/** Edges of a row with what lies between them, where they are near enough to be of one line. */
function smoothed(edges: Uint8Array, width: number, height: number): Uint8Array {
  const joined = new Uint8Array(edges.length)
  for (let y = 0; y < height; y++) {
    let last = -Infinity
    for (let x = 0; x < width; x++) {
      if (!edges[y * width + x]) continue
      const from = x - last <= APART ? last : x
      joined.fill(1, y * width + from, y * width + x + 1)
      last = x
    }
  }
  return joined
}

interface Component {
  left: number
  top: number
  right: number
  bottom: number
}

/** What hangs together, side by side or one above the other. */
function componentsOf(mask: Uint8Array, width: number, height: number): Component[] {
  const seen = new Uint8Array(mask.length)
  const found: Component[] = []
  for (let start = 0; start < mask.length; start++) {
    if (!mask[start] || seen[start]) continue
    const box = { left: width, top: height, right: 0, bottom: 0 }
    const open = [start]
    seen[start] = 1
    while (open.length > 0) {
      const at = open.pop() as number
      const [x, y] = [at % width, Math.floor(at / width)]
      box.left = Math.min(box.left, x)
      box.right = Math.max(box.right, x)
      box.top = Math.min(box.top, y)
      box.bottom = Math.max(box.bottom, y)
      for (const [next, is] of [
        [at - 1, x > 0],
        [at + 1, x < width - 1],
        [at - width, y > 0],
        [at + width, y < height - 1],
      ] as const)
        if (is && mask[next] && !seen[next]) {
          seen[next] = 1
          open.push(next)
        }
    }
    found.push(box)
  }
  return found
}
