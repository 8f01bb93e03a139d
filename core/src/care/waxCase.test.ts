import { describe, expect, it } from 'vitest'
import { cleaningForWax, REWAX_SCHOOLS, WAX_CASES, waxCaseOf, type ToWax } from '../index.ts'

const WAXED: ToWax = {
  before: 'immersion-wax',
  treated: true,
  readyWaxed: false,
  washed: false,
  ridden: { wet: 0, gritty: 0 },
}

describe('a chain that goes into the wax', () => {
  it.each([
    ['was never treated', { treated: false }, 'first'],
    ['had oil before', { before: 'wet-oil' as const }, 'first'],
    ['nobody knows', { before: 'unknown' as const }, 'first'],
    ['came waxed out of its box', { treated: false, readyWaxed: true }, 'ready-waxed'],
    ['came waxed, and was waxed here since', { readyWaxed: true }, 'rewax'],
    ['came waxed, and was oiled since', { readyWaxed: true, before: 'dry-oil' as const }, 'first'],
    ['was ridden dry', {}, 'rewax'],
    ['was washed', { washed: true }, 'rewax-wet'],
    ['was ridden wet', { ridden: { wet: 12, gritty: 0 } }, 'rewax-wet'],
    ['was ridden through sand and rain', { ridden: { wet: 12, gritty: 3 } }, 'rewax-gritty'],
  ])('%s: %o is %s', (_, more, is) => {
    expect(waxCaseOf({ ...WAXED, ...more })).toBe(is)
  })
  it('is stripped the first time and never in boiling water alone, whatever the house does', () => {
    for (const school of REWAX_SCHOOLS) expect(cleaningForWax('first', school)).toBe('strip')
  })
  it('loses what it was ridden through before new wax goes over it', () => {
    for (const one of ['rewax-wet', 'rewax-gritty'] as const)
      for (const school of REWAX_SCHOOLS) expect(['boil', 'strip']).toContain(cleaningForWax(one, school))
  })
  it('after dry rides is cleaned as the house has it', () => {
    expect(REWAX_SCHOOLS.map((school) => cleaningForWax('rewax', school))).toEqual(['wipe', 'boil', 'strip'])
    expect(new Set(WAX_CASES).size).toBe(5)
  })
})
