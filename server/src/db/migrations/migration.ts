/** One step of the schema, forth and back. Each runs in a transaction of its own. */
export interface Migration {
  readonly name: string
  up(run: (sql: string) => Promise<void>): Promise<void>
  down(run: (sql: string) => Promise<void>): Promise<void>
}
