import { once } from 'node:events'
import { mkdirSync, mkdtempSync, readdirSync, statSync, writeFileSync } from 'node:fs'
import { createServer, request } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import pg from 'pg'
import { v7 } from 'uuid'
import yazl from 'yazl'
import { buffer } from 'node:stream/consumers'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { DEFAULTS } from '@pelrin/core'
import { endpoints } from '@pelrin/contract'
import { unzip } from '../imports/unzip.ts'
import { xmlRides } from '../imports/xmlRides.ts'
import { bikeNamed, startShop, superuserOf, type RunningShop } from '../testing/shop.ts'
import { withBody } from './receive.ts'
import { Scratch } from './scratch.ts'

let shop: RunningShop
let bikeId: string
beforeAll(async () => {
  shop = await startShop()
  bikeId = (await bikeNamed(shop.device, 'old faithful')).id
})
afterAll(() => shop.close())

const own = (): string[] =>
  readdirSync(join(tmpdir(), `pelrin-scratch-${process.getuid?.() ?? 0}`)).filter((name) =>
    name.startsWith(`${process.pid}-`),
  )

/** Sends the beginning of a body and is gone, as a tablet that walks out of its network is. */
function cutOff(path: string, headers: Record<string, string>, begun: string, afterMs: number): Promise<void> {
  const { hostname, port } = new URL(shop.base)
  return new Promise((done) => {
    const sent = request({
      hostname,
      port,
      path,
      method: 'POST',
      headers: { cookie: shop.device.cookie, ...headers, 'content-length': '9000000' },
    })
    sent.on('error', () => undefined)
    sent.on('close', () => done())
    sent.write(begun)
    setTimeout(() => sent.destroy(), afterMs)
  })
}
const FORM = { 'content-type': 'multipart/form-data; boundary=x' }
const PART = '--x\r\ncontent-disposition: form-data; name="files"; filename="a.gpx"\r\n\r\n<gpx>'
const answers = async (): Promise<void> => {
  expect((await shop.device.ask(endpoints.lineUp)).status).toBe(200)
}
/** Transactions nobody is working in. */
async function idle(): Promise<number> {
  const client = new pg.Client({ connectionString: superuserOf(shop.url) })
  await client.connect()
  const { rows } = await client.query<{ n: number }>(
    `SELECT count(*)::int AS n FROM pg_stat_activity WHERE datname = current_database() AND state LIKE 'idle in transaction%'`,
  )
  await client.end()
  return rows[0]!.n
}

describe('an upload that is cut off', () => {
  it.each([
    ['rides', `/api/v1/bikes/:bike/imports`, FORM, PART],
    ['a table', '/api/v1/import/customers/preview', FORM, PART],
    ['parts', '/api/v1/catalogue/preview', FORM, PART],
    ['an archive', '/api/v1/archive', { 'content-type': 'application/octet-stream' }, '{"pelrin":"archive"'],
  ])('of %s ends nothing, and leaves nothing behind', async (_, path, headers, begun) => {
    const before = own().length
    const at = path.replace(':bike', bikeId)
    await Promise.all([5, 20, 50, 120].map((ms) => cutOff(at, { ...headers, 'idempotency-key': v7() }, begun, ms)))
    await answers()
    await expect.poll(() => own().length).toBe(before)
    await expect.poll(idle, { timeout: 15_000 }).toBe(0)
  })
  it('is refused with what is wrong where a line is longer than any row', async () => {
    const response = await fetch(`${shop.base}/api/v1/archive`, {
      method: 'POST',
      headers: { cookie: shop.device.cookie, 'content-type': 'application/octet-stream' },
      body: `{"pelrin":"archive","version":1}\n${'x'.repeat(6_000_000)}`,
    })
    expect([response.status, ((await response.json()) as { code: string }).code]).toEqual([422, 'archive-line'])
    await answers()
  })
})

describe('an upload that has come', () => {
  it('may be worked at for as long as it takes: only who sends may not fall silent', async () => {
    const seen: (number | undefined)[] = []
    const server = createServer((asked, answer) => {
      withBody(asked, new Scratch(), 'shop', async (path) => {
        await sleep(20)
        seen.push(asked.socket.timeout, statSync(path).size)
        answer.end('done')
      }).catch(() => answer.destroy())
    }).listen(0, '127.0.0.1')
    await once(server, 'listening')
    const { port } = server.address() as AddressInfo
    const response = await fetch(`http://127.0.0.1:${port}/`, { method: 'POST', body: 'x'.repeat(500) })
    expect(await response.text()).toBe('done')
    expect(seen).toEqual([0, 500])
    server.close()
  })
})

