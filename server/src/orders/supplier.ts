import * as v from 'valibot'

const count = v.pipe(v.number(), v.integer(), v.minValue(0))
const Item = v.object({ sku: v.string(), maker: v.string(), name: v.string(), price: count, stock: count, days: count })
export type SupplierItem = v.InferOutput<typeof Item>

const Placed = v.object({ number: v.string(), reference: v.string(), expected: v.pipe(v.string(), v.isoDate()) })
export type Placed = v.InferOutput<typeof Placed>
const NotAsListed = v.object({ lines: v.array(v.object({ sku: v.string(), price: count, stock: count })) })

/** What becomes of an order that was answered. */
export type OrderAnswer =
  | { readonly kind: 'placed'; readonly placed: Placed }
  | { readonly kind: 'refused'; readonly code: string; readonly lines: v.InferOutput<typeof NotAsListed>['lines'] }

/** The supplier could not be asked, or what it said could not be read; `code` is a key of the message catalogue. */
export class SupplierAway extends Error {
  constructor(readonly code: 'supplier-slow' | 'supplier-away' | 'supplier-failed' | 'supplier-garbled') {
    super(code)
  }
}

const TIMEOUT_MS = 4_000

/** A parts supplier as it is asked over the wire. */
export class Supplier {
  /** @param address `host:port` */
  constructor(
    private readonly address: string,
    private readonly token: string,
  ) {}

  /** Everything it lists. @throws SupplierAway */
  async items(): Promise<SupplierItem[]> {
    const response = await this.ask('/v1/items')
    if (!response.ok) throw new SupplierAway('supplier-failed')
    return (await read(response, v.object({ items: v.array(Item) }))).items
  }

  /** Whether it took an order by a reference; null when it did not. @throws SupplierAway */
  async orderOf(reference: string): Promise<Placed | null> {
    const response = await this.ask(`/v1/orders/${reference}`)
    if (response.status === 404) return null
    if (!response.ok) throw new SupplierAway('supplier-failed')
    return read(response, Placed)
  }

  /** Orders under a reference; one that was taken before is that order. @throws SupplierAway when nobody knows */
  async order(
    reference: string,
    lines: readonly { readonly sku: string; readonly quantity: number; readonly price: number }[],
  ): Promise<OrderAnswer> {
    const response = await this.ask('/v1/orders', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ reference, lines }),
    })
    if (response.status === 409)
      return { kind: 'refused', code: 'order-not-as-listed', lines: (await read(response, NotAsListed)).lines }
    if (response.status >= 400 && response.status < 500) return { kind: 'refused', code: 'order-refused', lines: [] }
    if (!response.ok) throw new SupplierAway('supplier-failed')
    return { kind: 'placed', placed: await read(response, Placed) }
  }

  private async ask(path: string, init: RequestInit = {}): Promise<Response> {
    try {
      return await fetch(`http://${this.address}${path}`, {
        ...init,
        headers: { ...(init.headers as Record<string, string> | undefined), authorization: `Bearer ${this.token}` },
        signal: AbortSignal.timeout(TIMEOUT_MS),
      })
    } catch (error) {
      throw new SupplierAway((error as Error).name === 'TimeoutError' ? 'supplier-slow' : 'supplier-away')
    }
  }
}

async function read<S extends v.GenericSchema>(response: Response, schema: S): Promise<v.InferOutput<S>> {
  try {
    return v.parse(schema, await response.json())
  } catch {
    throw new SupplierAway('supplier-garbled')
  }
}
