import { describe, expect, it } from 'vitest'
import { jobCost } from '../index.ts'

describe('what a job costs', () => {
  it('is its minutes at the shop’s hour and its parts, without a fraction of its least coin', () => {
    const parts = [
      { price: 3790, quantity: 2 },
      { price: 425, quantity: 1 },
    ]
    expect(jobCost({ minutes: 25, hourPrice: 4800, parts })).toEqual({ labour: 2000, parts: 8005, total: 10_005 })
    expect(jobCost({ minutes: 0, hourPrice: 48, parts: [] })).toEqual({ labour: 0, parts: 0, total: 0 })
  })
  it('has no total where a price is missing, and its labour all the same', () => {
    const parts = [{ price: null, quantity: 1 }]
    expect(jobCost({ minutes: 30, hourPrice: 50, parts })).toEqual({ labour: 25, parts: null, total: null })
  })
  it('is refused for less than no time', () => {
    expect(() => jobCost({ minutes: -1, hourPrice: 48, parts: [] })).toThrow(RangeError)
  })
})
