import type { DistanceEntryRow } from '../db/models/rows.ts'
import type { Work } from '../db/work.ts'

export interface StandingEntry {
  id: string
  at: Date
  km: number
  typed: string
  unit: 'km' | 'mi'
  restarted: boolean
  person: string
}

/** A bike's odometer values that stand: neither corrected nor deleted, in order of time. */
export function standingEntries(work: Work, bikeId: string): Promise<StandingEntry[]> {
  return work.select<StandingEntry>(
    `SELECT d.id, d.occurred_at AS at, d.km, d.typed, d.unit, d.restarted, p.name AS person
     FROM distance_entries d JOIN people p ON p.id = d.person_id
     WHERE d.bike_id = :bikeId AND NOT d.deleted
       AND NOT EXISTS (SELECT 1 FROM distance_entries later WHERE later.supersedes_id = d.id)
     ORDER BY d.occurred_at, d.recorded_at, d.id`,
    { bikeId },
  )
}

export async function appendEntry(
  work: Work,
  entry: Omit<DistanceEntryRow, 'recordedAt' | 'deleted' | 'kind' | 'reason'> & { reason?: string },
): Promise<void> {
  await work.models.DistanceEntry.create(
    { ...entry, kind: 'odometer', recordedAt: work.now, deleted: false },
    { transaction: work.transaction },
  )
}
