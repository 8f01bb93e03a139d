import type { Assumptions } from '../assumptions.ts'
import { PITCH_MM } from '../defaults.ts'
import type { Explanation } from '../explanation.ts'
import { derailleurLength, type LengthDrive } from './drive.ts'
import { pitchRadiusMm } from './loop.ts'
import { fixedLengths, type FixedLoop } from './fixedLoop.ts'
import { ceilEven } from './recommended.ts'

/**
 * Why a derailleur chain has so many pitches: the count, and the loop it comes from.
 *
 * @returns empty where the chainstay, the rings or the sprockets are not known
 */
export function derailleurLengthExplained(drive: LengthDrive, assumed: Assumptions): Explanation[] {
  const known = derailleurLength(drive, assumed)
  if (!known) return []
  const { loop, added, pulleyPitches, largestRing, largestSprocket, chainstayMm } = known
  const result = { value: ceilEven(loop + added.pitches + pulleyPitches), unit: 'pitches' as const }
  const loopIs = { symbol: 'l', meaning: 'loop', value: loop, unit: 'pitches' as const }
  const [larger, smaller] = [Math.max(largestRing, largestSprocket), Math.min(largestRing, largestSprocket)]
  const slope = Math.asin((pitchRadiusMm(larger) - pitchRadiusMm(smaller)) / chainstayMm)
  return [
    {
      rule: 'length-by-loop',
      inputs: [
        { symbol: 'r', meaning: 'largest-ring', value: largestRing, unit: 'teeth' },
        { symbol: 'w', meaning: 'largest-sprocket', value: largestSprocket, unit: 'teeth' },
        { symbol: 'c', meaning: 'chainstay', value: chainstayMm, unit: 'mm' },
        loopIs,
        { symbol: 'a', meaning: `added-${added.from}`, value: added.pitches, unit: 'pitches' },
        ...(pulleyPitches > 0
          ? [{ symbol: 'p', meaning: 'added-pulleys', value: pulleyPitches, unit: 'pitches' as const }]
          : []),
      ],
      formula: pulleyPitches > 0 ? 'L = 2 × ⌈(l + a + p) / 2⌉' : 'L = 2 × ⌈(l + a) / 2⌉',
      result,
    },
    {
      rule: 'loop-over-two',
      inputs: [
        { symbol: 'C', meaning: 'chainstay', value: chainstayMm, unit: 'mm' },
        { symbol: 'N₁', meaning: 'more-teeth', value: larger, unit: 'teeth' },
        { symbol: 'N₂', meaning: 'fewer-teeth', value: smaller, unit: 'teeth' },
        { symbol: 'α', meaning: 'slope-of-run', value: slope, unit: 'rad' },
        { symbol: 'p', meaning: 'nominal-pitch', value: PITCH_MM, unit: 'mm' },
      ],
      formula: 'l = 2 × C × cos(α) / p + (N₁ × (π + 2 × α) + N₂ × (π − 2 × α)) / (2 × π)',
      result: { value: loop, unit: 'pitches' },
    },
  ]
}

/** Why a chain with no derailleur may have so many pitches: where its axle stands with them; empty where they do not fit. */
export function fixedLengthExplained(loop: FixedLoop, pitches: number, assumed: Assumptions): Explanation[] {
  const found = fixedLengths(loop, assumed).find((one) => one.pitches === pitches)
  if (!found) return []
  return [
    {
      rule: 'length-by-axle',
      inputs: [
        { symbol: 'N₁', meaning: 'ring-teeth', value: loop.frontTeeth, unit: 'teeth' },
        { symbol: 'N₂', meaning: 'sprocket-teeth', value: loop.rearTeeth, unit: 'teeth' },
        { symbol: 'n', meaning: 'axle-near', value: loop.fromMm, unit: 'mm' },
        { symbol: 'f', meaning: 'axle-far', value: loop.toMm, unit: 'mm' },
        { symbol: 'C', meaning: 'axle-at', value: found.chainstayMm, unit: 'mm' },
      ],
      result: { value: pitches, unit: 'pitches' },
    },
  ]
}
