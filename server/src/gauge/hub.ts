import type { IncomingMessage, ServerResponse } from 'node:http'
import { createChannel, createSession, type Channel, type Session } from 'better-sse'
import type { GaugeEvent } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import { inShop } from '../db/work.ts'
import type { DeviceAddress, DeviceAddresses } from '../devices/addresses.ts'
import { GaugeLink, type LinkPatience } from './link.ts'
import { SESSIONS, SHOPS } from '../auth/models.ts'

/** Events a screen that was away can still get. */
const KEPT = 100

interface LiveGauge {
  readonly instrumentId: string
  readonly link: GaugeLink
  /** As it was opened: `host:port`. */
  readonly address: string
  readonly channel: Channel
  readonly kept: { readonly number: number; readonly event: GaugeEvent }[]
  number: number
  holder: string
}

/** A gauge of a shop. Its id comes from a client: another shop may hold the same. */
export interface GaugeOf {
  readonly shopId: string
  readonly instrumentId: string
}
const keyOf = ({ shopId, instrumentId }: GaugeOf): string => `${shopId} ${instrumentId}`

/** Who watches a gauge. */
export interface Watcher {
  /** The screen that wants its readings; null for one that only looks. */
  readonly holder: string | null
  /** The last event it got. */
  readonly after: string
  /** The session it watches by; the stream ends with it. */
  readonly session: string
}

/**
 * Every gauge that sends by itself, of every shop this process serves: one line each, and a channel of server-sent
 * events for the screens that watch it.
 */
export class GaugeHub {
  private readonly gauges = new Map<string, LiveGauge>()
  private readonly streams = new Map<ServerResponse, string>()

  /**
   * @param devices where the server may talk to
   * @param standIn where the stand-in listens, `host:port`; undefined where none runs
   * @param patience how long the lines wait for their gauges
   */
  constructor(
    private readonly database: Database,
    private readonly devices: DeviceAddresses,
    private readonly standIn?: string,
    private readonly patience?: LinkPatience,
  ) {}

  /** Opens lines to all gauges there are. */
  async start(): Promise<void> {
    for (const { id } of await this.database.of(SHOPS).findAll()) await this.refresh(id)
  }

  /** Brings a shop's lines up to its register: a gauge was connected, moved or retired. */
  async refresh(shopId: string): Promise<void> {
    const wanted = await inShop(this.database, shopId, null, (work) =>
      work.select<{ id: string; connection: string }>(
        'SELECT id, connection FROM instruments WHERE connection IS NOT NULL AND retired_at IS NULL',
      ),
    )
    const open = new Set<string>()
    for (const { id: instrumentId, connection } of wanted) {
      const of = { shopId, instrumentId }
      const address = this.devices.of(connection, this.standIn)
      if (address === null) continue
      open.add(keyOf(of))
      if (this.gauges.get(keyOf(of))?.address === textOf(address)) continue
      this.forget(keyOf(of))
      this.open(of, address)
    }
    for (const key of [...this.gauges.keys()]) if (key.startsWith(`${shopId} `) && !open.has(key)) this.forget(key)
  }

  /** Ends what the screens of a session watch. */
  endSession(session: string): void {
    for (const [stream, of] of this.streams) if (of === session) stream.end()
  }

  /** Ends streams whose session is over, on whichever server it ended. */
  async endOver(): Promise<void> {
    const watching = [...new Set(this.streams.values())]
    if (watching.length === 0) return
    const { of } = this.database
    const going = await of(SESSIONS).findAll({
      where: { tokenHash: watching.map((session) => Buffer.from(session, 'hex')) },
      attributes: ['tokenHash', 'expiresAt'],
    })
    const alive = new Set(
      going
        .filter(({ expiresAt }) => expiresAt.getTime() > Date.now())
        .map(({ tokenHash }) => tokenHash.toString('hex')),
    )
    for (const session of watching) if (!alive.has(session)) this.endSession(session)
  }

  /** The line to a gauge; undefined for one that is not connected. */
  link(shopId: string, instrumentId: string): GaugeLink | undefined {
    return this.gauges.get(keyOf({ shopId, instrumentId }))?.link
  }

  /**
   * Lets a screen watch a gauge, from the event after the last it got. The newest screen to ask holds the gauge:
   * its readings are meant for it.
   */
  async watch(
    of: GaugeOf,
    { holder, after, session: watchedBy }: Watcher,
    req: IncomingMessage,
    res: ServerResponse,
  ): Promise<boolean> {
    const gauge = this.gauges.get(keyOf(of))
    if (!gauge) return false
    const { instrumentId } = of
    this.streams.set(res, watchedBy)
    res.on('close', () => this.streams.delete(res))
    const session: Session = await createSession(req, res, { serializer: JSON.stringify, keepAlive: 15_000 })
    const last = Number(session.lastId === '' ? after : session.lastId)
    const missed =
      (session.lastId === '' && after === '') || Number.isNaN(last)
        ? []
        : gauge.kept.filter(({ number }) => number > last)
    session.push(stateOf(instrumentId, gauge.link), 'gauge', String(gauge.number))
    for (const { event, number } of missed) session.push(event, 'gauge', String(number))
    gauge.channel.register(session)
    if (holder !== null && gauge.holder !== holder) {
      gauge.holder = holder
      this.tell(gauge, { kind: 'held', instrumentId, at: new Date().toISOString(), holder })
    }
    return true
  }

  close(): void {
    for (const id of [...this.gauges.keys()]) this.forget(id)
  }

  private open(of: GaugeOf, address: DeviceAddress): void {
    const { instrumentId } = of
    const at = (): string => new Date().toISOString()
    const link: GaugeLink = new GaugeLink(
      address,
      {
        reading: (percent) => this.tell(gauge, { kind: 'reading', instrumentId, at: at(), percent }),
        zeroed: () => this.tell(gauge, { kind: 'zeroed', instrumentId, at: at() }),
        changed: () => this.tell(gauge, stateOf(instrumentId, link)),
      },
      this.patience,
    )
    const gauge: LiveGauge = {
      instrumentId,
      link,
      address: textOf(address),
      channel: createChannel(),
      kept: [],
      number: 0,
      holder: '',
    }
    this.gauges.set(keyOf(of), gauge)
  }

  private forget(key: string): void {
    const gauge = this.gauges.get(key)
    if (!gauge) return
    this.gauges.delete(key)
    gauge.link.close()
    gauge.channel.broadcast(stateOf(gauge.instrumentId, gauge.link), 'gauge')
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

const textOf = ({ host, port }: DeviceAddress): string => `${host}:${port}`

const stateOf = (instrumentId: string, link: GaugeLink): GaugeEvent => ({
  kind: 'state',
  instrumentId,
  at: new Date().toISOString(),
  state: link.state,
  battery: link.battery,
  zeroedAt: link.zeroedAt?.toISOString() ?? null,
  garbled: link.garbled,
})
