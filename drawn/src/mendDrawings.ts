import { arrow, circle, cross, HEAVY, level, line, link, path, PITCH, run, tick } from './hand.ts'
import type { Shape } from './shapes.ts'

const wheel = (x: number, y: number, r: number): Shape[] => [
  circle(x, y, r, 'paper'),
  circle(x, y, r - 7, 'sheet', 'line'),
  circle(x, y, 4, 'edge'),
]
const loose = { fill: 'sheet', stroke: 'steel', width: HEAVY } as const

export const MEND_SHAPES = {
  // An inner link between two connecting links, in the gap of the chain.
  'put-in': [
    ...run('inner', level(10, 104, 2)),
    ...run('inner', level(286, 104, 2)),
    ...run('inner', level(148, 104, 2)),
    ...link('outer', 79, 52, 79 + PITCH, 52, loose),
    ...link('outer', 217, 52, 217 + PITCH, 52, loose),
    ...[79, 123, 217, 261].map((x) => circle(x, 52, 4.6, 'edge')),
    arrow(101, 72, 101, 94),
    arrow(239, 72, 239, 94),
    path('M148 132v8h44v-8', { stroke: 'brass', width: HEAVY }),
  ],
  // On its left side, the drive up, on something soft; seen from above.
  'lay-side': [
    path('M22 128C70 146 270 146 318 128', { stroke: 'brass', width: 5 }),
    ...wheel(78, 84, 46),
    ...wheel(262, 84, 46),
    path('M78 84L150 30H218L262 84L164 88Z', { stroke: 'ink', width: 4 }),
    path('M164 88L142 18M218 30L226 12', { stroke: 'ink', width: 4 }),
    circle(164, 88, 17),
    circle(78, 84, 10),
    line(78, 74, 164, 71, { stroke: 'steel', width: 4 }),
    line(82, 96, 162, 105, { stroke: 'steel', width: 4 }),
    arrow(300, 20, 300, 44),
  ],
  // The screw behind the hanger turned in, the upper pulley clear of the largest sprocket; rubbing is crossed out.
  'cage-screw': [
    ...[92, 258].flatMap((x, i) => [
      circle(x, 44, 40),
      circle(x, 44, 5, 'edge'),
      circle(x + 2, i === 0 ? 112 : 97, 13, 'paper'),
      path(`M${x + 2} ${i === 0 ? 112 : 97}l-6 34`, { stroke: 'line', width: 10 }),
    ]),
    line(92, 86, 92, 98, { stroke: 'steel', width: HEAVY }),
    path('M146 92h26M168 84v16', { stroke: 'ink', width: 5 }),
    path('M142 74c-14 0 -20 14 -12 24m-8 -4l8 5l4 -8', { stroke: 'steel', width: HEAVY }),
    tick(40, 118),
    cross(306, 112, 8),
  ],
  // A bench tool holds the chain square by itself; of a multi-tool the driver is watched all the way.
  'bench-and-multi': [
    ...run('inner', level(12, 96, 3)),
    path('M34 70v52h44v-52h-10v30H44V70Z', { fill: 'line', opacity: 0.85 }),
    path('M56 8V84M34 8h44', { stroke: 'ink', width: 6 }),
    tick(124, 30),
    ...run('inner', level(206, 96, 3)),
    path('M234 82v36h30v-36h-8v24h-14V82Z', { fill: 'line', opacity: 0.85 }),
    path('M249 44V84', { stroke: 'ink', width: 5 }),
    path('M226 30h64v16h-64Z', { fill: 'sheet' }),
    line(250, 30, 250, 46, { stroke: 'line' }),
    // The eye on the driver.
    path('M296 78c10 -12 26 -12 34 0c-8 12 -24 12 -34 0Z', { stroke: 'steel', width: 2.2 }),
    circle(313, 78, 4, 'steel', 'steel'),
    line(290, 80, 262, 84, { stroke: 'steel', dash: [4, 4] }),
  ],
} as const satisfies Readonly<Record<string, readonly Shape[]>>
