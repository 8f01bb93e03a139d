import { describe, expect, it } from 'vitest'
import { ASSUMPTIONS } from '../assumptions.ts'
import { minutesAfter, minutesByDay } from './minutesByDay.ts'

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

describe('what each weekday takes once the shop is open otherwise', () => {
  const week = [whole, whole, null, whole, whole, { from: '09:00', to: '13:15' }, null]
  const minutes = [600, 600, 0, 600, 300, 300, 0]
  const after = (opening: typeof week, stands: number) =>
    Object.values(minutesAfter({ opening: week, stands: 2 }, { opening, stands }, minutes, 10_000))
  it('is the same where nothing is otherwise, whatever somebody set by hand', () => {
    expect(after(week, 2)).toEqual(minutes)
  })
  it('follows the hours of each day, and the number of stands', () => {
    expect(after(week, 3)).toEqual([900, 900, 0, 900, 450, 450, 0])
    expect(after([{ from: '09:00', to: '13:15' }, null, whole, whole, whole, null, null], 2)).toEqual([
      300, 0, 600, 600, 300, 0, 0,
    ])
  })
  it('is never more than a day may take', () => {
    const most = Object.values(
      minutesAfter({ opening: week, stands: 1 }, { opening: week, stands: 40 }, minutes, 10_000),
    )
    expect(Math.max(...most)).toBe(10_000)
  })
})
