import i18next from 'i18next'
import { beforeAll, describe, expect, it } from 'vitest'
import type { JudgedChain } from '@pelrin/contract'
import { placeText, ruledText } from './partAnswer.ts'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const chain = (name: string, more: Partial<JudgedChain['part']>, rules: JudgedChain['rules'] = []): JudgedChain =>
  ({
    part: { id: name, maker: 'Varrow', name, level: null, stock: 1, price: 3000, ...more },
    outcome: rules[0]?.outcome ?? 'fits',
    rules: [...rules, { rule: 'speeds', outcome: 'fits', reason: 'speeds-fit' }],
  }) as unknown as JudgedChain
const t = i18next.t

describe('why a part stands where it does', () => {
  it('is what its rules say together, in one sentence', () => {
    expect(ruledText(chain('A', {}), t)).toBe('Fits: none of 1 rules speaks against it.')
    const minded = { rule: 'motor', outcome: 'caution', reason: 'motor-not-rated' } as const
    expect(ruledText(chain('A', {}, [minded]), t)).toBe('May be fitted, with one thing to mind.')
    const out = { rule: 'speeds', outcome: 'does-not-fit', reason: 'speeds-alone', values: { speeds: 11 } } as const
    expect(ruledText(chain('A', {}, [out]), t)).toMatch(/^Does not fit: \S+/)
  })
  it('and by what it stands before the next, or after the first', () => {
    const chains = [
      chain('Own', { level: 'two', price: 9000 }),
      chain('Cheap', { price: 2000 }),
      chain('Gone', { stock: 0 }),
    ]
    const drive = { level: 'two' }
    expect(placeText(drive, chains[0]!, chains, t)).toBe(
      'Before Varrow Cheap because it is of the drivetrain’s own level.',
    )
    expect(placeText(drive, chains[2]!, chains.slice(1), t)).toBe('After Varrow Cheap, which is here.')
    expect(placeText(drive, chains[0]!, chains.slice(0, 1), t)).toBe('')
  })
})
