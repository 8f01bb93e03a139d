import type { ClientBase } from 'pg'
import type { Transaction } from 'sequelize'

interface Statement {
  /** Under which a connection keeps it. */
  readonly name: string
  readonly text: string
  /** Names of its values, in order. */
  readonly values: readonly string[]
}

const statements = new Map<string, Statement>()

/** A statement with `:name` for its values, as the database wants it: numbered. A cast's `::` is none. */
function statementOf(sql: string): Statement {
  const known = statements.get(sql)
  if (known) return known
  const values: string[] = []
  const text = sql.replace(/(?<!:):([a-z]\w*)/gi, (_, name: string) => {
    if (!values.includes(name)) values.push(name)
    return `$${values.indexOf(name) + 1}`
  })
  const statement = { name: `pelrin-${statements.size}`, text, values }
  statements.set(sql, statement)
  return statement
}

/** Rows of a statement whose plan the connection of a transaction keeps. Sequelize has no word for that: it is said to its driver. */
export async function askPrepared<Row extends object>(
  transaction: Transaction,
  sql: string,
  given: Record<string, unknown>,
): Promise<Row[]> {
  const { connection } = transaction as unknown as { connection: ClientBase }
  const { name, text, values } = statementOf(sql)
  const { rows } = await connection.query<Row>({ name, text, values: values.map((value) => given[value]) })
  return rows
}
