// oxlint-disable-next-line typescript/triple-slash-reference -- the package ships no types
/// <reference path="../numerics/jstat.d.ts" />
import jstat from 'jstat'
import { DEFAULTS } from '../defaults.ts'
import type { ChanceOver } from './crossing.ts'

/**
 * The distance at which the limit is crossed with a probability, allowing for what the law does not know: months of
 * unrecorded sand to come, a bend in the wear, a gauge that reads late. What is left to ride is taken to scatter by a
 * further 15 % (default) beside the posterior's own spread; the middle stays where it is.
 *
 * @param middle where the chance is a half, where that is known already
 * @param sNow where the chain is, thousand weighted km
 * @returns s, thousand weighted km
 */
export function widenedCrossing(
  chance: ChanceOver,
  sNow: number,
  probability: number,
  lawOff: number = DEFAULTS.forecast.lawOff,
  middle: number = chance.reaches(0.5),
): number {
  const plain = probability === 0.5 ? middle : chance.reaches(probability)
  // Over already, or as likely as not: nothing is being looked ahead to.
  if (plain <= sNow || middle <= sNow) return plain
  const apart = Math.log((plain - sNow) / (middle - sNow))
  const further = jstat.jStat.normal.inv(probability, 0, 1) * lawOff
  return sNow + (middle - sNow) * Math.exp(Math.sign(probability - 0.5) * Math.hypot(apart, further))
}
