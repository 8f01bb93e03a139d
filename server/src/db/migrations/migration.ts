/** One step of the schema, forth and back. Each runs in a transaction of its own. */
export interface Migration {
  /** The state that is derived from facts is of another shape, or another meaning, after it: every bike's is made anew. */
  readonly outdatesState?: boolean
  readonly name: string
  up(run: (sql: string) => Promise<void>): Promise<void>
  down(run: (sql: string) => Promise<void>): Promise<void>
}
