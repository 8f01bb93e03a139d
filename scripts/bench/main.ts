import { chmodSync, createReadStream, createWriteStream, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { cpus, tmpdir, totalmem } from 'node:os'
import { once } from 'node:events'
import { join } from 'node:path'
import { finished } from 'node:stream/promises'
import pg from 'pg'
import { pino } from 'pino'
import { v7 } from 'uuid'
import { crossing, fitWear, matchForBike, nextCheck, planPot, probabilityOverAt, DEFAULTS } from '@pelrin/core'
import { createApp } from '@pelrin/server/app'
import { grantServing, inShop, loadDemo, migrateUp, openDatabase } from '@pelrin/server/db'
import { openForServing } from '../../server/src/db/connection.ts'
import { DeviceAddresses } from '../../server/src/devices/addresses.ts'
import { askForRun, continueRun } from '../../server/src/forecast/runs.ts'
import { readRideFile } from '../../server/src/imports/readFile.ts'
import { Threads } from '../../server/src/queue/threads.ts'
import { startCluster } from '../postgres/cluster.ts'
import { say } from '../plain.ts'
import { catalogueOf, DRIVE } from './catalogue.ts'
import { million } from './million.ts'
import { starting } from './starting.ts'
import { potSession } from './potSession.ts'
import { watched } from './watched.ts'
import { PEOPLE } from '../../server/src/auth/models.ts'

/**
 * `npm run bench [-- --large]`: how fast forecasts, imports and the server are on this machine, each beside a bare floor of
 * the same run, written to docs/bench.md. With --large also a GPX file of 500 MB, a shop of 10 000 chains, and a shop of a million rides
 * taken out and in.
 */
const large = process.argv.includes('--large')
const CORES = cpus().length
const rows: string[][] = []
const sections: string[] = []
const ms = (value: number): string => `${value.toFixed(value < 10 ? 2 : 0)} ms`
const section = (title: string, head: string[]): void => {
  if (rows.length > 0)
    sections.push(
      rows
        .splice(0)
        .map((row) => `| ${row.join(' | ')} |`)
        .join('\n'),
    )
  sections.push(`\n## ${title}\n\n| ${head.join(' | ')} |\n|${head.map(() => '---').join('|')}|`)
}
const row = (...cells: string[]): void => {
  say(cells.join('  '))
  rows.push(cells)
}

// --- forecasts ---
section('Forecasts', ['what', 'chains', 'time', 'a chain', 'chains a second'])
for (const start of ['fitted', 'unknown'] as const) {
  const query = {
    care: 'dry-oil' as const,
    start,
    observations: [0.6, 1.4, 2.2].map((s) => ({ s, value: 0.15 * s, u: 0.05 })),
  }
  const count = 400
  const began = performance.now()
  for (let i = 0; i < count; i++) {
    const posterior = fitWear(query)
    crossing(posterior, { limit: 0.5, probabilities: [0.05, 0.5, 0.95] })
    nextCheck(posterior, { sNow: 2.2, limit: 0.5, risk: 0.1, floor: 0.15, firstCheck: false })
    probabilityOverAt(posterior, { s: 2.2, limit: 0.5 })
  }
  const took = performance.now() - began
  row(
    `fit, crossing, next check, chance; ${start} start, one core`,
    String(count),
    ms(took),
    ms(took / count),
    (1000 / (took / count)).toFixed(0),
  )
}
const pool = new Threads(join(import.meta.dirname, 'forecastTask.ts'), pino({ level: 'silent' }), { most: CORES })
await Promise.all(Array.from({ length: CORES }, (_, i) => pool.run({ count: 40, seed: i })))
for (const count of [100, 1_000, ...(large ? [10_000] : [])]) {
  const began = performance.now()
  const each = Math.ceil(count / (CORES * 4))
  await Promise.all(Array.from({ length: CORES * 4 }, (_, i) => pool.run({ count: each, seed: i })))
  const took = performance.now() - began
  row(
    `whole forecast with worst spots and dates, ${CORES} threads`,
    String(count),
    ms(took),
    ms(took / count),
    ((1000 * count) / took).toFixed(0),
  )
}
await pool.close()

// --- the wax pot ---
section('Planning a session at the pot', ['what', 'chains', 'p50', 'p95', 'late as they came', 'late as planned'])
for (const count of [3, 5, 6, 7, 10, 20, 40, 100]) {
  const session = potSession(count)
  const times: number[] = []
  let planned = planPot(session)
  for (let i = 0; i < 10; i++) {
    const began = performance.now()
    planned = planPot(session)
    times.push(performance.now() - began)
  }
  times.sort((a, b) => a - b)
  row(
    'which go in together and when, one core',
    String(count),
    ms(times[5]!),
    ms(times[9]!),
    `${planned.firstCome.late} min`,
    `${planned.plan.late} min`,
  )
}

// --- parts ---
section('Matching parts', ['what', 'parts', 'p50', 'p95', 'floor: sorting them by name', 'ratio'])
for (const count of [100, 1_000, 10_000]) {
  const catalogue = catalogueOf(count)
  const all = [...catalogue.chains, ...catalogue.joints]
  const times = { match: [] as number[], sort: [] as number[] }
  for (let i = 0; i < 60; i++) {
    let began = performance.now()
    matchForBike({ wants: DRIVE, assumed: DEFAULTS }, catalogue)
    times.match.push(performance.now() - began)
    began = performance.now()
    all.toSorted((a, b) => (a.name < b.name ? -1 : 1))
    times.sort.push(performance.now() - began)
  }
  // The first runs find nothing compiled yet.
  const [match = [], sort = []] = [times.match, times.sort].map((one) => one.slice(10).sort((a, b) => a - b))
  row(
    'chains and joints for one bike, every rule of each, ranked',
    String(count),
    ms(match[25]!),
    ms(match[47]!),
    ms(sort[25]!),
    (match[25]! / sort[25]!).toFixed(1),
  )
}

// --- imports ---
const folder = mkdtempSync(join(tmpdir(), 'pelrin-bench-'))
chmodSync(folder, 0o755)
function gpxText(points: number, daysAgo: number): string {
  const start = Date.now() - daysAgo * 86_400_000
  const lines = Array.from(
    { length: points },
    (_, i) =>
      `<trkpt lat="${50 + i * 4e-5}" lon="-4.1"><ele>12.0</ele><time>${new Date(start + i * 1000).toISOString()}</time></trkpt>`,
  )
  return `<?xml version="1.0"?>\n<gpx version="1.1"><trk><name>Bench</name><trkseg>${lines.join('\n')}</trkseg></trk></gpx>`
}
section('Importing ride files', ['what', 'files', 'size', 'time', 'floor: reading the bytes', 'ratio'])
for (const files of [1, 10, 100]) {
  const paths = Array.from({ length: files }, (_, i) => {
    const path = join(folder, `r${i}.gpx`)
    writeFileSync(path, gpxText(3600, i + 1))
    return path
  })
  const bytes = paths.reduce((sum, path) => sum + statSync(path).size, 0)
  let began = performance.now()
  let readBytes = 0
  for (const path of paths) for await (const chunk of createReadStream(path)) readBytes += (chunk as Buffer).length
  const floor = performance.now() - began
  if (readBytes !== bytes) throw new Error('not every byte was read')
  began = performance.now()
  for (const path of paths) await readRideFile(path, 'UTC', DEFAULTS.distance, () => null)
  const took = performance.now() - began
  row(
    'GPX of an hour, a point a second',
    String(files),
    `${(bytes / 1e6).toFixed(1)} MB`,
    ms(took),
    ms(floor),
    (took / floor).toFixed(0),
  )
}
if (large) {
  const path = join(folder, 'large.gpx')
  const out = createWriteStream(path)
  out.write('<gpx version="1.1"><trk><trkseg>')
  const begin = Date.now() - 40 * 86_400_000
  for (let i = 0; out.bytesWritten + out.writableLength < 500e6; i++)
    if (
      !out.write(
        `<trkpt lat="${50 + i * 1e-7}" lon="-4.1"><time>${new Date(begin + i * 100).toISOString()}</time></trkpt>\n`,
      )
    )
      await once(out, 'drain')
  out.end('</trkseg></trk></gpx>')
  await finished(out)
  const read = await watched('one GPX of 500 MB', async () => {
    await readRideFile(path, 'UTC', DEFAULTS.distance, () => null)
  })
  row(read.what, '1', '500 MB', ms(read.ms), '–', `memory grew by ${read.grew.toFixed(0)} MB`)
}

// --- the server ---
const cluster = await startCluster(folder, { throwaway: true })
const plain = openDatabase(cluster.ownerUrl)
await migrateUp(plain.sequelize)
await grantServing(plain.sequelize, 'pelrin')
const { shopId } = await loadDemo(plain, new Date())
await plain.close()
const database = await openForServing(cluster.url)
const server = createApp({
  database,
  devices: new DeviceAddresses(''),
  logger: pino({ level: 'silent' }),
  jobs: {
    forecastShop: () => Promise.resolve(),
    settleOrder: () => Promise.resolve(),
    sendMessages: () => Promise.resolve(),
    rebuildShop: () => Promise.resolve(),
    learn: () => Promise.resolve({ groups: [], unsaid: null }),
  },
}).listen(0, '127.0.0.1')
await once(server, 'listening')
const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
const signedIn = await fetch(`${base}/api/v1/session`, {
  method: 'POST',
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify({ shop: 'saltmarsh', name: 'tove', password: 'causeway-1' }),
})
const cookie = signedIn.headers.get('set-cookie')?.split(';')[0] ?? ''
const client = new pg.Pool({ connectionString: cluster.ownerUrl, max: 4 })
await client.query('CREATE TABLE bench_floor (id uuid PRIMARY KEY, note text)')
const bare = createServer((request, response) => {
  const done = (body: unknown): void => {
    response.setHeader('content-type', 'application/json')
    response.end(JSON.stringify(body))
  }
  const fail = (): void => void response.writeHead(500).end()
  if (request.method === 'POST')
    client.query('INSERT INTO bench_floor VALUES ($1, $2)', [v7(), 'x']).then(() => done({ ok: true }), fail)
  else client.query('SELECT count(*) FROM bikes').then(({ rows: found }) => done(found), fail)
}).listen(0, '127.0.0.1')
await once(bare, 'listening')
const floorBase = `http://127.0.0.1:${(bare.address() as AddressInfo).port}`

async function timed(count: number, ask: (i: number) => Promise<Response>): Promise<{ p50: number; p95: number }> {
  for (let i = 0; i < 5; i++) await (await ask(-1 - i)).text()
  const times: number[] = []
  for (let i = 0; i < count; i++) {
    const began = performance.now()
    const response = await ask(i)
    await response.text()
    if (!response.ok) throw new Error(`${response.status} ${response.url}`)
    times.push(performance.now() - began)
  }
  times.sort((a, b) => a - b)
  return { p50: times[Math.floor(count * 0.5)]!, p95: times[Math.floor(count * 0.95)]! }
}
const headers = { cookie, 'content-type': 'application/json' }
const get = (path: string) => (): Promise<Response> => fetch(`${base}/api/v1${path}`, { headers })
const [bike] = (await (await get('/find?q=tandem')()).json()) as { id: string }[]
const bikeId = bike?.id ?? ''
const writeRide = (i: number): Promise<Response> => {
  const start = Date.now() - (i + 20) * 3 * 3_600_000
  return fetch(`${base}/api/v1/bikes/${bikeId}/rides`, {
    method: 'POST',
    headers: { ...headers, 'idempotency-key': v7() },
    body: JSON.stringify({
      id: v7(),
      startedAt: new Date(start).toISOString(),
      endedAt: new Date(start + 3_600_000).toISOString(),
      typed: '20',
      unit: 'km',
    }),
  })
}
section('The server, beside bare `http` and `pg`', ['what', 'requests', 'p50', 'p95', 'floor p50', 'ratio'])
const floorRead = await timed(200, () => fetch(floorBase))
const floorWrite = await timed(200, () => fetch(floorBase, { method: 'POST' }))
for (const [name, path] of [
  ['the line-up', '/stand'],
  ['the rack’s first page', '/bikes'],
  ['a bike’s whole record', `/bikes/${bikeId}`],
  ['its ledger', `/bikes/${bikeId}/ledger`],
] as const) {
  const { p50, p95 } = await timed(100, get(path))
  row(name, '100', ms(p50), ms(p95), ms(floorRead.p50), (p50 / floorRead.p50).toFixed(0))
}
for (const count of [10, 100]) {
  const { p50, p95 } = await timed(count, writeRide)
  row(
    `a ride written, judged and forecast (${count} before it)`,
    String(count),
    ms(p50),
    ms(p95),
    ms(floorWrite.p50),
    (p50 / floorWrite.p50).toFixed(0),
  )
}
const people = await inShop(database, shopId, null, (work) =>
  work.of(PEOPLE).findAll({ transaction: work.transaction }),
)
const run = await inShop(database, shopId, { personId: people[0]!.id, deviceId: null, requestId: null }, (work) =>
  askForRun(work, v7()),
)
const began = performance.now()
await continueRun(database, shopId, run.id, Infinity)
const took = performance.now() - began
section('The whole shop', ['what', 'bikes', 'time', 'a bike'])
row(
  'every bike read, judged, forecast and compared in the database, one thread',
  String(run.of),
  ms(took),
  ms(took / run.of),
)
section('Starting, and at rest (without PostgreSQL’s own processes)', ['what', 'value'])
for (const { what, value } of await starting()) row(what, value)
if (large) {
  section('A million rows', ['what', 'time', 'memory grew by'])
  for (const { what, ms: took, grew } of await million(database, shopId, folder))
    row(what, `${(took / 1000).toFixed(1)} s`, `${grew.toFixed(0)} MB`)
}

server.closeAllConnections()
server.close()
bare.closeAllConnections()
bare.close()
await client.end()
await database.close()
await cluster.stop()
rmSync(folder, { recursive: true, force: true })
sections.push(rows.map((cells) => `| ${cells.join(' | ')} |`).join('\n'))
writeFileSync(
  join(import.meta.dirname, '../../docs/bench.md'),
  `# How fast it is

Written by \`npm run bench${large ? ' -- --large' : ''}\` on ${CORES} cores (${cpus()[0]?.model.trim() ?? 'unknown'}), ${(totalmem() / 1e9).toFixed(0)} GB, Node ${process.versions.node}. Ratios are
against a bare floor of the same run; times vary by a factor of two between runs of a shared machine, ratios less.
${sections.join('\n')}
`,
)
