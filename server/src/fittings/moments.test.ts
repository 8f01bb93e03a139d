import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { bikeNamed, fittingOn, readingOf, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
let shopId: string
beforeAll(async () => {
  shop = await startShop()
  shopId = (await shop.device.ask(endpoints.session)).body.shop.id
})
afterAll(() => shop.close())

const idOf = async (text: string): Promise<string> => (await bikeNamed(shop.device, text)).id
const change = (sql: string, values: Record<string, unknown> = {}): Promise<object[]> =>
  inShop(shop.database, shopId, null, (work) => work.select(sql, values))
/** Another tablet swaps the courier's chain. */
async function swapped(bikeId: string): Promise<void> {
  const { body } = await shop.device.ask(endpoints.bikeChains, { params: { id: bikeId } })
  const next = body.rotation[0]!
  const { status } = await shop.device.ask(endpoints.swapChain, {
    params: { id: bikeId },
    body: { id: v7(), chainId: next.id, click: 'firm', byFeel: true },
  })
  expect(status).toBe(200)
}

describe('a fact that arrives after the chain was changed', () => {
  it('belongs to the chain it was taken on, if that was on the bike then', async () => {
    const bikeId = await idOf('courier')
    const taken = await readingOf(shop.device, bikeId, { occurredAt: new Date(Date.now() - 1_000).toISOString() })
    await swapped(bikeId)
    const now = await fittingOn(shop.device, bikeId)
    expect(now).not.toBe(taken['fittingId'])
    const { status, body } = await shop.device.ask(endpoints.takeReading, { body: taken })
    expect(status).toBe(200)
    const [row] = (await change('SELECT fitting_id AS "fittingId" FROM readings WHERE id = :id', {
      id: taken['id'],
    })) as { fittingId: string }[]
    expect(row!.fittingId).toBe(taken['fittingId'])
    // The chain that is on now is judged by its own readings.
    expect(body.chain!.fittingId).toBe(now)
    expect(body.verdict?.readingId).not.toBe(taken['id'])
  })
  it('is refused, with nothing written, where that chain was not on it then', async () => {
    const bikeId = await idOf('courier')
    const before = await fittingOn(shop.device, bikeId)
    await swapped(bikeId)
    const late = await readingOf(shop.device, bikeId, {
      fittingId: before,
      occurredAt: new Date(Date.now() - 90 * 86_400_000).toISOString(),
    })
    const { status, problem } = await shop.device.ask(endpoints.takeReading, { body: late })
    expect([status, problem.code]).toEqual([409, 'chain-changed-since'])
    const other = await readingOf(shop.device, bikeId, { fittingId: v7() })
    expect((await shop.device.ask(endpoints.takeReading, { body: other })).problem.code).toBe('chain-changed-since')
    expect(await change('SELECT id FROM readings WHERE id IN (:ids)', { ids: [late['id'], other['id']] })).toEqual([])
  })
  it('of care goes the same way; a chain that is off is mended by nobody', async () => {
    const bikeId = await idOf('courier')
    const before = await fittingOn(shop.device, bikeId)
    await swapped(bikeId)
    const wash = {
      id: v7(),
      kind: 'wash' as const,
      occurredAt: new Date(Date.now() - 500).toISOString(),
      fittingId: before,
    }
    expect((await shop.device.ask(endpoints.recordCare, { params: { id: bikeId }, body: wash })).status).toBe(200)
    const rows = await change(
      `SELECT e.id FROM care_events e JOIN fittings f ON f.chain_id = e.chain_id WHERE e.id = :id AND f.id = :before`,
      { id: wash.id, before },
    )
    expect(rows).toHaveLength(1)
    const { problem } = await shop.device.ask(endpoints.mendChain, {
      params: { id: bikeId },
      body: {
        id: v7(),
        fittingId: before,
        pitches: 112,
        broken: 'outer',
        damaged: [0],
        cause: 'not-found',
        choice: 'replace',
        mend: null,
        click: null,
        advised: '',
      },
    })
    expect(problem.code).toBe('chain-changed-since')
  })
})

describe('a clock that is off', () => {
  it('on a tablet an hour ahead, or behind, keeps nobody from saving; it lies in our time', async () => {
    const bikeId = await idOf('school pool 3')
    for (const hours of [1, -1]) {
      const off = (moment: number): string => new Date(moment + hours * 3_600_000).toISOString()
      const body = await readingOf(shop.device, bikeId, { occurredAt: off(Date.now() - 60_000) })
      const headers = { 'pelrin-clock': off(Date.now()) }
      const { status, body: record } = await shop.device.ask(endpoints.takeReading, { body, headers })
      expect(status).toBe(200)
      const at = Date.parse(record.readings.find(({ id }) => id === body['id'])!.occurredAt)
      expect(Math.abs(at - (Date.now() - 60_000))).toBeLessThan(20_000)
    }
  })
  it('that leapt ahead and was set back keeps a chain from coming off before it went on', async () => {
    const bikeId = await idOf('courier')
    // What was written while the clock was three hours ahead.
    await change(
      `UPDATE fittings SET during = tstzrange(now() + interval '3 hours', NULL) WHERE bike_id = :bikeId AND upper_inf(during) RETURNING id`,
      { bikeId },
    )
    await change(
      `UPDATE verdicts SET recorded_at = now() + interval '3 hours' WHERE bike_id = :bikeId AND recorded_at =
         (SELECT max(recorded_at) FROM verdicts WHERE bike_id = :bikeId) RETURNING id`,
      { bikeId },
    )
    await swapped(bikeId)
    // The newest verdict is the one that shows.
    const { body } = await shop.device.ask(endpoints.bike, { params: { id: bikeId } })
    const [state] = (await change('SELECT fitting_id AS "fittingId" FROM bike_state WHERE bike_id = :bikeId', {
      bikeId,
    })) as { fittingId: string }[]
    expect(state!.fittingId).toBe(body.chain!.fittingId)
  })
})
