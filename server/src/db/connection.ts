import { Sequelize } from 'sequelize'
import { attributesOf, type ModelOf, type Table } from './table.ts'
import { grantServing, SERVING_ROLE } from './roles.ts'

export interface Database {
  readonly sequelize: Sequelize
  /** A table as it is read and written. */
  readonly of: <T extends Table>(table: T) => ModelOf<T>
  close(): Promise<void>
}

/**
 * How long a request waits: for a connection of the pool, for a statement, for a row another one holds, and how long its transaction may stand
 * idle, ms. What takes longer is ended, so that nothing holds up the others for ever; work that is known to be long sets its own.
 */
const PATIENCE = { acquire: 5_000, statement: 30_000, lock: 10_000, idle: 30_000 } as const

/**
 * Opens a connection pool; tables are made known on it as they are asked for.
 *
 * @param url `postgres://…` of the database
 * @param options `log` gets each statement; `poolSize` connections at most; `hurried`: whoever asks waits, so nothing may take for ever
 */
export function openDatabase(
  url: string,
  options: { log?: (sql: string) => void; poolSize?: number; role?: string; hurried?: boolean } = {},
): Database {
  const { log, poolSize = 10, role, hurried = false } = options
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    logging: log ? (sql) => log(sql) : false,
    pool: { max: poolSize, min: 0, acquire: hurried ? PATIENCE.acquire : 60_000, idle: 10_000 },
    dialectOptions: {
      connectionTimeoutMillis: 3_000,
      application_name: 'pelrin',
      keepAlive: true,
      ...(hurried
        ? {
            statement_timeout: PATIENCE.statement,
            lock_timeout: PATIENCE.lock,
            idle_in_transaction_session_timeout: PATIENCE.idle,
          }
        : {}),
    },
    define: { underscored: true, timestamps: false, freezeTableName: true },
    ...(role === undefined
      ? {}
      : {
          hooks: {
            async afterConnect(connection: unknown) {
              await (connection as { query(sql: string): Promise<unknown> }).query(`SET ROLE ${role}`)
            },
          },
        }),
  })
  const of = <T extends Table>(asked: T): ModelOf<T> =>
    (sequelize.isDefined(asked.name)
      ? sequelize.model(asked.name)
      : sequelize.define(asked.name, attributesOf(asked))) as unknown as ModelOf<T>
  return { sequelize, of, close: () => sequelize.close() }
}

/**
 * Opens the database the server serves from, after migration.
 *
 * A superuser's login would pass by the policies that keep shops apart, so such a login takes on a role of its
 * own that does not.
 */
export async function openForServing(url: string, log?: (sql: string) => void): Promise<Database> {
  const hurried = { hurried: true, ...(log ? { log } : {}) }
  const plain = openDatabase(url, hurried)
  const [rows] = await plain.sequelize.query(
    'SELECT rolsuper OR rolbypassrls AS passes FROM pg_roles WHERE rolname = current_user',
  )
  if (!(rows as { passes: boolean }[])[0]?.passes) return plain
  await plain.sequelize.query(`
    DO $$ BEGIN
      IF NOT EXISTS (SELECT 1 FROM pg_roles WHERE rolname = '${SERVING_ROLE}') THEN
        CREATE ROLE ${SERVING_ROLE} NOLOGIN;
      END IF;
    END $$`)
  await grantServing(plain.sequelize, SERVING_ROLE)
  await plain.close()
  return openDatabase(url, { ...hurried, role: SERVING_ROLE })
}
