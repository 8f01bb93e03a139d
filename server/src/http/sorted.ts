import * as v from 'valibot'
import { decodeCursor, encodeCursor } from './cursor.ts'

/** What a list is put in order by: an expression of its statement. */
export interface SortKey {
  readonly sql: string
  readonly type: 'text' | 'double precision'
}

const Cursor = v.tuple([v.nullable(v.union([v.string(), v.number()])), v.pipe(v.string(), v.uuid())])

/**
 * A list in an order of its own, a page at a time. Rows with nothing to go by come last, whichever way round it is; equals by their id.
 *
 * @param key what it goes by
 * @param way `up`: the least first
 * @param id the expression of a row's id
 * @param cursor where the page before ended
 * @returns the column to select, as `sortKey`; the order; what lets through only what comes after; and what stands for a row's place
 * @throws ProblemError 400 for a cursor that is none
 */
export function sortedBy({ sql, type }: SortKey, way: 'up' | 'down', id: string, cursor: string | undefined) {
  const column = `CAST(${sql} AS ${type}) AS "sortKey"`
  const orderBy = `"sortKey" ${way === 'up' ? 'ASC' : 'DESC'} NULLS LAST, ${id}`
  const at = cursor === undefined ? undefined : decodeCursor(Cursor, cursor)
  return {
    column,
    orderBy,
    after: at === undefined ? 'true' : at[0] === null ? `${sql} IS NULL AND ${id} > :sortId::uuid` : after(),
    replacements: (at === undefined ? {} : { sortKey: at[0], sortId: at[1] }) as Record<string, unknown>,
    placeOf: (row: { readonly sortKey: string | number | null; readonly id: string }): string =>
      encodeCursor([row.sortKey, row.id]),
  }

  function after(): string {
    const before = `CAST(:sortKey AS ${type})`
    const value = `CAST(${sql} AS ${type})`
    return `(${value} ${way === 'up' ? '>' : '<'} ${before} OR ${value} = ${before} AND ${id} > :sortId::uuid OR ${sql} IS NULL)`
  }
}
