import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { inShop } from '../db/index.ts'
import { bikeNamed, readingOf, startShop, type RunningShop } from '../testing/shop.ts'
import { SHOPS } from '../auth/models.ts'
import { BIKES, CUSTOMERS } from '../bikes/models.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

/** Every bike is used by one test only, so that none sees another's readings. */
const fresh = async (text: string) => {
  const bike = await bikeNamed(shop.device, text)
  return { bike, body: await readingOf(shop.device, bike.id) }
}

const instrumentId = async (kind: string): Promise<string> => {
  const { body } = await shop.device.ask(endpoints.instruments)
  return body.find((instrument) => instrument.kind === kind)?.id ?? ''
}
const countReadings = async (bikeId: string): Promise<number> => {
  const { body } = await shop.device.ask(endpoints.bike, { params: { id: bikeId } })
  return body.readings.length
}

describe('taking a reading', () => {
  it('keeps what was typed, judges it, and shows it everywhere at once', async () => {
    const { bike, body } = await fresh('school pool 7')
    const before = await countReadings(bike.id)
    const { status, body: record } = await shop.device.ask(endpoints.takeReading, {
      body: {
        ...body,
        spots: [{ id: v7(), typed: '12in +3/32', pitches: 24 }],
        odometer: { id: v7(), typed: '99 000', unit: 'km', lower: 'as-it-is' },
      },
    })
    expect(status).toBe(200)
    expect(record.readings).toHaveLength(before + 1)
    const [newest] = record.readings
    expect(newest?.spots[0]).toMatchObject({ typed: '12in +3/32', pitches: 24, oddCount: false })
    expect(newest?.spots[0]?.value).toBeCloseTo(0.7812, 3)
    expect(newest?.odometer?.km).toBe(99_000)
    expect(record.verdict?.readingId).toBe(newest?.id)
    expect(record.summary.verdict).toBe(record.verdict?.outcome.word)
    const { body: rack } = await shop.device.ask(endpoints.rack, { query: { q: bike.tag } })
    expect(rack.bikes[0]?.median).toBe(record.summary.median)
    const { body: lineUp } = await shop.device.ask(endpoints.lineUp)
    expect(lineUp.visits.find((visit) => visit.bike.id === bike.id)?.bike.verdict).toBe(record.summary.verdict)
  })

  it('explains every number by the inputs it was made from', async () => {
    const { body } = await fresh('school pool 1')
    const { body: record } = await shop.device.ask(endpoints.takeReading, { body })
    const [elongation, u] = record.readings[0]?.spots[0]?.explanations ?? []
    expect(elongation?.inputs.map((input) => input.value)).toEqual([204.6, 16, 12.7])
    expect(elongation?.result.value).toBe(record.readings[0]?.spots[0]?.value)
    expect(u?.result.value).toBe(record.readings[0]?.spots[0]?.u)
    expect(record.verdict?.outcome.steps[0]?.rule).toBe('D0')
  })

  it('writes down who did it, and in which request', async () => {
    const { body } = await fresh('school pool 2')
    const answer = await shop.device.ask(endpoints.takeReading, { body })
    const { body: session } = await shop.device.ask(endpoints.session)
    const rows = await inShop(shop.database, session.shop.id, null, (work) =>
      work.select<{ action: string; person_id: string; request_id: string }>(
        'SELECT action, person_id, request_id FROM audit WHERE subject_id = :id',
        { id: body['id'] },
      ),
    )
    expect(rows).toEqual([
      { action: 'took', person_id: session.person.id, request_id: answer.headers.get('x-request-id') },
    ])
  })
})

