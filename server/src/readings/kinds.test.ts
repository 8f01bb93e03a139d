import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { bikeNamed, readingOf, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const idOf = async (name: string): Promise<string> => {
  const { body } = await shop.device.ask(endpoints.instruments)
  return body.find((instrument) => instrument.name.startsWith(name))?.id ?? ''
}
const take = async (bike: string, instrument: string, spots: object[], more: Record<string, unknown> = {}) => {
  const { id } = await bikeNamed(shop.device, bike)
  const body = await readingOf(shop.device, id, {
    instrumentId: await idOf(instrument),
    spots: spots.map((spot) => ({ id: v7(), ...spot })),
    ...more,
  })
  return shop.device.ask(endpoints.takeReading, { body })
}

describe('every kind of instrument', () => {
  it.each([
    ['Steel rule, 600', [{ typed: '204.6', pitches: 16 }], { value: 0.689, pitches: 16 }],
    ['Steel rule, 600', [{ typed: '12in', pitches: 24, picture: 'edge' }], { value: 0.591, picture: 'edge' }],
    ['Steel rule, 600', [{ typed: '12in', pitches: 24, picture: 'clear' }], { over: 0.591, value: null }],
    ['Caliper', [{ typed: '119.6', pitches: 10, mode: 'inside-rollers' }], { value: 0.276, lengthMm: 127.35 }],
    ['Drop-in gauge, blue', [{ typed: 'po' }], { value: 0.5, over: null, under: null, borderline: true }],
    ['Swing-arm', [{ typed: 'end' }], { over: 1, under: null }],
    ['Graduated', [{ typed: '0,65' }], { value: 0.65 }],
    ['Digital', [{ typed: '0.62' }], { value: 0.62, u: 0.03 }],
    ['Hook', [{ typed: '1378.0', pitches: 108, linkIncluded: true }], { value: 0.467, pitches: 108 }],
  ] as const)('%s: %j is kept as typed and read', async (instrument, spots, expected) => {
    const { status, body } = await take('school pool 1', instrument, [...spots])
    expect(status).toBe(200)
    const [spot] = body.readings[0]?.spots ?? []
    expect(spot?.typed).toBe(spots[0].typed)
    for (const [key, value] of Object.entries(expected)) {
      const found = spot?.[key as keyof typeof spot]
      if (typeof value === 'number' && !Number.isInteger(value)) expect(found, key).toBeCloseTo(value, 2)
      else expect(found, key).toBe(value)
    }
    expect(spot?.explanations.length).toBeGreaterThan(0)
    const results = spot?.explanations.map((one) => one.result.value) ?? []
    expect(results).toContain(spot?.value ?? spot?.over ?? spot?.under)
  })
  it('by hand is a suspicion only: it never governs, and a bad hint moves the look to today', async () => {
    const { body: before } = await take('school pool 2', 'Digital', [
      { typed: '0.2' },
      { typed: '0.21' },
      { typed: '0.2' },
    ])
    expect(before.summary.verdict).toBe('keep-riding')
    const { body } = await take('school pool 2', 'By hand', [], { signs: ['lifts-off-ring'] })
    expect(body.summary).toMatchObject({ verdict: 'keep-riding', median: before.summary.median })
    expect(body.summary.flags).toContain('by-hand-suspicion')
    expect(body.verdict?.outcome.checkInDays).toBe(0)
    expect(body.readings[0]).toMatchObject({ hint: 'worn', signs: ['lifts-off-ring'], spots: [] })
    // Measuring answers it.
    const { body: after } = await take('school pool 2', 'Digital', [
      { typed: '0.2' },
      { typed: '0.2' },
      { typed: '0.2' },
    ])
    expect(after.summary.flags).not.toContain('by-hand-suspicion')
  })
  it('a customer’s own reading is kept apart', async () => {
    const { body: before } = await take('school pool 3', 'Digital', [
      { typed: '0.3' },
      { typed: '0.3' },
      { typed: '0.3' },
    ])
    // What our gauge is known to read too much says nothing of theirs.
    const { body: instruments } = await shop.device.ask(endpoints.instruments)
    const { id, recordVersion, standing, ...ours } = instruments.find(({ name }) => name.includes('Digital'))!
    const { uMm, u, marks, material, rollerMm, seesRollerWear, changeMark } = ours
    await shop.device.ask(endpoints.reviseInstrument, {
      params: { id },
      body: {
        ...{ id: v7(), fromVersion: recordVersion, standing, reason: 'a test', bias: 0.2, biasU: 0.02 },
        ...{ uMm, u, marks, material, rollerMm, seesRollerWear, changeMark },
      },
    })
    const { body } = await take('school pool 3', 'Digital', [{ typed: '1.1' }], {
      source: 'customer',
      note: 'a gauge from his saddlebag',
    })
    expect(body.readings[0]).toMatchObject({ note: 'a gauge from his saddlebag', spots: [{ value: 1.1 }] })
    expect(body.readings[0]?.spots[0]?.explanations.map(({ result }) => result.value)).toContain(1.1)
    expect(body.summary.median).toBe(before.summary.median)
    expect(body.summary.flags).toContain('customer-reading-apart')
    expect(body.verdict?.outcome.countedReadingIds).not.toContain(body.readings[0]?.id)
  })
  it('keeps where and how it was taken, and what temperature added', async () => {
    const { body: session } = await shop.device.ask(endpoints.session)
    const reader = session.people.find(({ initials }) => initials === 'RP')
    const { body } = await take('school pool 4', 'Steel rule, 600', [{ typed: '304.8', pitches: 24, place: 3 }], {
      conditions: { run: 'upper', load: 'tensioned', ruleCelsius: 20, chainCelsius: -5 },
      readerId: reader?.id,
    })
    const [reading] = body.readings
    expect(reading?.conditions).toEqual({ run: 'upper', load: 'tensioned', ruleCelsius: 20, chainCelsius: -5 })
    expect(reading?.reader).toBe(reader?.name)
    expect(reading?.spots[0]?.place).toBe(3)
    expect(reading?.spots[0]?.value).toBeCloseTo(0.02875, 4)
  })
})

describe('what is wrong with a spot', () => {
  it.each([
    ['Drop-in gauge, blue', { typed: 'oi' }, 'typed', 'marks-contradict'],
    ['Drop-in gauge, blue', { typed: 'i' }, 'typed', 'marks-unfinished'],
    ['Graduated', { typed: '0.62' }, 'typed', 'percent-step'],
    ['Digital', { typed: '203.2' }, 'typed', 'percent-is-length'],
    ['Swing-arm', { typed: '-0.2' }, 'typed', 'percent-low'],
    ['Hook', { typed: '1453.4' }, 'pitches', 'count-missing'],
    ['Caliper', { typed: '7.5mm', pitches: 2, mode: 'outside-rollers' }, 'typed', 'shorter-than-roller'],
    ['Steel rule, 600', { typed: '203.2in', pitches: 16 }, 'typed', 'length-too-long'],
    ['By hand', { typed: '0.5' }, 'typed', 'instrument-reads-signs'],
  ] as const)('%s: %j is named at its field', async (instrument, spot, field, code) => {
    const { status, problem } = await take('school pool 5', instrument, [spot])
    expect(status).toBe(422)
    expect(problem.fields?.map((one) => [one.path, one.code])).toContainEqual([`spots.0.${field}`, code])
    expect(problem.fields?.[0]?.detail).not.toMatch(/\{\{/)
  })
  it('no spot and no sign are asked for', async () => {
    expect((await take('school pool 5', 'Digital', [])).problem.fields?.[0]?.code).toBe('spots-missing')
    expect((await take('school pool 5', 'By hand', [])).problem.fields?.map((one) => one.code)).toContain(
      'signs-missing',
    )
    const { problem } = await take('school pool 5', 'Digital', [{ typed: '0.3' }], { readerId: v7() })
    expect(problem.fields?.[0]).toMatchObject({ path: 'readerId', code: 'person-unknown' })
  })
})

describe('a new chain', () => {
  it('asks for its baseline, and remembers how long it was whole', async () => {
    const { body: rack } = await shop.device.ask(endpoints.rack, { query: { limit: '200' } })
    const fresh = rack.bikes.find(({ verdict }) => verdict === 'not-measured-yet')
    const { body: before } = await shop.device.ask(endpoints.bike, { params: { id: fresh?.id ?? '' } })
    expect(before.chain).toMatchObject({ baselineWanted: true, whenNew: null })
    const pitches = before.chain?.pitches ?? 100
    const body = await readingOf(shop.device, before.summary.id, {
      instrumentId: await idOf('Hook'),
      spots: [{ id: v7(), typed: (pitches * 12.703).toFixed(1), pitches }],
      baseline: true,
      conditions: { run: 'lower', preloadKg: 2 },
    })
    const { body: after } = await shop.device.ask(endpoints.takeReading, { body })
    expect(after.chain?.baselineWanted).toBe(false)
    expect(after.chain?.whenNew).toMatchObject({ pitches, preloadKg: 2 })
    expect(after.readings[0]?.baseline).toBe(true)
  })
})
