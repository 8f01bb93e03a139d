import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { ask, AwayError, ProblemError, send, sendFile } from './client.ts'

type Reply = { status: number; body?: string } | Error
let reply: Reply = { status: 200, body: '{}' }
let asked: { url: string; init: { method: string; headers: Record<string, string>; body?: string } }[] = []

beforeEach(() => {
  asked = []
  vi.stubGlobal('fetch', (url: string, init: (typeof asked)[number]['init']) => {
    asked.push({ url, init })
    if (reply instanceof Error) return Promise.reject(reply)
    return Promise.resolve(new Response(reply.status === 204 ? null : (reply.body ?? ''), { status: reply.status }))
  })
})
afterEach(() => vi.unstubAllGlobals())

const problem = (code: string, fields: object[] = []) =>
  JSON.stringify({ status: 422, code, detail: `About ${code}.`, requestId: 'r', fields })

describe('a request', () => {
  it('has its place in the address, its query behind, and its body as JSON', async () => {
    reply = { status: 200, body: '{"done":true}' }
    const answer = await send('POST', '/bikes/:id/care', {
      params: { id: 'a/b' },
      query: { days: '7', left: undefined },
      body: { kind: 'wash' },
    })
    expect(answer).toEqual({ done: true })
    expect(asked[0]?.url).toBe('/api/v1/bikes/a%2Fb/care?days=7')
    expect(asked[0]?.init).toMatchObject({ method: 'POST', body: '{"kind":"wash"}' })
    expect(asked[0]?.init.headers).toMatchObject({ Accept: 'application/json', 'Content-Type': 'application/json' })
    // And what this device's clock shows, by which the server sets right what happened when.
    const { 'Pelrin-Clock': clock = '' } = asked[0]!.init.headers
    expect(Math.abs(Date.parse(clock) - Date.now())).toBeLessThan(5_000)
  })

  it('says who writes, from which version, and under which key it may be repeated', async () => {
    reply = { status: 204 }
    expect(await send('PATCH', '/x', { key: 'k1', version: 4, personId: 'p1', body: null })).toBeUndefined()
    expect(asked[0]?.init.headers).toMatchObject({ 'Idempotency-Key': 'k1', 'If-Match': '"4"', 'Pelrin-Person': 'p1' })
  })

  it('that is refused tells why, at the field it concerns first', async () => {
    reply = {
      status: 422,
      body: problem('request-invalid', [{ path: 'day', code: 'day-malformed', detail: 'A day.' }]),
    }
    const refused = await send('POST', '/x', {}).catch((error: unknown) => error)
    expect(refused).toBeInstanceOf(ProblemError)
    expect((refused as ProblemError).at('day')).toBe('day-malformed')
    expect((refused as ProblemError).at('note')).toBeUndefined()
  })

  it.each<[string, Reply]>([
    ['nobody answers', new TypeError('failed to fetch')],
    ['a proxy says that nobody does', { status: 502, body: '<html>' }],
    ['the server is starting', { status: 503, body: problem('starting') }],
    ['something else answers in its place', { status: 404, body: '<html>no such page</html>' }],
    ['the answer breaks off', { status: 200, body: '{"half":' }],
  ])('may be sent again where %s', async (_, given) => {
    reply = given
    const failed = await send('POST', '/x', { body: {} }).catch((error: unknown) => error)
    expect(failed).toBeInstanceOf(AwayError)
  })

  it('that its asker gave up is not taken for a server that is away', async () => {
    const leaving = new AbortController()
    leaving.abort()
    reply = new DOMException('given up', 'AbortError')
    await expect(send('GET', '/x', { signal: leaving.signal })).rejects.toBe(reply)
  })
})

