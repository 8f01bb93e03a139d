import { describe, expect, it } from 'vitest'
import { assumptionsWith, learnedMinutes, timesAsLearned, type PotStay } from '../index.ts'

const { pot } = assumptionsWith({})
const stays = (step: PotStay['step'], ...minutes: number[]): PotStay[] => minutes.map((one) => ({ step, minutes: one }))

describe('minutes learned from sessions that were done', () => {
  it('are the middle of what was seen, with its spread, once there are enough', () => {
    const [found] = learnedMinutes(stays('soak-and-hang', 14, 15, 16, 15, 18, 15), pot)
    expect(found).toEqual({ step: 'soak-and-hang', minutes: 15, from: 15, to: 17, stays: 6, assumed: 12 })
    expect(learnedMinutes(stays('soak-and-hang', 14, 15), pot)).toEqual([])
  })
  it('leave out what nobody believes: pressed late over lunch, or twice in a row', () => {
    const [found] = learnedMinutes(stays('hang', 30, 31, 29, 30, 30, 900, 1), pot)
    expect(found).toMatchObject({ minutes: 30, stays: 5 })
  })
  it('are planned by in the place of what is assumed, and nothing else is touched', () => {
    const learned = learnedMinutes(
      [...stays('strip', 33, 33, 34, 33, 33), ...stays('cool-draw', 31, 31, 31, 31, 31)],
      pot,
    )
    const times = timesAsLearned(pot, learned)
    expect(times.stripMinutes).toBe(33)
    expect(times['cool-draw']).toEqual({ ...pot['cool-draw'], minutes: 31 })
    expect({ ...times, stripMinutes: pot.stripMinutes, 'cool-draw': pot['cool-draw'] }).toEqual(pot)
    expect(timesAsLearned(pot, [])).toEqual(pot)
  })
  it('learnFrom: how many are enough is the shop’s to say, and none at all learns nothing', () => {
    const seen = stays('bubble-out', 9, 9, 9)
    expect(learnedMinutes(seen, { ...pot, learnFrom: 3 })).toHaveLength(1)
    expect(learnedMinutes(seen, { ...pot, learnFrom: 4 })).toHaveLength(0)
    expect(
      learnedMinutes(stays('bubble-out', ...Array.from({ length: 50 }, () => 9)), { ...pot, learnFrom: 0 }),
    ).toEqual([])
  })
  it('never come of a stay that ends before it begins', () => {
    expect(() => learnedMinutes(stays('hang', -1), pot)).toThrow(RangeError)
  })
})
