import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { bikeNamed, Device, readingOf, serveDatabase, startShop, type RunningShop } from '../testing/shop.ts'
import { waitAfter } from '../sessions/tries.ts'

let shop: RunningShop
let shopId: string
beforeAll(async () => {
  shop = await startShop()
  shopId = (await shop.device.ask(endpoints.session)).body.shop.id
})
afterAll(() => shop.close())

const change = (sql: string, values: Record<string, unknown> = {}): Promise<object[]> =>
  inShop(shop.database, shopId, null, (work) => work.select(sql, values))
const signedIn = async (name?: string, password?: string): Promise<Device> => {
  const device = new Device(shop.base)
  await device.signIn(name, password)
  return device
}
const RUAN = ['ruan', 'chalkdown-2'] as const

describe('signing in', () => {
  it('gives the device a cookie no script can read and no other site can send', async () => {
    const device = new Device(shop.base)
    const answer = await device.signIn()
    expect(answer.body.person.name).toBe('Tove Sandell')
    const cookies = answer.headers.getSetCookie()
    expect(cookies).toHaveLength(2)
    for (const cookie of cookies) expect(cookie).toMatch(/samesite=strict; httponly/i)
    expect((await device.ask(endpoints.session)).body.people.length).toBe(5)
  })
  it('says the same of a wrong name and a wrong password', async () => {
    const device = new Device(shop.base)
    const wrongName = await device.signIn('nobody', 'x')
    const wrongPassword = await device.signIn('ruan', 'x')
    expect([wrongName.status, wrongName.problem.code]).toEqual([401, 'sign-in-wrong'])
    expect(wrongPassword.problem.code).toBe('sign-in-wrong')
    expect((await device.ask(endpoints.session)).status).toBe(401)
  })
  it('names the empty fields', async () => {
    const { problem } = await new Device(shop.base).ask(endpoints.signIn, {
      body: { shop: 'saltmarsh', name: '', password: '' },
    })
    expect(problem.fields?.map((field) => [field.path, field.code])).toEqual([
      ['name', 'text-missing'],
      ['password', 'password-missing'],
    ])
  })
  it('waits after five wrong passwords, whichever device they come from, and tells the owner', async () => {
    let last
    for (let i = 0; i < 5; i++) last = await new Device(shop.base).signIn('coral', 'x')
    expect(last?.status).toBe(401)
    const waits = await new Device(shop.base).signIn('coral', 'slipway-4')
    expect([waits.status, waits.problem.code]).toEqual([429, 'sign-in-too-often'])
    expect(Number(waits.headers.get('retry-after'))).toBeGreaterThan(20)
    const { body } = await shop.device.ask(endpoints.accessLog)
    const failed = body.entries.filter(({ action, who }) => action === 'sign-in-failed' && who === 'coral')
    expect(failed).toHaveLength(5)
    expect(failed[0]).toMatchObject({ kind: 'password', waitSeconds: 30 })
    expect(body.failedToday).toBeGreaterThanOrEqual(5)
  })
  it('does not shut out somebody on their own tablet while others guess elsewhere', async () => {
    const own = await signedIn(...RUAN)
    for (let i = 0; i < 6; i++) await new Device(shop.base).signIn('ruan', 'x')
    expect((await new Device(shop.base).signIn(...RUAN)).status).toBe(429)
    expect((await own.signIn(...RUAN)).status).toBe(200)
    await change('DELETE FROM sign_in_tries RETURNING subject')
  })
  it('waits longer from one wrong try to the next, never longer than an hour', () => {
    expect([0, 4, 5, 6, 7, 8].map(waitAfter)).toEqual([0, 0, 30, 60, 120, 240])
    expect(waitAfter(60)).toBe(3600)
  })
  it('again ends the session before, and keeps the device the same one', async () => {
    const device = new Device(shop.base)
    const { body: first } = await device.signIn()
    const before = device.cookie
    const { body: second } = await device.signIn()
    expect(second.device.id).toBe(first.device.id)
    const old = new Device(shop.base)
    old.cookie = before
    expect((await old.ask(endpoints.session)).status).toBe(401)
  })
  it('ends with signing out', async () => {
    const device = await signedIn()
    expect((await device.ask(endpoints.signOut)).status).toBe(204)
    expect((await device.ask(endpoints.lineUp)).problem.code).toBe('not-signed-in')
  })
  it('is over for a session nobody has used for thirty days', async () => {
    const device = await signedIn()
    const { body } = await device.ask(endpoints.session)
    await change(
      `UPDATE sessions SET last_seen_at = now() - interval '31 days', expires_at = now() - interval '1 day' WHERE device_id = :id RETURNING shop_id`,
      {
        id: body.device.id,
      },
    )
    expect((await device.ask(endpoints.session)).status).toBe(401)
  })
  it('of very many at once keeps nobody else waiting', async () => {
    // By a server of its own: an address that guesses so often is refused for a while, and this one is everybody's here.
    const served = await serveDatabase(shop.url)
    const here = new Device(served.base)
    await here.signIn()
    const all = Promise.all(Array.from({ length: 60 }, () => new Device(served.base).signIn('nobody', 'x')))
    const { status } = await here.ask(endpoints.lineUp)
    expect(status).toBe(200)
    const statuses = new Set((await all).map((answer) => answer.status))
    for (const one of statuses) expect([401, 429, 503]).toContain(one)
    await served.close()
  })
})

