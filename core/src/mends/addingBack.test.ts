import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addingBack } from '../index.ts'

const now = { pitches: 110, add: 2, linked: true, ownLink: true } as const

describe('pitches that are added back', () => {
  it('go in between the link it has and a new one, a pitch less of chain than is added', () => {
    expect(addingBack({ ...now, by: 'link' })).toEqual({
      by: 'link',
      piece: 1,
      ends: 'both-inner',
      newJoints: 1,
      ownAgain: true,
      left: 112,
    })
  })
  it('want two new links where its own is used up, or it has none', () => {
    expect(addingBack({ ...now, by: 'link', ownLink: false })).toMatchObject({ newJoints: 2, ownAgain: false })
    expect(addingBack({ ...now, by: 'link', linked: false, ownLink: false })).toMatchObject({ newJoints: 2, piece: 1 })
  })
  it('go in whole with two pins', () => {
    expect(addingBack({ ...now, add: 4, by: 'pin' })).toMatchObject({ piece: 4, ends: 'one-outer', newJoints: 2 })
  })
  it('leave a chain whose plates alternate all the way round', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 10, max: 80 }),
        fc.integer({ min: 1, max: 10 }),
        fc.constantFrom('link' as const, 'pin' as const),
        fc.boolean(),
        (half, more, by, linked) => {
          const pitches = 2 * half
          const { piece, left, newJoints, ownAgain } = addingBack({
            pitches,
            add: 2 * more,
            by,
            linked,
            ownLink: linked,
          })
          // Chain that stays: all of it but its own link, or but the outer link that comes out for one.
          const stays = by === 'link' ? pitches - 1 : pitches
          const links = by === 'link' ? newJoints + Number(ownAgain) : 0
          expect(stays + piece + links).toBe(left)
          expect(left % 2).toBe(0)
          expect(left).toBe(pitches + 2 * more)
        },
      ),
    )
  })
  it('are an even count', () => {
    for (const wrong of [{ add: 1 }, { add: 0 }, { add: 3 }, { pitches: 111 }])
      expect(() => addingBack({ ...now, by: 'link', ...wrong })).toThrow(RangeError)
  })
})
