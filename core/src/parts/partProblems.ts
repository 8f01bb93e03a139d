import type { TeethOrderProblem, TeethProblem } from '../length/teeth.ts'
import { teethProblem } from '../length/teeth.ts'
import type { ChainModel, JointModel } from './describe.ts'
import type { CassetteModel, DerailleurModel, RingModel } from './otherParts.ts'

/** Why an entry of the catalogue cannot be. Keys of the message catalogue. */
export type PartProblem =
  | TeethProblem
  | TeethOrderProblem
  | 'text-missing'
  | 'text-too-long'
  | 'cell-formula'
  | 'number-missing'
  | 'number-malformed'
  | 'number-whole'
  | 'choice-unknown'
  | 'yes-no-unknown'
  | 'system-unknown'
  | 'chain-unknown'
  | 'reuse-unknown'
  | 'part-kind-unknown'
  | 'teeth-missing'
  | 'pulleys-two'
  | 'reorder-negative'
  | 'pitches-added'
  | 'capacity-range'
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

const CAPACITY = { lowest: 8, highest: 80 } as const
const MOST_ADDED = 12

/** What is wrong with a cassette's entry, beside its teeth and their order. */
export const cassetteProblems = (cassette: CassetteModel): PartProblemAt[] => found(money(cassette))

/** What is wrong with a ring's entry. */
export const ringProblems = (ring: RingModel): PartProblemAt[] =>
  found({ teeth: teethProblem(ring.teeth), speeds: speedsProblem(ring.speeds), ...money(ring) })

/** What is wrong with a derailleur's entry. */
export function derailleurProblems(derailleur: DerailleurModel): PartProblemAt[] {
  const { speeds, capacityTeeth, largestSprocketTeeth, pulleys, addPitches } = derailleur
  return found({
    speeds: speedsProblem(speeds),
    capacityTeeth: !within(capacityTeeth, CAPACITY) && 'capacity-range',
    largestSprocketTeeth: teethProblem([largestSprocketTeeth]),
    pulleys: teethProblem(pulleys),
    addPitches: addPitches !== null && !(addPitches >= 0 && addPitches <= MOST_ADDED) && 'pitches-added',
    ...money(derailleur),
  })
}

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
