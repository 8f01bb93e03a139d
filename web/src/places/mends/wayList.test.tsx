import { renderToStaticMarkup } from 'react-dom/server'
import { beforeAll, describe, expect, it } from 'vitest'
import { DEFAULTS, mendOptions, type BrokenChain, type LengthDrive } from '@pelrin/core'
import { textOf } from '../../testing/textOf.ts'
import { wayKey, WayList } from './WayList.tsx'

beforeAll(async () => {
  await import('../../messages/index.ts')
})

const ROAD: LengthDrive = {
  type: 'derailleur',
  fronts: [50, 34],
  sprockets: [11, 13, 15, 17, 19, 21, 24, 28, 34],
  chainstayMm: 410,
  suspension: 'rigid',
  growthMm: null,
  statedAdd: null,
  pulleys: [11, 11],
  pulleysCounted: false,
  capacityTeeth: 39,
  largestSprocketTeeth: 34,
}
const BROKEN: BrokenChain = { pitches: 110, broken: 'outer', damaged: [0] }

/** What each way says, in the order they stand in. */
function ways(broken: BrokenChain, more: { drive?: LengthDrive; rePress?: 'allowed' | 'caution' | 'excluded' } = {}) {
  const options = mendOptions(broken)
  const markup = renderToStaticMarkup(
    <WayList
      options={options}
      chosen={options[0]}
      drive={more.drive ?? ROAD}
      assumed={DEFAULTS}
      rePress={more.rePress ?? 'allowed'}
      minutes={({ joints }) => 10 * joints}
      onChoose={() => undefined}
    />,
  )
  return { options, markup, said: markup.split('<button').slice(1).map(textOf) }
}

describe('the ways a broken chain is mended', () => {
  it('stand in the order of what they lose, each under its own key, one of them chosen', () => {
    const { options, markup, said } = ways(BROKEN)
    expect(said).toHaveLength(Math.min(6, options.length))
    expect(new Set(options.map(wayKey)).size).toBe(options.length)
    expect(markup.match(/aria-checked="true"/g)).toHaveLength(1)
    said.forEach((one, i) => expect(one.replace(/^[^>]*>/, '')).toMatch(new RegExp(`^\\s*${i + 1} `)))
    const lost = options.slice(0, 6).map((option) => option.lost)
    expect(lost).toEqual([...lost].sort((a, b) => a - b))
  })

  it('say what is left of the chain and of its gears', () => {
    const { options, said } = ways({ ...BROKEN, pitches: 106 })
    options.slice(0, 6).forEach(({ lost, left }, i) => {
      expect(said[i]).toContain(lost === 0 ? `keeps its ${left} pitches` : `${lost} pitches fewer: ${left}`)
      expect(said[i]).toMatch(/every gear as before|gears? to keep off/)
    })
    // A chain that is short already has gears to keep off, a long one none.
    expect(said.some((one) => /gears? to keep off/.test(one))).toBe(true)
    expect(ways({ ...BROKEN, pitches: 116 }).said.every((one) => one.includes('every gear as before'))).toBe(true)
  })

  it('say what each takes', () => {
    const { options, said } = ways({ ...BROKEN, damaged: [0, 20] })
    options.slice(0, 6).forEach(({ joints }, i) => expect(said[i]).toContain(`${10 * joints} min`))
  })

  it('keep the length where there is a piece to put in', () => {
    const { options, said } = ways({ ...BROKEN, broken: 'inner', spare: 4 })
    const kept = options.slice(0, 6).findIndex(({ inserted }) => inserted.length > 0)
    expect(said[kept]).toMatch(/keeps its 110 pitches.*and one pitch of the offcut put in/)
  })

  it('tell a bike without a derailleur that nothing takes up what is lost', () => {
    const { options, said } = ways(BROKEN, { drive: { ...ROAD, type: 'single-speed', sprockets: [17], fronts: [46] } })
    options.slice(0, 6).forEach(({ lost }, i) => {
      expect(said[i]!.includes('the axle has to come forward')).toBe(lost > 0)
    })
  })

  it('warn of an old pin pressed in again where that is weak', () => {
    const pressed = (said: readonly string[]): string | undefined => said.find((one) => one.includes('old pin'))
    expect(pressed(ways(BROKEN, { rePress: 'caution' }).said)).toMatch(/then a new chain/)
    expect(pressed(ways(BROKEN, { rePress: 'excluded' }).said)).toMatch(/must not be pressed in again.*get you home/)
  })
})
