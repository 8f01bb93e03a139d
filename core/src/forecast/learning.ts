import {
  FOLDS,
  lifeLikelihood,
  logEvidence,
  PROFILE_95,
  weightsFor,
  type LearningChain,
  type LifeLikelihood,
} from './lifeLikelihood.ts'
import { shippedPrior, type CareKind, type WearPrior } from './priors.ts'
import type { WearPriorDefaults } from '../defaults.ts'

/** What a shop's chains of one care say of their life, beside what was assumed. */
export interface LearnedLife {
  /** Median life to 0.5 %, thousand weighted km, and where it lies with 95 %. */
  readonly life: number
  readonly lifeRange: readonly [low: number, high: number]
  /** Standard deviation of its logarithm. */
  readonly lifeSd: number
  readonly chains: number
  /**
   * How much more likely each chain was under what the others taught than under the shipped prior: mean logarithm over
   * held-out chains. Below 0 nothing was learned, and the shipped prior stays.
   */
  readonly heldOutGain: number
  /** What to believe from now on: the learned life, or the shipped prior where learning did not help. */
  readonly prior: WearPrior
  readonly adopted: boolean
}

/** Chains below which nothing is learned. */
export const CHAINS_TO_LEARN = 8
const SPREADS = Array.from({ length: 29 }, (_, i) => 0.1 * Math.pow(8, i / 28))
const STEPS = 161
const REACH = 1.4

/**
 * Learns the life of a shop's chains of one care by empirical Bayes: the median and spread of T under which all their
 * readings together are likeliest. Chains finished, running and changed early count alike, each by what was read of it;
 * crossings are never observed.
 *
 * @param chains with a reading or more each
 * @returns null with too few chains
 */
export function learnLife(
  care: CareKind,
  chains: readonly LearningChain[],
  defaults: WearPriorDefaults,
): LearnedLife | null {
  if (chains.length < CHAINS_TO_LEARN) return null
  const shipped = shippedPrior(care, defaults)
  const likelihoods = chains.map((chain) => lifeLikelihood(care, chain, defaults))
  const found = likeliest(likelihoods, shipped)
  const shippedWeights = weightsFor(likelihoods, Math.log(shipped.life), shipped.lifeSd)
  // Every chain is judged by what the other folds taught.
  let gain = 0
  for (let fold = 0; fold < FOLDS; fold++) {
    const taught = likeliest(
      likelihoods.filter((_, i) => i % FOLDS !== fold),
      shipped,
    )
    const taughtWeights = weightsFor(likelihoods, taught.logLife, taught.spread)
    likelihoods.forEach((one, i) => {
      if (i % FOLDS === fold) gain += logEvidence(one, taughtWeights) - logEvidence(one, shippedWeights)
    })
  }
  const heldOutGain = gain / chains.length
  const adopted = heldOutGain > 0
  const life = Math.exp(found.logLife)
  return {
    life,
    lifeRange: [Math.exp(found.low), Math.exp(found.high)],
    lifeSd: found.spread,
    chains: chains.length,
    heldOutGain,
    adopted,
    prior: adopted ? { ...shipped, life, lifeSd: found.spread } : shipped,
  }
}

function likeliest(
  chains: readonly LifeLikelihood[],
  shipped: WearPrior,
): { logLife: number; spread: number; low: number; high: number } {
  const centre = Math.log(shipped.life)
  const best = Array.from({ length: STEPS }, (_, i) => {
    const logLife = centre - REACH + (2 * REACH * i) / (STEPS - 1)
    let top = -Infinity
    let topSpread: number = shipped.lifeSd
    for (const spread of SPREADS) {
      const weights = weightsFor(chains, logLife, spread)
      let sum = spreadBelief(spread, shipped.lifeSd)
      for (const chain of chains) sum += logEvidence(chain, weights)
      if (sum > top) [top, topSpread] = [sum, spread]
    }
    return { logLife, log: top, spread: topSpread }
  })
  const top = best.reduce((a, b) => (b.log > a.log ? b : a))
  const inside = best.filter(({ log }) => log >= top.log - PROFILE_95)
  return { logLife: top.logLife, spread: top.spread, low: inside[0]!.logLife, high: inside.at(-1)!.logLife }
}

/** A few chains may look alike by chance: the spread is held near the shipped one until there are many. */
const spreadBelief = (spread: number, shippedSpread: number): number =>
  -0.5 * (Math.log(spread / shippedSpread) / 0.7) ** 2
