import type { CustomerSort, endpoints, Output } from '@pelrin/contract'
import { escapeLike, searchWords } from '../bikes/find.ts'
import { dayIn } from '../days/days.ts'
import type { Work } from '../db/work.ts'
import { sortedBy, type SortKey } from '../http/sorted.ts'

type Query = Output<typeof endpoints.customerList.query>
type Line = Output<typeof endpoints.customerList.result>['customers'][number]

/** The last day a bike of theirs was here, as a visit or a reading tells; and the first day anything is due on one. */
const LAST = `greatest((SELECT max(v.day) FROM visits v JOIN bikes b ON b.id = v.bike_id WHERE b.customer_id = c.id AND v.day <= :today),
  (SELECT max((s.measured_at AT TIME ZONE :zone)::date) FROM bike_state s JOIN bikes b ON b.id = s.bike_id WHERE b.customer_id = c.id))`
const NEXT = `(SELECT min(s.due_on) FROM bike_state s JOIN bikes b ON b.id = s.bike_id WHERE b.customer_id = c.id AND b.gone_on IS NULL)`
const BIKES = '(SELECT count(*)::int FROM bikes b WHERE b.customer_id = c.id AND b.gone_on IS NULL)'
const day = (expression: string): string => `${expression} - DATE '2000-01-01'`

/** What each column shows, to go by. */
const SORTS: Readonly<Record<CustomerSort, SortKey>> = {
  name: { sql: 'lower(unaccent(c.name))', type: 'text' },
  bikes: { sql: BIKES, type: 'double precision' },
  last: { sql: day(LAST), type: 'double precision' },
  next: { sql: day(NEXT), type: 'double precision' },
}

/** A page of every customer, by name or by a column; those entered twice once, those erased not at all. */
export async function customerList(
  work: Work,
  { q = '', sort, way, cursor, limit }: Query,
  timeZone: string,
): Promise<Output<typeof endpoints.customerList.result>> {
  const words = searchWords(q)
  const sorted = sortedBy(SORTS[sort], way, 'c.id', cursor)
  const conditions = [
    'c.merged_into_id IS NULL AND c.erased_at IS NULL',
    ...words.map((_, i) => `lower(unaccent(concat_ws(' ', c.name, c.phone, c.email))) LIKE :part${i}`),
  ].join(' AND ')
  const replacements: Record<string, unknown> = {
    ...Object.fromEntries(words.map((word, i) => [`part${i}`, `%${escapeLike(word)}%`])),
    today: dayIn(timeZone, work.now),
    zone: timeZone,
    most: limit + 1,
  }
  const rows = await work.select<Line & { sortKey: string | number | null }>(
    `SELECT c.id, c.name, c.phone, c.email, c.opted_out_at IS NOT NULL AS "optedOut", ${BIKES} AS bikes, ${LAST}::text AS "lastOn",
       ${NEXT}::text AS "nextOn", ${sorted.column}
     FROM customers c WHERE ${conditions} AND ${sorted.after} ORDER BY ${sorted.orderBy} LIMIT :most`,
    { ...replacements, ...sorted.replacements },
  )
  const [counted] = await work.select<{ total: number }>(
    `SELECT count(*)::int AS total FROM customers c WHERE ${conditions}`,
    replacements,
  )
  const last = rows[limit - 1]
  return {
    customers: rows.slice(0, limit).map(({ sortKey: _, ...line }): Line => line),
    next: rows.length > limit && last ? sorted.placeOf(last) : null,
    total: counted?.total ?? 0,
  }
}
