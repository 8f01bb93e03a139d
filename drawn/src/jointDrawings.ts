import {
  arrow,
  BEHIND,
  circle,
  cross,
  FINE,
  HEAVY,
  level,
  line,
  link,
  path,
  PITCH,
  plate,
  RADIUS,
  run,
  tick,
  through,
} from './hand.ts'
import type { Shape } from './shapes.ts'

/** A pair of jaws over two rollers, their handles below; `apart` for pliers that push outwards. */
function jaws(left: number, right: number, y: number, apart: boolean): Shape[] {
  const [a, b] = apart ? [left + 9, right - 9] : [left - 9, right + 9]
  const turn = apart ? -1 : 1
  const middle = (left + right) / 2
  return [
    path(`M${a} ${y - 10}v20q0 16 ${(middle - a) * 0.5} 26L${middle + 26 * turn} ${y + 74}`, {
      stroke: 'ink',
      width: 6,
    }),
    path(`M${b} ${y - 10}v20q0 16 ${(middle - b) * 0.5} 26L${middle - 26 * turn} ${y + 74}`, {
      stroke: 'ink',
      width: 6,
    }),
    circle(middle, y + 46, 5, 'sheet', 'ink'),
  ]
}

/** A slotted outer plate: a wide end the pin comes in by, a narrow one it locks in. */
function slotted(x: number, y: number, wideAt: 'left' | 'right', pinAt: number): Shape[] {
  const wide = wideAt === 'left' ? x + 4 : x + 34
  const narrow = wideAt === 'left' ? x + 22 : x + 16
  return [
    plate(x - 10, y, x + 60, y, 21, { fill: 'sheet', stroke: 'steel', width: HEAVY }),
    path(
      `M${wide} ${y - 9}a9 9 0 1 ${wideAt === 'left' ? 0 : 1} 0 18L${narrow} ${y + 6}a6 6 0 0 ${wideAt === 'left' ? 0 : 1} 0 -12Z`,
      {
        fill: 'paper',
      },
    ),
    circle(pinAt, y, 5.5, 'edge'),
  ]
}

/** The body of a pin tool with its driver, over a pin at a point; turned off square by some degrees. */
function pinTool(x: number, y: number, off = 0): Shape[] {
  const rad = (off * Math.PI) / 180
  const p = (dx: number, dy: number): string =>
    `${Math.round(x + dx * Math.cos(rad) - dy * Math.sin(rad))} ${Math.round(y + dx * Math.sin(rad) + dy * Math.cos(rad))}`
  return [
    path(
      `M${p(-24, -16)}L${p(-24, 30)}L${p(24, 30)}L${p(24, -16)}L${p(14, -16)}L${p(14, 16)}L${p(-14, 16)}L${p(-14, -16)}Z`,
      {
        fill: 'line',
        opacity: 0.85,
      },
    ),
    path(`M${p(0, -64)}L${p(0, -10)}`, { stroke: 'ink', width: 6 }),
    path(`M${p(-20, -64)}L${p(20, -64)}`, { stroke: 'ink', width: 6 }),
  ]
}

/** A hook that holds two ends of a chain together. */
const hook = (x1: number, x2: number, y: number): Shape =>
  path(`M${x1} ${y}c0 -14 8 -30 20 -30H${x2 - 20}c12 0 20 16 20 30`, { stroke: 'brass', width: 4 })

const loose = (more: object = {}) => ({ fill: 'sheet' as const, stroke: 'steel' as const, width: HEAVY, ...more })

/** A connecting link in its chain, both its pins seen. */
const linkInChain: readonly Shape[] = [
  ...run('inner', level(18, 56, 3), []),
  ...link('outer', 106, 56, 106 + PITCH, 56, loose()),
  ...run('inner', level(150, 56, 4), []),
  ...[18, 62, 238, 282].map((x) => circle(x, 56, 4.2, 'paper')),
  circle(106, 56, 5, 'edge'),
  circle(150, 56, 5, 'edge'),
]

