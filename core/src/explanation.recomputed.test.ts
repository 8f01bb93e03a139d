import { runInNewContext } from 'node:vm'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  careExplained,
  chainVerdict,
  checkInstrument,
  DEFAULTS,
  derailleurLengthExplained,
  explainedOdometerDistance,
  explainedSurfaceKm,
  growthSinceNew,
  INSTRUMENT_KINDS,
  lengthSchools,
  observeSpot,
  RULE_MATERIALS,
  SHIPPED_RULES,
  SURFACES,
  type Explanation,
  type LengthDrive,
} from './index.ts'
import { normalCumulative } from './numerics/normal.ts'

/** Signs of formulas as they are printed, and as they are computed. */
const SIGNS: Readonly<Record<string, string>> = {
  '×': '*',
  '·': '*',
  '−': '-',
  '²': '**2',
  '⁻⁶': '**-6',
  '√': 'sqrt',
  Φ: 'phi',
  max: 'max',
  '≥': '>=',
  '≤': '<=',
  '∨': '||',
  '∧': '&&',
  '⌈': 'ceil(',
  '⌉': ')',
  π: 'PI',
}
const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\]/gu, '\\$&')

/** What an explanation's formula gives, from the very inputs it shows; undefined where it is no formula to compute. */
function recomputed({ formula, inputs }: Explanation): number | boolean | undefined {
  if (formula === undefined || /~/u.test(formula)) return undefined
  // Of a mark, the bound it sets.
  const expression = formula.replace(/^(?:[^=<>≥≤]+ =|ε [<>]) /u, '')
  const names = inputs.map(({ symbol }) => symbol)
  const tokens = [...names, ...Object.keys(SIGNS)].sort((a, b) => b.length - a.length).map(escaped)
  const code = expression
    .replace(/(\S+) < (\S+) < (\S+)/u, '$1 < $2 && $2 < $3')
    .replace(new RegExp(tokens.join('|'), 'gu'), (token) =>
      names.includes(token) ? `v[${names.indexOf(token)}]` : SIGNS[token]!,
    )
  const v = inputs.map(({ value }) => value)
  return runInNewContext(code, {
    v,
    sqrt: Math.sqrt,
    max: Math.max,
    ceil: Math.ceil,
    cos: Math.cos,
    PI: Math.PI,
    phi: normalCumulative,
  }) as number | boolean
}

/** Explanations that do not give what they say. */
const amiss = (explanations: readonly Explanation[]): readonly string[] =>
  explanations.flatMap((one) => {
    const gives = recomputed(one)
    const { value } = one.result
    if (gives === undefined) return []
    const agrees =
      typeof gives === 'boolean'
        ? typeof value === 'number' || gives === (value === 'applies' || value === 'not-measured-yet')
        : Math.abs(gives - Number(value)) < 1e-9 * Math.max(1, Math.abs(Number(value)))
    return agrees
      ? []
      : [`${one.rule}: ${one.formula} gives ${String(gives)}, not ${value}: ${JSON.stringify(one.inputs)}`]
  })

const typed = fc.oneof(
  fc.integer({ min: 1990, max: 2080 }).map((tenths) => String(tenths / 10)),
  fc.constantFrom('8 1/32', '12 3/32', '0.5', '0.65', '0.6-0.65', 'io', 'po', 'oo', 'ii', 'end', '0.42', '12in'),
)
const taken = fc.record({
  load: fc.constantFrom('tensioned' as const, 'slack' as const),
  ruleCelsius: fc.integer({ min: -5, max: 35 }),
  chainCelsius: fc.integer({ min: -5, max: 35 }),
})

