import {
  circle,
  DARK,
  INK,
  LARCH,
  line,
  MOSS,
  OAK,
  PAPER,
  path,
  rect,
  RED,
  RIVER,
  STEEL,
  times,
  type Scenes,
} from '../world'

const hut = (x: number, y: number, s = 1): string =>
  `<g transform="translate(${x} ${y}) scale(${s})">${rect(0, 60, 200, 120, '#8d8678')}${path('M-20 70 L100 -20 L220 70 Z', DARK)}${rect(80, 110, 44, 70, '#5b3d27')}${rect(150, 6, 22, 50, '#6f6a60')}</g>`

/** The pictures of the huts' articles. */
export const HUTS: Scenes = {
  'pack-floor': {
    ground: '#c9a877',
    draw:
      times(6, (i) => line(0, i * 140, 1200, i * 140 + 8, '#b08f5f', 6)) +
      times(4, (i) => rect(90 + i * 190, 90, 130, 130, [RED, MOSS, RIVER, '#e0b74c'][i] ?? RED, 'rx="18"')) +
      times(5, (i) => rect(90 + i * 150, 300, 100, 70, PAPER, 'rx="10"')) +
      times(3, (i) => circle(140 + i * 160, 480, 46, STEEL, INK, 5)) +
      rect(90, 600, 520, 60, DARK, 'rx="30"') +
      path('M860 120 L1100 120 L1140 660 L820 660 Z', LARCH, INK, 8) +
      rect(880, 60, 200, 90, '#9c5433', 'rx="24"') +
      rect(900, 420, 160, 160, '#9c5433', 'rx="16"'),
  },
  'sky-layers': {
    ground: '#b9cfdd',
    draw:
      times(5, (i) => `<ellipse cx="${120 + i * 260}" cy="110" rx="190" ry="20" fill="#f4f6f4"/>`) +
      times(4, (i) => `<ellipse cx="${200 + i * 290}" cy="250" rx="150" ry="44" fill="#e2e8ea"/>`) +
      times(
        3,
        (i) =>
          circle(180 + i * 360, 400, 90, '#c7d2d8') +
          circle(280 + i * 360, 380, 110, '#d4dde1') +
          circle(380 + i * 360, 410, 80, '#c7d2d8'),
      ) +
      path('M0 640 L300 520 L560 610 L860 480 L1200 600 L1200 800 L0 800 Z', MOSS) +
      hut(800, 380, 0.6),
  },
  'boot-heel': {
    ground: '#e3dccb',
    draw:
      path('M300 120 L560 120 L580 420 L960 520 L980 640 L260 640 Z', '#7a5232', INK, 8) +
      path('M300 120 L380 120 L380 600 L280 600 Z', '#d8a07a', INK, 6) +
      circle(330, 420, 54, RED) +
      rect(240, 640, 760, 60, DARK, 'rx="14"') +
      times(5, (i) => line(580, 180 + i * 46, 660, 200 + i * 46, PAPER, 9)),
  },
  'hut-bunks': {
    ground: '#8a6f52',
    draw:
      times(2, (row) =>
        times(
          3,
          (i) =>
            rect(60 + i * 250, 110 + row * 240, 220, 150, '#b58f63', `stroke="${INK}" stroke-width="6"`) +
            rect(72 + i * 250, 190 + row * 240, 196, 56, [RED, MOSS, RIVER][i] ?? RED, 'rx="12"'),
        ),
      ) +
      rect(880, 260, 220, 320, DARK, 'rx="16"') +
      rect(930, 400, 120, 110, '#e0862f', 'rx="8"') +
      rect(960, 0, 60, 270, '#4b5654') +
      times(8, (i) => rect(90 + i * 92, 660, 56, 70, '#4b3524', 'rx="12"')),
  },
  'child-stones': {
    ground: '#9fb58a',
    draw:
      path('M0 520 C300 440 600 640 1200 480 L1200 700 C700 800 400 640 0 720 Z', RIVER) +
      times(9, (i) =>
        circle(520 + i * 66, 470 - i * 8, 18 + (i % 3) * 6, i % 2 ? '#d9d3c4' : '#a8a193', INK, 4),
      ) +
      circle(360, 300, 62, '#e3b58f') +
      path('M270 470 C270 340 460 340 460 470 L440 540 L290 540 Z', RED) +
      rect(280, 530, 170, 50, DARK, 'rx="24"') +
      path('M300 270 C300 210 420 210 424 280', LARCH),
  },
  'spring-cup': {
    ground: '#6f7f5e',
    draw:
      path('M80 200 L420 120 L520 380 L160 460 Z', '#8b867a', INK, 6) +
      path('M640 140 L1120 220 L1060 480 L600 400 Z', '#9a958a', INK, 6) +
      path('M540 330 C560 460 540 560 560 700', 'none', '#cfe6ec', 44) +
      path('M440 560 L700 560 L670 740 L470 740 Z', STEEL, INK, 8) +
      path('M700 600 C790 600 790 700 684 700', 'none', INK, 14),
  },
  'cairn-fog': {
    ground: '#d5dadb',
    draw:
      times(6, (i) => rect(0, i * 130, 1200, 60, '#e3e7e7')) +
      times(4, (i) =>
        rect(250 - i * -10, 600 - i * 74, 200 - i * 34, 66, i % 2 ? '#7d7a73' : '#938f86', 'rx="20"'),
      ) +
      times(4, (i) => rect(860 - i * -6, 400 - i * 40, 110 - i * 20, 36, '#b4b5b1', 'rx="12"')) +
      times(6, (i) => `<ellipse cx="${520 + i * 40}" cy="${720 - i * 34}" rx="18" ry="9" fill="#8f9494"/>`) +
      path('M760 520 C830 500 830 580 770 590', 'none', RED, 10),
  },
  'warden-donkey': {
    ground: '#cfdcc6',
    draw:
      path('M0 800 L1200 300 L1200 800 Z', MOSS) +
      hut(880, 130, 0.9) +
      path('M330 470 L620 440 L640 580 L320 600 Z', '#8f8577', INK, 6) +
      path('M610 450 L720 340 L770 380 L660 520 Z', '#8f8577', INK, 6) +
      path('M720 350 L720 260 L750 340 Z', '#8f8577') +
      times(4, (i) => rect(340 + i * 78, 580, 30, 120, '#7b7264')) +
      rect(380, 400, 90, 130, OAK, `stroke="${INK}" stroke-width="5"`) +
      rect(500, 390, 90, 130, OAK, `stroke="${INK}" stroke-width="5"`),
  },
  'path-profile': {
    ground: PAPER,
    draw:
      path(
        'M60 640 L180 520 L300 430 L420 460 L520 360 L640 300 L760 340 L860 260 L960 420 L1060 560 L1150 650',
        'none',
        INK,
        9,
      ) +
      times(12, (i) =>
        hut(70 + i * 88, [560, 470, 390, 400, 330, 270, 260, 270, 220, 340, 470, 560][i] ?? 400, 0.22),
      ) +
      line(60, 700, 1150, 700, RED, 6) +
      times(7, (i) => line(60 + i * 181, 685, 60 + i * 181, 715, RED, 6)),
  },
}
