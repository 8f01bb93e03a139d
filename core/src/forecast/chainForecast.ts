import type { Assumptions } from '../assumptions.ts'
import type { RideRate } from '../distance/rideRate.ts'
import { ownReadings, presentRound } from '../limits/round.ts'
import { worstOf } from '../limits/worstOfRound.ts'
import { ChanceOver, newestReadingDoubt, probabilityOverAt } from './crossing.ts'
import { daysUntil } from './dates.ts'
import { fitWear, type WearPosterior, type WearStart } from './fitWear.ts'
import { nextCheckBy } from './nextCheck.ts'
import { outlookOf } from './outlook.ts'
import { WidenedChance } from './widened.ts'
import { wearEvidence, type ForecastReading, type WearEvidence } from './observations.ts'
import type { CareKind, WearPrior } from './priors.ts'

const DAY_MS = 86_400_000

/** What is known of a chain's life beside its readings. */
export interface ChainLife {
  readonly care: CareKind
  /** What it had run before it was known here; a stated value in thousand weighted km. */
  readonly start: WearStart
  /** Where the chain was at the last recorded moment, thousand weighted km; null when no distance is known. */
  readonly sNow: number | null
  /** That moment, ms. */
  readonly at: number
  /** What a real km of the usual mix wears. */
  readonly usualFactor: number
  readonly rate: RideRate
  /** What is believed of its care before it is read: learned from the shop's chains, or shipped. */
  readonly prior: WearPrior
}

export interface ChainForecastInput {
  /** Of this chain, none superseded, in any order. */
  readonly readings: readonly ForecastReading[]
  readonly countChangedAt?: number
  readonly life: ChainLife
  /** Elongation at which the chain is to be changed, %. */
  readonly limit: number
}

/** Why a forecast is not shown. */
export const WITHHELD = ['newest-reading', 'apart-from-verdict', 'no-distance'] as const
export type Withheld = (typeof WITHHELD)[number]
/** A low, middle and high value: 5, 50 and 95 %. */
export type Quantiles = readonly [low: number, middle: number, high: number]

/** When a chain will be done, how sure that is, and when to look next. Distances from the last recorded moment. */
export interface ChainForecast {
  readonly withheld: Withheld | null
  readonly limit: number
  readonly sNow: number
  /** Weighted distance on the chain at which the limit is crossed, thousand km. */
  readonly crossing: Quantiles
  /** Real km left; 0 when the chain is more likely over than not. */
  readonly kmLeft: Quantiles
  /** Days left, integrating how unevenly the bike is ridden; null where beyond twenty years or with no ride rate. */
  readonly daysLeft: readonly [low: number | null, middle: number | null, high: number | null]
  readonly overNow: number
  /** The chance of being over within the look-ahead, if ridden that far. */
  readonly overAhead: number
  /** The next look; days by the ride rate, and no later than the chance reaches the check's risk by date. */
  readonly next: { readonly s: number; readonly km: number; readonly days: number }
  /** Days after which the chance of being over reaches each of the chances an outlook keeps. */
  readonly reached: readonly number[]
  /** Weight of the newest reading's being a stray, 0…1. */
  readonly doubt: number
}

/** How many equally likely crossings stand for all of them, where dates are made. */
const LIKELY = 16

/** A forecast with what it was made from, for drawing. */
export interface FittedForecast {
  readonly forecast: ChainForecast
  readonly posterior: WearPosterior
  readonly evidence: WearEvidence
}

/**
 * When a chain crosses its limit.
 *
 * @returns null when nothing can be fitted because the distance is not known at all
 */