describe('a download', () => {
  it('of the whole shop that is given up, twenty times over, holds no connection', async () => {
    await Promise.all(
      Array.from({ length: 20 }, async (_, i) => {
        const gone = new AbortController()
        setTimeout(() => gone.abort(), 20 + i * 15)
        await fetch(`${shop.base}/api/v1/archive.jsonl`, {
          headers: { cookie: shop.device.cookie },
          signal: gone.signal,
        })
          .then((response) => response.text())
          .catch(() => undefined)
      }),
    )
    await answers()
    await expect.poll(idle, { timeout: 15_000 }).toBe(0)
  })
  it('that nobody reads holds none either', async () => {
    const gone = new AbortController()
    const asked = Array.from({ length: 12 }, () =>
      fetch(`${shop.base}/api/v1/archive.jsonl`, {
        headers: { cookie: shop.device.cookie },
        signal: gone.signal,
      }).catch(() => null),
    )
    await sleep(300)
    await answers()
    const statuses = (await Promise.all(asked)).map((response) => response?.status)
    // More than can wait their turn are told to come again, and get it then.
    for (const status of statuses) expect([200, 503]).toContain(status)
    await expect.poll(idle, { timeout: 15_000 }).toBe(0)
    gone.abort()
    const again = async (): Promise<number> => {
      const response = await shop.device.raw('GET', '/api/v1/archive.jsonl')
      await response.body?.cancel()
      return response.status
    }
    await expect.poll(again, { timeout: 30_000, interval: 500 }).toBe(200)
  })
  it('of a table whose database fails half way is cut, not ended as if it were whole', async () => {
    const { sequelize } = shop.database
    const query = sequelize.query.bind(sequelize)
    let rides = 0
    sequelize.query = ((...args: Parameters<typeof query>) => {
      const [sql] = args
      if (typeof sql === 'string' && sql.includes('FROM rides') && ++rides > 1) return Promise.reject(new Error('torn'))
      return query(...args)
    }) as typeof query
    try {
      await expect(
        fetch(`${shop.base}/api/v1/export/rides.csv`, { headers: { cookie: shop.device.cookie } }).then((response) =>
          response.text(),
        ),
      ).rejects.toThrow()
    } finally {
      sequelize.query = query
    }
    await answers()
  })
})

describe('an import whose database fails', () => {
  it('fails by itself, and the next one goes on', async () => {
    const { sequelize } = shop.database
    const query = sequelize.query.bind(sequelize)
    sequelize.query = ((...args: Parameters<typeof query>) => {
      const [sql] = args
      return typeof sql === 'string' && sql.includes('SET report = report')
        ? Promise.reject(new Error('torn'))
        : query(...args)
    }) as typeof query
    const id = v7()
    const send = (key: string): Promise<Response> => {
      const form = new FormData()
      form.append('files', new Blob(['not a ride']), 'a.gpx')
      return fetch(`${shop.base}/api/v1/bikes/${bikeId}/imports`, {
        method: 'POST',
        headers: { cookie: shop.device.cookie, 'idempotency-key': key },
        body: form,
      })
    }
    const state = async (one: string) =>
      (await shop.device.ask(endpoints.rideImport, { params: { id: one } })).body.state
    try {
      expect((await send(id)).status).toBe(200)
      await expect.poll(() => state(id), { timeout: 15_000 }).toBe('failed')
    } finally {
      sequelize.query = query
    }
    const next = v7()
    await send(next)
    await expect.poll(() => state(next), { timeout: 15_000 }).toBe('previewed')
  })
})

describe('what lies on disk for a while', () => {
  const root = mkdtempSync(join(tmpdir(), 'pelrin-scratch-test-'))
  it('is bounded for each shop, and the others have their own room', async () => {
    const scratch = new Scratch(root, 1_000)
    const folder = await scratch.folder('shop-a')
    writeFileSync(join(folder.path, 'x'), 'x'.repeat(900))
    expect(await scratch.roomOf('shop-a')).toBe(100)
    expect(await scratch.roomOf('shop-b')).toBe(1_000)
    writeFileSync(join(folder.path, 'y'), 'x'.repeat(200))
    await expect(scratch.roomOf('shop-a')).rejects.toMatchObject({ status: 429, code: 'upload-shop-full' })
    await folder.remove()
    expect(await scratch.roomOf('shop-a')).toBe(1_000)
  })
  it('is cleared away once whoever left it is gone, and not before', async () => {
    const scratch = new Scratch(root)
    const folder = await scratch.folder('shop-a')
    mkdirSync(join(root, `${2 ** 22 - 1}-shop-a-left`))
    expect(await scratch.sweep()).toBe(1)
    expect(readdirSync(root)).toHaveLength(1)
    await folder.remove()
  })
})

describe('an upload that grows', () => {
  const folder = mkdtempSync(join(tmpdir(), 'pelrin-grows-'))
  it('takes no more of its zips in all than there is room for', async () => {
    const zip = new yazl.ZipFile()
    for (const name of ['a', 'b', 'c']) zip.addBuffer(Buffer.alloc(400, name), name, { compress: false })
    zip.end()
    writeFileSync(join(folder, 'x.zip'), await buffer(zip.outputStream))
    const { files, refused, bytes } = await unzip(join(folder, 'x.zip'), folder, 'z', { bytes: 900, files: 9 })
    expect([files.length, refused.map(({ code }) => code), bytes]).toEqual([2, ['file-expands'], 800])
    const few = await unzip(join(folder, 'x.zip'), folder, 'f', { bytes: 9_000, files: 1 })
    expect([few.files.length, few.refused.length]).toEqual([1, 2])
  })
  it('of more rides than anybody’s diary is refused as such', async () => {
    const track =
      '<trk><trkseg><trkpt lat="50" lon="-4"><time>2026-01-01T10:00:00Z</time></trkpt><trkpt lat="50.01" lon="-4"><time>2026-01-01T10:05:00Z</time></trkpt></trkseg></trk>'
    const many = join(folder, 'many.gpx')
    writeFileSync(many, `<gpx>${track.repeat(6_000)}</gpx>`)
    await expect(xmlRides(many, DEFAULTS.distance)).rejects.toMatchObject({ code: 'file-too-many-rides' })
  })
})