describe('the same request twice', () => {
  it('is done once and answered twice, also when both come at the same moment', async () => {
    const { bike, body } = await fresh('school pool 4')
    const before = await countReadings(bike.id)
    const key = v7()
    const answers = await Promise.all([1, 2, 3].map(() => shop.device.ask(endpoints.takeReading, { body, key })))
    expect(answers.map((answer) => answer.status)).toEqual([200, 200, 200])
    expect(answers[1]?.body).toEqual(answers[0]?.body)
    expect(await countReadings(bike.id)).toBe(before + 1)
  })
  it('is refused when the key was used for something else', async () => {
    const { body } = await fresh('school pool 5')
    const key = v7()
    await shop.device.ask(endpoints.takeReading, { body, key })
    const other = await shop.device.ask(endpoints.takeReading, { body: { ...body, id: v7() }, key })
    expect([other.status, other.problem.code]).toEqual([422, 'idempotency-key-reused'])
  })
  it('needs a key', async () => {
    const { body } = await fresh('school pool 5')
    const { problem } = await shop.device.ask(endpoints.takeReading, { body, key: 'short' })
    expect(problem.code).toBe('idempotency-key-missing')
  })
  it('with another key finds its id taken, and changes nothing', async () => {
    const { bike, body } = await fresh('school pool 6')
    await shop.device.ask(endpoints.takeReading, { body })
    const count = await countReadings(bike.id)
    const again = await shop.device.ask(endpoints.takeReading, { body })
    expect([again.status, again.problem.code]).toEqual([409, 'id-taken'])
    expect(await countReadings(bike.id)).toBe(count)
  })
})

describe('bad input', () => {
  const spot = (typed: string, pitches: unknown = 16) => ({ spots: [{ id: v7(), typed, pitches }] })
  it.each<[string, Record<string, unknown>, string, string]>([
    ['letters', spot('abc'), 'spots.0.typed', 'length-letters'],
    ['two decimals', spot('204.6.1'), 'spots.0.typed', 'length-two-decimals'],
    ['a negative length', spot('-204'), 'spots.0.typed', 'length-negative'],
    ['zero', spot('0'), 'spots.0.typed', 'length-zero'],
    ['ten metres', spot('10000'), 'spots.0.typed', 'length-too-long'],
    ['millimetres given as inches', spot('203.2in'), 'spots.0.typed', 'length-too-long'],
    ['nothing typed', spot('  '), 'spots.0.typed', 'text-missing'],
    ['a length of no such count', spot('90'), 'spots.0.pitches', 'count-impossible'],
    ['a count that is none', spot('204.6', 15.5), 'spots.0.pitches', 'count-malformed'],
    ['a count left out', spot('204.6', null), 'spots.0.pitches', 'count-missing'],
    ['no spot', { spots: [] }, 'spots', 'spots-missing'],
    ['nine spots', { spots: Array.from({ length: 9 }, () => spot('204.6').spots[0]) }, 'spots', 'spots-too-many'],
    [
      'an odometer of a billion',
      { odometer: { id: v7(), typed: '1000000000', unit: 'km' } },
      'odometer.typed',
      'odometer-too-large',
    ],
    [
      'an odometer in words',
      { odometer: { id: v7(), typed: 'many', unit: 'km' } },
      'odometer.typed',
      'odometer-letters',
    ],
    ['a future date', { occurredAt: new Date(Date.now() + 86_400_000).toISOString() }, 'occurredAt', 'date-in-future'],
    [
      'a date before the chain was fitted',
      { occurredAt: '2020-01-01T10:00:00Z' },
      'occurredAt',
      'chain-not-fitted-then',
    ],
    ['no date', { occurredAt: 'yesterday' }, 'occurredAt', 'moment-malformed'],
    ['an unknown instrument', { instrumentId: v7() }, 'instrumentId', 'instrument-unknown'],
    ['no id', { id: 'seven' }, 'id', 'id-malformed'],
    ['an unknown bike', { bikeId: v7() }, 'bikeId', 'bike-unknown'],
  ])('%s is refused at its field, and nothing is written', async (_, change, path, code) => {
    const { bike, body } = await fresh('school pool 8')
    const before = await countReadings(bike.id)
    const { status, problem } = await shop.device.ask(endpoints.takeReading, { body: { ...body, ...change } })
    expect(status).toBe(422)
    expect(problem.fields?.map((field) => [field.path, field.code])).toContainEqual([path, code])
    expect(problem.fields?.[0]?.detail).not.toBe('')
    expect(problem.requestId).toMatch(/^[0-9a-f-]{36}$/)
    expect(await countReadings(bike.id)).toBe(before)
  })

  it('a length typed into a gauge that shows per cent is named as one', async () => {
    const { body } = await fresh('school pool 8')
    const { problem } = await shop.device.ask(endpoints.takeReading, {
      body: { ...body, instrumentId: await instrumentId('digital'), ...spot('203.2') },
    })
    expect(problem.fields?.[0]).toMatchObject({ path: 'spots.0.typed', code: 'percent-is-length' })
  })
  it('a bike of another shop does not exist here', async () => {
    const otherShop = v7()
    const id = v7()
    await shop.database.of(SHOPS).create({
      id: otherShop,
      code: 'x',
      name: 'X',
      timeZone: 'UTC',
      distanceUnit: 'km',
      demo: false,
    })
    await inShop(shop.database, otherShop, null, async ({ of, transaction }) => {
      const customerId = v7()
      await of(CUSTOMERS).create({ id: customerId, name: 'Theirs', version: 1 }, { transaction })
      await of(BIKES).create(
        { id, customerId, label: 'Theirs', kind: 'road', tag: '1', notes: '', odometerUnit: 'km', version: 1 },
        { transaction },
      )
    })
    expect((await shop.device.ask(endpoints.bike, { params: { id } })).problem.code).toBe('bike-unknown')
    const body = await readingOf(shop.device, id, { fittingId: v7() })
    const { problem } = await shop.device.ask(endpoints.takeReading, { body })
    expect(problem.fields?.[0]).toMatchObject({ path: 'bikeId', code: 'bike-unknown' })
  })

  it('a body of 50 MB is not read', async () => {
    const started = Date.now()
    const response = await shop.device
      .raw('POST', '/api/v1/readings', { 'content-type': 'application/json' }, `{"note":"${'x'.repeat(50_000_000)}"}`)
      // The server may hang up while the rest is still on its way.
      .catch(() => null)
    if (response)
      expect([response.status, ((await response.json()) as { code: string }).code]).toEqual([413, 'body-too-large'])
    expect(Date.now() - started).toBeLessThan(5_000)
    expect((await shop.device.ask(endpoints.session)).status).toBe(200)
  })

  it('broken JSON is called that', async () => {
    const response = await shop.device.raw(
      'POST',
      '/api/v1/readings',
      { 'content-type': 'application/json' },
      '{"id": ',
    )
    expect([response.status, ((await response.json()) as { code: string }).code]).toEqual([400, 'body-not-json'])
    expect(response.headers.get('content-type')).toContain('application/problem+json')
  })
})

