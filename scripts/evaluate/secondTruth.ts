import { DEFAULTS, shippedPrior, wearAt, type CareKind, type WearParameters } from '@pelrin/core'
import type { Chance } from '../../server/src/demo/random.ts'

/** Jumps of the gamma process wear grows by, %: about 0.07 % of scatter where 0.5 % were expected. */
const JUMP = 0.01
/** As far as a chain is followed, %. */
const WORN_OUT = 4
/** A bike of 14 km a day runs so much in a year, thousand weighted km. */
const YEAR = 6.1
/** How much more than usual the wettest weeks wear, and the driest less. */
const WET = 0.4
/** Of chains that are changed and nobody writes it down; of bikes a second rider takes, and how much that adds. */
const CHANGED = 0.1
const SECOND = 0.15
const SECOND_RIDES = 0.5

/** Wear the model does not know of. Distances in thousand weighted km as recorded. */
export interface Worn {
  readonly wear: (s: number) => number
  /** From where it is the chain that crosses its limit: another was hung in its place there. */
  readonly changedAt: number | null
}

/**
 * A second truth: wear grows by a gamma process instead of a law, wet months wear more than the usual mix, some chains
 * are changed unrecorded, and some bikes are ridden by a second rider whose rides nobody records.
 */
export function secondTruth(chance: Chance, care: CareKind, draw: () => WearParameters): Worn {
  const prior = shippedPrior(care, DEFAULTS.forecast)
  const season = chance.between(0, 2 * Math.PI)
  const secondFrom = chance.happens(SECOND) ? chance.between(0.1, 0.8) * prior.life : Infinity
  const changedAt = chance.happens(CHANGED) ? chance.between(0.2, 0.8) * prior.life : null
  const turn = (2 * Math.PI) / YEAR
  const ridden = (s: number): number => {
    const all = s + SECOND_RIDES * Math.max(0, s - secondFrom)
    return all + (WET / turn) * (Math.cos(season) - Math.cos(turn * all + season))
  }
  const [first, second] = [grown(chance, draw()), grown(chance, draw())]
  return {
    changedAt,
    wear: (s) => (changedAt === null || s < changedAt ? first(ridden(s)) : second(ridden(s) - ridden(changedAt))),
  }
}

/** Wear by a gamma process whose mean is a law: where that expects another jump, one of exponential size comes. */
function grown(chance: Chance, law: WearParameters): (s: number) => number {
  const reached = [0]
  for (let expected = 0; expected < WORN_OUT; expected += JUMP)
    reached.push(reached.at(-1)! - JUMP * Math.log(1 - chance.unit()))
  return (s) => {
    const jumps = Math.min(reached.length - 2, (wearAt(s, law) - law.epsilon0) / JUMP)
    const whole = Math.floor(jumps)
    return law.epsilon0 + reached[whole]! + (jumps - whole) * (reached[whole + 1]! - reached[whole]!)
  }
}
