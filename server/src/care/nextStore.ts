import {
  assumptionsWith,
  careDistance,
  careDue,
  daysBetween,
  fittedDays,
  intervalOf,
  isOiled,
  NO_KM,
  SURFACES,
  usualRhythm,
  type ChainForecast,
  type ChainVerdict,
  type SurfaceKm,
} from '@pelrin/core'
import type { CareNext, VerdictInput } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import {
  bikeDistance,
  distanceOfChain,
  shopRiding,
  type ChainDistance,
  type ShopRiding,
} from '../distance/bikeDistanceStore.ts'
import { dayIn, daysLater } from '../days/days.ts'
import type { PresentFitting } from '../fittings/presentFitting.ts'
import { standingCare } from './standingStore.ts'

interface Resting {
  readonly fitting: PresentFitting
  /** What the latest verdict rested on, and what it said. */
  readonly input: VerdictInput
  readonly outcome: ChainVerdict
  /** Shown with it; null where none is. */
  readonly forecast: ChainForecast | null
  /** The day the next look is due; null where none is. */
  readonly checkOn: string | null
  readonly zone: string
  readonly chainDistance?: ChainDistance | null
  readonly riding?: ShopRiding
}

/** When the chain on a bike is treated next, as of the last fact of it; null where nobody knows its care. */
export async function careNext(work: Work, resting: Resting): Promise<CareNext | null> {
  const { fitting, input, outcome, forecast, checkOn, zone } = resting
  const assumed = assumptionsWith(input.assumptions ?? {})
  const bike = await ownInterval(work, fitting.bikeId)
  const interval = intervalOf({ care: fitting.care, ...bike }, assumed.care)
  if (!interval || !input.life) return null
  const events = await standingCare(work, fitting.chainId)
  const treated = events.find(({ kind }) => kind === 'treated')
  const sinceThen = events.filter(({ kind, at }) => kind !== 'treated' && (!treated || at > treated.at))
  const fittings = await fittingsOf(work, fitting.chainId)
  const first = Math.min(...fittings.map(({ from }) => from))
  const asOf = new Date(Math.max(input.life.at, fitting.from.getTime(), ...events.map(({ at }) => at.getTime())))
  const chain = resting.chainDistance ?? (await distanceHere(work, fitting, input, resting.riding))
  const km = since(chain, treated?.at ?? new Date(first), asOf)
  const usualFactor = input.careFactor ?? assumed.distance.careFactorUnknown
  const days = treated ? fittedDays(fittings, treated.at.getTime(), asOf.getTime()) : null
  const due = careDue(
    {
      care: fitting.care,
      km,
      usualFactor,
      days,
      since: sinceThen.map(({ kind }) => kind as 'wash' | 'squeak'),
      // An oiled chain rides on what its factory put on it; one for wax was stripped, or is to be.
      factoryCoat: !treated && fitting.start === 'fitted' && isOiled(fitting.care),
      rate: input.life.rate,
      ...bike,
      verdict: outcome.word,
      nextLookKm: forecast?.next.km ?? null,
      nextLookDays: checkOn === null ? null : daysBetween(dayIn(zone, asOf), checkOn),
    },
    assumed,
  )
  if (!due) return null
  const { overdue: _, daysLeft, ...rest } = due
  return {
    ...rest,
    daysLeft: [...daysLeft],
    dueOn: daysLater(dayIn(zone, asOf), Math.floor(daysLeft[1] ?? interval.days)),
    asOf: asOf.toISOString(),
    usedKm: careDistance(km, usualFactor, assumed.distance),
    usedDays: days,
    interval: { km: interval.km, days: interval.days, own: bike.own !== undefined },
    ridden: { wet: km.wet, gritty: km.gritty },
    rhythmDays: usualRhythm(interval, input.life.rate.kmPerDay, usualFactor),
  }
}

async function ownInterval(work: Work, bikeId: string): Promise<{ own?: { km: number; days: number } }> {
  const [bike] = await work.prepared<{ km: number | null; days: number | null }>(
    'SELECT care_km AS km, care_days AS days FROM bikes WHERE id = :bikeId',
    { bikeId },
  )
  return bike?.km == null || bike.days === null ? {} : { own: { km: bike.km, days: bike.days } }
}

async function fittingsOf(work: Work, chainId: string): Promise<{ from: number; to: number | null }[]> {
  const rows = await work.prepared<{ from: Date; to: Date | null }>(
    `SELECT lower(during) AS "from", upper(during) AS "to" FROM fittings WHERE chain_id = :chainId AND NOT isempty(during)`,
    { chainId },
  )
  return rows.map(({ from, to }) => ({ from: from.getTime(), to: to?.getTime() ?? null }))
}

async function distanceHere(
  work: Work,
  fitting: PresentFitting,
  input: VerdictInput,
  shop = shopRiding(work),
): Promise<ChainDistance> {
  const [bike] = await work.select<{ customerId: string }>(
    'SELECT customer_id AS "customerId" FROM bikes WHERE id = :bikeId',
    { bikeId: fitting.bikeId },
  )
  const assumed = assumptionsWith(input.assumptions ?? {})
  const here = await bikeDistance(work, { id: fitting.bikeId, customerId: bike!.customerId }, assumed, shop)
  return distanceOfChain(work, fitting, here, assumed, shop)
}

/** What a chain ran between two moments, by surface. */
function since(chain: ChainDistance, from: Date, to: Date): SurfaceKm {
  const [before, after] = [chain.surfacesAt(from), chain.surfacesAt(to)]
  const all = { ...NO_KM }
  for (const surface of [...SURFACES, 'unknown'] as const) all[surface] = Math.max(0, after[surface] - before[surface])
  return all
}
