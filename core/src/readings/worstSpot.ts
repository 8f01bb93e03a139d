import { GAUSS_HERMITE_5, GAUSS_HERMITE_7, normalCumulative, normalDensity } from '../numerics/normal.ts'

interface Shared {
  /** A named place round the chain. Observations of one place tell of one elongation. */
  readonly place?: string | number
  /** Which instrument saw it: those of one instrument share its bias. */
  readonly instrument?: string
  /** Standard uncertainty of that instrument's bias, %; 0 unless given. */
  readonly biasU?: number
}

/** A spot's elongation and its standard uncertainty, both %. */
export interface PointSpot extends Shared {
  readonly value: number
  readonly u: number
  /** True for a whole chain's length: it tells of the chain's mean, not of any one spot. */
  readonly wholeChain?: boolean
}

/** A gauge's marks: the spot is over those that went in and under those that stayed out; u of a mark, %. */
export interface IntervalSpot extends Shared {
  readonly over?: number
  readonly under?: number
  readonly u: number
}

export type SpotObservation = PointSpot | IntervalSpot

export const isPoint = (spot: SpotObservation): spot is PointSpot => 'value' in spot

export interface WorstSpot {
  /** The chance that the worst measured spot is over the limit, 0…1. */
  readonly probabilityOver: number
  /** The elongation the worst measured spot is as likely over as under, %. */
  readonly median: number
  /** Half the width between the 16th and 84th percentile, %: the uncertainty a forecast takes. */
  readonly halfWidth: number
}

/** How unevenly chains wear: standard deviations of their spots, %, and how common each is. */
const UNEVENNESS: readonly (readonly [tau: number, weight: number])[] = [
  [0.02, 0.3],
  [0.04, 0.4],
  [0.08, 0.2],
  [0.16, 0.1],
]
const MEAN_LOWEST = -0.1
const MEAN_HIGHEST = 1.5
/** Step of μ, %: half the smallest τ, at which the trapezoid rule is exact on a normal to ten digits. */
const MEAN_STEP = 0.01
const MEANS = Math.round((MEAN_HIGHEST - MEAN_LOWEST) / MEAN_STEP) + 1
/** Step of a place's own elongation where marks leave no closed form, %. */
const STEP = 0.005
/** Terms below this share of the heaviest change no figure anyone reads. */
const NEGLIGIBLE = 1e-5
/**
 * Elongations are on a lattice of 0.002 %, far finer than any instrument shows, and the point at the limit is
 * not over it. On the continuous scale used below that is half a step beyond the limit. The reference results
 * are made so, and a chain exactly at its limit is then never called over.
 */
const HALF_LATTICE = 0.001
/** Instruments whose bias is integrated over; any further ones have theirs added to each spot. */
const MOST_SHARED_BIASES = 2

/**
 * The worst of several noisy spots, without the exaggeration of taking the largest number.
 *
 * The largest of several noisy readings is biased high: eight spots of a good chain would condemn it. So the
 * spots of a chain are taken as N(μ, τ), μ flat on −0.1…1.5 %, τ one of 0.02, 0.04, 0.08, 0.16 %; a reading as
 * N(x; y − bias, u); a gauge's marks as Φ((x−a)/u)·Φ((b−x)/u), an absent one dropped; an instrument's bias is
 * integrated over once for all its spots. All on a fixed grid, so the same spots always give the same answer.
 *
 * @param query `spots` in any order, at least one; `limit` in %
 * @throws RangeError without spots, with u not above 0, or with marks in the wrong order
 */
export function worstSpot({ spots, limit }: { spots: readonly SpotObservation[]; limit: number }): WorstSpot {
  const posterior = worstSpotPosterior(spots)
  return {
    probabilityOver: posterior.probabilityOver(limit),
    median: posterior.median,
    halfWidth: posterior.halfWidth,
  }
}