describe('a bench tablet', () => {
  it('changes hands by password the first time and by PIN then, and names who wrote', async () => {
    const device = new Device(shop.base)
    const { body: session } = await device.signIn()
    const hand = (body: object) => device.ask(endpoints.switchPerson, { body: { initials: 'rp', ...body } })
    expect((await hand({ pin: '0000' })).problem.code).toBe('pin-wrong')
    expect((await hand({ pin: '2280' })).problem.code).toBe('pin-first-password')
    const switched = await hand({ password: 'chalkdown-2' })
    expect(switched.body.person.name).toBe('Ruan Pike')
    expect(switched.body.peopleHere.length).toBe(2)
    await device.ask(endpoints.switchPerson, { body: { initials: 'TS', pin: '4071' } })
    expect((await hand({ pin: '2280' })).body.person.name).toBe('Ruan Pike')

    const bike = await bikeNamed(device, 'school pool 3')
    // A write queued by the first person is still theirs after the tablet changed hands.
    const { body: record } = await device.ask(endpoints.takeReading, {
      body: await readingOf(device, bike.id),
      headers: { 'pelrin-person': session.person.id },
    })
    expect(record.readings[0]?.person).toBe('Tove Sandell')
  })
  it('lets nobody do more there than whoever is present, whoever was there before', async () => {
    const device = new Device(shop.base)
    const { body: owner } = await device.signIn()
    await device.ask(endpoints.switchPerson, { body: { initials: 'ID', password: 'eelgrass-3' } })
    const asOwner = { 'pelrin-person': owner.person.id }
    for (const asked of [
      await device.ask(endpoints.backups, { headers: asOwner }),
      await device.ask(endpoints.lineUp, { headers: asOwner }),
      await device.ask(endpoints.placeOrder, { body: {}, headers: asOwner }),
    ])
      expect(['person-not-here', 'request-invalid']).toContain(asked.problem.code)
    expect((await device.raw('GET', '/api/v1/archive.jsonl', asOwner)).status).toBe(403)
    expect((await device.ask(endpoints.backups)).problem.code).toBe('only-owner')
  })
  it('sends what was said there by nobody who never worked on it, and by no one more than they might then', async () => {
    const device = new Device(shop.base)
    const { body: session } = await device.signIn('coral', 'slipway-4').then(async (waits) => {
      await change('DELETE FROM sign_in_tries RETURNING subject')
      return waits.status === 200 ? waits : device.signIn('coral', 'slipway-4')
    })
    await device.ask(endpoints.switchPerson, { body: { initials: 'RP', password: 'chalkdown-2' } })
    const bike = await bikeNamed(device, 'marsh')
    const take = async (personId: string) =>
      device.ask(endpoints.takeReading, {
        body: await readingOf(device, bike.id),
        headers: { 'pelrin-person': personId },
      })
    const stranger = session.people.find((person) => person.initials === 'TS')
    expect((await take(stranger?.id ?? '')).problem.code).toBe('person-not-here')
    // Who may only look might not have written then either.
    expect((await take(session.person.id)).problem.code).toBe('may-not-write')
  })
  it('takes no PIN for a while after five wrong ones, from whichever tablet they come', async () => {
    await change('DELETE FROM sign_in_tries RETURNING subject')
    let last
    for (let i = 0; i < 5; i++) {
      const device = await signedIn(...RUAN)
      last = await device.ask(endpoints.switchPerson, { body: { initials: 'TS', pin: '0000' } })
    }
    expect(last?.problem.code).toBe('pin-wrong')
    const device = await signedIn(...RUAN)
    const right = await device.ask(endpoints.switchPerson, { body: { initials: 'TS', pin: '4071' } })
    expect(right.status).toBe(429)
    const { body } = await shop.device.ask(endpoints.accessLog)
    expect(body.entries.filter(({ kind, who }) => kind === 'pin' && who === 'TS')).toHaveLength(5)
    await change('DELETE FROM sign_in_tries RETURNING subject')
  })
})

