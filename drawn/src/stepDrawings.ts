import { JOINT_SHAPES } from './jointDrawings.ts'
import { MEND_SHAPES } from './mendDrawings.ts'
import { ROUTE_SHAPES } from './routeDrawings.ts'
import { WAX_SHAPES } from './waxDrawings.ts'
import { WORK_SHAPES } from './workDrawings.ts'
import { arrow as arrowTo, circle, cross, HEAVY, path, tick } from './hand.ts'
import { linePath, type Drawing, type InkName, type Shape } from './shapes.ts'

const WIDTH = 300
const HEIGHT = 120

const PITCH = 40
const arrow = (x: number, y: number, long: number, stroke: InkName = 'steel'): Shape =>
  arrowTo(x, y, x + long, y, stroke)

/** A link's plate from the side, waist and all. */
function plate(x: number, y: number, r: number, more: Partial<Extract<Shape, { kind: 'path' }>> = {}): Shape {
  const to = x + PITCH
  const waist = r * 0.62
  const middle = x + PITCH / 2
  return path(
    [
      `M${x} ${y - r}C${x + 12} ${y - r} ${x + 12} ${y - waist} ${middle} ${y - waist}`,
      `S${to - 12} ${y - r} ${to} ${y - r}A${r} ${r} 0 0 1 ${to} ${y + r}`,
      `C${to - 12} ${y + r} ${to - 12} ${y + waist} ${middle} ${y + waist}`,
      `S${x + 12} ${y + r} ${x} ${y + r}A${r} ${r} 0 0 1 ${x} ${y - r}Z`,
    ].join(''),
    { fill: 'blade', ...more },
  )
}
const INNER = 13
const OUTER = 16
const pin = (x: number, y: number): Shape => circle(x, y, 5, 'paper')

/** Two runs of chain that are to be joined, ends towards each other. */
function ends(right: 'inner' | 'outer'): Shape[] {
  const y = 66
  const from = 100 + (right === 'outer' ? PITCH : PITCH * 1.6)
  return [
    plate(20, y, OUTER),
    plate(60, y, INNER, { stroke: 'steel', width: HEAVY }),
    ...(right === 'inner'
      ? [plate(from, y, INNER, { stroke: 'steel', width: HEAVY }), plate(from + PITCH, y, OUTER)]
      : [plate(from, y, OUTER, { stroke: 'steel', width: HEAVY }), plate(from + PITCH, y, INNER)]),
    ...[20, 60, 100, from, from + PITCH, from + 2 * PITCH].map((x) => pin(x, y)),
    // What closes it: a link from both sides, or a pin with its guide.
    ...(right === 'inner'
      ? [
          plate(112, 26, OUTER, { fill: 'sheet', stroke: 'steel', width: HEAVY }),
          path('M132 44v12m-5 -6l5 6l5 -6', { stroke: 'steel', width: HEAVY }),
        ]
      : [
          path(`M${from} 12v34m-5 -7l5 7l5 -7`, { stroke: 'steel', width: HEAVY }),
          path(`M${from - 3} 4h6v10h-6Z`, { fill: 'steel', stroke: 'steel' }),
        ]),
  ]
}

/** A joint from above: two plates over two pins, both home or one proud. */
function fromAbove(x: number, proud: boolean): Shape[] {
  const [left, right] = [x, x + 70]
  return [
    path(`M${left - 14} 36h98`, { width: 6, stroke: 'edge' }),
    path(proud ? `M${left - 14} 84l98 -12` : `M${left - 14} 78h98`, { width: 6, stroke: 'edge' }),
    path(linePath(left, 28, left, 90), { width: 5, stroke: 'steel' }),
    path(linePath(right, 28, right, 90), { width: 5, stroke: 'steel' }),
    ...(proud ? [cross(x + 35, 106, 7)] : [tick(x + 35, 106)]),
  ]
}

