import type { IncomingMessage, ServerResponse } from 'node:http'
import { createChannel, createSession, type Channel, type Session } from 'better-sse'
import { STAND_IN, type GaugeEvent } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import { inShop } from '../db/work.ts'
import { GaugeLink, type LinkPatience } from './link.ts'

/** Events a screen that was away can still get. */
const KEPT = 100

interface LiveGauge {
  readonly link: GaugeLink
  readonly address: string
  readonly channel: Channel
  readonly kept: { readonly number: number; readonly event: GaugeEvent }[]
  number: number
  holder: string
}

/**
 * Every gauge that sends by itself, of every shop this process serves: one line each, and a channel of server-sent
 * events for the screens that watch it.
 */
export class GaugeHub {
  private readonly gauges = new Map<string, LiveGauge>()

  /**
   * @param standIn where the stand-in listens, `host:port`; undefined where none runs
   * @param patience how long the lines wait for their gauges
   */
  constructor(
    private readonly database: Database,
    private readonly standIn?: string,
    private readonly patience?: LinkPatience,
  ) {}

  /** Opens lines to all gauges there are. */
  async start(): Promise<void> {
    for (const { id } of await this.database.models.Shop.findAll()) await this.refresh(id)
  }

  /** Brings a shop's lines up to its register: a gauge was connected, moved or retired. */
  async refresh(shopId: string): Promise<void> {
    const wanted = await inShop(this.database, shopId, null, (work) =>
      work.select<{ id: string; connection: string }>(
        'SELECT id, connection FROM instruments WHERE connection IS NOT NULL AND retired_at IS NULL',
      ),
    )
    for (const { id, connection } of wanted) {
      const address = connection === STAND_IN ? this.standIn : connection
      const known = this.gauges.get(id)
      if (known?.address === address) continue
      if (known) this.forget(id)
      if (address !== undefined) this.open(id, address)
    }
    const ids = await inShop(this.database, shopId, null, (work) =>
      work.select<{ id: string }>('SELECT id FROM instruments'),
    )
    for (const { id } of ids) if (this.gauges.has(id) && !wanted.some((one) => one.id === id)) this.forget(id)
  }

  /** The line to a gauge; undefined for one that is not connected. */
  link(instrumentId: string): GaugeLink | undefined {
    return this.gauges.get(instrumentId)?.link
  }

  /**
   * Lets a screen watch a gauge, from the event after the last it got. The newest screen to ask holds the gauge:
   * its readings are meant for it.
   */
  async watch(
    instrumentId: string,
    { holder, after }: { holder: string; after: string },
    req: IncomingMessage,
    res: ServerResponse,
  ): Promise<boolean> {
    const gauge = this.gauges.get(instrumentId)
    if (!gauge) return false
    const session: Session = await createSession(req, res, { serializer: JSON.stringify, keepAlive: 15_000 })
    const last = Number(session.lastId === '' ? after : session.lastId)
    const missed =
      (session.lastId === '' && after === '') || Number.isNaN(last)
        ? []
        : gauge.kept.filter(({ number }) => number > last)
    session.push(stateOf(instrumentId, gauge.link), 'gauge', String(gauge.number))
    for (const { event, number } of missed) session.push(event, 'gauge', String(number))
    gauge.channel.register(session)
    if (gauge.holder !== holder) {
      gauge.holder = holder
      this.tell(gauge, { kind: 'held', instrumentId, at: new Date().toISOString(), holder })
    }
    return true
  }

  close(): void {
    for (const id of [...this.gauges.keys()]) this.forget(id)
  }

  private open(instrumentId: string, address: string): void {
    const [host = '127.0.0.1', port] = address.split(':')
    const at = (): string => new Date().toISOString()
    const link: GaugeLink = new GaugeLink(
      { host, port: Number(port) },
      {
        reading: (percent) => this.tell(gauge, { kind: 'reading', instrumentId, at: at(), percent }),
        zeroed: () => this.tell(gauge, { kind: 'zeroed', instrumentId, at: at() }),
        changed: () => this.tell(gauge, stateOf(instrumentId, link)),
      },
      this.patience,
    )
    const gauge: LiveGauge = { link, address, channel: createChannel(), kept: [], number: 0, holder: '' }
    this.gauges.set(instrumentId, gauge)
  }

  private forget(instrumentId: string): void {
    const gauge = this.gauges.get(instrumentId)
    if (!gauge) return
    this.gauges.delete(instrumentId)
    gauge.link.close()
    gauge.channel.broadcast(stateOf(instrumentId, gauge.link), 'gauge')
  }

  private tell(gauge: LiveGauge, event: GaugeEvent): void {
    gauge.number++
    // States are told anew to whoever comes; only what happened has to be caught up on.
    if (event.kind === 'reading' || event.kind === 'zeroed') {
      gauge.kept.push({ number: gauge.number, event })
      if (gauge.kept.length > KEPT) gauge.kept.shift()
    }
    gauge.channel.broadcast(event, 'gauge', { eventId: String(gauge.number) })
  }
}

const stateOf = (instrumentId: string, link: GaugeLink): GaugeEvent => ({
  kind: 'state',
  instrumentId,
  at: new Date().toISOString(),
  state: link.state,
  battery: link.battery,
  zeroedAt: link.zeroedAt?.toISOString() ?? null,
  garbled: link.garbled,
})
