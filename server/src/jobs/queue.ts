import { join } from 'node:path'
import type { LearnedGroup } from '@pelrin/contract'
import PgBoss from 'pg-boss'
import type { Logger } from 'pino'
import type { LearnAsked } from '../forecast/learnFrom.ts'
import { Threads } from './threads.ts'

/** Work that outlives a request: it waits in the database until a server takes it. */
export interface ShopJobs {
  /** Forecasts every chain of a shop, going on where the run stands. */
  forecastShop(shopId: string, runId: string): Promise<void>
  /** Learns from chains, in a thread of its own. */
  learn(asked: LearnAsked): Promise<LearnedGroup[]>
}

const FORECAST = 'forecast-shop'
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

  constructor(
    private readonly url: string,
    private readonly logger: Logger,
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
