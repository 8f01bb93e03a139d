import * as v from 'valibot'
import type { endpoints } from '@pelrin/contract'
import { type BikeSummary, type Output, type RackSort, type RackState } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { decodeCursor, encodeCursor } from '../http/cursor.ts'
import { sortedBy, type SortKey } from '../http/sorted.ts'
import { dayIn } from '../days/days.ts'
import { CHANCE_SHOWN, CHANGE_STANDS, STANDING_ORDER, STANDING_RANK, STANDING_WORD } from '../standing/standing.ts'
import { textCondition } from './find.ts'
import { SUMMARY_FROM, summaries } from './summaries.ts'

type Query = Output<typeof endpoints.rack.query>

const Cursor = v.tuple([v.number(), v.number(), v.pipe(v.string(), v.uuid())])

/** What each filter lets through, as bikes stand today. */
const STATES: Record<RackState, string> = {
  change: CHANGE_STANDS,
  measure: `${STANDING_WORD} IN ('measure-it', 'measure-again', 'not-measured-yet')`,
  'closing-in': `${STANDING_WORD} = 'closing-in'`,
  'keep-riding': `${STANDING_WORD} = 'keep-riding'`,
  overdue: `s.check_on < :today`,
}

/** What each column shows, to go by. */
const SORTS: Record<RackSort, SortKey> = {
  bike: { sql: `lower(c.name || ', ' || b.label)`, type: 'text' },
  drive: { sql: `d.type || to_char(d.speeds, 'FM00')`, type: 'text' },
  wear: { sql: 's.median', type: 'double precision' },
  chance: { sql: CHANCE_SHOWN, type: 'double precision' },
  ran: { sql: 's.chain_km', type: 'double precision' },
  measured: { sql: 'extract(epoch FROM s.measured_at)', type: 'double precision' },
  next: { sql: `s.check_on - DATE '2000-01-01'`, type: 'double precision' },
}

/** A page of every bike, as they stand today: what comes off first, then what is in doubt, then what is to be measured, the likeliest over first; or by a column. */
export async function rackPage(
  work: Work,
  query: Query,
  timeZone: string,
): Promise<Output<typeof endpoints.rack.result>> {
  const today = dayIn(timeZone, work.now)
  const text = await textCondition(work, query.q ?? '')
  const base = [text.condition, 'b.gone_on IS NULL']
  const replacements: Record<string, unknown> = { ...text.replacements, today, most: query.limit + 1 }
  if (query.drive !== undefined) {
    base.push('d.type = :drive')
    replacements['drive'] = query.drive
  }
  const filtered = query.state === undefined ? base : [...base, STATES[query.state]]
  const { bikes, next } = await (query.sort === undefined ? soonestFirst : byColumn)(
    work,
    query,
    filtered,
    replacements,
  )
  const counted = Object.entries(STATES)
    .map(([state, condition]) => `count(*) FILTER (WHERE ${condition})::int AS "${state}"`)
    .join(', ')
  const [counts] = await work.select<Record<string, number>>(
    `SELECT count(*)::int AS all, ${counted} ${SUMMARY_FROM} WHERE ${base.join(' AND ')}`,
    replacements,
  )
  return {
    bikes,
    next,
    total: counts?.[query.state ?? 'all'] ?? 0,
    counts: counts ?? {},
  }
}

interface Page {
  readonly bikes: BikeSummary[]
  readonly next: string | null
}

async function soonestFirst(
  work: Work,
  { cursor, limit }: Query,
  conditions: readonly string[],
  replacements: Record<string, unknown>,
): Promise<Page> {
  const paged = [...conditions]
  if (cursor !== undefined) {
    const [rank, on, id] = decodeCursor(Cursor, cursor)
    Object.assign(replacements, { rank, on, id })
    paged.push(`(${STANDING_RANK}, ${STANDING_ORDER}, s.bike_id) > (:rank, CAST(:on AS double precision), :id::uuid)`)
  }
  const rows = await summaries<{ rank: number; on: number }>(
    work,
    `WHERE ${paged.join(' AND ')} ORDER BY rank, "on", s.bike_id LIMIT :most`,
    replacements,
    `${STANDING_RANK} AS rank, CAST(${STANDING_ORDER} AS double precision) AS "on"`,
  )
  const last = rows[limit - 1]
  return {
    bikes: rows.slice(0, limit).map(({ rank: _rank, on: _on, ...bike }): BikeSummary => bike),
    next: rows.length > limit && last ? encodeCursor([last.rank, last.on, last.id]) : null,
  }
}

async function byColumn(
  work: Work,
  { sort, way, cursor, limit }: Query,
  conditions: readonly string[],
  replacements: Record<string, unknown>,
): Promise<Page> {
  const sorted = sortedBy(SORTS[sort!], way, 's.bike_id', cursor)
  const rows = await summaries<{ sortKey: string | number | null }>(
    work,
    `WHERE ${[...conditions, sorted.after].join(' AND ')} ORDER BY ${sorted.orderBy} LIMIT :most`,
    { ...replacements, ...sorted.replacements },
    sorted.column,
  )
  const last = rows[limit - 1]
  return {
    bikes: rows.slice(0, limit).map(({ sortKey: _, ...bike }): BikeSummary => bike),
    next: rows.length > limit && last ? sorted.placeOf(last) : null,
  }
}
