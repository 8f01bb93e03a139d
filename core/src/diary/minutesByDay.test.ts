import { describe, expect, it } from 'vitest'
import { ASSUMPTIONS } from '../assumptions.ts'
import { minutesByDay } from './minutesByDay.ts'

const whole = { from: '09:00', to: '17:30' }

describe('what each weekday takes', () => {
  it('is its share of a whole day, and nothing where the door stays shut', () => {
    const week = minutesByDay([whole, whole, null, whole, whole, { from: '09:00', to: '13:15' }, null], 600)
    expect(Object.values(week)).toEqual([600, 600, 0, 600, 600, 300, 0])
    for (const key of Object.keys(week)) expect(ASSUMPTIONS.some((one) => one.key === key)).toBe(true)
  })
  it('is nothing in a shop that never opens', () => {
    expect(
      Object.values(
        minutesByDay(
          Array.from({ length: 7 }, () => null),
          600,
        ),
      ),
    ).toEqual([0, 0, 0, 0, 0, 0, 0])
  })
})
