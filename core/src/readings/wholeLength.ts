import type { Explanation } from '../explanation.ts'
import { temperatureCorrection, type RuleMaterial } from './temperature.ts'

/** A whole chain, hung straight and measured. */
export interface WholeLength {
  /** Between the pins measured, mm. */
  readonly lengthMm: number
  /** Pitches between them: one fewer without the connecting link. */
  readonly pitches: number
  readonly preloadKg: number
  /** Of rule and chain, °C; absent: not told. */
  readonly ruleCelsius?: number
  readonly chainCelsius?: number
}

/** What keeps two whole lengths from being like. Keys of the message catalogue. */
export type UnlikeLengths = 'count-differs' | 'preload-differs'

/**
 * How much a whole chain has grown since it was new.
 *
 * Both are taken per pitch, so that one hung without its connecting link compares with one hung with it. A steel rule as
 * warm as the chain grows with it, and nothing is corrected between two dates; a rule of another temperature or material
 * is, each time by what it hid then.
 *
 * @param lengths `now` and `whenNew`; `material` of the rule both were read on; `uMm` standard uncertainty of one length, mm
 * @returns growth and its u in % of the new length, and what is unlike about the two
 */
export function growthSinceNew({
  now,
  whenNew,
  material,
  uMm,
}: {
  now: WholeLength
  whenNew: WholeLength
  material: RuleMaterial
  uMm: number
}): {
  growth: number
  u: number
  unlike: readonly UnlikeLengths[]
  explanation: Explanation
} {
  const perPitchNow = now.lengthMm / now.pitches
  const perPitchNew = whenNew.lengthMm / whenNew.pitches
  const warmth = temperatureCorrection(material, whenNew).correction - temperatureCorrection(material, now).correction
  const growth = (100 * (perPitchNow - perPitchNew)) / perPitchNew - warmth
  const u = 100 * uMm * Math.hypot(1 / now.lengthMm, 1 / whenNew.lengthMm)
  const unlike: UnlikeLengths[] = []
  // One pitch apart is the connecting link, which the comparison per pitch allows for.
  if (Math.abs(now.pitches - whenNew.pitches) > 1) unlike.push('count-differs')
  if (Math.abs(now.preloadKg - whenNew.preloadKg) > 1e-9) unlike.push('preload-differs')
  return {
    growth,
    u,
    unlike,
    explanation: {
      rule: 'growth-since-new',
      inputs: [
        { symbol: 'L', meaning: 'measured-length', value: now.lengthMm, unit: 'mm' },
        { symbol: 'n', meaning: 'pitch-count', value: now.pitches, unit: 'pitches' },
        { symbol: 'L₀', meaning: 'new-length', value: whenNew.lengthMm, unit: 'mm' },
        { symbol: 'n₀', meaning: 'new-count', value: whenNew.pitches, unit: 'pitches' },
        { symbol: 'w', meaning: 'warmth', value: warmth, unit: '%' },
      ],
      formula: 'g = 100 × (L/n − L₀/n₀) / (L₀/n₀) − w',
      result: { value: growth, unit: '%' },
    },
  }
}
