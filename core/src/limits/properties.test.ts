import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../defaults.ts'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import {
  chainVerdict,
  INSTRUMENT_KINDS,
  observeSpot,
  SHIPPED_RULES,
  type ChainVerdict,
  type ChainVerdictInput,
  type HouseRule,
  type VerdictReading,
  type VerdictSpot,
  type VerdictWord,
} from '../index.ts'

const rules: HouseRule[] = SHIPPED_RULES.map((rule) => ({ ...rule, id: rule.school, version: 1 }))
const bySpeeds = rules[0]!

const SEVERITY: Partial<Record<VerdictWord, number>> = { 'keep-riding': 0, 'closing-in': 1, change: 2 }
/** How hard a verdict is; where it asks to measure again, as hard as it would be without that. */
const severity = ({ word, otherwise }: ChainVerdict): number => SEVERITY[otherwise ?? word] ?? NaN

const judge = (spots: readonly VerdictSpot[], more: Partial<ChainVerdictInput> = {}): ChainVerdict =>
  chainVerdict({
    readings: [
      {
        id: 'r',
        occurredAt: 0,
        chainKm: 900,
        source: 'shop',
        instrument: { id: 'i', kind: 'digital', biasU: 0 },
        spots,
      },
    ],
    drive: { type: 'derailleur', speeds: 11 },
    rule: bySpeeds,
    chain: { kmSinceFittedNew: null },
    instruments: [],
    assumptions: {},
    ...more,
  })

const value = fc.double({ min: 0, max: 1.2, noNaN: true })
const round = (u: number) =>
  fc.array(
    value.map((one): VerdictSpot => ({ value: one, u })),
    { minLength: 1, maxLength: 6 },
  )
const marks = fc
  .tuple(fc.double({ min: 0.1, max: 0.6, noNaN: true }), fc.double({ min: 0.05, max: 0.5, noNaN: true }), fc.nat(2))
  .map(([over, gap, sides]): VerdictSpot => ({
    u: 0.05,
    ...(sides === 1 ? {} : { over }),
    ...(sides === 2 ? {} : { under: over + gap }),
  }))

describe('whatever is read', () => {
  it('a worse worst spot never brings a milder verdict', () => {
    fc.assert(
      fc.property(round(0.04), fc.double({ min: 0, max: 0.4, noNaN: true }), (spots, more) => {
        const worst = spots.reduce((at, spot, i) => ((spot.value ?? 0) > (spots[at]?.value ?? 0) ? i : at), 0)
        const worse = spots.map((spot, i) => (i === worst ? { ...spot, value: (spot.value ?? 0) + more } : spot))
        expect(severity(judge(worse))).toBeGreaterThanOrEqual(severity(judge(spots)))
      }),
      { numRuns: 150 },
    )
  })
  it('all spots worse together never bring a milder one, marks among them', () => {
    const mixed = fc.array(
      fc.oneof(
        round(0.05).map((spots) => spots[0]!),
        marks,
      ),
      { minLength: 1, maxLength: 4 },
    )
    fc.assert(
      fc.property(mixed, fc.double({ min: 0, max: 0.3, noNaN: true }), (spots, more) => {
        const worse = spots.map(({ value: at, over, under, u }): VerdictSpot => ({
          u,
          ...(at === undefined ? {} : { value: at + more }),
          ...(over === undefined ? {} : { over: over + more }),
          ...(under === undefined ? {} : { under: under + more }),
        }))
        const before = judge(spots)
        const after = judge(worse)
        expect(after.probabilityOver ?? 0).toBeGreaterThanOrEqual((before.probabilityOver ?? 0) - 0.002)
      }),
      { numRuns: 60 },
    )
  })
  it('a stricter rule never brings a milder one', () => {
    fc.assert(
      fc.property(
        round(0.05),
        fc.double({ min: 0.3, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 0.3, noNaN: true }),
        (spots, limit, less) => {
          const ruleAt = (change: number): HouseRule => ({
            ...bySpeeds,
            limits: { ...bySpeeds.limits, 'derailleur-11-up': { change } },
          })
          const lenient = severity(judge(spots, { rule: ruleAt(limit) }))
          expect(severity(judge(spots, { rule: ruleAt(Math.max(0.2, limit - less)) }))).toBeGreaterThanOrEqual(lenient)
        },
      ),
      { numRuns: 150 },
    )
  })
  it('the order of the spots changes nothing', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            round(0.05).map((spots) => spots[0]!),
            marks,
          ),
          { minLength: 2, maxLength: 5 },
        ),
        (spots) => {
          const there = judge(spots)
          const back = judge([...spots].reverse())
          expect(back.word).toBe(there.word)
          expect(back.probabilityOver).toBeCloseTo(there.probabilityOver ?? 0, 9)
          expect(back.median).toBeCloseTo(there.median ?? 0, 4)
        },
      ),
      { numRuns: 60 },
    )
  })
  it('the same spots are judged the same by one instrument’s shared bias as by none, when it is none', () => {
    const spots = [0.41, 0.45, 0.43].map((one) => ({ value: one, u: 0.05 }))
    const shared = judge(spots, {
      readings: [
        {
          id: 'r',
          occurredAt: 0,
          chainKm: 900,
          source: 'shop',
          instrument: { id: 'i', kind: 'digital', biasU: 1e-6 },
          spots,
        },
      ],
    })
    expect(shared.probabilityOver).toBeCloseTo(judge(spots).probabilityOver ?? 0, 4)
  })
})

