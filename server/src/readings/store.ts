import type { Work } from '../db/work.ts'
import type { CaliperMode, HandSign, InstrumentKind, InstrumentRecord, PinPicture } from '@pelrin/core'
import type { Conditions } from '@pelrin/contract'
import { unlooked } from '../looks/store.ts'

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
  mode: CaliperMode | null
  picture: PinPicture | null
  linkIncluded: boolean | null
  borderline: boolean
}

/** A reading with its spots, instrument record and odometer value, whether it stands or was corrected. */
export interface ReadingFact {
  id: string
  supersedesId: string | null
  supersededBy: string | null
  occurredAt: Date
  recordedAt: Date
  person: string
  /** An apprentice's, and no mechanic has looked at it yet. */
  unlooked: boolean
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
  /** The record it was judged with. */
  record: Omit<InstrumentRecord, 'kind'>
  biasU: number
  checkedOn: string | null
  signs: HandSign[]
  /** Who held the instrument, where it was not who wrote it down. */
  reader: string | null
  readerId: string | null
  baseline: boolean
  run: 'lower' | 'upper'
  load: 'tensioned' | 'slack' | null
  ruleCelsius: number | null
  chainCelsius: number | null
  preloadKg: number | null
  odometer: { id: string; typed: string; km: number; unit: 'km' | 'mi' } | null
  spots: SpotFact[]
}

const SELECT_READINGS = `
  SELECT r.id, r.supersedes_id AS "supersedesId", later.id AS "supersededBy",
    r.occurred_at AS "occurredAt", r.recorded_at AS "recordedAt", p.name AS person,
    ${unlooked('reading', 'p', 'r')} AS unlooked, r.source, r.hint, r.note, r.reason,
    r.deleted, r.bike_id AS "bikeId", r.chain_id AS "chainId", r.fitting_id AS "fittingId",
    i.id AS "instrumentId", i.name AS "instrumentName", i.kind AS "instrumentKind", w.version AS "recordVersion",
    json_build_object('uMm', w.u_mm, 'u', w.u, 'bias', w.bias, 'biasU', w.bias_u, 'marks', w.marks,
      'material', w.material, 'rollerMm', w.roller_mm) AS record,
    w.bias_u AS "biasU", w.checked_on::text AS "checkedOn", r.signs, held.name AS reader, r.reader_id AS "readerId",
    r.baseline, r.run, r.load, r.rule_celsius AS "ruleCelsius", r.chain_celsius AS "chainCelsius",
    r.preload_kg AS "preloadKg",
    CASE WHEN d.id IS NULL THEN NULL
      ELSE json_build_object('id', d.id, 'typed', d.typed, 'km', d.km, 'unit', d.unit) END AS odometer,
    coalesce((
      SELECT json_agg(json_build_object('id', s.id, 'position', s.position, 'place', s.place, 'typed', s.typed,
        'lengthMm', s.length_mm, 'pitches', s.pitches, 'value', s.value, 'over', s.over, 'under', s.under, 'u', s.u,
        'mode', s.mode, 'picture', s.picture, 'linkIncluded', s.link_included, 'borderline', s.borderline)
        ORDER BY s.position)
      FROM spots s WHERE s.reading_id = r.id AND s.reading_occurred_at = r.occurred_at), '[]'::json) AS spots
  FROM readings r
  JOIN people p ON p.id = r.person_id
  JOIN instruments i ON i.id = r.instrument_id
  JOIN instrument_versions w ON w.id = r.instrument_version_id
  LEFT JOIN people held ON held.id = r.reader_id
  LEFT JOIN distance_entries d ON d.id = r.distance_entry_id
  LEFT JOIN readings later ON later.supersedes_id = r.id`

/**
 * Every reading taken on a bike, and those of the chain now on it that were taken while it ran on another, newest first,
 * corrected ones among them.
 */
export function readingsOfBike(work: Work, bikeId: string, chainId: string | null): Promise<ReadingFact[]> {
  return work.prepared<ReadingFact>(
    `${SELECT_READINGS} WHERE r.bike_id = :bikeId OR r.chain_id = :chainId ORDER BY r.occurred_at DESC, r.recorded_at DESC, r.id DESC`,
    { bikeId, chainId },
  )
}

export async function readingById(work: Work, id: string): Promise<ReadingFact | null> {
  const [found] = await work.select<ReadingFact>(`${SELECT_READINGS} WHERE r.id = :id`, { id })
  return found ?? null
}

/** How many days apart readings of one chain are still of the chain as it was. */
const TOGETHER_DAYS = 14

/**
 * Readings of chains that an instrument read and others read too within a fortnight, by chain, newest first.
 *
 * @param days how far back
 */
export async function readingsTogether(
  work: Work,
  instrumentId: string,
  days: number,
): Promise<{ bikeId: string; bike: string; readings: ReadingFact[] }[]> {
  const readings = await work.select<ReadingFact & { bike: string }>(
    `SELECT found.*, b.label AS bike FROM (${SELECT_READINGS}
     WHERE r.occurred_at > :since AND NOT r.deleted AND later.id IS NULL AND r.source = 'shop'
       AND EXISTS (SELECT 1 FROM readings mine WHERE mine.chain_id = r.chain_id AND mine.instrument_id = :instrumentId
         AND abs(extract(epoch FROM mine.occurred_at - r.occurred_at)) < :together)
       AND EXISTS (SELECT 1 FROM readings other WHERE other.chain_id = r.chain_id AND other.instrument_id <> :instrumentId
         AND abs(extract(epoch FROM other.occurred_at - r.occurred_at)) < :together)) found
     JOIN bikes b ON b.id = found."bikeId" ORDER BY found."occurredAt" DESC`,
    {
      instrumentId,
      since: new Date(work.now.getTime() - days * 86_400_000),
      together: TOGETHER_DAYS * 86_400,
    },
  )
  const groups = new Map<string, { bikeId: string; bike: string; readings: ReadingFact[] }>()
  for (const { bike, ...reading } of readings) {
    const group = groups.get(reading.chainId) ?? { bikeId: reading.bikeId, bike, readings: [] }
    group.readings.push(reading)
    groups.set(reading.chainId, group)
  }
  return [...groups.values()]
}

/** Conditions of a reading as they are shown and typed again. */
export const conditionsOf = ({ run, load, ruleCelsius, chainCelsius, preloadKg }: ReadingFact): Conditions => ({
  run,
  ...(load === null ? {} : { load }),
  ...(ruleCelsius === null ? {} : { ruleCelsius }),
  ...(chainCelsius === null ? {} : { chainCelsius }),
  ...(preloadKg === null ? {} : { preloadKg }),
})
