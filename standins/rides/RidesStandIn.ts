import type { IncomingMessage, ServerResponse } from 'node:http'
import { bodyOf, HttpStandIn } from '../HttpStandIn.ts'

/** A ride as the service keeps it. */
export interface ServiceRide {
  readonly id: string
  readonly start: string
  readonly end: string
  readonly metres: number
  readonly name: string
}

type Change = { readonly id: string; readonly deleted: true } | (ServiceRide & { readonly deleted: false })

/** What can go wrong on request. */
export interface Faults {
  slow: boolean
  busy: boolean
  failing: boolean
  half: boolean
  duplicates: boolean
}

const PAGE = 5
const SLOW_MS = 20_000
const DAY_MS = 86_400_000

class Account {
  /** Every change there was, in order; a place in it is a cursor. */
  readonly feed: Change[] = []

  constructor(readonly token: string) {}

  put(ride: ServiceRide): void {
    this.feed.push({ ...ride, deleted: false })
  }
  edit(id: string, change: Partial<ServiceRide>): boolean {
    const known = this.feed.findLast((one) => one.id === id)
    if (!known || known.deleted) return false
    this.feed.push({ ...known, ...change, id })
    return true
  }
  remove(id: string): void {
    this.feed.push({ id, deleted: true })
  }
}

/** A ride service on loopback with made-up accounts; see PROTOCOL.md. */
export class RidesStandIn extends HttpStandIn {
  readonly faults: Faults = { slow: false, busy: false, failing: false, half: false, duplicates: false }
  readonly accounts = new Map<string, Account>()
  /** Pages handed out, for tests. */
  pages = 0

  /** @param today rides are counted back from here, ms */
  constructor(today: number) {
    super()
    this.accounts.set('ivo-marsh', demoAccount('tide-table-7', today, 14, 'Causeway and back', 16_000))
    this.accounts.set('nell-quayle', demoAccount('sandbank-3', today, 8, 'Along the sands', 11_000))
  }

  protected async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const url = new URL(request.url ?? '/', 'http://stand-in')
    const parts = url.pathname.split('/').filter((part) => part !== '')
    const send = (status: number, body: unknown, headers: Record<string, string> = {}): void => {
      response.writeHead(status, { 'content-type': 'application/json', ...headers })
      response.end(JSON.stringify(body))
    }
    if (url.pathname === '/faults' && request.method === 'POST') {
      Object.assign(this.faults, await bodyOf(request))
      send(200, this.faults)
      return
    }
    if (parts[0] === 'accounts') {
      await this.change(request, parts, send)
      return
    }
    const account = parts[0] === 'v1' && parts[1] === 'accounts' ? this.accounts.get(parts[2] ?? '') : undefined
    if (!account || parts[3] !== 'changes') {
      send(404, { error: 'no such account' })
      return
    }
    if (request.headers.authorization !== `Bearer ${account.token}`) {
      send(401, { error: 'wrong token' })
      return
    }
    const { slow, busy, failing, half, duplicates } = this.faults
    if (slow) await new Promise((done) => setTimeout(done, SLOW_MS))
    if (busy) {
      send(429, { error: 'wait' }, { 'retry-after': '30' })
      return
    }
    if (failing) {
      send(500, { error: 'fault' })
      return
    }
    const after = Number(url.searchParams.get('after') ?? 0)
    const changes = account.feed.slice(after, after + PAGE)
    const cursor = after + changes.length
    const page = {
      changes: duplicates ? changes.flatMap((one) => [one, one]) : changes,
      cursor: String(cursor),
      more: cursor < account.feed.length,
    }
    this.pages++
    if (!half) {
      send(200, page)
      return
    }
    const text = JSON.stringify(page)
    response.writeHead(200, { 'content-type': 'application/json', 'content-length': String(text.length) })
    response.write(text.slice(0, text.length / 2))
    setTimeout(() => response.destroy(), 50)
  }

  /** What only tests and a curious shop ask: to add, edit or delete a ride at the service. */
  private async change(
    request: IncomingMessage,
    [, name = '', , id]: readonly string[],
    send: (status: number, body: unknown) => void,
  ): Promise<void> {
    const account = this.accounts.get(name)
    if (!account) {
      send(404, { error: 'no such account' })
      return
    }
    if (request.method === 'DELETE' && id !== undefined) {
      account.remove(id)
      send(200, {})
      return
    }
    const body = await bodyOf(request)
    if (id === undefined) account.put(body as unknown as ServiceRide)
    else if (!account.edit(id, body)) {
      send(404, { error: 'no such ride' })
      return
    }
    send(200, {})
  }
}

/** A rider with some rides of the last weeks. */
function demoAccount(token: string, today: number, rides: number, name: string, metres: number): Account {
  const account = new Account(token)
  const midnight = Math.floor(today / DAY_MS) * DAY_MS
  for (let i = rides; i > 0; i--) {
    const start = midnight - i * 4 * DAY_MS + 7 * 3_600_000 + i * 7 * 60_000
    account.put({
      id: `r${rides - i + 1}`,
      start: new Date(start).toISOString(),
      end: new Date(start + (40 + (i % 5) * 6) * 60_000).toISOString(),
      metres: metres + (i % 4) * 1_300,
      name,
    })
  }
  return account
}
