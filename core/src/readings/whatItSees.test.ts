import { describe, expect, it } from 'vitest'
import { assumptionsWith, INSTRUMENT_KINDS, whatItSees, type InstrumentRecord } from '../index.ts'

const assumed = assumptionsWith({})
const record = (more: Partial<InstrumentRecord>): InstrumentRecord => ({
  ...{ kind: 'digital', uMm: null, u: null, bias: 0, biasU: 0, marks: null, material: null, rollerMm: null },
  ...more,
})

describe('what an instrument can tell', () => {
  it('is the change two readings show for sure, by its own uncertainty and its bias’s', () => {
    expect(whatItSees(record({ u: 0.03 }), assumed)!.smallestChange).toBeCloseTo(1.96 * Math.SQRT2 * 0.03, 12)
    expect(whatItSees(record({ u: 0.03, biasU: 0.04 }), assumed)!.u).toBeCloseTo(0.05, 12)
  })
  it('is finer over a longer run: millimetres of a rule become per cent of what it was laid along', () => {
    const rule = whatItSees(record({ kind: 'steel-rule', uMm: 0.25 }), assumed)!
    expect(rule.u).toBeCloseTo((100 * 0.25) / (24 * 12.7), 12)
    expect(whatItSees(record({ kind: 'full-length', uMm: 0.8 }), assumed)!.u).toBeLessThan(rule.u)
    expect(
      whatItSees(record({ kind: 'steel-rule' }), assumptionsWith({ 'measuring.steelRuleUMm': 0.5 }))!.u,
    ).toBeGreaterThan(rule.u)
  })
  it('is at its marks and nowhere between, for a gauge that has some', () => {
    expect(whatItSees(record({ kind: 'drop-in', marks: [0.75, 0.5] }), assumed)!.marks).toEqual([0.5, 0.75])
    expect(whatItSees(record({ kind: 'digital' }), assumed)!.marks).toBeNull()
  })
  it('is nothing for hands alone, and said of every other kind', () => {
    expect(whatItSees(record({ kind: 'by-hand' }), assumed)).toBeNull()
    for (const kind of INSTRUMENT_KINDS.filter((one) => one !== 'by-hand')) {
      const seen = whatItSees(record({ kind, marks: [0.5, 0.75] }), assumed)!
      expect(seen.minutes).toBeGreaterThan(0)
      expect(seen.smallestChange).toBeGreaterThan(0)
    }
  })
})
