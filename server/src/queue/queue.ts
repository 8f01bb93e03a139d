import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import PgBoss from 'pg-boss'
import type { Logger } from 'pino'
import type { Work } from '../db/work.ts'
import type { LearnAsked, Learned } from './learnAsked.ts'
import { QUEUE_SCHEMA } from '../db/roles.ts'
import { BACKUP, FORECAST, MESSAGES, ORDER, ORDER_FIRST_SECONDS, REBUILD, takeUpAbandoned } from './queues.ts'
import { noted } from './background.ts'
import { Threads } from './threads.ts'
import { ORDERS } from '../orders/models.ts'

/** Work that outlives a request: it waits in the database until a server takes it. */
export interface ShopJobs {
  /** Forecasts every chain of a shop, going on where the run stands. */
  forecastShop(shopId: string, runId: string): Promise<void>
  /** Sees to an order until its supplier has said what became of it; asked for in the transaction that writes it. */
  settleOrder(work: Work, orderId: string): Promise<void>
  /** Sends what waits in the outbox; asked for in the transaction that writes it. */
  sendMessages(work: Work): Promise<void>
  /** Goes through a shop's bikes, where their state was asked for anew. */
  rebuildShop(shopId: string): Promise<void>
  /** Learns from chains, in a thread of its own. */
  learn(asked: LearnAsked): Promise<Learned>
}

/** Every night at three, by the clock of the machine's zone. */
const NIGHTLY = '0 3 * * *'
/** A piece of a forecast lasts so long, well within the time its job is held, ms. */
const PIECE_MS = 10_000
/** After so long a queue that could not be made ready is tried anew, ms. */
const AGAIN_MS = 2_000
/** How often jobs are looked for whose server was killed, seconds. */
const MAINTENANCE_SECONDS = 10

/** One piece of a run, done in a worker thread. @returns whether more of it is left */
export interface ForecastPiece {
  readonly url: string
  readonly shopId: string
  readonly runId: string
  /** Stops after so many ms, so that a piece always ends before its job is given to another. */
  readonly forMs: number
}

/** What a server does of the queue's work in its own thread. */
export interface QueueTasks {
  /** Finds out what became of an order. @returns whether it is known now */
  settle(shopId: string, orderId: string): Promise<boolean>
  /** Sends what waits in a shop's outbox. @returns seconds until there is more to do; null with nothing left */
  drain(shopId: string): Promise<number | null>
  /** Rebuilds what is outdated of a shop's state, for a while. @returns whether more is left */
  rebuild(shopId: string): Promise<boolean>
  /** Makes a backup; not there where somebody else makes them. */
  readonly backUp?: () => Promise<unknown>
}

/**
 * The queue in the database and the threads that do what comes out of it. A job is one piece of a run; a run that is
 * not over asks for the next, so that a killed server loses no more than a piece.
 */
export class Queue implements ShopJobs {
  private boss: PgBoss
  private stopping = false
  private ready: Promise<void> | undefined
  private readonly threads: Threads
  private readonly learning: Threads

  /** @param alone whether this is the only server: what another left half done is then nobody's, and taken up at once */
  constructor(
    private readonly url: string,
    private readonly logger: Logger,
    private readonly tasks: QueueTasks,
    private readonly alone = false,
  ) {
    this.boss = this.made()
    this.threads = new Threads(join(import.meta.dirname, '../forecast/forecastThread.ts'), logger, { most: 1 })
    this.learning = new Threads(join(import.meta.dirname, '../forecast/learnFrom.ts'), logger, { most: 1 })
  }

  private made(): PgBoss {
    const boss = new PgBoss({
      connectionString: this.url,
      schema: QUEUE_SCHEMA,
      max: 2,
      // Made by whoever owns the schema; the server only works with it.
      migrate: false,
      maintenanceIntervalSeconds: MAINTENANCE_SECONDS,
    })
    boss.on('error', (error) => noted(this.logger, error, 'queue'))
    return boss
  }

  /** Makes the queue ready; what is sent before waits for it. One that could not be made ready is tried anew when next asked for. */
  start(): Promise<void> {
    this.ready ??= this.open().catch(async (error: unknown) => {
      this.ready = undefined
      await this.boss.stop({ graceful: false }).catch(() => undefined)
      this.boss = this.made()
      throw error
    })
    return this.ready
  }

