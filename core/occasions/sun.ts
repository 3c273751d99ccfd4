import { SUN_TURNS, type SunTurn } from '../model'

/*
 * Equinoxes and solstices after Meeus, Astronomical Algorithms (second edition, 1998), chapter 27: the mean moment as a
 * polynomial of the year, and 24 periodic terms. Good to less than a minute for the years 1951 to 2050, to a few minutes
 * for those around.
 */

/** The mean moment of each turn, in Julian ephemeris days, by powers of (year − 2000) / 1000. */
const MEAN: Readonly<Record<SunTurn, readonly number[]>> = {
  'March equinox': [2451623.80984, 365242.37404, 0.05169, -0.00411, -0.00057],
  'June solstice': [2451716.56767, 365241.62603, 0.00325, 0.00888, -0.0003],
  'September equinox': [2451810.21715, 365242.01767, -0.11575, 0.00337, 0.00078],
  'December solstice': [2451900.05952, 365242.74049, -0.06223, -0.00823, 0.00032],
}

/** Amplitude, phase and speed of each term, the angles in degrees, the speed a Julian century. */
const TERMS: readonly (readonly [number, number, number])[] = [
  [485, 324.96, 1934.136],
  [203, 337.23, 32964.467],
  [199, 342.08, 20.186],
  [182, 27.85, 445267.112],
  [156, 73.14, 45036.886],
  [136, 171.52, 22518.443],
  [77, 222.54, 65928.934],
  [74, 296.72, 3034.906],
  [70, 243.58, 9037.513],
  [58, 119.81, 33718.147],
  [52, 297.17, 150.678],
  [50, 21.02, 2281.226],
  [45, 247.54, 29929.562],
  [44, 325.15, 31555.956],
  [29, 60.93, 4443.417],
  [18, 155.12, 67555.328],
  [17, 288.79, 4562.452],
  [16, 198.04, 62894.029],
  [14, 199.76, 31436.921],
  [12, 95.39, 14577.848],
  [12, 287.11, 31931.756],
  [12, 320.81, 34777.259],
  [9, 227.73, 1222.114],
  [8, 15.45, 16859.074],
]

/** Seconds by which the time of the planets runs ahead of the clocks' (ΔT), about this quarter of a century. */
const AHEAD = 70
const DAY = 86_400_000
/** The Julian day of the beginning of 1970. */
const EPOCH = 2440587.5

const cosine = (degrees: number): number => Math.cos((degrees * Math.PI) / 180)

/** The moment of a turn of the sun in a year, in milliseconds since 1970. */
export function sunTurn(turn: SunTurn, year: number): number {
  const y = (year - 2000) / 1000
  const mean = MEAN[turn].reduceRight((sum, c) => sum * y + c, 0)
  const t = (mean - 2451545) / 36525
  const w = 35999.373 * t - 2.47
  const speed = 1 + 0.0334 * cosine(w) + 0.0007 * cosine(2 * w)
  const periodic = TERMS.reduce((sum, [a, b, c]) => sum + a * cosine(b + c * t), 0)
  return (mean + (0.00001 * periodic) / speed - EPOCH) * DAY - AHEAD * 1000
}

/** A turn of the sun by its name, whatever its capitals; null for any other words. */
export function sunTurnNamed(words: string): SunTurn | null {
  return SUN_TURNS.find((t) => t.toLowerCase() === words.toLowerCase()) ?? null
}
