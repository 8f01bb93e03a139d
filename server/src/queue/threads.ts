import { join } from 'node:path'
import { pathToFileURL } from 'node:url'
import type { Transferable } from 'node:worker_threads'
import Piscina from 'piscina'
import type { Logger } from 'pino'

/** No piece of work in a thread takes longer, ms. */
const LONGEST_MS = 20 * 60_000

/** A pool of worker threads that run one module's default export. */
export class Threads {
  private readonly pool: Piscina
  private readonly module: string

  /**
   * @param module path of the module
   * @param options `most` threads at a time; `memoryMb` after which one is ended
   */
  constructor(module: string, logger: Logger, options: { most: number; memoryMb?: number }) {
    this.module = pathToFileURL(module).href
    this.pool = new Piscina({
      filename: join(import.meta.dirname, 'thread.mjs'),
      minThreads: 0,
      maxThreads: options.most,
      idleTimeout: 10_000,
      ...(options.memoryMb === undefined ? {} : { resourceLimits: { maxOldGenerationSizeMb: options.memoryMb } }),
    })
    this.pool.on('error', (error) => logger.error({ err: error }, 'threads'))
  }

  /** @throws Error for a piece that takes longer than any should; its thread is ended */
  run(asked: unknown, more: { signal?: AbortSignal; transferList?: Transferable[] } = {}): Promise<unknown> {
    const limit = AbortSignal.timeout(LONGEST_MS)
    const signal = more.signal ? AbortSignal.any([more.signal, limit]) : limit
    return this.pool.run({ module: this.module, asked }, { ...more, signal }) as Promise<unknown>
  }

  close(): Promise<void> {
    return this.pool.destroy()
  }
}
