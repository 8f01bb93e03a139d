import { normalCumulative } from '../numerics/normal.ts'

/**
 * The chance that a chain is over a limit, from one reading of it: Φ((ε − limit)/u).
 *
 * @param reading `elongation` and `limit` in %, `u` its standard uncertainty in %, 0 or more
 * @returns 0…1; with u = 0, 1 when the elongation is above the limit, 0.5 on it, else 0
 * @throws RangeError when u is negative
 */
export function probabilityOver({ elongation, u, limit }: { elongation: number; u: number; limit: number }): number {
  if (!(u >= 0)) throw new RangeError('u must be 0 or more')
  if (u === 0) return elongation > limit ? 1 : elongation === limit ? 0.5 : 0
  return normalCumulative((elongation - limit) / u)
}
