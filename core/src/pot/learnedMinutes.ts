import type { Assumptions } from '../assumptions.ts'
import { POT_RECIPES, type PotRecipe } from './potTypes.ts'

/** What of a session takes a time that can be seen from its moves. */
export const LEARNED_STEPS = ['strip', ...POT_RECIPES, 'hang'] as const
export type LearnedStep = 'strip' | PotRecipe | 'hang'

/** One stay of a chain, or of a dip of several, in the bath, in a hot pot, or on the rail. */
export interface PotStay {
  readonly step: LearnedStep
  readonly minutes: number
}

/** What a step takes here, by what was done. */
export interface LearnedMinutes {
  readonly step: LearnedStep
  /** Median of the stays that are believed, whole minutes. */
  readonly minutes: number
  /** A tenth were shorter, a tenth longer. */
  readonly from: number
  readonly to: number
  readonly stays: number
  /** What is assumed, and planned by where nothing is learned. */
  readonly assumed: number
}

/** A stay is not believed where it took this many times as long as assumed, or as short: somebody pressed late, or twice. */
const BELIEVED = 4

const assumedOf = (step: LearnedStep, times: Assumptions['pot']): number =>
  step === 'strip' ? times.stripMinutes : step === 'hang' ? times.hangMinutes : times[step].minutes

/** The value below which a share of sorted values lies, between its neighbours. */
function quantile(sorted: readonly number[], share: number): number {
  const at = share * (sorted.length - 1)
  const [low, high] = [sorted[Math.floor(at)]!, sorted[Math.ceil(at)]!]
  return low + (high - low) * (at - Math.floor(at))
}

/**
 * What each step of a session takes here, by what was done: the median of stays that are believed, once there are enough of them.
 *
 * @param times what is assumed; `learnFrom` stays are enough, 0 learns nothing
 * @throws RangeError for a stay of negative length
 */
export function learnedMinutes(stays: readonly PotStay[], times: Assumptions['pot']): LearnedMinutes[] {
  if (stays.some(({ minutes }) => !(minutes >= 0))) throw new RangeError('no stay ends before it begins')
  if (times.learnFrom === 0) return []
  return LEARNED_STEPS.flatMap((step) => {
    const assumed = assumedOf(step, times)
    const believed = stays
      .filter((stay) => stay.step === step && stay.minutes <= assumed * BELIEVED && stay.minutes * BELIEVED >= assumed)
      .map(({ minutes }) => minutes)
      .sort((a, b) => a - b)
    if (assumed === 0 || believed.length < times.learnFrom) return []
    return [
      {
        step,
        minutes: Math.round(quantile(believed, 0.5)),
        from: Math.round(quantile(believed, 0.1)),
        to: Math.round(quantile(believed, 0.9)),
        stays: believed.length,
        assumed,
      },
    ]
  })
}

/** What a session is planned by: what is assumed, with what was learned in its place. */
export function timesAsLearned(times: Assumptions['pot'], learned: readonly LearnedMinutes[]): Assumptions['pot'] {
  const of = (step: LearnedStep): number => learned.find((one) => one.step === step)?.minutes ?? assumedOf(step, times)
  const recipe = (one: PotRecipe) => ({ ...times[one], minutes: of(one) })
  return {
    ...times,
    stripMinutes: of('strip'),
    hangMinutes: of('hang'),
    'soak-and-hang': recipe('soak-and-hang'),
    'bubble-out': recipe('bubble-out'),
    'cool-draw': recipe('cool-draw'),
  }
}
