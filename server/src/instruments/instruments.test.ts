import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type Instrument, type InstrumentHistory } from '@pelrin/contract'
import { bikeNamed, Device, readingOf, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const named = async (text: string): Promise<Instrument> => {
  const { body } = await shop.device.ask(endpoints.instruments)
  const found = body.find((instrument) => instrument.name.includes(text))
  if (!found) throw new Error(`no instrument like ${text}`)
  return found
}
const record = (instrument: Instrument) => ({
  uMm: instrument.uMm,
  u: instrument.u,
  bias: instrument.bias,
  biasU: instrument.biasU,
  marks: instrument.marks,
  material: instrument.material,
  rollerMm: instrument.rollerMm,
  seesRollerWear: instrument.seesRollerWear,
  changeMark: instrument.changeMark,
})
const revise = (instrument: Instrument, change: Record<string, unknown>, key?: string) =>
  shop.device.ask(endpoints.reviseInstrument, {
    params: { id: instrument.id },
    body: {
      id: v7(),
      fromVersion: instrument.recordVersion,
      ...record(instrument),
      standing: instrument.standing,
      reads: instrument.reads,
      reason: 'a test',
      ...change,
    },
    ...(key === undefined ? {} : { key }),
  })
const added = (change: Record<string, unknown> = {}) =>
  shop.device.ask(endpoints.addInstrument, {
    body: {
      id: v7(),
      kind: 'drop-in',
      name: `Gauge ${v7().slice(-6)}`,
      uMm: null,
      u: null,
      bias: 0,
      biasU: 0,
      marks: [0.5, 0.75],
      material: null,
      rollerMm: null,
      seesRollerWear: false,
      changeMark: null,
      ...change,
    },
  })

describe('the register', () => {
  it('has every kind of instrument, with when each is to be checked', async () => {
    const { body } = await shop.device.ask(endpoints.register)
    expect(new Set(body.map(({ kind }) => kind)).size).toBe(8)
    const red = body.find(({ name }) => name.includes('red'))
    expect(red).toMatchObject({ checkLapsed: true, marks: [0.5, 0.75], changeMark: 0.75 })
    expect(red?.checkDueOn).not.toBeNull()
    expect(body.find(({ kind }) => kind === 'by-hand')?.checkLapsed).toBe(false)
  })
  it('takes one into use, once, under a name of its own', async () => {
    const { status, body } = await added({ name: 'Drop-in gauge, green handle' })
    expect(status).toBe(200)
    expect(body.versions).toHaveLength(1)
    const { problem } = await added({ name: 'drop-in gauge, GREEN handle' })
    expect(problem.fields?.[0]).toMatchObject({ path: 'name', code: 'instrument-name-taken' })
  })
  it.each([
    ['no marks', { marks: null }, 'marks', 'marks-none'],
    ['marks in the wrong order', { marks: [0.75, 0.5] }, 'marks', 'marks-order'],
    ['a mark of 75', { marks: [0.5, 75] }, 'marks.1', 'number-malformed'],
    ['an uncertainty of nothing', { u: 0 }, 'u', 'number-malformed'],
    ['no name', { name: ' ' }, 'name', 'text-missing'],
    ['a kind there is not', { kind: 'sundial' }, 'kind', 'kind-unknown'],
    ['an address that is none', { connection: 'here' }, 'connection', 'connection-malformed'],
    ['an address elsewhere', { connection: '192.0.2.7:7411' }, 'connection', 'connection-not-listed'],
  ])('refuses %s at its field', async (_, change, path, code) => {
    const { status, problem } = await added(change)
    expect(status).toBe(422)
    expect(problem.fields?.map((field) => [field.path, field.code])).toContainEqual([path, code])
  })
})

describe('a check', () => {
  it('is a new version; readings keep the one they were judged with', async () => {
    const { body: fresh } = await added()
    const gauge = fresh.instrument
    const bike = await bikeNamed(shop.device, 'school pool 1')
    const body = await readingOf(shop.device, bike.id, {
      instrumentId: gauge.id,
      spots: [{ id: v7(), typed: 'io' }],
    })
    const { body: before } = await shop.device.ask(endpoints.takeReading, { body })
    expect(before.readings[0]?.spots[0]).toMatchObject({ over: 0.5, under: 0.75, typed: 'io' })
    const { body: after } = await revise(gauge, {
      bias: -0.09,
      biasU: 0.02,
      check: { how: 'strip', pairs: [{ reference: 0.59, typed: 'io' }], referenceU: 0.01 },
      reason: 'checked on the strip',
    })
    const [newest, first] = after.versions
    expect(newest).toMatchObject({ version: 2, bias: -0.09, checkedHow: 'strip', reason: 'checked on the strip' })
    expect(first).toMatchObject({ version: 1, bias: 0, readings: 1 })
    expect(after.instrument.checkLapsed).toBe(false)
    const { body: later } = await shop.device.ask(endpoints.bike, { params: { id: bike.id } })
    expect(later.readings[0]).toMatchObject({ instrument: { recordVersion: 1 }, spots: [{ over: 0.5, under: 0.75 }] })
    const { body: again } = await shop.device.ask(endpoints.takeReading, {
      body: { ...body, id: v7(), spots: [{ id: v7(), typed: 'io' }] },
    })
    expect(again.readings[0]?.instrument.recordVersion).toBe(2)
    expect(again.readings[0]?.spots[0]?.over).toBeCloseTo(0.59, 9)
    expect(again.verdictInput?.readings.find(({ id }) => id === again.readings[0]?.id)?.instrument.biasU).toBe(0.02)
  })
  it('does not overwrite what somebody else wrote meanwhile', async () => {
    const { body } = await added()
    const [one, other] = await Promise.all([
      revise(body.instrument, { bias: 0.01 }),
      revise(body.instrument, { bias: 0.02 }),
    ])
    expect([one.status, other.status].sort()).toEqual([200, 409])
    const refused = one.status === 409 ? one : other
    expect(refused.problem.code).toBe('record-stale')
    expect((refused.problem.current as InstrumentHistory).versions).toHaveLength(2)
  })
  it('that found it late takes it out of use, and no reading is taken with it', async () => {
    const { body } = await added()
    await revise(body.instrument, { standing: 'out-of-use', reads: 'late' })
    const bike = await bikeNamed(shop.device, 'school pool 2')
    const { problem } = await shop.device.ask(endpoints.takeReading, {
      body: await readingOf(shop.device, bike.id, {
        instrumentId: body.instrument.id,
        spots: [{ id: v7(), typed: 'io' }],
      }),
    })
    expect(problem.fields?.[0]).toMatchObject({ path: 'instrumentId', code: 'instrument-out-of-use' })
  })
})

describe('an instrument retired in the middle of a round', () => {
  it('is refused as such, and comes back with its name', async () => {
    const { body } = await added({ name: 'Gauge of the day' })
    const bike = await bikeNamed(shop.device, 'school pool 3')
    const reading = await readingOf(shop.device, bike.id, {
      instrumentId: body.instrument.id,
      spots: [{ id: v7(), typed: 'io' }],
    })
    const retire = (retired: boolean) =>
      shop.device.ask(endpoints.retireInstrument, {
        params: { id: body.instrument.id },
        body: { retired, reason: 'bent' },
      })
    expect((await retire(true)).body.retiredAt).not.toBeNull()
    const { problem } = await shop.device.ask(endpoints.takeReading, { body: reading })
    expect(problem.fields?.[0]).toMatchObject({ path: 'instrumentId', code: 'instrument-retired' })
    expect((await retire(false)).body.retiredAt).toBeNull()
    expect((await shop.device.ask(endpoints.takeReading, { body: reading })).status).toBe(200)
  })
  it('can still be corrected, as what it was read with', async () => {
    const { body } = await added()
    const bike = await bikeNamed(shop.device, 'school pool 4')
    const reading = await readingOf(shop.device, bike.id, {
      instrumentId: body.instrument.id,
      spots: [{ id: v7(), typed: 'io' }],
    })
    await shop.device.ask(endpoints.takeReading, { body: reading })
    await shop.device.ask(endpoints.retireInstrument, {
      params: { id: body.instrument.id },
      body: { retired: true, reason: 'lost' },
    })
    const { bikeId: _, ...rest } = reading
    const { status, body: after } = await shop.device.ask(endpoints.correctReading, {
      params: { id: reading['id'] as string },
      body: { ...rest, id: v7(), spots: [{ id: v7(), typed: 'oo' }], reason: 'misread' },
    })
    expect(status).toBe(200)
    expect(after.readings[0]?.spots[0]).toMatchObject({ over: null, under: 0.5 })
  })
})

describe('evidence of bias', () => {
  it('is where a surer instrument says otherwise on the same chain', async () => {
    const bike = await bikeNamed(shop.device, 'school pool 5')
    const digital = await named('Digital')
    const { body } = await added({ marks: [0.5, 0.75], u: 0.05 })
    const take = (instrumentId: string, typed: string) =>
      readingOf(shop.device, bike.id, {
        instrumentId,
        spots: [1, 2, 3].map((place) => ({ id: v7(), typed, place })),
      }).then((reading) => shop.device.ask(endpoints.takeReading, { body: reading }))
    await take(digital.id, '0.95')
    await take(body.instrument.id, 'io')
    const { body: history } = await shop.device.ask(endpoints.instrument, { params: { id: body.instrument.id } })
    expect(history.evidence[0]).toMatchObject({ bikeId: bike.id, against: 'Digital gauge' })
    expect(history.evidence[0]?.bias).toBeCloseTo(-0.2, 9)
    // The bike shows the same two readings side by side.
    const { body: record_ } = await shop.device.ask(endpoints.bike, { params: { id: bike.id } })
    expect(record_.disagreements[0]).toMatchObject({ apart: 'instruments', places: [1, 2, 3], beyond: true })
    expect(record_.disagreements[0]?.evidence?.instrumentId).toBe(body.instrument.id)
  })
})

describe('who may', () => {
  it('only look may not revise', async () => {
    const reader = new Device(shop.base)
    await reader.signIn('coral', 'slipway-4')
    const gauge = await named('Digital')
    const { status } = await reader.ask(endpoints.retireInstrument, {
      params: { id: gauge.id },
      body: { retired: true, reason: 'x' },
    })
    expect(status).toBe(403)
  })
})
