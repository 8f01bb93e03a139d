import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { kindAt, mendOptions, type BrokenChain, type MendOption } from '../index.ts'

const broken = (more: Partial<BrokenChain> = {}): BrokenChain => ({
  pitches: 112,
  broken: 'outer',
  damaged: [0],
  ...more,
})
const best = (chain: BrokenChain, joint: MendOption['joint']) => mendOptions(chain, [joint])[0]!

describe('a broken chain', () => {
  it('with a broken outer link keeps its length by a link, and loses two pitches by a pin', () => {
    expect(best(broken(), 'link')).toMatchObject({ lost: 0, left: 112, joints: 1, runs: [{ from: 0, length: 1 }] })
    expect(best(broken(), 'pin')).toMatchObject({ lost: 2, left: 110, joints: 1, ends: 'one-outer' })
    expect(best(broken(), 're-press')).toMatchObject({ lost: 2, left: 110 })
  })
  it('with a broken inner link loses two by either: its outer neighbours go with it', () => {
    const inner = broken({ broken: 'inner' })
    expect(best(inner, 'link')).toMatchObject({ lost: 2, runs: [{ from: 111, length: 3 }], ends: 'both-inner' })
    expect(best(inner, 'pin').lost).toBe(2)
  })
  it('with damage far apart is mended at each place, or loses all that lies between', () => {
    const options = mendOptions(broken({ damaged: [0, 10] }), ['link'])
    expect(options.map(({ way, joints, lost }) => [way, joints, lost])).toEqual([
      ['each', 2, 0],
      ['one-run', 1, 10],
    ])
  })
  it('with damage side by side loses it in one piece, over the break too', () => {
    expect(best(broken({ damaged: [111, 0, 1] }), 'link')).toMatchObject({ lost: 4, runs: [{ from: 110, length: 5 }] })
    expect(best(broken({ damaged: [0, 2] }), 'link')).toMatchObject({ joints: 1, lost: 2 })
  })
  it('keeps its length with a piece of the same model between two links', () => {
    const options = mendOptions(broken({ broken: 'inner', spare: 3 }), ['link'])
    expect(options[0]).toMatchObject({ lost: 0, joints: 2, inserted: [1] })
    expect(options[1]).toMatchObject({ lost: 2, joints: 1, inserted: [] })
  })
  it('is refused with an odd count, a place that is not on it, or without its break', () => {
    for (const wrong of [{ pitches: 111 }, { damaged: [0, 112] }, { damaged: [4] }, { damaged: [0, 1.5] }])
      expect(() => mendOptions(broken(wrong))).toThrow(RangeError)
  })
})

describe('every way of mending', () => {
  const chain = fc
    .record({
      half: fc.integer({ min: 12, max: 60 }),
      kind: fc.constantFrom('inner' as const, 'outer' as const),
      more: fc.array(fc.nat(200), { maxLength: 5 }),
      spare: fc.nat(12),
    })
    .map(({ half, kind, more, spare }): BrokenChain => {
      const pitches = 2 * half
      return { pitches, broken: kind, damaged: [...new Set([0, ...more.map((one) => one % pitches)])], spare }
    })
  const gone = ({ runs }: MendOption, pitches: number): number[] =>
    runs.flatMap(({ from, length }) => Array.from({ length }, (_, i) => (from + i) % pitches))

  it('takes out all that is damaged, nothing twice, and leaves ends its joint closes', () => {
    fc.assert(
      fc.property(chain, (one) => {
        for (const option of mendOptions(one)) {
          const out = gone(option, one.pitches)
          expect(new Set(out).size).toBe(out.length)
          for (const pitch of one.damaged) expect(out).toContain(pitch)
          for (const { from, length } of option.runs) {
            const before = kindAt(one, (from - 1 + one.pitches) % one.pitches)
            const after = kindAt(one, (from + length) % one.pitches)
            if (option.ends === 'both-inner') expect([before, after]).toEqual(['inner', 'inner'])
            else expect(before).not.toBe(after)
          }
        }
      }),
    )
  })
  it('adds up: what is left and what is lost, and stays even', () => {
    fc.assert(
      fc.property(chain, (one) => {
        for (const option of mendOptions(one)) {
          const put = option.inserted.reduce((sum, piece) => sum + piece, 0)
          const links = option.joint === 'link' ? option.joints : 0
          expect(option.left).toBe(one.pitches - gone(option, one.pitches).length + put + links)
          expect(option.lost).toBe(one.pitches - option.left)
          expect(option.left % 2).toBe(0)
          expect(put).toBeLessThanOrEqual(one.spare ?? 0)
        }
      }),
    )
  })
  it('of one place by one joint loses as few as any run that could be taken out', () => {
    fc.assert(
      fc.property(fc.constantFrom('inner' as const, 'outer' as const), (kind) => {
        const one = broken({ broken: kind, pitches: 24 })
        for (const joint of ['link', 'pin'] as const) {
          let fewest = Infinity
          for (let from = 0; from < 24; from++)
            for (let length = 1; length < 20; length++) {
              const out = Array.from({ length }, (_, i) => (from + i) % 24)
              if (!out.includes(0)) continue
              const ends = [kindAt(one, (from + 23) % 24), kindAt(one, (from + length) % 24)]
              const closes = joint === 'link' ? ends.every((end) => end === 'inner') : ends[0] !== ends[1]
              if (closes) fewest = Math.min(fewest, length - (joint === 'link' ? 1 : 0))
            }
          expect(best(one, joint).lost).toBe(fewest)
        }
      }),
    )
  })
})
