import { linePath, type Drawing, type InkName, type Shape } from './shapes.ts'

export type WearRuleSize = 'large' | 'medium' | 'small'

/** A spot as a rule draws it, %. */
export interface Mark {
  readonly value: number | null
  readonly over: number | null
  readonly under: number | null
  readonly u: number
  readonly worst: boolean
}

/** The scale every wear rule has: one glance is learned once. %. */
const LOWEST = 0
const HIGHEST = 1.25
const STEP = 0.05
const LABELLED = 0.25

interface Measures {
  width: number
  height: number
  /** Where the blade's edge lies, and how deep the blade is. */
  edge: number
  depth: number
  pad: number
  minor: number
  major: number
  font: number
  lanes: number
  notch: number
}

const SIZES: Record<WearRuleSize, Measures> = {
  large: { width: 640, height: 124, edge: 52, depth: 66, pad: 18, minor: 13, major: 26, font: 15, lanes: 4, notch: 10 },
  medium: { width: 420, height: 84, edge: 36, depth: 44, pad: 14, minor: 9, major: 17, font: 13, lanes: 3, notch: 7 },
  small: { width: 88, height: 30, edge: 14, depth: 15, pad: 3, minor: 4, major: 7, font: 0, lanes: 1, notch: 3.5 },
}

/** Where an elongation lies across a rule of a size. */
const scaleOf =
  ({ pad, width }: Measures) =>
  (value: number): number =>
    pad + ((Math.min(Math.max(value, LOWEST), HIGHEST) - LOWEST) / (HIGHEST - LOWEST)) * (width - 2 * pad)

/** The same scale, for whatever is drawn beneath a rule of that size. */
export const WEAR_SCALE = { medium: scaleOf(SIZES.medium), large: scaleOf(SIZES.large) }

const low = (mark: Mark): number => (mark.value === null ? (mark.over ?? LOWEST) : mark.value - mark.u)
const high = (mark: Mark): number => (mark.value === null ? (mark.under ?? HIGHEST) : mark.value + mark.u)

/** Marks in rows, so that none hides another: each in the lowest row where it has room. */
function inLanes(marks: readonly Mark[], lanes: number): { mark: Mark; lane: number }[] {
  const ends: number[] = []
  return [...marks]
    .sort((a, b) => Number(b.worst) - Number(a.worst) || low(a) - low(b))
    .reverse()
    .map((mark) => {
      let lane = ends.findIndex((end) => end < low(mark) - 0.01)
      if (lane < 0) lane = Math.min(ends.length, lanes - 1)
      ends[lane] = Math.max(ends[lane] ?? -Infinity, high(mark))
      return { mark, lane }
    })
}

/** What a wear rule shows. */
export interface WearRuleInput {
  readonly size: WearRuleSize
  readonly marks: readonly Mark[]
  /** Where the chain is done, %: a notch cut into the edge. */
  readonly limit: number
  /** Where to look more often, %; drawn on larger rules only. */
  readonly watch?: number
  /** How the numerals are written. */
  readonly numeral: (value: number) => string
}

/**
 * The wear rule: elongation on the same steel scale wherever it is shown, spots as marks with their uncertainty, the limit as a
 * notch cut into the edge. The worst mark is in the ink of the verdict.
 */
