// oxlint-disable-next-line typescript/triple-slash-reference -- the package ships no types
/// <reference path="../numerics/jstat.d.ts" />
import jstat from 'jstat'
import type { ChanceOver } from './crossing.ts'

/** How closely a chance is told. */
const PRECISION = 1e-4

/**
 * The chance of being over a limit by distance, allowing for what the law does not know: months of unrecorded sand to
 * come, a bend in the wear, a gauge that reads late. What is left to ride is taken to scatter by a further 30 % (default)
 * beside the posterior's own spread; the middle stays where it is. Band, dates, look-ahead and next check all ask here.
 */
export class WidenedChance {
  private readonly chance: ChanceOver
  private readonly sNow: number
  private readonly lawOff: number
  /** Where the chance is a half, thousand weighted km. */
  readonly middle: number

  /**
   * @param sNow where the chain is, thousand weighted km
   * @param lawOff standard deviation of the logarithm of what is left to ride
   */
  constructor(chance: ChanceOver, sNow: number, lawOff: number) {
    this.chance = chance
    this.sNow = sNow
    this.lawOff = lawOff
    this.middle = chance.reaches(0.5)
  }

  /** Where the limit is crossed with a probability, thousand weighted km. */
  reaches(probability: number): number {
    const { sNow, middle } = this
    const plain = probability === 0.5 ? middle : this.chance.reaches(probability)
    // Over already, or as likely as not: nothing is being looked ahead to.
    if (plain <= sNow || middle <= sNow) return plain
    const apart = Math.log((plain - sNow) / (middle - sNow))
    const further = jstat.jStat.normal.inv(probability, 0, 1) * this.lawOff
    return sNow + (middle - sNow) * Math.exp(Math.sign(probability - 0.5) * Math.hypot(apart, further))
  }

  /** The chance at a distance, 0…1. Never falls with s. */
  at(s: number): number {
    const { sNow, middle } = this
    // Up to now the law has been held against readings: nothing is left to be off over.
    if (s <= sNow || middle <= sNow || this.lawOff === 0) return this.chance.at(s)
    const known = this.chance.at(sNow)
    let [low, high] = [known, 1]
    while (high - low > PRECISION) {
      const probability = (low + high) / 2
      if (this.reaches(probability) <= s) low = probability
      else high = probability
    }
    return (low + high) / 2
  }
}
