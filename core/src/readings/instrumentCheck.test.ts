import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../defaults.ts'
import { checkInstrument, marksProblem, type CheckResult, type InstrumentRecord } from '../index.ts'

const record = (kind: InstrumentRecord['kind'], marks: number[] | null = null): InstrumentRecord => ({
  kind,
  uMm: null,
  u: null,
  bias: 0.5,
  biasU: 0,
  marks,
  material: null,
  rollerMm: null,
})

const biasOf = (result: CheckResult): number => (result.ok ? result.outcome.bias : NaN)

describe('checking an instrument against known places', () => {
  it('finds what a display reads too much, whatever its record said before', () => {
    const result = checkInstrument({
      assumed: DEFAULTS,
      record: record('digital'),
      pairs: [
        { reference: 0.25, typed: '0.33' },
        { reference: 0.5, typed: '0.57' },
        { reference: 0.75, typed: '0.84' },
      ],
      referenceU: 0.005,
    })
    expect(result).toMatchObject({ ok: true, outcome: { reads: 'early' } })
    expect(biasOf(result)).toBeCloseTo(0.08, 9)
    expect(result.ok && result.outcome.biasU).toBeCloseTo(Math.hypot(0.03 / Math.sqrt(3), 0.005), 12)
  })
  it('finds nothing wrong where the difference may be chance', () => {
    const result = checkInstrument({
      assumed: DEFAULTS,
      record: record('digital'),
      pairs: [{ reference: 0.5, typed: '0.54' }],
      referenceU: 0.005,
    })
    expect(result).toMatchObject({ outcome: { reads: 'true' } })
  })
  it('finds where marks truly go in: a gauge that reads late goes in too late', () => {
    const result = checkInstrument({
      assumed: DEFAULTS,
      record: record('drop-in', [0.5, 0.75]),
      pairs: [
        { reference: 0.5, typed: 'oo' },
        { reference: 0.56, typed: 'oo' },
        { reference: 0.62, typed: 'io' },
        { reference: 0.82, typed: 'io' },
        { reference: 0.86, typed: 'ii' },
      ],
      referenceU: 0.005,
    })
    // 0.59 and 0.84 instead of 0.5 and 0.75.
    expect(result).toMatchObject({ outcome: { reads: 'late' } })
    expect(biasOf(result)).toBeCloseTo(-0.09, 9)
  })
  it('checks a rule on lengths', () => {
    const result = checkInstrument({
      assumed: DEFAULTS,
      record: record('steel-rule'),
      pairs: [{ reference: 0.5, typed: '306.32', pitches: 24 }],
      referenceU: 0,
    })
    expect(result).toMatchObject({ outcome: { reads: 'true' } })
    expect(biasOf(result)).toBeCloseTo(-0.0013, 3)
  })
  it.each([
    ['nothing', [], 'check-empty', null],
    ['a reference no chain has', [{ reference: 50, typed: 'io' }], 'reference-range', 0],
    ['a mark read that contradicts another', [{ reference: 0.4, typed: 'oi' }], 'marks-contradict', 0],
    ['marks that never turned', [{ reference: 0.1, typed: 'oo' }], 'check-undecided', null],
    [
      'a mark that stays out of more wear than it goes into',
      [
        { reference: 0.4, typed: 'io' },
        { reference: 0.7, typed: 'oo' },
      ],
      'check-contradicts',
      null,
    ],
  ] as const)('refuses %s', (_, pairs, problem, at) => {
    expect(
      checkInstrument({ assumed: DEFAULTS, record: record('drop-in', [0.5, 0.75]), pairs, referenceU: 0.01 }),
    ).toEqual({
      ok: false,
      at,
      problem,
    })
  })
})

describe('a gauge’s marks', () => {
  it.each([
    [[0.5, 0.75], null],
    [[], 'marks-none'],
    [[0.75, 0.5], 'marks-order'],
    [[0.5, 0.5], 'marks-order'],
    [[0.5, 75], 'marks-range'],
    [[0.2, 0.3, 0.4, 0.5, 0.6], 'marks-too-many'],
  ] as const)('%j: %s', (marks, problem) => {
    expect(marksProblem(marks, 'drop-in')).toBe(problem)
  })
})
