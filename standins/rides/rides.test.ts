import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { RidesStandIn } from './RidesStandIn.ts'

const TODAY = Date.UTC(2026, 4, 20, 12)
let service: RidesStandIn
let base: string
beforeEach(async () => {
  service = new RidesStandIn(TODAY)
  base = `http://${await service.listen()}`
})
afterEach(() => service.close())

interface Page {
  changes: { id: string; deleted: boolean; metres: number; start: string; end: string }[]
  cursor: string
  more: boolean
}

const ask = (path: string, init: RequestInit = {}): Promise<Response> => fetch(base + path, init)
const changes = (after = '', token = 'tide-table-7'): Promise<Response> =>
  ask(`/v1/accounts/ivo-marsh/changes${after === '' ? '' : `?after=${after}`}`, {
    headers: { authorization: `Bearer ${token}` },
  })
const page = async (after = ''): Promise<Page> => (await (await changes(after)).json()) as Page
const post = (path: string, body: object, method = 'POST'): Promise<Response> =>
  ask(path, { method, body: JSON.stringify(body) })

/** Every change there is, page by page. */
async function everything(from = ''): Promise<Page['changes']> {
  const found: Page['changes'] = []
  let cursor = from
  for (;;) {
    const next = await page(cursor)
    found.push(...next.changes)
    cursor = next.cursor
    if (!next.more) return found
  }
}

describe('the ride service', () => {
  it('hands rides out page by page, each once, in order, ending before today', async () => {
    const rides = await everything()
    expect(rides).toHaveLength(14)
    expect(new Set(rides.map(({ id }) => id)).size).toBe(14)
    const starts = rides.map(({ start }) => Date.parse(start))
    expect(starts).toEqual([...starts].sort((a, b) => a - b))
    for (const { start, end, metres } of rides) {
      expect(Date.parse(end)).toBeGreaterThan(Date.parse(start))
      expect(Date.parse(end)).toBeLessThan(TODAY)
      // Nobody rides an hour at more than 60 km/h.
      expect(metres / ((Date.parse(end) - Date.parse(start)) / 1000)).toBeLessThan(17)
    }
  })
  it('knows nobody without their token, and no account it does not have', async () => {
    expect((await changes('', 'guessed')).status).toBe(401)
    expect((await ask('/v1/accounts/nobody/changes')).status).toBe(404)
    expect((await ask('/v1/accounts/ivo-marsh/rides')).status).toBe(404)
  })
  it('tells what changed since a cursor: a ride added, edited, deleted', async () => {
    const { cursor } = await page('10')
    const before = await everything()
    expect(cursor).toBe(String(before.length))
    const ride = { id: 'new', start: '2026-05-20T06:00:00Z', end: '2026-05-20T07:00:00Z', metres: 21_000, name: 'x' }
    await post('/accounts/ivo-marsh/rides', ride)
    await post('/accounts/ivo-marsh/rides/new', { metres: 22_500 }, 'PATCH')
    await ask('/accounts/ivo-marsh/rides/r1', { method: 'DELETE' })
    expect(await everything(cursor)).toEqual([
      expect.objectContaining({ id: 'new', metres: 21_000, deleted: false }),
      expect.objectContaining({ id: 'new', metres: 22_500, deleted: false }),
      { id: 'r1', deleted: true },
    ])
    expect((await post('/accounts/ivo-marsh/rides/r1', { metres: 1 }, 'PATCH')).status).toBe(404)
  })
  it('fails as it is told to: busy with a time to wait, broken, in halves, with everything twice', async () => {
    await post('/faults', { busy: true })
    const busy = await changes()
    expect([busy.status, busy.headers.get('retry-after')]).toEqual([429, '30'])
    await post('/faults', { busy: false, failing: true })
    expect((await changes()).status).toBe(500)
    await post('/faults', { failing: false, half: true })
    await expect(changes().then((answer) => answer.text())).rejects.toThrow()
    await post('/faults', { half: false, duplicates: true })
    const twice = await page()
    expect(twice.changes).toHaveLength(10)
    expect(twice.cursor).toBe('5')
  })
})
