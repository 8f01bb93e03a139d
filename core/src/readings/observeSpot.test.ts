import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../defaults.ts'
import {
  assumptionsWith,
  formatMarks,
  observeSpot,
  parseMarks,
  parsePercent,
  type InstrumentKind,
  type InstrumentRecord,
  type MarkState,
  type SpotEntry,
} from '../index.ts'

const record = (kind: InstrumentKind, more: Partial<InstrumentRecord> = {}): InstrumentRecord => ({
  kind,
  uMm: null,
  u: null,
  bias: 0,
  biasU: 0,
  marks: kind === 'drop-in' ? [0.5, 0.75] : null,
  material: null,
  rollerMm: null,
  ...more,
})
const seen = (kind: InstrumentKind, entry: SpotEntry, more: Partial<InstrumentRecord> = {}) => {
  const result = observeSpot({ assumed: DEFAULTS, record: record(kind, more), entry })
  if (!result.ok) throw new Error(result.problem)
  return result.observed
}
const refused = (kind: InstrumentKind, entry: SpotEntry, more: Partial<InstrumentRecord> = {}) => {
  const result = observeSpot({ assumed: DEFAULTS, record: record(kind, more), entry })
  return result.ok ? null : `${result.field}: ${result.problem}`
}

describe('lengths', () => {
  it('on a rule are an elongation over the count', () => {
    expect(seen('steel-rule', { typed: '204.6', pitches: 16 })).toMatchObject({
      pitches: 16,
      unit: 'mm',
      oddCount: false,
    })
    expect(seen('steel-rule', { typed: '204.6', pitches: 16 }).value).toBeCloseTo(0.689, 4)
  })
  it('told by a picture of the pin stand at the mark, a quarter or a half pin past it, with a larger u', () => {
    const at = (picture: SpotEntry['picture']) =>
      seen('steel-rule', { typed: '12in', pitches: 24, ...(picture === undefined ? {} : { picture }) })
    expect(at('centre').value).toBeCloseTo(0, 9)
    expect(at('half').value).toBeCloseTo((100 * 0.9) / 304.8, 9)
    expect(at('edge').value).toBeCloseTo((100 * 1.8) / 304.8, 9)
    expect(at('clear')).toMatchObject({ over: at('edge').value })
    expect(at('clear').value).toBeUndefined()
    expect(at('half').u).toBeGreaterThan(at(undefined).u)
  })
  it('between a caliper’s jaws become pin to pin by the roller its record tells of', () => {
    expect(seen('caliper', { typed: '127.4', pitches: 10 }).value).toBeCloseTo(0.315, 4)
    expect(seen('caliper', { typed: '119.6', pitches: 10, mode: 'inside-rollers' }).lengthMm).toBeCloseTo(127.35, 9)
    expect(seen('caliper', { typed: '135.2', pitches: 10, mode: 'outside-rollers' }).lengthMm).toBeCloseTo(127.45, 9)
    expect(
      seen('caliper', { typed: '119.6', pitches: 10, mode: 'inside-rollers' }, { rollerMm: 7.7 }).lengthMm,
    ).toBeCloseTo(127.3, 9)
    expect(refused('caliper', { typed: '7.7mm', pitches: 2, mode: 'outside-rollers' })).toBe(
      'typed: shorter-than-roller',
    )
  })
  it('of a whole chain have one pitch fewer without its connecting link, and always a count told', () => {
    const whole = { typed: '1453.4', pitches: 114 }
    expect(seen('full-length', whole)).toMatchObject({ pitches: 114, oddCount: false })
    expect(seen('full-length', { ...whole, typed: '1440.7', linkIncluded: false })).toMatchObject({ pitches: 113 })
    expect(refused('full-length', { typed: '1453.4' })).toBe('pitches: count-missing')
  })
  it('of no chain are refused at the count', () => {
    expect(refused('steel-rule', { typed: '204.6', pitches: 14 })).toBe('pitches: count-impossible')
    expect(refused('steel-rule', { typed: '203.2in', pitches: 16 })).toBe('typed: length-too-long')
    expect(refused('steel-rule', { typed: '204.6', pitches: 1 })).toBe('pitches: count-malformed')
  })
})

