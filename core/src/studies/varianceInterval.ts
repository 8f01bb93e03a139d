// The package ships no types, and whoever imports this file from elsewhere must find ours beside it.
// oxlint-disable-next-line typescript/triple-slash-reference
/// <reference path="../numerics/jstat.d.ts" />
import jstat from 'jstat'

const { chisquare, centralF } = jstat.jStat

/** A mean square with its degrees of freedom and its share in a variance. */
export interface MeanSquare {
  readonly ms: number
  readonly df: number
  /** Coefficient; negative where it is taken away. */
  readonly share: number
}

/** F with infinitely many degrees of freedom below is χ² over its own. */
const upperF = (share: number, df: number): number => chisquare.inv(share, df) / df

/**
 * Interval of a variance made of mean squares, such as (MS₁ − MS₂) / n.
 *
 * The modified large-sample method of Ting, Burdick, Graybill, Jeyaratnam and Lu (1990): exact for one mean
 * square, close to nominal for sums and differences. Bounds below 0 are 0, as no variance is less.
 *
 * @param confidence such as 0.95
 */
export function varianceInterval(
  squares: readonly MeanSquare[],
  confidence = 0.95,
): { readonly low: number; readonly high: number } {
  const tail = (1 - confidence) / 2
  const added = squares.filter(({ share }) => share > 0)
  const taken = squares.filter(({ share }) => share < 0)
  const sum = squares.reduce((total, { ms, share }) => total + share * ms, 0)
  const part = ({ ms, share }: MeanSquare): number => Math.abs(share) * ms
  // How far a mean square may lie below what it estimates, and above, as shares of it.
  const below = ({ df }: MeanSquare): number => 1 - 1 / upperF(1 - tail, df)
  const above = ({ df }: MeanSquare): number => 1 / upperF(tail, df) - 1
  let downward = 0
  let upward = 0
  for (const square of added) {
    downward += (below(square) * part(square)) ** 2
    upward += (above(square) * part(square)) ** 2
  }
  for (const square of taken) {
    downward += (above(square) * part(square)) ** 2
    upward += (below(square) * part(square)) ** 2
  }
  for (const plus of added)
    for (const minus of taken) {
      const high = centralF.inv(1 - tail, plus.df, minus.df)
      const low = centralF.inv(tail, plus.df, minus.df)
      const both = part(plus) * part(minus)
      downward += (((high - 1) ** 2 - (below(plus) * high) ** 2 - above(minus) ** 2) / high) * both
      upward += (((1 - low) ** 2 - (above(plus) * low) ** 2 - below(minus) ** 2) / low) * both
    }
  return {
    low: Math.max(0, sum - Math.sqrt(Math.max(0, downward))),
    high: Math.max(0, sum + Math.sqrt(Math.max(0, upward))),
  }
}

/** The chance of an F at least this large when nothing is behind it. */
export const exceedsF = (f: number, above: number, below: number): number => 1 - centralF.cdf(f, above, below)
