import type { Assumptions } from '../assumptions.ts'
import type { CareKind } from '../forecast/priors.ts'
import type { BoxEnds } from '../length/cutPlan.ts'
import type { ChainModel, JointModel, Rule, RuleOutcome } from './describe.ts'
import { judgeReuse, type ReuseSchool } from './reuse.ts'
import { speedsMatch } from './speeds.ts'

export type JointRuleId =
  | 'joint-kind'
  | 'joint-speeds'
  | 'joint-profile'
  | 'joint-maker'
  | 'joint-width'
  | 're-press'
  | 'reuse'
  | 'ends'
  | 'pin-and-wax'

/** A joint that could close a chain: one of the catalogue, or the old pin pushed back in. */
export type JointCandidate =
  | {
      readonly model: JointModel
      /** How often this very one was closed; 0 new; null where nobody counted. */
      readonly closings: number | null
      /** Whether it still clicks firmly, where it was tried. */
      readonly firm?: boolean
    }
  | { readonly model: 're-press' }

export interface JointFacts {
  readonly chain: ChainModel
  readonly joint: JointCandidate
  /** Whether the chain is a new one. */
  readonly newChain: boolean
  /** Speeds of the chain as it is used. */
  readonly speeds: number
  readonly school: ReuseSchool
  readonly care: CareKind
  /** What the ends are now; left out: still to be cut. */
  readonly ends?: BoxEnds
  readonly assumed: Assumptions
}

const RE_PRESSED_TO: Readonly<Record<'allowed' | 'caution', number>> = { allowed: 8, caution: 9 }
const isWax = (care: CareKind): boolean => care === 'immersion-wax' || care === 'drip-wax'
const special = ({ profile, roller }: Pick<ChainModel, 'profile' | 'roller'>): boolean =>
  profile === 'flat-top' || roller === 'large'

/** Whether an old pin may be pressed in again: only on wide chains, and never where its maker flares its ends. */
export function rePressRule({
  speeds,
  flaredPins,
}: {
  readonly speeds: number
  readonly flaredPins: boolean
}): Omit<RuleOutcome, 'rule'> {
  if (flaredPins) return { outcome: 'does-not-fit', reason: 're-press-flared' }
  if (speeds <= RE_PRESSED_TO.allowed) return { outcome: 'fits', reason: 're-press-wide' }
  return speeds <= RE_PRESSED_TO.caution
    ? { outcome: 'caution', reason: 're-press-nine', values: { speeds } }
    : { outcome: 'does-not-fit', reason: 're-press-narrow', values: { speeds } }
}

/** What that comes to for a job: an excluded one is never offered. */
export function rePressOf(chain: Parameters<typeof rePressRule>[0]): 'allowed' | 'caution' | 'excluded' {
  const { outcome } = rePressRule(chain)
  return outcome === 'fits' ? 'allowed' : outcome === 'caution' ? 'caution' : 'excluded'
}

/** Every rule a joint is judged by. Nothing else decides whether a joint fits. */
export const JOINT_RULES: readonly Rule<JointFacts, JointRuleId>[] = [
  {
    id: 'joint-kind',
    decide: ({ chain, joint }) => {
      const kind = joint.model === 're-press' ? 're-press' : joint.model.kind
      return chain.joints.includes(kind)
        ? { outcome: 'fits', reason: `kind-${kind}` }
        : // What its maker does not name for pressing again is told by that rule, with its own limits.
          kind === 're-press'
          ? null
          : { outcome: 'does-not-fit', reason: 'kind-not-taken', values: { chain: chain.name } }
    },
  },
  {
    id: 'joint-speeds',
    decide: ({ joint, speeds }) => {
      if (joint.model === 're-press') return null
      const values = { speeds, made: joint.model.speeds.join(', ') }
      return speedsMatch(joint.model.speeds, speeds)
        ? { outcome: 'fits', reason: speeds === 1 ? 'joint-speeds-single' : 'joint-speeds-match', values }
        : { outcome: 'does-not-fit', reason: speeds === 1 ? 'joint-speeds-not-single' : 'joint-speeds-differ', values }
    },
  },
  {
    id: 'joint-profile',
    decide: ({ chain, joint }) => {
      if (joint.model === 're-press') return null
      const { model } = joint
      if (!special(chain) && !special(model)) return { outcome: 'fits', reason: 'joint-profile-plain' }
      return model.profile === chain.profile && model.roller === chain.roller
        ? { outcome: 'fits', reason: 'joint-profile-own' }
        : { outcome: 'does-not-fit', reason: 'joint-profile-differs' }
    },
  },
  {
    id: 'joint-maker',
    decide: ({ chain, joint }) => {
      if (joint.model === 're-press') return null
      const { model } = joint
      const values = { joint: model.maker, chain: chain.maker }
      if (model.kind !== 'pin')
        return model.maker === chain.maker
          ? { outcome: 'fits', reason: 'joint-maker-own', values }
          : special(chain)
            ? { outcome: 'does-not-fit', reason: 'joint-maker-special', values }
            : { outcome: 'fits', reason: 'joint-maker-mixes', values }
      const belongs = model.belongsTo.length > 0 ? model.belongsTo.includes(chain.id) : model.maker === chain.maker
      return belongs
        ? { outcome: 'fits', reason: 'joint-maker-pin', values }
        : { outcome: 'does-not-fit', reason: 'joint-maker-pin-other', values }
    },
  },
  {
    id: 'joint-width',
    decide: ({ chain, joint, assumed }) => {
      if (joint.model === 're-press' || joint.model.kind === 'pin') return null
      const { outerMm } = joint.model
      if (outerMm === null || chain.outerMm === null)
        return { outcome: 'not-known', reason: 'joint-width-unknown', missing: 'outer-width' }
      const apart = Math.abs(outerMm - chain.outerMm)
      const values = { apart: Number(apart.toFixed(2)), most: assumed.parts.jointWidthMm }
      return apart <= assumed.parts.jointWidthMm + 1e-9
        ? { outcome: 'fits', reason: 'joint-width-match', values }
        : { outcome: 'does-not-fit', reason: 'joint-width-apart', values }
    },
  },
  {
    id: 're-press',
    decide: ({ chain, joint, speeds }) => {
      if (joint.model !== 're-press') return null
      return rePressRule({ speeds, flaredPins: chain.flaredPins })
    },
  },
  {
    id: 'reuse',
    decide: ({ joint, newChain, school }) => {
      if (joint.model === 're-press' || joint.model.kind === 'pin') return null
      if (newChain && joint.closings !== 0) return { outcome: 'does-not-fit', reason: 'reuse-new-chain' }
      return judgeReuse({ ...joint, reuse: joint.model.reuse }, school)
    },
  },
  {
    id: 'ends',
    decide: ({ joint, ends }) => {
      if (ends === undefined) return null
      const wanted: BoxEnds = joint.model === 're-press' || joint.model.kind === 'pin' ? 'one-outer' : 'both-inner'
      return ends === wanted
        ? { outcome: 'fits', reason: `ends-${wanted}` }
        : { outcome: 'does-not-fit', reason: wanted === 'both-inner' ? 'ends-want-inner' : 'ends-want-outer' }
    },
  },
  {
    id: 'pin-and-wax',
    decide: ({ joint, care }) =>
      isWax(care) && (joint.model === 're-press' || joint.model.kind === 'pin')
        ? { outcome: 'caution', reason: 'pin-and-wax' }
        : null,
  },
]