describe('temperature', () => {
  const warmed = (material: InstrumentRecord['material'], ruleCelsius?: number, chainCelsius?: number) => {
    const result = observeSpot({
      assumed: DEFAULTS,
      record: record('steel-rule', { material }),
      entry: { typed: '304.8', pitches: 24 },
      taken: {
        ...(ruleCelsius === undefined ? {} : { ruleCelsius }),
        ...(chainCelsius === undefined ? {} : { chainCelsius }),
      },
    })
    return result.ok ? result.observed.temperature : NaN
  }
  it('changes nothing for a steel rule as warm as the chain', () => {
    expect(warmed('steel', 5, 5)).toBeCloseTo(0, 12)
    expect(warmed('steel', 5)).toBeCloseTo(0, 12)
    expect(warmed(null)).toBe(0)
  })
  it('is 100·(α_rule·ΔT_rule − α_chain·ΔT_chain) otherwise', () => {
    expect(warmed('aluminium', 5, 5)).toBeCloseTo(1e-4 * (23.1 - 11.5) * -15, 9)
    // A chain brought in from the frost has shrunk: it reads too little, so something is added.
    expect(warmed('steel', 20, -5)).toBeCloseTo(1e-4 * 11.5 * 25, 9)
  })
  it('is explained by the temperatures it was made from', () => {
    const result = observeSpot({
      assumed: DEFAULTS,
      record: record('steel-rule'),
      entry: { typed: '304.8', pitches: 24 },
      taken: { ruleCelsius: 20, chainCelsius: -5 },
    })
    const because = result.ok ? result.observed.explanations.find((one) => one.rule === 'temperature-correction') : null
    expect(because?.inputs.map((input) => input.value)).toEqual([11.5, 20, 11.5, -5])
    expect(because?.result.value).toBe(result.ok ? result.observed.temperature : null)
  })
})

describe('marks', () => {
  it('are an interval between the highest in and the lowest out, less the bias', () => {
    expect(seen('drop-in', { typed: 'io' })).toMatchObject({ over: 0.5, under: 0.75, borderline: false })
    expect(seen('drop-in', { typed: 'ii' })).toMatchObject({ over: 0.75 })
    expect(seen('drop-in', { typed: 'O' })).toMatchObject({ under: 0.5 })
    const pushed = seen('drop-in', { typed: 'po' }, { bias: 0.02 })
    expect(pushed).toMatchObject({ value: 0.48, borderline: true })
    expect(pushed.u).toBeCloseTo(Math.hypot(0.05, 0.05), 12)
    expect(pushed.over ?? pushed.under).toBeUndefined()
    // What drops in higher up leaves the push below it behind.
    expect(seen('drop-in', { typed: 'pi' })).toMatchObject({ over: 0.75, borderline: false })
    expect(seen('drop-in', { typed: 'io' }, { bias: -0.09 })).toMatchObject({ over: 0.59, under: 0.84 })
    expect(seen('drop-in', { typed: 'io' }).u).toBe(0.05)
  })
  it('that contradict each other are refused, and so is what is no mark', () => {
    expect(refused('drop-in', { typed: 'oi' })).toBe('typed: marks-contradict')
    expect(refused('drop-in', { typed: 'op' })).toBe('typed: marks-contradict')
    expect(refused('drop-in', { typed: 'i' })).toBe('typed: marks-unfinished')
    expect(refused('drop-in', { typed: 'iii' })).toBe('typed: marks-too-many-letters')
    expect(refused('drop-in', { typed: '204.6' })).toBe('typed: marks-letters')
  })
  it('are read as they are written, and are in order or refused, whatever they are', () => {
    const states = fc.array(fc.constantFrom<MarkState>('out', 'push', 'in'), { minLength: 2, maxLength: 2 })
    fc.assert(
      fc.property(states, (told) => {
        const read = parseMarks(formatMarks(told), [0.5, 0.75])
        if (told[0] === 'out' && told[1] !== 'out') expect(read).toEqual({ ok: false, problem: 'marks-contradict' })
        else expect(read.ok && read.seen.map(({ state }) => state)).toEqual(told)
      }),
    )
  })
})

