import type { Cut } from '../../core/model'

/** The longer side on which faces are looked for, in pixels: those of one in twenty of it are found. */
export const FACES_LOOKED_AT = 400

/** How much larger each round looks than the one before, and over how many pixels it steps, at the smallest size. */
const LARGER = 1.2
const STEP = 1.5
/** Where fewer of its pixels are edges than this part, nothing is looked for. */
const EDGES = 0.1
/** A face is found at neighbouring places; what is found once only is mostly none. */
const TIMES = 2

/** What the library puts into the page's window, as far as it is used. */
interface Tracking {
  ViolaJones: {
    classifiers: Record<string, Float64Array>
    detect(
      pixels: ArrayLike<number>,
      width: number,
      height: number,
      initialScale: number,
      scaleFactor: number,
      stepSize: number,
      edgesDensity: number,
      classifier: Float64Array | undefined,
    ): { x: number; y: number; width: number; height: number; total: number }[]
  }
}

interface FaceFinder {
  /** The faces of people who look this way in a picture of at most about `FACES_LOOKED_AT` pixels, as fractions of it, from the brows to the chin. */
  find(pixels: { width: number; height: number; data: ArrayLike<number> }): Cut[]
}

let finder: Promise<FaceFinder> | undefined

/**
 * Finds faces by a cascade of simple features (Viola and Jones 2001; the trees are OpenCV's), read when it is first wanted, and
 * again where that failed.
 */
export function faceFinder(): Promise<FaceFinder> {
  return (finder ??= open().catch((error: unknown) => {
    finder = undefined
    throw error
  }))
}

async function open(): Promise<FaceFinder> {
  // The library keeps itself in the window, which workers and Node do not have.
  const scope = globalThis as { window?: unknown; navigator?: unknown; tracking?: Tracking }
  const lent = ['window', 'navigator'].filter((name) => !(name in scope))
  if (lent.includes('window')) scope.window = globalThis
  if (lent.includes('navigator')) scope.navigator = {}
  await import('tracking/build/tracking-min')
  await import('tracking/build/data/face-min')
  if (lent.includes('window')) delete scope.window
  if (lent.includes('navigator')) delete scope.navigator
  const { tracking } = scope
  if (!tracking) throw new Error('What finds faces could not be opened.')
  const { ViolaJones } = tracking
  return {
    find: ({ width, height, data }) =>
      ViolaJones.detect(data, width, height, 1, LARGER, STEP, EDGES, ViolaJones.classifiers['face'])
        .filter((face) => face.total >= TIMES)
        .map((face) => ({
          x: face.x / width,
          y: face.y / height,
          width: face.width / width,
          height: face.height / height,
        })),
  }
}
