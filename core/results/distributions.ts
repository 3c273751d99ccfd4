/** The natural logarithm of the gamma function, for x > 0 (Lanczos 1964, with the coefficients of Press et al., "Numerical Recipes"). */
export function logGamma(x: number): number {
  const series = LANCZOS.reduce((sum, c, i) => sum + c / (x + i + 1), 1.00000000019)
  const far = x + 5.5
  return (x + 0.5) * Math.log(far) - far + Math.log((2.506628274631 * series) / x)
}
const LANCZOS = [
  76.180091729471, -86.505320329417, 24.014098240831, -1.231739572450155, 0.120865097387e-2,
  -0.5395239384953e-5,
]

/** How much of a beta distribution lies below x: the regularised incomplete beta function, by Lentz's continued fraction. */
export function betaBelow(x: number, a: number, b: number): number {
  if (x <= 0) return 0
  if (x >= 1) return 1
  // The fraction converges fast on one side of the mean; the other side is its mirror.
  if (x > (a + 1) / (a + b + 2)) return 1 - betaBelow(1 - x, b, a)
  const front = Math.exp(logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x))
  return (front * fraction(x, a, b)) / a
}

function fraction(x: number, a: number, b: number): number {
  const away = (v: number): number => (Math.abs(v) < TINY ? TINY : v)
  let c = 1
  let d = 1 / away(1 - ((a + b) * x) / (a + 1))
  let product = d
  for (let m = 1; m <= TERMS; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m))
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1))
    for (const term of [even, odd]) {
      d = 1 / away(1 + term * d)
      c = away(1 + term / c)
      product *= d * c
    }
    if (Math.abs(d * c - 1) < CLOSE) break
  }
  return product
}
const TINY = 1e-300
const CLOSE = 1e-15
const TERMS = 500

/** The value below which a share p of a beta distribution lies. */
export function betaQuantile(p: number, a: number, b: number): number {
  return between(0, 1, (x) => betaBelow(x, a, b) < p)
}

/** The value below which a share p of Student's t distribution lies (Student 1908), for so many degrees of freedom. */
export function tQuantile(p: number, degrees: number): number {
  if (p < 0.5) return -tQuantile(1 - p, degrees)
  const tail = (t: number): number => betaBelow(degrees / (degrees + t * t), degrees / 2, 0.5) / 2
  let high = 2
  while (tail(high) > 1 - p) high *= 2
  return between(0, high, (t) => tail(t) > 1 - p)
}

/** Where something true of small values ceases to be true, by halving. */
function between(low: number, high: number, isBelow: (value: number) => boolean): number {
  let [from, to] = [low, high]
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (from + to) / 2
    if (isBelow(middle)) from = middle
    else to = middle
  }
  return (from + to) / 2
}
const HALVINGS = 60
