import type { Assumptions } from '../assumptions.ts'
import { wearBand, wearBandAt, type BandPoint } from './band.ts'
import { chainForecast, type ChainForecast, type ChainForecastInput } from './chainForecast.ts'
import { ChanceOver } from './crossing.ts'
import { fitWear, type WearPosterior } from './fitWear.ts'
import { distanceAloneCrossing, straightLineCrossing, straightLineAt } from './usualWays.ts'
import { wearAt, type WearObservation } from './wearModel.ts'
import { WidenedChance } from './widened.ts'

/** How far a way of forecasting was off at the readings that came later, mean distance in %. */
export interface PastErrors {
  /** Readings that could be forecast from those before them. */
  readonly readings: number
  readonly forecast: number
  /** Null where no straight line could be drawn. */
  readonly straightLine: number | null
  readonly distanceAlone: number
}

/** Everything a drawing of a chain's wear and forecast shows. Distances in thousand weighted km. */
export interface ForecastPicture {
  readonly forecast: ChainForecast
  readonly from: number
  readonly to: number
  readonly observations: readonly WearObservation[]
  readonly band: readonly BandPoint[]
  readonly chance: readonly { readonly s: number; readonly over: number }[]
  /** Where the two usual ways would have the chain cross; null where a straight line never does. */
  readonly straightLine: number | null
  readonly distanceAlone: number
  readonly past: PastErrors | null
}

const POINTS = 41

/** Works out a chain's forecast with all that is drawn of it; null when its distance is not known. */
export function forecastPicture(input: ChainForecastInput, assumed: Assumptions): ForecastPicture | null {
  const fitted = chainForecast(input, assumed)
  if (!fitted) return null
  const { forecast, posterior, evidence } = fitted
  const { limit, life } = input
  const observations = evidence.visits.map(({ observation }) => observation)
  const ahead = new WidenedChance(new ChanceOver(posterior, limit), forecast.sNow, assumed.forecast.lawOff)
  const [, middle, high] = forecast.crossing
  // Far enough to see the band meet the limit, not so far that what is known shrinks to a corner.
  const to = Math.max(forecast.sNow * 1.15, Math.min(high * 1.05, Math.max(middle * 1.5, forecast.sNow * 1.6)), 0.5)
  const zero = evidence.baseline?.value ?? assumed.forecast.epsilon0
  return {
    forecast,
    from: 0,
    to,
    observations,
    band: bandAhead(posterior, { from: 0, to, points: POINTS }, forecast.sNow, assumed.forecast.lawOff),
    chance: Array.from({ length: POINTS }, (_, i) => {
      const s = (to * i) / (POINTS - 1)
      return { s, over: ahead.at(s) }
    }),
    straightLine: straightLineCrossing(observations, limit, zero),
    distanceAlone: distanceAloneCrossing(life.prior.life, life.prior.gamma, limit),
    past: pastErrors(input, observations, zero, assumed),
  }
}

/** How many standard deviations the edges of the band lie from its middle: 5 and 95 %. */
const EDGE = 1.645

/** The band with what the law may be off laid over what is still to be ridden, by root sum of squares. */
function bandAhead(
  posterior: WearPosterior,
  range: { readonly from: number; readonly to: number; readonly points: number },
  sNow: number,
  lawOff: number,
): BandPoint[] {
  return wearBand(posterior, range).map((point) => {
    if (point.s <= sNow) return point
    const { s, low, middle, high } = point
    const by = (share: number): number => wearBandAt(posterior, sNow + (s - sNow) * Math.exp(share * lawOff)).middle
    return {
      s,
      low: middle - Math.hypot(middle - low, middle - by(-EDGE)),
      middle,
      high: middle + Math.hypot(high - middle, by(EDGE) - middle),
    }
  })
}

/** What each way would have said of every reading from those before it. */
function pastErrors(
  { life }: ChainForecastInput,
  observations: readonly WearObservation[],
  zero: number,
  assumed: Assumptions,
): PastErrors | null {
  const ours: number[] = []
  const line: number[] = []
  const alone: number[] = []
  for (const [i, later] of observations.entries()) {
    if (i === 0 || !('value' in later)) continue
    const known = observations.slice(0, i)
    const posterior = fitWear({
      care: life.care,
      observations: known,
      start: life.start,
      prior: life.prior,
      defaults: assumed.forecast,
    })
    ours.push(Math.abs(wearBandAt(posterior, later.s).middle - later.value))
    const pointed = straightLineAt(known, later.s, zero)
    if (pointed !== null) line.push(Math.abs(pointed - later.value))
    alone.push(
      Math.abs(wearAt(later.s, { epsilon0: zero, life: life.prior.life, gamma: life.prior.gamma }) - later.value),
    )
  }
  if (ours.length === 0) return null
  return {
    readings: ours.length,
    forecast: mean(ours),
    straightLine: line.length === 0 ? null : mean(line),
    distanceAlone: mean(alone),
  }
}

const mean = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0) / values.length
