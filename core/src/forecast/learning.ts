import { fitWear, type WearPosterior, type WearQuery } from './fitWear.ts'
import { shippedPrior, type CareKind, type WearPrior } from './priors.ts'
import type { WearPriorDefaults } from '../defaults.ts'

/** What a chain's readings say, for learning: its own prior is not asked. */
export type LearningChain = Omit<WearQuery, 'prior' | 'care'>

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

/** Spread of ln T that the fits for learning are made under: wide, so that the chain itself speaks. */
const WIDE_SD = 0.9
/** Chains below which nothing is learned. */
export const CHAINS_TO_LEARN = 8
const FOLDS = 4
const SPREADS = Array.from({ length: 29 }, (_, i) => 0.1 * Math.pow(8, i / 28))
const STEPS = 161
const REACH = 1.4
/** Fall of the logarithm that bounds a 95 % interval of one parameter. */
const PROFILE_95 = 1.92

/** How likely a chain's readings are by ln T: logarithms, at the nodes of the grid it was fitted on. */
interface LifeLikelihood {
  readonly first: number
  readonly step: number
  readonly likelihood: Float64Array
}

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
  const wide = { ...shipped, lifeSd: WIDE_SD }
  const likelihoods = chains.map((chain) => byLife(fitWear({ ...chain, care, prior: wide, defaults }), wide))
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

/** The likelihood by ln T: the posterior's weights without the prior they were made under. */
function byLife({ below, columns, lives, firstLogLife, logLifeStep }: WearPosterior, prior: WearPrior): LifeLikelihood {
  const likelihood = new Float64Array(lives)
  for (let c = 0; c < columns; c++) {
    let last = 0
    for (let i = 0; i < lives; i++) {
      likelihood[i] = likelihood[i]! + below[c * lives + i]! - last
      last = below[c * lives + i]!
    }
  }
  for (let i = 0; i < lives; i++) {
    const z = (firstLogLife + i * logLifeStep - Math.log(prior.life)) / prior.lifeSd
    likelihood[i] = likelihood[i]! * Math.exp(0.5 * z * z)
  }
  return { first: firstLogLife, step: logLifeStep, likelihood }
}

/** Weights of a median and spread of life for each of the grids chains were fitted on: known and unknown starts differ. */
type PriorWeights = ReadonlyMap<number, Float64Array>

function weightsFor(chains: readonly LifeLikelihood[], logLife: number, spread: number): PriorWeights {
  const weights = new Map<number, Float64Array>()
  for (const chain of chains)
    if (!weights.has(chain.likelihood.length))
      weights.set(chain.likelihood.length, priorWeights(chain, logLife, spread))
  return weights
}

/** The weights of a median and spread of life at the nodes of a grid, summing to 1. */
function priorWeights({ first, step, likelihood }: LifeLikelihood, logLife: number, spread: number): Float64Array {
  const weights = new Float64Array(likelihood.length)
  let sum = 0
  for (let i = 0; i < weights.length; i++) {
    const z = (first + i * step - logLife) / spread
    weights[i] = Math.exp(-0.5 * z * z)
    sum += weights[i]!
  }
  for (let i = 0; i < weights.length; i++) weights[i] = weights[i]! / Math.max(sum, 1e-300)
  return weights
}

/** Logarithm of how likely a chain is under such weights. */
function logEvidence({ likelihood }: LifeLikelihood, prior: PriorWeights): number {
  const weights = prior.get(likelihood.length)!
  let sum = 0
  for (let i = 0; i < likelihood.length; i++) sum += weights[i]! * likelihood[i]!
  return Math.log(Math.max(sum, 1e-300))
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
