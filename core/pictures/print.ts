/** How wide and high a picture is made before its print is taken, in pixels. */
export const PRINT_SIDE = 32
/** So many waves each way are looked at, from none on. */
const WAVES = 8
/** The waves across and down that a print is made of: all of these but the flat one, and one more for the sixty-fourth bit. */
const LOOKED_AT: readonly (readonly [number, number])[] = [
  ...Array.from(
    { length: WAVES * WAVES - 1 },
    (_, i) => [(i + 1) % WAVES, Math.floor((i + 1) / WAVES)] as const,
  ),
  [WAVES, 0],
]
/** A picture whose slow waves come to less than this together, in the unit of its lightness, is flat. */
const FLAT = 1

/** The first waves of a discrete cosine transform (DCT-II) over `PRINT_SIDE` values: `COSINES[u][x]`. */
const COSINES = Array.from({ length: WAVES + 1 }, (_, u) =>
  Array.from({ length: PRINT_SIDE }, (_, x) => Math.cos(((2 * x + 1) * u * Math.PI) / (2 * PRINT_SIDE))),
)

/**
 * The print of a picture, by which like ones are known: which of its 64 slow waves stand above
 * their median (the DCT hash of Zauner, “Implementation and benchmarking of perceptual image hash functions”, 2010).
 * `grey` holds the lightness of `PRINT_SIDE` by `PRINT_SIDE` pixels row by row, 0 to 255. Sixteen hexadecimal digits; null for a
 * picture so flat that nothing could be told by it.
 */
export function printOf(grey: ArrayLike<number>): string | null {
  if (grey.length !== PRINT_SIDE * PRINT_SIDE)
    throw new RangeError(`A print is taken of ${PRINT_SIDE} by ${PRINT_SIDE} pixels, not of ${grey.length}.`)
  const down = Array.from({ length: WAVES }, (_, v) =>
    Array.from({ length: PRINT_SIDE }, (_, x) => {
      let sum = 0
      for (let y = 0; y < PRINT_SIDE; y++) sum += (grey[y * PRINT_SIDE + x] ?? 0) * (COSINES[v]?.[y] ?? 0)
      return sum
    }),
  )
  const waves = LOOKED_AT.map(
    ([u, v]) => down[v]?.reduce((sum, value, x) => sum + value * (COSINES[u]?.[x] ?? 0), 0) ?? 0,
  )
  const strength = Math.hypot(...waves) / (PRINT_SIDE * (PRINT_SIDE / 2))
  if (strength < FLAT) return null
  const sorted = [...waves].sort((a, b) => a - b)
  const median = ((sorted[31] ?? 0) + (sorted[32] ?? 0)) / 2
  let hex = ''
  for (let at = 0; at < waves.length; at += 4)
    hex += waves
      .slice(at, at + 4)
      .reduce((digit, wave) => digit * 2 + (wave > median ? 1 : 0), 0)
      .toString(16)
  return hex
}

/** The lightness of pixels given as red, green, blue and opacity, on white ground (ITU-R BT.601, section 2.5.1). */
export function greyOf(pixels: Uint8ClampedArray): Float64Array {
  const grey = new Float64Array(pixels.length / 4)
  for (let i = 0; i < grey.length; i++) {
    const [r = 0, g = 0, b = 0, a = 0] = pixels.subarray(i * 4, i * 4 + 4)
    grey[i] = ((0.299 * r + 0.587 * g + 0.114 * b) * a) / 255 + 255 - a
  }
  return grey
}
