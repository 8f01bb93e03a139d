import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../defaults.ts'
import { INSTRUMENT_KINDS, KINDS } from './instrumentKinds.ts'
import { lengthUMm, marksProblem, scaleU } from './instrumentRecord.ts'

describe('what a kind of instrument is', () => {
  it.each(INSTRUMENT_KINDS)(
    '%s has the uncertainty that is assumed of it, unless its record says otherwise',
    (kind) => {
      const { u, entry } = KINDS[kind]
      const known = { kind, u: 0.011, uMm: 0.22 }
      const unknown = { kind, u: null, uMm: null }
      if (u === null) {
        expect(() => scaleU(unknown, DEFAULTS)).toThrow(RangeError)
        return
      }
      const of = entry === 'length' ? lengthUMm : scaleU
      expect(of(unknown, DEFAULTS)).toBe(DEFAULTS.measuring[u])
      expect(of(known, DEFAULTS)).toBe(entry === 'length' ? 0.22 : 0.011)
      const other = { ...DEFAULTS, measuring: { ...DEFAULTS.measuring, [u]: 0.5 } }
      expect(of(unknown, other)).toBe(0.5)
    },
  )
  it('is read by marks only where it can have some, and has no more than it can', () => {
    for (const kind of INSTRUMENT_KINDS) {
      const { entry, marks, pad } = KINDS[kind]
      if (entry === 'marks' || pad) expect(marks, kind).toBeGreaterThan(0)
      const as = (count: number) => Array.from({ length: count }, (_, i) => 0.2 + i * 0.05)
      if (marks > 0) expect(marksProblem(as(marks), kind), kind).toBeNull()
      expect(marksProblem(as(marks + 1), kind), kind).toBe('marks-too-many')
    }
  })
  it('says its uncertainty in mm of a length, in % of anything else', () => {
    for (const kind of INSTRUMENT_KINDS) {
      const { entry, u } = KINDS[kind]
      if (u !== null) expect(u.endsWith('Mm'), kind).toBe(entry === 'length')
    }
  })
})