describe('tries made all at once', () => {
  it('are looked at no oftener than one after another', async () => {
    await change('DELETE FROM sign_in_tries RETURNING subject')
    const device = await signedIn(...RUAN)
    const guess = async (pin: string) => device.ask(endpoints.switchPerson, { body: { initials: 'TS', pin } })
    const all = await Promise.all(Array.from({ length: 20 }, (_, n) => guess(String(1000 + n))))
    expect(all.filter(({ status }) => status === 401)).toHaveLength(5)
    expect(all.filter(({ status }) => status === 429)).toHaveLength(15)
    await change('DELETE FROM sign_in_tries RETURNING subject')
  })
})

describe('what is the owner’s', () => {
  it('asks for the password again after a quarter of an hour, and after a PIN', async () => {
    const device = new Device(shop.base)
    const { body: session } = await device.signIn()
    expect(session.provedUntil).not.toBeNull()
    const preview = () => device.raw('GET', '/api/v1/export/customers.csv')
    expect((await preview()).status).toBe(200)
    await change(
      `UPDATE sessions SET proved_at = now() - interval '16 minutes' WHERE device_id = :id RETURNING shop_id`,
      {
        id: session.device.id,
      },
    )
    const late = await preview()
    expect([late.status, ((await late.json()) as { code: string }).code]).toEqual([403, 'prove-again'])
    // Looking at a list is no act.
    expect((await device.ask(endpoints.backups)).status).toBe(200)
    expect((await device.ask(endpoints.proveAgain, { body: { password: 'x' } })).problem.code).toBe('sign-in-wrong')
    const proved = await device.ask(endpoints.proveAgain, { body: { password: 'causeway-1' } })
    expect(Date.parse(proved.body.provedUntil!)).toBeGreaterThan(Date.now() + 14 * 60_000)
    expect((await preview()).status).toBe(200)
    await device.ask(endpoints.switchPerson, { body: { initials: 'TS', pin: '4071' } })
    expect((await preview()).status).toBe(403)
  })
  it('is written down when it leaves the shop', async () => {
    const device = await signedIn()
    await (await device.raw('GET', '/api/v1/export/bikes.csv')).text()
    const { body } = await device.ask(endpoints.accessLog)
    expect(body.entries.find(({ action }) => action === 'took-out')).toMatchObject({
      who: 'Tove Sandell',
      what: 'bikes',
    })
  })
})

describe('a request from another site', () => {
  it.each<[string, Record<string, string>]>([
    ['by its origin', { origin: 'https://elsewhere.example' }],
    ['by what the browser says', { 'sec-fetch-site': 'cross-site' }],
    ['with a malformed origin', { origin: 'null' }],
  ])('is refused %s', async (_, headers) => {
    const response = await shop.device.raw('DELETE', '/api/v1/session', headers)
    expect(response.status).toBe(403)
    expect((await shop.device.ask(endpoints.session)).status).toBe(200)
  })
})

describe('every page', () => {
  it('allows no inline script and no framing', async () => {
    const policy = (await fetch(`${shop.base}/health/live`)).headers.get('content-security-policy') ?? ''
    expect(policy).toContain("default-src 'self'")
    expect(policy).not.toMatch(/script-src[^;]*unsafe/)
    expect(policy).toContain("frame-ancestors 'none'")
  })
})
