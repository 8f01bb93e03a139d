import { distanceBetween, readLedger, type LedgerRide } from './ledger.ts'
import { totalKm, wearWeighted, type SurfaceFactors, type SurfaceKm } from './surface.ts'

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
  /** When the chain was put on this bike, ms. */
  readonly fittedFrom: number
  /** What a km of its usual mix wears. */
  readonly usualFactor: number
}

/** A chain's distance once a further odometer value is known. */
export interface WithOdometer {
  /** Where the chain was at a moment from the last odometer value on. */
  readonly chainAt: (at: number) => ChainAt
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
  assumed: Pick<SurfaceFactors, 'wearFactor'> & { readonly ridesOverOdometer: number },
): WithOdometer {
  const { odometer, rides, fittedFrom, usualFactor, recorded } = tail
  // With no value to hold it against, a value tells of no distance: only that nothing is to be estimated up to it.
  if (odometer === null) return { chainAt: (at) => ({ ...recorded, at }) }
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
  return {
    chainAt: (at) => {
      const ridden = since(at)
      return {
        at,
        km: odometer.km === null ? null : odometer.km + totalKm(ridden),
        s: odometer.s === null ? null : odometer.s + wearWeighted(ridden, usualFactor, assumed) / 1000,
      }
    },
  }
}
