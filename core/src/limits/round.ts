import { measuresNothing } from '../readings/instrumentKinds.ts'
import type { Assumptions } from '../assumptions.ts'
import type { VerdictReading, VerdictSpot } from './verdictTypes.ts'

/** A spot that counts, with where it came from. */
export interface CountedSpot {
  readonly reading: VerdictReading
  /** Position in its reading, from 0. */
  readonly index: number
  readonly spot: VerdictSpot
}

/** D0: which readings, and which of their spots, describe the chain as it is now. */
export interface Round {
  readonly readings: readonly VerdictReading[]
  readonly spots: readonly CountedSpot[]
  /** Whether the chain was measured more than once at the latest reading's visit. */
  readonly measuredAgain: boolean
}

const DAY_MS = 86_400_000
const HOUR_MS = 3_600_000

/** Readings that may govern: the shop's own, with an instrument, of the chain at its present count. */
export function ownReadings(readings: readonly VerdictReading[], countChangedAt = -Infinity): VerdictReading[] {
  return readings
    .filter(
      (reading) =>
        reading.source === 'shop' &&
        !measuresNothing(reading.instrument.kind) &&
        reading.spots.length > 0 &&
        reading.occurredAt >= countChangedAt,
    )
    .sort((a, b) => a.occurredAt - b.occurredAt || (a.id < b.id ? -1 : 1))
}

/** A spot's uncertainty with its instrument's bias, %. */
export const spotU = ({ spot, reading }: Pick<CountedSpot, 'spot' | 'reading'>): number =>
  Math.hypot(spot.u, reading.instrument.biasU)

/** The uncertainty a reading is compared by: its best spot's, %. */
const uOf = (reading: VerdictReading): number => Math.min(...reading.spots.map((spot) => spotU({ spot, reading })))

/**
 * The present round of a chain.
 *
 * Readings count when taken within 100 km and 14 days (defaults) before the latest. An earlier one leaves when
 * a later one has no larger u and at least as many spots, an earlier spot when a later reading of the same named spot
 * has no larger u: measuring again can clear a doubt. One coarser than before joins it; of two at the same moment both
 * count.
 *
 * @param own in order of time, as {@link ownReadings} gives them
 */
export function presentRound(own: readonly VerdictReading[], assumed: Assumptions): Round {
  const latest = own.at(-1)
  if (!latest) return { readings: [], spots: [], measuredAgain: false }
  const { roundDays, roundKm, visitHours } = assumed.verdict
  const near = own.filter(
    (reading) =>
      latest.occurredAt - reading.occurredAt <= roundDays * DAY_MS &&
      (latest.chainKm === null || reading.chainKm === null || latest.chainKm - reading.chainKm <= roundKm),
  )
  const standing = near.filter(
    (earlier, i) =>
      !near
        .slice(i + 1)
        .some(
          (later) =>
            later.occurredAt > earlier.occurredAt &&
            uOf(later) <= uOf(earlier) &&
            later.spots.length >= earlier.spots.length,
        ),
  )
  const spots = standing.flatMap((reading) => reading.spots.map((spot, index) => ({ reading, index, spot })))
  const governing = spots.filter(
    (mine) =>
      !spots.some(
        (later) =>
          later.reading.occurredAt > mine.reading.occurredAt &&
          mine.spot.place !== undefined &&
          later.spot.place === mine.spot.place &&
          spotU(later) <= spotU(mine),
      ),
  )
  const atVisit = near.filter((reading) => latest.occurredAt - reading.occurredAt <= visitHours * HOUR_MS)
  return { readings: standing, spots: governing, measuredAgain: atVisit.length > 1 }
}
