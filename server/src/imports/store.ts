import type { ImportLine, RideImport } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { RIDE_IMPORTS, type RideImportRow } from './models.ts'

/** Imports shown of a bike. */
const SHOWN = 12
/** What imports of before say of how their tables were written: nothing. */
const UNGUESSED = { days: {}, written: null }

export const asRideImport = ({ report, ...row }: RideImportRow): RideImport => ({
  id: row.id,
  bikeId: row.bikeId,
  state: row.state,
  startedAt: row.startedAt.toISOString(),
  finishedAt: row.finishedAt?.toISOString() ?? null,
  files: row.files,
  done: row.done,
  lines: report,
  tables: row.tables.map((table) => ({ ...UNGUESSED, ...table })),
})

export async function importsOfBike(work: Work, bikeId: string): Promise<RideImportRow[]> {
  const rows = await work.of(RIDE_IMPORTS).findAll({
    where: { bikeId },
    order: [['startedAt', 'DESC']],
    limit: SHOWN,
    transaction: work.transaction,
  })
  return rows.map((row) => row.get({ plain: true }))
}

export async function importById(work: Work, id: string, lock = false): Promise<RideImportRow | null> {
  const row = await work.of(RIDE_IMPORTS).findOne({
    where: { id },
    transaction: work.transaction,
    ...(lock ? { lock: work.transaction.LOCK.UPDATE } : {}),
  })
  return row?.get({ plain: true }) ?? null
}

export async function updateImport(work: Work, id: string, change: Partial<RideImportRow>): Promise<void> {
  await work.of(RIDE_IMPORTS).update(change, { where: { id }, transaction: work.transaction })
}

/** Adds lines to an import's report and counts a file as read. */
export async function appendLines(work: Work, id: string, lines: readonly ImportLine[]): Promise<void> {
  await work.execute(
    `UPDATE ride_imports SET report = report || CAST(:lines AS jsonb), done = done + 1 WHERE id = :id`,
    { id, lines: JSON.stringify(lines) },
  )
}
