import type { Assumptions } from '../assumptions.ts'
import type { ExplainedInput, Explanation } from '../explanation.ts'
import type { ChainForecast, ChainLife } from './chainForecast.ts'

const DAY_MS = 86_400_000
/** Two ways to the same day or distance are the same within so much. */
const ALIKE = 1e-6

/** What a forecast is told from. */
export interface ForecastToExplain {
  readonly forecast: ChainForecast
  /** The chain's life it was made from. */
  readonly life: ChainLife
  /** Readings it rests on, by visit. */
  readonly readings: number
  /** What the chain is worn to where it was last recorded, as likely more as less, %. */
  readonly wearNow: number
}

/**
 * Why so much is left to the limit, as of now (ms): from where it was last recorded, less what was ridden as usual since.
 *
 * @returns its result in real km
 */
export function leftExplained({ forecast, life, readings, wearNow }: ForecastToExplain, now: number): Explanation {
  const { sNow, crossing, kmLeft, limit } = forecast
  const real = (s: number): number => (s * 1000) / life.usualFactor
  const common: ExplainedInput[] = [
    { symbol: 'N', meaning: 'visits-read', value: readings, unit: 'visits' },
    { symbol: 'ε', meaning: 'wear-now', value: wearNow, unit: '%' },
    { symbol: 'L', meaning: 'limit', value: limit, unit: '%' },
  ]
  if (kmLeft[1] <= 0) return { rule: 'forecast-over', inputs: common, result: { value: 0, unit: 'km' } }
  const since = (Math.max(0, now - life.at) / DAY_MS) * life.rate.kmPerDay
  const [run, end] = [real(sNow), real(crossing[1])]
  return {
    rule: 'forecast-left',
    inputs: [
      ...common,
      { symbol: 'x', meaning: 'km-at-limit', value: end, unit: 'km' },
      { symbol: 's', meaning: 'km-recorded', value: run, unit: 'km' },
      { symbol: 'r', meaning: 'km-since-recorded', value: since, unit: 'km' },
    ],
    formula: 'm = max(0, x − s − r)',
    result: { value: Math.max(0, end - run - since), unit: 'km' },
  }
}

/** Why the next look is when it is: by what decided, in days from the last recorded moment. */
export function nextExplained(
  { forecast, life }: ForecastToExplain,
  { forecast: assumed, verdict }: Assumptions,
): Explanation {
  const { next, crossing, sNow } = forecast
  const { kmPerDay } = life.rate
  const result = { value: next.days, unit: 'days' as const }
  if (!(kmPerDay > 0))
    return {
      rule: 'next-unridden',
      inputs: [{ symbol: 'd', meaning: 'check-days', value: verdict.checkDays, unit: 'days' }],
      formula: 't = d',
      result,
    }
  const horizon = life.care === 'immersion-wax' ? assumed.checkHorizonWaxDays : assumed.checkHorizonDays
  const riding: ExplainedInput = { symbol: 'v', meaning: 'km-a-day', value: kmPerDay, unit: 'km' }
  if (next.days >= horizon - ALIKE)
    return {
      rule: 'next-horizon',
      inputs: [{ symbol: 'd', meaning: 'horizon-days', value: horizon, unit: 'days' }],
      formula: 't = d',
      result,
    }
  if (next.days <= assumed.checkFloorKm / kmPerDay + ALIKE)
    return {
      rule: 'next-floor',
      inputs: [{ symbol: 'k', meaning: 'floor-km', value: assumed.checkFloorKm, unit: 'km' }, riding],
      formula: 't = k / v',
      result,
    }
  const ahead: ExplainedInput = { symbol: 'k', meaning: 'km-to-look', value: next.km, unit: 'km' }
  const byDistance = Math.abs(next.days - next.km / kmPerDay) < ALIKE
  const rule =
    byDistance && Math.abs(next.s - (sNow + crossing[1]) / 2) < ALIKE
      ? 'next-half-way'
      : byDistance && Math.abs(next.s - crossing[1] / 3) < ALIKE
        ? 'next-first'
        : 'next-risk'
  return {
    rule,
    inputs: [
      { symbol: 'p', meaning: 'check-risk', value: assumed.checkRisk, unit: 'probability' },
      ...(byDistance ? [ahead, riding] : [riding]),
    ],
    ...(byDistance ? { formula: 't = k / v' } : {}),
    result,
  }
}
