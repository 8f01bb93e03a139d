import 'fake-indexeddb/auto'
import { afterAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { Outbox, type Waiting } from './outbox.ts'
import { until } from '../testing/until.ts'

type Reply = { status: number; body?: unknown } | 'away'
let replies: Reply[] = []
let asked: { url: string; key: string | null; person: string | null; body: unknown }[] = []

vi.stubGlobal('fetch', (url: string, init: { headers: Record<string, string>; body: string }) => {
  asked.push({
    url,
    key: init.headers['Idempotency-Key'] ?? null,
    person: init.headers['Pelrin-Person'] ?? null,
    body: JSON.parse(init.body),
  })
  const reply = replies.shift() ?? { status: 200, body: { done: asked.length } }
  if (reply === 'away') return Promise.reject(new TypeError('failed to fetch'))
  return Promise.resolve(new Response(JSON.stringify(reply.body ?? {}), { status: reply.status }))
})
vi.stubGlobal('window', { addEventListener: () => undefined })

/** One lock for all, as between the tabs of one browser. */
let held = 0
let free = Promise.resolve()
type Job = (lock: object | null) => Promise<unknown>
vi.stubGlobal('navigator', {
  locks: {
    request: async (_name: string, ...[options, ifAvailable]: [Job] | [object, Job]) => {
      const job = ifAvailable ?? (options as Job)
      if (ifAvailable && held > 0) return job(null)
      held++
      const before = free
      const done = before.then(() => job({}))
      free = done.then(
        () => void held--,
        () => void held--,
      )
      return done
    },
  },
})

// The browser of this file is no other file's, nor what is to be tried again in it.
const laterOn = vi.spyOn(globalThis, 'setTimeout')
afterAll(() => {
  for (const { value } of laterOn.mock.results) clearTimeout(value as NodeJS.Timeout)
  laterOn.mockRestore()
  vi.unstubAllGlobals()
})

const write = (key: string, more: Partial<Waiting> = {}): Waiting => ({
  key,
  method: 'POST',
  path: '/readings',
  params: {},
  body: { typed: key },
  personId: 'p1',
  at: `2026-01-01T10:00:${key.padStart(2, '0')}Z`,
  title: key,
  bikeId: 'b',
  ...more,
})
const problem = (status: number, code: string) => ({ status, body: { status, code, detail: code, requestId: 'r' } })

async function open(): Promise<Outbox> {
  const outbox = new Outbox()
  await outbox.open()
  return outbox
}
const settled = (outbox: Outbox, count: number): Promise<void> =>
  until(() => {
    if (outbox.list().length !== count) throw new Error('not yet')
  })

beforeEach(async () => {
  replies = []
  const left = await open()
  // Let what an earlier test began come to its end.
  await until(() => {
    expect(held).toBe(0)
  })
  for (const { key } of left.list()) await left.drop(key)
  asked = []
})

describe('the outbox', () => {
  it('sends a write with its key and its person, and then holds it no longer', async () => {
    const outbox = await open()
    const { settled: end } = await outbox.put(write('1'))
    expect(await end).toEqual({ ok: true, result: { done: 1 } })
    expect(asked).toEqual([{ url: '/api/v1/readings', key: '1', person: 'p1', body: { typed: '1' } }])
    expect(outbox.list()).toEqual([])
  })

  it('keeps what the server was away for, and sends it in order with the same key', async () => {
    replies = ['away']
    const outbox = await open()
    await outbox.put(write('1'))
    await until(() => {
      expect(asked).toHaveLength(1)
    })
    await outbox.put(write('2'))
    await settled(outbox, 0)
    expect(asked.map((one) => one.key)).toEqual(['1', '1', '2'])
  })

  it('comes back from sending now once all that was said before has arrived, also what was on its way already', async () => {
    const outbox = await open()
    for (const key of ['1', '2', '3']) await outbox.put(write(key))
    expect(await outbox.sendNow()).toBe(true)
    expect(asked.map((one) => one.key)).toEqual(['1', '2', '3'])
    expect(outbox.list()).toEqual([])
    expect(await outbox.sendNow()).toBe(true)
  })

  it('says that it could not send now, and keeps what waits', async () => {
    replies = ['away', 'away']
    const outbox = await open()
    await outbox.put(write('1'))
    await until(() => {
      expect(asked).toHaveLength(1)
    })
    expect(await outbox.sendNow()).toBe(false)
    expect(outbox.list().map((one) => one.key)).toEqual(['1'])
    await settled(outbox, 0)
  })

  it('takes up after a reload what was never sent', async () => {
    replies = ['away']
    const before = await open()
    await before.put(write('1'))
    await until(() => {
      expect(asked).toHaveLength(1)
    })
    const after = new Outbox()
    await after.open()
    expect(after.list().map((one) => one.key)).toEqual(['1'])
    await settled(after, 0)
  })

  it.each([
    ['a fault on the other side', 500, 'server-fault'],
    ['being signed out', 401, 'not-signed-in'],
  ])('waits through %s', async (_, status, code) => {
    replies = [problem(status, code)]
    const outbox = await open()
    await outbox.put(write('1'))
    await until(() => {
      expect(asked).toHaveLength(1)
    })
    expect(outbox.list()[0]?.refused).toBeUndefined()
    await settled(outbox, 0)
  })

  it('keeps a refused write with its reason, sends it no more, and goes on with the next', async () => {
    replies = [problem(422, 'request-invalid')]
    const outbox = await open()
    const { settled: end } = await outbox.put(write('1'))
    expect(await end).toMatchObject({ ok: false, problem: { code: 'request-invalid' } })
    const { settled: next } = await outbox.put(write('2'))
    expect(await next).toMatchObject({ ok: true })
    expect(outbox.list().map((one) => [one.key, one.refused?.code])).toEqual([['1', 'request-invalid']])
    await outbox.flush()
    expect(asked.map((one) => one.key)).toEqual(['1', '2'])
    const later = await open()
    expect(later.list()[0]?.refused?.code).toBe('request-invalid')
    await later.drop('1')
    expect(later.list()).toEqual([])
  })

  it('is sent by one tab only', async () => {
    held = 1
    const other = await open()
    await other.put(write('1'))
    await other.flush()
    expect(asked).toEqual([])
    held = 0
    await other.flush()
    expect(asked.map((one) => one.key)).toEqual(['1'])
  })

  it('says when a write has ended, done or refused, also one of an earlier visit', async () => {
    replies = ['away', { status: 200 }, problem(422, 'request-invalid')]
    const before = await open()
    await before.put(write('1'))
    await until(() => {
      expect(asked).toHaveLength(1)
    })
    const after = new Outbox()
    const ended = vi.fn()
    after.onEnd(ended)
    await after.open()
    await settled(after, 0)
    expect(ended).toHaveBeenCalledTimes(1)
    const { settled: end } = await after.put(write('2'))
    expect(await end).toMatchObject({ ok: false })
    expect(ended).toHaveBeenCalledTimes(2)
  })

  it('tells whoever listens', async () => {
    const outbox = await open()
    const seen: number[] = []
    const stop = outbox.subscribe(() => seen.push(outbox.list().length))
    const { settled: end } = await outbox.put(write('1'))
    await end
    stop()
    expect(seen).toContain(1)
    expect(seen.at(-1)).toBe(0)
  })
})
