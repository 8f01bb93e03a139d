import {
  chainVerdict,
  DEFAULTS,
  shippedPrior,
  type ChainLife,
  type ForecastReading,
  type HouseRule,
} from '@pelrin/core'
import type { VerdictInput } from '@pelrin/contract'
import { forecastOf, shownOf } from '../state/verdictInput.ts'
import type { History, PastReading } from './history.ts'
import { DRIVE_KINDS, instrumentPlan, type BikePlan } from './scenario.ts'
import type { SpotRow, VerdictRow } from '../readings/models.ts'

/** A bike's past, and the rule it was judged by. */
export interface PastStory {
  readonly history: History
  readonly plan: BikePlan
  readonly rule: HouseRule
}

/** A past reading as it was judged then. */
export function pastReading(
  { history }: PastStory,
  past: PastReading,
  { id, instrumentId, rows }: { id: string; instrumentId: string; rows: readonly SpotRow[] },
): ForecastReading {
  return {
    id,
    occurredAt: past.at.getTime(),
    chainKm: past.odometer?.km ?? null,
    s: pastDistance(history, past.fitting, past.at),
    source: 'shop',
    instrument: { id: instrumentId, kind: instrumentPlan(past.instrument).kind, biasU: 0 },
    spots: rows.map(({ value, over, under, u, pitches, place }) => ({
      u,
      ...(place === null ? {} : { place }),
      ...(value === null ? {} : { value }),
      ...(over === null ? {} : { over }),
      ...(under === null ? {} : { under }),
      ...(pitches === null ? {} : { pitches }),
    })),
  }
}

/** The verdict as it was given then, from the readings there were, with the forecast as it was made then. */
export function pastVerdict(
  { history, plan, rule }: PastStory,
  past: PastReading,
  readings: readonly ForecastReading[],
): Pick<VerdictRow, 'word' | 'probability' | 'input' | 'outcome'> {
  const { type, speeds } = DRIVE_KINDS[plan.drive]
  const life: ChainLife = {
    care: plan.life.care,
    start: history.fittings[past.fitting]!.start,
    sNow: readings.at(-1)!.s,
    at: past.at.getTime(),
    usualFactor: DEFAULTS.distance.wearFactorUnknown,
    rate: { kmPerDay: plan.life.kmPerWeek / 7, weekScatter: 0.5, meanScatter: 0.2, basis: 'recent' },
    prior: shippedPrior(plan.life.care, DEFAULTS.forecast),
  }
  const known = {
    readings,
    drive: { type, speeds },
    rule,
    chain: { kmSinceFittedNew: null },
    instruments: [],
    assumptions: {},
    otherRules: [],
    life,
  } as unknown as VerdictInput
  const input = { ...known, forecast: shownOf(forecastOf(known)) }
  const outcome = chainVerdict({ ...input, assumptions: {} })
  return { word: outcome.word, probability: outcome.probabilityOver, input, outcome }
}

/** What a chain had run by its odometer up to a moment, thousand weighted km, as the shop knew it then. */
function pastDistance(history: History, fitting: number, at: Date): number | null {
  const shown = [
    ...history.odometers,
    ...history.readings.flatMap((reading) => (reading.odometer ? [{ at: reading.at, km: reading.odometer.km }] : [])),
  ].sort((a, b) => a.at.getTime() - b.at.getTime())
  const { from } = history.fittings[fitting]!
  const now = shown.findLast((value) => value.at <= at)
  const then = shown.findLast((value) => value.at <= from) ?? shown.find((value) => value.at >= from)
  return now && then ? Math.max(0, ((now.km - then.km) * DEFAULTS.distance.wearFactorUnknown) / 1000) : null
}
