import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type Endpoint } from '@pelrin/contract'
import { startShop, type Device, type RunningShop } from '../testing/shop.ts'
import { HOSTILE, placesIn, sampleOf, withAt } from '../testing/shapes.ts'

let shop: RunningShop
let device: Device
beforeAll(async () => {
  shop = await startShop()
  device = shop.device
})
afterAll(() => shop.close())

/** Of each place in what is sent, so many of the values; over all places each has its turn. */
const OF_EACH = 2

async function send(endpoint: Endpoint, path: string, body: unknown): Promise<Response> {
  return device.raw(
    endpoint.method,
    path,
    {
      ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      ...(endpoint.creates === true ? { 'idempotency-key': v7() } : {}),
      ...(endpoint.versioned === true ? { 'if-match': '"1"' } : {}),
    },
    body === undefined ? undefined : JSON.stringify(body),
  )
}
const pathOf = (endpoint: Endpoint, value: (name: string) => string): string =>
  `/api/v1${endpoint.path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(value(name)))}`

const asked = (Object.values(endpoints) as Endpoint[]).filter(({ name }) => !['signOut', 'makeBackup'].includes(name))
// A value of each sort, from one place to the next.
let turn = 0
const some = (): unknown[] => Array.from({ length: OF_EACH }, () => HOSTILE[turn++ % HOSTILE.length])

describe('whatever is sent', () => {
  it('at any place of any body is answered, and is no fault of ours', async () => {
    const faults: string[] = []
    for (const endpoint of asked) {
      if (!endpoint.body) continue
      const sample = sampleOf(endpoint.body)
      const path = pathOf(endpoint, (name) => (name === 'kind' ? 'customer' : v7()))
      const bodies = [sample, ...placesIn(sample).flatMap((at) => some().map((value) => withAt(sample, at, value)))]
      await Promise.all(
        bodies.map(async (body) => {
          const { status } = await send(endpoint, path, body)
          // Too much at once is said as such, and is what it is.
          if (status >= 500 && status !== 503)
            faults.push(`${endpoint.name} ${status} ${JSON.stringify(body).slice(0, 300)}`)
        }),
      )
    }
    expect(faults).toEqual([])
  }, 300_000)
  it('in any address or query is answered, and is no fault of ours', async () => {
    const faults: string[] = []
    for (const endpoint of asked) {
      const queries = endpoint.query ? placesIn(sampleOf(endpoint.query)).map(([key]) => key!) : []
      const paths = [
        ...(endpoint.params ? some().map((value) => pathOf(endpoint, () => String(value).toWellFormed())) : []),
        ...queries.flatMap((key) =>
          some().map(
            (value) => `${pathOf(endpoint, () => v7())}?${new URLSearchParams({ [key]: String(value) }).toString()}`,
          ),
        ),
      ]
      for (const path of paths) {
        const { status } = await send(endpoint, path, endpoint.body ? {} : undefined)
        if (status >= 500) faults.push(`${endpoint.name} ${status} ${path}`)
      }
    }
    expect(faults).toEqual([])
  }, 120_000)
  it.each([
    ['deep JSON', { 'content-type': 'application/json' }, '['.repeat(60_000) + ']'.repeat(60_000), 400],
    ['an encoding that is none', { 'content-type': 'application/json', 'content-encoding': 'br2' }, '{}', 415],
    ['bytes that are not what they say', { 'content-type': 'application/json', 'content-encoding': 'gzip' }, '{}', 415],
    ['half a document', { 'content-type': 'application/json' }, '{"q":', 400],
  ])('as %s is refused', async (_, headers, body, status) => {
    const response = await device.raw('POST', '/api/v1/readings', { 'idempotency-key': v7(), ...headers }, body)
    expect(response.status).toBe(status)
  })
  it.each(['/..%2f', '/%00', '/%ff%fe', '/..%5c..%5cetc', '/assets/..%2f..%2fpackage.json', '/api/v1/bikes/%E0%A4%A'])(
    'to %s is answered',
    async (path) => {
      expect((await device.raw('GET', path)).status).toBeLessThan(500)
    },
  )
})
