import { vi } from 'vitest'

/** How long something asked for may take on a machine that does other work beside it, ms. */
export const PATIENCE_MS = 15_000

/** Waits until nothing in this throws any more. @throws what it threw last, when it goes on for too long */
export const until = <T>(look: () => T | Promise<T>): Promise<T> => vi.waitFor(look, { timeout: PATIENCE_MS })
