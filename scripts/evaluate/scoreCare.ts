import {
  chainForecast,
  chainVerdict,
  DEFAULTS,
  shippedPrior,
  SHIPPED_RULES,
  type CareKind,
  type ChainLife,
  type ForecastReading,
} from '@pelrin/core'
import { Chance } from '../../server/src/db/seed/random.ts'
import { simulateChain } from './truth.ts'

export interface CareScore {
  readonly chains: number
  /** Visits at which it was looked at, a life. */
  readonly checks: number
  /** Share that were more than 0.05 % past the limit when they came off. */
  readonly late: number
  /** Share of the limit's distance used when it came off. */
  readonly used: number
}

const DAY_MS = 86_400_000
const U = 0.05
const PAST = 0.05
/** A real km of the usual mix wears so much, and so much is ridden a day. */
const USUAL = 1.2
const KM_PER_DAY = 14
/** Nobody looks more often: something is wrong then. */
const CHECKS_AT_MOST = 60
const RULE = { id: 'simulated', version: 1, ...SHIPPED_RULES[0] }

/** Looks after simulated chains from new to change by their own next checks and verdicts, as the shop would. */
export function scoreCare(seed: number, care: CareKind, chains: number): CareScore {
  const chance = new Chance(seed)
  let checks = 0
  let late = 0
  let used = 0
  for (let i = 0; i < chains; i++) {
    const chain = simulateChain(chance, 'law', care)
    const speeds = chain.limit === 0.5 ? 11 : 10
    const readings: ForecastReading[] = []
    let s = 0
    for (let visit = 0; visit < CHECKS_AT_MOST; visit++) {
      const days = (s * 1000) / USUAL / KM_PER_DAY
      const life: ChainLife = {
        care,
        start: 'fitted',
        sNow: s,
        at: days * DAY_MS,
        usualFactor: USUAL,
        rate: { kmPerDay: KM_PER_DAY, weekScatter: 0.3, meanScatter: 0.1, basis: 'recent' },
        prior: shippedPrior(care, DEFAULTS.forecast),
      }
      const look = (): string => {
        const fitted = chainForecast({ readings, life, limit: chain.limit }, DEFAULTS)
        const shown = fitted?.forecast.withheld === null ? fitted.forecast : null
        const { word } = chainVerdict({
          readings,
          drive: { type: 'derailleur', speeds },
          rule: RULE,
          chain: { kmSinceFittedNew: (s * 1000) / USUAL },
          instruments: [],
          assumptions: {},
          forecast: shown,
        })
        if (word === 'change' || word === 'measure-again') return word
        // Withheld: look again soon, as with any doubt.
        s = shown?.next.s ?? s + 0.3
        return word
      }
      if (visit > 0) {
        checks++
        const measure = (): number =>
          readings.push({
            id: String(readings.length),
            occurredAt: days * DAY_MS,
            chainKm: (s * 1000) / USUAL,
            s,
            source: 'shop',
            instrument: { id: 'rule', kind: 'steel-rule', biasU: 0 },
            spots: [{ value: chain.read(s), u: U, pitches: 54 }],
          })
        measure()
        const here = s
        let word = look()
        if (word === 'measure-again') {
          measure()
          word = look()
        }
        if (word === 'change') {
          if (chain.wear(here) > chain.limit + PAST) late++
          used += here / chain.crossing
          break
        }
      } else look()
    }
  }
  return { chains, checks: checks / chains, late: late / chains, used: used / chains }
}
