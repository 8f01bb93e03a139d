import type { ChainModel, JointModel } from './describe.ts'

/** Why an entry of the catalogue cannot be. Keys of the message catalogue. */
export type PartProblem =
  | 'speeds-missing'
  | 'speeds-range'
  | 'inner-range'
  | 'outer-range'
  | 'outer-below-inner'
  | 'joints-missing'
  | 'joint-in-box-not-taken'
  | 'box-odd'
  | 'box-range'
  | 'stock-negative'
  | 'price-negative'
  | 'reuse-range'
  | 'systems-both'

export interface PartProblemAt {
  readonly at: string
  readonly problem: PartProblem
}

const MOST_SPEEDS = 14
const INNER_MM = { lowest: 1.8, highest: 5 } as const
const OUTER_MM = { lowest: 4, highest: 12 } as const
const BOX = { lowest: 20, highest: 400 } as const

const within = (value: number | null, { lowest, highest }: { lowest: number; highest: number }): boolean =>
  value === null || (value >= lowest && value <= highest)

function speedsProblem(speeds: readonly number[]): PartProblem | null {
  if (speeds.length === 0) return 'speeds-missing'
  return speeds.every((one) => Number.isInteger(one) && one >= 1 && one <= MOST_SPEEDS) ? null : 'speeds-range'
}

const found = (checks: Readonly<Record<string, PartProblem | null | false>>): PartProblemAt[] =>
  Object.entries(checks).flatMap(([at, problem]) => (problem ? [{ at, problem }] : []))

const money = ({ price, stock }: { price: number | null; stock: number }) => ({
  price: price !== null && price < 0 && ('price-negative' as const),
  stock: stock < 0 && ('stock-negative' as const),
})

/** What is wrong with a chain's entry, and where; empty when nothing is. */
export function chainProblems(chain: ChainModel): PartProblemAt[] {
  const { speeds, innerMm, outerMm, joints, jointInBox, inBox, approvedFor, excludedFrom } = chain
  const boxKind = jointInBox === 'preset-pin' ? 'pin' : jointInBox
  return found({
    speeds: speedsProblem(speeds),
    innerMm: !within(innerMm, INNER_MM) && 'inner-range',
    outerMm: !within(outerMm, OUTER_MM)
      ? 'outer-range'
      : innerMm !== null && outerMm !== null && outerMm <= innerMm && 'outer-below-inner',
    joints: joints.length === 0 && 'joints-missing',
    jointInBox: boxKind !== 'none' && !joints.includes(boxKind) && 'joint-in-box-not-taken',
    inBox: !within(inBox, BOX) ? 'box-range' : inBox % 2 === 1 && 'box-odd',
    excludedFrom: approvedFor.some((one) => excludedFrom.includes(one)) && 'systems-both',
    ...money(chain),
  })
}

/** What is wrong with a joint's entry, and where; empty when nothing is. */
export function jointProblems(joint: JointModel): PartProblemAt[] {
  const { speeds, outerMm, reuse } = joint
  return found({
    speeds: speedsProblem(speeds),
    outerMm: !within(outerMm, OUTER_MM) && 'outer-range',
    reuse: reuse.kind === 'times' && !(Number.isInteger(reuse.most) && reuse.most >= 2) && 'reuse-range',
    ...money(joint),
  })
}
