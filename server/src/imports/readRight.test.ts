import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import iconv from 'iconv-lite'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { DEFAULTS } from '@pelrin/core'
import type { CsvMapping } from '@pelrin/contract'
import { readRideFile, type FileRead } from './readFile.ts'
import { tableHead } from './table.ts'

let folder: string
beforeAll(async () => void (folder = await mkdtemp(join(tmpdir(), 'pelrin-read-'))))
afterAll(() => rm(folder, { recursive: true, force: true }))
const file = async (content: string | Buffer): Promise<string> => {
  const path = join(folder, `f${Math.random().toString(36).slice(2)}`)
  await writeFile(path, content)
  return path
}
const read = async (content: string | Buffer, mapping: CsvMapping | null = null): Promise<FileRead> =>
  readRideFile(await file(content), 'Europe/London', DEFAULTS.distance, () => mapping)

const points = (times = true, extension = ''): string =>
  Array.from(
    { length: 61 },
    (_, i) =>
      `<trkpt lat="${50 + i * 0.002}" lon="-4">${times ? `<time>2026-06-05T09:${String(i % 60).padStart(2, '0')}:${i === 60 ? '59' : '00'}Z</time>` : ''}${extension}</trkpt>`,
  ).join('')
const track = (inside: string): string => `<trk>${inside}<trkseg>${points()}</trkseg></trk>`
const gpx = (inside: string, head = ''): string => `${head}<gpx version="1.1">${inside}</gpx>`

describe('days of a table', () => {
  const mapping = (dayFirst: boolean): CsvMapping => ({
    ...{ start: 'start', duration: 'minutes', distance: 'km', dayFirst, unit: 'km' },
  })
  const startOf = async (typed: string, dayFirst = true): Promise<string | null> => {
    const { rides } = await read(`start,minutes,km\n${typed},60,20\n`, mapping(dayFirst))
    return rides[0] ? new Date(rides[0].from).toISOString() : null
  }
  it.each([
    ['05-06-2026', '2026-06-04T23:00:00.000Z'],
    ['05-06-2026 14:30', '2026-06-05T13:30:00.000Z'],
    ['5/6/2026 14:30', '2026-06-05T13:30:00.000Z'],
    ['2026-06-05T14:30:00+02:00', '2026-06-05T12:30:00.000Z'],
    ['2026-06-05 14:30Z', '2026-06-05T14:30:00.000Z'],
  ])('%s, day first, in the shop’s zone', async (typed, moment) => expect(await startOf(typed)).toBe(moment))
  it('are the other way round where that is said, and nothing where they are none', async () => {
    expect(await startOf('05-06-2026', false)).toBe('2026-05-05T23:00:00.000Z')
    expect(await startOf('31-31-2026')).toBeNull()
  })
})

describe('how the days of a table are written', () => {
  const daysOf = async (...cells: string[]) =>
    (await tableHead(await file(`start,km\n${cells.map((cell) => `${cell},20\n`).join('')}`))).days['start']
  it('is told by days past the twelfth, whichever row has one', async () => {
    expect(await daysOf('05/06/2026', '17/06/2026')).toEqual({ order: 'day-first', examples: ['05/06/2026'] })
    expect(await daysOf('05/06/2026', '06/17/2026 14:30')).toMatchObject({ order: 'month-first' })
  })
  it('is asked about where none is, or where they tell both, with the file’s own cells', async () => {
    expect(await daysOf('05/06/2026', '1.2.2026', '05/06/2026')).toEqual({
      order: null,
      examples: ['05/06/2026', '1.2.2026'],
    })
    expect(await daysOf('17/06/2026', '06/17/2026', '05/06/2026')).toMatchObject({ order: null })
  })
  it('is no question where every day says it itself, or is the same either way', async () => {
    expect(await daysOf('2026-06-05', '5 Jun 2026')).toBeUndefined()
    expect(await daysOf('06/06/2026')).toMatchObject({ order: 'day-first' })
  })
})

