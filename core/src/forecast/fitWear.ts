import { DEFAULTS, type WearPriorDefaults } from '../defaults.ts'
import { likelihoodAt, likelihoodTable, strayAt, TABLE_FROM, TABLE_LAST, TABLE_STEP } from './likelihood.ts'
import { shippedPrior, type CareKind, type WearPrior } from './priors.ts'
import type { WearObservation } from './wearModel.ts'

/** What the chain had run before it was known here: nothing, something stated, or anything. */
export type WearStart = 'fitted' | 'unknown' | { readonly value: number; readonly u: number }

export interface WearQuery {
  readonly care: CareKind
  /** In order of distance; the last is the newest. */
  readonly observations: readonly WearObservation[]
  /** The reading when it was new, %. */
  readonly baseline?: { readonly value: number; readonly u: number } | null
  readonly start?: WearStart
  /** Learned from the shop's own chains; the shipped one of the care unless given. */
  readonly prior?: WearPrior
  /** The shop's own values; the shipped ones unless given. */
  readonly defaults?: WearPriorDefaults
}

/**
 * All that is known of a chain's wear: a grid over what it had run before, γ, ε₀ and T, and the weight of each node.
 * Opaque to callers.
 *
 * A *column* is one combination of the first three; its nodes along ln T stand one after the other, so that the weight
 * below any T is a look-up. Columns that weigh nothing are left out.
 */
export interface WearPosterior {
  /** By column: run before it was known here (thousand weighted km), γ, and ε₀ (%). */
  readonly before: Float64Array
  readonly gamma: Float64Array
  readonly epsilon0: Float64Array
  readonly columns: number
  /** ln T of a column's first node, and the step between two. */
  readonly firstLogLife: number
  readonly logLifeStep: number
  readonly lives: number
  /** By column and node: the weight of this node and of all shorter lives in the column. All columns together: 1. */
  readonly below: Float64Array
  /** Weight of the stray part of the mixture for the newest observation, 0…1. */
  readonly doubt: number
  /** Logarithm of how likely the observations were under the prior: what learning compares priors by. */
  readonly logEvidence: number
}

/** Numbers of nodes of ln T, γ, ε₀ and of what the chain had run before; with an unknown start the others are fewer. */
const KNOWN = { lives: 97, gammas: 11, zeros: 7, befores: 1 }
const UNKNOWN = { lives: 61, gammas: 7, zeros: 3, befores: 27 }
type Sizes = typeof KNOWN
/** How far the logarithm of the evidence may lie below the best before a node weighs nothing. */
const FALLEN = 16
/** Weight below which a column is left out. */
const NOTHING = 1e-7
/** Weight of a node below which its doubt does not count. */
const SLIGHT = 1e-5
/** How many standard deviations of a prior are looked at. */
const REACH = 4
const GAMMA_RANGE = [0.8, 2.5] as const

/**
 * Fits the wear law to a chain's readings, integrated on a deterministic grid over ln T, γ and ε₀ (and, with an
 * unknown start, what the chain had run before): the same query always gives the same answer.
 *
 * @throws RangeError for u not above 0, for s below 0 or not finite, and for marks in the wrong order
 */
export function fitWear(query: WearQuery): WearPosterior {
  check(query.observations)
  const defaults = query.defaults ?? DEFAULTS.forecast
  const prior = query.prior ?? shippedPrior(query.care, defaults)
  const start = query.start ?? 'fitted'
  const sizes = start === 'fitted' ? KNOWN : UNKNOWN
  const columns = columnsOf(
    beforeNodes(start, prior, sizes, defaults.unknownLives),
    gammaNodes(prior, sizes),
    zeroNodes(query.baseline?.value ?? defaults.epsilon0, query.baseline?.u ?? defaults.epsilon0U, sizes),
  )
  const { lives } = sizes
  const reach = REACH * prior.lifeSd
  const axis = { lives, firstLogLife: Math.log(prior.life) - reach, logLifeStep: (2 * reach) / (lives - 1) }
  const logs = new Float64Array(columns.count * lives)
  const priorWeight = layPrior(logs, columns, axis)
  for (const observation of query.observations) addLog(logs, columns, axis, observation)
  const top = highest(logs)
  const weights = addUp(logs, columns.count, lives, top)
  const grid = gather(logs, weights, columns, axis)
  return {
    ...grid,
    doubt: doubtOf(grid, query.observations.at(-1)),
    logEvidence: Math.log(weights.reduce((sum, one) => sum + one, 0) / priorWeight) + top,
  }
}