export const JOINT_SHAPES = {
  // Opening pliers squeeze the two pins towards each other.
  'link-open': [...linkInChain, ...jaws(106, 150, 56, false), arrow(70, 24, 100, 24), arrow(186, 24, 156, 24)],
  // Closing pliers push them apart, until they click.
  'link-close': [...linkInChain, ...jaws(106, 150, 56, true), arrow(122, 24, 92, 24), arrow(134, 24, 164, 24)],
  // Each half brings one pin, from its own side.
  halves: [
    ...run('inner', level(10, 76, 3)),
    ...run('inner', level(214, 76, 3)),
    plate(134, 30, 178, 30, RADIUS.outer, loose()),
    circle(178, 30, 4.6, 'edge'),
    ...through(178, 34, 4.6, 'steel'),
    plate(134, 120, 178, 120, RADIUS.outer, loose()),
    ...through(134, 116, 4.6, 'steel'),
    arrow(156, 48, 156, 64),
    arrow(156, 104, 156, 90),
  ],
  // Caught half-way along the slot; still in the wide end is not caught.
  catch: [
    ...slotted(46, 62, 'left', 62),
    tick(72, 112),
    ...slotted(206, 62, 'left', 211),
    cross(232, 110),
    arrow(30, 22, 8, 22),
    arrow(114, 22, 136, 22),
  ],
  // By the pedal: link on the top run, brake held, weight on the pedal.
  pedal: [
    circle(70, 96, 34),
    circle(70, 96, 4, 'edge'),
    circle(250, 96, 22),
    circle(250, 96, 4, 'edge'),
    line(74, 62, 250, 74, { stroke: 'edge', width: 5 }),
    line(84, 127, 246, 118, { stroke: 'edge', width: 5 }),
    line(146, 67, 178, 69, { stroke: 'steel', width: 9 }),
    line(70, 96, 20, 84, { stroke: 'ink', width: 6 }),
    line(6, 84, 34, 84, { stroke: 'ink', width: 6 }),
    arrow(20, 46, 20, 76),
    arrow(162, 46, 128, 44),
    arrow(196, 50, 228, 53),
  ],
  // Square on the pin; off square it bends the plate.
  'tool-square': [
    ...run('inner', level(10, 96, 4)),
    ...pinTool(98, 90),
    tick(60, 34),
    ...run('inner', level(196, 96, 4)),
    ...pinTool(284, 90, 14),
    cross(244, 34),
  ],
  // The joining pin first, then the other pin of the same outer link; a pin further on would leave two pieces.
  'outer-out': [
    ...run('inner', level(14, 84, 3), [0]),
    ...link('outer', 102, 84, 146, 84, { fill: 'sheet', stroke: 'steel', width: HEAVY, dash: [6, 4] }),
    ...run('inner', level(146, 84, 5), [2, 3, 4]),
    circle(58 + PITCH, 84, 6, 'steel', 'steel'),
    circle(146, 84, 6, 'steel', 'steel'),
    arrow(102, 30, 102, 66),
    arrow(146, 30, 146, 66),
    path('M98 14l6 -6v16', { stroke: 'steel', width: 2.2 }),
    path('M139 11c2 -6 12 -6 12 0c0 5 -10 7 -12 13h13', { stroke: 'steel', width: 2.2 }),
    circle(278, 84, 6, 'paper', 'madder'),
    cross(278, 50, 8),
    arrow(124, 106, 124, 134),
  ],
  // The guide through from the far side; the pin stands out a hair on both sides.
  'joining-pin': [
    ...run('inner', level(14, 84, 4), [0, 1, 3]),
    ...through(102, 84, 5, 'steel'),
    line(102 + BEHIND.x, 84 + BEHIND.y, 140, 52, { stroke: 'steel', width: 4 }),
    arrow(70, 118, 96, 94),
    // From above: the plates, and how far it stands out.
    line(206, 52, 330, 52, { width: 6 }),
    line(206, 108, 330, 108, { width: 6 }),
    line(236, 44, 236, 116, { stroke: 'steel', width: 8 }),
    tick(236, 138),
    line(300, 26, 300, 104, { stroke: 'madder', width: 8 }),
    cross(300, 138, 7),
  ],
  // Pliers take the guide off, without twisting.
  guide: [
    ...run('inner', level(60, 92, 4), [0, 1, 3]),
    circle(148, 92, 5, 'steel'),
    line(148, 92, 176, 36, { stroke: 'steel', width: 5 }),
    path('M164 58l26 -40M186 66l18 -42', { stroke: 'ink', width: 6 }),
    arrow(206, 56, 246, 76),
    path('M92 28c-12 6 -12 22 0 26m-6 -6l6 6l-8 3', { stroke: 'madder', width: 2.4 }),
    cross(96, 40, 8),
  ],
  // Both ends held before anything is opened.
  hook: [
    ...run('inner', level(10, 96, 4)),
    ...run('inner', level(190, 96, 4)),
    path('M142 96h8M182 96h8', { stroke: 'edge', width: FINE, dash: [3, 3] }),
    hook(98, 234, 92),
    arrow(60, 34, 22, 34),
    arrow(276, 34, 314, 34),
  ],
  // A thread round the plate that leads on the top run.
  thread: [
    ...run('outer', level(30, 84, 7)),
    path('M184 66c8 -6 20 -6 22 2M184 102c8 6 20 6 22 -2M184 66v36M206 68v32', { stroke: 'brass', width: 4 }),
    path('M206 84c12 4 18 14 14 26', { stroke: 'brass', width: 3 }),
    arrow(120, 32, 232, 32),
  ],
  // An inner link and an outer one are two pitches.
  count: [
    ...run('inner', level(14, 70, 8)),
    path('M14 112v8h44v-8M58 112v8h44v-8', { stroke: 'steel', width: 2.2 }),
    path('M33 140l5 -5v14M76 138c2 -5 10 -5 10 0c0 4 -8 6 -10 11h11', { stroke: 'steel', width: 2.2 }),
    path('M14 34v-8h88v8', { stroke: 'faint', width: 2.2 }),
  ],
} as const satisfies Readonly<Record<string, readonly Shape[]>>
