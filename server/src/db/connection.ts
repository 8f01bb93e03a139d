import { Sequelize } from 'sequelize'
import { defineModels, type Models } from './models/index.ts'

export interface Database {
  readonly sequelize: Sequelize
  readonly models: Models
  close(): Promise<void>
}

/** The role the server takes on where its login could pass by row-level security. */
const SERVING_ROLE = 'pelrin_serving'

/**
 * Opens a connection pool and the models on it.
 *
 * @param url `postgres://…` of the database
 * @param options `log` gets each statement; `poolSize` connections at most
 */
export function openDatabase(
  url: string,
  options: { log?: (sql: string) => void; poolSize?: number; role?: string } = {},
): Database {
  const { log, poolSize = 10, role } = options
  const sequelize = new Sequelize(url, {
    dialect: 'postgres',
    logging: log ? (sql) => log(sql) : false,
    pool: { max: poolSize, min: 0, acquire: 5_000, idle: 10_000 },
    dialectOptions: { connectionTimeoutMillis: 3_000, application_name: 'pelrin' },
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
  return { sequelize, models: defineModels(sequelize), close: () => sequelize.close() }
}

/**
 * Opens the database the server serves from, after migration.
 *
 * A superuser's login would pass by the policies that keep shops apart, so such a login takes on a role of its
 * own that does not.
 */
export async function openForServing(url: string, log?: (sql: string) => void): Promise<Database> {
  const plain = openDatabase(url, log ? { log } : {})
  const [rows] = await plain.sequelize.query(
    'SELECT rolsuper OR rolbypassrls AS passes FROM pg_roles WHERE rolname = current_user',
  )
  if (!(rows as { passes: boolean }[])[0]?.passes) return plain
  await plain.sequelize.query(`
    DO $$ BEGIN
      IF NOT EXISTS (SELECT 1 FROM pg_roles WHERE rolname = '${SERVING_ROLE}') THEN
        CREATE ROLE ${SERVING_ROLE} NOLOGIN;
      END IF;
    END $$;
    GRANT USAGE ON SCHEMA public TO ${SERVING_ROLE};
    GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO ${SERVING_ROLE};`)
  await plain.close()
  return openDatabase(url, log ? { log, role: SERVING_ROLE } : { role: SERVING_ROLE })
}
