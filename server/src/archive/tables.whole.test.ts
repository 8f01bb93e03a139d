import { parse } from 'csv-parse/sync'
import { stringify } from 'csv-stringify/sync'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, TABLE_NAMES, type TableName, type TablePreview } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { startOwnShop, startShop, type RunningShop } from '../testing/shop.ts'
import { rebuildState } from '../state/bikeState.ts'

type Row = Record<string, string>
/** Bikes of every kind of story: chains in rotation, one changed after another, rides by the hundred. */
const BIKES = /^(Courier|Causeway|Sand racer|Crew bike 1|Mail 2|Salt|Bakery cargo|Club bike)/i

let from: RunningShop
let into: RunningShop
beforeAll(async () => {
  from = await startShop()
  into = await startOwnShop()
})
afterAll(() => Promise.all([from.close(), into.close()]))

const out = async (shop: RunningShop, name: TableName): Promise<Row[]> =>
  parse(await (await shop.device.raw('GET', `/api/v1/export/${name}.csv`)).text(), { columns: true, bom: true })
const send = async (name: TableName, text: string, way: string, fields: Row = {}): Promise<Response> => {
  const form = new FormData()
  for (const [key, value] of Object.entries(fields)) form.append(key, value)
  form.append('files', new File([text], `${name}.csv`))
  return fetch(`${into.base}/api/v1/import/${name}${way}`, {
    method: 'POST',
    headers: { cookie: into.device.cookie, 'idempotency-key': v7() },
    body: form,
  })
}
/** Takes rows in as whoever looks first does. @returns what was wrong, and how many were added */
async function takenIn(name: TableName, rows: readonly Row[]): Promise<{ wrong: unknown[]; added: number }> {
  const text = stringify([...rows], { header: true })
  const looked = (await (await send(name, text, '/preview')).json()) as TablePreview
  const fields = { mapping: JSON.stringify(looked.mapping), fingerprint: looked.fingerprint }
  const taken = (await (await send(name, text, '', fields)).json()) as { added: number }
  return { wrong: looked.rows.filter(({ outcome }) => outcome !== 'new'), added: taken.added }
}

describe('the tables a shop takes out', () => {
  it('come back whole into an empty one: earlier chains and instruments are made of what they say', async () => {
    const bikes = (await out(from, 'bikes')).filter(({ label = '' }) => BIKES.test(label))
    const ids = new Set(bikes.map(({ id }) => id))
    expect(bikes.length).toBeGreaterThan(8)
    const given = new Map<TableName, Row[]>()
    for (const name of TABLE_NAMES) {
      const rows = name === 'bikes' ? bikes : await out(from, name)
      given.set(
        name,
        name === 'customers' ? rows : rows.filter(({ id, bike_id: of }) => ids.has(name === 'bikes' ? id : of)),
      )
      const { wrong, added } = await takenIn(name, given.get(name)!)
      expect(wrong, name).toEqual([])
      expect(added, name).toBe(given.get(name)!.length)
    }
    // What was typed, when, on which chain and with what is what it was.
    const kept: Partial<Record<TableName, readonly string[]>> = {
      customers: ['id', 'name', 'phone', 'language', 'reminders'],
      bikes: ['id', 'customer', 'label', 'tag', 'drive', 'fronts', 'sprockets', 'chain', 'chain_since'],
      rides: ['id', 'bike_id', 'start', 'end', 'km', 'surface', 'title'],
      care: ['id', 'bike_id', 'chain', 'at', 'what', 'care', 'cleaning', 'at_home'],
      readings: ['reading_id', 'bike_id', 'chain', 'at', 'instrument', 'typed', 'pitches', 'place', 'mode', 'picture'],
    }
    for (const [name, columns] of Object.entries(kept) as [TableName, string[]][]) {
      const only = (rows: readonly Row[]): string[] =>
        rows.map((row) => columns.map((column) => row[column]).join(' | ')).sort()
      expect(only(await out(into, name)), name).toEqual(only(given.get(name)!))
    }
    const { id: shopId } = (await into.device.ask(endpoints.session)).body.shop
    expect((await inShop(into.database, shopId, null, rebuildState)).differing).toEqual([])
    // Brought in once more, all of it is here.
    const again = await takenIn('care', given.get('care')!)
    expect(again).toEqual({ wrong: [], added: 0 })
  })
  it('are looked through whole, of more rows than anybody types', async () => {
    const rows = Array.from({ length: 2_100 }, (_, i) => ({ name: `Customer ${i}`, phone: `0555 ${i}` }))
    const looked = (await (
      await send('customers', stringify(rows, { header: true }), '/preview')
    ).json()) as TablePreview
    expect(looked.counts.new).toBe(2_100)
  })
})
