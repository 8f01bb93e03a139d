import type { Database } from '../db/connection.ts'

/** How far apart the statements are at which the connection breaks. */
const EVERY = 5
const MOST = 900

/**
 * Does a write again and again while the connection breaks at its n-th statement, until it goes through: whatever it had
 * written by then has to be gone.
 *
 * @param write answers with its status; 200 ends it
 * @param standing what anybody sees of what it writes, as one text
 * @returns how often it was torn, and what stood that was neither before nor after
 */
export async function tornAtEach(
  { sequelize }: Database,
  write: () => Promise<{ readonly status: number }>,
  standing: () => Promise<string>,
): Promise<{ torn: number; between: string[] }> {
  const before = await standing()
  const query = sequelize.query.bind(sequelize)
  let left = Infinity
  sequelize.query = ((...args: Parameters<typeof query>) => {
    if (left-- <= 0) return Promise.reject(new Error('torn'))
    return query(...args)
  }) as typeof query
  const between: string[] = []
  let torn = 0
  try {
    for (let n = EVERY - 1; n < MOST; n += EVERY) {
      left = n
      const { status } = await write()
      left = Infinity
      if (status === 200) break
      torn++
      const now = await standing()
      if (now !== before) between.push(`at ${n}: ${now}`)
    }
  } finally {
    sequelize.query = query
  }
  return { torn, between }
}