interface LifeAxis {
  readonly lives: number
  readonly firstLogLife: number
  readonly logLifeStep: number
}

interface Columns {
  readonly count: number
  readonly before: Float64Array
  readonly gamma: Float64Array
  readonly epsilon0: Float64Array
  /** Logarithm of the prior weight. */
  readonly log: Float64Array
}

/** Every combination of nodes, what was run before changing slowest. */
function columnsOf(befores: readonly Node[], gammas: readonly Node[], zeros: readonly Node[]): Columns {
  const count = befores.length * gammas.length * zeros.length
  const columns = {
    count,
    before: new Float64Array(count),
    gamma: new Float64Array(count),
    epsilon0: new Float64Array(count),
    log: new Float64Array(count),
  }
  let c = 0
  for (const before of befores)
    for (const gamma of gammas)
      for (const zero of zeros) {
        columns.before[c] = before.value
        columns.gamma[c] = gamma.value
        columns.epsilon0[c] = zero.value
        columns.log[c] = before.log + gamma.log + zero.log
        c++
      }
  return columns
}

/** Fills the grid with the logarithm of the prior. @returns the prior's total weight */
function layPrior(logs: Float64Array, columns: Columns, { lives }: LifeAxis): number {
  const alongLife = Float64Array.from({ length: lives }, (_, i) => -0.5 * (REACH * ((2 * i) / (lives - 1) - 1)) ** 2)
  let at = 0
  let columnSum = 0
  for (let c = 0; c < columns.count; c++) {
    columnSum += Math.exp(columns.log[c]!)
    for (let i = 0; i < lives; i++) logs[at++] = columns.log[c]! + alongLife[i]!
  }
  return columnSum * alongLife.reduce((sum, log) => sum + Math.exp(log), 0)
}

/**
 * Adds the logarithm of an observation's likelihood at every node. The hot loop: along ln T the power (s/T)^γ is a
 * geometric sequence, so it multiplies instead of raising to powers, reads from a table, and allocates nothing.
 */
function addLog(
  logs: Float64Array,
  columns: Columns,
  { lives, firstLogLife, logLifeStep }: LifeAxis,
  observation: WearObservation,
): void {
  const table = likelihoodTable(observation)
  const { count, before, gamma, epsilon0 } = columns
  const { s } = observation
  let at = 0
  for (let c = 0; c < count; c++) {
    const shrink = Math.exp(-gamma[c]! * logLifeStep)
    const zero = (epsilon0[c]! - TABLE_FROM) / TABLE_STEP
    let grown = (0.5 / TABLE_STEP) * Math.exp(gamma[c]! * (Math.log(s + before[c]!) - firstLogLife))
    for (let i = 0; i < lives; i++) {
      let place = zero + grown
      if (place > TABLE_LAST) place = TABLE_LAST
      const whole = place | 0
      const low = table[whole]!
      logs[at] = logs[at]! + low + (table[whole + 1]! - low) * (place - whole)
      at++
      grown *= shrink
    }
  }
}

function highest(logs: Float64Array): number {
  let top = -Infinity
  for (const log of logs) if (log > top) top = log
  return top
}

/** Turns logarithms into weights added up along each column. @returns each column's weight */
function addUp(logs: Float64Array, count: number, lives: number, top: number): Float64Array {
  const weights = new Float64Array(count)
  let at = 0
  for (let c = 0; c < count; c++) {
    let run = 0
    for (let i = 0; i < lives; i++) {
      const fallen = logs[at]! - top
      if (fallen > -FALLEN) run += Math.exp(fallen)
      logs[at++] = run
    }
    weights[c] = run
  }
  return weights
}

type WearGrid = Omit<WearPosterior, 'doubt' | 'logEvidence'>

/** Keeps the columns that weigh something, all together 1. */
function gather(logs: Float64Array, weights: Float64Array, columns: Columns, axis: LifeAxis): WearGrid {
  const { lives } = axis
  const least = NOTHING * weights.reduce((sum, one) => sum + one, 0)
  const kept: number[] = []
  let total = 0
  for (let c = 0; c < columns.count; c++)
    if (weights[c]! > least) {
      kept.push(c)
      total += weights[c]!
    }
  const below = new Float64Array(kept.length * lives)
  let at = 0
  for (const c of kept) for (let i = 0; i < lives; i++) below[at++] = logs[c * lives + i]! / total
  const pick = (from: Float64Array): Float64Array => Float64Array.from(kept, (c) => from[c]!)
  return {
    ...axis,
    before: pick(columns.before),
    gamma: pick(columns.gamma),
    epsilon0: pick(columns.epsilon0),
    columns: kept.length,
    below,
  }
}

