import type { WearPriorDefaults } from '../defaults.ts'
import { CHAINS_TO_LEARN } from './learning.ts'
import {
  FOLDS,
  lifeLikelihood,
  logEvidence,
  PROFILE_95,
  weightsFor,
  type LearningChain,
  type LifeLikelihood,
} from './lifeLikelihood.ts'
import type { CareKind, WearPrior } from './priors.ts'

/** A chain of a bike nobody says the surface of: its odometer alone tells how far it was ridden. */
export interface UnsaidChain {
  readonly care: CareKind
  /** What is believed of its care, learned or shipped. */
  readonly prior: WearPrior
  readonly chain: LearningChain
}

/** What a shop's chains say of kilometres nobody said the surface of. */
export interface LearnedUnsaid {
  /** How many times what was believed they wear, and where that lies with 95 %. */
  readonly factor: number
  readonly range: readonly [low: number, high: number]
  readonly chains: number
  /** Mean logarithm, over chains held out, by which each was likelier under what the others taught than as believed. */
  readonly heldOutGain: number
  /** Whether it is to be believed from now on: only where it helped on chains it was not learned from. */
  readonly adopted: boolean
}

/** Standard deviation of the logarithm the factor is believed to have before anything is learned. */
const BELIEF = 0.2
const REACH = 0.6
const STEPS = 121
const LOGS = Array.from({ length: STEPS }, (_, i) => -REACH + (2 * REACH * i) / (STEPS - 1))

/**
 * Learns how much more, or less, than believed kilometres wear that nobody said the surface of: the one factor under which the
 * chains of all such bikes together are likeliest, each by what is believed of its care.
 *
 * @returns null with too few chains
 */
export function learnUnsaidWear(chains: readonly UnsaidChain[], defaults: WearPriorDefaults): LearnedUnsaid | null {
  if (chains.length < CHAINS_TO_LEARN) return null
  const likelihoods = chains.map(({ care, chain }) => lifeLikelihood(care, chain, defaults))
  // By chain, its evidence under each factor: more wear a kilometre is less life.
  const evidence = chains.map(({ prior }, i) => LOGS.map((log) => evidenceUnder(likelihoods[i]!, prior, log)))
  const found = likeliest(evidence)
  const asBelieved = (STEPS - 1) / 2
  let gain = 0
  for (let fold = 0; fold < FOLDS; fold++) {
    const taught = likeliest(evidence.filter((_, i) => i % FOLDS !== fold))
    for (const [i, one] of evidence.entries()) if (i % FOLDS === fold) gain += one[taught.at]! - one[asBelieved]!
  }
  const heldOutGain = gain / chains.length
  return {
    factor: Math.exp(LOGS[found.at]!),
    range: [Math.exp(LOGS[found.low]!), Math.exp(LOGS[found.high]!)],
    chains: chains.length,
    heldOutGain,
    adopted: heldOutGain > 0,
  }
}

const evidenceUnder = (one: LifeLikelihood, { life, lifeSd }: WearPrior, log: number): number =>
  logEvidence(one, weightsFor([one], Math.log(life) - log, lifeSd))

/** Where evidence and belief together are highest, and the ends of where they are nearly so. */
function likeliest(evidence: readonly (readonly number[])[]): { at: number; low: number; high: number } {
  const sums = LOGS.map((log, i) => evidence.reduce((sum, one) => sum + one[i]!, -0.5 * (log / BELIEF) ** 2))
  const top = Math.max(...sums)
  const inside = sums.map((sum) => sum >= top - PROFILE_95)
  return { at: sums.indexOf(top), low: inside.indexOf(true), high: inside.lastIndexOf(true) }
}
