import { describe, expect, it } from 'vitest'
import { aheadOf } from './aheadOf.ts'
import type { ChainVerdict } from './verdictTypes.ts'

const step = (rule: string, inputs: readonly [string, number | string][]) => ({
  rule,
  inputs: inputs.map(([meaning, value]) => ({ symbol: 'x', meaning, value, unit: '%' })),
})
const verdict = (more: object = {}): Parameters<typeof aheadOf>[0] =>
  ({
    word: 'change',
    decidedBy: 'D5',
    probabilityOver: 0.4,
    steps: [
      step('D4', [
        ['forecast-ahead', 0.9],
        ['look-ahead-km', 1],
      ]),
      step('D5', [
        ['over-now', 0.4],
        ['forecast-ahead', 0.6],
        ['look-ahead-km', 500],
      ]),
    ],
    ...more,
  }) as unknown as Pick<ChainVerdict, 'word' | 'decidedBy' | 'probabilityOver' | 'steps'>

describe('a change that rests on what is ahead', () => {
  it('says the chance and how far it looks, of the step that decided', () => {
    expect(aheadOf(verdict())).toEqual({ chance: 0.6, km: 500 })
  })
  it('holds where nothing was measured', () => {
    expect(aheadOf(verdict({ probabilityOver: null }))).toEqual({ chance: 0.6, km: 500 })
  })
  it.each([
    ['another word', { word: 'keep-riding' }],
    ['another step', { decidedBy: 'D3' }],
    ['the readings alone being as sure', { probabilityOver: 0.6 }],
    ['no step that says so', { steps: [] }],
    ['no chance told', { steps: [step('D5', [['look-ahead-km', 500]])] }],
    [
      'a distance that is not known',
      {
        steps: [
          step('D5', [
            ['forecast-ahead', 0.6],
            ['look-ahead-km', 'not-known'],
          ]),
        ],
      },
    ],
  ])('is none with %s', (_, more) => {
    expect(aheadOf(verdict(more))).toBeNull()
  })
})
