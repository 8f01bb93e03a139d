import { describe, expect, it } from 'vitest'
import { endpoints, fieldProblems } from '@pelrin/contract'
import { SHOP } from '../../testing/inApp.tsx'
import { codeOf, hoursIn, initialsOf, shopIn, shopTyped, signInNameOf } from './typedShop.ts'

describe('hours as they are typed', () => {
  it.each([
    ['9-17:30', { from: '09:00', to: '17:30' }],
    ['09.00 – 13.00', { from: '09:00', to: '13:00' }],
    ['830 to 1815', { from: '08:30', to: '18:15' }],
    ['  ', null],
  ])('%s', (typed, hours) => expect(hoursIn(typed)).toEqual(hours))
  it('that are none, or end before they begin, are refused at their day', () => {
    const { id: _, version: __, ...settings } = SHOP
    const at = (day: string) =>
      fieldProblems(
        endpoints.changeShop.body,
        shopIn({ ...shopTyped(settings), opening: [day, '', '', '', '', '', ''] }),
      )
    expect(at('in the morning')[0]).toMatchObject({ path: 'opening.0.from', code: 'clock-malformed' })
    expect(at('17-9')).toEqual([{ path: 'opening.0.to', code: 'opening-ends-before' }])
    expect(at('9-17')).toEqual([])
  })
  it('come back as they were', () => {
    const { id: _, version: __, ...settings } = SHOP
    expect(shopIn(shopTyped(settings))).toEqual(settings)
  })
})

describe('names made of names', () => {
  it('leave out what has no place in them', () => {
    expect(codeOf('  Café & Söhne, 2nd Quay ')).toBe('cafe-sohne-2nd-quay')
    expect(initialsOf('Wen de la Harrow-Pike')).toBe('WDL')
    expect(signInNameOf('Élan Quick')).toBe('elan')
  })
})
