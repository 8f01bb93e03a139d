import type { WearPosterior } from './fitWear.ts'

/**
 * The chance that the chain is over a limit (%) at a distance s (thousand weighted km from where it is known here),
 * 0…1. Never falls with s.
 */
export function probabilityOverAt(posterior: WearPosterior, { s, limit }: { s: number; limit: number }): number {
  return new ChanceOver(posterior, limit).at(s)
}

/**
 * The distances at which the limit is crossed with given probabilities.
 *
 * @param query `limit` in %; `probabilities` each between 0 and 1
 * @returns s for each, thousand weighted km from where the chain is known here; it may lie behind, below 0
 */
export function crossing(
  posterior: WearPosterior,
  { limit, probabilities }: { limit: number; probabilities: readonly number[] },
): number[] {
  const chance = new ChanceOver(posterior, limit)
  return probabilities.map((probability) => chance.reaches(probability))
}

/** How likely the newest reading is a stray, 0…1; 0 without a reading. Above a half no forecast is shown. */
export const newestReadingDoubt = (posterior: WearPosterior): number => posterior.doubt

/** Cells of the lattice on which crossings are looked for. */
const CELLS = 128

/** The chance of being over one limit as a function of distance: everything that does not depend on s worked out once. */
export class ChanceOver {
  private readonly posterior: WearPosterior
  /** By column: logarithm of the share of T at which the limit is reached; −∞ where it is over from the beginning. */
  private readonly logShare: Float64Array
  private readonly mostBefore: number
  private readonly most: number
  /** The chance at each place of the lattice; −1 where it was not asked yet. */
  private readonly kept = new Float64Array(CELLS + 1).fill(-1)

  constructor(posterior: WearPosterior, limit: number) {
    const { columns, gamma, epsilon0, before } = posterior
    this.posterior = posterior
    this.logShare = new Float64Array(columns)
    let longest = -Infinity
    let least = Infinity
    let farthest = 0
    for (let c = 0; c < columns; c++) {
      const left = limit - epsilon0[c]!
      const share = left <= 0 ? -Infinity : Math.log(left / 0.5) / gamma[c]!
      this.logShare[c] = share
      if (share > longest) longest = share
      if (before[c]! < least) least = before[c]!
      if (before[c]! > farthest) farthest = before[c]!
    }
    this.mostBefore = farthest
    const { firstLogLife, logLifeStep, lives } = posterior
    this.most = Math.exp(firstLogLife + logLifeStep * lives + longest) - least
  }

  /** The chance at s, 0…1. */
  at(s: number): number {
    const { columns, before, below, lives, firstLogLife, logLifeStep } = this.posterior
    let over = 0
    let lastBefore = NaN
    let logRun = 0
    for (let c = 0; c < columns; c++) {
      if (before[c] !== lastBefore) {
        lastBefore = before[c]!
        logRun = Math.log(Math.max(0, s + lastBefore))
      }
      const share = this.logShare[c]!
      // Over from the beginning, however little it has run.
      if (share === -Infinity) {
        over += below[(c + 1) * lives - 1]!
        continue
      }
      // Each node stands for its surroundings: half a step to either side.
      const position = (logRun - share - firstLogLife) / logLifeStep + 0.5
      if (!(position > 0)) continue
      if (position >= lives) {
        over += below[(c + 1) * lives - 1]!
        continue
      }
      const whole = position | 0
      const low = whole === 0 ? 0 : below[c * lives + whole - 1]!
      over += low + (below[c * lives + whole]! - low) * (position - whole)
    }
    return Math.min(1, over)
  }

  /**
   * Where the chance reaches a probability: the cell of a fixed lattice by halving, whose values are kept for the next
   * one asked, and in it false position with a bisection whenever that is slow.
   */
  reaches(probability: number): number {
    if (this.atNode(0) >= probability) return this.node(0)
    let first = 0
    let last = CELLS
    while (last - first > 1) {
      const middle = (first + last) >> 1
      if (this.atNode(middle) < probability) first = middle
      else last = middle
    }
    let [low, high] = [this.node(first), this.node(last)]
    let [atLow, atHigh] = [this.atNode(first), this.atNode(last)]
    const width = Math.max(1e-4, Math.exp(this.posterior.firstLogLife) * 1e-3)
    let bisect = false
    while (high - low > width) {
      const part = bisect ? 0.5 : Math.min(0.95, Math.max(0.05, (probability - atLow) / (atHigh - atLow)))
      const middle = low + (high - low) * part
      const chance = this.at(middle)
      bisect = !bisect
      if (chance < probability) [low, atLow] = [middle, chance]
      else [high, atHigh] = [middle, chance]
    }
    const rise = atHigh - atLow
    return rise > 0 ? low + ((high - low) * (probability - atLow)) / rise : high
  }

  /** Places of the lattice, closer together where chains are short-lived: most of what is asked lies there. */
  private node(i: number): number {
    return -this.mostBefore + (this.most + this.mostBefore) * (i / CELLS) ** 2
  }

  private atNode(i: number): number {
    const known = this.kept[i]!
    if (known >= 0) return known
    const chance = i === CELLS ? 1 : this.at(this.node(i))
    this.kept[i] = chance
    return chance
  }
}
