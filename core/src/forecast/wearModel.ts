/**
 * The wear law: ε(s) = ε₀ + 0.5·(s/T)^γ, s the wear-weighted distance on the chain in thousand km, T the s at which it
 * has grown by 0.5 %. Wear speeds up: γ is above 1, most with wet oil.
 *
 * @returns elongation, %
 */
export const wearAt = (s: number, { epsilon0, life, gamma }: WearParameters): number =>
  epsilon0 + 0.5 * Math.pow(Math.max(0, s) / life, gamma)

export interface WearParameters {
  /** Elongation when new, %. */
  readonly epsilon0: number
  /** T, thousand weighted km. */
  readonly life: number
  readonly gamma: number
}

/** Where the law reaches an elongation, thousand weighted km; 0 where it begins above it. */
export function distanceTo(limit: number, { epsilon0, life, gamma }: WearParameters): number {
  const left = limit - epsilon0
  return left <= 0 ? 0 : life * Math.pow(left / 0.5, 1 / gamma)
}

/** A reading at a distance: the worst spot's median and half width, or marks. s in thousand weighted km, the rest %. */
export type WearObservation =
  | { readonly s: number; readonly value: number; readonly u: number }
  | { readonly s: number; readonly over?: number; readonly under?: number; readonly u: number }
