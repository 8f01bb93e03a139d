import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { chainVerdict, SHIPPED_RULES, spanObservation, type Explanation } from '@pelrin/core'
import { InstrumentKind, VerdictFlag, VerdictWord } from '@pelrin/contract'
import { en } from './en.ts'

const has = (path: string): boolean => {
  let at: unknown = en
  for (const part of path.split('.')) at = (at as Record<string, unknown> | undefined)?.[part]
  return typeof at === 'string'
}

/** Every key a source names in full, such as t('stand.why'). */
function namedKeys(folder: string): string[] {
  return readdirSync(folder, { withFileTypes: true, recursive: true })
    .filter((entry) => entry.isFile() && entry.name.endsWith('.tsx'))
    .flatMap((entry) => {
      const text = readFileSync(join(entry.parentPath, entry.name), 'utf8')
      return [...text.matchAll(/\bt\(\s*'([a-zA-Z]+(?:\.[\w-]+)+)'/g)].map((match) => match[1] ?? '')
    })
}

describe('the message catalogue', () => {
  it('has every message the screens name', () => {
    const keys = namedKeys(join(import.meta.dirname, '..'))
    expect(keys.length).toBeGreaterThan(80)
    expect(keys.filter((key) => !has(key) && !has(`${key}_other`))).toEqual([])
  })
  it('has a word for everything the core can say', () => {
    for (const word of VerdictWord.options) expect(has(`word.${word}`), word).toBe(true)
    for (const flag of VerdictFlag.options) expect(has(`flag.${flag}`), flag).toBe(true)
    for (const kind of InstrumentKind.options) expect(has(`instrument.${kind}`), kind).toBe(true)
    for (const { school } of SHIPPED_RULES) expect(has(`school.${school}`), school).toBe(true)
  })
  it('explains every rule and input the core explains by', () => {
    const rule = { ...SHIPPED_RULES[2], id: 'r', version: 1 }
    const explanations: Explanation[] = []
    for (const values of [[], [0.2], [0.6, 0.61], [0.72], [0.8, 0.81, 0.79], [1.3, 1.3, 1.3]])
      for (const overAhead of [null, 0.2, 0.9]) {
        const verdict = chainVerdict({
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
    expect(new Set(explanations.map((one) => one.rule)).size).toBeGreaterThan(8)
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
