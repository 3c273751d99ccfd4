import { line, path, rect, times } from './shapes'

/** The colours of a scene at one hour or season. */
export interface Light {
  /** How a title names it. */
  words: string
  sky: string
  far: string
  near: string
  ground: string
  /** What catches the eye. */
  accent: string
  pale: string
  ink: string
}

/** The hours and seasons in which things are drawn. */
export const LIGHTS: readonly Light[] = [
  {
    words: 'at dawn',
    sky: '#f3d9c4',
    far: '#c9a9a0',
    near: '#8d7f86',
    ground: '#6f6a5a',
    accent: '#c4553a',
    pale: '#fbeee0',
    ink: '#2e2a33',
  },
  {
    words: 'at noon',
    sky: '#cfe3ea',
    far: '#9dbb9f',
    near: '#6d8a55',
    ground: '#d8c79a',
    accent: '#d2672f',
    pale: '#fdfaf0',
    ink: '#22302e',
  },
  {
    words: 'in the evening',
    sky: '#e2a267',
    far: '#a4634c',
    near: '#5d4650',
    ground: '#3c3440',
    accent: '#f1d08a',
    pale: '#f7e3c0',
    ink: '#1e1a24',
  },
  {
    words: 'at night',
    sky: '#1f2b40',
    far: '#2e3c55',
    near: '#26303f',
    ground: '#161c27',
    accent: '#e8c662',
    pale: '#b9c6d6',
    ink: '#0d1118',
  },
  {
    words: 'in winter',
    sky: '#e4e9ec',
    far: '#b9c4ca',
    near: '#8f9ca3',
    ground: '#f7f8f7',
    accent: '#a8432d',
    pale: '#ffffff',
    ink: '#36424a',
  },
]

/** Where a thing is drawn: what lies behind and under it. `y` is the line on which it stands. */
export type Place = (light: Light, variant: number) => { behind: string; y: number }

export const shore: Place = (l, v) => {
  const sea = 380 + v * 34
  return {
    behind:
      rect(0, 0, 1200, 800, l.sky) +
      rect(0, sea, 1200, 800 - sea, l.far) +
      times(4, (i) =>
        line(
          80 + ((i * 331 + v * 117) % 800),
          sea + 30 + i * 26,
          260 + ((i * 331 + v * 117) % 800),
          sea + 30 + i * 26,
          l.pale,
          5,
        ),
      ) +
      path(
        `M0 ${620 - v * 12} Q${300 + v * 150} ${560 + v * 20} 1200 ${650 - v * 24} L1200 800 L0 800 Z`,
        l.ground,
      ),
    y: 640,
  }
}
export const hill: Place = (l, v) => ({
  behind:
    rect(0, 0, 1200, 800, l.sky) +
    path(
      `M0 ${420 + v * 20} L${220 + v * 110} ${170 + v * 22} L${560 + v * 90} ${430 - v * 14} L${900 - v * 60} ${230 + v * 30} L1200 430 L1200 800 L0 800 Z`,
      l.far,
    ) +
    path(
      `M0 ${v % 2 ? 470 : 600} Q600 ${430 + v * 40} 1200 ${v % 2 ? 610 : 480} L1200 800 L0 800 Z`,
      l.near,
    ) +
    path(`M0 ${680 - v * 14} Q${500 + v * 80} 600 1200 ${700 - v * 8} L1200 800 L0 800 Z`, l.ground),
  y: 650,
})
export const field: Place = (l, v) => ({
  behind:
    rect(0, 0, 1200, 800, l.sky) +
    rect(0, 430 + (v % 3) * 50, 1200, 400, l.near) +
    times(6, (i) =>
      path(
        `M${-200 + i * 260 + v * 30} 800 L${480 + i * 40} ${440 + (v % 3) * 50} L${500 + i * 40} ${440 + (v % 3) * 50} L${-100 + i * 260 + v * 30} 800 Z`,
        l.ground,
      ),
    ),
  y: 660,
})
export const table: Place = (l, v) => ({
  behind:
    rect(0, 0, 1200, 800, v % 2 ? l.far : l.sky) +
    (v === 1 || v === 3
      ? rect(v === 1 ? 760 : 90, 80, 330, 330, l.pale) + rect(v === 1 ? 915 : 245, 80, 16, 330, l.near)
      : '') +
    rect(0, 560 + (v % 3) * 30, 1200, 300, v === 4 ? l.near : l.ground),
  y: 600 + (v % 3) * 30,
})
export const wall: Place = (l, v) => ({
  behind:
    rect(0, 0, 1200, 800, v % 2 ? l.near : l.far) +
    times(8, (i) =>
      v % 3 === 0
        ? line(i * 170, 0, i * 170, 800, l.ground, 6)
        : v % 3 === 1
          ? line(0, i * 110, 1200, i * 110, l.sky, 5)
          : '',
    ) +
    (v === 2 ? rect(0, 640, 1200, 160, l.ground) : ''),
  y: 620,
})
export const town: Place = (l, v) => ({
  behind:
    rect(0, 0, 1200, 800, l.sky) +
    times(7, (i) => rect(i * 180 - 30, 240 + ((i * 97 + v * 131) % 190), 150, 600, i % 2 ? l.far : l.near)) +
    times(12, (i) => rect(20 + ((i * 181 + v * 70) % 1150), 330 + ((i * 53) % 150), 26, 34, l.accent)) +
    rect(0, 640, 1200, 160, l.ground),
  y: 660,
})
