import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import pLimit from 'p-limit'
import split2 from 'split2'
import * as v from 'valibot'
import { fileRoutes, TableTaken, TABLES_IN, type TableName } from '@pelrin/contract'
import { audited, inShop, analyzeTables, type Author } from '../db/work.ts'
import { wentAway } from '../http/failures.ts'
import { fingerprint, idempotencyKey, once } from '../http/idempotency.ts'
import { ProblemError } from '../problems/problem.ts'
import type { Serving } from '../http/serve.ts'
import { tableTold } from '../imports/tableTold.ts'
import { inBackground } from '../queue/background.ts'
import { asShop } from '../sessions/describe.ts'
import { rebuildState } from '../state/bikeState.ts'
import { withBody, withFiles } from '../transfers/receive.ts'
import { sendStream } from '../transfers/sendStream.ts'
import { takeIn } from './archiveIn.ts'
import { writeArchive } from './archiveOut.ts'
import { tableAsCsv } from './csv.ts'
import { takeTableIn } from './tableIn.ts'
import { EXPORT_TABLES, type ExportName } from './tables.ts'

const isName = (name: string): name is ExportName => Object.hasOwn(EXPORT_TABLES, name)
/** No row of a shop is longer, characters. */
const LONGEST_LINE = 4 * 1024 * 1024

/** What was only looked at: the transaction is taken back with it. */
class OnlyLooked<Seen> extends Error {
  constructor(readonly seen: Seen) {
    super('only looked')
  }
}
const seen = (error: unknown): unknown => {
  if (error instanceof OnlyLooked) return error.seen
  throw error
}

/** How many archives go out and come in at a time, and how many may wait: each takes a connection and a while. */
const AT_ONCE = 2
const WAITING = 6