export function wearRule({ size, marks, limit, watch, numeral }: WearRuleInput): Drawing {
  const measures = SIZES[size]
  const { width, height, edge, depth, pad, minor, major, font, lanes, notch } = measures
  const x = scaleOf(measures)
  const small = size === 'small'
  const ticks = Array.from({ length: Math.round((HIGHEST - LOWEST) / STEP) + 1 }, (_, i) => LOWEST + i * STEP)
  const isLabelled = (tick: number): boolean => Math.abs(tick / LABELLED - Math.round(tick / LABELLED)) < 1e-9
  const band = (from: number, to: string, fill: InkName): Shape => ({
    kind: 'path',
    d: `M${x(from)} ${edge + depth - 5}H${to}V${edge + depth - 1}H${x(from)}Z`,
    fill,
    opacity: 0.55,
  })
  const shapes: Shape[] = [
    {
      kind: 'path',
      d: `M1 ${edge}H${x(limit) - notch}L${x(limit)} ${edge + notch * 1.3}L${x(limit) + notch} ${edge}H${width - 1}V${edge + depth}H1Z`,
      fill: 'blade',
      stroke: 'edge',
      width: small ? 1 : 1.4,
      round: true,
    },
  ]
  if (!small) shapes.push(band(limit, String(width - 2), 'madder'))
  if (!small && watch !== undefined && watch < limit) shapes.push(band(watch, String(x(limit)), 'brass'))
  for (const tick of small ? ticks.filter(isLabelled) : ticks) {
    const labelled = isLabelled(tick)
    // The notch is cut where a tick may be: the tick then begins at its foot.
    const top = Math.abs(tick - limit) < STEP / 2 ? edge + notch * 1.3 : edge
    shapes.push({
      kind: 'path',
      d: linePath(x(tick), top, x(tick), edge + (labelled ? major : minor)),
      stroke: 'edge',
      width: labelled && !small ? 1.5 : 1,
    })
  }
  if (font > 0)
    for (const tick of ticks.filter(isLabelled))
      shapes.push({
        kind: 'text',
        x: x(tick) + (tick === LOWEST ? -pad / 3 : tick === HIGHEST ? pad / 3 : 0),
        y: edge + major + font * 0.95,
        text: numeral(tick),
        size: font,
        anchor: tick === LOWEST ? 'start' : tick === HIGHEST ? 'end' : 'middle',
        fill: 'ink',
      })
  if (small) shapes.push(...smallMark(marks, x, edge))
  else {
    const laneHeight = (edge - 14) / lanes
    for (const { mark, lane } of inLanes(marks, lanes))
      shapes.push(...largeMark(mark, x, { y: edge - 10 - lane * laneHeight, edge, major }))
  }
  return { width, height, shapes }
}

function largeMark(
  mark: Mark,
  x: (value: number) => number,
  { y, edge, major }: { y: number; edge: number; major: number },
): Shape[] {
  const fill: InkName = mark.worst ? 'own' : 'ink'
  const { value, over, under, worst } = mark
  const half = worst ? 3 : 2.5
  const bar: Shape = {
    kind: 'rect',
    x: x(low(mark)),
    y: y - half,
    w: Math.max(2, x(high(mark)) - x(low(mark))),
    h: 2 * half,
    r: 2.5,
    fill,
    opacity: value === null ? 0.45 : 0.26,
  }
  if (value === null)
    return [
      bar,
      ...[over, under]
        .filter((edgeOf) => edgeOf !== null)
        .map((edgeOf): Shape => ({
          kind: 'path',
          d: linePath(x(edgeOf), y - 6, x(edgeOf), edge),
          stroke: fill,
          width: 1.6,
        })),
    ]
  return [
    bar,
    {
      kind: 'path',
      d: linePath(x(value), y, x(value), edge + (worst ? major * 0.72 : 0)),
      stroke: fill,
      width: worst ? 2.6 : 1.4,
    },
    { kind: 'circle', cx: x(value), cy: y, r: worst ? 5.5 : 4, fill },
    ...(value > HIGHEST ? [{ kind: 'path', d: `M${x(HIGHEST) + 7} ${y - 5}l7 5-7 5Z`, fill } as const] : []),
  ]
}

/** On a small rule only the worst mark shows, as a pointer on the edge. */
function smallMark(marks: readonly Mark[], x: (value: number) => number, edge: number): Shape[] {
  const fill: InkName = 'own'
  const worst = marks.find((mark) => mark.worst) ?? marks[0]
  if (!worst) return []
  if (worst.value === null)
    return [
      {
        kind: 'rect',
        x: x(low(worst)),
        y: edge - 6,
        w: Math.max(3, x(high(worst)) - x(low(worst))),
        h: 4.5,
        r: 2,
        fill,
        opacity: 0.75,
      },
    ]
  const at = x(worst.value)
  return [{ kind: 'path', d: `M${at - 5} ${edge - 10}h10L${at} ${edge - 0.5}Z`, fill }]
}
