import type { Database } from './db/connection.ts'
import { inShop } from './db/work.ts'
import { sealTokens } from './imports/pull.ts'
import type { Secrets } from './secrets.ts'
import type { Scratch } from './transfers/scratch.ts'
import { SHOPS } from './auth/models.ts'

/** A key is kept so long: whoever sends a write again later than this says it anew. */
const KEYS_KEPT = `interval '60 days'`
const TRIES_KEPT = `interval '2 days'`

/** Clears away what has had its time: sessions, keys of writes long done, counted tries, folders of processes that are gone; seals what is open. */
export async function keepHouse(database: Database, scratch: Scratch, secrets: Secrets | undefined): Promise<void> {
  await database.sequelize.query('DELETE FROM sessions WHERE expires_at < now()')
  await database.sequelize.query(`DELETE FROM invitations WHERE expires_at < now() - ${TRIES_KEPT}`)
  for (const { id } of await database.of(SHOPS).findAll())
    await inShop(database, id, null, async (work) => {
      await work.execute(`DELETE FROM idempotency_keys WHERE created_at < now() - ${KEYS_KEPT}`)
      await work.execute(`DELETE FROM sign_in_tries WHERE last_at < now() - ${TRIES_KEPT}`)
      if (secrets) await sealTokens(work, secrets)
    })
  await scratch.sweep()
}