describe('an odometer lower than last time, or far more', () => {
  it('is asked about, and kept as the answer says', async () => {
    // A bike with an odometer and no rides: its distance is told by the odometer alone.
    const { body: session } = await shop.device.ask(endpoints.session)
    const [plain] = await inShop(shop.database, session.shop.id, null, (work) =>
      work.select<{ label: string }>(
        `SELECT b.label FROM bikes b WHERE b.label LIKE 'School pool %' AND b.label <> 'School pool 10'
         AND EXISTS (SELECT 1 FROM distance_entries d WHERE d.bike_id = b.id AND d.kind = 'odometer')
         AND NOT EXISTS (SELECT 1 FROM rides r WHERE r.bike_id = b.id) ORDER BY b.label LIMIT 1`,
      ),
    )
    const { bike, body } = await fresh(plain!.label.toLowerCase())
    const take = (typed: string, lower?: string) =>
      shop.device.ask(endpoints.takeReading, {
        body: {
          ...body,
          id: v7(),
          spots: [{ id: v7(), typed: '204.0', pitches: 16 }],
          odometer: { id: v7(), typed, unit: 'km', ...(lower === undefined ? {} : { lower }) },
        },
      })
    // Far more than a bike is ridden since the last value is asked about the same way.
    const much = await take('120000')
    expect(much.problem.fields?.[0]).toMatchObject({ path: 'odometer.typed', code: 'odometer-much' })
    const { body: at } = await take('120000', 'as-it-is')
    const asked = await take('12')
    expect(asked.problem.fields?.[0]).toMatchObject({ path: 'odometer.typed', code: 'odometer-lower' })
    const restarted = await take('12', 'restarted')
    expect(restarted.body.lastOdometer?.km).toBe(12)
    expect(restarted.body.summary.chainKm).toBe(at.summary.chainKm)
    // From the new meter's start, distance goes on.
    const later = await take('42')
    expect(later.body.summary.chainKm).toBeCloseTo((at.summary.chainKm ?? 0) + 30, 6)
    const { body: found } = await shop.device.ask(endpoints.bike, { params: { id: bike.id } })
    expect(found.distanceExplanation?.inputs.find((input) => input.meaning === 'odometer-restarts')?.value).toBe(1)
  })
  it('takes miles where they are written', async () => {
    const { body } = await fresh('school pool 10')
    const { body: record } = await shop.device.ask(endpoints.takeReading, {
      body: { ...body, odometer: { id: v7(), typed: '40000 mi', unit: 'km', lower: 'as-it-is' } },
    })
    expect(record.lastOdometer?.km).toBeCloseTo(64_373.76, 2)
  })
})

