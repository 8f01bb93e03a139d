import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import { FitBaseType, FitEncoder } from 'fit-file-parser'
import yazl from 'yazl'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { DEFAULTS } from '@pelrin/core'
import { endpoints, type ImportLine, type RideImport } from '@pelrin/contract'
import { RidesStandIn } from '@pelrin/standins/rides'
import { bikeNamed, Device, startShop, type RunningShop } from '../testing/shop.ts'
import { csvRides } from './csvRides.ts'
import { tableHead } from './table.ts'
import { readRideFile } from './readFile.ts'

let shop: RunningShop
let bikeId: string
const service = new RidesStandIn(Date.now())
beforeAll(async () => {
  shop = await startShop({ ridesService: await service.listen() })
  bikeId = (await bikeNamed(shop.device, 'old faithful')).id
})
afterAll(async () => {
  await shop.close()
  await service.close()
})

const DAY = 86_400_000
const KM_A_DEGREE = 111.195
/** A ride straight north: so many km over so many minutes, a point every half minute. */
function points(daysAgo: number, km: number, minutes: number): { at: Date; latitude: number }[] {
  const start = Math.floor(Date.now() / DAY) * DAY - daysAgo * DAY + 8 * 3_600_000
  return Array.from({ length: minutes * 2 + 1 }, (_, i) => ({
    at: new Date(start + i * 30_000),
    latitude: 50 + (km / KM_A_DEGREE) * (i / (minutes * 2)),
  }))
}
const gpx = (daysAgo: number, km: number, minutes = 60, before = ''): string =>
  `<?xml version="1.0"?>${before}<gpx version="1.1" creator="x"><trk><name>North</name><trkseg>${points(
    daysAgo,
    km,
    minutes,
  )
    .map(({ at, latitude }) => `<trkpt lat="${latitude}" lon="-4"><time>${at.toISOString()}</time></trkpt>`)
    .join('')}</trkseg></trk></gpx>`
const tcx = (daysAgo: number, km: number, minutes = 60): string =>
  `<TrainingCenterDatabase><Activities><Activity Sport="Biking"><Lap><DistanceMeters>${km * 1000}</DistanceMeters><Track>${points(
    daysAgo,
    km,
    minutes,
  )
    .map(
      ({ at, latitude }) =>
        `<Trackpoint><Time>${at.toISOString()}</Time><Position><LatitudeDegrees>${latitude}</LatitudeDegrees><LongitudeDegrees>-4</LongitudeDegrees></Position></Trackpoint>`,
    )
    .join('')}</Track></Lap></Activity></Activities></TrainingCenterDatabase>`

async function send(files: Record<string, string | Buffer>, id = v7()): Promise<RideImport> {
  const form = new FormData()
  for (const [name, content] of Object.entries(files))
    form.append('files', new Blob([new Uint8Array(Buffer.from(content))]), name)
  const response = await fetch(`${shop.base}/api/v1/bikes/${bikeId}/imports`, {
    method: 'POST',
    headers: { cookie: shop.device.cookie, 'idempotency-key': id },
    body: form,
  })
  if (!response.ok) throw new Error(`${response.status} ${await response.text()}`)
  return read(id)
}
/** The import once its files are read. */
async function read(id: string): Promise<RideImport> {
  for (;;) {
    const { body } = await shop.device.ask(endpoints.rideImport, { params: { id } })
    if (body.state !== 'reading') return body
    await new Promise((done) => setTimeout(done, 50))
  }
}
const confirm = (id: string, surface: 'wet' | null = null): Promise<{ body: RideImport }> =>
  shop.device.ask(endpoints.confirmImport, { params: { id }, body: { surface } })
const rides = async (): Promise<{ km: number; startedAt: string; surface: string | null; title: string | null }[]> =>
  (await shop.device.ask(endpoints.ledger, { params: { id: bikeId } })).body.rides
const outcomes = (lines: readonly ImportLine[]): Record<string, [string, string]> =>
  Object.fromEntries(
    lines.map(({ file, row, outcome, code }) => [row === undefined ? file : `${file}/${row}`, [outcome, code]]),
  )

