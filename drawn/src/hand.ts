import { linePath, type InkName, type Shape } from './shapes.ts'

/** Line weights of every drawing of work at a chain. */
export const FINE = 1.6
export const HEAVY = 3

type PathMore = Partial<Extract<Shape, { kind: 'path' }>>

export const path = (d: string, more: PathMore = {}): Shape => ({
  kind: 'path',
  d,
  stroke: 'edge',
  width: FINE,
  round: true,
  ...more,
})
export const circle = (
  cx: number,
  cy: number,
  r: number,
  fill: InkName = 'sheet',
  stroke: InkName = 'edge',
): Shape => ({
  kind: 'circle',
  cx,
  cy,
  r,
  fill,
  stroke,
  width: FINE,
})
const n = (value: number): string => String(Math.round(value * 10) / 10)

/** The way something is moved: from one point towards another. */
export function arrow(x1: number, y1: number, x2: number, y2: number, stroke: InkName = 'steel'): Shape {
  const angle = Math.atan2(y2 - y1, x2 - x1)
  const head = (turn: number): string =>
    `M${n(x2)} ${n(y2)}L${n(x2 - 10 * Math.cos(angle + turn))} ${n(y2 - 10 * Math.sin(angle + turn))}`
  return path(`M${n(x1)} ${n(y1)}L${n(x2)} ${n(y2)}${head(0.55)}${head(-0.55)}`, { stroke, width: HEAVY })
}
/** What is wrong is crossed out. */
export const cross = (x: number, y: number, r = 9): Shape =>
  path(`M${x - r} ${y - r}l${2 * r} ${2 * r}M${x + r} ${y - r}l${-2 * r} ${2 * r}`, { stroke: 'madder', width: HEAVY })
export const tick = (x: number, y: number): Shape =>
  path(`M${x - 8} ${y}l6 7l12 -14`, { stroke: 'steel', width: HEAVY })
export const line = (x1: number, y1: number, x2: number, y2: number, more: PathMore = {}): Shape =>
  path(linePath(x1, y1, x2, y2), more)

/** From one pin to the next, and how far the far plate stands behind the near one, as seen from a hand's height. */
export const PITCH = 44
export const BEHIND = { x: 13, y: -11 } as const

/** One link's plate between two pins, waist and all, its holes left open. */
export function plate(x1: number, y1: number, x2: number, y2: number, r: number, more: PathMore = {}): Shape {
  const [dx, dy] = [(x2 - x1) / PITCH, (y2 - y1) / PITCH]
  // Along the link, and across it.
  const at = (along: number, across: number): string =>
    `${n(x1 + along * dx - across * dy)} ${n(y1 + along * dy + across * dx)}`
  const waist = r * 0.6
  const hole = (x: number, y: number): string => `M${n(x - 4.5)} ${n(y)}a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0 -9 0Z`
  return path(
    [
      `M${at(0, -r)}C${at(13, -r)} ${at(13, -waist)} ${at(22, -waist)}S${at(31, -r)} ${at(44, -r)}`,
      `A${r} ${r} 0 0 1 ${at(44, r)}C${at(31, r)} ${at(31, waist)} ${at(22, waist)}S${at(13, r)} ${at(0, r)}`,
      `A${r} ${r} 0 0 1 ${at(0, -r)}Z`,
      hole(x1, y1),
      hole(x2, y2),
    ].join(''),
    { fill: 'blade', evenOdd: true, ...more },
  )
}

/** Radius of an inner and of an outer link's plates. */
export const RADIUS = { inner: 13, outer: 15.5 } as const

/** A pin or roller through both plates, seen from in front and above. */
export const through = (x: number, y: number, r: number, fill: InkName = 'paper'): Shape[] => [
  path(
    `M${n(x - r * 0.65)} ${n(y - r * 0.75)}L${n(x + BEHIND.x - r * 0.65)} ${n(y + BEHIND.y - r * 0.75)}A${r} ${r} 0 0 1 ${n(x + BEHIND.x + r * 0.65)} ${n(y + BEHIND.y + r * 0.75)}L${n(x + r * 0.65)} ${n(y + r * 0.75)}Z`,
    { fill },
  ),
  circle(x, y, r, fill),
]

/** One link, both plates and what is between them, in the perspective of a hand that holds it. */
export function link(
  kind: 'inner' | 'outer',
  x: number,
  y: number,
  x2 = x + PITCH,
  y2 = y,
  more: PathMore = {},
): Shape[] {
  const r = RADIUS[kind]
  return [
    plate(x + BEHIND.x, y + BEHIND.y, x2 + BEHIND.x, y2 + BEHIND.y, r, { ...more, opacity: 0.75 }),
    ...(kind === 'inner' ? [...through(x, y, 8.5, 'line'), ...through(x2, y2, 8.5, 'line')] : []),
    plate(x, y, x2, y2, r, more),
  ]
}

/** A run of links by turns, from the far ones to the near, their pins' heads in front. */
export function run(
  from: 'inner' | 'outer',
  points: readonly (readonly [x: number, y: number])[],
  pins: readonly number[] | 'all' = 'all',
): Shape[] {
  const kinds = points
    .slice(1)
    .map((_, i): 'inner' | 'outer' => ((i % 2 === 0) === (from === 'inner') ? 'inner' : 'outer'))
  const drawn = (kind: 'inner' | 'outer'): Shape[] =>
    kinds.flatMap((one, i) => {
      const [a, b] = [points[i]!, points[i + 1]!]
      return one === kind ? link(kind, a[0], a[1], b[0], b[1]) : []
    })
  return [
    ...drawn('inner'),
    ...drawn('outer'),
    ...points.flatMap(([x, y], i) => (pins === 'all' || pins.includes(i) ? [circle(x, y, 4.2, 'paper')] : [])),
  ]
}

/** So many points a pitch apart, level. */
export const level = (x: number, y: number, count: number): (readonly [number, number])[] =>
  Array.from({ length: count }, (_, i) => [x + i * PITCH, y] as const)
