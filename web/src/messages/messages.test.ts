import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import {
  ACTS_ON,
  DEFAULTS,
  ASSUMPTIONS,
  CHAIN_RULES,
  chainVerdict,
  checkInstrument,
  DRIVE_CLASSES,
  growthSinceNew,
  HAND_SIGNS,
  fieldsOf,
  INSTRUMENT_KINDS,
  JOB_OUTCOMES,
  JOB_REASONS,
  JOINT_RULES,
  leftExplained,
  LENGTH_SCHOOLS,
  nextExplained,
  observeSpot,
  PART_KINDS,
  RULE_MATERIALS,
  SHIPPED_RULES,
  STEPS,
  CARE_STEPS,
  CLEANINGS,
  HAZARDS,
  HEATING,
  TOOLS,
  WAXING,
  spanObservation,
  type Explanation,
  type ForecastToExplain,
} from '@pelrin/core'
import { DecisionKind, GaugeState, InstrumentKind, VerdictFlag, VerdictWord } from '@pelrin/contract'
import { en } from './en.ts'

const has = (path: string): boolean => {
  let at: unknown = en
  for (const part of path.split('.')) at = (at as Record<string, unknown> | undefined)?.[part]
  return typeof at === 'string'
}

/** Every reason a rule of parts can give, as its source names it. */
function partReasons(): string[] {
  const folder = join(import.meta.dirname, '../../../core/src/parts')
  const text = ['chainRules.ts', 'jointRules.ts'].map((file) => readFileSync(join(folder, file), 'utf8')).join('\n')
  const named = [
    ...text.matchAll(
      /'((?:speeds|width|profile|rollers|system|motor|length|worn|kind|joint|re-press|reuse|ends|pin)-[\w-]+)'/g,
    ),
  ]
    .map((match) => match[1] ?? '')
    .filter((one) => !ids.includes(one) && !wantedFacts.includes(one))
  const made = ['profile', 'rollers'].flatMap((key) =>
    ['ordinary', 'special', 'unknown', 'only-special', 'wants-special'].map((end) => `${key}-${end}`),
  )
  return [...new Set([...named, ...made, ...['link', 'pin', 'clip', 're-press'].map((kind) => `kind-${kind}`)])]
}
const ids: readonly string[] = [...CHAIN_RULES, ...JOINT_RULES]
  .map(({ id }) => id)
  .filter((id) => !/^(worn-sprockets|pin-and-wax)$/.test(id))
const wantedFacts: readonly string[] = ['inner-width', 'ring-width', 'outer-width']