describe('importing rides', () => {
  it('reads files of every kind, counts one ride in two formats once, and writes nothing before it is told', async () => {
    const before = (await rides()).length
    const read = await send({ 'a.gpx': gpx(20, 18), 'a.tcx': tcx(20, 18.2), 'b.tcx': tcx(21, 25) })
    expect(outcomes(read.lines)).toEqual({
      'a.gpx': ['new', 'ride-new'],
      'a.tcx': ['known', 'ride-twice'],
      'b.tcx': ['new', 'ride-new'],
    })
    expect((await rides()).length).toBe(before)
    const { body } = await confirm(read.id, 'wet')
    expect(body.state).toBe('done')
    const written = (await rides()).filter(({ surface }) => surface === 'wet')
    expect(written.map(({ km }) => Math.round(km))).toEqual(expect.arrayContaining([18, 25]))
    // Confirmed again, and imported again: still once.
    await confirm(read.id)
    const again = await send({ 'a.gpx': gpx(20, 18) })
    expect(outcomes(again.lines)).toEqual({ 'a.gpx': ['known', 'ride-known'] })
    await confirm(again.id)
    expect((await rides()).length).toBe(before + 2)
  })
  it('reads FIT, as it states its distance', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'pelrin-fit-'))
    const start = new Date('2026-04-02T08:00:00Z')
    writeFileSync(join(folder, 'x.fit'), fitFile(start, 21_340, 3_600))
    const [ride] = (await readRideFile(join(folder, 'x.fit'), 'UTC', DEFAULTS.distance, () => null)).rides
    expect(ride).toMatchObject({ from: start.getTime(), to: start.getTime() + 3_600_000 })
    expect(ride!.km).toBeCloseTo(21.34, 3)
  })
  it('takes a zip, whatever is in it, and says of each file what is wrong', async () => {
    const zip = await zipOf({
      'rides/ok.gpx': gpx(30, 12),
      'notes.txt': 'bought milk',
      'photo.jpg': Buffer.from([0xff, 0xd8, 0, 0, 1]),
      'bomb.gpx': gpx(31, 12, 60, '<!DOCTYPE gpx [<!ENTITY a "aaaaaaaa"><!ENTITY b "&a;&a;&a;">]>'),
      'timeless.gpx': gpx(32, 12).replace(/<time>.*?<\/time>/g, ''),
      'cut.gpx': gpx(33, 12).slice(0, 900),
      'wrong.csv': gpx(34, 9),
      'cut.fit': fitFile(new Date(), 1000, 60).subarray(0, 40),
      'empty.gpx': '<gpx></gpx>',
      'pole.gpx': gpx(35, 0.4).replace(/lat="50/g, 'lat="89'),
    })
    const before = (await rides()).length
    const read = await send({ 'all.zip': zip })
    expect(outcomes(read.lines)).toEqual({
      'ok.gpx': ['new', 'ride-new'],
      'notes.txt': ['refused', 'file-unreadable'],
      'photo.jpg': ['refused', 'file-unreadable'],
      'bomb.gpx': ['refused', 'file-entities'],
      'timeless.gpx': ['refused', 'file-without-times'],
      'cut.gpx': ['refused', 'file-broken'],
      'wrong.csv': ['new', 'ride-new'],
      'cut.fit': ['refused', 'file-broken'],
      'empty.gpx': ['refused', 'file-without-ride'],
      'pole.gpx': ['new', 'ride-new'],
    })
    await shop.device.ask(endpoints.cancelImport, { params: { id: read.id }, body: {} })
    const { body } = await shop.device.ask(endpoints.rideImport, { params: { id: read.id } })
    expect(body.state).toBe('cancelled')
    expect(await rides()).toHaveLength(before)
  })
  it('asks once what the columns of a table mean, and remembers', async () => {
    const table =
      '\ufeffDatum;Strecke;Dauer;Wetter\n03.05.2026 08:15;12,5;0:45:00;wet\n04.05.2026 08:15;=1+1;0:30:00;dry\nsoon;3;0:10:00;\n'
    const asked = await send({ 'list.csv': table })
    expect(outcomes(asked.lines)).toEqual({ 'list.csv': ['refused', 'columns-wanted'] })
    expect(asked.tables[0]).toMatchObject({
      file: 'list.csv',
      header: ['Datum', 'Strecke', 'Dauer', 'Wetter'],
      mapping: null,
    })
    const mapping = {
      start: 'Datum',
      distance: 'Strecke',
      duration: 'Dauer',
      surface: 'Wetter',
      unit: 'km' as const,
      dayFirst: true,
    }
    const wrong = await shop.device.ask(endpoints.mapColumns, {
      params: { id: asked.id },
      body: { file: 'list.csv', mapping: { ...mapping, start: 'Day' } },
    })
    expect(wrong.problem.fields?.[0]).toMatchObject({ path: 'mapping.start', code: 'import-columns-missing' })
    await shop.device.ask(endpoints.mapColumns, { params: { id: asked.id }, body: { file: 'list.csv', mapping } })
    await expect
      .poll(async () => outcomes((await read(asked.id)).lines))
      .toEqual({
        'list.csv/1': ['new', 'ride-new'],
        'list.csv/2': ['refused', 'row-formula'],
        'list.csv/3': ['refused', 'row-time-unreadable'],
      })
    await confirm(asked.id)
    expect((await rides()).find(({ km }) => Math.abs(km - 12.5) < 1e-9)).toMatchObject({ surface: 'wet' })
    const next = await send({ 'other.csv': table.replace('03.05', '05.05') })
    expect(outcomes(next.lines)['other.csv/1']).toEqual(['new', 'ride-new'])
  })
  it('gives rides out as a table that comes in again, and as tracks', async () => {
    const get = async (kind: string): Promise<string> =>
      (await shop.device.raw('GET', `/api/v1/bikes/${bikeId}/rides.${kind}`)).text()
    const folder = mkdtempSync(join(tmpdir(), 'pelrin-out-'))
    writeFileSync(join(folder, 'out.csv'), await get('csv'))
    const head = await tableHead(join(folder, 'out.csv'))
    const mapping = {
      start: 'start',
      duration: 'end',
      distance: 'km',
      surface: 'surface',
      title: 'title',
      unit: 'km' as const,
      dayFirst: true,
    }
    const back = await csvRides(join(folder, 'out.csv'), head, mapping, 'UTC', DEFAULTS.distance)
    const known = await rides()
    expect(back.refused).toEqual([])
    expect(back.rides.map(({ km }) => km.toFixed(1)).sort()).toEqual(known.map(({ km }) => km.toFixed(1)).sort())
    writeFileSync(join(folder, 'out.gpx'), await get('gpx'))
    const { rides: tracks } = await readRideFile(join(folder, 'out.gpx'), 'UTC', DEFAULTS.distance, () => null)
    expect(tracks.map(({ km }) => Math.round(km)).sort()).toEqual(expect.arrayContaining([18, 25]))
  })
  it('refuses what is no upload, and who may not write', async () => {
    let { device } = shop
    const post = (body: RequestInit['body'], headers: Record<string, string>): Promise<Response> =>
      fetch(`${shop.base}/api/v1/bikes/${bikeId}/imports`, {
        method: 'POST',
        headers: { cookie: device.cookie, ...headers },
        body: body ?? null,
      })
    expect((await post('x', { 'idempotency-key': v7() })).status).toBe(422)
    expect((await post(new FormData(), { 'idempotency-key': v7() })).status).toBe(422)
    expect((await post(new FormData(), {})).status).toBe(400)
    device = new Device(shop.base)
    await device.signIn('coral', 'slipway-4')
    expect((await post(new FormData(), { 'idempotency-key': v7() })).status).toBe(403)
  })
})

