/** Clocks that differ by less are taken for one, ms. */
const SAME_MS = 60_000

/**
 * How far a device's clock is from ours: what it says happened, happened at the moment our clock showed then. A device whose battery was out, or a
 * server whose clock is off, would otherwise have what is written now lie in the future, or before what was written earlier.
 *
 * @param said what the device's clock showed as it sent, from `Pelrin-Clock`; empty where it does not say
 * @returns ms to add to what it says; 0 for clocks that agree
 */
export function clockOffset(said: string, now: number): number {
  const at = Date.parse(said)
  if (!Number.isFinite(at)) return 0
  const offset = now - at
  return Math.abs(offset) < SAME_MS ? 0 : offset
}

/** A body with the moment it happened by our clock. */
export function byOurClock(body: unknown, offset: number): unknown {
  const at = (body as { occurredAt?: unknown } | null | undefined)?.occurredAt
  if (offset === 0 || typeof at !== 'string') return body
  return { ...(body as object), occurredAt: new Date(Date.parse(at) + offset).toISOString() }
}
