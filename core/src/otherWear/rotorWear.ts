import type { Assumptions } from '../assumptions.ts'
import { normalCumulative } from '../numerics/normal.ts'
import { dueAgainKm, type WearResult } from './items.ts'

/** A rotor measured in its worn track. */
export interface RotorReading {
  /** What the bike had run, km; any zero, the same for all. */
  readonly km: number
  readonly mm: number
  readonly u: number
}

/** A rotor by all its readings. */
export interface RotorWear {
  /** Its thickness at the bike's distance now, mm. */
  readonly now: { readonly mm: number; readonly u: number }
  /** Worn off per thousand km, mm: at 5, 50 and 95 in 100. */
  readonly rate: readonly [low: number, median: number, high: number]
  /** Probability that it is under its minimum now. */
  readonly probabilityUnder: number
  /** Distance left to the minimum, km: at 5, 50 and 95 in 100; 0 where it is under already. */
  readonly left: readonly [early: number, median: number, late: number]
  readonly result: WearResult
  /** Distance after which it is to be measured again, km; 0 at once. */
  readonly dueKm: number
}

/** Rates that are considered, mm per thousand km: the least wears for ever, the most is gone within a few rides. */
const LEAST_RATE = 0.001
const MOST_RATE = 2
const RATES = 160
/** No forecast reaches further, km. */
const HORIZON_KM = 60_000

/** Thicknesses a rotor or a minimum can have, mm. */
export const ROTOR_MM = { lowest: 0.3, highest: 6 } as const

interface Candidate {
  readonly rate: number
  readonly weight: number
  /** Thickness at the last reading's distance, mm, and its u. */
  readonly at: number
  readonly u: number
}

/**
 * How thick a rotor is, when it comes to the minimum stamped on it, and when to measure again.
 *
 * A rotor wears in proportion to distance, at a rate nobody knows beforehand: rates are weighed by a lognormal prior and by how
 * well a straight line of each passes through the readings, its height left free. One reading says how thick it is and leaves
 * the rate to the prior; each further one narrows it.
 *
 * @param readings at least one, of one rotor since it was new here
 * @param kmNow what the bike has run now, on the same zero
 * @throws RangeError without readings, or for a thickness that no rotor has
 */
export function rotorWear(
  {
    minimumMm,
    readings,
    kmNow,
  }: { readonly minimumMm: number; readonly readings: readonly RotorReading[]; readonly kmNow: number },
  assumed: Assumptions['otherWear'],
): RotorWear {
  if (readings.length === 0) throw new RangeError('a rotor nobody measured is not forecast')
  for (const mm of [minimumMm, ...readings.map((reading) => reading.mm)])
    if (!(mm >= ROTOR_MM.lowest && mm <= ROTOR_MM.highest)) throw new RangeError(`no rotor is ${mm} mm thick`)
  const from = Math.max(...readings.map(({ km }) => km))
  const candidates = weighed(readings, from, assumed)
  const ahead = Math.max(0, kmNow - from)
  const under = (km: number): number =>
    candidates.reduce(
      (sum, { rate, weight, at, u }) => sum + weight * normalCumulative((minimumMm - (at - (rate * km) / 1000)) / u),
      0,
    )
  const mean = candidates.reduce((sum, { weight, at, rate }) => sum + weight * (at - (rate * ahead) / 1000), 0)
  const variance = candidates.reduce(
    (sum, { weight, at, rate, u }) => sum + weight * (u * u + (at - (rate * ahead) / 1000 - mean) ** 2),
    0,
  )
  const probabilityUnder = under(ahead)
  const left = (probability: number): number => Math.max(0, reaches(under, probability) - ahead)
  const result: WearResult =
    probabilityUnder >= assumed.rotorChangeAt ? 'change' : probabilityUnder > assumed.rotorRisk ? 'watch' : 'good'
  return {
    now: { mm: mean, u: Math.sqrt(variance) },
    rate: [rateAt(candidates, 0.05), rateAt(candidates, 0.5), rateAt(candidates, 0.95)],
    probabilityUnder,
    left: [left(0.05), left(0.5), left(0.95)],
    result,
    dueKm: result === 'change' ? 0 : Math.min(dueAgainKm('rotor-front', result, assumed), left(assumed.rotorRisk)),
  }
}

/** Every rate with how likely it is, and where the rotor is by it. */
function weighed(readings: readonly RotorReading[], from: number, assumed: Assumptions['otherWear']): Candidate[] {
  const found: (Omit<Candidate, 'weight'> & { log: number })[] = []
  for (let i = 0; i < RATES; i++) {
    const rate = LEAST_RATE * Math.pow(MOST_RATE / LEAST_RATE, i / (RATES - 1))
    // Each reading says where the rotor is at the last one's distance, by this rate.
    let precision = 0
    let sum = 0
    for (const { km, mm, u } of readings) {
      precision += 1 / (u * u)
      sum += (mm - (rate * (from - km)) / 1000) / (u * u)
    }
    const at = sum / precision
    const misfit = readings.reduce(
      (total, { km, mm, u }) => total + ((mm - (rate * (from - km)) / 1000 - at) / u) ** 2,
      0,
    )
    const prior = Math.log(rate / assumed.rotorRate) / assumed.rotorRateSd
    found.push({ rate, at, u: 1 / Math.sqrt(precision), log: -0.5 * (misfit + prior * prior) })
  }
  const most = Math.max(...found.map(({ log }) => log))
  const total = found.reduce((sum, { log }) => sum + Math.exp(log - most), 0)
  return found.map(({ log, ...rest }) => ({ ...rest, weight: Math.exp(log - most) / total }))
}

/** Distance at which a growing probability reaches a value, km. */
function reaches(probabilityAt: (km: number) => number, wanted: number): number {
  if (probabilityAt(0) >= wanted) return 0
  if (probabilityAt(HORIZON_KM) < wanted) return HORIZON_KM
  let [low, high] = [0, HORIZON_KM]
  while (high - low > 1) {
    const middle = (low + high) / 2
    if (probabilityAt(middle) >= wanted) high = middle
    else low = middle
  }
  return high
}

function rateAt(candidates: readonly Candidate[], share: number): number {
  let sum = 0
  for (const { rate, weight } of candidates) {
    sum += weight
    if (sum >= share) return rate
  }
  return MOST_RATE
}
