import { readFileSync } from 'node:fs'
import type { IncomingMessage, ServerResponse } from 'node:http'
import { join } from 'node:path'
import { parse } from 'csv-parse/sync'
import { bodyOf, HttpStandIn } from '../HttpStandIn.ts'

/** An item as the supplier lists it. */
export interface SupplierItem {
  readonly sku: string
  readonly maker: string
  readonly name: string
  /** In minor units. */
  price: number
  stock: number
  /** Days until it is there. */
  readonly days: number
}

export interface SupplierOrder {
  readonly number: string
  readonly reference: string
  readonly expected: string
  readonly lines: readonly { readonly sku: string; readonly quantity: number; readonly price: number }[]
}

/** What can go wrong on request. */
export interface Faults {
  /** Answers after 20 s. */
  slow: boolean
  /** Lists more in stock than there is. */
  stale: boolean
  /** Prices go up between the list and the order. */
  dearer: boolean
  /** Takes an order and never says so. */
  lost: boolean
  failing: boolean
  garbled: boolean
}

const SLOW_MS = 20_000
const STALE_MORE = 25
const DEARER = 1.08
const DAY_MS = 86_400_000

/** A parts supplier on loopback with a made-up range; see PROTOCOL.md. */
export class SupplierStandIn extends HttpStandIn {
  readonly faults: Faults = {
    slow: false,
    stale: false,
    dearer: false,
    lost: false,
    failing: false,
    garbled: false,
  }
  readonly items: ReadonlyMap<string, SupplierItem>
  /** Orders taken, by the reference they came with: one of each. */
  readonly orders = new Map<string, SupplierOrder>()

  constructor(private readonly token = 'quayside-5') {
    super()
    this.items = new Map(readItems().map((item) => [item.sku, item]))
  }

  protected async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const url = new URL(request.url ?? '/', 'http://stand-in')
    const send = (status: number, body: unknown): void => {
      response.writeHead(status, { 'content-type': 'application/json' })
      response.end(this.faults.garbled && url.pathname.startsWith('/v1/') ? '{"items": [' : JSON.stringify(body))
    }
    if (url.pathname === '/faults' && request.method === 'POST') {
      Object.assign(this.faults, await bodyOf(request))
      send(200, this.faults)
      return
    }
    if (request.headers.authorization !== `Bearer ${this.token}`) {
      send(401, { error: 'wrong token' })
      return
    }
    if (this.faults.slow) await new Promise((done) => setTimeout(done, SLOW_MS))
    if (this.faults.failing) {
      send(500, { error: 'fault' })
      return
    }
    if (url.pathname === '/v1/items' && request.method === 'GET') {
      send(200, {
        items: [...this.items.values()].map((item) => ({
          ...item,
          stock: item.stock + (this.faults.stale ? STALE_MORE : 0),
        })),
      })
      return
    }
    const reference = /^\/v1\/orders\/([\w-]+)$/.exec(url.pathname)?.[1]
    if (reference !== undefined && request.method === 'GET') {
      const order = this.orders.get(reference)
      send(order ? 200 : 404, order ?? { error: 'no such order' })
      return
    }
    if (url.pathname === '/v1/orders' && request.method === 'POST') {
      this.order((await bodyOf(request)) as unknown as Asked, send, () => response.destroy())
      return
    }
    send(404, { error: 'no such address' })
  }

  private order({ reference, lines }: Asked, send: (status: number, body: unknown) => void, vanish: () => void): void {
    const before = this.orders.get(reference)
    if (before) {
      send(200, before)
      return
    }
    const found = lines.map((line) => ({ line, item: this.items.get(line.sku) }))
    if (found.some(({ item }) => item === undefined)) {
      send(422, { error: 'no such item' })
      return
    }
    if (this.faults.dearer) {
      for (const { item } of found) item!.price = Math.round(item!.price * DEARER)
      this.faults.dearer = false
    }
    const refused = found
      .filter(({ line, item }) => item!.price !== line.price || item!.stock < line.quantity)
      .map(({ item }) => ({ sku: item!.sku, price: item!.price, stock: item!.stock }))
    if (refused.length > 0) {
      send(409, { error: 'not as listed', lines: refused })
      return
    }
    for (const { line, item } of found) item!.stock -= line.quantity
    const order: SupplierOrder = {
      number: `Q${String(this.orders.size + 1).padStart(5, '0')}`,
      reference,
      expected: new Date(Date.now() + Math.max(...found.map(({ item }) => item!.days)) * DAY_MS)
        .toISOString()
        .slice(0, 10),
      lines,
    }
    this.orders.set(reference, order)
    if (this.faults.lost) vanish()
    else send(201, order)
  }
}

interface Asked {
  readonly reference: string
  readonly lines: SupplierOrder['lines']
}

const readItems = (): SupplierItem[] =>
  parse<Record<string, string>>(readFileSync(join(import.meta.dirname, 'range.csv'), 'utf8'), { columns: true }).map(
    ({ sku = '', maker = '', name = '', price, stock, days }) => ({
      sku,
      maker,
      name,
      price: Number(price),
      stock: Number(stock),
      days: Number(days),
    }),
  )
