import { ProblemError } from '../problems/problem.ts'
import type { ProblemCode } from '@pelrin/contract/messages'
import type { Columns, fact, RowOf, Table } from './table.ts'
import { authorOf, type Work } from './work.ts'

/** Tables whose rows are facts: never rewritten, superseded by a newer one, withdrawn by a tombstone. */
export type FactTable =
  | 'care_events'
  | 'chain_events'
  | 'decisions'
  | 'distance_entries'
  | 'joint_events'
  | 'readings'
  | 'rides'
  | 'wear_checks'

/** The condition under which a fact stands: nobody has corrected it, and it takes nothing back. */
export const stands = (table: FactTable, row: string): string =>
  `NOT ${row}.deleted AND NOT EXISTS (SELECT 1 FROM ${table} later WHERE later.supersedes_id = ${row}.id)`

/** Who writes a fact, and when. */
export interface Written {
  readonly recordedAt: Date
  readonly personId: string
  readonly deviceId: string | null
}
/** What every fact says beside what it is about. */
export interface FactColumns extends Written {
  readonly supersedesId: string | null
  readonly reason: string | null
  readonly deleted: boolean
}

/** By whoever does this piece of work, now. */
export function factBy(work: Work): Written {
  const { personId, deviceId } = authorOf(work)
  return { recordedAt: work.now, personId, deviceId }
}

/** A fact nobody wrote down before. */
export const newFact = (work: Work): FactColumns => ({
  ...factBy(work),
  supersedesId: null,
  reason: null,
  deleted: false,
})

/** A fact that takes the place of another: null where there was none. A second that wants the same place is refused by the database. */
export const inPlaceOf = (work: Work, supersedesId: string | null, reason: string | null): FactColumns => ({
  ...newFact(work),
  supersedesId,
  reason,
})

/** A fact that takes another back: that stays readable, and counts no more. */
export const tombstone = (work: Work, supersedesId: string, reason: string): FactColumns => ({
  ...inPlaceOf(work, supersedesId, reason),
  deleted: true,
})

/**
 * Takes a fact back by a tombstone of its own, and gives it as it was.
 *
 * @param facts the table it stands in
 * @param gone what is answered where it is not there, or was taken back or corrected already
 * @param more what of the tombstone is not as it was
 * @throws ProblemError 404, 409
 */
export async function withdraw<T extends Table<typeof fact & Columns>>(
  work: Work,
  facts: T,
  factId: string,
  { id, reason }: { readonly id: string; readonly reason: string },
  gone: { readonly unknown: ProblemCode; readonly already: ProblemCode },
  more: Partial<RowOf<T>> = {},
): Promise<RowOf<T>> {
  const { transaction } = work
  const model = work.of(facts)
  const found = await model.findByPk(factId, { transaction, lock: transaction.LOCK.UPDATE })
  if (!found || found.deleted) throw new ProblemError(404, gone.unknown)
  if (await model.findOne({ where: { supersedesId: factId } as never, transaction }))
    throw new ProblemError(409, gone.already)
  const was = found.get({ plain: true })
  const taken = { ...was, ...more, id, ...tombstone(work, factId, reason) }
  await model.create(taken as never, { transaction })
  return was
}

/**
 * Holds a change to the version it was made from.
 *
 * @param current the row as it is now, for whoever was slower
 * @throws ProblemError 412 with it
 */
export async function held(row: { readonly version: number }, version: number, current: () => unknown): Promise<void> {
  if (row.version !== version) throw new ProblemError(412, 'version-stale', { current: await current() })
}
