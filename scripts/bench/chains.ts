import { CARE_KINDS, shippedPrior, wearAt, type ChainForecastInput, type ForecastReading, DEFAULTS } from '@pelrin/core'
import { Chance } from '../../server/src/demo/random.ts'

/** Chains as a shop has them: two to five visits of one to three spots, one in four of unknown start. */
export function benchChains(count: number, seed: number): ChainForecastInput[] {
  const chance = new Chance(seed)
  return Array.from({ length: count }, (_, i) => {
    const care = chance.pick(CARE_KINDS)
    const prior = shippedPrior(care, DEFAULTS.forecast)
    const truth = { epsilon0: 0.03, life: prior.life * Math.exp(chance.normal(0, 0.4)), gamma: prior.gamma }
    const visits = chance.whole(2, 5)
    const readings = Array.from({ length: visits }, (__, visit): ForecastReading => {
      const s = ((visit + 1) * prior.life) / 8
      return {
        id: `${i}/${visit}`,
        occurredAt: visit * 5_000_000_000,
        chainKm: s * 800,
        s,
        source: 'shop',
        instrument: { id: 'rule', kind: 'steel-rule', biasU: 0 },
        spots: Array.from({ length: chance.whole(1, 3) }, () => ({
          value: wearAt(s, truth) + chance.normal(0, 0.04),
          u: 0.05,
        })),
      }
    })
    return {
      readings,
      limit: 0.5,
      life: {
        care,
        start: chance.happens(0.25) ? 'unknown' : 'fitted',
        sNow: readings.at(-1)!.s,
        at: visits * 5_000_000_000,
        usualFactor: 1.2,
        rate: { kmPerDay: 12, weekScatter: 0.5, meanScatter: 0.15, basis: 'recent' },
        prior,
      },
    }
  })
}
