import { cutPlan, type CutPlan, type CutPlanInput } from '../length/cutPlan.ts'
import type { ChainModel } from './describe.ts'
import type { JointCandidate } from './jointRules.ts'

/** One part a job wants. */
export interface WantedPart {
  readonly partId: string
  readonly quantity: number
  /** In another part's box: neither paid for nor taken from stock. */
  readonly included: boolean
}

/** How a chain comes out of its box, and what closes it. */
export const boxOf = (
  { inBox, jointInBox }: Pick<ChainModel, 'inBox' | 'jointInBox'>,
  { model }: Pick<JointCandidate, 'model'>,
): Omit<CutPlanInput, 'pitches'> => ({
  inBox,
  // What is closed with a pin out of its box comes with one end outer.
  boxEnds: jointInBox === 'pin' || jointInBox === 'preset-pin' ? 'one-outer' : 'both-inner',
  closedBy: model === 're-press' || model.kind === 'pin' ? 'pin' : 'link',
})

/**
 * How a chain out of its box is cut for a joint.
 *
 * @param pitches the length, its joint among it; even
 * @throws RangeError as `cutPlan`
 */
export const cutFor = (
  { inBox, jointInBox }: Pick<ChainModel, 'inBox' | 'jointInBox'>,
  { model }: Pick<JointCandidate, 'model'>,
  pitches: number,
): CutPlan => cutPlan({ pitches, ...boxOf({ inBox, jointInBox }, { model }) })

/**
 * What a chain and its joint come to as a list: as many boxes as the length takes, and a joint for each. A joint of the kind
 * that comes in the chain's box is in it, where it is the chain's own maker's.
 *
 * @param pitches the length, the joint among it; an odd one, for a half link, is bought as the next even one
 * @throws RangeError as `cutPlan`
 */
export function shoppingList(chain: ChainModel, joint: JointCandidate, pitches: number): WantedPart[] {
  const { boxes, joints } = cutFor(chain, joint, pitches + (pitches % 2))
  const chains: WantedPart = { partId: chain.id, quantity: boxes, included: false }
  // What is on the bike already, or its own pin, is not bought.
  if (joint.model === 're-press' || joint.closings !== 0) return [chains]
  const boxKind = chain.jointInBox === 'preset-pin' ? 'pin' : chain.jointInBox
  const included = joint.model.kind === boxKind && joint.model.maker === chain.maker
  return [chains, { partId: joint.model.id, quantity: joints, included }]
}