export function chainForecast(input: ChainForecastInput, assumed: Assumptions): FittedForecast | null {
  const { life, limit } = input
  const { sNow } = life
  if (sNow === null) return null
  const evidence = wearEvidence(input.readings, input.countChangedAt, assumed)
  const posterior = fitWear({
    care: life.care,
    observations: evidence.visits.map(({ observation }) => observation),
    baseline: evidence.baseline,
    start: life.start,
    prior: life.prior,
    defaults: assumed.forecast,
  })
  const chance = new ChanceOver(posterior, limit)
  const ahead = new WidenedChance(chance, sNow, assumed.forecast.lawOff)
  const real = (s: number): number => ((s - sNow) * 1000) / life.usualFactor
  const weighted = (km: number): number => (km * life.usualFactor) / 1000
  const crossing = [0.05, 0.5, 0.95].map((probability) => ahead.reaches(probability)) as unknown as Quantiles
  const overNow = probabilityOverAt(posterior, { s: sNow, limit })
  const round = presentRound(ownReadings(input.readings, input.countChangedAt), assumed)
  const overByReading = round.spots.length === 0 ? null : worstOf(round.spots, assumed).probabilityOver(limit)
  // Held against each other where the chain was read: what was ridden since is no disagreement.
  const overThen = chance.at(evidence.visits.at(-1)?.observation.s ?? sNow)
  const doubt = newestReadingDoubt(posterior)
  const { checkRisk, checkFloorKm, doubtShown, verdictApart } = assumed.forecast
  const horizonDays =
    life.care === 'immersion-wax' ? assumed.forecast.checkHorizonWaxDays : assumed.forecast.checkHorizonDays
  const { kmPerDay } = life.rate
  const kmLeft = kmLeftOf(crossing.map(real), overByReading, assumed)
  const likely = likelyKm(ahead, real, overByReading, assumed)
  const next = nextCheckBy(ahead, {
    sNow,
    risk: checkRisk,
    floor: weighted(checkFloorKm),
    horizon: kmPerDay > 0 ? weighted(horizonDays * kmPerDay) : null,
    firstCheck: life.start === 'fitted' && evidence.visits.length === 0,
  })
  const nextKm = real(next)
  return {
    posterior,
    evidence,
    forecast: {
      withheld:
        doubt > doubtShown
          ? 'newest-reading'
          : overByReading !== null && Math.abs(overByReading - overThen) > verdictApart
            ? 'apart-from-verdict'
            : null,
      limit,
      sNow,
      crossing,
      kmLeft,
      daysLeft: [0.05, 0.5, 0.95].map((probability) =>
        daysUntil(likely, probability, life.rate),
      ) as unknown as ChainForecast['daysLeft'],
      overNow,
      overAhead: ahead.at(sNow + weighted(assumed.verdict.lookAheadKm)),
      next: {
        s: next,
        km: nextKm,
        days:
          kmPerDay > 0
            ? Math.min(
                horizonDays,
                // By date the unevenness of riding counts too, and may reach the risk before the distance does.
                Math.max(
                  checkFloorKm / kmPerDay,
                  Math.min(nextKm / kmPerDay, daysUntil(likely, checkRisk, life.rate) ?? Infinity),
                ),
              )
            : assumed.verdict.checkDays,
      },
      reached: outlookOf(likely, life.rate),
      doubt,
    },
  }
}

/** An alarm is never explained away: more likely over than not by its readings, a chain has nothing left. */
const alarmed = (overByReading: number | null, { verdict }: Assumptions): boolean =>
  overByReading !== null && overByReading >= verdict.changeAt

function kmLeftOf(km: readonly number[], overByReading: number | null, assumed: Assumptions): Quantiles {
  const [low = 0, middle = 0, high = 0] = km.map((one) => Math.max(0, one))
  return alarmed(overByReading, assumed) ? [0, 0, high] : [low, middle, high]
}

/** Distances to the limit that are equally likely. */
function likelyKm(
  ahead: WidenedChance,
  real: (s: number) => number,
  overByReading: number | null,
  assumed: Assumptions,
): number[] {
  return Array.from({ length: LIKELY }, (_, i) => {
    const probability = (i + 0.5) / LIKELY
    const km = real(ahead.reaches(probability))
    return alarmed(overByReading, assumed) && probability <= 0.5 ? 0 : km
  })
}

/** Where a chain is so long after its last recorded moment if ridden as usual, thousand weighted km: an estimate. */
export const estimatedS = ({ sNow, at, rate, usualFactor }: ChainLife, now: number): number | null =>
  sNow === null ? null : sNow + (Math.max(0, now - at) / DAY_MS) * ((rate.kmPerDay * usualFactor) / 1000)
