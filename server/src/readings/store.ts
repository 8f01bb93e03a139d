import type { Work } from '../db/work.ts'
import type { InstrumentKind } from '@pelrin/core'

export interface SpotFact {
  id: string
  position: number
  place: number | null
  typed: string | null
  lengthMm: number | null
  pitches: number | null
  value: number | null
  over: number | null
  under: number | null
  u: number
}

/** A reading with its spots, instrument record and odometer value, whether it stands or was corrected. */
export interface ReadingFact {
  id: string
  supersedesId: string | null
  supersededBy: string | null
  occurredAt: Date
  recordedAt: Date
  person: string
  source: 'shop' | 'customer'
  hint: 'worn' | 'nothing' | null
  note: string | null
  reason: string | null
  deleted: boolean
  bikeId: string
  chainId: string
  fittingId: string
  instrumentId: string
  instrumentName: string
  instrumentKind: InstrumentKind
  recordVersion: number
  uMm: number | null
  bias: number
  biasU: number
  odometer: { id: string; typed: string; km: number; unit: 'km' | 'mi' } | null
  spots: SpotFact[]
}

const SELECT_READINGS = `
  SELECT r.id, r.supersedes_id AS "supersedesId", later.id AS "supersededBy",
    r.occurred_at AS "occurredAt", r.recorded_at AS "recordedAt", p.name AS person, r.source, r.hint, r.note, r.reason,
    r.deleted, r.bike_id AS "bikeId", r.chain_id AS "chainId", r.fitting_id AS "fittingId",
    i.id AS "instrumentId", i.name AS "instrumentName", i.kind AS "instrumentKind", w.version AS "recordVersion",
    w.u_mm AS "uMm", w.bias, w.bias_u AS "biasU",
    CASE WHEN d.id IS NULL THEN NULL
      ELSE json_build_object('id', d.id, 'typed', d.typed, 'km', d.km, 'unit', d.unit) END AS odometer,
    coalesce((
      SELECT json_agg(json_build_object('id', s.id, 'position', s.position, 'place', s.place, 'typed', s.typed,
        'lengthMm', s.length_mm, 'pitches', s.pitches, 'value', s.value, 'over', s.over, 'under', s.under, 'u', s.u)
        ORDER BY s.position)
      FROM spots s WHERE s.reading_id = r.id AND s.reading_occurred_at = r.occurred_at), '[]'::json) AS spots
  FROM readings r
  JOIN people p ON p.id = r.person_id
  JOIN instruments i ON i.id = r.instrument_id
  JOIN instrument_versions w ON w.id = r.instrument_version_id
  LEFT JOIN distance_entries d ON d.id = r.distance_entry_id
  LEFT JOIN readings later ON later.supersedes_id = r.id`

/** Every reading of a bike, newest first, corrected ones among them. */
export function readingsOfBike(work: Work, bikeId: string): Promise<ReadingFact[]> {
  return work.select<ReadingFact>(
    `${SELECT_READINGS} WHERE r.bike_id = :bikeId ORDER BY r.occurred_at DESC, r.recorded_at DESC, r.id DESC`,
    { bikeId },
  )
}

export async function readingById(work: Work, id: string): Promise<ReadingFact | null> {
  const [found] = await work.select<ReadingFact>(`${SELECT_READINGS} WHERE r.id = :id`, { id })
  return found ?? null
}
