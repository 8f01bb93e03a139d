import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { fittingAt, joinTimelines, type EnteredFitting } from './joinTimelines.ts'

const DAY = 86_400_000
const on = (
  id: string,
  from: number,
  to: number | null,
  start: EnteredFitting['start'] = 'unknown',
): EnteredFitting => ({
  ...{ id, chainId: `chain ${id}`, from: from * DAY, to: to === null ? null : to * DAY, start },
})
const said = (entered: EnteredFitting[]) =>
  joinTimelines(entered).map(({ id, from, to, sameAs }) => [id, from / DAY, to === null ? null : to / DAY, sameAs])

describe('two entries of one bike', () => {
  it('have the same chain on where both name one, from the earlier on', () => {
    expect(said([on('new', 30, null), on('old', 0, null, 'fitted')])).toEqual([['old', 0, null, ['new']]])
  })
  it('have another from when one was put on new, whichever entry says so', () => {
    expect(said([on('old', 0, null), on('new', 30, null, 'fitted')])).toEqual([
      ['old', 0, 30, []],
      ['new', 30, null, []],
    ])
  })
  it('have one new chain where both say it was put on within a day or so', () => {
    expect(said([on('a', 10, null, 'fitted'), on('b', 11, null, 'fitted')])).toEqual([['a', 10, null, ['b']]])
  })
  it('have a chain off from when one of them knows it came off', () => {
    expect(said([on('a', 0, null), on('b', 5, 20), on('c', 20, null, 'fitted')])).toEqual([
      ['a', 0, 20, ['b']],
      ['c', 20, null, []],
    ])
  })
  it('never have two on at a time, and lose none', () => {
    const fitting = fc.record({
      from: fc.integer({ min: 0, max: 60 }),
      long: fc.option(fc.integer({ min: 1, max: 40 }), { nil: null }),
      start: fc.constantFrom('fitted' as const, 'stated' as const, 'unknown' as const),
    })
    fc.assert(
      fc.property(fc.array(fitting, { minLength: 1, maxLength: 8 }), (drawn) => {
        const entered = drawn.map(({ from, long, start }, i) =>
          on(String(i), from, long === null ? null : from + long, start),
        )
        const joined = joinTimelines(entered)
        expect(joined.flatMap(({ id, sameAs }) => [id, ...sameAs]).sort()).toEqual(entered.map(({ id }) => id).sort())
        for (const [i, { to }] of joined.entries())
          if (joined[i + 1]) expect(to).toBeLessThanOrEqual(joined[i + 1]!.from)
      }),
    )
  })
  it('have what was recorded at a time about the chain that was on then, else the nearest', () => {
    const joined = joinTimelines([on('a', 0, 10), on('b', 20, null, 'fitted')])
    expect([5, 12, 18, 25, -3].map((day) => fittingAt(joined, day * DAY)?.id)).toEqual(['a', 'a', 'b', 'b', 'a'])
  })
})
