import type { Hue } from '../../core/model'
import { INSIDES } from '../ui'
import type { BoardMark } from './draw'

/** The colours and faces that the board is drawn with. */
export interface Palette {
  paper: string
  raised: string
  ink: string
  soft: string
  hairline: string
  hatch: string
  water: string
  waterTint: string
  clay: string
  clayText: string
  plum: string
  moss: string
  amber: string
  mono: string
  body: string
  hue: (hue: Hue | null) => string
}

/** The colours and faces of the theme as they are now, for the canvas. */
export function readPalette(element: HTMLElement): Palette {
  const style = getComputedStyle(element)
  const color = (name: string): string => style.getPropertyValue(`--chakra-colors-${name}`).trim()
  const face = (name: string): string => style.getPropertyValue(`--chakra-fonts-${name}`).trim()
  const hues = new Map<string, string>()
  return {
    paper: color('paper'),
    raised: color('raised'),
    ink: color('ink'),
    soft: color('soft'),
    hairline: color('hairline'),
    hatch: color('hatch'),
    water: color('water'),
    waterTint: color('water-tint'),
    clay: color('clay'),
    clayText: color('clay-text'),
    plum: color('plum'),
    moss: color('moss'),
    amber: color('amber'),
    mono: face('mono'),
    body: face('body'),
    hue: (hue) => {
      const key = hue ? `hue-${hue}` : 'water'
      let found = hues.get(key)
      if (!found) hues.set(key, (found = color(key)))
      return found
    },
  }
}

const OUTLINE = new Path2D('M12 2.5C12 2.5 5 10.5 5 15.5a7 7 0 0 0 14 0C19 10.5 12 2.5 12 2.5Z')
const HALF = new Path2D('M5.2 14.2h13.6a7 7 0 1 1-13.6 0Z')
const CRACK = new Path2D('M12 6l-1.8 4.4 3.6 2.6-2.8 3.4 1.6 4')
const TICK = new Path2D('M15.5 21.2l1.9 1.8 4-4.2')

/** Drawn drops, kept by look and size: a board of thousands copies a few dozen pictures. */
export class Drops {
  readonly #kept = new Map<string, HTMLCanvasElement>()
  readonly #palette: Palette
  readonly #ratio: number

  constructor(palette: Palette, ratio: number) {
    this.#palette = palette
    this.#ratio = ratio
  }

  get(mark: Pick<BoardMark, 'state' | 'hue' | 'inside'>, size: number): HTMLCanvasElement {
    const key = `${mark.state} ${mark.hue} ${mark.inside} ${size}`
    let drawn = this.#kept.get(key)
    if (!drawn) this.#kept.set(key, (drawn = this.#draw(mark, size)))
    return drawn
  }

  #draw(
    { state, hue, inside }: Pick<BoardMark, 'state' | 'hue' | 'inside'>,
    size: number,
  ): HTMLCanvasElement {
    const canvas = document.createElement('canvas')
    canvas.width = canvas.height = Math.ceil((size + 4) * this.#ratio)
    const c = canvas.getContext('2d') as CanvasRenderingContext2D
    const color = state === 'failed' ? this.#palette.plum : this.#palette.hue(hue)
    c.scale(canvas.width / 26, canvas.width / 26)
    c.translate(1, 1)
    c.strokeStyle = c.fillStyle = color
    c.lineWidth = size < 16 ? 2.2 : 1.6
    c.lineJoin = 'round'
    if (state === 'set aside') c.globalAlpha = 0.35
    if (state === 'for review') {
      c.save()
      c.strokeStyle = this.#palette.clay
      c.setLineDash([2.4, 2.6])
      c.beginPath()
      c.arc(12, 13, 11, 0, Math.PI * 2)
      c.stroke()
      c.restore()
    }
    const half = state === 'approved' || state === 'handed over'
    if (half) c.fill(HALF)
    if (state === 'published') c.fill(OUTLINE)
    c.stroke(OUTLINE)
    if (state === 'failed') c.stroke(CRACK)
    if (size >= 16 && inside !== 'plain' && state !== 'failed') {
      c.strokeStyle = half || state === 'published' ? this.#palette.raised : color
      c.lineWidth = 1.3
      c.stroke(new Path2D(INSIDES[inside]))
    }
    if (state === 'handed over' && size >= 16) {
      c.strokeStyle = this.#palette.moss
      c.lineWidth = 2
      c.stroke(TICK)
    }
    return canvas
  }
}
