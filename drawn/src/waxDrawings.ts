import { arrow, circle, cross, HEAVY, level, line, path, run, tick } from './hand.ts'
import type { Shape } from './shapes.ts'

/** A pot with wax in it, its lid off; how high the wax stands. */
const pot = (x: number, y: number): Shape[] => [
  path(`M${x} ${y}v64c0 10 8 14 18 14h84c10 0 18 -4 18 -14v-64`, { fill: 'sheet', width: HEAVY }),
  path(`M${x + 3} ${y + 20}c20 -6 40 6 57 0s38 6 57 0v42c0 9 -7 13 -16 13h-82c-9 0 -16 -4 -16 -13Z`, {
    fill: 'brass',
    opacity: 0.3,
    stroke: 'brass',
  }),
]
/** A coil of chain that lies in it. */
const coil = (x: number, y: number): Shape =>
  path(`M${x - 32} ${y}c0 -14 64 -14 64 0s-64 14 -64 2c0 -12 56 -10 56 2s-48 10 -48 2`, { stroke: 'edge', width: 4 })
const wire = (x: number, y: number): Shape => path(`M${x} ${y}v-44c0 -12 16 -12 16 0v6`, { stroke: 'ink', width: 3 })

export const WAX_SHAPES = {
  heat: [
    ...pot(110, 42),
    path('M100 40c20 -16 120 -16 140 0', { stroke: 'edge', width: HEAVY }),
    path('M168 18v8h4v-8', { stroke: 'edge' }),
    path('M274 60a20 20 0 1 0 0.1 0M274 66v14l10 6', { stroke: 'steel', width: HEAVY }),
    path('M42 118c-10 -14 4 -22 4 -36c10 10 18 22 8 36Z', { stroke: 'madder', width: HEAVY }),
    cross(48, 100, 20),
  ],
  'hook-through': [
    ...run('inner', level(40, 96, 5)),
    path('M216 96C226 80 236 62 232 40C230 26 246 22 252 34', { stroke: 'ink', width: 4 }),
    path('M216 96c-6 8 -16 4 -14 -4', { stroke: 'ink', width: 4 }),
    tick(292, 96),
  ],
  'lower-in': [
    ...pot(110, 54),
    coil(170, 100),
    wire(170, 92),
    arrow(222, 12, 222, 46),
    path('M92 40l-14 -14M80 58l-18 -6', { stroke: 'madder', width: 2.2 }),
    cross(58, 30, 8),
  ],
  swish: [
    ...pot(110, 50),
    coil(170, 98),
    wire(170, 90),
    ...[140, 158, 186, 204].map((x, i) => circle(x, 68 - (i % 2) * 6, 3 + (i % 2), 'paper')),
    arrow(196, 26, 232, 26),
    arrow(148, 26, 112, 26),
  ],
  skin: [
    ...pot(110, 50),
    path('M114 70c40 -5 76 -5 112 0', { stroke: 'ink', width: 4 }),
    path('M30 62a22 22 0 1 0 0.1 0M30 68v16l12 6', { stroke: 'steel', width: HEAVY }),
    arrow(280, 40, 238, 64),
  ],
  'slow-draw': [
    ...pot(110, 66),
    path('M170 10v76', { stroke: 'edge', width: 8 }),
    path('M163 88c-2 6 -2 10 2 14M177 88c2 6 2 10 -2 14', { stroke: 'brass', width: 3 }),
    arrow(226, 60, 226, 14),
    path('M250 60v-14M250 38v-10', { stroke: 'steel', width: HEAVY }),
  ],
  hang: [
    line(40, 16, 300, 16, { width: 6, stroke: 'ink' }),
    ...[110, 170, 230].flatMap((x): Shape[] => [
      path(`M${x} 16v14`, { stroke: 'ink', width: 3 }),
      path(`M${x} 32v96`, { stroke: 'edge', width: 9, dash: [12, 4] }),
    ]),
    tick(284, 92),
  ],
  flex: [
    circle(170, 72, 24, 'line'),
    path('M40 140L142 60C150 42 190 42 198 60L300 140', { stroke: 'edge', width: 9, dash: [12, 4] }),
    arrow(76, 92, 50, 112),
    arrow(264, 92, 290, 112),
    ...[120, 214, 150].map((x, i) => path(`M${x} ${116 + 8 * i}l4 6`, { stroke: 'brass', width: 3 })),
  ],
  // Blown through from the side, never towards a hand.
  dry: [
    ...run('inner', level(110, 92, 5)),
    path('M20 50h44l12 12l-12 12h-44Z', { fill: 'line' }),
    path('M82 62h20M82 56l18 -8M82 68l18 8', { stroke: 'steel', width: 2.4 }),
    path('M250 120c-5 8 -7 11 -7 14a7 7 0 0 0 14 0c0 -3 -2 -6 -7 -14Z', { stroke: 'steel' }),
    cross(290, 34, 9),
    path('M268 52h44v-30h-44ZM274 46h32', { stroke: 'madder', width: 2.2 }),
  ],
  // Wax off the outer plates, the plugs out of the holes.
  'clear-wax': [
    ...run('inner', level(30, 84, 3)),
    ...run('inner', level(222, 84, 3)),
    circle(118, 84, 6, 'brass'),
    line(140, 62, 122, 80, { stroke: 'ink', width: 4 }),
    arrow(176, 34, 146, 58),
    path('M96 112l10 6M84 116l6 8', { stroke: 'brass', width: 3 }),
  ],
} as const satisfies Readonly<Record<string, readonly Shape[]>>
