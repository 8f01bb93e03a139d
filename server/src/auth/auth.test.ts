import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { bikeNamed, Device, readingOf, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

describe('signing in', () => {
  it('gives the device a cookie no script can read and no other site can send', async () => {
    const device = new Device(shop.base)
    const answer = await device.signIn()
    expect(answer.body.person.name).toBe('Tove Sandell')
    expect(answer.headers.get('set-cookie')).toMatch(/httponly/i)
    expect(answer.headers.get('set-cookie')).toMatch(/samesite=strict/i)
    expect((await device.ask(endpoints.session)).body.people.length).toBe(4)
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
  it('is refused after ten tries, with the time to wait', async () => {
    const device = new Device(shop.base)
    let last = await device.signIn('coral', 'x')
    for (let i = 0; i < 10; i++) last = await device.signIn('coral', 'x')
    expect(last.status).toBe(429)
    expect(Number(last.headers.get('retry-after'))).toBeGreaterThan(800)
    expect(last.problem.detail).toContain('15 min')
  })
  it('ends with signing out', async () => {
    const device = new Device(shop.base)
    await device.signIn()
    expect((await device.ask(endpoints.signOut)).status).toBe(204)
    expect((await device.ask(endpoints.lineUp)).problem.code).toBe('not-signed-in')
  })
})

describe('a bench tablet', () => {
  it('changes hands by initials and PIN, and names who wrote', async () => {
    const device = new Device(shop.base)
    const { body: session } = await device.signIn()
    expect((await device.ask(endpoints.switchPerson, { body: { initials: 'rp', pin: '0000' } })).problem.code).toBe(
      'pin-wrong',
    )
    const switched = await device.ask(endpoints.switchPerson, { body: { initials: 'rp', pin: '2280' } })
    expect(switched.body.person.name).toBe('Ruan Pike')
    expect(switched.body.peopleHere.length).toBe(2)

    const bike = await bikeNamed(device, 'school pool 3')
    // A write queued by the first person is still theirs after the tablet changed hands.
    const { body: record } = await device.ask(endpoints.takeReading, {
      body: await readingOf(device, bike.id),
      headers: { 'pelrin-person': session.person.id },
    })
    expect(record.readings[0]?.person).toBe('Tove Sandell')
  })
  it('writes for nobody who has not signed in on it', async () => {
    const device = new Device(shop.base)
    const { body: session } = await device.signIn()
    const stranger = session.people.find((person) => person.initials === 'ID')
    const answer = await device.ask(endpoints.lineUp, { headers: { 'pelrin-person': stranger?.id ?? '' } })
    expect(answer.problem.code).toBe('person-not-here')
  })
})

describe('a role that looks only', () => {
  it('reads everything and writes nothing', async () => {
    const other = await startShop()
    const device = new Device(other.base)
    await device.signIn('coral', 'slipway-4')
    const bike = await bikeNamed(device, 'marsh')
    expect((await device.ask(endpoints.bike, { params: { id: bike.id } })).status).toBe(200)
    const { status, problem } = await device.ask(endpoints.takeReading, { body: await readingOf(device, bike.id) })
    expect([status, problem.code]).toEqual([403, 'may-not-write'])
    await other.close()
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
