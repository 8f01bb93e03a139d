import { setTimeout as sleep } from 'node:timers/promises'
import type { PotTemperature } from '@pelrin/contract'
import * as v from 'valibot'
import type { Database } from '../db/connection.ts'
import { inShop } from '../db/work.ts'
import type { DeviceAddresses } from '../devices/addresses.ts'
import { SHOPS } from '../auth/models.ts'

/** How often a thermometer is asked, and how long it may take, ms. */
const EVERY_MS = 2_000
const PATIENCE_MS = 1_500
/** Everything of the last minutes is kept; before that one in so many, up to an hour, ms. */
const WHOLE_MS = 10 * 60_000
const KEPT_MS = 60 * 60_000
const ONE_IN = 15

const Answer = v.object({ celsius: v.pipe(v.number(), v.finite()) })
type Reading = PotTemperature['readings'][number]

/**
 * The thermometers in the pots of every shop this process serves, each asked every two seconds. What was not sent is not made up: whether a
 * temperature can be believed is judged by whoever shows it.
 */
export class Thermometers {
  private readonly readings = new Map<string, { list: Reading[] }>()
  private readonly stop = new AbortController()

  /**
   * @param devices where the server may talk to
   * @param standIn where the stand-in listens, `host:port`; undefined where none runs
   */
  constructor(
    private readonly database: Database,
    private readonly devices: DeviceAddresses,
    private readonly standIn?: string,
    private readonly every = EVERY_MS,
  ) {}

  /** Asks every pot's thermometer until closed. */
  async start(): Promise<void> {
    const asking: Promise<void>[] = []
    for (const { id: shopId } of await this.database.of(SHOPS).findAll())
      for (const { id, thermometer } of await inShop(this.database, shopId, null, (work) =>
        work.select<{ id: string; thermometer: string }>(
          'SELECT id, thermometer FROM pots WHERE thermometer IS NOT NULL',
        ),
      )) {
        const address = this.devices.of(thermometer, this.standIn)
        if (address) asking.push(this.ask(shopId, id, `${address.host}:${address.port}`))
      }
    await Promise.all(asking)
  }

  close(): void {
    this.stop.abort()
  }

  /** What a pot's thermometer sent; nothing for one without, or of another shop. */
  of(shopId: string, potId: string): PotTemperature {
    const kept = this.readings.get(`${shopId} ${potId}`)
    return { now: Date.now(), readings: kept?.list ?? [] }
  }

  private async ask(shopId: string, potId: string, address: string): Promise<void> {
    const kept = { list: [] as Reading[] }
    this.readings.set(`${shopId} ${potId}`, kept)
    while (!this.stop.signal.aborted) {
      try {
        const response = await fetch(`http://${address}/celsius`, {
          signal: AbortSignal.any([this.stop.signal, AbortSignal.timeout(PATIENCE_MS)]),
        })
        const { celsius } = v.parse(Answer, await response.json())
        kept.list = [...thinned(kept.list, Date.now()), { at: Date.now(), celsius }]
      } catch {
        // Silence and rubbish are told by there being nothing new.
      }
      await sleep(this.every, undefined, { signal: this.stop.signal }).catch(() => undefined)
    }
  }
}

const thinned = (list: readonly Reading[], now: number): Reading[] =>
  list.filter(({ at }) => now - at < WHOLE_MS || (now - at < KEPT_MS && Math.floor(at / EVERY_MS) % ONE_IN === 0))
