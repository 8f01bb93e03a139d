import { Readable } from 'node:stream'
import * as v from 'valibot'
import { stringify } from 'csv-stringify'
import { AuditFilter, endpoints, fileRoutes, type Act } from '@pelrin/contract'
import type { Database } from '../db/connection.ts'
import { audited, inShop } from '../db/work.ts'
import type { GaugeHub } from '../gauge/hub.ts'
import { wentAway } from '../http/failures.ts'
import type { Serving } from '../http/serve.ts'
import { ProblemError } from '../problems/problem.ts'
import { sendStream } from '../transfers/sendStream.ts'
import { actsOf, kindsOfActs } from './auditStore.ts'
import { renameDevice, revokeDevice, signedDevices } from './devices.ts'

/** @param hub whose streams end with their session */
export function accessRoutes(serving: Serving, hub: GaugeHub): void {
  serving.serve(endpoints.devices, ({ work, session }) => signedDevices(work, session.deviceId))
  serving.serve(endpoints.renameDevice, async ({ work, params, body, session }) => {
    await renameDevice(work, params.id, body.name)
    return signedDevices(work, session.deviceId)
  })
  serving.serve(endpoints.revokeDevice, async ({ work, params, session }) => {
    const ended = await revokeDevice(work, params.id)
    work.transaction.afterCommit(() => {
      for (const hash of ended) hub.endSession(hash)
    })
    return signedDevices(work, session.deviceId)
  })
  serving.serve(endpoints.audit, async ({ work, query: { cursor, ...filter } }) => ({
    ...(await actsOf(work, filter, cursor)),
    actions: await kindsOfActs(work),
  }))
}

const COLUMNS = ['at', 'person', 'action', 'what', 'bike', 'customer', 'device', 'elsewhere', 'detail', 'id'] as const

/** The audit as a table, to be read with a spreadsheet. */
export function auditFilesRoutes(serving: Serving): void {
  const { database, logger } = serving
  serving.file(fileRoutes.auditCsv, async ({ ctx, session, author }) => {
    const filter = v.safeParse(AuditFilter, ctx.query)
    if (!filter.success) throw new ProblemError(422, 'field-invalid')
    const shopId = session.shop.id
    await inShop(database, shopId, author, (work) =>
      audited(work, 'took-out', 'table', shopId, { name: 'audit', ...filter.output }),
    )
    ctx.type = 'text/csv; charset=utf-8'
    ctx.attachment('audit.csv')
    ctx.set('Cache-Control', 'no-store')
    const table = stringify({ header: true, columns: [...COLUMNS], bom: true, escape_formulas: true })
    sendStream(ctx, [Readable.from(rowsOf(database, shopId, filter.output)), table], (error) => {
      if (error && !wentAway(error)) logger.error({ err: error, requestId: ctx.state.requestId }, 'audit')
    })
  })
}

async function* rowsOf(database: Database, shopId: string, filter: AuditFilter): AsyncGenerator<unknown[]> {
  let cursor: string | undefined
  do {
    const { acts, next } = await inShop(database, shopId, null, (work) => actsOf(work, filter, cursor))
    for (const act of acts) yield rowOf(act)
    cursor = next ?? undefined
  } while (cursor !== undefined)
}

const rowOf = ({ id, at, action, subjectKind, person, device, bike, elsewhere, detail }: Act): unknown[] => [
  ...[at, person ?? '', action, subjectKind, bike?.label ?? '', bike?.customer ?? '', device ?? ''],
  ...[elsewhere ? 'yes' : 'no', JSON.stringify(detail), id],
]