/** All that is known of the worst spot, to be asked at any limit: several rules judge the same readings. */
export interface WorstSpotPosterior extends Omit<WorstSpot, 'probabilityOver'> {
  /** The chance that the worst measured spot is over a limit, 0…1. */
  probabilityOver(limit: number): number
}

/** What {@link worstSpot} says, before a limit is named. @throws RangeError as {@link worstSpot} */
export function worstSpotPosterior(spots: readonly SpotObservation[]): WorstSpotPosterior {
  check(spots)
  const terms = posteriorTerms(spots)
  const under = (ceiling: number): number => {
    let total = 0
    for (const term of terms) {
      let chance = term.weight
      for (const { cumulative, count } of term.places) {
        const below = cumulative(ceiling)
        for (let i = 0; i < count; i++) chance *= below
        if (chance === 0) break
      }
      total += chance
    }
    return total
  }
  const [from, to] = reachOf(spots)
  const median = quantile(under, 0.5, from, to)
  const low = quantile(under, 0.16, from, median)
  const high = quantile(under, 0.84, median, to)
  return {
    probabilityOver: (limit) => Math.min(1, Math.max(0, 1 - under(limit + HALF_LATTICE))),
    median: median - HALF_LATTICE,
    halfWidth: (high - low) / 2,
  }
}

function check(spots: readonly SpotObservation[]): void {
  if (spots.length === 0) throw new RangeError('at least one spot is needed')
  for (const spot of spots) {
    if (!(spot.u > 0)) throw new RangeError('u must be above 0')
    if (!isPoint(spot) && spot.over !== undefined && spot.under !== undefined && spot.over >= spot.under)
      throw new RangeError('a mark that went in must lie below one that stayed out')
  }
}

type Cumulative = (ceiling: number) => number

/** One (bias, τ, μ) with its share of the posterior and each place's distribution under it. */
interface Term {
  readonly weight: number
  /** Places seen alike are one entry with their count. */
  readonly places: readonly { readonly cumulative: Cumulative; readonly count: number }[]
}

/** What is known of one place under given τ and μ. */
interface PlaceModel {
  /** Logarithm of the chance of what was seen there. */
  logEvidence(tau: number, mu: number): number
  cumulative(tau: number, mu: number): Cumulative
}

/** Places that were seen alike, and how many there are of them. */
interface PlaceGroup {
  readonly model: PlaceModel
  readonly count: number
}

function posteriorTerms(spots: readonly SpotObservation[]): Term[] {
  /** Models made so far: one instrument's bias leaves the places of another as they are. */
  const models = new Map<string, PlaceModel>()
  const found: { logWeight: number; groups: readonly PlaceGroup[]; tau: number; mu: number }[] = []
  let heaviest = -Infinity
  for (const { shifts, weight: biasWeight } of biasCombinations(spots)) {
    const shifted = spots.map((spot) => shiftedBy(spot, shifts))
    const wholeChain = shifted.filter((spot): spot is PointSpot => isPoint(spot) && spot.wholeChain === true)
    const groups = groupsOf(placesOf(shifted), models)
    const finestU = Math.min(...shifted.map(({ u }) => u))
    for (const [tau, tauWeight] of UNEVENNESS) {
      const logEvidence = (mu: number): number => {
        let sum = 0
        for (const { value, u } of wholeChain) sum += -0.5 * ((value - mu) / u) ** 2
        for (const { model, count } of groups) sum += count * model.logEvidence(tau, mu)
        return sum
      }
      for (const { mu, log, step } of meansOf(logEvidence, tau, finestU, shifted.length, wholeChain.length > 0)) {
        const logWeight = Math.log(biasWeight * tauWeight * step) + log
        if (logWeight > heaviest) heaviest = logWeight
        found.push({ logWeight, groups, tau, mu })
      }
    }
  }
  let sum = 0
  const kept: Term[] = []
  for (const { logWeight, groups, tau, mu } of found) {
    const weight = Math.exp(logWeight - heaviest)
    if (!(weight > NEGLIGIBLE)) continue
    sum += weight
    kept.push({
      weight,
      places: groups.map(({ model, count }) => ({ cumulative: model.cumulative(tau, mu), count })),
    })
  }
  return kept.map(({ weight, places }) => ({ weight: weight / sum, places }))
}

