import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { FitWriter } from '@markw65/fit-file-writer'
import { gpx as asGeoJson } from '@tmcw/togeojson'
import { DOMParser } from '@xmldom/xmldom'
import { BaseBuilder, buildGPX } from 'gpx-builder'
import Papa from 'papaparse'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { DEFAULTS } from '@pelrin/core'
import { endpoints } from '@pelrin/contract'
import { bikeNamed, startShop, type RunningShop } from '../testing/shop.ts'
import { readRideFile, type FileRead } from './readFile.ts'

/** Files by writers, and read by readers, that know nothing of ours. */

let folder: string
beforeAll(async () => void (folder = await mkdtemp(join(tmpdir(), 'pelrin-independent-'))))
afterAll(() => rm(folder, { recursive: true, force: true }))
const read = async (content: string | Buffer): Promise<FileRead> => {
  const path = join(folder, v7())
  await writeFile(path, content)
  return readRideFile(path, 'Europe/London', DEFAULTS.distance, () => null)
}

const BEGAN = new Date('2026-06-05T08:00:00Z')
type Sport = { readonly sport: string; readonly sub_sport: string }
/** A FIT file of an hour of something, its sessions one after the other. */
function fit(sessions: readonly (Sport & { readonly km: number; readonly track: boolean })[]): Buffer {
  const writer = new FitWriter()
  const time = (minutes: number) => writer.time(new Date(BEGAN.getTime() + minutes * 60_000))
  const write = (kind: string, fields: object, last = true): void =>
    writer.writeMessage(kind as 'record', fields as never, null, last)
  write('file_id', {
    type: 'activity',
    manufacturer: 'development',
    product: 1,
    serial_number: 7,
    time_created: time(0),
  })
  sessions.forEach(({ sport, sub_sport, km, track }, i) => {
    for (let minute = 0; minute <= 59; minute++)
      write(
        'record',
        {
          timestamp: time(i * 60 + minute),
          distance: (km * 1000 * minute) / 59,
          ...(track ? { position_lat: writer.latlng(0.87 + minute * 3e-5), position_long: writer.latlng(-0.07) } : {}),
        },
        minute === 59,
      )
    write('session', {
      timestamp: time(i * 60 + 59),
      start_time: time(i * 60),
      total_elapsed_time: 3540,
      total_timer_time: 3540,
      total_distance: km * 1000,
      sport,
      sub_sport,
    })
  })
  write('activity', { timestamp: time(60), total_timer_time: 3540, num_sessions: sessions.length, type: 'manual' })
  return Buffer.from(writer.finish().buffer)
}

describe('files of other writers', () => {
  it('FIT: a ride comes in with its distance and its track', async () => {
    const { rides } = await read(fit([{ sport: 'cycling', sub_sport: 'road', km: 24, track: true }]))
    expect(rides).toHaveLength(1)
    expect(rides[0]).toMatchObject({ from: BEGAN.getTime(), surface: null })
    expect(rides[0]!.km).toBeCloseTo(24, 1)
    expect(rides[0]!.points).not.toBeNull()
  })
  it('FIT: a run is none, and of a day of several sports the cycling counts', async () => {
    await expect(read(fit([{ sport: 'running', sub_sport: 'generic', km: 10, track: true }]))).rejects.toThrow(
      'file-other-sport',
    )
    const { rides } = await read(
      fit([
        { sport: 'running', sub_sport: 'generic', km: 10, track: false },
        { sport: 'cycling', sub_sport: 'road', km: 40, track: false },
      ]),
    )
    expect(rides).toHaveLength(1)
    expect(rides[0]!.km).toBeCloseTo(40, 3)
  })
  it('FIT: an hour on the trainer is indoors, with a track of nowhere or with none', async () => {
    for (const track of [true, false]) {
      const { rides } = await read(fit([{ sport: 'cycling', sub_sport: 'virtual_activity', km: 30, track }]))
      expect(rides).toMatchObject([{ surface: 'indoor', points: null }])
      expect(rides[0]!.km).toBeCloseTo(30, 1)
    }
  })
  it('GPX: a track comes in with its name and distance', async () => {
    const builder = new BaseBuilder()
    builder.setSegmentPoints(
      Array.from(
        { length: 61 },
        (_, i) => new BaseBuilder.MODELS.Point(50 + i * 0.002, -4, { time: new Date(BEGAN.getTime() + i * 60_000) }),
      ),
    )
    const { rides } = await read(buildGPX(builder.toObject()))
    expect(rides).toHaveLength(1)
    // 60 steps of 0.002° along a meridian.
    expect(rides[0]!.km).toBeCloseTo((60 * 0.002 * Math.PI * 6371.0088) / 180, 1)
    expect(rides[0]!.from).toBe(BEGAN.getTime())
  })
})

/** A track as a reader of maps has it. */
interface Drawn {
  readonly geometry: { readonly type: string; readonly coordinates: readonly number[][] }
  readonly properties: { readonly coordinateProperties: { readonly times: readonly string[] } }
}

describe('files for other readers', () => {
  let shop: RunningShop
  beforeAll(async () => void (shop = await startShop()))
  afterAll(() => shop.close())
  it('GPX: a reader of maps finds each track with its times', async () => {
    const { id } = await bikeNamed(shop.device, 'causeway')
    const form = new FormData()
    form.append('files', new Blob([fit([{ sport: 'cycling', sub_sport: 'road', km: 24, track: true }])]), 'ride.fit')
    await shop.device.raw('POST', `/api/v1/bikes/${id}/imports`, { 'idempotency-key': v7() }, form as never)
    let importId = ''
    await expect
      .poll(
        async () => {
          const [newest] = (await shop.device.ask(endpoints.imports, { params: { id } })).body
          importId = newest?.id ?? ''
          return newest?.state
        },
        { timeout: 20_000 },
      )
      .toBe('previewed')
    await shop.device.ask(endpoints.confirmImport, { params: { id: importId }, body: { surface: null } })
    const text = await (await shop.device.raw('GET', `/api/v1/bikes/${id}/rides.gpx`)).text()
    const { features } = asGeoJson(new DOMParser().parseFromString(text, 'text/xml')) as unknown as {
      features: readonly Drawn[]
    }
    const track = features.find(({ geometry }) => geometry.type === 'LineString')
    expect(track?.geometry.coordinates).toHaveLength(60)
    expect(track?.properties.coordinateProperties.times[0]).toBe('2026-06-05T08:00:00.000Z')
  })
  it('CSV: a reader of tables finds every row and every cell as it is shown', async () => {
    for (const name of ['customers', 'bikes', 'rides', 'care', 'readings']) {
      const text = await (await shop.device.raw('GET', `/api/v1/export/${name}.csv`)).text()
      const { data, errors } = Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true })
      expect(errors, name).toEqual([])
      expect(data.length, name).toBeGreaterThan(50)
      expect(
        Object.values(data[0]!).some((cell) => cell.includes('"')),
        name,
      ).toBe(false)
    }
  })
})
