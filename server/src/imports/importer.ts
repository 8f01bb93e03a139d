import { stat } from 'node:fs/promises'
import { join } from 'node:path'
import { MessageChannel } from 'node:worker_threads'
import type { Logger } from 'pino'
import { isSameRide } from '@pelrin/core'
import type { ImportLine, RideImport } from '@pelrin/contract'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { v7 } from 'uuid'
import type { Database } from '../db/connection.ts'
import { inShop, type Author, type Work } from '../db/work.ts'
import { standingRides } from '../distance/store.ts'
import { ProblemError } from '../problems/problem.ts'
import { inBackground } from '../queue/background.ts'
import { FairQueue } from '../queue/fairQueue.ts'
import { Threads } from '../queue/threads.ts'
import type { Received } from '../transfers/receive.ts'
import type { ParsedRide } from './parsedRide.ts'
import type { ReadAsked, ReadTold } from './readThread.ts'
import { appendLines, asRideImport, importById, importsOfBike, updateImport } from './store.ts'
import { BIKES } from '../bikes/models.ts'
import { CSV_MAPPINGS, RIDE_IMPORTS, STAGED_RIDES } from './models.ts'

/** Folders of an import are kept so long for its columns to be told. */
const KEPT_MS = 60 * 60_000
/** Memory a reading thread may use before it is ended, MB. */
const THREAD_MB = 220
/** An upload that takes longer to read is given up, ms. */
const LONGEST_MS = 15 * 60_000
/** Smaller uploads do not wait for larger ones, bytes. */
const SMALL_BYTES = 8 * 1024 * 1024

interface Running {
  readonly stop: AbortController
  readonly received: Received
  reading: boolean
}

/** Threads of their own for small uploads and large ones, each taken in turn by the shops that wait. */
interface Lane {
  readonly threads: Threads
  readonly queue: FairQueue
}

/** Keys of what is kept in memory: an id comes from a client, and another shop may hold the same. */
const keyOf = (shopId: string, id: string): string => `${shopId} ${id}`

/** Reads uploaded rides in threads, one import after the other, and keeps what they hold until it is confirmed. */
export class Importer {
  private readonly small: Lane
  private readonly large: Lane
  private readonly running = new Map<string, Running>()

  constructor(
    private readonly database: Database,
    private readonly logger: Logger,
  ) {
    const lane = (): Lane => ({
      threads: new Threads(join(import.meta.dirname, 'readThread.ts'), logger, { most: 1, memoryMb: THREAD_MB }),
      queue: new FairQueue(1),
    })
    this.small = lane()
    this.large = lane()
  }

  /** Begins an import of received files. @returns at once; {@link rideImport} tells how far it is */
  async begin(
    shop: { id: string; timeZone: string },
    author: Author,
    bikeId: string,
    id: string,
    received: Received,
  ): Promise<RideImport> {
    const row = await inShop(this.database, shop.id, author, async (work) => {
      if (!(await work.of(BIKES).findByPk(bikeId, { transaction: work.transaction })))
        throw new ProblemError(404, 'bike-unknown')
      const known = await importById(work, id)
      if (known) return known
      await work.of(RIDE_IMPORTS).create(
        {
          id,
          bikeId,
          personId: author.personId,
          startedAt: work.now,
          finishedAt: null,
          state: 'reading',
          files: received.files.length,
          done: 0,
          report: [],
          tables: [],
        },
        { transaction: work.transaction },
      )
      return importById(work, id)
    })
    if (!row) throw new Error('an import was not kept')
    // Sent again while the first is read, or after it was: these files are not wanted.
    if (row.state !== 'reading' || this.running.has(keyOf(shop.id, id))) await received.folder.remove()
    else this.read(shop, author, id, received)
    return asRideImport(row)
  }

  /** Reads an import's files again, now that more is known of their columns. */
  async again(shop: { id: string; timeZone: string }, author: Author, id: string): Promise<void> {
    const run = this.running.get(keyOf(shop.id, id))
    if (!run) throw new ProblemError(409, 'import-not-ready')
    await inShop(this.database, shop.id, author, async (work) => {
      await work.of(STAGED_RIDES).destroy({ where: { importId: id }, transaction: work.transaction })
      await updateImport(work, id, { state: 'reading', done: 0, report: [], tables: [] })
    })
    this.read(shop, author, id, run.received)
  }

  /** Stops reading, and lets go of the files. */
  async drop(shopId: string, id: string): Promise<void> {
    const key = keyOf(shopId, id)
    const run = this.running.get(key)
    this.running.delete(key)
    run?.stop.abort()
    await run?.received.folder.remove()
  }

  /** Whether files of an import are being read here. */
  isReading = (shopId: string, id: string): boolean => this.running.get(keyOf(shopId, id))?.reading === true

  async close(): Promise<void> {
    const all = [...this.running.values()]
    this.running.clear()
    for (const { stop, received } of all) {
      stop.abort()
      await received.folder.remove()
    }
    await Promise.all([this.small, this.large].map(({ threads }) => threads.close()))
  }

  private read(shop: { id: string; timeZone: string }, author: Author, id: string, received: Received): void {
    const run: Running = { stop: new AbortController(), received, reading: true }
    this.running.set(keyOf(shop.id, id), run)
    inBackground(this.logger, 'import', async () => {
      try {
        await this.readFiles(shop, author, id, run)
      } catch (error) {
        if (run.stop.signal.aborted) return
        this.logger.error({ err: error, importId: id }, 'import')
        await this.drop(shop.id, id)
        // Where the database is away this fails too; whoever looks later is told all the same, since nobody reads it.
        await inShop(this.database, shop.id, author, (work) =>
          updateImport(work, id, { state: 'failed', finishedAt: work.now }),
        )
      } finally {
        run.reading = false
        setTimeout(() => inBackground(this.logger, 'import', () => this.drop(shop.id, id)), KEPT_MS).unref()
      }
    })
  }

