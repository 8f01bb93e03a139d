import type { Sequelize } from 'sequelize'
import { SequelizeStorage, Umzug } from 'umzug'
import { migrations } from './migrations/index.ts'

/** The database was made by a Pelrin that knows migrations this one does not. */
export class NewerSchemaError extends Error {
  constructor(readonly unknown: readonly string[]) {
    super(`The database was made by a newer Pelrin (it holds ${unknown.join(', ')}).`)
  }
}

const storageOf = (sequelize: Sequelize): SequelizeStorage =>
  new SequelizeStorage({ sequelize, tableName: 'schema_migrations' })

function umzug(sequelize: Sequelize): Umzug<Sequelize> {
  const inTransaction = (step: (run: (sql: string) => Promise<void>) => Promise<void>) => async (): Promise<void> => {
    await sequelize.transaction(async (transaction) => {
      await step(async (sql) => {
        await sequelize.query(sql, { transaction })
      })
    })
  }
  return new Umzug({
    migrations: migrations.map((migration) => ({
      name: migration.name,
      up: inTransaction((run) => migration.up(run)),
      down: inTransaction((run) => migration.down(run)),
    })),
    context: sequelize,
    storage: storageOf(sequelize),
    logger: undefined,
  })
}

/**
 * Brings the schema up to what this Pelrin knows.
 *
 * @returns names of the migrations applied, how many there were before, and whether one outdated the state that is derived from facts
 * @throws NewerSchemaError when the database knows migrations this Pelrin does not
 */
export async function migrateUp(
  sequelize: Sequelize,
): Promise<{ applied: string[]; before: number; outdated: boolean }> {
  const steps = umzug(sequelize)
  // The storage itself is asked: the migrator names only the migrations it knows.
  const executed = await storageOf(sequelize).executed()
  const known = new Set(migrations.map((migration) => migration.name))
  const unknown = executed.filter((name) => !known.has(name))
  if (unknown.length > 0) throw new NewerSchemaError(unknown)
  const applied = await steps.up()
  const names = new Set(applied.map((step) => step.name))
  return {
    applied: [...names],
    before: executed.length,
    outdated: migrations.some(({ name, outdatesState }) => outdatesState === true && names.has(name)),
  }
}

/**
 * Takes the schema down: all the way, or to what it was before a migration. What later ones brought goes with it.
 *
 * @param to name of the earliest migration to take back; all of them where it is left out
 */
export async function migrateDown(sequelize: Sequelize, to?: string): Promise<void> {
  await umzug(sequelize).down({ to: to ?? 0 })
}
