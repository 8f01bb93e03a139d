import * as v from 'valibot'
import { CatalogueImported, endpoints, fileRoutes, type Output } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { fingerprint, idempotencyKey, once } from '../http/idempotency.ts'
import { ProblemError } from '../problems/problem.ts'
import type { Serving } from '../http/serve.ts'
import { withFiles } from '../transfers/receive.ts'
import { tableTold } from '../imports/tableTold.ts'
import { catalogue, systems } from '../parts/catalogueStore.ts'
import { addPart, catalogueItem, changePart, removePart, writeMovement } from './service.ts'
import { cataloguePage } from './store.ts'
import { catalogueAsCsv, type CatalogueTables } from './tables.ts'

export function catalogueRoutes(serving: Serving): void {
  serving.serve(endpoints.catalogue, ({ work, query }) => cataloguePage(work, query))
  serving.serve(endpoints.matchingCatalogue, async ({ work }) => {
    const { version, catalogue: found } = await catalogue(work)
    // The core's lists are read only, the contract's are not: what they hold is the same.
    return { version, ...found } as unknown as Output<typeof endpoints.matchingCatalogue.result>
  })
  serving.serve(endpoints.systems, ({ work }) => systems(work))
  serving.serve(endpoints.cataloguePart, ({ work, params }) => catalogueItem(work, params.id))
  serving.serve(endpoints.addPart, ({ work, body }) => addPart(work, body.id, body.cells))
  serving.serve(endpoints.changePart, ({ work, params, version, body }) =>
    changePart(work, params.id, version, body.cells),
  )
  serving.serve(endpoints.removePart, async ({ work, params, version }) => {
    await removePart(work, params.id, version)
    return undefined
  })
  serving.serve(endpoints.moveStock, ({ work, params, body }) => writeMovement(work, params.id, body))
}

/** The catalogue as a table, in and out: no JSON, so it stands beside the contract's endpoints. */
export function catalogueTablesRoutes(serving: Serving, tables: CatalogueTables): void {
  const { database, scratch } = serving
  serving.file(fileRoutes.catalogueCsv, async ({ ctx, session }) => {
    ctx.body = await inShop(database, session.shop.id, null, catalogueAsCsv)
    ctx.type = 'text/csv'
    ctx.attachment('catalogue.csv')
  })
  serving.file(fileRoutes.previewCatalogue, async ({ ctx, session }) => {
    // Whoever asked may have stopped waiting: then nobody wants the answer.
    const gone = new AbortController()
    ctx.res.on('close', () => ctx.res.writableEnded || gone.abort())
    ctx.body = await withFiles(ctx.req, scratch, session.shop.id, async (received) => {
      const { mapping } = tableTold(received.fields)
      const against = await inShop(database, session.shop.id, null, (work) => tables.catalogued(work))
      return tables.preview(against, received, mapping ?? null, gone.signal)
    })
  })
  serving.file(fileRoutes.importCatalogue, async ({ ctx, session, author }) => {
    const key = idempotencyKey(ctx.get('Idempotency-Key'))
    ctx.body = await withFiles(ctx.req, scratch, session.shop.id, (received) => {
      const { mapping, skip, fingerprint: previewed } = tableTold(received.fields)
      if (mapping === undefined) throw new ProblemError(422, 'field-invalid')
      return inShop(
        database,
        session.shop.id,
        author,
        (work) =>
          once(work, key, fingerprint('POST', ctx.path, { previewed, skip }), async () =>
            v.parse(CatalogueImported, await tables.import(work, received, { mapping, skip, fingerprint: previewed })),
          ),
        { long: true },
      )
    })
  })
}
