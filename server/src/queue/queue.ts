import { join } from 'node:path'
import type { LearnedGroup } from '@pelrin/contract'
import PgBoss from 'pg-boss'
import type { Logger } from 'pino'
import type { Work } from '../db/work.ts'
import type { LearnAsked } from '../forecast/learnFrom.ts'
import { Threads } from './threads.ts'

/** Work that outlives a request: it waits in the database until a server takes it. */
export interface ShopJobs {
  /** Forecasts every chain of a shop, going on where the run stands. */
  forecastShop(shopId: string, runId: string): Promise<void>
  /** Sees to an order until its supplier has said what became of it; asked for in the transaction that writes it. */
  settleOrder(work: Work, orderId: string): Promise<void>
  /** Learns from chains, in a thread of its own. */
  learn(asked: LearnAsked): Promise<LearnedGroup[]>
}

const FORECAST = 'forecast-shop'
const ORDER = 'settle-order'
/** The request itself asks first; afterwards it is asked again and again, less and less often. */
const ORDER_FIRST_SECONDS = 8
const ORDER_RETRY_SECONDS = 15
const ORDER_TRIES = 400
/** A server that was killed holds its job no longer than this; the next one goes on. */
const HELD_SECONDS = 120
const TRIES = 20

/** One piece of a run, done in a worker thread. @returns whether more of it is left */
export interface ForecastPiece {
  readonly url: string
  readonly shopId: string
  readonly runId: string
  /** Stops after so many ms, so that a piece always ends before its job is given to another. */
  readonly forMs: number
}

/**
 * The queue in the database and the threads that do what comes out of it. A job is one piece of a run; a run that is
 * not over asks for the next, so that a killed server loses no more than a piece.
 */
export class Queue implements ShopJobs {
  private readonly boss: PgBoss
  private ready: Promise<void> | undefined
  private readonly threads: Threads
  private readonly learning: Threads

  /** @param settle finds out what became of an order; whether it is known now */
  constructor(
    private readonly url: string,
    private readonly logger: Logger,
    private readonly settle: (shopId: string, orderId: string) => Promise<boolean>,
  ) {
    this.boss = new PgBoss({ connectionString: url, schema: 'pelrin_jobs', max: 2 })
    this.boss.on('error', (error) => logger.error({ err: error }, 'queue'))
    this.threads = new Threads(join(import.meta.dirname, 'forecastThread.ts'), logger, { most: 1 })
    this.learning = new Threads(join(import.meta.dirname, '../forecast/learnFrom.ts'), logger, { most: 1 })
  }

  /** Makes the queue ready; what is sent before waits for it. */
  start(): Promise<void> {
    this.ready ??= this.open()
    return this.ready
  }

  private async open(): Promise<void> {
    await this.boss.start()
    await this.boss.createQueue(FORECAST, {
      name: FORECAST,
      retryLimit: TRIES,
      retryDelay: 2,
      expireInSeconds: HELD_SECONDS,
    })
    await this.boss.work<{ shopId: string; runId: string }>(FORECAST, { pollingIntervalSeconds: 0.5 }, async (jobs) => {
      for (const { data } of jobs) await this.piece(data.shopId, data.runId)
    })
    await this.boss.createQueue(ORDER, {
      name: ORDER,
      retryLimit: ORDER_TRIES,
      retryDelay: ORDER_RETRY_SECONDS,
      expireInSeconds: HELD_SECONDS,
    })
    await this.boss.work<{ shopId: string; orderId: string }>(ORDER, { pollingIntervalSeconds: 2 }, async (jobs) => {
      for (const { data } of jobs)
        // Failing is how the queue is told to come back to it.
        if (!(await this.settle(data.shopId, data.orderId))) throw new Error('the supplier has not said yet')
    })
  }

  /** In the transaction: an order that stands has its job, one that does not has none. */
  async settleOrder({ shopId, transaction, models }: Work, orderId: string): Promise<void> {
    await this.start()
    const executeSql = async (text: string, values: unknown[]): Promise<{ rows: object[]; rowCount: number }> => {
      // The queue leaves out what is not given; every placeholder wants something.
      const wanted = Math.max(values.length, ...[...text.matchAll(/\$(\d+)/g)].map(([, n]) => Number(n)))
      const bind = Array.from({ length: wanted }, (_, i) => values[i] ?? null)
      const [rows] = await models.Order.sequelize!.query(text, { bind, transaction })
      return { rows: rows as object[], rowCount: rows.length }
    }
    await this.boss.send(ORDER, { shopId, orderId }, { startAfter: ORDER_FIRST_SECONDS, db: { executeSql } })
  }

  async forecastShop(shopId: string, runId: string): Promise<void> {
    await this.start()
    await this.boss.send(FORECAST, { shopId, runId })
  }

  learn(asked: LearnAsked): Promise<LearnedGroup[]> {
    return this.learning.run(asked) as Promise<LearnedGroup[]>
  }

  async stop(): Promise<void> {
    await this.ready?.catch(() => undefined)
    if (this.ready) await this.boss.stop({ graceful: false })
    await this.threads.close()
    await this.learning.close()
  }

  private async piece(shopId: string, runId: string): Promise<void> {
    const piece: ForecastPiece = { url: this.url, shopId, runId, forMs: (HELD_SECONDS / 4) * 1000 }
    const more = (await this.threads.run(piece)) as boolean
    this.logger.info({ runId, more }, 'forecast piece')
    if (more) await this.forecastShop(shopId, runId)
  }
}
