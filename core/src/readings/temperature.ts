import type { Explanation } from '../explanation.ts'

/** What rules and calipers are made of. */
export const RULE_MATERIALS = ['steel', 'stainless', 'brass', 'aluminium'] as const
export type RuleMaterial = (typeof RULE_MATERIALS)[number]

/** Thermal expansion, parts per million per °C, as handbooks give them. */
export const EXPANSION_PPM: Readonly<Record<RuleMaterial, number>> = {
  steel: 11.5,
  stainless: 16.0,
  brass: 19.0,
  aluminium: 23.1,
}

/** Rules are made to be right at this temperature, °C (ISO 1). */
export const REFERENCE_CELSIUS = 20

/** Temperatures a workshop can have, °C. */
export const CELSIUS_RANGE = { lowest: -20, highest: 60 } as const

/** Temperatures at which a length was read; one left out is the reference. */
export interface Temperatures {
  readonly ruleCelsius?: number
  readonly chainCelsius?: number
}

/**
 * What a length reads too little because of temperature, %: to be added to the elongation.
 *
 * 100·(α_rule·ΔT_rule − α_chain·ΔT_chain), ΔT from 20 °C. A steel rule as warm as the chain grows with it, and
 * nothing is corrected; with no temperature told neither is.
 *
 * @param rule what the rule is made of; a chain is steel
 */
export function temperatureCorrection(
  rule: RuleMaterial,
  { ruleCelsius, chainCelsius }: Temperatures,
): { correction: number; explanation: Explanation | null } {
  if (ruleCelsius === undefined && chainCelsius === undefined) return { correction: 0, explanation: null }
  // One told alone is the workshop's: rule and chain have lain in the same air.
  const ruleAt = ruleCelsius ?? chainCelsius ?? REFERENCE_CELSIUS
  const chainAt = chainCelsius ?? ruleAt
  const alphaRule = EXPANSION_PPM[rule]
  const alphaChain = EXPANSION_PPM.steel
  const correction = 1e-4 * (alphaRule * (ruleAt - REFERENCE_CELSIUS) - alphaChain * (chainAt - REFERENCE_CELSIUS))
  return {
    correction,
    explanation: {
      rule: 'temperature-correction',
      inputs: [
        { symbol: 'αr', meaning: 'rule-expansion', value: alphaRule, unit: 'ppm/°C' },
        { symbol: 'tr', meaning: 'rule-temperature', value: ruleAt, unit: '°C' },
        { symbol: 'αc', meaning: 'chain-expansion', value: alphaChain, unit: 'ppm/°C' },
        { symbol: 'tc', meaning: 'chain-temperature', value: chainAt, unit: '°C' },
      ],
      formula: 'c = 100 × (αr × (tr − 20) − αc × (tc − 20)) × 10⁻⁶',
      result: { value: correction, unit: '%' },
    },
  }
}
