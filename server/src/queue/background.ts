import type { Logger } from 'pino'
import { databaseWentAway } from '../db/refused.ts'

/** Work nobody waits for: what goes wrong in it is logged, and goes no further. */
export function inBackground(logger: Logger, what: string, job: () => Promise<unknown>): void {
  Promise.resolve()
    .then(job)
    .catch((error: unknown) => noted(logger, error, what))
}

/** Logs what went wrong with something nobody waits for; a database that is away is a line. */
export function noted(logger: Logger, error: unknown, what: string): void {
  if (databaseWentAway(error)) logger.warn(`${what}: the database is away`)
  else logger.error({ err: error }, what)
}
