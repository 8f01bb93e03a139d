import { basename, dirname, extname, join } from 'node:path'
import { pathToFileURL } from 'node:url'
import type { Transferable } from 'node:worker_threads'
import Piscina from 'piscina'
import type { Logger } from 'pino'

/** No piece of work in a thread takes longer, ms. */
const LONGEST_MS = 20 * 60_000

/** Whether this runs compiled: then a module of a thread lies beside it under its own name, and needs no loader. */
const COMPILED = extname(import.meta.filename) === '.js'
const compiled = (module: string): string => join(dirname(import.meta.filename), `${basename(module, '.ts')}.js`)

/** A pool of worker threads that run one module's default export. */
export class Threads {
  private readonly pool: Piscina
  /** What its thread is to run; null where that is all it can. */
  private readonly module: string | null

  /**
   * @param module path of the module's source
   * @param options `most` threads at a time; `memoryMb` after which one is ended
   */
  constructor(module: string, logger: Logger, options: { most: number; memoryMb?: number }) {
    this.module = COMPILED ? null : pathToFileURL(module).href
    this.pool = new Piscina({
      filename: COMPILED ? compiled(module) : join(import.meta.dirname, 'thread.mjs'),
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
    const task = this.module === null ? asked : { module: this.module, asked }
    return this.pool.run(task, { ...more, signal }) as Promise<unknown>
  }

  close(): Promise<void> {
    return this.pool.destroy()
  }
}
