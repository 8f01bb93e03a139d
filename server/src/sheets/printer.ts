import { join } from 'node:path'
import type { Logger } from 'pino'
import { FairQueue } from '../queue/fairQueue.ts'
import { Threads } from '../queue/threads.ts'
import type { PrintAsked } from './printThread.ts'

/** A page that takes longer is given up, ms. */
const LONGEST_MS = 20_000
const THREAD_MB = 200

/** Makes PDFs, in a thread of their own: laying out a page holds up nobody else. */
export class Printer {
  private readonly threads: Threads
  private readonly queue = new FairQueue(1)

  constructor(logger: Logger) {
    this.threads = new Threads(join(import.meta.dirname, 'printThread.ts'), logger, { most: 1, memoryMb: THREAD_MB })
  }

  print(shopId: string, asked: PrintAsked): Promise<Buffer> {
    return this.queue.run(shopId, async () =>
      // Threads hand bytes over as plain arrays of them.
      Buffer.from((await this.threads.run(asked, { signal: AbortSignal.timeout(LONGEST_MS) })) as Uint8Array),
    )
  }

  close(): Promise<void> {
    return this.threads.close()
  }
}