  private async readFiles(
    shop: { id: string; timeZone: string },
    author: Author,
    id: string,
    { stop, received }: Running,
  ): Promise<void> {
    const { port1, port2 } = new MessageChannel()
    const tooLong = AbortSignal.timeout(LONGEST_MS)
    const failed = new AbortController()
    const signal = AbortSignal.any([stop.signal, tooLong, failed.signal])
    // Told one after the other: each transaction sees what the file before it left.
    const told = new Promise<void>((done, reject) => {
      let last = Promise.resolve()
      port1.on('message', (message: ReadTold) => {
        last = last.then(() => (signal.aborted ? undefined : this.take(shop.id, author, id, message)))
        last.then(
          () => message.kind === 'end' && done(),
          (error: unknown) => {
            // Nobody reads on for a database that does not take it.
            failed.abort()
            reject(error instanceof Error ? error : new Error(String(error)))
          },
        )
      })
    })
    const { mappings, assumed } = await inShop(this.database, shop.id, null, async (work) => ({
      mappings: await work.of(CSV_MAPPINGS).findAll({ transaction: work.transaction }),
      assumed: (await assumptionsInForce(work)).assumed,
    }))
    const { folder, files, bytesLeft } = received
    const asked: ReadAsked = {
      folder: folder.path,
      files,
      bytesLeft,
      timeZone: shop.timeZone,
      assumed: assumed.distance,
      mappings: mappings.map(({ header, mapping }) => ({ header, mapping })),
      now: Date.now(),
      port: port2,
    }
    const { threads, queue } = (await sizeOf(files)) > SMALL_BYTES ? this.large : this.small
    try {
      await queue.run(shop.id, async () => {
        const reading = threads.run(asked, { signal, transferList: [port2] })
        // Whichever fails first says why; the other is over with it.
        await Promise.all([reading, told])
      })
    } finally {
      port1.close()
    }
    if (stop.signal.aborted) return
    await inShop(this.database, shop.id, author, async (work) => {
      const now = await importById(work, id, true)
      if (now?.state === 'reading') await updateImport(work, id, { state: 'previewed', done: now.files })
    })
  }

  private take(shopId: string, author: Author, id: string, told: ReadTold): Promise<void> {
    return inShop(this.database, shopId, author, async (work) => {
      if (told.kind === 'files') {
        await updateImport(work, id, { files: Math.max(1, told.files) })
        return
      }
      if (told.kind === 'end') return
      const lines = [...told.lines, ...(await stage(work, id, told.file, told.rides))]
      await appendLines(work, id, lines)
      if (told.table) {
        const { header, rows, days, encoding, delimiter } = told.table
        const table = { file: told.file, header, rows, days, written: { encoding, delimiter }, mapping: told.mapping }
        await work.execute(`UPDATE ride_imports SET tables = tables || CAST(:table AS jsonb) WHERE id = :id`, {
          id,
          table: JSON.stringify([table]),
        })
      }
    })
  }
}

async function sizeOf(files: Received['files']): Promise<number> {
  const sizes = await Promise.all(files.map(async ({ path }) => (await stat(path)).size))
  return sizes.reduce((sum, size) => sum + size, 0)
}

/** Keeps the rides of one file that are in neither the ledger nor another of these files. */
async function stage(work: Work, importId: string, file: string, rides: readonly ParsedRide[]): Promise<ImportLine[]> {
  const row = await importById(work, importId)
  if (!row) return []
  const { assumed } = await assumptionsInForce(work)
  const standing = (await standingRides(work, row.bikeId)).map(({ from, to, km }) => ({
    from: from.getTime(),
    to: to.getTime(),
    km,
  }))
  const staged = (await work.of(STAGED_RIDES).findAll({ where: { importId }, transaction: work.transaction })).map(
    ({ ride }) => ride,
  )
  const lines: ImportLine[] = []
  for (const { points, gaps, jumps, row: tableRow, ...ride } of rides) {
    const known = standing.some((one) => isSameRide(one, ride, assumed.distance))
      ? 'ride-known'
      : staged.some((one) => isSameRide(one, ride, assumed.distance))
        ? 'ride-twice'
        : null
    lines.push({
      file,
      ...(tableRow === undefined ? {} : { row: tableRow }),
      outcome: known === null ? 'new' : 'known',
      code: known ?? 'ride-new',
      startedAt: new Date(ride.from).toISOString(),
      km: ride.km,
      minutes: (ride.to - ride.from) / 60_000,
      gaps,
      jumps,
    })
    if (known !== null) continue
    staged.push(ride)
    await work.of(STAGED_RIDES).create(
      // Threads hand bytes over as plain arrays of them.
      { id: v7(), importId, file, ride, points: points && Buffer.from(points) },
      { transaction: work.transaction },
    )
  }
  return lines
}

/** Imports of a bike. One whose server was stopped while it read is over. */
export async function importsOf(work: Work, bikeId: string, importer: Importer): Promise<RideImport[]> {
  const rows = await importsOfBike(work, bikeId)
  for (const row of rows)
    if (
      row.state === 'reading' &&
      !importer.isReading(work.shopId, row.id) &&
      work.now.getTime() - row.startedAt.getTime() > KEPT_MS
    ) {
      row.state = 'failed'
      await updateImport(work, row.id, { state: 'failed', finishedAt: work.now })
    }
  return rows.map(asRideImport)
}