describe('every line of an explanation follows from what it shows', () => {
  it('of a spot, by any instrument, however it was taken', () => {
    let told = 0
    fc.assert(
      fc.property(
        fc.constantFrom(...INSTRUMENT_KINDS),
        typed,
        fc.integer({ min: 14, max: 25 }),
        fc.double({ min: -0.2, max: 0.2, noNaN: true }),
        fc.constantFrom('pin-to-pin' as const, 'inside-rollers' as const, 'outside-rollers' as const),
        fc.constantFrom(null, ...RULE_MATERIALS),
        taken,
        (kind, text, pitches, bias, mode, material, how) => {
          const seen = observeSpot({
            record: { kind, uMm: null, u: null, bias, biasU: 0.02, marks: [0.5, 0.75], material, rollerMm: null },
            entry: { typed: text, pitches, mode },
            taken: how,
            assumed: DEFAULTS,
          })
          if (!seen.ok) return
          told += seen.observed.explanations.length
          expect(amiss(seen.observed.explanations)).toEqual([])
        },
      ),
      { numRuns: 3000 },
    )
    expect(told).toBeGreaterThan(400)
  })
  it('of a length, by the derailleur’s loop', () => {
    let told = 0
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 52 }),
        fc.integer({ min: 11, max: 52 }),
        fc.integer({ min: 400, max: 480 }),
        fc.option(fc.integer({ min: 0, max: 6 })),
        fc.option(fc.constantFrom([11, 11], [12, 14], [14, 14])),
        (ring, sprocket, chainstayMm, statedAdd, pulleys) => {
          const drive: LengthDrive = {
            type: 'derailleur',
            fronts: [ring],
            sprockets: [10, sprocket],
            chainstayMm,
            suspension: 'full',
            growthMm: 4,
            statedAdd,
            pulleys,
            pulleysCounted: false,
            capacityTeeth: null,
            largestSprocketTeeth: null,
          }
          const explained = derailleurLengthExplained(drive, DEFAULTS)
          told += explained.length
          expect(amiss(explained)).toEqual([])
          expect(explained[0]!.result.value).toBe(lengthSchools(drive, null, DEFAULTS)[0]!.pitches)
        },
      ),
    )
    expect(told).toBeGreaterThan(150)
  })
  it('of a treatment that falls due', () => {
    for (const because of ['distance', 'first-care', 'days', 'wash', 'squeak', 'never-treated'] as const) {
      const told = careExplained(
        { because, interval: { km: 180, days: 45 }, usedKm: 61.5, usedDays: 12 },
        DEFAULTS.care,
      )
      expect(amiss([told])).toEqual([])
    }
  })
  it('of a whole chain’s growth, and of its distance', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1440, max: 1470 }), taken, fc.boolean(), (lengthMm, how, warm) => {
        const whenNew = {
          lengthMm: 1448,
          pitches: 114,
          preloadKg: 2,
          ...(warm ? { ruleCelsius: 20, chainCelsius: 20 } : {}),
        }
        const { load: _, ...degrees } = how
        const now = { lengthMm, pitches: 114, preloadKg: 2, ...(warm ? degrees : {}) }
        expect(amiss([growthSinceNew({ now, whenNew, material: 'aluminium', uMm: 0.8 }).explanation])).toEqual([])
      }),
    )
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 900 }), { minLength: SURFACES.length + 1, maxLength: 8 }),
        (km) => {
          const [indoor = 0, dry = 0, damp = 0, wet = 0, gritty = 0, unknown = 0] = km
          expect(amiss([explainedSurfaceKm({ indoor, dry, damp, wet, gritty, unknown })])).toEqual([])
          const values = km.map((one, i) => ({ at: i * 100, km: 1000 + one, restarted: false }))
          const explained = explainedOdometerDistance(values, 0, 100 * km.length)
          if (explained) expect(amiss([explained.explanation])).toEqual([])
        },
      ),
    )
  })
  it('of an instrument’s check', () => {
    const pair = fc.record({ reference: fc.integer({ min: 20, max: 100 }), off: fc.integer({ min: -9, max: 9 }) })
    fc.assert(
      fc.property(fc.array(pair, { minLength: 1, maxLength: 6 }), (pairs) => {
        const checked = checkInstrument({
          record: {
            kind: 'digital',
            uMm: null,
            u: null,
            bias: 0.03,
            biasU: 0,
            marks: null,
            material: null,
            rollerMm: null,
          },
          pairs: pairs.map(({ reference, off }) => ({
            reference: reference / 100,
            typed: ((reference + off) / 100).toFixed(2),
          })),
          referenceU: 0.01,
          assumed: DEFAULTS,
        })
        if (!checked.ok) throw new Error(checked.problem)
        const { explanation, uExplanation } = checked.outcome
        expect(amiss([explanation, uExplanation])).toEqual([])
        expect([recomputed(explanation), recomputed(uExplanation)]).not.toContain(undefined)
      }),
    )
  })
  it('of a verdict: each step’s condition holds just where it decided', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1.1, noNaN: true }), { minLength: 0, maxLength: 5 }),
        fc.constantFrom(0.03, 0.08, 0.12),
        fc.constantFrom(...SHIPPED_RULES),
        fc.option(
          fc.record({
            overNow: fc.double({ min: 0, max: 1, noNaN: true }),
            overAhead: fc.double({ min: 0, max: 1, noNaN: true }),
          }),
        ),
        fc.option(fc.integer({ min: 0, max: 400 })),
        (values, u, rule, forecast, km) => {
          const verdict = chainVerdict({
            readings:
              values.length === 0
                ? []
                : [
                    {
                      id: 'r',
                      occurredAt: 0,
                      chainKm: 500,
                      source: 'shop',
                      instrument: { id: 'i', kind: 'digital', biasU: 0 },
                      spots: values.map((value) => ({ value, u })),
                    },
                  ],
            drive: { type: 'derailleur', speeds: 11 },
            rule: { ...rule, id: 'rule', version: 1 },
            chain: { kmSinceFittedNew: km },
            instruments: [],
            assumptions: {},
            forecast,
          })
          expect(amiss(verdict.steps)).toEqual([])
        },
      ),
      { numRuns: 400 },
    )
  })
})
