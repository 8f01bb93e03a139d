import { describe, expect, it } from 'vitest'
import { placeOf, PLACES } from './places.ts'

const BIKE = '0192c7f2-5340-7b38-85ad-942ae19fa762'

describe('the band along the foot', () => {
  it('shows each place as the one that is open, once it was gone to', () => {
    for (const { name, path } of PLACES) expect(placeOf(path(BIKE) ?? '')).toBe(name)
  })

  it('leads nowhere that needs a bike while there is none', () => {
    const closed = PLACES.filter(({ path }) => path(undefined) === null).map(({ name }) => name)
    expect(closed).toEqual(['bike', 'measure', 'job'])
  })

  it.each([
    ['/tags', 'rack'],
    ['/new-bike', 'rack'],
    ['/messages', 'diary'],
    ['/rule-chart', 'gauges'],
    [`/studies/${BIKE}`, 'gauges'],
    ['/orders', 'parts'],
    [`/bikes/${BIKE}/care`, 'bike'],
    [`/bikes/${BIKE}/sheets/customer`, 'bike'],
    [`/chains/${BIKE}`, 'bike'],
    [`/joints/${BIKE}`, 'bike'],
  ])('%s belongs to %s', (address, place) => {
    expect(placeOf(address)).toBe(place)
  })

  it.each(['/nowhere', '/bikes', `/bikes/${BIKE}/nothing`, '/potter'])('%s belongs to none', (address) => {
    expect(placeOf(address)).toBeNull()
  })
})
