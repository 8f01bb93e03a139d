import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { endpoints } from '@pelrin/contract'
import { bikeNamed, Device, readingOf, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => void (shop = await startShop()))
afterAll(() => shop.close())

/** Another program, which has a token and no cookies. */
const program = (token: string): Device => {
  const device = new Device(shop.base)
  const raw = device.raw.bind(device)
  device.raw = (method, path, headers, body) =>
    raw(method, path, { ...headers, authorization: `Bearer ${token}` }, body)
  return device
}

describe('a token of another program', () => {
  let token: string
  let id: string
  it('is told once, and only to the owner', async () => {
    id = v7()
    const { body } = await shop.device.ask(endpoints.makeToken, { body: { id, name: 'Till', rights: ['record'] } })
    token = body.token
    expect(body.tokens).toMatchObject([{ name: 'Till', rights: ['record'], person: 'Tove Sandell', lastUsedAt: null }])
    expect(JSON.stringify((await shop.device.ask(endpoints.apiTokens)).body)).not.toContain(token.slice(10))
    expect(
      (await shop.device.ask(endpoints.makeToken, { body: { id: v7(), name: 'All', rights: ['owner'] } })).status,
    ).toBe(422)
    const mechanic = new Device(shop.base)
    await mechanic.signIn('ruan', 'chalkdown-2')
    expect((await mechanic.ask(endpoints.apiTokens)).status).toBe(403)
  })
  it('reads, does what it is for in the name of who made it, and nothing else', async () => {
    const till = program(token)
    const bike = await bikeNamed(till, 'causeway')
    const { status, body } = await till.ask(endpoints.takeReading, { body: await readingOf(till, bike.id) })
    expect(status).toBe(200)
    expect(body.readings.some(({ person }) => JSON.stringify(person).includes('T'))).toBe(true)
    const order = await till.ask(endpoints.renameDevice, { params: { id: v7() }, body: { name: 'x' } })
    expect(order.status).toBe(403)
    expect(
      (await till.ask(endpoints.changeBike, { params: { id: bike.id }, version: 1, body: { label: 'x' } })).status,
    ).toBe(403)
    // What is the owner's it does not even read.
    expect((await till.ask(endpoints.people)).status).toBe(403)
    const { body: audit } = await shop.device.ask(endpoints.audit, { query: { bikeId: bike.id } })
    expect(audit.acts[0]).toMatchObject({ action: 'took', person: 'Tove Sandell', device: 'Till' })
    expect((await shop.device.ask(endpoints.apiTokens)).body[0]!.lastUsedAt).not.toBeNull()
  })
  it('that is none, or taken back, lets nobody in', async () => {
    expect((await program(`${token.slice(0, -4)}abcd`).ask(endpoints.lineUp)).status).toBe(401)
    await shop.device.ask(endpoints.revokeToken, { params: { id } })
    expect((await program(token).ask(endpoints.lineUp)).status).toBe(401)
    expect((await shop.device.ask(endpoints.revokeToken, { params: { id } })).problem.code).toBe('token-unknown')
  })
  it('asks no more often than a program has to', async () => {
    const { body } = await shop.device.ask(endpoints.makeToken, { body: { id: v7(), name: 'Eager', rights: [] } })
    const eager = program(body.token)
    const answers = await Promise.all(Array.from({ length: 260 }, () => eager.raw('GET', '/api/v1/session')))
    expect(answers.filter(({ status }) => status === 429).length).toBeGreaterThan(0)
    expect(answers.find(({ status }) => status === 429)!.headers.get('retry-after')).not.toBeNull()
    expect((await shop.device.ask(endpoints.lineUp)).status).toBe(200)
  })
})