describe('measuring again', () => {
  const taken = (id: string, hours: number, values: number[], u: number, instrument = 'i'): VerdictReading => ({
    id,
    occurredAt: hours * 3_600_000,
    chainKm: 900,
    source: 'shop',
    instrument: { id: instrument, kind: 'digital', biasU: 0 },
    spots: values.map((one) => ({ value: one, u })),
  })
  it('with a better instrument can clear a doubt, either way', () => {
    const doubtful = taken('first', 0, [0.46, 0.47, 0.45], 0.08)
    const better = [{ id: 'fine', kind: 'digital' as const, u: 0.03, inDate: true }]
    expect(judge([], { readings: [doubtful], instruments: better }).word).toBe('measure-again')
    const sound = judge([], {
      readings: [doubtful, taken('second', 1, [0.3, 0.31, 0.32], 0.03, 'fine')],
      instruments: better,
    })
    expect(sound.word).toBe('keep-riding')
    const worn = judge([], {
      readings: [doubtful, taken('second', 1, [0.56, 0.57, 0.55], 0.03, 'fine')],
      instruments: better,
    })
    expect(worn.word).toBe('change')
  })
  it('is asked for once at a visit only', () => {
    const better = [{ id: 'fine', kind: 'digital' as const, u: 0.01, inDate: true }]
    const twice = [taken('first', 0, [0.47, 0.48, 0.46], 0.08), taken('second', 1, [0.48, 0.47, 0.46], 0.08, 'j')]
    expect(judge([], { readings: twice, instruments: better }).word).not.toBe('measure-again')
  })
})

describe('every verdict', () => {
  it('is reached by some chain', () => {
    const said = new Set<VerdictWord>([
      judge([], { readings: [] }).word,
      judge([], { readings: [], chain: { kmSinceFittedNew: 20 } }).word,
      judge([{ value: 0.5, u: 0.05 }]).word,
      judge([0.2, 0.21, 0.2].map((one) => ({ value: one, u: 0.03 }))).word,
      judge([0.44, 0.43, 0.44].map((one) => ({ value: one, u: 0.03 }))).word,
      judge([0.8, 0.81, 0.8].map((one) => ({ value: one, u: 0.03 }))).word,
    ])
    expect([...said].sort()).toEqual(
      ['measure-it', 'not-measured-yet', 'measure-again', 'keep-riding', 'closing-in', 'change'].sort(),
    )
  })
})

describe('a million readings at random', () => {
  it('never throw, and are a number or a reason', () => {
    const generator = xoroshiro128plus(42)
    const next = (below: number): number => (generator.next() >>> 0) % below
    const alphabet = '0123456789.,/ +-inmpoed%"x'
    const typed = (): string => Array.from({ length: next(9) }, () => alphabet[next(alphabet.length)]).join('')
    let read = 0
    for (let i = 0; i < 1_000_000; i++) {
      const kind = INSTRUMENT_KINDS[next(INSTRUMENT_KINDS.length)]!
      const result = observeSpot({
        record: { kind, uMm: null, u: null, bias: 0, biasU: 0, marks: [0.5, 0.75], material: null, rollerMm: null },
        entry: { typed: typed(), pitches: next(40) },
        assumed: DEFAULTS,
      })
      if (!result.ok) continue
      read++
      const { value: at, over, under } = result.observed
      if (!Number.isFinite(at ?? over ?? under)) throw new Error('no number')
    }
    expect(read).toBeGreaterThan(1_000)
  }, 60_000)
})