/** How far the evidence for a mean must have fallen at both ends of the range for the ends not to matter. */
const FALLEN = 12
/** Long strides over the means, in steps. */
const STRIDE = 8

/**
 * The means μ to sum over, with the evidence for each. A sum at steps of the evidence's own width is exact to many
 * digits; only where the evidence reaches an end of the flat range are fine steps needed.
 */
function meansOf(
  logEvidence: (mu: number) => number,
  tau: number,
  finestU: number,
  spots: number,
  wholeChain: boolean,
): { mu: number; log: number; step: number }[] {
  const at = (every: number, from: number, to: number): { mu: number; log: number; step: number }[] =>
    Array.from({ length: Math.floor((to - from) / every) + 1 }, (_, i) => {
      const mu = MEAN_LOWEST + (from + i * every) * MEAN_STEP
      return { mu, log: logEvidence(mu), step: every * MEAN_STEP }
    })
  // The evidence has one hill: found by long strides, only it is walked in short ones.
  const strides = at(STRIDE, 0, MEANS - 1)
  const best = Math.max(...strides.map(({ log }) => log))
  const onHill = strides.flatMap(({ log }, i) => (log > best - 2 * FALLEN ? [i] : []))
  const from = Math.max(0, (onHill[0]! - 1) * STRIDE)
  const to = Math.min(MEANS - 1, (onHill.at(-1)! + 1) * STRIDE)
  const width = wholeChain ? 0 : Math.hypot(tau, finestU) / Math.sqrt(spots)
  const every = Math.max(1, Math.floor((0.7 * width) / MEAN_STEP))
  const walked = at(every, from, to)
  if (every === 1) return walked
  const top = Math.max(...walked.map(({ log }) => log))
  const reachesEnd =
    (from === 0 && walked[0]!.log > top - FALLEN) || (to === MEANS - 1 && walked.at(-1)!.log > top - FALLEN)
  return reachesEnd ? at(1, from, to) : walked
}

/** Models of places, those seen alike taken together. */
function groupsOf(places: readonly (readonly SpotObservation[])[], models: Map<string, PlaceModel>): PlaceGroup[] {
  const counts = new Map<string, number>()
  for (const observations of places) {
    const key = observations
      .map((one) => (isPoint(one) ? `=${one.value}` : `${one.over ?? ''}<${one.under ?? ''}`) + `±${one.u}`)
      .join('&')
    counts.set(key, (counts.get(key) ?? 0) + 1)
    if (!models.has(key)) models.set(key, placeModel(observations))
  }
  return [...counts].map(([key, count]) => ({ model: models.get(key)!, count }))
}

/** Every combination of shared biases at the nodes of the quadrature, with its weight. */
function biasCombinations(
  spots: readonly SpotObservation[],
): { shifts: ReadonlyMap<string, number>; weight: number }[] {
  const biasUs = new Map<string, number>()
  for (const { instrument, biasU } of spots)
    if (instrument !== undefined && biasU !== undefined && biasU > 0) biasUs.set(instrument, biasU)
  const widest = [...biasUs].sort(([a, ua], [b, ub]) => ub - ua || (a < b ? -1 : 1)).slice(0, MOST_SHARED_BIASES)
  const nodes = widest.length > 1 ? GAUSS_HERMITE_5 : GAUSS_HERMITE_7
  let combinations: { shifts: Map<string, number>; weight: number }[] = [{ shifts: new Map(), weight: 1 }]
  for (const [instrument, biasU] of widest)
    combinations = combinations.flatMap(({ shifts, weight }) =>
      nodes.map(([node, share]) => ({
        shifts: new Map(shifts).set(instrument, node * biasU),
        weight: weight * share,
      })),
    )
  // Both biases far out at once is so rare that no figure anyone reads would change.
  return combinations.filter(({ weight }) => weight > 1e-4)
}