describe('letters of a table', () => {
  const table = 'Kunde;Größe\nMüller;£ 5\nNuñez;3\n'
  it.each(['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'])('in %s', async (encoding) => {
    const withMark = encoding.startsWith('utf-16')
    const head = await tableHead(await file(iconv.encode(table, encoding, { addBOM: withMark })))
    expect(head).toMatchObject({ header: ['Kunde', 'Größe'], delimiter: ';' })
    expect(head.rows[0]).toEqual(['Müller', '£ 5'])
  })
  it('with a first line that only names the sign between them', async () => {
    const head = await tableHead(await file('sep=;\r\nname;phone\r\nHale, Merrin;0555\r\n'))
    expect(head).toMatchObject({ header: ['name', 'phone'], rows: [['Hale, Merrin', '0555']] })
  })
})

describe('tracks', () => {
  it('have their names in old letters, and in sections that are taken as they are', async () => {
    const head = '<?xml version="1.0" encoding="ISO-8859-1"?>'
    const { rides } = await read(iconv.encode(gpx(track('<name>Über den Steg</name>'), head), 'latin1'))
    expect(rides[0]!.title).toBe('Über den Steg')
    const within = await read(gpx(track('<name><![CDATA[Salt & sand]]></name>')))
    expect(within.rides[0]!.title).toBe('Salt & sand')
  })
  it('without times are left out, and the others are not', async () => {
    const { rides } = await read(gpx(`<trk><trkseg>${points(false)}</trkseg></trk>${track('<name>With</name>')}`))
    expect(rides.map(({ title }) => title)).toEqual(['With'])
    await expect(read(gpx(`<trk><trkseg>${points(false)}</trkseg></trk>`))).rejects.toThrow('file-without-times')
  })
  it('have the time of a point, not one inside what is added to it', async () => {
    const added = '<extensions><x:sensor><x:time>1999-01-01T00:00:00Z</x:time></x:sensor></extensions>'
    const { rides } = await read(gpx(`<trk><trkseg>${points(true, added)}</trkseg></trk>`))
    expect(new Date(rides[0]!.from).toISOString()).toBe('2026-06-05T09:00:00.000Z')
  })
  it('count for a chain where they were ridden: no run, no paddle', async () => {
    const { rides } = await read(gpx(track('<type>running</type>') + track('<name>Ridden</name><type>cycling</type>')))
    expect(rides.map(({ title }) => title)).toEqual(['Ridden'])
    await expect(read(gpx(track('<type>kayaking</type>')))).rejects.toThrow('file-other-sport')
    // Numbers and words that say nothing are believed to be, since somebody brought the file to a bike.
    expect((await read(gpx(track('<type>1</type>') + track('<type>Other</type>')))).rides).toHaveLength(2)
  })
  it('of a trainer have no positions, and no dirt; of several sports each part is one of its own', async () => {
    const lap = (sport: string, km: number) =>
      `<Activity Sport="${sport}"><Lap StartTime="2026-06-05T18:00:00Z"><TotalTimeSeconds>3600</TotalTimeSeconds><DistanceMeters>${km * 1000}</DistanceMeters></Lap></Activity>`
    const { rides } = await read(
      `<TrainingCenterDatabase><Activities><MultiSportSession>${lap('Running', 10)}${lap('Biking', 31.5)}</MultiSportSession></Activities></TrainingCenterDatabase>`,
    )
    expect(rides).toMatchObject([{ km: 31.5, surface: 'indoor', points: null }])
    expect(rides[0]!.to - rides[0]!.from).toBe(3_600_000)
  })
  it('of a virtual ride are indoors, whatever their track says', async () => {
    const { rides } = await read(gpx(track('<type>VirtualRide</type>') + track('<type>cycling</type>')))
    expect(rides.map(({ surface, points: kept }) => [surface, kept === null])).toEqual([
      ['indoor', true],
      [null, false],
    ])
  })
  it('packed are read, and nothing that is packed twice', async () => {
    const packed = gzipSync(gpx(track('<name>Packed</name>')))
    expect((await read(packed)).rides[0]!.title).toBe('Packed')
    await expect(read(gzipSync(packed))).rejects.toThrow('file-expands')
    await expect(read(packed.subarray(0, 60))).rejects.toThrow('file-broken')
  })
})