describe('a ride account', () => {
  let accountId: string
  const pull = async () =>
    (await shop.device.ask(endpoints.pullRides, { params: { id: accountId }, body: {} })).body.account!.outcome!
  const atService = (method: string, path: string, body?: object): Promise<Response> =>
    fetch(`http://${address()}/${path}`, { method, ...(body ? { body: JSON.stringify(body) } : {}) })
  let joined = ''
  const address = (): string => joined
  const faults = (given: object): Promise<Response> => atService('POST', 'faults', given)

  it('is joined once a bike, and pulled to its end over pages', async () => {
    bikeId = (await bikeNamed(shop.device, 'shopper')).id
    accountId = v7()
    const { body } = await shop.device.ask(endpoints.joinRideAccount, {
      params: { id: bikeId },
      body: { id: accountId, account: 'ivo-marsh', token: 'tide-table-7' },
    })
    joined = body.account!.address
    const twice = await shop.device.ask(endpoints.joinRideAccount, {
      params: { id: bikeId },
      body: { id: v7(), account: 'nell-quayle', token: 'sandbank-3' },
    })
    expect(twice.problem.code).toBe('account-joined-already')
    const before = (await rides()).length
    expect(await pull()).toMatchObject({ added: 14, stopped: null })
    expect((await rides()).length).toBe(before + 14)
    expect(await pull()).toMatchObject({ added: 0, known: 0 })
  })
  it('follows a ride edited and one deleted at the service', async () => {
    await atService('POST', 'accounts/ivo-marsh/rides/r3', { metres: 31_000 })
    await atService('DELETE', 'accounts/ivo-marsh/rides/r4')
    const before = (await rides()).length
    expect(await pull()).toMatchObject({ changed: 1, removed: 1 })
    expect((await rides()).length).toBe(before - 1)
    expect((await rides()).some(({ km }) => km === 31)).toBe(true)
  })
  it.each([
    ['busy', 'service-busy', 1],
    ['failing', 'service-failed', 2],
    ['half', 'service-garbled', 3],
  ])('keeps what came when the service is %s, and goes on afterwards', async (fault, code, hoursLater) => {
    const start = Date.now() - 2 * DAY + hoursLater * 3_600_000
    const id = v7()
    await atService('POST', 'accounts/ivo-marsh/rides', {
      id,
      start: new Date(start).toISOString(),
      end: new Date(start + 1_800_000).toISOString(),
      metres: 9_000,
      name: fault,
    })
    await faults({ [fault]: true })
    expect(await pull()).toMatchObject({ added: 0, stopped: code })
    await faults({ [fault]: false, duplicates: true })
    expect(await pull()).toMatchObject({ added: 1, stopped: null })
    await faults({ duplicates: false })
    expect((await rides()).filter(({ title }) => title === fault)).toHaveLength(1)
  })
  it('whose token is wrong is said to be refused', async () => {
    await shop.device.ask(endpoints.leaveRideAccount, { params: { id: accountId }, body: {} })
    accountId = v7()
    await shop.device.ask(endpoints.joinRideAccount, {
      params: { id: bikeId },
      body: { id: accountId, account: 'ivo-marsh', token: 'wrong' },
    })
    expect(await pull()).toMatchObject({ stopped: 'service-refused' })
  })
})

/** A FIT file of a ride without a track. */
function fitFile(start: Date, metres: number, seconds: number): Buffer {
  const begin = FitEncoder.toFitTimestamp(start)
  const number32 = (number: number, value: number) => ({ number, size: 4, baseType: FitBaseType.Uint32, value })
  return Buffer.from(
    new FitEncoder()
      .writeMessage(0, [{ number: 0, size: 1, baseType: FitBaseType.Enum, value: 4 }])
      .writeMessage(18, [
        number32(253, begin + seconds),
        number32(2, begin),
        number32(7, seconds * 1000),
        number32(9, metres * 100),
      ])
      .close(),
  )
}

function zipOf(files: Record<string, string | Buffer>): Promise<Buffer> {
  const zip = new yazl.ZipFile()
  for (const [name, content] of Object.entries(files)) zip.addBuffer(Buffer.from(content), name)
  zip.end()
  return buffer(zip.outputStream)
}
