import { Resvg } from '@resvg/resvg-js'
import { greyOf, PRINT_SIDE, printOf } from '../core/pictures'
import { rect, type Scenes } from '../world'
import { HUTS } from './hutPictures'
import { YARD } from './yardPictures'

const SCENES: Scenes = { ...YARD, ...HUTS }

/** A scene as SVG, or null where there is none of that name. */
export function pictureSvg(name: string): string | null {
  const scene = SCENES[name]
  return scene
    ? `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1200 800" width="1200" height="800">${rect(0, 0, 1200, 800, scene.ground)}${scene.draw}</svg>`
    : null
}

const drawn = new Map<string, Buffer>()

/** A scene as PNG, drawn once. */
export function picturePng(name: string): Buffer | null {
  const svg = pictureSvg(name)
  if (!svg) return null
  const known = drawn.get(name)
  if (known) return known
  const png = Buffer.from(new Resvg(svg).render().asPng())
  drawn.set(name, png)
  return png
}

const prints = new Map<string, string | null>()

/** The print of a scene, as it is taken when somebody looks at it; null where there is none of that name. */
export function picturePrint(name: string): string | null {
  const svg = pictureSvg(name)
  if (!svg) return null
  const known = prints.get(name)
  if (known !== undefined) return known
  const squeezed = svg.replace(
    'width="1200" height="800"',
    `width="${PRINT_SIDE}" height="${PRINT_SIDE}" preserveAspectRatio="none"`,
  )
  const print = printOf(greyOf(new Uint8ClampedArray(new Resvg(squeezed).render().pixels)))
  prints.set(name, print)
  return print
}
