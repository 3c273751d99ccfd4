import { field, hill, shore, town } from './places'
import { circle, line, path, rect, times } from './shapes'
import { at, placed, type Subject } from './subject'

/** What is drawn under the sky. */
export const OUTSIDE: readonly Subject[] = [
  {
    title: 'A boat drawn up on the shore',
    words: ['boat', 'shore', 'hull', 'sea', 'yard', 'launch'],
    place: shore,
    draw: (l, y, v) =>
      placed(
        v,
        y,
        path('M-300 -150 C-180 40 180 40 300 -160 C120 -110 -140 -110 -300 -150 Z', l.accent, l.ink, 8) +
          path('M-250 -120 C-120 -60 120 -60 250 -130', 'none', l.pale, 6) +
          (v % 2
            ? line(0, -110, 0, -400, l.ink, 12) + path('M10 -390 L180 -170 L10 -170 Z', l.pale)
            : line(-320, 10, 320, 10, l.ink, 14)),
      ),
  },
  {
    title: 'Planks stacked to dry',
    words: ['plank', 'planks', 'timber', 'wood', 'oak', 'larch', 'board'],
    place: field,
    draw: (l, y, v) =>
      times(
        4 + v,
        (i) =>
          rect(200 + i * 10 + v * 40, y - 60 - i * 62, 720 - i * 24 - v * 60, 44, i % 2 ? l.accent : l.pale) +
          times(3, (k) => rect(240 + k * 260 + v * 30, y - 78 - i * 62, 30, 18, l.ink)),
      ),
  },
  {
    title: 'A hut below the ridge',
    words: ['hut', 'cabin', 'hill', 'shelter', 'walk', 'trail', 'refuge'],
    place: hill,
    draw: (l, y, v) =>
      placed(
        v,
        y,
        rect(-150, -170, 300, 170, l.pale) +
          path('M-190 -170 L0 -310 L190 -170 Z', l.accent, l.ink, 6) +
          rect(-30, -100, 60, 100, l.ink) +
          rect(60, -120, 50, 44, v === 3 ? l.accent : l.far) +
          (v % 2 ? rect(80, -330, 34, 80, l.ink) : ''),
      ),
  },
  {
    title: 'A path over the hill',
    words: ['path', 'trail', 'walk', 'hike', 'way', 'route', 'stage'],
    place: hill,
    draw: (l, _, v) =>
      path(
        `M${300 + v * 120} 800 C${200 + v * 160} 640 ${900 - v * 90} 620 ${640 + v * 30} 470 L${670 + v * 30} 470 C${980 - v * 90} 640 ${360 + v * 160} 650 ${520 + v * 120} 800 Z`,
        l.pale,
      ) +
      times(3 + v, (i) =>
        line(240 + i * 170 + v * 20, 640 - i * 24, 240 + i * 170 + v * 20, 560 - i * 24, l.accent, 14),
      ),
  },
  {
    title: 'A tent pitched on the flat',
    words: ['tent', 'camp', 'camping', 'night', 'sleep', 'field'],
    place: field,
    draw: (l, y, v) =>
      placed(
        v,
        y,
        path('M-260 0 L0 -300 L260 0 Z', l.accent, l.ink, 6) +
          path('M0 -300 L-60 0 L70 0 Z', l.ink) +
          line(-260, 0, -340, 40, l.ink, 6) +
          line(260, 0, 340, 40, l.ink, 6),
      ) + (v === 3 ? circle(980, 150, 70, l.pale) : ''),
  },
  {
    title: 'A mountain across the valley',
    words: ['mountain', 'peak', 'ridge', 'view', 'summit', 'climb', 'height'],
    place: hill,
    draw: (l, _, v) =>
      path(`M${100 + v * 60} 620 L${430 + v * 90} ${120 + v * 26} L${820 + v * 60} 620 Z`, l.near, l.ink, 4) +
      path(
        `M${430 + v * 90} ${120 + v * 26} L${350 + v * 84} ${250 + v * 26} L${440 + v * 86} ${230 + v * 20} L${520 + v * 82} ${260 + v * 22} Z`,
        l.pale,
      ) +
      (v === 2 ? circle(1000, 190, 80, l.accent) : ''),
  },
  {
    title: 'A tree that stands alone',
    words: ['tree', 'forest', 'leaf', 'growth', 'nature', 'season'],
    place: field,
    draw: (l, y, v) =>
      placed(
        v,
        y,
        rect(-24, -260, 48, 260, l.ink) +
          (v === 4
            ? times(6, (i) =>
                line(0, -200 - i * 30, (i % 2 ? 1 : -1) * (190 - i * 18), -330 - i * 26, l.ink, 14),
              )
            : times(3, (i) =>
                circle(-120 + i * 120, -330 - (i === 1 ? 90 : 0), 140, i % 2 ? l.accent : l.near),
              )),
      ),
  },
  {
    title: 'Rain coming over the water',
    words: ['rain', 'weather', 'storm', 'wet', 'cloud', 'water', 'damp'],
    place: shore,
    draw: (l, _, v) =>
      times(3, (i) => circle(260 + i * 150 + v * 110, 190 + (i % 2) * 30, 120 - v * 8, l.near)) +
      rect(200 + v * 110, 190, 460, 110, l.near, 'rx="50"') +
      times(9 + v * 3, (i) =>
        line(180 + i * 60 + v * 70, 330 + (i % 3) * 60, 150 + i * 60 + v * 70, 420 + (i % 3) * 60, l.pale, 7),
      ),
  },
  {
    title: 'A bicycle in the street',
    words: ['bicycle', 'bike', 'street', 'town', 'commute', 'ride'],
    place: town,
    draw: (l, y, v) =>
      placed(
        v,
        y,
        `<circle cx="-170" cy="-110" r="110" fill="none" stroke="${l.ink}" stroke-width="16"/><circle cx="170" cy="-110" r="110" fill="none" stroke="${l.ink}" stroke-width="16"/>` +
          path(
            'M-170 -110 L-60 -280 L120 -280 L0 -110 Z M-60 -280 L-80 -330 M170 -110 L110 -330 L160 -350',
            'none',
            l.accent,
            16,
          ),
      ),
  },
  {
    title: 'Garden beds in rows',
    words: ['garden', 'plant', 'growing', 'vegetable', 'soil', 'spring'],
    place: field,
    draw: (l, y, v) =>
      times(
        3 + v,
        (i) =>
          rect(110, y - 190 + i * (300 / (3 + v)), 980 - v * 90, 34, l.ink) +
          times(6 + v, (k) =>
            path(
              `M${160 + k * 140 - v * 10} ${y - 190 + i * (300 / (3 + v))} q-40 -60 0 -90 q40 30 0 90 Z`,
              k % 3 ? l.pale : l.accent,
            ),
          ),
      ),
  },
  {
    title: 'A bridge over still water',
    words: ['bridge', 'river', 'crossing', 'water', 'span', 'connect'],
    place: shore,
    draw: (l, _, v) =>
      path(
        `M-20 ${430 + v * 20} Q600 ${200 + v * 34} 1220 ${430 + v * 20} L1220 ${480 + v * 20} Q600 ${270 + v * 34} -20 ${480 + v * 20} Z`,
        l.accent,
        l.ink,
        6,
      ) + times(3 + v, (i) => rect(180 + i * (840 / (3 + v)), 360 + v * 18, 40, 260, l.ink)),
  },
  {
    title: 'A lighthouse on the point',
    words: ['lighthouse', 'coast', 'beacon', 'guide', 'sea', 'signal'],
    place: shore,
    draw: (l, y, v) =>
      placed(
        v,
        y,
        path('M-80 0 L-50 -420 L50 -420 L80 0 Z', l.pale, l.ink, 6) +
          rect(-68, -160, 136, 60, l.accent) +
          rect(-58, -320, 116, 60, l.accent) +
          rect(-40, -490, 80, 70, l.ink) +
          circle(0, -455, 24, l.accent) +
          (v > 1 ? path('M30 -460 L700 -600 L700 -360 Z', l.pale).replace('/>', ' opacity="0.5"/>') : ''),
      ),
  },
  {
    title: 'Birds over the fields',
    words: ['bird', 'birds', 'flight', 'sky', 'migration', 'freedom', 'autumn'],
    place: field,
    draw: (l, _, v) =>
      times(4 + v * 2, (i) => {
        const [x, y, s] = [
          170 + ((i * 211 + v * 140) % 860),
          110 + ((i * 89 + v * 53) % 260),
          0.6 + ((i + v) % 3) * 0.4,
        ]
        return at(x, y, s, path('M-90 0 Q-45 -60 0 0 Q45 -60 90 0', 'none', i % 4 ? l.ink : l.accent, 14))
      }),
  },
  {
    title: 'People meeting',
    words: ['people', 'team', 'meeting', 'group', 'talk', 'community', 'crew'],
    place: town,
    draw: (l, y, v) =>
      times(2 + v, (i) =>
        at(
          300 + i * (720 / (2 + v)) + v * 12,
          y,
          1 + (i % 2) * 0.15,
          circle(0, -300, 56, l.pale, l.ink, 5) +
            path(
              'M-90 0 C-100 -160 -70 -240 0 -240 C70 -240 100 -160 90 0 Z',
              i % 3 === 0 ? l.accent : i % 3 === 1 ? l.ink : l.pale,
              l.ink,
              5,
            ),
        ),
      ),
  },
]
