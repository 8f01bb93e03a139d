import { ConnectionError, DatabaseError, ForeignKeyConstraintError, UniqueConstraintError } from 'sequelize'

/** What a write broke. */
export interface Broken {
  /** Something that is there already, or something it names that is not there. */
  readonly rule: 'unique' | 'reference'
  /** The columns concerned, where the database names them. */
  readonly columns: readonly string[]
}

/** Which rule of the schema the database refused a write for; null for every other failure. */
export function brokenBy(error: unknown): Broken | null {
  if (error instanceof UniqueConstraintError) return { rule: 'unique', columns: Object.keys(error.fields) }
  if (error instanceof ForeignKeyConstraintError) return { rule: 'reference', columns: [] }
  return null
}

/** Whether the database went away, rather than refused: by SQLSTATE class, socket error or the pool's word. */
export function databaseWentAway(error: unknown): boolean {
  if (error instanceof ConnectionError) return true
  if (!(error instanceof Error)) return false
  const code = ((error instanceof DatabaseError ? error.parent : error) as { code?: string }).code ?? ''
  return (
    /^(08|57P)/.test(code) ||
    /^E(CONN|PIPE|TIMEDOUT)/.test(code) ||
    /Connection terminated|ConnectionManager|not queryable|connection is closed/i.test(error.message)
  )
}
