import { driveClassOf } from '@pelrin/core'
import { describe, expect, it } from 'vitest'
import { BikeSimulation } from './history.ts'
import { Chance } from './random.ts'
import { customers, DRIVE_KINDS, WALL, LINE_UP, TEAM } from './scenario.ts'

describe('the scenario', () => {
  const plans = customers()
  it('has about 60 customers and 120 bikes, of every kind of drive', () => {
    expect(plans).toHaveLength(60)
    const bikes = plans.flatMap((plan) => plan.bikes)
    expect(bikes.length).toBeGreaterThan(110)
    expect(new Set(bikes.map((bike) => DRIVE_KINDS[bike.drive].type)).size).toBe(3)
    expect(new Set(bikes.map((bike) => driveClassOf(DRIVE_KINDS[bike.drive]))).size).toBe(3)
    expect(new Set(bikes.map((bike) => bike.life.care)).size).toBe(4)
  })
  it('names nobody twice, nor two bikes of one customer alike', () => {
    expect(new Set(plans.map((plan) => plan.name)).size).toBe(plans.length)
    for (const { name, bikes } of plans) expect(new Set(bikes.map((bike) => bike.label)).size, name).toBe(bikes.length)
    expect(new Set(TEAM.map((person) => person.initials)).size).toBe(TEAM.length)
  })
  it('has drives that are possible: as many sprockets as speeds, an even count of pitches', () => {
    for (const [name, drive] of Object.entries(DRIVE_KINDS)) {
      expect(drive.sprockets, name).toHaveLength(drive.type === 'derailleur' ? drive.speeds : 1)
      expect(drive.pitches % 2, name).toBe(0)
      expect(
        [...drive.sprockets].sort((a, b) => a - b),
        name,
      ).toEqual([...drive.sprockets])
    }
  })
  it('brings in today only bikes there are', () => {
    for (const { customer, label } of LINE_UP)
      expect(plans.find((plan) => plan.name === customer)?.bikes.some((bike) => bike.label === label)).toBe(true)
  })
  it('has one instrument whose check has lapsed', () => {
    expect(WALL.filter((instrument) => instrument.checkedDaysAgo > 365).map((one) => one.key)).toEqual(['dropIn'])
  })
})

describe('a simulated bike', () => {
  const today = new Date('2026-05-04T07:30:00Z')
  const [plan] = customers().flatMap((customer) => customer.bikes)
  const simulate = (seed: number) =>
    new BikeSimulation(new Chance(seed), plan!, today, { daysAgo: 10, worn: 0.6 }).run()

  it('is the same for the same seed, and another for another', () => {
    expect(simulate(1)).toEqual(simulate(1))
    expect(simulate(1)).not.toEqual(simulate(2))
  })
  it('has fittings one after the other, the last still on', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { fittings } = simulate(seed)
      fittings.slice(1).forEach((fitting, i) => expect(fitting.from.getTime()).toBe(fittings[i]?.to?.getTime()))
      expect(fittings.at(-1)?.to).toBeNull()
      expect(fittings.filter((fitting) => fitting.to === null)).toHaveLength(1)
    }
  })
  it('has an odometer that never runs backwards, and no reading in the future', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { readings, odometers } = simulate(seed)
      const values = [
        ...readings.flatMap(({ at, odometer }) => (odometer ? [{ at, km: odometer.km }] : [])),
        ...odometers,
      ].sort((a, b) => a.at.getTime() - b.at.getTime())
      values.slice(1).forEach((value, i) => expect(value.km).toBeGreaterThanOrEqual(values[i]!.km - 0.6))
      for (const { at } of readings) expect(at.getTime()).toBeLessThan(today.getTime())
      expect(readings.at(-1)?.at.getTime()).toBe(today.getTime() - 10 * 86_400_000)
    }
  })
  it('has every reading in the fitting it was taken in', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const { readings, fittings } = simulate(seed)
      for (const { at, fitting } of readings) {
        const { from, to } = fittings[fitting]!
        expect(at >= from && (to === null || at <= to)).toBe(true)
      }
    }
  })
})

describe('seeded chance', () => {
  it('keeps to its ranges and shapes', () => {
    const chance = new Chance(7)
    const normal = Array.from({ length: 4000 }, () => chance.normal(2, 0.5))
    const mean = normal.reduce((a, b) => a + b) / normal.length
    expect(mean).toBeCloseTo(2, 1)
    for (let i = 0; i < 500; i++) {
      expect(chance.whole(3, 5)).toBeGreaterThanOrEqual(3)
      expect(chance.whole(3, 5)).toBeLessThanOrEqual(5)
      expect(chance.unit()).toBeLessThan(1)
    }
  })
  it('draws first what any draw may be, whatever the seed', () => {
    const first = Array.from({ length: 2000 }, (_, seed) => new Chance(seed + 1).unit())
    for (let tenth = 0; tenth < 10; tenth++) {
      const here = first.filter((unit) => Math.floor(10 * unit) === tenth).length
      expect(here).toBeGreaterThan(140)
      expect(here).toBeLessThan(260)
    }
  })
  it('makes ids of version 7 that carry their moment', () => {
    const at = new Date('2026-05-04T07:30:00Z')
    const id = new Chance(7).id(at)
    expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
    expect(parseInt(id.replaceAll('-', '').slice(0, 12), 16)).toBe(at.getTime())
  })
})
