import type { Assumptions } from '../assumptions.ts'
import { CHAIN_RULES, type ChainRuleId } from './chainRules.ts'
import {
  decideAll,
  weigh,
  worstOutcome,
  type ChainModel,
  type JointModel,
  type Outcome,
  type PartsDrive,
  type PartsFact,
  type RuleOutcome,
  type Weight,
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

/** A part with how it stands; what every rule says of it is judged on demand. */
export interface Ranked<Part> extends Weight {
  readonly part: Part
}

/** What parts are ordered by, compared one key after the other: smaller first. */
type Keys = readonly (number | string)[]

/** Sorts by keys worked out once a part; the last of them decide by what never changes, so that the catalogue's order does not. */
function byKeys<T>(list: readonly T[], keysOf: (one: T) => Keys): T[] {
  return list
    .map((one) => ({ one, keys: keysOf(one) }))
    .sort((a, b) => {
      for (let i = 0; i < a.keys.length; i++) {
        const [x, y] = [a.keys[i]!, b.keys[i]!]
        if (x !== y) return x < y ? -1 : 1
      }
      return 0
    })
    .map(({ one }) => one)
}

/** What chains are ordered by, the most important first. */
export const CHAIN_ORDER = ['outcome', 'cautions', 'level', 'stock', 'price', 'name'] as const
export type ChainOrder = (typeof CHAIN_ORDER)[number]

/** A chain as it is ordered. */
interface OrderedChain {
  readonly part: Pick<ChainModel, 'id' | 'name' | 'level' | 'stock' | 'price'>
  readonly outcome: Outcome
}
/** The same with what each rule says of it. */
type RuledChain = OrderedChain & { readonly rules: readonly { readonly outcome: Outcome }[] }

const chainKeys = (
  { level }: Pick<PartsDrive, 'level'>,
  { part, outcome, cautions }: OrderedChain & { readonly cautions: number },
): Keys => [
  RANK[outcome],
  cautions,
  level !== null && part.level === level ? 0 : 1,
  part.stock > 0 ? 0 : 1,
  priceOf(part.price),
  part.name,
  part.id,
]

/** By what one chain stands before another; null where it does not. */
export function aheadBy(drive: Pick<PartsDrive, 'level'>, one: RuledChain, other: RuledChain): ChainOrder | null {
  const keysOf = ({ part, outcome, rules }: RuledChain): Keys =>
    chainKeys(drive, {
      part,
      outcome,
      // Of what does not fit, nothing else is to be minded.
      cautions: outcome === 'does-not-fit' ? 0 : rules.filter((rule) => rule.outcome === 'caution').length,
    })
  const [keys, others] = [keysOf(one), keysOf(other)]
  const at = keys.findIndex((key, i) => key !== others[i])
  return at < 0 || keys[at]! > others[at]! ? null : (CHAIN_ORDER[at] ?? 'name')
}

const priceOf = (price: number | null): number => price ?? Infinity

/** Parts by how they stand: what is not excluded in its order, and the rest, to be put in order only where it is wanted. */
export interface Sifted<Part> {
  /** The best first. */
  readonly standing: readonly Ranked<Part>[]
  /** How many are excluded. */
  readonly excluded: number
  /** The best so many, the excluded among them where there are no others. */
  readonly best: (most: number) => readonly Part[]
}

function sift<Part>(
  parts: readonly Part[],
  weightOf: (part: Part) => Weight,
  keysOf: (ranked: Ranked<Part>) => Keys,
): Sifted<Part> {
  const weighed: Ranked<Part>[] = []
  const out: Ranked<Part>[] = []
  for (const part of parts) {
    // Field by field: copying objects would take longer than the rules do.
    const { outcome, cautions } = weightOf(part)
    ;(outcome === 'does-not-fit' ? out : weighed).push({ part, outcome, cautions })
  }
  const standing = byKeys(weighed, keysOf)
  return {
    standing,
    excluded: out.length,
    best: (most) => {
      const rest = standing.length >= most ? [] : byKeys(out, keysOf)
      return [...standing, ...rest].slice(0, most).map(({ part }) => part)
    },
  }
}

/**
 * Chains for a drive, the best first: by what the rules say, then how many cautions, the drivetrain's own level, what is
 * in stock, and the price. What does not fit comes last, and is never offered as fitting; stock and price exclude nothing.
 *
 * @param chains in any order: it changes nothing
 */
export const siftChains = (drive: PartsDrive, chains: readonly ChainModel[]): Sifted<ChainModel> =>
  sift(
    chains,
    (chain) => weigh(CHAIN_RULES, { drive, chain }),
    (ranked) => chainKeys(drive, ranked),
  )

/** The best chains of {@link siftChains} with what every rule says of each. @param most as many as are wanted */
export const matchChains = (drive: PartsDrive, chains: readonly ChainModel[], most = Infinity): JudgedChain[] =>
  siftChains(drive, chains)
    .best(most)
    .map((chain) => judgeChain(drive, chain))

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
  const { removalsAYear = 0, assumed, ...facts } = query
  return {
    ...judged(joint, decideAll(JOINT_RULES, { ...facts, assumed, joint })),
    habit: joint.model === 're-press' || removalsAYear === 0 ? null : linksAYear(joint.model, removalsAYear),
  }
}

/**
 * Joints for a chain, the best first: by what the rules say, then cautions; a chain that comes off often ranks links that
 * can be used again first; then the kind that comes in the chain's box, what can be opened again, the chain's own maker,
 * stock and price. What does not fit comes last.
 *
 * @param most as many as are wanted
 */
export function matchJoints(query: JointQuery, joints: readonly JointCandidate[], most = Infinity): JudgedJoint[] {
  const { removalsAYear: removals = 0, assumed, chain, newChain, speeds, school, care, ends } = query
  return sift(
    joints,
    ends === undefined
      ? (joint) => weigh(JOINT_RULES, { chain, newChain, speeds, school, care, assumed, joint })
      : (joint) => weigh(JOINT_RULES, { chain, newChain, speeds, school, care, ends, assumed, joint }),
    ({ part, outcome, cautions }) => {
      const { model } = part
      const start = [RANK[outcome], cautions]
      if (model === 're-press') return [...start, 0, kindRank(query.chain, part), 0, 0, Infinity, '', '']
      return [
        ...start,
        removals === 0 ? 0 : (linksAYear(model, removals).linksAYear ?? 0),
        kindRank(query.chain, part),
        model.maker === query.chain.maker ? 0 : 1,
        model.stock > 0 ? 0 : 1,
        priceOf(model.price),
        model.name,
        model.id,
      ]
    },
  )
    .best(most)
    .map((joint) => judgeJoint(query, joint))
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
  return byKeys(
    [...wanted].map(([fact, { rules, parts }]) => ({ fact, rules: [...rules], parts })),
    ({ parts, fact }) => [-parts, fact],
  )
}

/** How often a chain comes off in a year by its care. */
export const removalsAYear = (
  { care, takenOff }: Pick<PartsDrive, 'care' | 'takenOff'>,
  { parts }: Assumptions,
): number => (care === 'immersion-wax' ? parts.removalsWax : takenOff ? parts.removalsOff : 0)

/** A joint of the catalogue, new. */
export const newJoint = (model: JointModel): JointCandidate => ({ model, closings: 0 })
