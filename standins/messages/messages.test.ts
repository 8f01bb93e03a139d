import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { MessagesStandIn } from './MessagesStandIn.ts'

let gateway: MessagesStandIn
let address = ''
beforeEach(async () => {
  gateway = new MessagesStandIn()
  address = await gateway.listen()
})
afterEach(() => gateway.close())

const call = (path: string, body?: object, token = 'lantern-9') =>
  fetch(`http://${address}${path}`, {
    headers: { authorization: `Bearer ${token}` },
    ...(body === undefined ? {} : { method: 'POST', body: JSON.stringify(body) }),
  })
const message = (reference: string, to = '01234 555 678') => ({ reference, to, text: 'Your bike is due.' })
const eventsAfter = async (number: number) =>
  ((await (await call(`/v1/events?after=${number}`)).json()) as { events: { number: number; kind: string }[] }).events

describe('the stand-in gateway', () => {
  it('sends one reference once, and says whether it took it', async () => {
    expect((await call('/v1/messages/a')).status).toBe(404)
    expect((await call('/v1/messages', message('a'))).status).toBe(202)
    expect((await call('/v1/messages', message('a'))).status).toBe(200)
    expect((await call('/v1/messages/a')).status).toBe(200)
    expect(gateway.sent).toHaveLength(1)
    expect((await call('/v1/messages', message('b', 'nobody'))).status).toBe(422)
    expect((await call('/v1/messages', message('c'), 'guess')).status).toBe(401)
  })
  it('tells what happened since a number: delivered, failed, answered', async () => {
    await call('/v1/messages', message('a'))
    await call('/v1/messages', message('b', '01234 555 000'))
    await call('/replies', { from: '01234 555 678', text: 'yes please' })
    expect((await eventsAfter(0)).map(({ kind }) => kind)).toEqual(['delivered', 'failed', 'reply'])
    expect((await eventsAfter(2)).map(({ number }) => number)).toEqual([3])
    await call('/faults', { duplicates: true })
    expect(await eventsAfter(2)).toHaveLength(2)
  })
  it('takes one and never says so, or takes none, when told to', async () => {
    await call('/faults', { lost: true })
    await expect(call('/v1/messages', message('a'))).rejects.toThrow()
    expect(gateway.sent).toHaveLength(1)
    await call('/faults', { lost: false, refuses: true })
    expect((await call('/v1/messages', message('b'))).status).toBe(503)
    expect(gateway.sent).toHaveLength(1)
  })
})
