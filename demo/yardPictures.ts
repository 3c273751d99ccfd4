import {
  INK,
  OAK,
  LARCH,
  STEEL,
  RIVER,
  PAPER,
  MOSS,
  RED,
  DARK,
  rect,
  path,
  line,
  circle,
  times,
  hull,
  type Scenes,
} from '../world'

/**
 * The pictures of the demo's articles, drawn for it: flat shapes in the colours of a boat shed,
 * 1200 by 800. Every one has a ground, a subject and nothing else.
 */
export const YARD: Scenes = {
  'seam-section': {
    ground: PAPER,
    draw:
      rect(80, 240, 480, 360, OAK) +
      rect(640, 240, 480, 360, OAK) +
      path('M560 240 L640 240 L606 600 L594 600 Z', '#d9c9a4') +
      times(5, (i) => circle(600, 560 - i * 42, 16 + i * 3, '#f4efe2', INK, 4)) +
      path('M556 240 L644 240 L632 330 L568 330 Z', RED) +
      times(
        6,
        (i) =>
          line(110, 290 + i * 55, 530, 280 + i * 55, '#a3773d', 5) +
          line(670, 285 + i * 55, 1090, 292 + i * 55, '#a3773d', 5),
      ),
  },
  'mallet-iron': {
    ground: '#d8d2c0',
    draw:
      rect(0, 560, 1200, 240, OAK) +
      rect(200, 260, 420, 120, LARCH, 'rx="20"') +
      rect(200, 260, 60, 120, DARK) +
      rect(560, 260, 60, 120, DARK) +
      rect(380, 380, 44, 260, '#8a5a33', 'rx="12"') +
      times(
        3,
        (i) =>
          rect(760 + i * 120, 300, 40, 200, STEEL, 'rx="10"') +
          path(
            `M${750 + i * 120} 500 L${810 + i * 120} 500 L${800 + i * 120 + i * 14} 640 L${760 + i * 120 - i * 14} 640 Z`,
            '#6f8083',
          ),
      ),
  },
  'steam-box': {
    ground: RIVER,
    draw:
      rect(0, 620, 1200, 180, DARK) +
      rect(180, 320, 840, 150, OAK) +
      times(4, (i) => line(180, 350 + i * 32, 1020, 350 + i * 32, '#96703c', 4)) +
      line(280, 470, 220, 640, INK, 18) +
      line(340, 470, 400, 640, INK, 18) +
      line(860, 470, 800, 640, INK, 18) +
      line(920, 470, 980, 640, INK, 18) +
      path('M100 620 L100 520 Q100 480 150 480 L190 480 L190 620 Z', STEEL, INK, 6) +
      times(5, (i) =>
        path(`M${1030 + i * 22} ${380 - i * 30} q30 -40 0 -80 q-30 -40 0 -80`, 'none', '#f2f5f2', 14),
      ),
  },
  'frame-bend': {
    ground: '#cfdcd6',
    draw:
      path('M120 640 C360 120 840 120 1080 640', 'none', LARCH, 44) +
      path('M170 650 C390 200 810 200 1030 650', 'none', '#7b5333', 20) +
      times(
        3,
        (i) =>
          `<g transform="translate(${310 + i * 280} ${300 - (i === 1 ? 70 : 0)})">${rect(-16, -70, 32, 190, STEEL)}${rect(-50, -70, 100, 22, STEEL)}${rect(-50, 98, 100, 22, STEEL)}</g>`,
      ) +
      rect(520, 620, 160, 60, INK),
  },
  'two-boards': {
    ground: '#dfe3da',
    draw:
      rect(140, 80, 420, 640, '#d2ab72') +
      times(26, (i) =>
        line(170 + ((i * 53) % 360), 110 + i * 23, 200 + ((i * 53) % 360), 124 + i * 23, '#f0d6a8', 6),
      ) +
      rect(640, 80, 420, 640, LARCH) +
      times(9, (i) => rect(660 + i * 45, 80, 14, 640, i % 2 ? '#dd9a63' : '#a5512d')),
  },
  'board-end': {
    ground: '#b8c4bf',
    draw:
      rect(120, 220, 960, 360, '#e2c493') +
      times(14, (i) =>
        path(
          `M120 ${600 - i * 30} Q600 ${300 - i * 34} 1080 ${600 - i * 30}`,
          'none',
          i > 10 ? '#e9d9b8' : '#a9713f',
          10,
        ),
      ) +
      rect(0, 0, 1200, 220, '#b8c4bf') +
      rect(0, 580, 1200, 220, '#b8c4bf') +
      rect(0, 0, 120, 800, '#b8c4bf') +
      rect(1080, 0, 120, 800, '#b8c4bf') +
      rect(120, 220, 960, 360, 'none', `stroke="${INK}" stroke-width="10"`),
  },
  'screwdriver-plank': {
    ground: LARCH,
    draw:
      times(
        3,
        (i) =>
          rect(0, i * 270, 1200, 250, i % 2 ? '#c98b57' : '#bd7a48') + rect(0, i * 270 + 250, 1200, 20, INK),
      ) +
      `<g transform="rotate(-32 600 400)">${rect(560, 380, 380, 34, STEEL)}${path('M900 340 Q1080 300 1120 397 Q1080 494 900 454 Z', RED, INK, 6)}</g>` +
      circle(560, 470, 46, '#6d3d22') +
      circle(560, 470, 24, INK),
  },
  'rot-map': {
    ground: PAPER,
    draw:
      hull('#f8f3e6', 0, -20) +
      (
        [
          [190, 380],
          [300, 412],
          [520, 410],
          [700, 405],
          [900, 385],
          [1040, 350],
          [610, 560],
        ] as const
      )
        .map(([x, y]) => circle(x, y, 26, 'none', RED, 12))
        .join('') +
      times(9, (i) => line(140 + i * 115, 90, 120 + i * 115, 190, RIVER, 9)),
  },
  'brush-tin': {
    ground: MOSS,
    draw:
      rect(300, 330, 360, 380, STEEL, 'rx="16"') +
      `<ellipse cx="480" cy="330" rx="180" ry="54" fill="#d59b3c" stroke="${INK}" stroke-width="10"/>` +
      `<g transform="rotate(18 560 280)">${rect(280, 250, 330, 56, '#8a5a33', 'rx="26"')}${rect(610, 236, 60, 84, STEEL)}${path('M670 236 L830 226 L830 330 L670 320 Z', '#3a2c1e')}</g>` +
      path('M840 300 q40 90 0 150 q-40 -60 0 -150', '#d59b3c'),
  },
  'dew-curve': {
    ground: '#eef1ea',
    draw:
      rect(520, 100, 190, 560, '#f0cf7e') +
      line(120, 660, 1100, 660, INK, 8) +
      line(120, 660, 120, 100, INK, 8) +
      path('M120 560 C320 540 420 260 620 220 C800 190 900 480 1100 560', 'none', RED, 16) +
      path('M120 400 C400 380 800 420 1100 400', 'none', RIVER, 12) +
      times(12, (i) => line(160 + i * 80, 660, 160 + i * 80, 685, INK, 6)),
  },
  'calendar-boat': {
    ground: '#c9b99a',
    draw:
      rect(200, 80, 800, 640, '#fbf8f0', 'rx="12"') +
      rect(200, 80, 800, 100, RED, 'rx="12"') +
      times(27, (i) => {
        const x = 230 + (i % 7) * 108,
          y = 210 + Math.floor(i / 7) * 122
        return (
          rect(x, y, 92, 104, '#ece4d0') +
          line(x + 16, y + 18, x + 76, y + 86, DARK, 9) +
          line(x + 76, y + 18, x + 16, y + 86, DARK, 9)
        )
      }) +
      rect(878, 576, 92, 104, '#ece4d0') +
      path('M888 630 Q924 680 960 630 Z', RIVER, INK, 4) +
      line(924, 630, 924, 590, INK, 4) +
      path('M926 592 L952 622 L926 622 Z', LARCH),
  },
  'hours-bars': {
    ground: '#e4e8e0',
    draw:
      [
        [820, STEEL],
        [700, RIVER],
        [610, MOSS],
        [480, LARCH],
        [230, RED],
      ]
        .map(([w, c], i) => rect(180, 130 + i * 115, Number(w), 76, String(c), 'rx="6"'))
        .join('') + line(160, 90, 160, 710, INK, 10),
  },
  'tool-row': {
    ground: '#d9cdb4',
    draw:
      rect(0, 620, 1200, 180, '#a57c4b') +
      path('M70 560 L70 490 L200 450 L230 560 Z', DARK) +
      rect(110, 560, 100, 20, STEEL) +
      line(290, 580, 290, 380, INK, 22) +
      line(290, 470, 380, 360, STEEL, 18) +
      rect(430, 330, 24, 250, STEEL) +
      rect(422, 480, 40, 110, RED, 'rx="10"') +
      rect(490, 380, 14, 200, STEEL) +
      rect(480, 490, 34, 100, RED, 'rx="10"') +
      path('M570 330 L620 330 L660 580 L600 580 Z', STEEL) +
      rect(585, 560, 90, 40, OAK) +
      rect(760, 360, 26, 230, OAK) +
      rect(710, 330, 130, 56, DARK, 'rx="8"') +
      times(4, (i) => rect(900, 560 - i * 54, 22, 50, i % 2 ? '#f1d27a' : OAK)) +
      rect(980, 520, 160, 66, '#7d868a', 'rx="6"'),
  },
  'block-plane': {
    ground: RIVER,
    draw:
      rect(0, 560, 1200, 240, OAK) +
      path('M360 550 L360 450 L520 430 L600 360 L720 420 L860 450 L860 550 Z', DARK) +
      rect(350, 540, 520, 24, STEEL) +
      path('M560 440 L620 360 L660 380 L610 450 Z', STEEL) +
      path(
        'M610 350 C560 240 440 240 430 320 C420 390 520 390 510 330 C505 300 470 300 468 325',
        'none',
        '#ecd29c',
        20,
      ),
  },
  'scarf-joint': {
    ground: PAPER,
    draw:
      path('M60 340 L900 340 L300 460 L60 460 Z', OAK, INK, 6) +
      path('M1140 340 L912 340 L312 460 L1140 460 Z', LARCH, INK, 6) +
      line(300, 540, 900, 540, RED, 8) +
      line(300, 515, 300, 565, RED, 8) +
      line(900, 515, 900, 565, RED, 8) +
      line(980, 340, 980, 460, DARK, 8),
  },
  'scarf-jig': {
    ground: '#aebbb2',
    draw:
      rect(0, 640, 1200, 160, '#7b5333') +
      times(4, (i) =>
        rect(
          100 + i * 170,
          560 - i * 74,
          1000 - i * 170,
          68,
          i % 2 ? LARCH : OAK,
          `stroke="${INK}" stroke-width="5"`,
        ),
      ) +
      `<g transform="translate(330 330) rotate(-24)">${path('M0 80 L0 20 L120 0 L170 -50 L260 20 L300 80 Z', DARK)}${rect(-10, 78, 320, 18, STEEL)}</g>`,
  },
  'cover-boat': {
    ground: '#cdd8de',
    draw:
      rect(0, 640, 1200, 160, '#e9eef0') +
      hull(LARCH, 60, 60, 0.9) +
      path('M170 420 L600 170 L1040 400 L960 440 L600 240 L260 460 Z', MOSS, INK, 6) +
      times(16, (i) => circle((i * 173) % 1200, (i * 97) % 600, 9, '#ffffff')),
  },
  'bilge-dry': {
    ground: '#8d6a44',
    draw:
      times(6, (i) => rect(i * 205, 0, 190, 800, i === 3 ? INK : '#a57c4b')) +
      path('M180 340 L460 340 L420 640 L220 640 Z', STEEL, INK, 8) +
      `<ellipse cx="320" cy="340" rx="140" ry="36" fill="#5d7679" stroke="${INK}" stroke-width="8"/>` +
      rect(700, 430, 240, 130, '#e0b74c', 'rx="34"') +
      times(8, (i) => circle(730 + (i % 4) * 56, 465 + Math.floor(i / 4) * 56, 10, '#b98f2e')),
  },
  'slip-morning': {
    ground: '#dfe6e0',
    draw:
      rect(0, 520, 1200, 280, RIVER) +
      path('M0 330 L1200 700 L1200 800 L0 800 Z', '#b7ab92') +
      path('M0 620 L1200 760 L1200 800 L0 800 Z', RIVER) +
      times(4, (i) => line(80 + i * 260, 640 + i * 34, 240 + i * 260, 660 + i * 34, '#cfe0de', 7)) +
      `<g transform="rotate(17 420 420)">${hull(LARCH, 60, 94, 0.62)}</g>` +
      line(192, 258, 40, 400, INK, 5) +
      circle(980, 170, 70, '#e7c77a'),
  },
  'bailer-bucket': {
    ground: '#c9b48a',
    draw:
      times(5, (i) => line(0, 150 + i * 150, 1200, 140 + i * 152, '#a98f60', 10)) +
      path('M180 260 L500 260 L456 640 L224 640 Z', STEEL, INK, 8) +
      path('M180 260 C240 120 440 120 500 260', 'none', INK, 10) +
      rect(620, 470, 220, 150, '#e2b54a', 'rx="34"') +
      times(7, (i) => circle(650 + (i % 4) * 50, 505 + Math.floor(i / 4) * 60, 11, '#c4922f')) +
      path('M900 360 L1100 360 L1060 560 L940 560 Z', '#efe7d6', INK, 8) +
      rect(1084, 300, 34, 150, '#8a5a33', 'rx="14"'),
  },
  'oar-pair': {
    ground: '#e4ddc9',
    draw:
      rect(120, 250, 700, 60, OAK, 'rx="30"') +
      path('M800 240 L1090 210 L1110 350 L800 320 Z', OAK, INK, 5) +
      rect(360, 242, 110, 76, '#6b4327', 'rx="10"') +
      rect(120, 545, 680, 34, '#d9b77c', 'rx="17"') +
      path('M790 548 C900 500 1040 500 1110 530 L1110 596 C1040 622 900 622 790 578 Z', '#d9b77c', INK, 5) +
      rect(360, 532, 110, 60, '#6b4327', 'rx="10"') +
      line(860, 562, 1090, 563, '#a98149', 5),
  },
  'oar-balance': {
    ground: RIVER,
    draw:
      `<g transform="rotate(-4 600 330)">${rect(60, 310, 860, 34, '#e3c793', 'rx="17"')}${path('M900 312 C980 280 1090 280 1150 306 L1150 348 C1090 372 980 372 900 342 Z', '#e3c793', INK, 5)}${rect(300, 298, 120, 60, '#6b4327', 'rx="10"')}</g>` +
      path('M500 800 L500 420 C500 344 580 344 580 420 L580 800 Z', '#d8a07a', INK, 8) +
      path('M514 404 C522 378 558 378 566 404', 'none', INK, 5),
  },
  'boat-price-tag': {
    ground: '#d7e0d2',
    draw:
      hull('#e8dfca', 0, -40) +
      line(200, 600, 1040, 600, INK, 18) +
      circle(420, 650, 56, INK) +
      circle(420, 650, 22, STEEL) +
      circle(800, 650, 56, INK) +
      circle(800, 650, 22, STEEL) +
      line(1000, 360, 1060, 200, INK, 5) +
      path('M980 80 L1120 80 L1120 220 L1050 250 L980 220 Z', '#fbf8f0', INK, 6) +
      circle(1050, 150, 34, 'none', RED, 12),
  },
  'cost-stack': {
    ground: '#f0e6cf',
    draw:
      rect(0, 680, 1200, 120, '#8a5a33') +
      times(
        12,
        (i) =>
          `<ellipse cx="400" cy="${670 - i * 42}" rx="150" ry="34" fill="${i % 2 ? '#d9a441' : '#c68f2d'}" stroke="${INK}" stroke-width="6"/>`,
      ) +
      times(
        3,
        (i) =>
          `<ellipse cx="820" cy="${670 - i * 42}" rx="110" ry="28" fill="${i % 2 ? '#d9a441' : '#c68f2d'}" stroke="${INK}" stroke-width="6"/>`,
      ) +
      path('M680 420 L960 420', 'none', LARCH, 26),
  },
  'slip-open': {
    ground: '#dbe7ea',
    draw:
      rect(0, 600, 1200, 200, RIVER) +
      path('M0 420 L1200 640 L1200 700 L0 640 Z', '#b7ab92') +
      `<g transform="rotate(8 400 400)">${hull(MOSS, 40, 60, 0.6)}</g>` +
      line(60, 120, 1140, 170, INK, 5) +
      times(9, (i) =>
        path(
          `M${100 + i * 118} ${124 + i * 5} L${160 + i * 118} ${127 + i * 5} L${130 + i * 118} ${200 + i * 5} Z`,
          [RED, '#e7c77a', RIVER][i % 3] ?? RED,
        ),
      ) +
      times(
        6,
        (i) =>
          circle(800 + i * 58, 560 + (i % 2) * 18, 20, DARK) +
          rect(784 + i * 58, 580 + (i % 2) * 18, 32, 60, LARCH, 'rx="10"'),
      ),
  },
  'price-board': {
    ground: '#d9cdb3',
    draw:
      rect(180, 120, 640, 520, DARK, 'rx="12"') +
      rect(180, 120, 640, 520, 'none', `stroke="${OAK}" stroke-width="26" rx="12"`) +
      times(
        5,
        (i) =>
          line(250, 220 + i * 84, 520, 220 + i * 84, PAPER, 12) +
          line(620, 220 + i * 84, 740, 220 + i * 84, '#e7c77a', 12),
      ) +
      rect(860, 300, 280, 100, LARCH, 'rx="18"') +
      rect(976, 400, 40, 260, '#8a5a33', 'rx="12"'),
  },
  'slip-stone': {
    ground: '#cfd9d8',
    draw:
      rect(0, 470, 1200, 330, RIVER) +
      path('M0 200 L1200 620 L1200 800 L0 800 Z', '#a9a295') +
      times(28, (i) =>
        path(
          `M${(i * 137) % 1150} ${300 + ((i * 89) % 470)} l60 -14 l34 40 l-52 36 l-50 -20 Z`,
          i % 2 ? '#8f897d' : '#c2bcae',
          INK,
          3,
        ),
      ) +
      line(0, 330, 1200, 700, DARK, 18) +
      line(0, 470, 1200, 790, DARK, 18),
  },
  'seam-payed': {
    ground: OAK,
    draw:
      rect(0, 0, 1200, 360, '#b28248') +
      rect(0, 430, 1200, 370, '#a5763e') +
      rect(0, 360, 700, 70, RED) +
      rect(700, 360, 500, 70, '#efe5cc') +
      path('M620 160 L760 160 L730 410 L650 410 Z', STEEL, INK, 6) +
      rect(640, 0, 100, 170, '#6b4327', 'rx="24"'),
  },
  'launch-slip': {
    ground: '#e7e3d3',
    draw:
      rect(0, 480, 1200, 320, RIVER) +
      hull(LARCH, 0, 20) +
      times(5, (i) =>
        path(`M${i * 260 - 40} ${600 + (i % 2) * 30} q65 -40 130 0 q65 40 130 0`, 'none', '#cfe0de', 10),
      ) +
      rect(560, 120, 14, 280, DARK) +
      rect(1040, 200, 36, 400, OAK) +
      times(7, (i) => line(1040, 240 + i * 50, 1076, 240 + i * 50, INK, 5)),
  },
  'plane-shavings': {
    ground: '#cdbf9f',
    draw:
      rect(0, 560, 1200, 240, OAK) +
      times(9, (i) =>
        path(`M${120 + i * 110} 540 c-60 -90 60 -140 70 -50 c8 70 -80 60 -50 -10`, 'none', '#f0dfb4', 14),
      ) +
      path('M300 520 L320 400 L460 380 L520 300 L640 400 L900 410 L920 520 Z', '#7d5330', INK, 6) +
      path('M560 240 L640 240 L560 520 L500 520 Z', STEEL, INK, 5),
  },
  'loft-planks': {
    ground: '#3f4b48',
    draw:
      times(6, (i) => rect(80, 90 + i * 112, 1040, 76, i % 2 ? '#c98d57' : '#d9a96e')) +
      times(
        6,
        (i) =>
          circle(110, 128 + i * 112, 26, 'none', '#8a5a33', 5) +
          circle(110, 128 + i * 112, 12, 'none', '#8a5a33', 5),
      ) +
      times(14, (i) =>
        line(
          200 + ((i * 67) % 700),
          110 + (i % 6) * 112,
          420 + ((i * 67) % 700),
          116 + (i % 6) * 112,
          '#a86f3d',
          5,
        ),
      ),
  },
}
