import {
  assumptionsWith,
  chainForecast,
  driveClassOf,
  limitsFor,
  SURFACES,
  type Assumptions,
  type ChainForecast,
  type ChainLife,
  type ForecastReading,
  type Surface,
  type SurfaceKm,
} from '@pelrin/core'
import type { VerdictInput } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { bikeDistance, distanceOfChain, type BikeDistance, type ChainDistance } from '../distance/bikeDistanceStore.ts'
import { asAvailable } from '../instruments/store.ts'
import {
  asHouseRule,
  CHANGE_MARK,
  otherRules,
  ruleFor,
  type RuleChoice,
  type RuleInForce,
} from '../limits/houseRulesStore.ts'
import { asVerdictReading } from '../readings/attributedStore.ts'
import { readingsOfBike, type ReadingFact } from '../readings/store.ts'
import { presentFitting, type PresentFitting } from '../fittings/presentFitting.ts'
import { shopFacts, type ShopFacts } from './shopFacts.ts'

const DAY_MS = 86_400_000

/** Everything known of a bike that its verdict rests on. */
export interface BikeFacts {
  readonly fitting: PresentFitting | null
  readonly readings: readonly ReadingFact[]
  readonly distance: BikeDistance
  /** Of the chain now fitted; null with none. */
  readonly chainDistance: ChainDistance | null
  readonly rule: RuleInForce
  /** Without what the forecast says: {@link forecastOf} works that out where a verdict is given. */
  readonly input: Omit<VerdictInput, 'forecast'>
  /** What the present chain had run at the last odometer value, km. */
  readonly chainKm: number | null
}

/**
 * Gathers what a bike's verdict rests on.
 *
 * @param asOf the moment at which instruments are in date or not
 * @param shared what all bikes of the shop share, where many are judged
 */
export async function bikeFacts(work: Work, bikeId: string, asOf: Date, shared?: ShopFacts): Promise<BikeFacts> {
  const [bike] = await work.prepared<
    RuleChoice & {
      type: 'derailleur' | 'hub-gear' | 'single-speed'
      speeds: number
      customerId: string
      rhythmDays: number | null
      eachVisit: boolean
    }
  >(
    `SELECT b.house_rule_id AS "ownRule", c.house_rule_id AS "customerRule", d.type, d.speeds,
       b.customer_id AS "customerId", c.rhythm_days AS "rhythmDays", c.each_visit AS "eachVisit",
       coalesce(${CHANGE_MARK('b.marked_instrument_id')}, ${CHANGE_MARK('c.marked_instrument_id')}) AS "changeMark"
     FROM bikes b JOIN customers c ON c.id = b.customer_id JOIN drives d ON d.bike_id = b.id WHERE b.id = :bikeId`,
    { bikeId },
  )
  if (!bike) throw new Error(`bike ${bikeId} has no drive`)
  const fitting = await presentFitting(work, bikeId)
  const readings = await readingsOfBike(work, bikeId, fitting?.chainId ?? null)
  const { rules, instruments, assumptions, riding, priors } = shared ?? (await shopFacts(work))
  const { assumed, overrides } = assumptions
  const rule = ruleFor(rules, bike)
  const distance = await bikeDistance(work, { id: bikeId, customerId: bike.customerId }, assumed, riding)
  const chainDistance = fitting && (await distanceOfChain(work, fitting, distance, assumed, riding))
  const standing = readings.filter(
    (reading) => reading.supersededBy === null && !reading.deleted && reading.chainId === fitting?.chainId,
  )
  const judged = standing.map((reading): ForecastReading => {
    const baseline = reading.baseline ? { baseline: true } : {}
    return {
      ...asVerdictReading(reading, chainDistance?.kmAt(reading.occurredAt) ?? null, assumed),
      s: chainDistance?.sAt(reading.occurredAt) ?? null,
      ...baseline,
    }
  })
  const chainKm = chainDistance?.kmAt(chainDistance.lastAt) ?? null
  const countChangedAt = fitting?.countChangedAt?.getTime()
  const life =
    fitting &&
    chainDistance &&
    lifeOf(
      fitting,
      chainDistance,
      distance,
      judged,
      priors.priorFor(fitting.care, usualSurface(distance.mix), assumed.forecast),
      assumed,
    )
  const drive = { type: bike.type, speeds: bike.speeds }
  const estimated =
    life && chainKm !== null ? chainKm + (Math.max(0, asOf.getTime() - life.at) / DAY_MS) * life.rate.kmPerDay : null
  return {
    fitting,
    readings,
    distance,
    chainDistance,
    rule,
    chainKm,
    input: {
      readings: judged as VerdictInput['readings'],
      drive,
      rule: asHouseRule(rule),
      chain: {
        kmSinceFittedNew: fitting?.start === 'fitted' ? chainKm : null,
        km: chainKm,
        ...(countChangedAt === undefined ? {} : { countChangedAt }),
      },
      instruments: instruments.map((instrument) =>
        asAvailable(instrument, asOf, assumed),
      ) as VerdictInput['instruments'],
      ...(Object.keys(overrides).length === 0 ? {} : { assumptions: { ...overrides } }),
      asOf: { at: asOf.getTime(), chainKm: estimated },
      otherRules: otherRules(rules, rule, bike),
      ...(bike.rhythmDays === null && !bike.eachVisit
        ? {}
        : { rhythm: { days: bike.rhythmDays, eachVisit: bike.eachVisit } }),
      ...(life === null ? {} : { life }),
      mix: distance.mix,
      // Sums over a whole shop differ in their last digits from one time to the next: that changes no verdict.
      careFactor: Math.round(1000 * distance.careFactor) / 1000,
    },
  }
}

