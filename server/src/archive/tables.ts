import { stands } from '../db/facts.ts'

/** A table that can be taken out: its columns as they are headed, and what it is walked by. */
interface ExportTable {
  readonly columns: readonly string[]
  /** The id a row is known by. */
  readonly key: string
  /** Selects `key` and the columns of what stands, up to a condition that is added. */
  readonly sql: string
}

const STAMP = (column: string): string => `to_char(${column} AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS"Z"')`

/** Everything a shop takes out as tables. Lengths, distances and days as a spreadsheet reads them; ids lead from one to another. */
export const EXPORT_TABLES = {
  customers: {
    key: 'c.id',
    columns: ['id', 'name', 'phone', 'language', 'reminders', 'good_weekday', 'treated_at', 'check_every_days'],
    sql: `SELECT c.id AS key, c.id, c.name, c.phone, c.language,
        CASE WHEN c.opted_out_at IS NULL THEN 'yes' ELSE 'no' END AS reminders, c.good_weekday, c.care_at AS treated_at,
        c.rhythm_days AS check_every_days
      FROM customers c WHERE true`,
  },
  bikes: {
    key: 'b.id',
    columns: [
      'id',
      'customer_id',
      'customer',
      'label',
      'tag',
      'frame_mark',
      'maker',
      'model',
      'kind',
      'drive',
      'speeds',
      'fronts',
      'sprockets',
      'motor',
      'chain',
      'pitches',
      'chain_care',
      'chain_since',
      'chain_new',
      'unit',
      'verdict',
      'standing',
      'check_on',
      'care_on',
      'gone_on',
      'notes',
    ],
    sql: `SELECT b.id AS key, b.id, b.customer_id, c.name AS customer, b.label, b.tag, b.frame_mark, b.maker, b.model, b.kind,
        d.type AS drive, d.speeds, array_to_string(d.fronts, '-') AS fronts, array_to_string(d.sprockets, '-') AS sprockets,
        CASE WHEN d.motor THEN 'yes' ELSE 'no' END AS motor,
        h.name AS chain, h.pitches, h.care AS chain_care, ${STAMP('lower(f.during)')} AS chain_since,
        CASE WHEN f.id IS NULL THEN NULL WHEN f.start = 'fitted' THEN 'yes' ELSE 'no' END AS chain_new, b.odometer_unit AS unit,
        s.word AS verdict, CASE WHEN s.measure_from <= (now() AT TIME ZONE sh.time_zone)::date THEN 'measure-it' ELSE s.word END AS standing,
        s.check_on::text, s.care_on::text, b.gone_on::text, b.notes
      FROM bikes b JOIN customers c ON c.id = b.customer_id JOIN drives d ON d.bike_id = b.id JOIN bike_state s ON s.bike_id = b.id
        JOIN shops sh ON sh.id = b.shop_id LEFT JOIN fittings f ON f.bike_id = b.id AND upper_inf(f.during) LEFT JOIN chains h ON h.id = f.chain_id
      WHERE b.merged_into_id IS NULL`,
  },
  readings: {
    key: 's.id',
    columns: [
      'spot_id',
      'reading_id',
      'bike_id',
      'tag',
      'bike',
      'chain',
      'at',
      'instrument',
      'instrument_kind',
      'instrument_marks',
      'typed',
      'pitches',
      'place',
      'mode',
      'link_included',
      'picture',
      'elongation_percent',
      'over_percent',
      'under_percent',
      'u_percent',
      'person',
    ],
    sql: `SELECT s.id AS key, s.id AS spot_id, r.id AS reading_id, r.bike_id, b.tag, b.label AS bike, h.name AS chain, ${STAMP('r.occurred_at')} AS at,
        i.name AS instrument, i.kind AS instrument_kind, array_to_string(iv.marks, ' ') AS instrument_marks, s.mode, s.picture,
        CASE WHEN s.link_included THEN 'yes' WHEN NOT s.link_included THEN 'no' END AS link_included, s.typed, s.pitches, s.place, s.value AS elongation_percent, s.over AS over_percent, s.under AS under_percent,
        s.u AS u_percent, p.name AS person
      FROM spots s JOIN readings r ON r.id = s.reading_id AND r.occurred_at = s.reading_occurred_at
      JOIN bikes b ON b.id = r.bike_id LEFT JOIN chains h ON h.id = r.chain_id JOIN instruments i ON i.id = r.instrument_id
      JOIN instrument_versions iv ON iv.id = r.instrument_version_id
      JOIN people p ON p.id = r.person_id WHERE ${stands('readings', 'r')}`,
  },
  rides: {
    key: 'r.id',
    columns: ['id', 'bike_id', 'tag', 'bike', 'start', 'end', 'km', 'surface', 'title', 'source'],
    sql: `SELECT r.id AS key, r.id, r.bike_id, b.tag, b.label AS bike, ${STAMP('r.occurred_at')} AS start, ${STAMP('r.ended_at')} AS end, r.km, r.surface,
        r.title, r.source FROM rides r JOIN bikes b ON b.id = r.bike_id WHERE ${stands('rides', 'r')}`,
  },
  care: {
    key: 'e.id',
    columns: [
      'id',
      'chain_id',
      'chain',
      'bike_id',
      'tag',
      'bike',
      'at',
      'what',
      'care',
      'cleaning',
      'at_home',
      'note',
      'person',
    ],
    sql: `SELECT e.id AS key, e.id, e.chain_id, h.name AS chain, e.bike_id, b.tag, b.label AS bike, ${STAMP('e.occurred_at')} AS at, e.kind AS what, e.care,
        e.cleaning, CASE WHEN e.at_home THEN 'yes' ELSE 'no' END AS at_home, e.note, p.name AS person
      FROM care_events e JOIN chains h ON h.id = e.chain_id JOIN people p ON p.id = e.person_id LEFT JOIN bikes b ON b.id = e.bike_id
      WHERE ${stands('care_events', 'e')}`,
  },
} as const satisfies Record<string, ExportTable>

export type ExportName = keyof typeof EXPORT_TABLES