describe('an upload', () => {
  class Upload {
    static last: Upload
    readonly upload: { onprogress: (at: { loaded: number; total: number }) => void } = { onprogress: () => undefined }
    readonly headers: Record<string, string> = {}
    timeout = 0
    status = 0
    responseText = ''
    url = ''
    onload: () => void = () => undefined
    onerror: () => void = () => undefined
    ontimeout: () => void = () => undefined
    onabort: () => void = () => undefined
    open(_: string, url: string): void {
      this.url = url
    }
    setRequestHeader(name: string, value: string): void {
      this.headers[name] = value
    }
    send(): void {
      Upload.last = this
    }
    abort(): void {
      this.onabort()
    }
    answer(status: number, text: string): void {
      this.status = status
      this.responseText = text
      this.onload()
    }
  }
  beforeEach(() => vi.stubGlobal('XMLHttpRequest', Upload))
  const file = new File(['rows'], 'shop.jsonl')

  it('tells which share of it has gone, and brings the answer', async () => {
    const shares: number[] = []
    const done = sendFile('/archive', file, { onProgress: (share) => shares.push(share) })
    Upload.last.upload.onprogress({ loaded: 1, total: 4 })
    Upload.last.upload.onprogress({ loaded: 4, total: 0 })
    Upload.last.answer(200, '{"tables":[]}')
    expect(await done).toEqual({ tables: [] })
    expect(shares).toEqual([0.25, 0])
    expect(Upload.last.url).toBe('/api/v1/archive')
  })

  it('that is refused says why; one that is stopped, or answered by something else, is away', async () => {
    const refused = sendFile('/archive', file)
    Upload.last.answer(422, problem('archive-newer'))
    await expect(refused).rejects.toMatchObject({ problem: { code: 'archive-newer' } })
    const leaving = new AbortController()
    const stopped = sendFile('/archive', file, { signal: leaving.signal })
    leaving.abort()
    await expect(stopped).rejects.toBeInstanceOf(AwayError)
    const lost = sendFile('/archive', file)
    Upload.last.answer(413, '<html>too large</html>')
    await expect(lost).rejects.toBeInstanceOf(AwayError)
  })
})

describe('how long is waited for', () => {
  it('an answer: twelve seconds, and minutes for what goes through all of the shop', async () => {
    const waited = vi.spyOn(AbortSignal, 'timeout')
    reply = { status: 200, body: '{}' }
    await send('GET', '/rack', {})
    await send('POST', '/house-rules/changes', { long: true })
    expect(waited.mock.calls).toEqual([[12_000], [600_000]])
  })
})

describe('a write that nobody answered', () => {
  const used = (quantity: number, partId = 'p1') =>
    ask(endpoints.moveStock, {
      params: { id: partId },
      key: crypto.randomUUID(),
      body: { id: crypto.randomUUID(), kind: 'used', quantity, note: null },
    })
  const keysAndIds = () =>
    asked.map(({ init }) => `${init.headers['Idempotency-Key']} ${(JSON.parse(init.body!) as { id: string }).id}`)
  beforeEach(async () => {
    reply = { status: 200, body: '{}' }
    // Whatever another test left unanswered.
    await used(5)
    asked = []
    reply = new TypeError('no connection')
    await expect(used(5)).rejects.toBeInstanceOf(AwayError)
  })

  it('said again goes under the same key and id, until somebody answers', async () => {
    await expect(used(5)).rejects.toBeInstanceOf(AwayError)
    reply = { status: 200, body: '{}' }
    await used(5)
    expect(new Set(keysAndIds()).size).toBe(1)
    await used(5)
    expect(new Set(keysAndIds()).size).toBe(2)
  })
  it('is another one as soon as it says anything else', async () => {
    reply = { status: 200, body: '{}' }
    await used(6)
    await used(5, 'p2')
    expect(new Set(keysAndIds()).size).toBe(3)
  })
  it('is done with once it is refused: what is said after that is new', async () => {
    reply = { status: 422, body: problem('stock-short') }
    await expect(used(5)).rejects.toBeInstanceOf(ProblemError)
    reply = { status: 200, body: '{}' }
    await used(5)
    const [first, second, third] = keysAndIds()
    expect(second).toBe(first)
    expect(third).not.toBe(first)
  })
  it('is meant anew some minutes later', async () => {
    vi.useFakeTimers({ now: Date.now() + 6 * 60_000, toFake: ['Date'] })
    reply = { status: 200, body: '{}' }
    await used(5)
    vi.useRealTimers()
    expect(new Set(keysAndIds()).size).toBe(2)
  })
  it('counts as the same though it is pressed later', async () => {
    const fittingId = crypto.randomUUID()
    const wash = () =>
      ask(endpoints.recordCare, {
        params: { id: 'b1' },
        key: crypto.randomUUID(),
        body: {
          id: crypto.randomUUID(),
          kind: 'wash',
          fittingId,
          occurredAt: new Date(Date.now() + asked.length).toISOString(),
        },
      })
    asked = []
    await expect(wash()).rejects.toBeInstanceOf(AwayError)
    reply = { status: 200, body: '{}' }
    await wash()
    expect(asked[1]?.init.body).toBe(asked[0]?.init.body)
  })
})