describe('the message catalogue', () => {
  it('has a sentence for every reason a rule of parts gives, and a name for every rule', () => {
    const reasons = partReasons()
    expect(reasons.length).toBeGreaterThan(55)
    expect(reasons.filter((reason) => !has(`parts.reason.${reason}`))).toEqual([])
    for (const { id } of [...CHAIN_RULES, ...JOINT_RULES]) expect(has(`parts.rule.${id}`), id).toBe(true)
    for (const school of LENGTH_SCHOOLS) expect(has(`parts.schoolOf.${school}`), school).toBe(true)
  })
  it('has words for every step of a job, its cautions, tools and outcomes', () => {
    for (const { id, checked } of [...STEPS, ...CARE_STEPS, HEATING, ...WAXING]) {
      for (const part of ['what', 'why', ...(checked ? ['check'] : [])])
        expect(has(`steps.${id}.${part}`), `${id} ${part}`).toBe(true)
    }
    for (const hazard of HAZARDS) expect(has(`jobs.hazard.${hazard}`), hazard).toBe(true)
    for (const tool of TOOLS) expect(has(`jobs.tool.${tool}`), tool).toBe(true)
    for (const one of CLEANINGS) expect(has(`caring.cleaningFor.${one}`), one).toBe(true)
    for (const outcome of JOB_OUTCOMES) expect(has(`jobs.outcome.${outcome}`), outcome).toBe(true)
    for (const reason of JOB_REASONS) expect(has(`jobs.reason.${reason}`), reason).toBe(true)
  })
  it('has a name for every field a part can have, and for every choice of it', () => {
    for (const kind of PART_KINDS) {
      expect(has(`catalogue.kind.${kind}`), kind).toBe(true)
      for (const { key, input } of fieldsOf(kind)) {
        expect(has(`catalogue.field.${key}`), key).toBe(true)
        if (input.kind === 'choice' || input.kind === 'choices')
          for (const choice of input.choices) expect(has(`catalogue.choice.${choice}`), choice).toBe(true)
      }
    }
  })
  it('has a word for everything the core can say', () => {
    for (const word of VerdictWord.options) expect(has(`word.${word}`), word).toBe(true)
    for (const flag of VerdictFlag.options) expect(has(`flag.${flag}`), flag).toBe(true)
    for (const kind of InstrumentKind.options) expect(has(`instrument.${kind}`), kind).toBe(true)
    for (const { school } of SHIPPED_RULES) expect(has(`school.${school}`), school).toBe(true)
  })
  it('has a meaning for every value that is assumed, and a word for every kind of thing there is', () => {
    for (const { key, unit } of ASSUMPTIONS) {
      expect(has(`rules.group.${key.split('.')[0]}`), key).toBe(true)
      expect(has(`assumed.${key.replaceAll('.', '-')}`), key).toBe(true)
      expect(has(`rules.unit.${unit}`), unit).toBe(true)
    }
    for (const on of ACTS_ON) expect(has(`rules.actsOn.${on}`), on).toBe(true)
    for (const kind of INSTRUMENT_KINDS)
      for (const path of ['measure.hint', 'measure.waiting'])
        expect(has(`${path}.${kind}`), `${path} ${kind}`).toBe(true)
    for (const kind of INSTRUMENT_KINDS)
      for (const path of ['measure.trap', 'measure.howTo']) expect(has(`${path}.${kind}.1`), kind).toBe(true)
    for (const material of RULE_MATERIALS) expect(has(`material.${material}`)).toBe(true)
    for (const sign of HAND_SIGNS) expect(has(`measure.sign.${sign}`)).toBe(true)
    for (const one of DRIVE_CLASSES) expect(has(`driveClass.${one}`)).toBe(true)
    for (const one of DecisionKind.options) expect(has(`bike.decision.${one}`)).toBe(true)
    for (const state of GaugeState.options) expect(has(`gauge.state.${state}`)).toBe(true)
  })
  it('explains every rule and input the core explains by', () => {
    const rule = { ...SHIPPED_RULES[2], id: 'r', version: 1 }
    const explanations: Explanation[] = []
    for (const values of [[], [0.2], [0.6, 0.61], [0.72], [0.8, 0.81, 0.79], [1.3, 1.3, 1.3]])
      for (const overAhead of [null, 0.2, 0.9]) {
        const verdict = chainVerdict({
          assumptions: {},
          readings: [
            {
              id: 'x',
              occurredAt: 0,
              chainKm: null,
              source: 'shop',
              instrument: { id: 'i', kind: 'digital', biasU: 0 },
              spots: values.map((value) => ({ value, u: 0.05 })),
            },
            {
              id: 'y',
              occurredAt: 0,
              chainKm: null,
              source: 'shop',
              instrument: { id: 'g', kind: 'drop-in', biasU: 0 },
              spots: values.length === 1 ? [{ over: 0.1, under: 2, u: 0.05 }] : [],
            },
          ],
          drive: { type: 'derailleur', speeds: 9 },
          rule,
          chain: { kmSinceFittedNew: overAhead === null ? null : 20 },
          instruments: [],
          forecast: overAhead === null ? null : { overNow: 0.1, overAhead },
        })
        explanations.push(...verdict.steps)
      }
    for (const pitches of [15, 16])
      for (const bias of [0, 0.02]) {
        const seen = spanObservation({ lengthMm: pitches * 12.75, pitches, uMm: 0.25, bias })
        explanations.push(seen.explanation, seen.uExplanation)
      }
    const record = { uMm: null, u: null, bias: 0.01, biasU: 0, marks: [0.5, 0.75], material: null, rollerMm: null }
    for (const [kind, typed, more] of [
      ['steel-rule', '204.6', {}],
      ['caliper', '196.9', { mode: 'inside-rollers' }],
      ['caliper', '212.4', { mode: 'outside-rollers' }],
      ['drop-in', 'io', {}],
      ['swing-arm', 'end', {}],
      ['graduated', '0.5', {}],
      ['digital', '0.5', {}],
    ] as const) {
      const seen = observeSpot({
        record: { ...record, kind, u: kind === 'digital' ? 0.02 : null },
        entry: { typed, pitches: 16, ...more },
        taken: { ruleCelsius: 5, chainCelsius: 10 },
        assumed: DEFAULTS,
      })
      if (!seen.ok) throw new Error(`${kind}: ${seen.problem}`)
      explanations.push(...seen.observed.explanations)
    }
    for (const [kind, typed] of [
      ['digital', '0.5'],
      ['drop-in', 'io'],
    ] as const) {
      const checked = checkInstrument({
        record: { ...record, kind },
        pairs: [0.4, 0.6, 0.9].map((reference, i) => ({
          reference,
          typed: kind === 'digital' ? typed : (['oo', 'io', 'ii'][i] ?? ''),
        })),
        referenceU: 0.01,
        assumed: DEFAULTS,
      })
      if (!checked.ok) throw new Error(checked.problem)
      explanations.push(checked.outcome.explanation, checked.outcome.uExplanation)
    }
    const whole = { lengthMm: 1448, pitches: 114, preloadKg: 2 }
    explanations.push(growthSinceNew({ now: whole, whenNew: whole, material: 'steel', uMm: 0.8 }).explanation)
    for (const [kmPerDay, sNow, kmLeft, days] of [
      [10, 2, 900, 42],
      [10, 2, 0, 42],
      [2, 2, 900, 120],
      [20, 2, 900, 7.5],
      [0, 2, 900, 45],
      [10, 2, 900, 20],
      [10, 0, 900, 80],
    ] as const) {
      const next = { s: sNow === 0 ? 1 : 2.5, km: 10 * days, days }
      const forecast = { sNow, crossing: [2, 3, 4], kmLeft: [0, kmLeft, 2000], limit: 0.5, next }
      const life = { at: 0, usualFactor: 1.2, care: 'dry-oil', rate: { kmPerDay } }
      const told = { forecast, life, readings: 2, wearNow: 0.2 } as unknown as ForecastToExplain
      explanations.push(leftExplained(told, 0), nextExplained(told, DEFAULTS))
    }
    expect(new Set(explanations.map((one) => one.rule)).size).toBeGreaterThan(25)
    for (const { rule: name, inputs, result } of explanations) {
      expect(has(`why.rule.${name}`), name).toBe(true)
      for (const input of inputs) {
        expect(has(`why.meaning.${input.meaning}`), input.meaning).toBe(true)
        if (typeof input.value === 'string') expect(has(`why.value.${input.value}`), input.value).toBe(true)
      }
      if (typeof result.value === 'string')
        expect(has(`why.value.${result.value}`) || has(`word.${result.value}`), result.value).toBe(true)
    }
  })
})
