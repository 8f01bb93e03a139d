import { learnLife, shippedPrior, type CareKind, type LearningChain, DEFAULTS } from '@pelrin/core'
import { Chance } from '../../server/src/demo/random.ts'
import { scoreForecasts } from './scoreForecasts.ts'
import { simulateChain } from './truth.ts'

export interface LearningScore {
  /** Learned life over the planted one. */
  readonly ratio: number
  readonly heldOutGain: number
  /** Median error of forecasts under the shipped and the learned prior, thousand weighted km. */
  readonly shippedError: number
  readonly learnedError: number
}

/** Plants lives of a share of the prior's, learns from so many chains, and forecasts others with what was learned. */
export function scoreLearning(seed: number, care: CareKind, chains: number, planted: number): LearningScore {
  const chance = new Chance(seed)
  const taught = Array.from({ length: chains }, (): LearningChain => {
    const { observations, start } = simulateChain(chance, 'law', care, planted)
    // Finished, running and changed early alike: each was read a different number of times.
    return { start, observations: observations.slice(0, chance.whole(2, observations.length)) }
  })
  const learned = learnLife(care, taught, DEFAULTS.forecast)
  if (!learned) throw new RangeError('too few chains to learn from')
  const others = (options: Parameters<typeof scoreForecasts>[4]): number =>
    scoreForecasts(seed + 1_000, 'law', care, 80, { lifeFactor: planted, ...options }).error
  return {
    ratio: learned.life / (planted * shippedPrior(care, DEFAULTS.forecast).life),
    heldOutGain: learned.heldOutGain,
    shippedError: others({}),
    learnedError: others({ prior: learned.prior }),
  }
}