function shiftedBy(spot: SpotObservation, shifts: ReadonlyMap<string, number>): SpotObservation {
  const shift = spot.instrument === undefined ? undefined : shifts.get(spot.instrument)
  if (shift === undefined) {
    const biasU = spot.biasU ?? 0
    return biasU === 0 ? spot : { ...spot, u: Math.hypot(spot.u, biasU) }
  }
  if (isPoint(spot)) return { ...spot, value: spot.value - shift }
  return {
    ...spot,
    ...(spot.over === undefined ? {} : { over: spot.over - shift }),
    ...(spot.under === undefined ? {} : { under: spot.under - shift }),
  }
}

/** Observations by place; unnamed ones are a place each. A whole chain alone is judged as one spot somewhere on it. */
function placesOf(spots: readonly SpotObservation[]): SpotObservation[][] {
  const places = new Map<string | number | symbol, SpotObservation[]>()
  for (const spot of spots) {
    if (isPoint(spot) && spot.wholeChain === true) continue
    const key = spot.place ?? Symbol()
    const known = places.get(key)
    if (known) known.push(spot)
    else places.set(key, [spot])
  }
  return places.size === 0 ? [[]] : [...places.values()]
}

function placeModel(observations: readonly SpotObservation[]): PlaceModel {
  const points = observations.filter(isPoint)
  const intervals = observations.filter((spot): spot is IntervalSpot => !isPoint(spot))
  return intervals.length === 0 ? pointModel(points) : remembering(gridModel(points, intervals))
}

/** A model that works each of its answers out once: the same place is asked under every bias of other instruments. */
function remembering(model: PlaceModel): PlaceModel {
  const evidence = new Map<string, number>()
  const cumulatives = new Map<string, Cumulative>()
  const once = <Answer>(known: Map<string, Answer>, tau: number, mu: number, work: () => Answer): Answer => {
    const key = `${tau} ${mu.toFixed(4)}`
    const answer = known.get(key) ?? work()
    known.set(key, answer)
    return answer
  }
  return {
    logEvidence: (tau, mu) => once(evidence, tau, mu, () => model.logEvidence(tau, mu)),
    cumulative: (tau, mu) => once(cumulatives, tau, mu, () => model.cumulative(tau, mu)),
  }
}

/** Points only: normal times normal, in closed form. */
function pointModel(points: readonly PointSpot[]): PlaceModel {
  let precision = 0
  let pull = 0
  for (const { value, u } of points) {
    precision += 1 / (u * u)
    pull += value / (u * u)
  }
  const mean = precision === 0 ? 0 : pull / precision
  const variance = precision === 0 ? Infinity : 1 / precision
  return {
    // The part that depends on neither τ nor μ is left out: it is common to every term.
    logEvidence: (tau, mu) =>
      precision === 0 ? 0 : -0.5 * Math.log(tau * tau + variance) - 0.5 * ((mean - mu) ** 2 / (tau * tau + variance)),
    cumulative: (tau, mu) => {
      const posteriorPrecision = precision + 1 / (tau * tau)
      const centre = (pull + mu / (tau * tau)) / posteriorPrecision
      const root = Math.sqrt(posteriorPrecision)
      return (ceiling) => normalCumulative((ceiling - centre) * root)
    },
  }
}

/** How many τ to each side of μ the grid of a place's elongation reaches. */
const REACH = 6

/**
 * Marks have no closed form: the place's elongation on a grid. It is laid half a lattice step beside the multiples
 * of its own step, which is where P is asked for any limit told to 0.005 %.
 */
