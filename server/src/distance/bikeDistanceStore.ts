import {
  chainDistance,
  distanceBetween,
  readLedger,
  rideRate,
  totalKm,
  usualCareFactor,
  usualWearFactor,
  wearWeighted,
  type Assumptions,
  type FittedOver,
  type LedgerView,
  type RideRate,
  type SurfaceKm,
} from '@pelrin/core'
import type { Work } from '../db/work.ts'
import {
  asLedgerRide,
  standingDistances,
  standingRides,
  surfaceMix,
  type StandingEntry,
  type StandingRide,
} from './store.ts'

const DAY_MS = 86_400_000

/** What the whole shop rides on and how much, for bikes nothing is known of: asked of the database when first wanted. */
export interface ShopRiding {
  mix(): Promise<SurfaceKm>
  /** Mean of the bikes whose rate is recorded, km a day; null with none. */
  kmPerDay(): Promise<number | null>
}

export function shopRiding(work: Work): ShopRiding {
  let mix: Promise<SurfaceKm> | undefined
  let mean: Promise<number | null> | undefined
  return {
    mix: () => (mix ??= surfaceMix(work, null)),
    kmPerDay: () =>
      (mean ??= work
        .select<{ km: number | null }>('SELECT avg(km_per_day) AS km FROM bike_state')
        .then(([row]) => row?.km ?? null)),
  }
}

/** What a bike was ridden, by everything recorded of it. */
export interface BikeDistance {
  readonly entries: readonly StandingEntry[]
  /** What the customer said a chain had run before it was known here, oldest first. */
  readonly chainStarts: readonly StandingEntry[]
  readonly rides: readonly StandingRide[]
  readonly view: LedgerView
  readonly rate: RideRate
  readonly mix: SurfaceKm
  /** What a kilometre of unknown surface uses up of a treatment, by the same mixes. */
  readonly careFactor: number
  readonly usual: { readonly factor: number; readonly of: 'bike' | 'customer' | 'shop' | 'assumed' }
}

export async function bikeDistance(
  work: Work,
  bike: { id: string; customerId: string },
  assumed: Assumptions,
  shop: ShopRiding,
): Promise<BikeDistance> {
  const all = await standingDistances(work, bike.id)
  const entries = all.filter(({ kind }) => kind === 'odometer')
  const rides = await standingRides(work, bike.id)
  const view = readLedger(
    {
      odometer: entries.map(({ at, km, restarted }) => ({ at: at.getTime(), km, restarted })),
      rides: rides.map(asLedgerRide),
    },
    assumed.distance,
  )
  const mix = distanceBetween(view.segments, -Infinity, Infinity)
  const known = totalKm(mix) - mix.unknown > 0
  // The customer's other bikes and the shop's are asked only when this one says nothing.
  const ofCustomer = known ? null : await surfaceMix(work, bike.customerId)
  const ofShop = ofCustomer && totalKm(ofCustomer) === 0 ? await shop.mix() : null
  const statedKmPerYear = all.findLast(({ kind }) => kind === 'statement')?.km ?? null
  const ownRate = rideRate({ ...view, statedKmPerYear }, assumed.distance)
  return {
    entries,
    chainStarts: all.filter(({ kind }) => kind === 'chain-start'),
    rides,
    view,
    mix,
    rate:
      ownRate.basis === 'none' ? rideRate({ ...view, shopKmPerDay: await shop.kmPerDay() }, assumed.distance) : ownRate,
    careFactor: usualCareFactor([mix, ofCustomer, ofShop], assumed.distance),
    usual: {
      factor: usualWearFactor([mix, ofCustomer, ofShop], assumed.distance),
      of: known
        ? 'bike'
        : ofCustomer && totalKm(ofCustomer) > 0
          ? 'customer'
          : ofShop && totalKm(ofShop) > 0
            ? 'shop'
            : 'assumed',
    },
  }
}

/** A chain's distance up to any moment. */
export interface ChainDistance {
  /** Real km; null when nothing recorded says. */
  kmAt(at: Date): number | null
  /** The same by surface. */
  surfacesAt(at: Date): SurfaceKm
  /** Wear-weighted, thousand km; estimated by the ride rate after the last recorded moment. Null when not known. */
  sAt(at: Date): number | null
  /** The last recorded moment of the bike it is on, or when it was fitted. */
  readonly lastAt: Date
  /** How often it was fitted: with more than once, one difference of odometer values is not its distance. */
  readonly fittings: number
}

/**
 * The distance of a chain now on a bike, over all its fittings: with two chains in rotation each runs only while it is
 * fitted.
 */
export async function distanceOfChain(
  work: Work,
  fitting: { chainId: string; bikeId: string; start: string; from: Date },
  here: BikeDistance,
  assumed: Assumptions,
  shop: ShopRiding,
): Promise<ChainDistance> {
  const fittings = await work.prepared<{ bikeId: string; customerId: string; from: Date; to: Date | null }>(
    `SELECT f.bike_id AS "bikeId", b.customer_id AS "customerId", lower(f.during) AS "from", upper(f.during) AS "to"
     FROM fittings f JOIN bikes b ON b.id = f.bike_id WHERE f.chain_id = :chainId AND NOT isempty(f.during) ORDER BY lower(f.during)`,
    { chainId: fitting.chainId },
  )
  const distances = new Map([[fitting.bikeId, here]])
  for (const { bikeId, customerId } of fittings)
    if (!distances.has(bikeId))
      distances.set(bikeId, await bikeDistance(work, { id: bikeId, customerId }, assumed, shop))
  const over = fittings.map(({ bikeId, from, to }): FittedOver => ({
    bikeId,
    from: from.getTime(),
    to: to?.getTime() ?? null,
  }))
  const first = fittings[0]?.from ?? fitting.from
  const lastAt = new Date(Math.max(here.view.lastAt ?? -Infinity, fitting.from.getTime()))
  const recorded = (at: Date): boolean =>
    fitting.start === 'fitted' ||
    [...distances.values()].some(
      ({ view, entries }) =>
        view.segments.some((segment) => segment.to > first.getTime() && segment.from < at.getTime()) ||
        entries.some((entry) => entry.at >= first && entry.at <= at),
    )
  const run = (at: Date): SurfaceKm =>
    chainDistance(over, (bikeId) => distances.get(bikeId)?.view.segments ?? [], at.getTime())
  const estimated = (at: Date): number =>
    (Math.max(0, at.getTime() - lastAt.getTime()) / DAY_MS) * here.rate.kmPerDay * here.usual.factor
  return {
    lastAt,
    fittings: fittings.length,
    surfacesAt: run,
    kmAt: (at) => (recorded(at) ? totalKm(run(at)) : null),
    sAt: (at) =>
      recorded(at) || here.rate.basis !== 'none'
        ? (wearWeighted(run(at), here.usual.factor, assumed.distance) + estimated(at)) / 1000
        : null,
  }
}
