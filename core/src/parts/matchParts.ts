import { DEFAULTS } from '../defaults.ts'
import type { Assumptions } from '../assumptions.ts'
import { CHAIN_RULES, type ChainRuleId } from './chainRules.ts'
import {
  decideAll,
  worstOutcome,
  type ChainModel,
  type JointModel,
  type Outcome,
  type PartsDrive,
  type PartsFact,
  type RuleOutcome,
} from './describe.ts'
import { linksAYear, type HabitCost } from './habit.ts'
import { JOINT_RULES, type JointCandidate, type JointFacts, type JointRuleId } from './jointRules.ts'

/** A part with what every rule says of it. */
export interface Judged<Part, Id extends string> {
  readonly part: Part
  readonly outcome: Outcome
  readonly rules: readonly RuleOutcome<Id>[]
  /** Facts that would tell, where something is not known. */
  readonly missing: readonly PartsFact[]
}

export type JudgedChain = Judged<ChainModel, ChainRuleId>
export type JudgedJoint = Judged<JointCandidate, JointRuleId> & {
  /** What links of its kind would cost over a year, where the chain comes off often. */
  readonly habit: HabitCost | null
}

const judged = <Part, Id extends string>(part: Part, rules: readonly RuleOutcome<Id>[]): Judged<Part, Id> => ({
  part,
  outcome: worstOutcome(rules),
  rules,
  missing: [...new Set(rules.flatMap(({ missing }) => missing ?? []))],
})

/** What every rule says of a chain on a drive. A substitution somebody asks about is answered by the same. */
export const judgeChain = (drive: PartsDrive, chain: ChainModel): JudgedChain =>
  judged(chain, decideAll(CHAIN_RULES, { drive, chain }))

const RANK: Readonly<Record<Outcome, number>> = { fits: 0, caution: 1, 'not-known': 2, 'does-not-fit': 3 }

/** Lists with the first on top; the last decides by what never changes, so that the catalogue's order does not. */
const by =
  <T>(...keys: readonly ((one: T) => number | string)[]) =>
  (a: T, b: T): number => {
    for (const key of keys) {
      const [x, y] = [key(a), key(b)]
      if (x !== y) return x < y ? -1 : 1
    }
    return 0
  }

const cautions = (rules: readonly RuleOutcome[]): number => rules.filter(({ outcome }) => outcome === 'caution').length
const priceOf = (price: number | null): number => price ?? Infinity

/**
 * Chains for a drive, the best first: by what the rules say, then how many cautions, the drivetrain's own level, what is
 * in stock, and the price. What does not fit comes last, and is never offered as fitting; stock and price exclude nothing.
 *
 * @param chains in any order: it changes nothing
 */
export function matchChains(drive: PartsDrive, chains: readonly ChainModel[]): JudgedChain[] {
  return chains
    .map((chain) => judgeChain(drive, chain))
    .sort(
      by(
        ({ outcome }) => RANK[outcome],
        ({ rules }) => cautions(rules),
        ({ part }) => (drive.level !== null && part.level === drive.level ? 0 : 1),
        ({ part }) => (part.stock > 0 ? 0 : 1),
        ({ part }) => priceOf(part.price),
        ({ part }) => part.name,
        ({ part }) => part.id,
      ),
    )
}

/** What comes with the chain before what can be opened again, that before a pin, and the old pin last. */
function kindRank({ jointInBox }: ChainModel, { model }: JointCandidate): number {
  if (model === 're-press') return 3
  if (model.kind === (jointInBox === 'preset-pin' ? 'pin' : jointInBox)) return 0
  return model.kind === 'pin' ? 2 : 1
}

/** What joints are matched for. */
export type JointQuery = Omit<JointFacts, 'joint'> & {
  /** How often the chain is taken off in a year; 0 where it stays on. */
  readonly removalsAYear?: number
}

/** What every rule says of a joint for a chain. A substitution somebody asks about is answered by the same. */
export function judgeJoint(query: JointQuery, joint: JointCandidate): JudgedJoint {
  const { removalsAYear = 0, assumed = DEFAULTS, ...facts } = query
  return {
    ...judged(joint, decideAll(JOINT_RULES, { ...facts, assumed, joint })),
    habit: joint.model === 're-press' || removalsAYear === 0 ? null : linksAYear(joint.model, removalsAYear),
  }
}

/**
 * Joints for a chain, the best first: by what the rules say, then cautions; a chain that comes off often ranks links that
 * can be used again first; then the kind that comes in the chain's box, what can be opened again,
 * the chain's own maker, stock and price. What
 * does not fit comes last.
 */
export function matchJoints(query: JointQuery, joints: readonly JointCandidate[]): JudgedJoint[] {
  return joints
    .map((joint) => judgeJoint(query, joint))
    .sort(
      by(
        ({ outcome }) => RANK[outcome],
        ({ rules }) => cautions(rules),
        ({ habit }) => (habit === null ? 0 : (habit.linksAYear ?? 0)),
        ({ part }) => kindRank(query.chain, part),
        ({ part }) => (part.model === 're-press' || part.model.maker === query.chain.maker ? 0 : 1),
        ({ part }) => (part.model === 're-press' || part.model.stock > 0 ? 0 : 1),
        ({ part }) => (part.model === 're-press' ? Infinity : priceOf(part.model.price)),
        ({ part }) => (part.model === 're-press' ? '' : part.model.name),
        ({ part }) => (part.model === 're-press' ? '' : part.model.id),
      ),
    )
}

/** A fact that is not known, and what it would decide. */
export interface FactWanted {
  readonly fact: PartsFact
  readonly rules: readonly string[]
  /** Parts of the list that wait for it. */
  readonly parts: number
}

/** The facts a list waits for, together, what most parts wait for first: so that they are asked once. */
export function factsWanted(list: readonly Judged<unknown, string>[]): FactWanted[] {
  const wanted = new Map<PartsFact, { rules: Set<string>; parts: number }>()
  for (const { rules, missing } of list) {
    for (const fact of missing) {
      const known = wanted.get(fact) ?? { rules: new Set(), parts: 0 }
      known.parts++
      wanted.set(fact, known)
    }
    for (const { rule, missing: fact } of rules) if (fact) wanted.get(fact)!.rules.add(rule)
  }
  return [...wanted]
    .map(([fact, { rules, parts }]) => ({ fact, rules: [...rules], parts }))
    .sort(
      by(
        ({ parts }) => -parts,
        ({ fact }) => fact,
      ),
    )
}

/** How often a chain comes off in a year by its care. */
export const removalsAYear = (
  { care, takenOff }: Pick<PartsDrive, 'care' | 'takenOff'>,
  { parts }: Assumptions = DEFAULTS,
): number => (care === 'immersion-wax' ? parts.removalsWax : takenOff ? parts.removalsOff : 0)

/** A joint of the catalogue, new. */
export const newJoint = (model: JointModel): JointCandidate => ({ model, closings: 0 })
