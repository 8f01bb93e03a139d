import Router from '@koa/router'
import split2 from 'split2'
import type { Context } from 'koa'
import { currentSession, type CurrentSession } from '../auth/currentSession.ts'
import type { Database } from '../db/connection.ts'
import { audited, inShop, takeStock, type Author } from '../db/work.ts'
import { ProblemError } from '../http/problem.ts'
import type { RequestState } from '../http/request.ts'
import type { Serving } from '../http/serve.ts'
import { rebuildState } from '../state/bikeState.ts'
import { TableTaken, TABLES_IN, type TableName } from '@pelrin/contract'
import * as v from 'valibot'
import { fingerprint, idempotencyKey, once } from '../http/idempotency.ts'
import { withFiles } from '../imports/receive.ts'
import { tableTold } from '../imports/tableTold.ts'
import { takeIn } from './archiveIn.ts'
import { shopArchive } from './archiveOut.ts'
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

/** What a shop takes out and in as files: no JSON, so they stand beside the contract's endpoints. The owner's, since they name every customer. */
export function archiveRouter({ database }: Serving): Router<RequestState> {
  const router = new Router<RequestState>({ prefix: '/api/v1' })
  router.get('/export/:name.csv', async (ctx) => {
    const session = await ownerOf(database, ctx)
    const { name = '' } = ctx.params
    if (!isName(name)) throw new ProblemError(404, 'table-unknown')
    ctx.type = 'text/csv; charset=utf-8'
    ctx.attachment(`${name}.csv`)
    ctx.set('Cache-Control', 'no-store')
    ctx.body = tableAsCsv(database, session.shop.id, name)
  })
  router.get('/archive.jsonl', async (ctx) => {
    const { shop } = await ownerOf(database, ctx)
    ctx.type = 'application/jsonl'
    ctx.attachment(`${shop.code}.jsonl`)
    ctx.set('Cache-Control', 'no-store')
    ctx.body = shopArchive(database, shop)
  })
  // Looked at first, then taken in: both read the same file, and only the second leaves something.
  router.post('/archive', async (ctx) => {
    const session = await ownerOf(database, ctx)
    const apply = ctx.query['apply'] === 'yes'
    const author = authorOf(session, ctx)
    const lines = ctx.req.pipe(split2({ maxLength: LONGEST_LINE }))
    // Whoever stops the upload takes everything back.
    ctx.req.on('aborted', () => lines.destroy(new Error('the upload was stopped')))
    const taken = await inShop(database, session.shop.id, author, async (work) => {
      const all = await takeIn(work, lines as AsyncIterable<string>)
      if (!apply) throw new OnlyLooked(all)
      await takeStock(work)
      await rebuildState(work)
      await audited(work, 'took-in', 'archive', session.shop.id, { taken: all })
      return all
    }).catch(seen)
    ctx.body = { tables: taken }
    ctx.set('Cache-Control', 'no-store')
  })
  // Looked at by writing it and taking it back: what is shown is what happens.
  router.post('/import/:name/preview', async (ctx) => {
    const session = await ownerOf(database, ctx)
    const name = tableNamed(ctx.params['name'])
    const author = authorOf(session, ctx)
    ctx.body = await withFiles(ctx.req, async ({ files, fields }) => {
      const { mapping = null } = tableTold(fields)
      return inShop(database, session.shop.id, author, async (work) => {
        const { timeZone } = session.shop
        const { added: _, ...preview } = await takeTableIn(work, name, files[0]!.path, {
          mapping,
          skip: [],
          timeZone,
          apply: false,
        })
        throw new OnlyLooked(preview)
      }).catch(seen)
    })
  })
  router.post('/import/:name', async (ctx) => {
    const session = await ownerOf(database, ctx)
    const name = tableNamed(ctx.params['name'])
    const key = idempotencyKey(ctx.get('Idempotency-Key'))
    ctx.body = await withFiles(ctx.req, ({ files, fields }) => {
      const { mapping, skip, fingerprint: previewed } = tableTold(fields)
      if (mapping === undefined) throw new ProblemError(422, 'field-invalid')
      return inShop(database, session.shop.id, authorOf(session, ctx), (work) =>
        once(work, key, fingerprint('POST', ctx.path, { previewed, skip }), async () => {
          const { timeZone } = session.shop
          const {
            added,
            counts,
            fingerprint: read,
          } = await takeTableIn(work, name, files[0]!.path, { mapping, skip, timeZone, apply: true })
          if (read !== previewed) throw new ProblemError(409, 'file-changed')
          await audited(work, 'imported', name, session.shop.id, { added, counts })
          return v.parse(TableTaken, { added, left: counts.same + counts.conflict + counts.wrong })
        }),
      )
    })
  })
  return router
}

const authorOf = (session: CurrentSession, ctx: { state: RequestState }): Author => ({
  personId: session.person.id,
  deviceId: session.deviceId,
  requestId: ctx.state.requestId,
})

function tableNamed(name: string | undefined): TableName {
  if (name === undefined || !Object.hasOwn(TABLES_IN, name)) throw new ProblemError(404, 'table-unknown')
  return name as TableName
}

async function ownerOf(database: Database, ctx: Context): Promise<CurrentSession> {
  const session = await currentSession(database, ctx)
  if (!session) throw new ProblemError(401, 'not-signed-in')
  if (session.person.role !== 'owner') throw new ProblemError(403, 'only-owner')
  return session
}
