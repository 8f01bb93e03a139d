import type { Logger } from 'pino'

/** Work nobody waits for: what goes wrong in it is logged, and goes no further. */
export function inBackground(logger: Logger, what: string, job: () => Promise<unknown>): void {
  Promise.resolve()
    .then(job)
    .catch((error: unknown) => logger.error({ err: error }, what))
}
