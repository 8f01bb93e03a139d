import type { WearPriorDefaults } from '../defaults.ts'
import { fitWear, type WearPosterior, type WearQuery } from './fitWear.ts'
import { shippedPrior, type CareKind, type WearPrior } from './priors.ts'

/** What a chain's readings say, for learning: its own prior is not asked. */
export type LearningChain = Omit<WearQuery, 'prior' | 'care'>

/** Spread of ln T that the fits for learning are made under: wide, so that the chain itself speaks. */
const WIDE_SD = 0.9
/** What is learned is judged by chains it was not learned from: as many parts take turns. */
export const FOLDS = 4
/** Fall of the logarithm that bounds a 95 % interval of one parameter. */
export const PROFILE_95 = 1.92

/** How likely a chain's readings are by ln T: logarithms, at the nodes of the grid it was fitted on. */
export interface LifeLikelihood {
  readonly first: number
  readonly step: number
  readonly likelihood: Float64Array
}

/** What a chain's readings say of its life, whatever is believed of its care. */
export function lifeLikelihood(care: CareKind, chain: LearningChain, defaults: WearPriorDefaults): LifeLikelihood {
  const wide = { ...shippedPrior(care, defaults), lifeSd: WIDE_SD }
  return byLife(fitWear({ ...chain, care, prior: wide, defaults }), wide)
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

export function weightsFor(chains: readonly LifeLikelihood[], logLife: number, spread: number): PriorWeights {
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
export function logEvidence({ likelihood }: LifeLikelihood, prior: PriorWeights): number {
  const weights = prior.get(likelihood.length)!
  let sum = 0
  for (let i = 0; i < likelihood.length; i++) sum += weights[i]! * likelihood[i]!
  return Math.log(Math.max(sum, 1e-300))
}
