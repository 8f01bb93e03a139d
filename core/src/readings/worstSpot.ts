import { normalCumulative, normalDensity } from '../numerics/normal.ts'
import { offsetsOf, sharedBiases, shiftedBy, smoothed, type Cumulative, type SharedBiases } from './sharedBias.ts'
import { isPoint, type IntervalSpot, type PointSpot, type SpotObservation } from './spotObservation.ts'

export type { SpotObservation } from './spotObservation.ts'

export interface WorstSpot {
  /** The chance that the worst place round the chain is over the limit, 0…1. */
  readonly probabilityOver: number
  /** The elongation the worst place is as likely over as under, %. */
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
/** How fast it grows less likely that a chain is worn past every mark of a gauge, %: all of them in says no more than the highest. */
const BEYOND_MARKS = 0.2
/** Step of μ, %: half the smallest τ, at which the trapezoid rule is exact on a normal to ten digits. */
const MEAN_STEP = 0.01
const MEANS = Math.round((MEAN_HIGHEST - MEAN_LOWEST) / MEAN_STEP) + 1
/** Step of a place's own elongation where marks leave no closed form, %. */
const STEP = 0.005
/** Terms that together make less than this share change no figure anyone reads; none lighter than the heaviest by this logarithm does. */
const NEGLIGIBLE = 2e-5
const LIGHT = 14
/**
 * Elongations are on a lattice of 0.002 %, far finer than any instrument shows, and the point at the limit is
 * not over it. On the continuous scale used below that is half a step beyond the limit. The reference results
 * are made so, and a chain exactly at its limit is then never called over.
 */
const HALF_LATTICE = 0.001

/**
 * The worst of all places round a chain, without the exaggeration of taking the largest number.
 *
 * The largest of several noisy readings is biased high: eight spots of a good chain would condemn it. So the
 * places of a chain are taken as N(μ, τ), μ flat on −0.1…1.5 %, τ one of 0.02, 0.04, 0.08, 0.16 %; a reading as
 * N(x; y − bias, u); a gauge's marks as Φ((x−a)/u)·Φ((b−x)/u), an absent one dropped; an instrument's bias is
 * integrated over once for all its spots. Places nobody looked at are N(μ, τ) too. Where every spot is a gauge's
 * and one went in past every mark, μ falls as e^(−(μ−a)/0.2) above the highest mark a. All on fixed grids, so the
 * same spots always give the same answer.
 *
 * @param query `spots` in any order, at least one; `limit` in %; `places` round the chain, measured or not: left out,
 *   those measured
 * @throws RangeError without spots, with u not above 0, or with marks in the wrong order
 */
export function worstSpot({
  spots,
  limit,
  places,
}: {
  spots: readonly SpotObservation[]
  limit: number
  places?: number
}): WorstSpot {
  const posterior = worstSpotPosterior(spots, places)
  return {
    probabilityOver: posterior.probabilityOver(limit),
    median: posterior.median,
    halfWidth: posterior.halfWidth,
  }
}

/** All that is known of the worst place, to be asked at any limit: several rules judge the same readings. */
export interface WorstSpotPosterior extends Omit<WorstSpot, 'probabilityOver'> {
  /** The chance that the worst place is over a limit, 0…1. */
  probabilityOver(limit: number): number
}

/** What {@link worstSpot} says, before a limit is named. @throws RangeError as {@link worstSpot} */
export function worstSpotPosterior(spots: readonly SpotObservation[], places = 0): WorstSpotPosterior {
  check(spots)
  const biases = sharedBiases(spots)
  const terms = posteriorTerms(spots, biases, places)
  const [from, to] = reachOf(spots)
  const under = smoothed(underOf(terms), biases.commonU, from, to)
  const median = quantile(under, 0.5, from, to)
  const low = quantile(under, 0.16, from, median)
  const high = quantile(under, 0.84, median, to)
  return {
    probabilityOver: (limit) => Math.min(1, Math.max(0, 1 - under(limit + HALF_LATTICE))),
    median: median - HALF_LATTICE,
    halfWidth: (high - low) / 2,
  }
}

/**
 * The chance that every place is under a ceiling, over all terms; each on the scale its own bias has shifted. What is
 * normal, which is most, is laid out in plain rows of numbers: this is asked for dozens of ceilings over thousands of
 * terms while somebody types.
 */
function underOf(terms: readonly Term[]): Cumulative {
  const groups = terms[0]!.places.length
  const rows = terms.length * groups
  const [centres, roots, counts] = [new Float64Array(rows), new Float64Array(rows), new Float64Array(rows)]
  const others: (Cumulative | undefined)[] = []
  terms.forEach(({ places }, t) => {
    places.forEach(({ distribution, count }, g) => {
      const row = t * groups + g
      counts[row] = count
      if (typeof distribution === 'function') others[row] = distribution
      else {
        centres[row] = distribution.centre
        roots[row] = distribution.root
      }
    })
  })
  return (ceiling) => {
    let total = 0
    for (let t = 0; t < terms.length; t++) {
      const { weight, shift } = terms[t]!
      let chance = weight
      for (let row = t * groups; row < (t + 1) * groups && chance > 0; row++) {
        const other = others[row]
        const below = other ? other(ceiling + shift) : normalCumulative((ceiling + shift - centres[row]!) * roots[row]!)
        if (below === 1) continue
        for (let i = counts[row]!; i > 0; i--) chance *= below
      }
      total += chance
    }
    return total
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

/** One (biases, τ, μ) with its share of the posterior and each place's distribution under it. */
interface Term {
  readonly weight: number
  /** How far the scale its places are on lies above the true one, as expected of these biases, %. */
  readonly shift: number
  /** Places seen alike are one entry with their count. */
  readonly places: readonly { readonly distribution: Distribution; readonly count: number }[]
}

/** A place's elongation: normal with a centre and the root of its precision, or anything else. */
type Distribution = { readonly centre: number; readonly root: number } | Cumulative

/** What is known of one place under given τ and μ. */
interface PlaceModel {
  /** Logarithm of the chance of what was seen there. */
  logEvidence(tau: number, mu: number): number
  distribution(tau: number, mu: number): Distribution
}

/** Places that were seen alike, and how many there are of them. */
interface PlaceGroup {
  readonly model: PlaceModel
  readonly count: number
}

function posteriorTerms(spots: readonly SpotObservation[], biases: SharedBiases, places: number): Term[] {
  const seen = placesSeen(spots, biases, places)
  const wholeChain = spots.filter((spot): spot is PointSpot => isPoint(spot) && spot.wholeChain === true)
  const marksOnly = spots.every((spot) => !isPoint(spot))
  const found: Found[] = []
  let heaviest = -Infinity
  const finestU = Math.min(...spots.map(({ u }) => u))
  for (const [tau, tauWeight] of UNEVENNESS) {
    const evidenceOf = (offsets: readonly number[]): Evidence => {
      const groups = seen.map(({ modelAt, count }) => ({ model: modelAt(offsets), count }))
      const whole = wholeChain.map((spot) => shiftedBy(spot, biases, offsets) as PointSpot)
      const passed = marksOnly
        ? highestMarkPassed(spots.map((spot) => shiftedBy(spot, biases, offsets) as IntervalSpot))
        : Infinity
      return {
        groups,
        of: (mu) => {
          let sum = mu > passed ? (passed - mu) / BEYOND_MARKS : 0
          for (const { value, u } of whole) sum += -0.5 * ((value - mu) / u) ** 2
          for (const { model, count } of groups) sum += count * model.logEvidence(tau, mu)
          return sum
        },
      }
    }
    for (const { offsets, logPrior } of offsetsOf(biases, tau, (tried) => peakOf(evidenceOf(tried).of))) {
      const evidence = evidenceOf(offsets)
      const shift = biases.commonShift(offsets)
      for (const { mu, log, step } of meansOf(evidence.of, tau, finestU, spots)) {
        const logWeight = Math.log(tauWeight * step) + logPrior + log
        if (logWeight > heaviest) heaviest = logWeight
        if (logWeight > heaviest - LIGHT) found.push({ logWeight, groups: evidence.groups, tau, mu, shift })
      }
    }
  }
  return heaviestTerms(found, heaviest)
}

interface Found {
  readonly logWeight: number
  readonly groups: readonly PlaceGroup[]
  readonly tau: number
  readonly mu: number
  readonly shift: number
}

/** The terms all but a negligible share of the whole rests on. */
function heaviestTerms(found: readonly Found[], heaviest: number): Term[] {
  const sorted = found.filter(({ logWeight }) => logWeight > heaviest - LIGHT).sort((a, b) => b.logWeight - a.logWeight)
  const weights = sorted.map(({ logWeight }) => Math.exp(logWeight - heaviest))
  const whole = weights.reduce((sum, weight) => sum + weight, 0)
  let kept = 0
  for (let sum = 0; kept < sorted.length && sum < (1 - NEGLIGIBLE) * whole; kept++) sum += weights[kept]!
  return sorted.slice(0, kept).map(({ groups, tau, mu, shift }, i) => ({
    weight: weights[i]! / whole,
    shift,
    places: groups.map(({ model, count }) => ({ distribution: model.distribution(tau, mu), count })),
  }))
}

/** What a mean is likely by under certain biases, with the places it was worked out from. */
interface Evidence {
  readonly groups: readonly PlaceGroup[]
  readonly of: (mu: number) => number
}

/** The highest mark of gauges all of whose marks went in somewhere, %; beyond everything where each stayed out of one. */
function highestMarkPassed(spots: readonly IntervalSpot[]): number {
  return spots.some(({ under }) => under === undefined)
    ? Math.max(...spots.flatMap(({ over, under }) => [over ?? -Infinity, under ?? -Infinity]))
    : Infinity
}

/** How far the evidence for a mean must have fallen at both ends of the range for the ends not to matter. */
const FALLEN = 12
/** Long strides over the means, in steps. */
const STRIDE = 8

/** The best logarithm of the evidence over the means, by long strides. */
function peakOf(logEvidence: (mu: number) => number): number {
  let best = -Infinity
  for (let i = 0; i < MEANS; i += STRIDE) best = Math.max(best, logEvidence(MEAN_LOWEST + i * MEAN_STEP))
  return best
}

/**
 * The means μ to sum over, with the evidence for each. A sum at steps of the evidence's own width is exact to many
 * digits; only where the evidence reaches an end of the flat range are fine steps needed.
 */
function meansOf(
  logEvidence: (mu: number) => number,
  tau: number,
  finestU: number,
  spots: readonly SpotObservation[],
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
  const wholeChain = spots.some((spot) => isPoint(spot) && spot.wholeChain === true)
  const width = wholeChain ? 0 : Math.hypot(tau, finestU) / Math.sqrt(spots.length)
  const every = Math.max(1, Math.floor((0.7 * width) / MEAN_STEP))
  const walked = at(every, from, to)
  if (every === 1) return walked
  const top = Math.max(...walked.map(({ log }) => log))
  const reachesEnd =
    (from === 0 && walked[0]!.log > top - FALLEN) || (to === MEANS - 1 && walked.at(-1)!.log > top - FALLEN)
  return reachesEnd ? at(1, from, to) : walked
}

/** Places seen alike by the same instruments, how many they are, and what is known of one for certain offsets of their biases. */
interface PlaceSeen {
  readonly count: number
  readonly modelAt: (offsets: readonly number[]) => PlaceModel
}

/**
 * The places of a chain: those read, alike ones taken together, and as many that nobody looked at as there are further
 * ones round it: at least one, where only the whole chain's length is known.
 */
function placesSeen(spots: readonly SpotObservation[], biases: SharedBiases, round: number): PlaceSeen[] {
  const measured = placesOf(spots)
  const alike = new Map<string, { observations: readonly SpotObservation[]; count: number }>()
  for (const observations of measured) {
    const key = observations
      .map((one) => {
        const seen = isPoint(one) ? `=${one.value}` : `${one.over ?? ''}<${one.under ?? ''}`
        return `${one.instrument ?? ''} ${seen}±${one.u}`
      })
      .join('&')
    alike.set(key, { observations, count: (alike.get(key)?.count ?? 0) + 1 })
  }
  const unseen = Math.max(measured.length === 0 ? 1 : 0, round - measured.length)
  return [
    ...[...alike.values()].map(({ observations, count }) => ({ count, modelAt: modelsOf(observations, biases) })),
    ...(unseen === 0 ? [] : [{ count: unseen, modelAt: () => UNSEEN }]),
  ]
}

/** Models of one place by the offsets it depends on: one instrument's bias leaves the places of another as they are. */
function modelsOf(observations: readonly SpotObservation[], biases: SharedBiases): PlaceSeen['modelAt'] {
  const concerned = biases.others.flatMap(({ instrument }, i) =>
    observations.some((one) => one.instrument === instrument) ? [i] : [],
  )
  const known = new Map<string, PlaceModel>()
  return (offsets) => {
    const key = concerned.map((i) => offsets[i]).join()
    const model = known.get(key) ?? placeModel(observations.map((one) => shiftedBy(one, biases, offsets)))
    known.set(key, model)
    return model
  }
}

/** Observations by place; unnamed ones are a place each, a whole chain's length is of none. */
function placesOf(spots: readonly SpotObservation[]): SpotObservation[][] {
  const places = new Map<string | number | symbol, SpotObservation[]>()
  for (const spot of spots) {
    if (isPoint(spot) && spot.wholeChain === true) continue
    const key = spot.place ?? Symbol()
    const known = places.get(key)
    if (known) known.push(spot)
    else places.set(key, [spot])
  }
  return [...places.values()]
}

function placeModel(observations: readonly SpotObservation[]): PlaceModel {
  const points = observations.filter(isPoint)
  const intervals = observations.filter((spot): spot is IntervalSpot => !isPoint(spot))
  return intervals.length === 0 ? pointModel(points) : remembering(gridModel(points, intervals))
}

/** A model that works each of its answers out once: the same place is asked under every bias of other instruments. */
function remembering(model: PlaceModel): PlaceModel {
  const evidence = new Map<string, number>()
  const distributions = new Map<string, Distribution>()
  const once = <Answer>(known: Map<string, Answer>, tau: number, mu: number, work: () => Answer): Answer => {
    const key = `${tau} ${mu.toFixed(4)}`
    const answer = known.get(key) ?? work()
    known.set(key, answer)
    return answer
  }
  return {
    logEvidence: (tau, mu) => once(evidence, tau, mu, () => model.logEvidence(tau, mu)),
    distribution: (tau, mu) => once(distributions, tau, mu, () => model.distribution(tau, mu)),
  }
}

/** A place nobody looked at: as worn as the others, give or take their unevenness. It is on no lattice, for it was never read. */
const UNSEEN: PlaceModel = {
  logEvidence: () => 0,
  distribution: (tau, mu) => ({ centre: mu + HALF_LATTICE, root: 1 / tau }),
}

/** Points only: normal times normal, in closed form. */
function pointModel(points: readonly PointSpot[]): PlaceModel {
  let precision = 0
  let pull = 0
  for (const { value, u } of points) {
    precision += 1 / (u * u)
    pull += value / (u * u)
  }
  const mean = pull / precision
  const variance = 1 / precision
  // How far several readings of the place are apart tells of the biases they were taken with.
  const apart = points.reduce((sum, { value, u }) => sum + ((value - mean) / u) ** 2, 0)
  return {
    logEvidence: (tau, mu) =>
      -0.5 * Math.log(tau * tau + variance) - 0.5 * ((mean - mu) ** 2 / (tau * tau + variance) + apart),
    distribution: (tau, mu) => {
      const posteriorPrecision = precision + 1 / (tau * tau)
      return { centre: (pull + mu / (tau * tau)) / posteriorPrecision, root: Math.sqrt(posteriorPrecision) }
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
    distribution: (tau, mu) => {
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