describe('correcting', () => {
  it('puts the new value in its place and keeps the old one beneath, with who and why', async () => {
    const { bike, body } = await fresh('school pool 11')
    const { body: before } = await shop.device.ask(endpoints.takeReading, {
      body: { ...body, spots: [{ id: v7(), typed: '206.4', pitches: 16 }] },
    })
    const wrong = before.readings[0]
    const { bikeId: _, ...rest } = body
    const correction = {
      ...rest,
      id: v7(),
      spots: [{ id: v7(), typed: '204.6', pitches: 16 }],
      reason: 'read the wrong edge',
    }
    const { status, body: after } = await shop.device.ask(endpoints.correctReading, {
      params: { id: wrong?.id ?? '' },
      body: correction,
    })
    expect(status).toBe(200)
    const [standing] = after.readings
    expect(standing).toMatchObject({ id: correction.id, reason: 'read the wrong edge', person: 'Tove Sandell' })
    expect(standing?.occurredAt).toBe(wrong?.occurredAt)
    expect(standing?.corrected.map((old) => old.spots[0]?.typed)).toEqual(['206.4'])
    expect(after.readings).toHaveLength(before.readings.length)
    expect(after.verdict?.outcome.countedReadingIds).not.toContain(wrong?.id)
    expect(after.summary.median).toBeLessThan(before.summary.median ?? 0)
    expect(after.summary.id).toBe(bike.id)
  })
  it('a second corrector gets a conflict with the newer one', async () => {
    const { body } = await fresh('school pool 12')
    const { body: taken } = await shop.device.ask(endpoints.takeReading, { body })
    const { bikeId: _, ...rest } = body
    const correct = () =>
      shop.device.ask(endpoints.correctReading, {
        params: { id: taken.readings[0]?.id ?? '' },
        body: { ...rest, id: v7(), spots: [{ id: v7(), typed: '204.2', pitches: 16 }], reason: 'typo' },
      })
    const answers = await Promise.all([correct(), correct()])
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 409])
    const late = answers.find((answer) => answer.status === 409)
    expect(late?.problem.code).toBe('reading-corrected-already')
    expect(late?.problem.current).toMatchObject({ reason: 'typo' })
  })
  it('wants a reason, and a reading there is', async () => {
    const { body } = await fresh('school pool 12')
    const { bikeId: _, ...rest } = body
    const noReason = await shop.device.ask(endpoints.correctReading, {
      params: { id: v7() },
      body: { ...rest, reason: ' ' },
    })
    expect(noReason.problem.fields?.[0]).toMatchObject({ path: 'reason', code: 'text-missing' })
    const unknown = await shop.device.ask(endpoints.correctReading, {
      params: { id: v7() },
      body: { ...rest, reason: 'x' },
    })
    expect([unknown.status, unknown.problem.code]).toEqual([404, 'reading-unknown'])
  })
})

describe('a reading that fails in the middle', () => {
  it('leaves nothing of itself behind', async () => {
    const { bike, body } = await fresh('bakery van 1')
    const twice = v7()
    const before = await shop.device.ask(endpoints.bike, { params: { id: bike.id } })
    // The second spot's id is taken by the first: the reading and its odometer are already written by then.
    const { status } = await shop.device.ask(endpoints.takeReading, {
      body: {
        ...body,
        spots: [1, 2].map(() => ({ id: twice, typed: '204.6', pitches: 16 })),
        odometer: { id: v7(), typed: '99999', unit: 'km', lower: 'as-it-is' },
      },
    })
    expect(status).toBe(409)
    const after = await shop.device.ask(endpoints.bike, { params: { id: bike.id } })
    expect(after.body).toEqual(before.body)
  })
})
