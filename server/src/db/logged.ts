import { DatabaseError, ValidationError } from 'sequelize'
import { pino } from 'pino'

/** The lines of a stack that say where, without its head, which repeats the message. */
const whereOf = (stack: string | undefined): string | undefined => stack?.slice(Math.max(0, stack.search(/\n\s+at /)))

/**
 * An error as it is logged. One of the database tells what was refused and where, never the values that were written: they name customers.
 */
export function loggedError(error: unknown): object {
  if (!(error instanceof DatabaseError || error instanceof ValidationError))
    return error instanceof Error ? pino.stdSerializers.err(error) : { message: String(error) }
  const parent = 'parent' in error ? (error.parent as unknown as Record<string, unknown>) : {}
  const told: Record<string, unknown> = {}
  for (const key of ['code', 'table', 'column', 'constraint', 'routine'])
    if (typeof parent[key] === 'string') told[key] = parent[key]
  return { type: error.name, ...told, stack: whereOf(error.stack) }
}

/** How the logger writes errors. */
export const LOGGED = { serializers: { err: loggedError } }
