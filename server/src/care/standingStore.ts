import type { Work } from '../db/work.ts'
import { stands } from '../db/facts.ts'
import { unlooked } from '../looks/store.ts'
import type { CareEventRow } from './models.ts'

interface Row extends Pick<CareEventRow, 'id' | 'kind' | 'care' | 'cleaning' | 'atHome' | 'note'> {
  at: Date
  person: string
  unlooked: boolean
  bike: { id: string; label: string } | null
}

/** What stands of a chain's care, newest first. */
export const standingCare = (work: Work, chainId: string): Promise<Row[]> =>
  work.prepared<Row>(
    `SELECT e.id, e.kind, e.care, e.cleaning, e.at_home AS "atHome", e.note, e.occurred_at AS at, p.name AS person,
       ${unlooked('care', 'p', 'e')} AS unlooked,
       CASE WHEN b.id IS NULL THEN NULL ELSE json_build_object('id', b.id, 'label', b.label) END AS bike
     FROM care_events e JOIN people p ON p.id = e.person_id LEFT JOIN bikes b ON b.id = e.bike_id
     WHERE e.chain_id = :chainId AND ${stands('care_events', 'e')}
     ORDER BY e.occurred_at DESC, e.id DESC`,
    { chainId },
  )