/** What a shop takes out and in as files: no JSON, so they stand beside the contract's endpoints. The owner's, since they name every customer. */
export function archiveRoutes(serving: Serving): void {
  const { database, scratch, logger } = serving
  const turns = pLimit(AT_ONCE)
  const inTurn = <T>(job: () => Promise<T>): Promise<T> => {
    if (turns.pendingCount >= WAITING) throw new ProblemError(503, 'server-busy', { retryAfterSeconds: 30 })
    return turns(job)
  }
  const note = (author: Author, shopId: string, action: string, kind: string, detail: object = {}): Promise<void> =>
    inShop(database, shopId, author, (work) => audited(work, action, kind, shopId, detail))

  serving.file(fileRoutes.exportTable, async ({ ctx, session, author, params }) => {
    const { name = '' } = params
    if (!isName(name)) throw new ProblemError(404, 'table-unknown')
    await note(author, session.shop.id, 'took-out', 'table', { name })
    ctx.type = 'text/csv; charset=utf-8'
    ctx.attachment(`${name}.csv`)
    ctx.set('Cache-Control', 'no-store')
    sendStream(ctx, tableAsCsv(database, session.shop.id, name), (error) => {
      if (error && !wentAway(error)) logger.error({ err: error, requestId: ctx.state.requestId }, 'export')
    })
  })
  serving.file(fileRoutes.archiveOut, async ({ ctx, session, author }) => {
    const { shop } = session
    const gone = new AbortController()
    ctx.res.on('close', () => gone.abort())
    const folder = await scratch.folder(shop.id)
    try {
      const path = join(folder.path, 'archive')
      await inTurn(() => {
        // Who gave up while waiting takes nobody's turn.
        gone.signal.throwIfAborted()
        return writeArchive(database, asShop(shop), path, gone.signal)
      })
      await note(author, shop.id, 'took-out', 'archive')
      ctx.type = 'application/jsonl'
      ctx.attachment(`${shop.code}.jsonl`)
      ctx.length = (await stat(path)).size
      ctx.set('Cache-Control', 'no-store')
      sendStream(ctx, [createReadStream(path)], () => inBackground(logger, 'archive', () => folder.remove()))
    } catch (error) {
      await folder.remove()
      if (!gone.signal.aborted) throw error
    }
  })
  // Looked at first, then taken in: both read the same file, and only the second leaves something.
  serving.file(fileRoutes.archiveIn, async ({ ctx, session, author }) => {
    const apply = ctx.query['apply'] === 'yes'
    const settings = ctx.query['settings'] === 'yes'
    const { id: shopId } = session.shop
    ctx.body = await withBody(ctx.req, scratch, shopId, (path) =>
      inTurn(() =>
        inShop(
          database,
          shopId,
          author,
          async (work) => {
            const all = await linesOf(path, (lines) => takeIn(work, lines, { settings }))
            if (!apply) throw new OnlyLooked(all)
            await analyzeTables(work)
            await rebuildState(work)
            await audited(work, 'took-in', 'archive', shopId, { taken: all.tables, settings })
            return all
          },
          { long: true },
        ).catch(seen),
      ),
    )
    ctx.set('Cache-Control', 'no-store')
  })
  // Looked at by writing it and taking it back: what is shown is what happens.
  serving.file(fileRoutes.previewTable, async ({ ctx, session, author, params }) => {
    const name = tableNamed(params['name'])
    ctx.body = await withFiles(ctx.req, scratch, session.shop.id, async ({ files, fields }) => {
      const { mapping = null, dayFirst, instruments } = tableTold(fields)
      return inShop(
        database,
        session.shop.id,
        author,
        async (work) => {
          const { timeZone } = session.shop
          const { added: _, ...preview } = await takeTableIn(work, name, files[0]!.path, {
            mapping,
            skip: [],
            timeZone,
            dayFirst,
            instruments,
            apply: false,
          })
          throw new OnlyLooked(preview)
        },
        { long: true },
      ).catch(seen)
    })
  })
  serving.file(fileRoutes.importTable, async ({ ctx, session, author, params }) => {
    const name = tableNamed(params['name'])
    const key = idempotencyKey(ctx.get('Idempotency-Key'))
    ctx.body = await withFiles(ctx.req, scratch, session.shop.id, ({ files, fields }) => {
      const { mapping, skip, dayFirst, instruments, fingerprint: previewed } = tableTold(fields)
      if (mapping === undefined) throw new ProblemError(422, 'field-invalid')
      return inShop(
        database,
        session.shop.id,
        author,
        (work) =>
          once(work, key, fingerprint('POST', ctx.path, { previewed, skip, dayFirst, instruments }), async () => {
            const { timeZone } = session.shop
            const {
              added,
              counts,
              fingerprint: read,
            } = await takeTableIn(work, name, files[0]!.path, {
              mapping,
              skip,
              timeZone,
              dayFirst,
              instruments,
              apply: true,
            })
            if (read !== previewed) throw new ProblemError(409, 'file-changed')
            await audited(work, 'imported', name, session.shop.id, { added, counts })
            return v.parse(TableTaken, { added, left: counts.same + counts.conflict + counts.wrong })
          }),
        { long: true },
      )
    })
  })
}

/** Reads the lines of a file, none of them longer than a row of a shop is. @throws ProblemError 422 for a longer one */
async function linesOf<T>(path: string, read: (lines: AsyncIterable<string>) => Promise<T>): Promise<T> {
  let failed: Error | null = null
  return pipeline(createReadStream(path), split2({ maxLength: LONGEST_LINE }), (lines) =>
    read(lines as AsyncIterable<string>).catch((error: unknown) => {
      failed = error as Error
      throw error
    }),
  ).catch((error: unknown) => {
    // Cut short by its reader, the file is not to blame.
    if (failed) throw failed
    if (error instanceof Error && /maximum buffer/i.test(error.message))
      throw new ProblemError(422, 'archive-line', { values: { line: '?' } })
    throw error
  })
}

function tableNamed(name: string | undefined): TableName {
  if (name === undefined || !Object.hasOwn(TABLES_IN, name)) throw new ProblemError(404, 'table-unknown')
  return name as TableName
}
