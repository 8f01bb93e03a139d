import { parse } from 'csv-parse/sync'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { endpoints, TABLE_NAMES, type TableName, type TablePreview, type TableTaken } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { rebuildState } from '../state/bikeState.ts'
import { bikeNamed, Device, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
let shopId: string
beforeAll(async () => {
  shop = await startShop()
  shopId = (await shop.device.ask(endpoints.session)).body.shop.id
})
afterAll(() => shop.close())

async function send(
  path: string,
  csv: string,
  { fields = {}, key, device = shop.device }: { fields?: Record<string, string>; key?: string; device?: Device } = {},
): Promise<Response> {
  const form = new FormData()
  for (const [name, value] of Object.entries(fields)) form.append(name, value)
  form.append('files', new File([csv], 'table.csv'))
  return fetch(`${shop.base}/api/v1/import/${path}`, {
    method: 'POST',
    headers: { cookie: device.cookie, ...(key === undefined ? {} : { 'idempotency-key': key }) },
    body: form,
  })
}
const look = async (name: TableName, csv: string): Promise<TablePreview> => {
  const answer = await send(`${name}/preview`, csv)
  expect(answer.status).toBe(200)
  return (await answer.json()) as TablePreview
}
const take = async (name: TableName, csv: string, skip: number[] = [], key = v7()): Promise<TableTaken> => {
  const { mapping, fingerprint } = await look(name, csv)
  const fields = { mapping: JSON.stringify(mapping), fingerprint, skip: JSON.stringify(skip) }
  const answer = await send(name, csv, { fields, key })
  expect(answer.status).toBe(200)
  return (await answer.json()) as TableTaken
}
/** A table of rides looked at, and taken, with what was said of its days. */
const withDays = async (csv: string, dayFirst?: 'yes' | 'no') => {
  const said = dayFirst === undefined ? {} : { dayFirst }
  const looked = (await (await send('rides/preview', csv, { fields: said })).json()) as TablePreview
  const { mapping, fingerprint } = looked
  const taken = await send('rides', csv, {
    fields: { ...said, mapping: JSON.stringify(mapping), fingerprint },
    key: v7(),
  })
  return { looked, taken }
}
const exported = async (name: TableName): Promise<string> =>
  (await shop.device.raw('GET', `/api/v1/export/${name}.csv`)).text()
const head = (csv: string, rows: number): string =>
  csv
    .split('\n')
    .slice(0, rows + 1)
    .join('\n')

const BIKES = `customer,label,tag,kind,drive,speeds,fronts,sprockets,motor,chain,pitches,chain_care,chain_since,chain_new
Edda Fennel,Estuary,7001,gravel,derailleur,11,40,11-13-15-17-19-21-24-28-32-37-42,yes,Tindrel 11,114,dry-oil,2026-03-01,yes
Edda Fennel,Shopper,7002,town,hub-gear,8,38,19,no,Tindrel Broad,,,2026-03-01,no
`

describe('a table that comes in', () => {
  it.each(TABLE_NAMES)('%s: what was taken out here is the same, and adds nothing', async (name) => {
    const preview = await look(name, head(await exported(name), 60))
    expect(preview.counts).toMatchObject({ new: 0, wrong: 0, conflict: 0 })
    expect(preview.counts.same).toBeGreaterThan(10)
  })
  it('is only looked at until it is taken; then bikes are found, judged and have their chain since when it says', async () => {
    const preview = await look('bikes', BIKES)
    expect(preview.counts).toEqual({ new: 2, same: 0, conflict: 0, wrong: 0 })
    expect((await shop.device.ask(endpoints.customers, { query: { q: 'edda fennel' } })).body).toEqual([])
    expect(await take('bikes', BIKES)).toEqual({ added: 2, left: 0 })
    const found = [await bikeNamed(shop.device, '7001'), await bikeNamed(shop.device, '7002')]
    expect(found.map(({ tag }) => tag)).toEqual(['7001', '7002'])
    expect(new Set(found.map(({ customer }) => customer.id)).size).toBe(1)
    const estuary = found.find(({ tag }) => tag === '7001')!
    const { body: record } = await shop.device.ask(endpoints.bike, { params: { id: estuary.id } })
    expect(record.chain).toMatchObject({ name: 'Tindrel 11', pitches: 114, care: 'dry-oil', start: 'fitted' })
    // Who does not say that it went on new says nothing of what it had run; a motor is minded in every job.
    const { body: other } = await shop.device.ask(endpoints.bike, { params: { id: found[1]!.id } })
    expect(other.chain!.start).toBe('unknown')
    const { body: parts } = await shop.device.ask(endpoints.bikeParts, { params: { id: estuary.id } })
    expect(parts.drive.motor).toBe(true)
    // Noon of the day, by the shop's own clock.
    expect(record.chain!.fittedAt).toBe('2026-03-01T12:00:00.000Z')
  })
  it('brings rides, care and readings of theirs, by tag, in the shop’s own time', async () => {
    const rides = `tag,start,end,km,surface
7001,2026-07-04 09:00,2026-07-04 11:30,62.5,dry
7001,2026-07-05T08:00:00Z,2026-07-05T09:00:00Z,24,
`
    expect(await take('rides', rides)).toEqual({ added: 2, left: 0 })
    const care = `tag,at,what,care,cleaning,at_home
7001,2026-06-01,treated,wet-oil,strip,yes
`
    expect(await take('care', care)).toEqual({ added: 1, left: 0 })
    const readings = `tag,at,instrument,typed,pitches
7001,2026-07-06 10:00,"Steel rule, 600 mm",204.1,16
7001,2026-07-06 10:00,"Steel rule, 600 mm",204.2,16
`
    expect(await take('readings', readings)).toEqual({ added: 2, left: 0 })
    const bike = await bikeNamed(shop.device, '7001')
    const { body: record } = await shop.device.ask(endpoints.bike, { params: { id: bike.id } })
    expect(record.readings).toHaveLength(1)
    expect(record.readings[0]!.spots.map(({ typed }) => typed)).toEqual(['204.1', '204.2'])
    // British summer time is an hour ahead.
    expect(record.readings[0]!.occurredAt).toBe('2026-07-06T09:00:00.000Z')
    expect(record.chain!.care).toBe('wet-oil')
    expect(record.summary.chainKm).toBeCloseTo(86.5, 3)
    expect(await take('rides', rides)).toEqual({ added: 0, left: 2 })
    expect(await take('readings', readings)).toEqual({ added: 0, left: 2 })
  })
  it('says in which cell what is wrong and where what is here says otherwise; that stays as it is', async () => {
    const preview = await look(
      'bikes',
      `customer,label,tag,kind,drive,speeds,fronts,sprockets
Edda Fennel,Estuary,7001,road,derailleur,11,40,11-13-15-17-19-21-24-28-32-37-42
Hale Brandt,Ferry,7003,town,belt,8,38,19
Hale Brandt,,7004,town,hub-gear,8,4,19
Hale Brandt,Quay,7005,town,hub-gear,8,4,19
`,
    )
    expect(preview.counts).toEqual({ new: 0, same: 0, conflict: 1, wrong: 3 })
    expect(preview.rows.map(({ row, outcome }) => [row, outcome])).toEqual([
      [2, 'wrong'],
      [3, 'wrong'],
      [4, 'wrong'],
      [1, 'conflict'],
    ])
    expect(preview.rows.map(({ problems }) => problems.map(({ field, cell }) => `${field} ${cell}`))).toEqual([
      ['drive belt'],
      ['label '],
      ['fronts 4'],
      [],
    ])
    expect(preview.rows[0]!.problems[0]!.detail).toBe('One of these: derailleur, hub-gear, single-speed.')
    expect(preview.rows[3]!.differs).toEqual([{ field: 'kind', here: 'gravel', given: 'road' }])
  })
  it('tells rows that cannot be followed: a bike that is not here, a time before its chain, a ride faster than any', async () => {
    const preview = await look(
      'rides',
      `tag,start,end,km
9999,2026-07-04 09:00,2026-07-04 11:30,62
7001,2026-07-08 09:00,2026-07-08 09:30,200
7001,2026-13-08 09:00,2026-07-08 09:30,20
`,
    )
    expect(preview.rows.map(({ problems }) => problems.map(({ field }) => field))).toEqual([['tag'], ['km'], ['start']])
    const spots = await look(
      'readings',
      'tag,at,instrument,typed,pitches\n7001,2026-07-10 10:00,"Steel rule, 600 mm",204.1,16\n7001,2026-07-10 10:00,"Steel rule, 600 mm",nothing,16\n',
    )
    // One reading: neither of its rows is taken, and what is wrong stands at the one that is.
    expect(spots.counts).toMatchObject({ new: 0, wrong: 2 })
    expect(spots.rows.map(({ row, problems }) => [row, problems.map(({ field }) => field)])).toEqual([
      [1, []],
      [2, ['typed']],
    ])
    const readings = await look(
      'readings',
      'tag,at,instrument,typed,pitches\n7001,2025-01-01,"Steel rule, 600 mm",204.1,16\n7001,2026-07-09,Laser,204.1,16\n',
    )
    expect(readings.rows.map(({ problems }) => problems.map(({ field }) => field))).toEqual([['at'], ['instrument']])
  })
  it('leaves chosen rows out, is written once however often it is sent, and never another than was looked at', async () => {
    const csv = 'name,phone\nMerrin Hale,0555 0301\nTamsin Lode,0555 0302\n'
    const { mapping, fingerprint } = await look('customers', csv)
    const fields = { mapping: JSON.stringify(mapping), fingerprint, skip: '[2]' }
    const key = v7()
    const [one, two] = [await send('customers', csv, { fields, key }), await send('customers', csv, { fields, key })]
    expect([await one.json(), await two.json()]).toEqual([
      { added: 1, left: 0 },
      { added: 1, left: 0 },
    ])
    const names = parse<{ name: string }>(await exported('customers'), { columns: true, bom: true })
    expect(names.filter(({ name }) => name === 'Merrin Hale')).toHaveLength(1)
    expect(names.some(({ name }) => name === 'Tamsin Lode')).toBe(false)
    const other = await send('customers', csv.replace('0302', '0303'), { fields, key: v7() })
    expect([other.status, ((await other.json()) as { code: string }).code]).toEqual([409, 'file-changed'])
  })
  it('is the owner’s, and one there is', async () => {
    const mechanic = new Device(shop.base)
    await mechanic.signIn('ruan', 'chalkdown-2')
    expect((await send('customers/preview', 'name,phone\nA,1\n', { device: mechanic })).status).toBe(403)
    expect((await send('people/preview', 'name,phone\nA,1\n')).status).toBe(404)
    expect(((await (await send('customers/preview', '\u0000')).json()) as { code: string }).code).toBe(
      'file-unreadable',
    )
  })
  it('leaves every bike in the state its facts give', async () => {
    expect((await inShop(shop.database, shopId, null, rebuildState)).differing).toEqual([])
  })
})

describe('days of a table that can be read two ways', () => {
  const rides = (...starts: string[]): string =>
    `tag;start;end;km;title\n${starts.map((start, i) => `0400;${start} 09:00;${start} 10:00;2${i};By days ${start}`).join('\n')}\n`
  const startsOf = async (): Promise<string[]> =>
    (
      await inShop(shop.database, shopId, null, (work) =>
        work.select<{ at: string }>(
          `SELECT to_char(occurred_at AT TIME ZONE 'Europe/London', 'YYYY-MM-DD HH24:MI') AS at FROM rides WHERE title LIKE 'By days%' ORDER BY 1`,
        ),
      )
    ).map(({ at }) => at)
  it('are asked about with the file’s own cells, and nothing is taken before somebody said', async () => {
    const { looked, taken } = await withDays(rides('05/06/2021'))
    expect(looked.days).toEqual({ order: null, examples: ['05/06/2021 09:00', '05/06/2021 10:00'] })
    expect(looked.written).toEqual({ encoding: 'utf-8', delimiter: ';' })
    expect(((await taken.json()) as { code: string }).code).toBe('days-unsaid')
  })
  it('are what was said, in the shop’s zone', async () => {
    const { looked, taken } = await withDays(rides('05/06/2021'), 'no')
    expect(looked.counts).toMatchObject({ new: 1, wrong: 0 })
    expect(taken.status).toBe(200)
    expect(await startsOf()).toEqual(['2021-05-06 09:00'])
  })
  it('are told by the file where a day of it is past the twelfth', async () => {
    const { looked, taken } = await withDays(rides('05/07/2021', '17/07/2021'))
    expect(looked.days).toMatchObject({ order: 'day-first' })
    expect(taken.status).toBe(200)
    expect(await startsOf()).toEqual(['2021-05-06 09:00', '2021-07-05 09:00', '2021-07-17 09:00'])
  })
})

describe('instruments a table only names', () => {
  const csv = `tag;at;instrument;typed;pitches\n0400;2026-11-02 10:00;Old brass rule;204.1;16\n0400;2026-11-09 10:00;Old brass rule;204.2;16\n`
  it('are asked for once for all their rows, and hang on the wall once told', async () => {
    const preview = await look('readings', csv)
    expect(preview.instruments).toEqual(['Old brass rule'])
    expect(preview.counts).toMatchObject({ new: 0, wrong: 2 })
    const fields = { instruments: JSON.stringify({ 'Old brass rule': 'steel-rule' }) }
    const told = (await (await send('readings/preview', csv, { fields })).json()) as TablePreview
    expect(told).toMatchObject({ instruments: [], counts: { new: 2, wrong: 0 } })
    const { mapping, fingerprint } = told
    const taken = await send('readings', csv, {
      fields: { ...fields, mapping: JSON.stringify(mapping), fingerprint },
      key: v7(),
    })
    expect(await taken.json()).toMatchObject({ added: 2 })
    const { body: wall } = await shop.device.ask(endpoints.instruments)
    expect(wall.filter(({ name }) => name === 'Old brass rule')).toMatchObject([{ kind: 'steel-rule' }])
  })
})
