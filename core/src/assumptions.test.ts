import { describe, expect, it } from 'vitest'
import {
  assumptionProblem,
  ASSUMPTIONS,
  assumptionsWith,
  chainVerdict,
  DEFAULTS,
  shippedValue,
  SHIPPED_RULES,
} from './index.ts'

/** Every number in a tree, by its path. */
const leaves = (tree: object, path = ''): string[] =>
  Object.entries(tree).flatMap(([key, value]: [string, unknown]) =>
    typeof value === 'number' ? [path + key] : leaves(value as object, `${path}${key}.`),
  )

describe('what is assumed', () => {
  it('is all to be changed by a shop, within a range that holds the shipped value', () => {
    expect(ASSUMPTIONS.map((one) => one.key).sort()).toEqual(leaves(DEFAULTS).sort())
    for (const { key } of ASSUMPTIONS) expect(assumptionProblem(key, shippedValue(key)), key).toBeNull()
  })
  it('says of each by itself what it means, and of no two the same', () => {
    for (const { says, key } of ASSUMPTIONS) expect(says, key).toMatch(/^[A-Z]/)
    expect(new Set(ASSUMPTIONS.map(({ says }) => says)).size).toBe(ASSUMPTIONS.length)
  })
  it('takes a shop’s values in place of the shipped, and leaves out what it cannot take', () => {
    const mine = assumptionsWith({
      'verdict.roundKm': 50,
      'verdict.sprocketMark.floor': 0.9,
      nonsense: 3,
      'verdict.roundDays': -1,
    })
    expect(mine.verdict.roundKm).toBe(50)
    expect(mine.verdict.sprocketMark).toEqual({ ...DEFAULTS.verdict.sprocketMark, floor: 0.9 })
    expect(mine.verdict.roundDays).toBe(DEFAULTS.verdict.roundDays)
    expect(DEFAULTS.verdict.roundKm).toBe(100)
  })
  it('names what is wrong with a value', () => {
    expect(assumptionProblem('nonsense', 1)).toBe('assumption-unknown')
    expect(assumptionProblem('verdict.roundKm', NaN)).toBe('assumption-range')
    expect(assumptionProblem('verdict.roundDays', 2.5)).toBe('assumption-whole')
    expect(() => shippedValue('nonsense')).toThrow(RangeError)
  })
  it('moves a verdict', () => {
    const input = {
      readings: [
        {
          id: 'r',
          occurredAt: 0,
          chainKm: 900,
          source: 'shop' as const,
          instrument: { id: 'i', kind: 'digital' as const, biasU: 0 },
          spots: [0.45, 0.45, 0.45].map((value) => ({ value, u: 0.03 })),
        },
      ],
      drive: { type: 'derailleur' as const, speeds: 11 },
      rule: { ...SHIPPED_RULES[0], id: 'rule', version: 1 },
      chain: { kmSinceFittedNew: null },
      instruments: [],
      assumptions: {},
    }
    expect(chainVerdict(input).word).toBe('closing-in')
    expect(chainVerdict({ ...input, assumptions: { 'verdict.changeAt': 0.2, 'verdict.surelyUnder': 0.05 } }).word).toBe(
      'change',
    )
  })
})
