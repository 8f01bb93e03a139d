import type { BikeSummary } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { STANDING_COLUMNS, standingToday, type StandingColumns } from '../standing/standing.ts'

/** What every list of bikes shows, as columns of one statement; callers add what to list and in which order. */
const SUMMARY = `
  b.id, b.label, b.tag, b.frame_mark AS "frameMark",
  json_build_object('id', c.id, 'name', c.name) AS customer,
  json_build_object('type', d.type, 'speeds', d.speeds, 'fronts', d.fronts, 'sprockets', d.sprockets) AS drive,
  s.word AS verdict, ${STANDING_COLUMNS} AS standing, s.advice, s.flags, s.probability AS "probabilityOver", s.median, s.limit_at AS "limit", s.marks,
  s.decision,
  to_char(s.measured_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS "measuredAt",
  s.check_on::text AS "checkOn", s.each_visit AS "eachVisit", s.chain_km AS "chainKm", s.over_on::text AS "overOn",
  CASE WHEN s.care IS NULL THEN NULL ELSE json_build_object('dueOn', coalesce(s.care_on, s.home_on), 'atHome', s.home_on IS NOT NULL, 'because', s.care ->> 'because',
    'checkFirst', s.care -> 'checkFirst') END AS care`

const FROM = `
  FROM bike_state s
  JOIN bikes b ON b.id = s.bike_id
  JOIN customers c ON c.id = b.customer_id
  JOIN drives d ON d.bike_id = b.id`

/**
 * Bikes as lists show them today.
 *
 * @param clauses everything after FROM, in terms of `s` (state), `b` (bike), `c` (customer), `d` (drive) and `:today`
 * @param extra further columns
 */
export async function summaries<Extra extends object = object>(
  work: Work,
  clauses: string,
  replacements: Record<string, unknown>,
  extra = '',
): Promise<(BikeSummary & Extra)[]> {
  const { today, standing } = await standingToday(work)
  const rows = await work.select<Omit<BikeSummary, 'standing'> & { standing: StandingColumns } & Extra>(
    `SELECT ${SUMMARY}${extra === '' ? '' : `, ${extra}`} ${FROM} ${clauses}`,
    { today, ...replacements },
  )
  return rows.map((row) => ({ ...row, standing: standing(row.standing) }))
}

export const SUMMARY_FROM = FROM
