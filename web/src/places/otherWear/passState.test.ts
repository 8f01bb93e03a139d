import { describe, expect, it } from 'vitest'
import { parse } from 'valibot'
import { TakeWearCheck } from '@pelrin/contract'
import { chosenBy, looksOf } from './passState.ts'

let ids = 0
const id = (): string => `0190d5a0-0000-7000-8000-${String(++ids).padStart(12, '0')}`

describe('a pass over a bike', () => {
  it('takes a digit for the drawing or the look it stands for, and leaves digits of a rotor to its field', () => {
    expect(chosenBy('cassette', 3)).toEqual({ grade: 'worn' })
    expect(chosenBy('tyres', 3)).toEqual({ result: 'change' })
    expect([chosenBy('tyres', 4), chosenBy('cassette', 5), chosenBy('rotor-front', 1)]).toEqual([null, null, null])
  })
  it('sends what was said and nothing else, in the order of the bike', () => {
    const looks = looksOf(
      ['cassette', 'rotor-front', 'headset', 'tyres'],
      {
        tyres: { result: 'good' },
        'rotor-front': { typed: ' 1,72 ', minimumTyped: '', renewed: true },
        headset: {},
        cassette: { grade: 'used' },
      },
      id,
    )
    expect(looks.map(({ item }) => item)).toEqual(['cassette', 'rotor-front', 'tyres'])
    expect(looks[1]).toMatchObject({ typed: '1,72', minimumTyped: null, renewed: true })
    for (const look of looks) expect(parse(TakeWearCheck, look)).toEqual(look)
  })
})
