import * as v from 'valibot'
import type { endpoints } from '@pelrin/contract'
import { type BikeSummary, type Output, type RackState } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { decodeCursor, encodeCursor } from '../http/cursor.ts'
import { dayIn } from '../state/days.ts'
import { textCondition } from './find.ts'
import { SUMMARY_FROM, summaries } from './summaries.ts'

type Query = Output<typeof endpoints.rack.query>

const Cursor = v.tuple([v.number(), v.pipe(v.string(), v.isoDate()), v.pipe(v.string(), v.uuid())])

/** What each filter lets through. An overdue look is nobody's plain "keep riding". */
const STATES: Record<RackState, string> = {
  change: `s.word = 'change'`,
  measure: `s.word IN ('measure-it', 'measure-again', 'not-measured-yet')`,
  'closing-in': `s.word = 'closing-in'`,
  'keep-riding': `s.word = 'keep-riding' AND s.check_on >= :today`,
  overdue: `s.check_on < :today`,
}

/** A page of every bike, soonest trouble first. */
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
    paged.push('(s.trouble_rank, s.trouble_on, s.bike_id) > (:rank, :on::date, :id::uuid)')
  }
  const rows = await summaries<{ rank: number; on: string }>(
    work,
    `WHERE ${paged.join(' AND ')} ORDER BY s.trouble_rank, s.trouble_on, s.bike_id LIMIT :most`,
    replacements,
    's.trouble_rank AS rank, s.trouble_on::text AS on',
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