/** When a chain will be done, shown or withheld, by what its verdict rests on; null where its distance is not known. */
export function forecastOf(input: Omit<VerdictInput, 'forecast'>): ChainForecast | null {
  if (!input.life) return null
  const { countChangedAt } = input.chain
  const fitted = chainForecast(
    {
      readings: input.readings as ForecastReading[],
      life: input.life,
      limit: limitsFor(input.rule, driveClassOf(input.drive)).change,
      ...(countChangedAt === undefined ? {} : { countChangedAt }),
    },
    assumptionsWith(input.assumptions ?? {}),
  )
  return fitted?.forecast ?? null
}

/** What a verdict takes of a forecast; null where none is shown. */
export const shownOf = (forecast: ChainForecast | null): NonNullable<VerdictInput['forecast']> | null =>
  forecast?.withheld === null ? { overNow: forecast.overNow, overAhead: forecast.overAhead } : null

/** The chain's life as of the last thing recorded: an entry of the ledger, a ride, or a reading. */
function lifeOf(
  fitting: PresentFitting,
  chainDistance: ChainDistance,
  { rate, usual, chainStarts }: BikeDistance,
  readings: readonly ForecastReading[],
  prior: ChainLife['prior'],
  assumed: Assumptions,
): VerdictInput['life'] & object {
  const at = new Date(Math.max(chainDistance.lastAt.getTime(), ...readings.map(({ occurredAt }) => occurredAt)))
  return {
    care: fitting.care,
    start:
      statedStart(fitting, chainStarts, usual.factor, assumed.distance) ??
      (fitting.start === 'fitted' ? 'fitted' : 'unknown'),
    sNow: chainDistance.sAt(at),
    at: at.getTime(),
    usualFactor: usual.factor,
    rate,
    prior,
  }
}

/** What a bike is ridden on most, where anything is known of it. */
function usualSurface(mix: SurfaceKm): Surface | null {
  const most = SURFACES.reduce((a, b) => (mix[b] > mix[a] ? b : a))
  return mix[most] > 0 ? most : null
}

/** What a chain that came in with its bike had run before, where somebody said so since. */
function statedStart(
  { start, from }: PresentFitting,
  chainStarts: BikeDistance['chainStarts'],
  usualFactor: number,
  assumed: Assumptions['distance'],
): { value: number; u: number } | null {
  const said = start === 'fitted' ? undefined : chainStarts.findLast(({ at }) => at >= from)
  if (!said) return null
  const weighted = (km: number): number => (km * usualFactor) / 1000
  return {
    value: weighted(said.km),
    u: weighted(Math.max(assumed.statedStartLeastKm, assumed.statedStartShare * said.km)),
  }
}
