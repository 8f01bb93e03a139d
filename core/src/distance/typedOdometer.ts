import type { Assumptions } from '../assumptions.ts'
import { distanceBetween, readLedger, type LedgerRide, type Segment } from './ledger.ts'
import { rideRate, type RideRate } from './rideRate.ts'
import { plusKm, totalKm, usualWearFactor, wearWeighted, type SurfaceKm } from './surface.ts'

const DAY_MS = 86_400_000

/** Where a chain was at a moment: real km and thousand weighted km; null where it is not known. */
export interface ChainAt {
  /** ms since 1970 UTC. */
  readonly at: number
  readonly km: number | null
  readonly s: number | null
}

/** What a chain's distance rests on since the last value its bike's odometer showed. */
export interface DistanceTail {
  /** The last recorded moment of the bike, without any estimate. */
  readonly recorded: ChainAt
  /** The last odometer value, and where the chain was then; null where there never was one. */
  readonly odometer: (ChainAt & { readonly shownKm: number }) | null
  /** Rides that reach beyond that value. */
  readonly rides: readonly LedgerRide[]
  /** What was recorded before: as far back as a ride rate looks, and the very first. */
  readonly before: readonly Segment[]
  /** All the bike was ridden up to that value, by surface. */
  readonly mixBefore: SurfaceKm
  /** What the chain had run by then, and by each of its readings, that nobody said the surface of: km. */
  readonly unsaidKm: { readonly atOdometer: number; readonly atReadings: Readonly<Record<string, number>> }
  /** When the chain was put on this bike, ms. */
  readonly fittedFrom: number
  /** What a km of its usual mix wears. */
  readonly usualFactor: number
}

/** A chain's distance once a further odometer value is known. */
export interface WithOdometer {
  /** Where the chain was at a moment from the last odometer value on. */
  readonly chainAt: (at: number) => ChainAt
  /** Where a reading up to that value lies, thousand weighted km: what nobody said the surface of is weighted anew. */
  readonly sOfReading: (id: string, s: number | null) => number | null
  /** What a km of its usual mix wears: rides that count less beside that value weigh less in the mix. */
  readonly usualFactor: number
  /** How much the bike is ridden, that value counted in; null where what is recorded lately does not say. */
  readonly rate: RideRate | null
}

/**
 * What a chain has run, once the odometer shows a value at a moment: the ledger as it would be read with that value in
 * it, from the last one on. The server reads the whole ledger; this is its end, for the screen while somebody types.
 *
 * @param typed the value, km, and its moment, ms; `restarted` where it is lower than the last: counting begins again
 */
export function withOdometer(
  tail: DistanceTail,
  typed: { readonly at: number; readonly km: number; readonly restarted: boolean },
  assumed: Assumptions['distance'],
): WithOdometer {
  const { odometer, rides, before, fittedFrom, recorded } = tail
  // With no value to hold it against, a value tells of no distance: only that nothing is to be estimated up to it.
  if (odometer === null)
    return {
      chainAt: (at) => ({ ...recorded, at }),
      sOfReading: (_, s) => s,
      usualFactor: tail.usualFactor,
      rate: recentRate(before, typed.at, assumed),
    }
  const { segments } = readLedger(
    {
      odometer: [
        { at: odometer.at, km: odometer.shownKm, restarted: false },
        { at: typed.at, km: typed.km, restarted: typed.restarted },
      ],
      rides,
    },
    assumed,
  )
  const since = (at: number): SurfaceKm => distanceBetween(segments, Math.max(odometer.at, fittedFrom), at)
  const mix = plusKm(tail.mixBefore, distanceBetween(segments, odometer.at, Infinity))
  const usualFactor = usualWearFactor([mix], { ...assumed, wearFactorUnknown: tail.usualFactor })
  const anew = (unsaidKm: number): number => (unsaidKm * (usualFactor - tail.usualFactor)) / 1000
  return {
    usualFactor,
    sOfReading: (id, s) => (s === null ? null : s + anew(tail.unsaidKm.atReadings[id] ?? 0)),
    rate: recentRate(
      [...within(before, -Infinity, odometer.at), ...within(segments, odometer.at, Infinity)],
      typed.at,
      assumed,
    ),
    chainAt: (at) => {
      const ridden = since(at)
      return {
        at,
        km: odometer.km === null ? null : odometer.km + totalKm(ridden),
        s:
          odometer.s === null
            ? null
            : odometer.s + anew(tail.unsaidKm.atOdometer) + wearWeighted(ridden, usualFactor, assumed) / 1000,
      }
    },
  }
}

/** The part of each stretch that lies between two moments, what was ridden in it by its share of the time. */
const within = (segments: readonly Segment[], from: number, to: number): Segment[] =>
  segments.flatMap((segment) => {
    const [start, end] = [Math.max(segment.from, from), Math.min(segment.to, to)]
    if (end < start || (end === start && segment.to > segment.from)) return []
    const share = segment.to === segment.from ? 1 : (end - start) / (segment.to - segment.from)
    return [{ ...segment, from: start, to: end, km: segment.km * share }]
  })

/** A ride rate by what was recorded lately; null where that does not say. */
function recentRate(segments: readonly Segment[], lastAt: number, assumed: Assumptions['distance']): RideRate | null {
  const rate = rideRate({ segments: [...segments].sort((a, b) => a.from - b.from), lastAt }, assumed)
  return rate.basis === 'recent' ? rate : null
}

/** Of what is recorded, as much as {@link DistanceTail} keeps: what reaches into the days a rate looks back over, and the first. */
export const recordedBefore = (
  segments: readonly Segment[],
  lastAt: number,
  { rateDays }: Pick<Assumptions['distance'], 'rateDays'>,
): Segment[] => segments.filter(({ to }, i) => i === 0 || to > lastAt - rateDays * DAY_MS)
