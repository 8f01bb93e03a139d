import type { Explanation } from '../explanation.ts'
import { SURFACES, totalKm, type SurfaceKm } from './surface.ts'

const SYMBOLS = { indoor: 'i', dry: 'd', damp: 'f', wet: 'w', gritty: 'g', unknown: 'o' } as const

/** Why a chain's distance is what it is where rides say on what it was ridden: the kilometres of each surface. */
export function explainedSurfaceKm(km: SurfaceKm): Explanation {
  const parts = [...SURFACES, 'unknown' as const].filter((surface) => km[surface] > 0)
  return {
    rule: 'distance-by-ledger',
    inputs: parts.map((surface) => ({
      symbol: SYMBOLS[surface],
      meaning: `km-${surface}`,
      value: km[surface],
      unit: 'km',
    })),
    formula: `s = ${parts.map((surface) => SYMBOLS[surface]).join(' + ')}`,
    result: { value: totalKm(km), unit: 'km' },
  }
}