function gridModel(points: readonly PointSpot[], intervals: readonly IntervalSpot[]): PlaceModel {
  const furthest = REACH * 0.16
  const origin = HALF_LATTICE - Math.ceil((furthest - MEAN_LOWEST) / STEP) * STEP
  const size = Math.ceil((MEAN_HIGHEST + furthest - origin) / STEP) + 1
  const likelihood = new Float64Array(Math.max(1, size))
  for (let i = 0; i < likelihood.length; i++) {
    const x = origin + i * STEP
    let product = 1
    for (const { over, under, u } of intervals) {
      if (over !== undefined) product *= normalCumulative((x - over) / u)
      if (under !== undefined) product *= normalCumulative((under - x) / u)
    }
    for (const { value, u } of points) product *= normalDensity((value - x) / u) / u
    likelihood[i] = product
  }
  // μ moves by whole steps of the grid, so one table of the bell curve serves every μ of a τ.
  const bells = new Map<number, { fromMu: number; heights: Float64Array }>()
  const bell = (tau: number): { fromMu: number; heights: Float64Array } => {
    const known = bells.get(tau)
    if (known) return known
    const half = Math.ceil((REACH * tau) / STEP)
    const offset = (origin - MEAN_LOWEST) / STEP
    const part = offset - Math.floor(offset)
    const heights = new Float64Array(2 * half + 1)
    for (let i = 0; i < heights.length; i++) heights[i] = normalDensity(((i - half + part) * STEP) / tau) / tau
    const made = { fromMu: -Math.floor(offset) - half, heights }
    bells.set(tau, made)
    return made
  }
  const windowOf = (tau: number, mu: number): { first: number; heights: Float64Array } => {
    const { fromMu, heights } = bell(tau)
    return { first: Math.round((mu - MEAN_LOWEST) / STEP) + fromMu, heights }
  }
  const at = (i: number): number => likelihood[i] ?? 0
  return {
    logEvidence: (tau, mu) => {
      const { first, heights } = windowOf(tau, mu)
      let sum = 0
      for (let i = 0; i < heights.length; i++) sum += heights[i]! * at(first + i)
      return Math.log(sum * STEP)
    },
    cumulative: (tau, mu) => {
      const { first, heights } = windowOf(tau, mu)
      const cumulated = new Float64Array(heights.length)
      let before = 0
      for (let i = 0; i < heights.length; i++) {
        const height = heights[i]! * at(first + i)
        cumulated[i] = (i === 0 ? 0 : cumulated[i - 1]!) + (before + height) / 2
        before = height
      }
      const whole = cumulated.at(-1)!
      return (ceiling) => {
        const position = (ceiling - origin) / STEP - first
        if (position <= 0) return 0
        if (position >= cumulated.length - 1) return 1
        const i = Math.floor(position)
        const part = position - i
        return (cumulated[i]! * (1 - part) + cumulated[i + 1]! * part) / whole
      }
    },
  }
}

/** Between which elongations the worst spot can lie: whatever was seen, and far beyond it, %. */
function reachOf(spots: readonly SpotObservation[]): [from: number, to: number] {
  const edges = spots.flatMap((spot) => (isPoint(spot) ? [spot.value] : [spot.over, spot.under]))
  const seen = edges.filter((edge) => edge !== undefined)
  const lowest = Math.min(...seen, ...(edges.includes(undefined) ? [MEAN_LOWEST] : []))
  const highest = Math.max(...seen, ...(edges.includes(undefined) ? [MEAN_HIGHEST] : []))
  return [lowest - 1, highest + 1]
}

/** The elongation a share of the distribution lies under, by false position with halving, to 1e-5 %. */
function quantile(under: Cumulative, share: number, from: number, to: number): number {
  let low = from
  let high = to
  let lowMiss = -share
  let highMiss = 1 - share
  // The misses at the ends need not be exact: they only lead the first guess.
  for (let i = 0; high - low > 1e-5 && i < 60; i++) {
    // Every third step halves, so that a flat stretch cannot hold the search up.
    const guess = i % 3 === 2 ? (low + high) / 2 : low - (lowMiss * (high - low)) / (highMiss - lowMiss)
    const miss = under(guess) - share
    if (Math.abs(miss) < 1e-7) return guess
    if (miss < 0) [low, lowMiss] = [guess, miss]
    else [high, highMiss] = [guess, miss]
  }
  return (low + high) / 2
}
