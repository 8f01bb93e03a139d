import { randomBytes } from 'node:crypto'
import { hash } from '@node-rs/argon2'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, fileRoutes, may, Role, type Access, type Endpoint, type FileRoute } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { sampleOf } from '../testing/shapes.ts'
import { Device, startShop, superuserOf, type RunningShop } from '../testing/shop.ts'
import pg from 'pg'
import { PEOPLE, SHOPS } from '../auth/models.ts'

const ACCOUNTS: Record<Role, readonly [string, string]> = {
  owner: ['tove', 'causeway-1'],
  mechanic: ['ruan', 'chalkdown-2'],
  desk: ['lowen', 'fairway-6'],
  apprentice: ['ismay', 'eelgrass-3'],
  'read-only': ['coral', 'slipway-4'],
}
const ROUTES = [...(Object.values(endpoints) as (Endpoint | FileRoute)[]), ...Object.values(fileRoutes)]
const pathOf = (path: string, value: (name: string) => string): string =>
  `/api/v1${path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(value(name)))}`

let shop: RunningShop
const devices = new Map<Role, Device>()
beforeAll(async () => {
  shop = await startShop()
  for (const role of Role.options) {
    const device = new Device(shop.base)
    await device.signIn(...ACCOUNTS[role])
    devices.set(role, device)
  }
})
afterAll(() => shop.close())

const knock = (device: Device, { method, path }: { method: string; path: string }): Promise<Response> =>
  device.raw(
    method,
    pathOf(path, () => v7()),
    { 'idempotency-key': v7(), 'if-match': '"1"' },
  )

describe('every address', () => {
  it.each(Role.options)('does for %s what the table of rights says, and nothing else', async (role) => {
    const device = devices.get(role)!
    const wrong: string[] = []
    // What would end the session, or take a while, comes to nothing here: it is asked without what it needs.
    for (const route of ROUTES.filter(({ name }) => !['signOut', 'makeBackup', 'gaugeEvents'].includes(name))) {
      const access: Access = route.access
      const response = await knock(device, route)
      await response.body?.cancel()
      const refused = response.status === 403
      const allowed = access === 'anyone' || may(role, access)
      if (refused === allowed || response.status === 401 || response.status >= 500)
        wrong.push(`${route.name} (${access}): ${response.status}`)
    }
    expect(wrong).toEqual([])
  })
  it('wants somebody signed in, but for the door', async () => {
    const open: string[] = []
    for (const route of ROUTES) {
      const { status } = await knock(new Device(shop.base), route)
      if (status !== 401) open.push(route.name)
    }
    expect(open.sort()).toEqual(['door', 'enter', 'signIn', 'welcome'])
  })
})

describe('another shop', () => {
  it('neither sees nor changes anything by ids that are not its own, in address, query or body', async () => {
    const stranger = await secondShop()
    const client = new pg.Client({ connectionString: superuserOf(shop.url) })
    await client.connect()
    const { rows: own } = await client.query<{ id: string }>('SELECT shop_id AS id FROM bikes LIMIT 1')
    const shopId = own[0]!.id
    const { rows: tables } = await client.query<{ name: string }>(
      `SELECT c.relname AS name FROM pg_class c WHERE c.relkind = 'r' AND c.relnamespace = 'public'::regnamespace AND c.relrowsecurity`,
    )
    const standing = async (): Promise<Record<string, string>> => {
      const sums: Record<string, string> = {}
      for (const { name } of tables) {
        const { rows } = await client.query<{ sum: string }>(
          `SELECT md5(coalesce(string_agg(t::text, '|' ORDER BY t::text), '')) AS sum FROM ${name} t WHERE shop_id = $1`,
          [shopId],
        )
        sums[name] = rows[0]!.sum
      }
      return sums
    }
    // An id of every kind of thing there is, and what names the customers of the first shop.
    const ids: string[] = []
    for (const { name } of tables) {
      const { rows } = await client
        .query<{ id: string }>(`SELECT id::text FROM ${name} WHERE shop_id = $1 LIMIT 1`, [shopId])
        .catch(() => ({ rows: [] }))
      ids.push(...rows.map(({ id }) => id))
    }
    const { rows: names } = await client.query<{ name: string }>('SELECT name FROM customers')
    const before = await standing()
    const leaks: string[] = []
    const listed = (Object.values(endpoints) as Endpoint[]).filter(
      ({ name, access }) => access !== 'anyone' && !['signOut', 'switchPerson', 'proveAgain'].includes(name),
    )
    for (const endpoint of listed) {
      const some = endpoint.params ? ids : ids.slice(0, 1)
      for (const id of some) {
        const { params, method, creates, versioned } = endpoint
        const given = params ? (sampleOf(params, () => id) as Record<string, string>) : {}
        const response = await stranger.raw(
          method,
          pathOf(endpoint.path, (name) => given[name] ?? id),
          {
            'content-type': 'application/json',
            ...(creates === true ? { 'idempotency-key': v7() } : {}),
            ...(versioned === true ? { 'if-match': '"1"' } : {}),
          },
          endpoint.body ? JSON.stringify(sampleOf(endpoint.body, () => id)) : undefined,
        )
        const text = await response.text()
        if (names.some(({ name }) => text.includes(name))) leaks.push(`${endpoint.name} tells a name`)
      }
    }
    expect(leaks).toEqual([])
    expect(await standing()).toEqual(before)
    await client.end()
  }, 240_000)
})

/** A second shop in the same database, with an owner and nothing else. @returns its owner's device */
async function secondShop(): Promise<Device> {
  const [id, ownerId, password] = [v7(), v7(), randomBytes(9).toString('base64url')]
  await inShop(shop.database, id, null, async ({ of, transaction }) => {
    await of(SHOPS).create(
      { id, code: 'other', name: 'Other', timeZone: 'UTC', distanceUnit: 'km', demo: false },
      { transaction },
    )
    await of(PEOPLE).create(
      {
        id: ownerId,
        name: 'Somebody',
        initials: 'S',
        signInName: 'somebody',
        role: 'owner',
        passwordHash: await hash(password),
        active: true,
      },
      { transaction },
    )
  })
  const device = new Device(shop.base)
  await device.signIn('somebody', password, 'other')
  return device
}
