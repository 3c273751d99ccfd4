import { table, wall } from './places'
import { circle, line, path, rect, times } from './shapes'
import { at, placed, SPOTS, type Subject } from './subject'

/** What is drawn on tables and walls. */
export const INSIDE: readonly Subject[] = [
  {
    title: 'Oars against a boarded wall',
    words: ['oar', 'oars', 'rowing', 'wall', 'boat', 'shed'],
    place: wall,
    draw: (l, y, v) =>
      times(
        2 + v,
        (i) =>
          `<g transform="rotate(${-14 + i * 7 + v * 3} 600 ${y})">${rect(400 + i * 110, y - 520, 18, 420, l.accent)}${rect(386 + i * 110, y - 130, 46, 190, l.pale, 'rx="18"')}</g>`,
      ),
  },
  {
    title: 'Hand tools in a row',
    words: ['tool', 'tools', 'chisel', 'plane', 'workshop', 'craft', 'bench'],
    place: wall,
    draw: (l, y, v) =>
      rect(140, y - 330, 920, 22, l.ink) +
      times(
        4 + v,
        (i) =>
          rect(200 + i * (760 / (4 + v)), y - 320, 34, 120 + ((i * 47 + v * 31) % 90), l.accent, 'rx="8"') +
          rect(206 + i * (760 / (4 + v)), y - 200 + ((i * 47 + v * 31) % 90), 22, 150, l.pale),
      ),
  },
  {
    title: 'A pot of paint and a brush',
    words: ['paint', 'varnish', 'brush', 'pot', 'colour', 'finish'],
    place: table,
    draw: (l, y, v) =>
      placed(
        v,
        y,
        rect(-120, -220, 240, 220, v === 3 ? l.accent : l.pale, 'rx="10"') +
          `<ellipse cx="0" cy="-220" rx="120" ry="34" fill="${l.accent}"/>` +
          path('M120 -210 q30 60 10 120', 'none', l.accent, 16) +
          `<g transform="rotate(${20 + v * 22})">${rect(150, -160, 220, 26, l.ink, 'rx="12"')}${rect(90, -172, 70, 50, l.accent)}</g>`,
      ),
  },
  {
    title: 'A coil of rope',
    words: ['rope', 'coil', 'line', 'knot', 'deck'],
    place: table,
    draw: (l, y, v) =>
      placed(
        v,
        y - 40,
        times(
          4 + (v % 3),
          (i) =>
            `<ellipse cx="0" cy="${-i * 34}" rx="${250 - i * 18}" ry="${80 - i * 6}" fill="none" stroke="${i % 2 ? l.accent : l.pale}" stroke-width="30"/>`,
        ) + path('M230 10 q120 40 220 -20', 'none', l.pale, 28),
      ),
  },
  {
    title: 'A pair of boots',
    words: ['boot', 'boots', 'shoes', 'walking', 'feet', 'blister', 'packing'],
    place: table,
    draw: (l, y, v) =>
      times(1 + (v % 3), (i) =>
        at(
          340 + i * 300 + v * 30,
          y,
          0.9 + v * 0.07,
          path('M-90 0 L-90 -260 L60 -260 L60 -110 Q190 -100 200 0 Z', i % 2 ? l.near : l.accent, l.ink, 8) +
            rect(-100, -6, 310, 34, l.ink) +
            times(4, (k) => line(20, -230 + k * 40, 70, -224 + k * 40, l.pale, 8)),
        ),
      ),
  },
  {
    title: 'A cup with steam above it',
    words: ['cup', 'tea', 'coffee', 'morning', 'break', 'warm', 'pause'],
    place: table,
    draw: (l, y, v) =>
      placed(
        v,
        y,
        path('M-150 -220 L150 -220 L120 0 L-120 0 Z', l.pale, l.ink, 6) +
          `<circle cx="170" cy="-130" r="60" fill="none" stroke="${l.pale}" stroke-width="26"/>` +
          times(2 + (v % 3), (i) =>
            path(`M${-80 + i * 70} -250 q30 -50 0 -100 q-30 -50 0 -100`, 'none', l.accent, 12),
          ),
      ) +
      // By night there are two.
      (v === 3 ? at(960, y, 0.8, path('M-150 -220 L150 -220 L120 0 L-120 0 Z', l.accent, l.ink, 6)) : ''),
  },
  {
    title: 'A map spread out',
    words: ['map', 'plan', 'planning', 'route', 'direction', 'travel'],
    place: table,
    draw: (l, y, v) =>
      `<g transform="rotate(${-9 + v * 5} 600 ${y - 150})">${rect(230, y - 400, 740, 440, l.pale)}${times(3 + v, (i) => path(`M${260 + i * 110} ${y - 380} q${120 - v * 30} ${120 + i * 20} ${20 + v * 20} 390`, 'none', i % 2 ? l.far : l.near, 8))}${path(`M300 ${y - 40} L${480 + v * 30} ${y - 210} L${640 - v * 20} ${y - 140} L880 ${y - 330}`, 'none', l.accent, 14)}${circle(880, y - 330, 24, l.accent)}</g>`,
  },
  {
    title: 'A lamp on a table',
    words: ['lamp', 'light', 'evening', 'desk', 'reading', 'late'],
    place: table,
    draw: (l, y, v) =>
      placed(
        v,
        y,
        path('M-60 -420 L60 -420 L170 -230 L-170 -230 Z', l.accent) +
          rect(-12, -230, 24, 200, l.ink) +
          rect(-110, -30, 220, 30, l.ink) +
          path(`M-170 -230 L170 -230 L${360} 0 L${-360} 0 Z`, l.pale, 'none', 0).replace(
            '/>',
            ' opacity="0.35"/>',
          ),
      ),
  },
  {
    title: 'An open book',
    words: ['book', 'reading', 'learn', 'story', 'page', 'lesson', 'study'],
    place: table,
    draw: (l, y, v) =>
      placed(
        v,
        y - 60,
        path('M-320 -120 Q-160 -210 0 -120 L0 80 Q-160 -10 -320 80 Z', l.pale, l.ink, 6) +
          path('M320 -120 Q160 -210 0 -120 L0 80 Q160 -10 320 80 Z', l.pale, l.ink, 6) +
          times(
            3 + (v % 3),
            (i) =>
              line(-270, -90 + i * 34, -60, -110 + i * 34, l.near, 8) +
              line(60, -110 + i * 34, 270, -90 + i * 34, v % 2 ? l.accent : l.near, 8),
          ),
      ),
  },
  {
    title: 'A clock on the wall',
    words: ['clock', 'time', 'hour', 'deadline', 'wait', 'schedule'],
    place: wall,
    draw: (l, _, v) => {
      const [x, s] = SPOTS[v] ?? SPOTS[0]
      const turn = (of: number, length: number): string =>
        line(0, 0, Math.sin(of) * length, -Math.cos(of) * length, l.ink, 16)
      return at(
        x,
        360,
        s,
        circle(0, 0, 220, l.pale, l.ink, 16) +
          times(12, (i) => circle(Math.sin(i / 1.91) * 180, -Math.cos(i / 1.91) * 180, 10, l.accent)) +
          turn(v * 1.3 + 0.4, 110) +
          turn(v * 2.1 + 1, 170),
      )
    },
  },
  {
    title: 'A calendar with days crossed out',
    words: ['calendar', 'date', 'week', 'month', 'plan', 'schedule', 'year'],
    place: wall,
    draw: (l, _, v) =>
      at(
        220 + v * 60,
        110 + v * 12,
        0.8 + v * 0.08,
        rect(0, 0, 640, 540, l.pale) +
          rect(0, 0, 640, 110, l.accent) +
          times(20, (i) =>
            rect(40 + (i % 5) * 118, 150 + Math.floor(i / 5) * 94, 88, 66, i < 4 + v * 3 ? l.near : l.sky),
          ),
      ),
  },
  {
    title: 'Bread fresh from the oven',
    words: ['bread', 'baking', 'food', 'kitchen', 'loaf', 'flour'],
    place: table,
    draw: (l, y, v) =>
      times(1 + (v % 4), (i) =>
        at(
          270 + i * 280 + v * 20,
          y,
          1.15 + (v % 3) * 0.25,
          path('M-170 0 C-220 -180 220 -180 170 0 Z', l.accent, l.ink, 6) +
            times(3, (k) => line(-80 + k * 70, -110, -50 + k * 70, -50, l.pale, 12)),
        ),
      ),
  },
  {
    title: 'A window with a view',
    words: ['window', 'view', 'home', 'room', 'house', 'inside'],
    place: wall,
    draw: (l, _, v) =>
      at(
        210 + v * 70,
        90 + v * 14,
        0.85 + v * 0.06,
        rect(0, 0, 620, 520, l.sky) +
          path(
            `M0 ${360 - v * 30} L200 ${200 + v * 30} L420 ${340 - v * 24} L620 ${230 + v * 20} L620 520 L0 520 Z`,
            l.accent,
          ) +
          `<rect x="0" y="0" width="620" height="520" fill="none" stroke="${l.ink}" stroke-width="26"/>` +
          rect(298, 0, 24, 520, l.ink) +
          (v % 2 ? rect(0, 248, 620, 24, l.ink) : ''),
      ),
  },
  {
    title: 'A kettle on the stove',
    words: ['kettle', 'stove', 'steam', 'kitchen', 'boil', 'heat'],
    place: table,
    draw: (l, y, v) =>
      placed(
        v,
        y,
        path('M-170 0 C-190 -190 190 -190 170 0 Z', l.near, l.ink, 8) +
          `<path d="M-120 -120 C-100 -280 100 -280 120 -120" fill="none" stroke="${l.ink}" stroke-width="18"/>` +
          path('M150 -80 L270 -170 L280 -140 L160 -20 Z', l.near, l.ink, 6) +
          circle(0, -150, 22, l.accent) +
          times(1 + (v % 3), (i) =>
            path(`M${290 + i * 30} -190 q30 -40 0 -80 q-30 -40 0 -80`, 'none', l.pale, 12),
          ),
      ),
  },
]
