import { DEFAULTS } from '../defaults.ts'
import { normalCumulative } from '../numerics/normal.ts'

/** How a chain is kept, as far as its life depends on it. */
export type CareKind = 'immersion-wax' | 'drip-wax' | 'dry-oil' | 'wet-oil' | 'unknown'

/** What is believed of a chain before it is read: life to 0.5 % and how wear speeds up. */
export interface WearPrior {
  /** Median of T, thousand weighted km, and standard deviation of its logarithm. */
  readonly life: number
  readonly lifeSd: number
  readonly gamma: number
  readonly gammaSd: number
}

/** A reading at a distance: the worst spot's median and half width, or marks. s in thousand weighted km, the rest %. */
export type WearObservation =
  | { readonly s: number; readonly value: number; readonly u: number }
  | { readonly s: number; readonly over?: number; readonly under?: number; readonly u: number }

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
}

/** All that is known of a chain's wear: parameters with their weights, which sum to 1. Opaque to callers. */
export interface WearPosterior {
  readonly life: Float64Array
  readonly gamma: Float64Array
  readonly epsilon0: Float64Array
  /** Run before it was known here, thousand weighted km. */
  readonly before: Float64Array
  readonly weight: Float64Array
  readonly size: number
  /** Weight of the stray part of the mixture for the newest observation, 0…1. */
  readonly doubt: number
}

/** Spread every reading has beside its own u: the law is not exact, %. */
const LAW_U = 0.02
/** Share of readings that are strays, and how much wider those scatter. */
const STRAY = 0.03
const STRAY_WIDER = 5
/** An interval's floor: a stray mark says nothing. */
const STRAY_MARK = 0.015
const GAMMA_RANGE = [0.8, 2.5] as const
const ROOT_2PI = Math.sqrt(2 * Math.PI)

/** The prior shipped for a care. */
export function shippedPrior(care: CareKind): WearPrior {
  const { life, gamma, gammaSd } = DEFAULTS.forecast.priors[care]
  return { life, gamma, gammaSd, lifeSd: DEFAULTS.forecast.lifeSd }
}

/** The likelihood of one observation at an elongation, and the part of it that is stray. */
interface Likelihood {
  at(epsilon: number): number
  stray(epsilon: number): number
}

function likelihoodOf(observation: WearObservation): Likelihood {
  if ('value' in observation) {
    const { value, u } = observation
    const near = Math.hypot(u, LAW_U)
    const far = Math.hypot(STRAY_WIDER * u, LAW_U)
    const bell = (epsilon: number, sd: number): number => {
      const z = (value - epsilon) / sd
      return Math.exp(-0.5 * z * z) / (sd * ROOT_2PI)
    }
    const stray = (epsilon: number): number => STRAY * bell(epsilon, far)
    return { stray, at: (epsilon) => (1 - STRAY) * bell(epsilon, near) + stray(epsilon) }
  }
  const { over, under, u } = observation
  const sd = Math.hypot(u, LAW_U)
  return {
    stray: () => STRAY_MARK,
    at: (epsilon) => {
      const above = over === undefined ? 1 : normalCumulative((epsilon - over) / sd)
      const below = under === undefined ? 0 : normalCumulative((epsilon - under) / sd)
      return (1 - STRAY) * Math.max(0, above - below) + STRAY_MARK
    },
  }
}

/** Numbers of nodes of ln T, γ, ε₀ and of what the chain had run before; with an unknown start the others are fewer. */
const KNOWN = { lives: 121, gammas: 15, zeros: 9, befores: 1 }
const UNKNOWN = { lives: 73, gammas: 9, zeros: 5, befores: 37 }
type Sizes = typeof KNOWN
/** How far the logarithm of the evidence may lie below the best before a node weighs nothing. */
const FALLEN = 16
/** How many standard deviations of a prior are looked at. */
const REACH = 4

/**
 * Fits the wear law to a chain's readings, integrated on a deterministic grid over ln T, γ and ε₀ (and, with an
 * unknown start, what the chain had run before): the same query always gives the same answer.
 *
 * Along ln T the power (s/T)^γ is a geometric sequence, so the inner loop multiplies instead of raising to powers, and
 * it allocates nothing.
 *
 * @throws RangeError for u not above 0, for s below 0 or not finite, and for marks in the wrong order
 */