describe('scales', () => {
  it('are an elongation less the bias, with the u of the record or of the kind', () => {
    expect(seen('digital', { typed: '0,62' })).toMatchObject({ value: 0.62, u: 0.03 })
    expect(seen('digital', { typed: '0.62 %' }, { bias: 0.02, u: 0.01 }).value).toBeCloseTo(0.6, 12)
    expect(seen('graduated', { typed: '.65' })).toMatchObject({ value: 0.65, u: 0.06 })
    expect(seen('swing-arm', { typed: '0.4' })).toMatchObject({ value: 0.4, u: 0.06 })
  })
  it('end where the arm’s travel ends: over the top mark', () => {
    expect(seen('swing-arm', { typed: 'end' }, { marks: [0.5, 0.75] })).toMatchObject({ over: 0.75 })
    expect(seen('swing-arm', { typed: 'E' })).toMatchObject({ over: 1 })
  })
  it.each([
    ['digital', '203.2', 'percent-is-length'],
    ['digital', '0.6in', 'percent-is-length'],
    ['digital', '0.6.2', 'percent-two-decimals'],
    ['digital', 'abc', 'percent-letters'],
    ['digital', '', 'percent-letters'],
    ['digital', '-0.8', 'percent-low'],
    ['digital', '7', 'percent-high'],
    ['graduated', '0.62', 'percent-step'],
    ['graduated', '1.05', 'percent-high'],
    ['swing-arm', '-0.1', 'percent-low'],
    ['by-hand', 'x', 'instrument-reads-signs'],
  ] as const)('%s refuses %s: %s', (kind, typed, problem) => {
    expect(refused(kind, { typed })).toBe(`typed: ${problem}`)
  })
})

describe('every kind', () => {
  const kinds = ['steel-rule', 'caliper', 'drop-in', 'swing-arm', 'graduated', 'digital', 'full-length'] as const
  it('takes any text without throwing, and gives a finite result or a reason', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...kinds),
        fc.oneof(fc.string(), fc.double().map(String), fc.constantFrom('io', 'end', '12in +3/32')),
        fc.option(fc.integer({ min: -5, max: 400 })),
        (kind, typed, pitches) => {
          const result = observeSpot({ assumed: DEFAULTS, record: record(kind), entry: { typed, pitches } })
          if (!result.ok) return
          const { value, over, under, u } = result.observed
          expect(u).toBeGreaterThan(0)
          for (const bound of [value, over, under]) if (bound !== undefined) expect(Number.isFinite(bound)).toBe(true)
        },
      ),
      { numRuns: 500 },
    )
  })
  it('explains each number it gives by its own result', () => {
    for (const [kind, typed] of [
      ['steel-rule', '204.6'],
      ['digital', '0.62'],
      ['drop-in', 'io'],
    ] as const) {
      const { value, over, explanations } = seen(kind, { typed, pitches: 16 }, { bias: 0.01 })
      expect(explanations.map((one) => one.result.value)).toContain(value ?? over)
    }
  })
  it('uses the shop’s own assumptions where the record says nothing', () => {
    const assumed = assumptionsWith({ 'measuring.digitalU': 0.08, 'measuring.pinMm': 4 })
    const result = observeSpot({ record: record('digital'), entry: { typed: '0.5' }, assumed })
    expect(result.ok && result.observed.u).toBe(0.08)
  })
})

describe('a percentage', () => {
  it('written in any way is the same number', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -50, max: 300 }),
        fc.constantFrom('.', ','),
        fc.constantFrom('', '%', ' %'),
        (n, sign, unit) => {
          const text = (n / 100).toFixed(2).replace('.', sign) + unit
          expect(parsePercent(text, { lowest: -0.5, highest: 3 })).toEqual({
            ok: true,
            percent: Number((n / 100).toFixed(2)),
          })
        },
      ),
    )
  })
})
