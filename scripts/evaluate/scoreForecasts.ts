import {
  ChanceOver,
  DEFAULTS,
  fitWear,
  newestReadingDoubt,
  probabilityOverAt,
  straightLineCrossing,
  WidenedChance,
  worstSpot,
  type CareKind,
  type WearPrior,
} from '@pelrin/core'
import { Chance } from '../../server/src/demo/random.ts'
import { simulateChain, type Generator } from './truth.ts'

export interface ForecastScore {
  readonly forecasts: number
  /** Share of true crossings inside the 90 % band. */
  readonly cover: number
  /** Median distance of the middle crossing from the true one, thousand weighted km; the same of the straight line. */
  readonly error: number
  readonly lineError: number
  readonly withheld: number
  /** Share of forecasts the straight line has no answer for. */
  readonly lineless: number
}

/** Forecasts simulated chains from their second reading on, for as long as the readings do not say "change". */
export function scoreForecasts(
  seed: number,
  generator: Generator,
  care: CareKind,
  chains: number,
  options: { lifeFactor?: number; prior?: WearPrior } = {},
): ForecastScore {
  const chance = new Chance(seed)
  const errors: number[] = []
  const lineErrors: number[] = []
  let inside = 0
  let shown = 0
  let withheld = 0
  for (let i = 0; i < chains; i++) {
    const chain = simulateChain(chance, generator, care, options.lifeFactor)
    for (let count = generator === 'walk-in' ? 1 : 2; count <= chain.observations.length; count++) {
      const observations = chain.observations.slice(0, count)
      const newest = observations[count - 1]!
      const overByReading = worstSpot({ spots: [newest], limit: chain.limit }).probabilityOver
      if (overByReading >= DEFAULTS.verdict.changeAt) break
      const posterior = fitWear({
        care,
        observations,
        start: chain.start,
        ...(options.prior ? { prior: options.prior } : {}),
      })
      const overNow = probabilityOverAt(posterior, { s: newest.s, limit: chain.limit })
      if (
        newestReadingDoubt(posterior) > DEFAULTS.forecast.doubtShown ||
        Math.abs(overNow - overByReading) > DEFAULTS.forecast.verdictApart
      ) {
        withheld++
        continue
      }
      const ahead = new WidenedChance(new ChanceOver(posterior, chain.limit), newest.s, DEFAULTS.forecast.lawOff)
      const [low = 0, middle = 0, high = 0] = [0.05, 0.5, 0.95].map((probability) => ahead.reaches(probability))
      if (chain.crossing >= low && chain.crossing <= high) inside++
      shown++
      const line = straightLineCrossing(observations, chain.limit, DEFAULTS.forecast.epsilon0)
      // Compared only where there is a line to compare with: readings that fell or marks that did not move give none.
      if (line === null) continue
      errors.push(Math.abs(middle - chain.crossing))
      lineErrors.push(Math.abs(line - chain.crossing))
    }
  }
  return {
    forecasts: shown,
    cover: inside / shown,
    error: median(errors),
    lineError: median(lineErrors),
    withheld: withheld / (withheld + shown),
    lineless: 1 - errors.length / shown,
  }
}

const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? NaN
