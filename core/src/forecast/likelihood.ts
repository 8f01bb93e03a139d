import { normalCumulative } from '../numerics/normal.ts'
import type { WearObservation } from './wearModel.ts'

/** Spread every reading has beside its own u: the law is not exact, %. */
const LAW_U = 0.02
/** Share of readings that are strays, and how much wider those scatter. */
const STRAY = 0.03
const STRAY_WIDER = 5
/** An interval's floor: a stray mark says nothing. */
const STRAY_MARK = 0.015
const ROOT_2PI = Math.sqrt(2 * Math.PI)

/** The elongations a table covers, %, and its step: above it the last entry stands; none lies below. */
export const TABLE_FROM = -1
const TABLE_TO = 3
export const TABLE_STEP = 0.005
/** Place of the last entry. */
export const TABLE_LAST = Math.round((TABLE_TO - TABLE_FROM) / TABLE_STEP)
/** No observation rules anything out altogether. */
const LEAST = 1e-300

/**
 * The logarithm of an observation's likelihood by elongation, tabled: a fit asks it some hundred thousand times, and
 * between two entries it is all but straight. One entry more than there are places, so that the last has a next.
 */
export function likelihoodTable(observation: WearObservation): Float64Array {
  const log = new Float64Array(TABLE_LAST + 2)
  for (let i = 0; i <= TABLE_LAST; i++)
    log[i] = Math.log(Math.max(LEAST, likelihoodAt(observation, TABLE_FROM + i * TABLE_STEP)))
  log[TABLE_LAST + 1] = log[TABLE_LAST]!
  return log
}

const spread = (u: number): number => Math.sqrt(u * u + LAW_U * LAW_U)

const bell = (z: number, sd: number): number => Math.exp(-0.5 * z * z) / (sd * ROOT_2PI)

/** Likelihood of an observation at an elongation. A value: two bells. Marks: what lies between them, above a floor. */
export function likelihoodAt(observation: WearObservation, epsilon: number): number {
  if ('value' in observation) {
    const near = spread(observation.u)
    return (1 - STRAY) * bell((observation.value - epsilon) / near, near) + strayAt(observation, epsilon)
  }
  const { over, under, u } = observation
  const sd = spread(u)
  const above = over === undefined ? 1 : normalCumulative((epsilon - over) / sd)
  const below = under === undefined ? 0 : normalCumulative((epsilon - under) / sd)
  return (1 - STRAY) * Math.max(0, above - below) + STRAY_MARK
}

/** The part of {@link likelihoodAt} that a stray reading has. */
export function strayAt(observation: WearObservation, epsilon: number): number {
  if (!('value' in observation)) return STRAY_MARK
  const far = spread(STRAY_WIDER * observation.u)
  return STRAY * bell((observation.value - epsilon) / far, far)
}
