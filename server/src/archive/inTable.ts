import type { RowOf, TableName } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { refuseField } from '../problems/problem.ts'
import { momentAt } from '../days/days.ts'

/** How rows of one table come in. */
export interface InTable<Name extends TableName> {
  /** Rows of one key are one thing, such as the spots of a reading; without it each stands alone. */
  readonly together?: (row: RowOf<Name>) => string
  /** When a row happened, ms: they come in in this order, whatever order they stand in. */
  readonly inOrder?: (row: RowOf<Name>, timeZone: string) => number
  /** Columns whose problems are named otherwise by what writes them. */
  readonly columnAt?: Readonly<Record<string, string>>
  /** Columns in which what is here can say otherwise. */
  readonly compared: readonly string[]
  /** The id of what is here already; null where it is new. */
  find(work: Work, row: RowOf<Name>, timeZone: string): Promise<string | null>
  /** Writes what is new. @returns the bike it has to be followed on; null for none */
  write(work: Work, rows: readonly RowOf<Name>[], timeZone: string): Promise<string | null>
  /** Brings a bike's state up to what was written; judged anew unless given. */
  follow?(work: Work, bikeId: string): Promise<void>
}

/** The bike a row is of. @throws ProblemError at the column that names none */
export async function bikeOf(
  work: Work,
  { bike_id: id, tag }: { bike_id?: string | undefined; tag?: string | undefined },
): Promise<string> {
  if (id === undefined && tag === undefined) throw refuseField('tag', 'text-missing')
  const [bike] = await work.select<{ id: string }>(
    `SELECT id FROM bikes WHERE ${id === undefined ? 'tag = :tag' : 'id = :id'}`,
    { id, tag },
  )
  if (!bike) throw refuseField(id === undefined ? 'tag' : 'bike_id', 'bike-unknown')
  return bike.id
}

/** A moment as a cell gives it: with its zone, or by the shop's own clock; a day alone is its noon. @throws ProblemError at the column */
export function momentOf(cell: string, timeZone: string, column: string): Date {
  const [day = '', clock] = cell.split(/[T ]/)
  const zoned = /(Z|[+-]\d{2}:?\d{2})$/.test(clock ?? '')
  const moment = zoned ? new Date(cell.replace(' ', 'T')) : momentAt(timeZone, day, clock ?? '12:00')
  if (Number.isNaN(moment.getTime())) throw refuseField(column, 'moment-malformed')
  return moment
}

/** The id of a row that is here, where the table says it; null where it does not, or it is not. @param standing selects the ids of those that stand */
export async function byId(
  work: Work,
  standing: string,
  id: string | undefined,
  column = 'id',
): Promise<string | null> {
  if (id === undefined) return null
  const [found] = await work.select<{ id: string }>(`${standing} AND ${column} = :id`, { id })
  return found?.id ?? null
}

/** The one id a statement finds; null for none. @throws ProblemError at the column where there are several */
export async function onlyOne(
  work: Work,
  sql: string,
  replacements: Record<string, unknown>,
  column: string,
): Promise<string | null> {
  const found = await work.select<{ id: string }>(`${sql} LIMIT 2`, replacements)
  if (found.length > 1) throw refuseField(column, 'row-several')
  return found[0]?.id ?? null
}
