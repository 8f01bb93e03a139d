/** What a ride was ridden on and in. Indoor: on a trainer or rollers, without dirt; gritty: sand, salt, mud. */
export type Surface = 'indoor' | 'dry' | 'damp' | 'wet' | 'gritty'

/** Every {@link Surface}, kindest first. */
export const SURFACES: readonly Surface[] = ['indoor', 'dry', 'damp', 'wet', 'gritty']

const OUTDOORS = SURFACES.filter((surface) => surface !== 'indoor')

/** Kilometres by surface; `unknown` are those nobody said it of. */
export type SurfaceKm = Readonly<Record<Surface | 'unknown', number>>

export const NO_KM: SurfaceKm = { indoor: 0, dry: 0, damp: 0, wet: 0, gritty: 0, unknown: 0 }

/** The sum of two, surface by surface. */
export const plusKm = (a: SurfaceKm, b: SurfaceKm): SurfaceKm => ({
  indoor: a.indoor + b.indoor,
  dry: a.dry + b.dry,
  damp: a.damp + b.damp,
  wet: a.wet + b.wet,
  gritty: a.gritty + b.gritty,
  unknown: a.unknown + b.unknown,
})

/** The values a weighting reads; a shop's own or the shipped ones. */
export interface SurfaceFactors {
  readonly wearFactor: Readonly<Record<Surface, number>>
  readonly wearFactorUnknown: number
  readonly careFactor: Readonly<Record<Surface, number>>
  readonly careFactorUnknown: number
}

/** All kilometres, whatever the surface. */
export const totalKm = (km: SurfaceKm): number => km.indoor + km.dry + km.damp + km.wet + km.gritty + km.unknown

/**
 * A factor for kilometres of unknown surface: the usual mix of the bike, else of the customer, else of the shop; the
 * first of them with any known kilometre counts. Kilometres indoors are not part of it: whatever rides there tells so.
 */
function usualFactor(
  factors: Readonly<Record<Surface, number>>,
  unknown: number,
  mixes: readonly (SurfaceKm | null | undefined)[],
): number {
  for (const mix of mixes) {
    if (!mix) continue
    const known = OUTDOORS.reduce((sum, surface) => sum + mix[surface], 0)
    if (known > 0) return OUTDOORS.reduce((sum, surface) => sum + mix[surface] * factors[surface], 0) / known
  }
  return unknown
}

/**
 * What a kilometre of the usual mix wears, against a dry one.
 *
 * @param mixes the bike's, the customer's and the shop's kilometres, in that order
 */
export const usualWearFactor = (mixes: readonly (SurfaceKm | null | undefined)[], assumed: SurfaceFactors): number =>
  usualFactor(assumed.wearFactor, assumed.wearFactorUnknown, mixes)

/** What a kilometre of the usual mix uses up of a treatment, against a dry one. */
export const usualCareFactor = (mixes: readonly (SurfaceKm | null | undefined)[], assumed: SurfaceFactors): number =>
  usualFactor(assumed.careFactor, assumed.careFactorUnknown, mixes)

/**
 * Wear-weighted distance: Σ km × factor, km of unknown surface by the usual one.
 *
 * @param usual what {@link usualWearFactor} gives
 * @returns weighted km
 */
export const wearWeighted = (
  km: SurfaceKm,
  usual: number,
  { wearFactor }: Pick<SurfaceFactors, 'wearFactor'>,
): number => SURFACES.reduce((sum, surface) => sum + km[surface] * wearFactor[surface], km.unknown * usual)

/**
 * Care distance: the kilometres that count against a treatment.
 *
 * @param usual what {@link usualCareFactor} gives
 * @returns weighted km
 */
export const careDistance = (
  km: SurfaceKm,
  usual: number,
  { careFactor }: Pick<SurfaceFactors, 'careFactor'>,
): number => SURFACES.reduce((sum, surface) => sum + km[surface] * careFactor[surface], km.unknown * usual)

/** Kilometres as they are ridden, of weighted ones in thousands, on roads in the bike's usual mix. */
export const realKm = (s: number, usualFactor: number): number => (1000 * s) / usualFactor

/**
 * How kilometres divide between surfaces, of those whose surface was told; null where none was.
 *
 * @returns each surface's share, adding up to one, and the share of all kilometres that was told
 */
export function surfaceShares(
  km: SurfaceKm,
): { readonly of: Readonly<Record<Surface, number>>; readonly told: number } | null {
  const told = totalKm(km) - km.unknown
  if (told <= 0) return null
  const shares = SURFACES.map((surface) => [surface, km[surface] / told] as const)
  return { of: Object.fromEntries(shares) as Record<Surface, number>, told: told / totalKm(km) }
}
