import * as v from 'valibot'
import type { endpoints } from '@pelrin/contract'
import { type BikeSummary, type Output, type RackState } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { decodeCursor, encodeCursor } from '../http/cursor.ts'
import { dayIn } from '../state/days.ts'
import { CHANGE_STANDS, STANDING_ORDER, STANDING_RANK, STANDING_WORD } from '../standing/standing.ts'
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

/** A page of every bike, as they stand today: what comes off first, then what is in doubt, then what is to be measured, the likeliest over first. */
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
  const paged = [...filtered]
  if (query.cursor !== undefined) {
    const [rank, on, id] = decodeCursor(Cursor, query.cursor)
    Object.assign(replacements, { rank, on, id })
    paged.push(`(${STANDING_RANK}, ${STANDING_ORDER}, s.bike_id) > (:rank, CAST(:on AS double precision), :id::uuid)`)
  }
  const rows = await summaries<{ rank: number; on: number }>(
    work,
    `WHERE ${paged.join(' AND ')} ORDER BY rank, "on", s.bike_id LIMIT :most`,
    replacements,
    `${STANDING_RANK} AS rank, CAST(${STANDING_ORDER} AS double precision) AS "on"`,
  )
  const page = rows.slice(0, query.limit)
  const last = page.at(-1)
  const counted = Object.entries(STATES)
    .map(([state, condition]) => `count(*) FILTER (WHERE ${condition})::int AS "${state}"`)
    .join(', ')
  const [counts] = await work.select<Record<string, number>>(
    `SELECT count(*)::int AS all, ${counted} ${SUMMARY_FROM} WHERE ${base.join(' AND ')}`,
    replacements,
  )
  return {
    bikes: page.map(({ rank: _rank, on: _on, ...bike }): BikeSummary => bike),
    next: rows.length > page.length && last ? encodeCursor([last.rank, last.on, last.id]) : null,
    total: counts?.[query.state ?? 'all'] ?? 0,
    counts: counts ?? {},
  }
}
