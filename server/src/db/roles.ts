import type { Sequelize } from 'sequelize'

/** Of the queue, which has a schema of its own. */
export const QUEUE_SCHEMA = 'pelrin_jobs'

/** The role the server takes on where its login could pass by row-level security. */
export const SERVING_ROLE = 'pelrin_serving'

/**
 * Lets a role serve: it reads and writes rows and nothing else. It owns no table, so that it can neither change one nor switch off the policies
 * that keep shops apart; of the audit it can only add to the end; which migrations were made it can only read.
 *
 * @param role that is no superuser; made where there is none
 */
export async function grantServing(sequelize: Sequelize, role: string): Promise<void> {
  if (!/^[a-z_][a-z0-9_]*$/.test(role)) throw new Error(`"${role}" is no name of a role that Pelrin takes.`)
  const [queue] = await sequelize.query(`SELECT 1 FROM pg_namespace WHERE nspname = '${QUEUE_SCHEMA}'`)
  const schemas = ['public', ...(queue.length > 0 ? [QUEUE_SCHEMA] : [])]
  await sequelize.query(
    `${schemas
      .map(
        (schema) => `GRANT USAGE ON SCHEMA ${schema} TO ${role};
      GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA ${schema} TO ${role};
      GRANT USAGE ON ALL SEQUENCES IN SCHEMA ${schema} TO ${role};`,
      )
      .join('\n')}
    REVOKE UPDATE, DELETE, TRUNCATE ON audit FROM ${role};
    REVOKE INSERT, UPDATE, DELETE, TRUNCATE ON schema_migrations FROM ${role};`,
  )
}
