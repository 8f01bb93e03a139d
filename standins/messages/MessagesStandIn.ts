import type { IncomingMessage, ServerResponse } from 'node:http'
import { bodyOf, HttpStandIn } from '../HttpStandIn.ts'

/** A message as the gateway took it. */
export interface TakenMessage {
  readonly reference: string
  readonly to: string
  readonly text: string
}

/** Something the gateway has to say, in the order it happened. */
export type GatewayEvent =
  | { readonly number: number; readonly kind: 'delivered' | 'failed'; readonly reference: string }
  | { readonly number: number; readonly kind: 'reply'; readonly reference: string; readonly text: string }

/** What can go wrong on request. */
export interface Faults {
  /** Answers after 20 s. */
  slow: boolean
  /** 503 to everything. */
  refuses: boolean
  /** Takes a message and never says so. */
  lost: boolean
  /** Says everything that happened twice. */
  duplicates: boolean
}

const SLOW_MS = 20_000
/** To a number that ends so, nothing can be delivered. */
const DEAD = '000'

/** A gateway for short messages on loopback; see PROTOCOL.md. */
export class MessagesStandIn extends HttpStandIn {
  readonly faults: Faults = { slow: false, refuses: false, lost: false, duplicates: false }
  /** Every message that went out, as often as it did. */
  readonly sent: TakenMessage[] = []
  private readonly events: GatewayEvent[] = []

  constructor(private readonly token = 'lantern-9') {
    super()
  }

  /** Somebody answers, as everybody does: to the last message their number got. @returns whether there is one */
  reply(from: string, text: string): boolean {
    const answered = this.sent.findLast(({ to }) => to === from)
    if (!answered) return false
    this.events.push({ number: this.events.length + 1, kind: 'reply', reference: answered.reference, text })
    return true
  }

  protected async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const url = new URL(request.url ?? '/', 'http://stand-in')
    const body = request.method === 'POST' ? await bodyOf(request) : {}
    const told = this.toldByHand(url.pathname, body)
    const [status, answer] = told ?? (await this.asked(request, url, body))
    if (status === null) response.destroy()
    else response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(answer))
  }

  /** What only the stand-in has: its faults, and somebody who answers. */
  private toldByHand(path: string, body: Record<string, unknown>): [number, unknown] | null {
    if (path === '/faults') {
      Object.assign(this.faults, body)
      return [200, this.faults]
    }
    if (path !== '/replies') return null
    return this.reply(String(body['from']), String(body['text'])) ? [200, {}] : [404, {}]
  }

  /** @returns status and answer; null as a status ends the connection without a word */
  private async asked(
    request: IncomingMessage,
    { pathname, searchParams }: URL,
    body: Record<string, unknown>,
  ): Promise<[number | null, unknown]> {
    if (request.headers.authorization !== `Bearer ${this.token}`) return [401, { error: 'who are you?' }]
    if (this.faults.slow) await new Promise((done) => setTimeout(done, SLOW_MS))
    if (this.faults.refuses) return [503, { error: 'not now' }]
    const reference = /^\/v1\/messages\/(.+)$/.exec(pathname)?.[1]
    if (reference !== undefined)
      return this.sent.some((one) => one.reference === reference) ? [200, { reference }] : [404, {}]
    if (pathname === '/v1/events') {
      const after = Number(searchParams.get('after') ?? 0)
      const events = this.events.filter(({ number }) => number > after)
      return [200, { events: this.faults.duplicates ? events.flatMap((one) => [one, one]) : events }]
    }
    if (pathname !== '/v1/messages') return [404, {}]
    const message = { reference: String(body['reference']), to: String(body['to']), text: String(body['text']) }
    if (!/^[\d +]{6,}$/.test(message.to)) return [422, { error: 'no such number' }]
    const known = this.sent.some((one) => one.reference === message.reference)
    if (!known) this.take(message)
    return this.faults.lost ? [null, null] : [known ? 200 : 202, { reference: message.reference }]
  }

  private take(message: TakenMessage): void {
    this.sent.push(message)
    const kind = message.to.endsWith(DEAD) ? 'failed' : 'delivered'
    this.events.push({ number: this.events.length + 1, kind, reference: message.reference })
  }
}