export function fitWear(query: WearQuery): WearPosterior {
  check(query.observations)
  const { observations } = query
  const prior = query.prior ?? shippedPrior(query.care)
  const { epsilon0, epsilon0U } = DEFAULTS.forecast
  const start = query.start ?? 'fitted'
  const sizes = start === 'fitted' ? KNOWN : UNKNOWN
  const gammas = gammaNodes(prior, sizes)
  const zeros = normalNodes(query.baseline?.value ?? epsilon0, query.baseline?.u ?? epsilon0U, sizes)
  const befores = beforeNodes(start, prior, sizes)
  const likelihoods = observations.map(likelihoodOf)
  const grid = new Grid(sizes.lives * gammas.length * zeros.length * befores.length)
  const lowest = Math.log(prior.life) - REACH * prior.lifeSd
  const step = (2 * REACH * prior.lifeSd) / (sizes.lives - 1)
  const lives = Float64Array.from({ length: sizes.lives }, (_, i) => Math.exp(lowest + i * step))
  const livesLog = Float64Array.from(
    { length: sizes.lives },
    (_, i) => -0.5 * ((lowest + i * step - Math.log(prior.life)) / prior.lifeSd) ** 2,
  )
  const grown = new Float64Array(observations.length)
  for (const gamma of gammas) {
    const shrink = Math.exp(-gamma.value * step)
    for (const before of befores)
      for (const zero of zeros) {
        const common = Math.log(gamma.weight * before.weight * zero.weight)
        for (let k = 0; k < observations.length; k++)
          grown[k] = 0.5 * Math.pow((observations[k]!.s + before.value) / lives[0]!, gamma.value)
        for (let i = 0; i < sizes.lives; i++) {
          let product = 1
          for (let k = 0; k < observations.length; k++) {
            product *= likelihoods[k]!.at(zero.value + grown[k]!)
            grown[k] = grown[k]! * shrink
          }
          grid.add(lives[i]!, gamma.value, zero.value, before.value, common + livesLog[i]! + Math.log(product))
        }
      }
  }
  return grid.posterior(observations.at(-1), likelihoods.at(-1))
}

/** Evenly over where a normal stands. */
function normalNodes(centre: number, sd: number, { zeros }: Sizes): Node[] {
  return Array.from({ length: zeros }, (_, i) => {
    const z = -3 + (6 * i) / (zeros - 1)
    return { value: centre + z * sd, weight: Math.exp(-0.5 * z * z) }
  })
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

interface Node {
  readonly value: number
  readonly weight: number
}

/** Evenly over where the normal prior of γ stands, cut to what wear can do. */
function gammaNodes({ gamma, gammaSd }: WearPrior, { gammas }: Sizes): Node[] {
  const from = Math.max(GAMMA_RANGE[0], gamma - REACH * gammaSd)
  const to = Math.min(GAMMA_RANGE[1], gamma + REACH * gammaSd)
  return Array.from({ length: gammas }, (_, i) => {
    const value = from + ((to - from) * i) / (gammas - 1)
    const z = (value - gamma) / gammaSd
    return { value, weight: Math.exp(-0.5 * z * z) * (i === 0 || i === gammas - 1 ? 0.5 : 1) }
  })
}

/** What the chain may have run before: nothing, around what was stated, or anything up to one and a half lives. */
function beforeNodes(start: WearStart, prior: WearPrior, { befores }: Sizes): Node[] {
  if (start === 'fitted') return [{ value: 0, weight: 1 }]
  if (start === 'unknown') {
    const most = DEFAULTS.forecast.unknownLives * prior.life
    return Array.from({ length: befores }, (_, i) => ({
      value: (most * i) / (befores - 1),
      weight: i === 0 || i === befores - 1 ? 0.5 : 1,
    }))
  }
  if (!(start.u > 0)) return [{ value: Math.max(0, start.value), weight: 1 }]
  return Array.from({ length: befores }, (_, i) => {
    const z = -3 + (6 * i) / (befores - 1)
    return { value: start.value + z * start.u, weight: Math.exp(-0.5 * z * z) }
  }).filter(({ value }) => value >= 0)
}

/** Nodes gathered with the logarithm of their evidence, made into weights at the end. */
class Grid {
  private readonly life: Float64Array
  private readonly gamma: Float64Array
  private readonly epsilon0: Float64Array
  private readonly before: Float64Array
  private readonly log: Float64Array
  private size = 0
  private top = -Infinity

  constructor(capacity: number) {
    this.life = new Float64Array(capacity)
    this.gamma = new Float64Array(capacity)
    this.epsilon0 = new Float64Array(capacity)
    this.before = new Float64Array(capacity)
    this.log = new Float64Array(capacity)
  }

  add(life: number, gamma: number, epsilon0: number, before: number, log: number): void {
    // What is this far below the best so far will weigh nothing.
    if (log < this.top - FALLEN) return
    if (log > this.top) this.top = log
    const i = this.size++
    this.life[i] = life
    this.gamma[i] = gamma
    this.epsilon0[i] = epsilon0
    this.before[i] = before
    this.log[i] = log
  }

  posterior(newest: WearObservation | undefined, likelihood: Likelihood | undefined): WearPosterior {
    const { size, life, gamma, epsilon0, before } = this
    const weight = new Float64Array(size)
    let sum = 0
    for (let i = 0; i < size; i++) {
      weight[i] = Math.exp(this.log[i]! - this.top)
      sum += weight[i]!
    }
    let doubt = 0
    for (let i = 0; i < size; i++) {
      weight[i] = weight[i]! / sum
      if (!newest || !likelihood) continue
      const epsilon = epsilon0[i]! + 0.5 * Math.pow((newest.s + before[i]!) / life[i]!, gamma[i]!)
      doubt += (weight[i]! * likelihood.stray(epsilon)) / likelihood.at(epsilon)
    }
    return { life, gamma, epsilon0, before, weight, size, doubt }
  }
}
