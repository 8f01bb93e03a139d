import type { Assumptions } from '../assumptions.ts'
import { ownReadings, type CountedSpot } from '../limits/round.ts'
import type { VerdictReading } from '../limits/verdictTypes.ts'
import { worstOf } from '../limits/worstOfRound.ts'
import type { WearObservation } from './wearModel.ts'

/** A reading with the place it has in its chain's life. */
export interface ForecastReading extends VerdictReading {
  /** Wear-weighted distance of the chain by then, thousand km; null when it is not known. */
  readonly s: number | null
  /** Taken when the chain was new, as what it began with. */
  readonly baseline?: boolean
}

/** What a visit said of a chain's wear, and the readings it is made of. */
export interface VisitObservation {
  readonly at: number
  readonly observation: WearObservation
  readonly readingIds: readonly string[]
}

/** What readings say of a chain's wear: what it began with, and each visit since. */
export interface WearEvidence {
  readonly baseline: { readonly value: number; readonly u: number } | null
  readonly visits: readonly VisitObservation[]
}

const HOUR_MS = 3_600_000

/**
 * Makes observations of wear from readings: one a visit, the worst spot's median and half its 16–84 % width; where a
 * gauge only told over or under, the marks it lies between. The baseline is no observation: it enters once, as what the
 * chain began with.
 *
 * @param readings of one chain, in any order; those without a known distance say nothing here
 */
export function wearEvidence(
  readings: readonly ForecastReading[],
  countChangedAt: number | undefined,
  assumed: Assumptions,
): WearEvidence {
  const own = ownReadings(readings, countChangedAt) as ForecastReading[]
  const first = own.find((reading) => reading.baseline === true)
  const visits: ForecastReading[][] = []
  for (const reading of own) {
    if (reading === first || reading.s === null) continue
    const visit = visits.at(-1)
    if (visit && reading.occurredAt - visit[0]!.occurredAt <= assumed.verdict.visitHours * HOUR_MS) visit.push(reading)
    else visits.push([reading])
  }
  return {
    baseline: first ? newlyMeasured(first) : null,
    visits: visits.map((visit) => ({
      at: visit.at(-1)!.occurredAt,
      observation: { s: visit.at(-1)!.s!, ...spanOf(visit, assumed) },
      readingIds: visit.map(({ id }) => id),
    })),
  }
}

/** How unevenly a new chain is made, %. */
const NEW_UNEVEN = 0.02

/** What a chain began with: its mean, for a new chain is even; null where a gauge only told over or under. */
function newlyMeasured({ spots, instrument }: VerdictReading): WearEvidence['baseline'] {
  const points = spots.flatMap(({ value, u }) =>
    value === undefined ? [] : [{ value, weight: 1 / (u ** 2 + NEW_UNEVEN ** 2) }],
  )
  const whole = points.reduce((sum, { weight }) => sum + weight, 0)
  if (whole === 0) return null
  return {
    value: points.reduce((sum, { value, weight }) => sum + value * weight, 0) / whole,
    u: Math.hypot(1 / Math.sqrt(whole), instrument.biasU),
  }
}

/** What some readings of one moment say: a value with its u, or marks. */
function spanOf(
  visit: readonly VerdictReading[],
  assumed: Assumptions,
): { value: number; u: number } | { over?: number; under?: number; u: number } {
  const spots = visit.flatMap((reading) => reading.spots.map((spot, index): CountedSpot => ({ reading, index, spot })))
  const marksOnly = spots.every(({ spot }) => spot.value === undefined)
  if (!marksOnly) {
    const { median, halfWidth } = worstOf(spots, assumed)
    return { value: median, u: halfWidth }
  }
  // The worst spot is over the highest mark that went in anywhere, and under the lowest that stayed out everywhere.
  const overs = spots.flatMap(({ spot }) => spot.over ?? [])
  const under = Math.max(...spots.map(({ spot }) => spot.under ?? Infinity))
  const over = overs.length === 0 ? undefined : Math.max(...overs)
  return {
    u: Math.max(...spots.map(({ spot, reading }) => Math.hypot(spot.u, reading.instrument.biasU))),
    ...(over === undefined ? {} : { over }),
    ...(Number.isFinite(under) && (over === undefined || over < under) ? { under } : {}),
  }
}