const OWN_SHAPES = {
  // The chain comes from the sprocket, in front of the upper pulley, inside the tab, round the lower pulley.
  'cage-tab': [
    path(
      'M118 20C150 8 176 30 168 54L152 92C148 108 120 110 112 96C106 84 112 74 118 64L106 40C102 30 108 24 118 20Z',
      {
        fill: 'blade',
      },
    ),
    circle(138, 36, 19),
    circle(132, 92, 17),
    circle(138, 36, 4, 'edge'),
    circle(132, 92, 4, 'edge'),
    path('M126 60h20v8h-20Z', { fill: 'edge', stroke: 'edge' }),
    path('M196 6C176 12 164 22 158 38C154 52 152 60 151 72C150 96 138 112 122 108C112 106 96 100 40 96', {
      stroke: 'steel',
      width: 4.5,
    }),
    path('M156 44C140 58 116 60 114 74', { stroke: 'madder', width: 2.2, dash: [5, 4] }),
    cross(104, 62, 7),
    tick(176, 68),
  ],
  'ends-both-inner': ends('inner'),
  'ends-one-outer': ends('outer'),
  // From above: outer plates stand wide apart over wide teeth, inner ones close over narrow teeth.
  'wide-narrow': [0, 1, 2, 3, 4].flatMap((i): Shape[] => {
    const x = 28 + i * 50
    const wide = i % 2 === 0
    const apart = wide ? 27 : 17
    const tooth = wide ? 17 : 8
    return [
      { kind: 'rect', x: x + 10, y: 60 - tooth, w: 30, h: 2 * tooth, r: 4, fill: wide ? 'steel' : 'faint' },
      path(linePath(x - 2, 60 - apart, x + 52, 60 - apart), { width: wide ? 6 : 4 }),
      path(linePath(x - 2, 60 + apart, x + 52, 60 + apart), { width: wide ? 6 : 4 }),
    ]
  }),
  'click-sides': [...fromAbove(40, false), ...fromAbove(180, true)],
  // The closed end leads: the way the chain runs.
  'clip-way': [
    plate(70, 62, INNER),
    plate(110, 62, OUTER, { fill: 'sheet' }),
    plate(150, 62, INNER),
    ...[70, 110, 150, 190].map((x) => pin(x, 62)),
    path('M90 44C112 34 122 41 132 43C152 34 178 40 178 62C178 84 152 90 132 81C122 83 112 90 90 80', {
      stroke: 'steel',
      width: HEAVY,
    }),
    arrow(90, 22, 110),
  ],
  // Round the lower pulley every link bends but one.
  'stiff-link': [
    circle(150, 66, 34),
    circle(150, 66, 5, 'edge'),
    ...[
      [30, 101, 70, 103],
      [70, 103, 110, 104],
      [110, 104, 146, 106],
    ].map(([a = 0, b = 0, c = 0, d = 0]) => path(linePath(a, b, c, d), { width: 6 })),
    path(linePath(146, 106, 186, 98), { stroke: 'madder', width: 7 }),
    path(linePath(186, 98, 200, 60), { width: 6 }),
    path(linePath(200, 60, 180, 26), { width: 6 }),
    ...[
      [30, 101],
      [70, 103],
      [110, 104],
      [146, 106],
      [186, 98],
      [200, 60],
      [180, 26],
    ].map(([x = 0, y = 0]) => circle(x, y, 4.5)),
    path('M206 104c8 -4 12 -10 13 -18m-6 5l6 -5l5 6', { stroke: 'madder', width: 2.2 }),
    arrow(80, 16, -50),
  ],
} as const satisfies Readonly<Record<string, readonly Shape[]>>

const SMALL = { width: WIDTH, height: HEIGHT } as const
const LARGE = { width: 340, height: 152 } as const
const SHAPES = {
  ...OWN_SHAPES,
  ...JOINT_SHAPES,
  ...ROUTE_SHAPES,
  ...WAX_SHAPES,
  ...MEND_SHAPES,
  ...WORK_SHAPES,
} as const

/** What a step is shown by, where a look says more than words. */
export type StepDrawing = keyof typeof SHAPES
export const STEP_DRAWINGS = Object.keys(SHAPES) as StepDrawing[]

/** A step's drawing: two line weights, no text, the ink of the theme. */
export const stepDrawing = (step: StepDrawing): Drawing => ({
  ...(step in OWN_SHAPES ? SMALL : LARGE),
  shapes: SHAPES[step],
})
