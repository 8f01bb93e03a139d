import { describe, expect, it } from 'vitest'
import vectors from '../../fixtures/measuring.json' with { type: 'json' }
import {
  elongationFromSpan,
  pinSpanFromCaliper,
  pitchCandidates,
  probabilityOver,
  worstSpot,
  type CaliperMode,
} from './index.ts'

describe('the reference results for measuring', () => {
  it.each(vectors.spans)('elongation of $input.lengthMm mm over $input.pitches', ({ input, elongation }) => {
    expect(elongationFromSpan(input)).toBeCloseTo(elongation, 6)
  })
  it.each(vectors.candidates)('counts of $input.lengthMm mm', ({ input, candidates }) => {
    const found = pitchCandidates(input)
    expect(found.map((c) => c.pitches)).toEqual(candidates.map((c) => c.pitches))
    found.forEach((c, i) => expect(c.elongation).toBeCloseTo(candidates[i]!.elongation, 5))
  })
  it.each(vectors.calipers)('caliper $input.mode', ({ input, pinSpanMm }) => {
    expect(pinSpanFromCaliper({ ...input, mode: input.mode as CaliperMode })).toBeCloseTo(pinSpanMm, 9)
  })
  it.each(vectors.over)('chance of $input.elongation ± $input.u over $input.limit', ({ input, probability }) => {
    expect(probabilityOver(input)).toBeCloseTo(probability, 6)
  })
  it.each(vectors.worstSpot)('worst of $input.spots', ({ input, probabilityOver: chance, median }) => {
    const worst = worstSpot(input)
    expect(Math.abs(worst.probabilityOver - chance)).toBeLessThan(0.0005)
    expect(Math.abs(worst.median - median)).toBeLessThan(0.0005)
  })
})
