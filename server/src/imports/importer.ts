import { rm } from 'node:fs/promises'
import { join } from 'node:path'
import { MessageChannel } from 'node:worker_threads'
import type { Logger } from 'pino'
import { isSameRide } from '@pelrin/core'
import type { ImportLine, RideImport } from '@pelrin/contract'
import { v7 } from 'uuid'
import type { Database } from '../db/connection.ts'
import { inShop, type Author, type Work } from '../db/work.ts'
import { standingRides } from '../distance/store.ts'
import { ProblemError } from '../http/problem.ts'
import { Threads } from '../queue/threads.ts'
import type { ParsedRide } from './parsedRide.ts'
import type { ReadAsked, ReadTold } from './readThread.ts'
import type { Received } from './receive.ts'
import { appendLines, asRideImport, importById, importsOfBike, updateImport } from './store.ts'

/** Folders of an import are kept so long for its columns to be told. */
const KEPT_MS = 60 * 60_000
/** Memory a reading thread may use before it is ended, MB. */
const THREAD_MB = 220

interface Running {
  readonly stop: AbortController
  readonly received: Received
  reading: boolean
}

/** Reads uploaded rides in threads, one import after the other, and keeps what they hold until it is confirmed. */
export class Importer {
  private readonly threads: Threads
  private readonly running = new Map<string, Running>()

  constructor(
    private readonly database: Database,
    private readonly logger: Logger,
  ) {
    this.threads = new Threads(join(import.meta.dirname, 'readThread.ts'), logger, { most: 1, memoryMb: THREAD_MB })
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
      if (!(await work.models.Bike.findByPk(bikeId, { transaction: work.transaction })))
        throw new ProblemError(404, 'bike-unknown')
      const known = await importById(work, id)
      if (known) return known
      await work.models.RideImport.create(
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
    if (row.state === 'reading' && !this.running.has(id)) this.read(shop, author, id, received)
    return asRideImport(row)
  }

  /** Reads an import's files again, now that more is known of their columns. */
  async again(shop: { id: string; timeZone: string }, author: Author, id: string): Promise<void> {
    const run = this.running.get(id)
    if (!run) throw new ProblemError(409, 'import-not-ready')
    await inShop(this.database, shop.id, author, async (work) => {
      await work.models.StagedRide.destroy({ where: { importId: id }, transaction: work.transaction })
      await updateImport(work, id, { state: 'reading', done: 0, report: [], tables: [] })
    })
    this.read(shop, author, id, run.received)
  }

  /** Stops reading, and lets go of the files. */
  drop(id: string): void {
    const run = this.running.get(id)
    run?.stop.abort()
    this.running.delete(id)
    if (run) void rm(run.received.folder, { recursive: true, force: true })
  }

  /** Whether files of an import are being read here. */
  isReading = (id: string): boolean => this.running.get(id)?.reading === true

  async close(): Promise<void> {
    for (const id of [...this.running.keys()]) this.drop(id)
    await this.threads.close()
  }

  private read(shop: { id: string; timeZone: string }, author: Author, id: string, received: Received): void {
    const run: Running = { stop: new AbortController(), received, reading: true }
    this.running.set(id, run)
    void this.readFiles(shop, author, id, run)
      .catch(async (error: unknown) => {
        if (run.stop.signal.aborted) return
        this.logger.error({ err: error, importId: id }, 'import')
        await inShop(this.database, shop.id, author, (work) =>
          updateImport(work, id, { state: 'failed', finishedAt: work.now }),
        )
        this.drop(id)
      })
      .finally(() => {
        run.reading = false
        setTimeout(() => this.drop(id), KEPT_MS).unref()
      })
  }

  private async readFiles(
    shop: { id: string; timeZone: string },
    author: Author,
    id: string,
    { stop, received }: Running,
  ): Promise<void> {
    const { port1, port2 } = new MessageChannel()
    // Told one after the other: each transaction sees what the file before it left.
    let told = Promise.resolve()
    port1.on('message', (message: ReadTold) => {
      told = told.then(() => (stop.signal.aborted ? undefined : this.take(shop.id, author, id, message)))
    })
    const mappings = await inShop(this.database, shop.id, null, (work) =>
      work.models.CsvMapping.findAll({ transaction: work.transaction }),
    )
    const asked: ReadAsked = {
      ...received,
      timeZone: shop.timeZone,
      mappings: mappings.map(({ header, mapping }) => ({ header, mapping })),
      now: Date.now(),
      port: port2,
    }
    try {
      await this.threads.run(asked, { signal: stop.signal, transferList: [port2] })
      // What was posted last may still be on its way.
      await new Promise((done) => setTimeout(done, 20))
      await told
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
      const lines = [...told.lines, ...(await stage(work, id, told.file, told.rides))]
      await appendLines(work, id, lines)
      if (told.table)
        await work.select(
          `UPDATE ride_imports SET tables = tables || CAST(:table AS jsonb) WHERE id = :id RETURNING id`,
          { id, table: JSON.stringify([{ file: told.file, ...told.table, mapping: told.mapping }]) },
        )
    })
  }
}

/** Keeps the rides of one file that are in neither the ledger nor another of these files. */
async function stage(work: Work, importId: string, file: string, rides: readonly ParsedRide[]): Promise<ImportLine[]> {
  const row = await importById(work, importId)
  if (!row) return []
  const standing = (await standingRides(work, row.bikeId)).map(({ from, to, km }) => ({
    from: from.getTime(),
    to: to.getTime(),
    km,
  }))
  const staged = (await work.models.StagedRide.findAll({ where: { importId }, transaction: work.transaction })).map(
    ({ ride }) => ride,
  )
  const lines: ImportLine[] = []
  for (const { points, gaps, jumps, row: tableRow, ...ride } of rides) {
    const known = standing.some((one) => isSameRide(one, ride))
      ? 'ride-known'
      : staged.some((one) => isSameRide(one, ride))
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
    await work.models.StagedRide.create(
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
      !importer.isReading(row.id) &&
      work.now.getTime() - row.startedAt.getTime() > KEPT_MS
    ) {
      row.state = 'failed'
      await updateImport(work, row.id, { state: 'failed', finishedAt: work.now })
    }
  return rows.map(asRideImport)
}
