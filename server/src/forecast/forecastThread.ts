import { openForServing } from '../db/connection.ts'
import { continueRun } from './runs.ts'
import type { ForecastPiece } from '../queue/queue.ts'

/** Does a piece of a whole-shop forecast on a connection of its own. @returns whether more is left */
export default async function forecastPiece({ url, shopId, runId, forMs }: ForecastPiece): Promise<boolean> {
  const database = await openForServing(url)
  try {
    return await continueRun(database, shopId, runId, Date.now() + forMs)
  } finally {
    await database.close()
  }
}
