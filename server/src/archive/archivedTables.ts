import type { Work } from '../db/work.ts'

/** What is of a device or a session, not of the shop; what opens something; and what is only on its way. */
const LEFT_OUT = [
  'calendar_feeds',
  'forecast_runs',
  'idempotency_keys',
  'mail_settings',
  'message_cursors',
  'device_people',
  'sign_in_tries',
  'staged_rides',
  'state_rebuilds',
]
/** What follows from the facts and is worked out anew where they come in. Archives of before hold it: it is read over. */
export const DERIVED: readonly string[] = ['bike_state']
/** Nobody signs in by an archive. */
const SECRETS: Readonly<Record<string, readonly string[]>> = {
  people: ['password_hash', 'pin_hash', 'demo_password'],
  devices: ['token_hash'],
  ride_accounts: ['token'],
}

/**
 * What an archive says and nobody believes: it may have been written by anyone. Who comes with it has no rights here until the owner gives
 * them some, and what it says was done is marked as from elsewhere.
 */
export const NOT_BELIEVED: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  people: { role: `'read-only'`, active: 'false', left_on: 'coalesce(g.left_on, current_date)' },
  audit: { elsewhere: 'true' },
  // Rides name the account they came from. It opens nothing here until somebody joins it anew.
  ride_accounts: { token: `''`, removed_at: 'coalesce(g.removed_at, now())' },
}

/** A table of the archive. */
export interface ArchivedTable {
  readonly name: string
  /** Without the shop, secrets, and what the database makes by itself. */
  readonly columns: readonly string[]
  /** Of the primary key, without the shop. */
  readonly key: readonly string[]
  /**
   * Columns and operators by which the database keeps rows apart at the end of a transaction; none where it does so at once. What is kept
   * apart so late cannot be left out by its conflict alone.
   */
  readonly apart: readonly (readonly [column: string, operator: string])[]
  /** What a row has besides, and an archive has not. */
  readonly omitted: readonly string[]
}

/** Every table that is archived, what others lead to before what leads there: as the database itself has them. */
export async function archivedTables(work: Work): Promise<ArchivedTable[]> {
  const tables = await work.select<{
    name: string
    columns: string[]
    generated: string[]
    key: string[]
    apart: [string, string][]
    needs: string[]
  }>(
    `SELECT c.relname AS name,
       (SELECT json_agg(a.attname ORDER BY a.attnum) FROM pg_attribute a
        WHERE a.attrelid = c.oid AND a.attnum > 0 AND NOT a.attisdropped) AS columns,
       (SELECT coalesce(json_agg(a.attname), '[]') FROM pg_attribute a
        WHERE a.attrelid = c.oid AND a.attnum > 0 AND NOT a.attisdropped AND a.attgenerated <> '') AS generated,
       (SELECT json_agg(a.attname ORDER BY array_position(i.indkey, a.attnum)) FROM pg_index i
        JOIN pg_attribute a ON a.attrelid = c.oid AND a.attnum = ANY (i.indkey) WHERE i.indrelid = c.oid AND i.indisprimary) AS key,
       (SELECT coalesce(json_agg(json_build_array(a.attname, o.oprname)), '[]') FROM pg_constraint x
        CROSS JOIN LATERAL unnest(x.conkey, x.conexclop) AS kept (att, op)
        JOIN pg_attribute a ON a.attrelid = c.oid AND a.attnum = kept.att JOIN pg_operator o ON o.oid = kept.op
        WHERE x.conrelid = c.oid AND x.contype = 'x' AND x.condeferrable AND a.attname <> 'shop_id') AS apart,
       (SELECT coalesce(json_agg(DISTINCT f.confrelid::regclass::text), '[]') FROM pg_constraint f
        WHERE f.conrelid = c.oid AND f.contype = 'f' AND f.confrelid <> c.oid) AS needs
     FROM pg_class c JOIN pg_attribute s ON s.attrelid = c.oid AND s.attname = 'shop_id'
     WHERE c.relkind = 'r' AND c.relnamespace = 'public'::regnamespace AND c.relrowsecurity ORDER BY c.relname`,
  )
  const wanted = tables.filter(({ name }) => !LEFT_OUT.includes(name) && !DERIVED.includes(name))
  const names = new Set(wanted.map(({ name }) => name))
  const ordered: typeof wanted = []
  const done = new Set<string>()
  while (ordered.length < wanted.length) {
    const next = wanted.filter(
      ({ name, needs }) => !done.has(name) && needs.every((need) => !names.has(need) || done.has(need)),
    )
    if (next.length === 0) throw new Error('tables lead to each other in a circle')
    for (const table of next) {
      ordered.push(table)
      done.add(table.name)
    }
  }
  return ordered.map(({ name, columns, generated, key, apart }) => {
    const omitted = ['shop_id', ...generated, ...(SECRETS[name] ?? [])]
    return {
      name,
      omitted,
      apart,
      columns: columns.filter((column) => !omitted.includes(column)),
      key: key.filter((column) => column !== 'shop_id'),
    }
  })
}

/** A row as the archive has it, as JSON text: keys in the database's own order, the same every time. */
export const asArchived = (alias: string, { omitted }: ArchivedTable): string =>
  `(to_jsonb(${alias})${omitted.map((column) => ` - '${column}'`).join('')})`

/**
 * The same without what is not believed, for telling whether a row that comes is the one that is there.
 *
 * @param given the columns a row comes with: of one an older archive did not know, it says nothing
 */
export function asBelieved(alias: string, table: ArchivedTable, given: readonly string[]): string {
  const untold = table.columns.filter((column) => !given.includes(column))
  return asArchived(alias, {
    ...table,
    omitted: [...table.omitted, ...untold, ...Object.keys(NOT_BELIEVED[table.name] ?? {})],
  })
}
