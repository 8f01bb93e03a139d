import {
  ConnectionAcquireTimeoutError,
  ConnectionError,
  DatabaseError,
  ForeignKeyConstraintError,
  UniqueConstraintError,
} from 'sequelize'

/** What a write broke. */
export interface Broken {
  /** Something that is there already, or something it names that is not there. */
  readonly rule: 'unique' | 'reference'
  /** The columns concerned, where the database names them. */
  readonly columns: readonly string[]
  /** The constraint or index that held, by its name. */
  readonly constraint: string
}

/** Which rule of the schema the database refused a write for; null for every other failure. */
export function brokenBy(error: unknown): Broken | null {
  if (error instanceof UniqueConstraintError)
    return { rule: 'unique', columns: Object.keys(error.fields), constraint: constraintOf(error) }
  if (error instanceof ForeignKeyConstraintError)
    return { rule: 'reference', columns: [], constraint: constraintOf(error) }
  return null
}

const constraintOf = ({ parent }: { readonly parent: Error }): string =>
  (parent as { constraint?: string }).constraint ?? ''

/** The SQLSTATE, or the system's own code. Broken rules are errors of validation here, and keep theirs one further in. */
const codeOf = (error: Error): string => {
  const within = error instanceof DatabaseError || error instanceof UniqueConstraintError ? error.parent : error
  return (within as { code?: string }).code ?? ''
}

/** Whether the database went away, rather than refused: by SQLSTATE class, socket error or the pool's word. */
export function databaseWentAway(error: unknown): boolean {
  if (error instanceof ConnectionError) return true
  if (!(error instanceof Error)) return false
  return (
    /^(08|57P|58|XX)/.test(codeOf(error)) ||
    /^E(CONN|PIPE|TIMEDOUT)/.test(codeOf(error)) ||
    /Connection terminated|ConnectionManager|not queryable|connection is closed/i.test(error.message)
  )
}

/**
 * Whether there was more to do than could be done in time: no connection was free, a lock or a statement took too long, or two writes were in
 * each other's way. The same request may be sent again.
 */
export function tooMuchAtOnce(error: unknown): boolean {
  if (error instanceof ConnectionAcquireTimeoutError) return true
  return error instanceof Error && /^(55P03|57014|25P0[23]|40001|40P01|53[23]00)$/.test(codeOf(error))
}

/** Whether the database refused a value that no column takes: out of range, not of its type, or not allowed there. */
export function databaseRefused(error: unknown): boolean {
  return error instanceof Error && /^(22|23)/.test(codeOf(error))
}
