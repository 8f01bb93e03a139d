const DAY_MS = 86_400_000
/** A meter shows whole tenths: that much lower is no going back, km. */
const HAIR_KM = 0.05

/** Why an odometer value is asked about before it is believed. */
export type OdometerDoubt = 'odometer-lower' | 'odometer-much'

/**
 * Whether an odometer value wants a second look: lower than the one before it, or more than a bike is ridden: over 400 km
 * a day (default) since. It is asked about, never refused.
 *
 * @param before the last value by then; moments in ms, values in km
 * @returns null for one to be believed
 */
export function odometerDoubt(
  value: { readonly km: number; readonly at: number },
  before: { readonly km: number; readonly at: number } | null | undefined,
  { odometerDayKm }: { readonly odometerDayKm: number },
): OdometerDoubt | null {
  if (!before) return null
  if (value.km < before.km - HAIR_KM) return 'odometer-lower'
  const days = Math.max(1, (value.at - before.at) / DAY_MS)
  return value.km - before.km > odometerDayKm * days ? 'odometer-much' : null
}