  /** Makes the queue ready as soon as the database lets it. */
  async startPatiently(): Promise<void> {
    while (!this.stopping) {
      try {
        await this.start()
        return
      } catch (error) {
        noted(this.logger, error, 'queue')
        await sleep(AGAIN_MS)
      }
    }
  }

  private async open(): Promise<void> {
    if (this.alone) await takeUpAbandoned(this.url)
    await this.boss.start()
    await this.boss.work<{ shopId: string; runId: string }>(FORECAST, { pollingIntervalSeconds: 0.5 }, async (jobs) => {
      for (const { data } of jobs) await this.piece(data.shopId, data.runId)
    })
    await this.boss.work<{ shopId: string; orderId: string }>(ORDER, { pollingIntervalSeconds: 2 }, async (jobs) => {
      for (const { data } of jobs)
        // Failing is how the queue is told to come back to it.
        if (!(await this.tasks.settle(data.shopId, data.orderId))) throw new Error('the supplier has not said yet')
    })
    await this.boss.work<{ shopId: string }>(MESSAGES, { pollingIntervalSeconds: 2 }, async (jobs) => {
      for (const { data } of jobs) {
        const again = await this.tasks.drain(data.shopId)
        if (again !== null) await this.boss.send(MESSAGES, data, { startAfter: again, singletonKey: data.shopId })
      }
    })
    await this.boss.work<{ shopId: string }>(REBUILD, { pollingIntervalSeconds: 2 }, async (jobs) => {
      for (const { data } of jobs) if (await this.tasks.rebuild(data.shopId)) await this.boss.send(REBUILD, data)
    })
    await this.nightly()
  }

  /** One server of many makes the night's backup. */
  private async nightly(): Promise<void> {
    const { backUp } = this.tasks
    if (!backUp) return
    await this.boss.schedule(BACKUP, NIGHTLY, {}, { tz: Intl.DateTimeFormat().resolvedOptions().timeZone })
    await this.boss.work(BACKUP, { pollingIntervalSeconds: 30 }, async () => {
      await backUp()
      this.logger.info('backed up')
    })
  }

  /** In the transaction: an order that stands has its job, one that does not has none. */
  async settleOrder(work: Work, orderId: string): Promise<void> {
    await this.sendWith(work, ORDER, { shopId: work.shopId, orderId }, { startAfter: ORDER_FIRST_SECONDS })
  }

  /** In the transaction: a message that stands is sent. */
  async sendMessages(work: Work): Promise<void> {
    await this.sendWith(work, MESSAGES, { shopId: work.shopId }, { singletonKey: work.shopId })
  }

  private async sendWith(
    { transaction, of }: Work,
    queue: string,
    data: object,
    options: { startAfter?: number; singletonKey?: string },
  ): Promise<void> {
    await this.start()
    const executeSql = async (text: string, values: unknown[]): Promise<{ rows: object[]; rowCount: number }> => {
      // The queue leaves out what is not given; every placeholder wants something.
      const wanted = Math.max(values.length, ...[...text.matchAll(/\$(\d+)/g)].map(([, n]) => Number(n)))
      const bind = Array.from({ length: wanted }, (_, i) => values[i] ?? null)
      const [rows] = await of(ORDERS).sequelize!.query(text, { bind, transaction })
      return { rows: rows as object[], rowCount: rows.length }
    }
    await this.boss.send(queue, data, { ...options, db: { executeSql } })
  }

  /** Brings up to date what a migration outdated of a shop's state. */
  async rebuildShop(shopId: string): Promise<void> {
    await this.start()
    await this.boss.send(REBUILD, { shopId }, { singletonKey: shopId })
  }

  async forecastShop(shopId: string, runId: string): Promise<void> {
    await this.start()
    await this.boss.send(FORECAST, { shopId, runId })
  }

  learn(asked: LearnAsked): Promise<Learned> {
    return this.learning.run(asked) as Promise<Learned>
  }

  async stop(): Promise<void> {
    this.stopping = true
    await this.ready?.catch(() => undefined)
    if (this.ready) await this.boss.stop({ graceful: false })
    await this.threads.close()
    await this.learning.close()
  }

  private async piece(shopId: string, runId: string): Promise<void> {
    const piece: ForecastPiece = { url: this.url, shopId, runId, forMs: PIECE_MS }
    const more = (await this.threads.run(piece)) as boolean
    this.logger.info({ runId, more }, 'forecast piece')
    if (more) await this.forecastShop(shopId, runId)
  }
}
