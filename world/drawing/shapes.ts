/** What the pictures of the demo and of the stand-in services are drawn with: the colours of a shed and a hillside, and flat shapes. */
export const INK = '#22302e'
export const OAK = '#b98a4e'
export const LARCH = '#c46f46'
export const STEEL = '#8fa0a3'
export const RIVER = '#7fa6a8'
export const PAPER = '#efe7d6'
export const MOSS = '#6d7f4a'
export const RED = '#a8432d'
export const DARK = '#3c4a48'

export const rect = (x: number, y: number, w: number, h: number, fill: string, more = ''): string =>
  `<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="${fill}" ${more}/>`
export const path = (d: string, fill: string, stroke = 'none', width = 0): string =>
  `<path d="${d}" fill="${fill}" stroke="${stroke}" stroke-width="${width}" stroke-linecap="round" stroke-linejoin="round"/>`
export const line = (x1: number, y1: number, x2: number, y2: number, stroke: string, width: number): string =>
  `<line x1="${x1}" y1="${y1}" x2="${x2}" y2="${y2}" stroke="${stroke}" stroke-width="${width}" stroke-linecap="round"/>`
export const circle = (x: number, y: number, r: number, fill: string, stroke = 'none', width = 0): string =>
  `<circle cx="${x}" cy="${y}" r="${r}" fill="${fill}" stroke="${stroke}" stroke-width="${width}"/>`
export const times = (n: number, draw: (i: number) => string): string =>
  Array.from({ length: n }, (_, i) => draw(i)).join('')
export const hull = (fill: string, x = 0, y = 0, s = 1): string =>
  `<g transform="translate(${x} ${y}) scale(${s})">${path('M150 380 C300 640 860 640 1060 360 C860 420 320 440 150 380 Z', fill, INK, 8)}${path('M200 430 C380 560 800 560 1000 420', 'none', INK, 4)}${path('M240 480 C420 590 780 590 950 470', 'none', INK, 4)}</g>`

export type Scenes = Readonly<Record<string, { ground: string; draw: string }>>
