import { arrow, circle, cross, HEAVY, line, path, tick } from './hand.ts'
import type { Shape } from './shapes.ts'

/** A toothed wheel from the side. */
const wheel = (x: number, y: number, r: number): Shape[] => {
  const teeth = Math.max(10, Math.round(r * 0.7))
  const points = Array.from({ length: 2 * teeth }, (_, i) => {
    const angle = (i * Math.PI) / teeth
    const out = i % 2 === 0 ? r + 3.5 : r - 1.5
    return `${Math.round((x + out * Math.cos(angle)) * 10) / 10} ${Math.round((y + out * Math.sin(angle)) * 10) / 10}`
  })
  return [path(`M${points.join('L')}Z`, { fill: 'sheet' }), circle(x, y, Math.max(3, r * 0.2), 'paper')]
}
const chain = (d: string): Shape => path(d, { stroke: 'steel', width: 4.5 })

export const ROUTE_SHAPES = {
  // Through the front cage before anything else.
  'front-cage': [
    ...wheel(96, 96, 44),
    path('M78 22l52 10v32l-50 -8Z', { fill: 'blade', opacity: 0.85 }),
    path('M90 34l52 10v32l-50 -8Z', { stroke: 'edge' }),
    chain('M328 44L134 50C118 51 100 50 94 51C64 54 50 76 52 98'),
    arrow(240, 26, 176, 30),
    tick(316, 80),
  ],
  // One sprocket, no derailleur: round it inside its guard, the upper run on to the ring.
  'one-sprocket': [
    ...wheel(78, 84, 46),
    ...wheel(270, 84, 22),
    path('M232 50a50 50 0 0 1 78 4', { stroke: 'edge', width: 5 }),
    chain('M78 36L270 60A24 24 0 0 1 270 108L78 132'),
    arrow(150, 22, 206, 30),
    tick(300, 126),
  ],
  // Drawn out to the rear, the free end running through the cage.
  'draw-out': [
    ...wheel(92, 50, 30),
    path('M78 70C100 60 122 74 116 92L104 124C98 136 76 134 74 120C72 108 80 100 84 94Z', { fill: 'blade' }),
    circle(98, 84, 11),
    circle(90, 118, 10),
    chain(
      'M330 26C250 20 150 14 104 19C70 22 58 44 70 66C80 78 110 76 109 88C107 98 84 100 80 112C76 128 96 132 110 128',
    ),
    arrow(200, 46, 284, 54),
  ],
  // Back on its ring before the pedal pulls.
  'on-ring': [
    ...wheel(110, 84, 46),
    chain('M300 52L150 60C130 64 118 74 116 88'),
    path('M300 44L124 36C92 36 66 58 64 84', { stroke: 'steel', width: 3, dash: [6, 5] }),
    arrow(150, 92, 134, 52),
    tick(230, 110),
  ],
  // A small drop on each roller of the lower run, joint to joint.
  drops: [
    line(14, 92, 326, 92, { stroke: 'edge', width: 16, opacity: 0.25 }),
    ...[40, 84, 128, 172, 216, 260, 304].map((x) => circle(x, 92, 9)),
    path('M118 6h20l-4 30h-12Z', { fill: 'sheet' }),
    path('M128 40c-5 8 -7 12 -7 16a7 7 0 0 0 14 0c0 -4 -2 -8 -7 -16Z', { fill: 'steel', stroke: 'steel' }),
    arrow(176, 24, 226, 24),
    path('M216 66c-3 5 -4 7 -4 10a4 4 0 0 0 8 0c0 -3 -1 -5 -4 -10Z', { fill: 'faint', stroke: 'faint' }),
    arrow(290, 128, 232, 128),
  ],
  // A worn chain and its teeth under load, and nothing that opens.
  ride: [
    ...wheel(84, 96, 40),
    ...wheel(276, 84, 22),
    chain('M84 54L276 60A24 24 0 0 1 276 108L84 138'),
    line(84, 96, 40, 130, { stroke: 'ink', width: 6 }),
    line(26, 132, 54, 132, { stroke: 'ink', width: 6 }),
    arrow(40, 92, 40, 122),
    path('M256 40l10 -12l4 10l10 -14', { stroke: 'madder', width: HEAVY }),
    cross(312, 36, 8),
  ],
} as const satisfies Readonly<Record<string, readonly Shape[]>>
