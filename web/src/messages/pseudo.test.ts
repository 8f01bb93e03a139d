import { describe, expect, it } from 'vitest'
import { en } from './en.ts'
import { pseudo } from './pseudo.ts'

const textsOf = (texts: unknown): string[] =>
  typeof texts === 'string' ? [texts] : Object.values(texts as object).flatMap((one) => textsOf(one))

describe('the language nobody speaks', () => {
  const before = textsOf(en)
  const after = textsOf(pseudo(en))
  it('has every text of the catalogue, each a third longer, with its values in place', () => {
    expect(after).toHaveLength(before.length)
    for (const [i, text] of before.entries()) {
      const values = text.match(/\{\{\w+\}\}/g) ?? []
      expect(after[i]!.match(/\{\{\w+\}\}/g) ?? []).toEqual(values)
      const said = text.replace(/\{\{\w+\}\}/g, '')
      if (said.trim() !== '') expect(after[i]!.length).toBeGreaterThanOrEqual(text.length + 0.3 * said.length)
    }
  })
  it('leaves what is only a value as it is', () => {
    expect(pseudo('{{from}} {{to}}')).toBe('{{from}} {{to}}')
  })
})
