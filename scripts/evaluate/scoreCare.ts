import {
  assumptionsWith,
  cassetteDamageRate,
  chainForecast,
  chainVerdict,
  DEFAULTS,
  distanceAloneCrossing,
  ringsDamageRate,
  shippedPrior,
  SHIPPED_RULES,
  straightLineCrossing,
  type CareKind,
  type ChainLife,
  type ForecastReading,
  type WearObservation,
} from '@pelrin/core'
import { Chance } from '../../server/src/demo/random.ts'
import { toolNamed, type Shown, type Tool } from './tools.ts'
import { simulateChain, TOOL_OF, type Generator, type SimulatedChain } from './truth.ts'

/**
 * How a shop looks after a chain: as the product says; by a straight line through the last two readings, looked at again
 * where that meets the limit and changed at a reading over it; or changed after a fixed distance, whatever it looks like.
 */
export const WAYS = ['pelrin', 'straight-line', 'fixed-distance'] as const
export type Way = (typeof WAYS)[number]

export interface CareScore {
  readonly chains: number
  /** Visits at which it was looked at, a life. */
  readonly checks: number
  /** Share that were more than 0.05 % past the limit when they came off. */
  readonly late: number
  /** Share of the limit's distance used when it came off. */
  readonly used: number
  /** What a thousand weighted km cost: looks, the chain, and what it wore of cassette and rings, in the shipped prices. */
  readonly cost: number
}

const DAY_MS = 86_400_000
const PAST = 0.05
/** A real km of the usual mix wears so much, and so much is ridden a day. */
const USUAL = 1.2
const KM_PER_DAY = 14
/** Nobody looks more often: something is wrong then. */
const CHECKS_AT_MOST = 60
const RULE = { id: 'simulated', version: 1, ...SHIPPED_RULES[0] }
const weighted = (km: number): number => (km * USUAL) / 1000
const daysAt = (s: number): number => (s * 1000) / USUAL / KM_PER_DAY

/** Looks after simulated chains from new to change. @param risk the chance of being over at which to look again */
export function scoreCare(
  seed: number,
  care: CareKind,
  chains: number,
  { generator, way, risk }: { readonly generator: Generator; readonly way: Way; readonly risk: number },
): CareScore {
  const chance = new Chance(seed)
  const tool = toolNamed[TOOL_OF[generator]]
  const sum = { checks: 0, late: 0, used: 0, cost: 0, ridden: 0 }
  for (let i = 0; i < chains; i++) {
    const chain = simulateChain(chance, generator, care)
    const { off, checks } = lifeOf[way](chain, { chance, tool, risk })
    sum.checks += checks
    if (chain.wear(off) > chain.limit + PAST) sum.late++
    sum.used += Math.min(2, off / chain.crossing)
    sum.cost += costOf(chain, off, checks)
    sum.ridden += off
  }
  return {
    chains,
    checks: sum.checks / chains,
    late: sum.late / chains,
    used: sum.used / chains,
    cost: sum.cost / sum.ridden,
  }
}

interface Shop {
  readonly chance: Chance
  readonly tool: Tool
  readonly risk: number
}
/** Where a chain came off, thousand weighted km, and how often it was looked at. */
interface Looked {
  readonly off: number
  readonly checks: number
}

const lifeOf: Readonly<Record<Way, (chain: SimulatedChain, shop: Shop) => Looked>> = {
  pelrin: byPelrin,
  'straight-line': byLine,
  'fixed-distance': ({ care, limit }) => {
    const { life, gamma } = shippedPrior(care, DEFAULTS.forecast)
    return { off: distanceAloneCrossing(life, gamma, limit), checks: 0 }
  },
}