/** Weight of the stray part of an observation over all nodes. */
function doubtOf(grid: Omit<WearPosterior, 'doubt' | 'logEvidence'>, newest: WearObservation | undefined): number {
  if (!newest) return 0
  const { lives, below } = grid
  let doubt = 0
  for (let c = 0; c < grid.columns; c++) {
    const shrink = Math.exp(-grid.gamma[c]! * grid.logLifeStep)
    let grown = 0.5 * Math.exp(grid.gamma[c]! * (Math.log(newest.s + grid.before[c]!) - grid.firstLogLife))
    let last = 0
    for (let j = c * lives; j < (c + 1) * lives; j++) {
      const weight = below[j]! - last
      last = below[j]!
      if (weight > SLIGHT) {
        const epsilon = grid.epsilon0[c]! + grown
        const likelihood = likelihoodAt(newest, epsilon)
        // So far off that not even a stray would lie there: no doubt but a whole one.
        doubt += weight * (likelihood > 0 ? strayAt(newest, epsilon) / likelihood : 1)
      }
      grown *= shrink
    }
  }
  return Math.min(1, doubt)
}

function check(observations: readonly WearObservation[]): void {
  for (const observation of observations) {
    if (!(observation.u > 0)) throw new RangeError('u must be above 0')
    if (!(observation.s >= 0) || !Number.isFinite(observation.s)) throw new RangeError('s must be 0 or more')
    if ('value' in observation) continue
    const { over, under } = observation
    if (over !== undefined && under !== undefined && over >= under)
      throw new RangeError('a mark that went in must lie below one that stayed out')
  }
}

/** A value on an axis of the grid, and the logarithm of its prior weight. */
interface Node {
  readonly value: number
  readonly log: number
}

/** Evenly over where a normal stands: steps of a standard deviation integrate a bell all but exactly. */
function zeroNodes(centre: number, sd: number, { zeros }: Sizes): Node[] {
  const reach = zeros === 3 ? Math.sqrt(3) : 3
  return Array.from({ length: zeros }, (_, i) => {
    const z = -reach + (2 * reach * i) / (zeros - 1)
    return { value: centre + z * sd, log: zeros === 3 ? Math.log(i === 1 ? 2 / 3 : 1 / 6) : -0.5 * z * z }
  })
}

const HALF = Math.log(0.5)

/** Evenly over where the normal prior of γ stands, cut to what wear can do; the ends stand for half as much. */
function gammaNodes({ gamma, gammaSd }: WearPrior, { gammas }: Sizes): Node[] {
  const from = Math.max(GAMMA_RANGE[0], gamma - REACH * gammaSd)
  const to = Math.min(GAMMA_RANGE[1], gamma + REACH * gammaSd)
  return Array.from({ length: gammas }, (_, i) => {
    const value = from + ((to - from) * i) / (gammas - 1)
    const z = (value - gamma) / gammaSd
    return { value, log: -0.5 * z * z + (i === 0 || i === gammas - 1 ? HALF : 0) }
  })
}

/** What the chain may have run before: nothing, around what was stated, or anything up to some prior lives. */
function beforeNodes(start: WearStart, prior: WearPrior, { befores }: Sizes, unknownLives: number): Node[] {
  if (start === 'fitted') return [{ value: 0, log: 0 }]
  if (start === 'unknown') {
    const most = unknownLives * prior.life
    return Array.from({ length: befores }, (_, i) => ({
      value: (most * i) / (befores - 1),
      log: i === 0 || i === befores - 1 ? HALF : 0,
    }))
  }
  if (!(start.u > 0)) return [{ value: Math.max(0, start.value), log: 0 }]
  const nodes = Array.from({ length: befores }, (_, i) => {
    const z = -3 + (6 * i) / (befores - 1)
    return { value: start.value + z * start.u, log: -0.5 * z * z }
  }).filter(({ value }) => value >= 0)
  return nodes.length > 0 ? nodes : [{ value: 0, log: 0 }]
}