function byPelrin(chain: SimulatedChain, { chance, tool, risk }: Shop): Looked {
  const overrides = { 'forecast.checkRisk': risk }
  const assumed = assumptionsWith(overrides)
  const readings: ForecastReading[] = []
  let s = 0
  for (let checks = 0; ; checks++) {
    const measure = (): void => {
      readings.push({
        id: String(readings.length),
        occurredAt: daysAt(s) * DAY_MS,
        chainKm: (s * 1000) / USUAL,
        s,
        source: 'shop',
        instrument: { id: tool.kind, kind: tool.kind, biasU: 0 },
        spots: roundOf(chain, { chance, tool }, s).map((shown) => ({
          ...shown,
          ...(tool.pitches === null ? {} : { pitches: tool.pitches }),
        })),
      })
    }
    const look = (): { word: string; next: number } => {
      const fitted = chainForecast({ readings, life: aliveAt(s, chain.care), limit: chain.limit }, assumed)
      const shown = fitted?.forecast.withheld === null ? fitted.forecast : null
      const { word } = chainVerdict({
        readings,
        drive: { type: 'derailleur', speeds: chain.limit === 0.5 ? 11 : 10 },
        rule: RULE,
        chain: { kmSinceFittedNew: (s * 1000) / USUAL },
        instruments: [],
        assumptions: overrides,
        forecast: shown,
      })
      return { word, next: shown?.next.s ?? s + weighted(assumed.verdict.checkDays * KM_PER_DAY) }
    }
    if (checks > 0) measure()
    let found = look()
    if (found.word === 'measure-again' && checks > 0) {
      measure()
      found = look()
    }
    if (checks > 0 && (found.word === 'change' || checks >= CHECKS_AT_MOST)) return { off: s, checks }
    s = found.word === 'measure-again' ? s + weighted(assumed.forecast.checkFloorKm) : found.next
  }
}

const aliveAt = (s: number, care: CareKind): ChainLife => ({
  care,
  start: 'fitted',
  sNow: s,
  at: daysAt(s) * DAY_MS,
  usualFactor: USUAL,
  rate: { kmPerDay: KM_PER_DAY, weekScatter: 0.3, meanScatter: 0.1, basis: 'recent' },
  prior: shippedPrior(care, DEFAULTS.forecast),
})

function byLine(chain: SimulatedChain, { chance, tool }: Shop): Looked {
  const { checkFloorKm, checkHorizonDays, epsilon0 } = DEFAULTS.forecast
  const { life, gamma } = shippedPrior(chain.care, DEFAULTS.forecast)
  const observations: WearObservation[] = []
  // With nothing read, a first look at a third of what its care lasts.
  let s = distanceAloneCrossing(life, gamma, chain.limit) / 3
  for (let checks = 1; ; checks++) {
    const shown = roundOf(chain, { chance, tool }, s).sort((a, b) => highest(b) - highest(a))[0]!
    observations.push({ s, ...shown })
    if (highest(shown) >= chain.limit || checks >= CHECKS_AT_MOST) return { off: s, checks }
    const meets = straightLineCrossing(observations, chain.limit, epsilon0) ?? Infinity
    const most = s + weighted(checkHorizonDays * KM_PER_DAY)
    s = Math.min(most, Math.max(meets, s + weighted(checkFloorKm)))
  }
}

/** What one visit reads, beginning anywhere round the chain. */
function roundOf(
  { wear, places }: SimulatedChain,
  { chance, tool }: Pick<Shop, 'chance' | 'tool'>,
  s: number,
): Shown[] {
  const begin = chance.whole(0, places.length - 1)
  return Array.from({ length: tool.spots }, (_, spot) => {
    const under = Array.from(
      { length: tool.covers },
      (_, i) => places[(begin + spot * tool.covers + i) % places.length]!,
    )
    return tool.read(chance, wear(s) * (under.reduce((sum, one) => sum + one, 0) / under.length))
  })
}

/** The number, or the highest mark that goes in, by itself. */
const highest = (shown: Shown): number => ('value' in shown ? shown.value : (shown.over ?? -Infinity))

const { chainPrice, cassettePrice, ringsPrice } = DEFAULTS.economics
const LOOK = (DEFAULTS.jobs.hourPrice * DEFAULTS.diary.checkMinutes) / 60
const STEP = 0.05

/** What a chain's life cost: looks, itself, and what cassette and rings lost under it, by the damage law. */
function costOf({ care, limit, wear }: SimulatedChain, off: number, checks: number): number {
  const { life, gamma } = shippedPrior(care, DEFAULTS.forecast)
  const law = { limit, lifeToLimit: distanceAloneCrossing(life, gamma, limit) }
  const used = { cassette: 0, rings: 0 }
  for (let s = STEP / 2; s < off; s += STEP) {
    const elongation = wear(s)
    used.cassette += STEP * cassetteDamageRate(elongation, law, DEFAULTS.economics)
    used.rings += STEP * ringsDamageRate(elongation, law, DEFAULTS.economics)
  }
  // What is worn out wears out no further: the chain skips on it.
  return checks * LOOK + chainPrice + Math.min(1, used.cassette) * cassettePrice + Math.min(1, used.rings) * ringsPrice
}
