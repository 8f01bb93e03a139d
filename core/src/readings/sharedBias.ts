import { isPoint, type SpotObservation } from './spotObservation.ts'

/** The chance that something lies under a ceiling (%), 0…1. */
export type Cumulative = (ceiling: number) => number

/** An instrument whose bias all its spots share. */
interface Biased {
  readonly instrument: string
  /** Standard uncertainty of its bias, %. */
  readonly biasU: number
  /** The smallest u of its spots, %, and how many they are. */
  readonly finestU: number
  readonly spots: number
  /** It read a place another instrument read too, which compares the two without the chain's unevenness. */
  readonly besideOthers: boolean
}

/**
 * The biases of a round's instruments, laid out so that as little as can be has to be integrated over.
 *
 * What readings say of each other depends only on how far the biases lie apart. So places are described on the scale of
 * one instrument, the reference; the others' offsets from it are integrated over, and the reference's own bias, which
 * the readings say nothing of but by those offsets, is laid over the answer at the end. Where an instrument without a
 * bias read the round, its scale is the true one and nothing is left to lay over.
 */
export interface SharedBiases {
  /** Null where the true scale is the reference. */
  readonly reference: Biased | null
  readonly others: readonly Biased[]
  /** What is left of the reference's bias once the offsets are known, standard deviation, %. */
  readonly commonU: number
  /** Where the reference's bias is expected for certain offsets, %. */
  commonShift(offsets: readonly number[]): number
  /** Logarithm of how likely offsets are before anything was read, up to a constant. */
  logPrior(offsets: readonly number[]): number
}

/** So many offsets are integrated over; the biases of further instruments are added to each of their spots. */
const MOST_OFFSETS = 2
/** How many standard deviations of an offset are looked at to either side. */
const REACH = 4
/** Offsets less likely than the best by this logarithm change no figure anyone reads. */
const FALLEN = 28
/** The same where the hill is known, allowing for means looked at by long strides only. */
const NEGLIGIBLE = 14
/** How many strides an offset's reach is first gone over in; each is then halved where the hill is. */
const FIRST_STRIDES = 24

/** What is to be integrated over for the biases of a round. */
export function sharedBiases(spots: readonly SpotObservation[]): SharedBiases {
  const known = new Map<string, Biased>()
  let trueScale = false
  for (const { instrument, biasU = 0, place, u } of spots) {
    if (instrument === undefined || !(biasU > 0)) {
      trueScale = true
      continue
    }
    const before = known.get(instrument)
    const beside =
      place !== undefined && spots.some((other) => other.place === place && other.instrument !== instrument)
    known.set(instrument, {
      instrument,
      biasU,
      finestU: Math.min(u, before?.finestU ?? Infinity),
      spots: (before?.spots ?? 0) + 1,
      besideOthers: beside || before?.besideOthers === true,
    })
  }
  // The widest first: whichever has to be left out matters least. The reference is the one that is known best.
  const widest = [...known.values()].sort((a, b) => b.biasU - a.biasU || (a.instrument < b.instrument ? -1 : 1))
  const reference = trueScale ? null : (widest.pop() ?? null)
  const others = widest.slice(0, MOST_OFFSETS)
  const precision = [reference, ...others].reduce((sum, one) => sum + (one === null ? 0 : 1 / one.biasU ** 2), 0)
  const commonShift = (offsets: readonly number[]): number =>
    reference === null ? 0 : -offsets.reduce((sum, offset, i) => sum + offset / others[i]!.biasU ** 2, 0) / precision
  return {
    reference,
    others,
    commonU: reference === null ? 0 : 1 / Math.sqrt(precision),
    commonShift,
    logPrior: (offsets) => {
      const apart = offsets.reduce((sum, offset, i) => sum + (offset / others[i]!.biasU) ** 2, 0)
      return -0.5 * (apart - (reference === null ? 0 : precision * commonShift(offsets) ** 2))
    },
  }
}

/** A spot on the reference's scale, for certain offsets of the others. */
export function shiftedBy(
  spot: SpotObservation,
  { reference, others }: SharedBiases,
  offsets: readonly number[],
): SpotObservation {
  const { instrument, biasU = 0 } = spot
  if (instrument === undefined || !(biasU > 0) || instrument === reference?.instrument) return spot
  const at = others.findIndex((other) => other.instrument === instrument)
  if (at < 0) return { ...spot, u: Math.hypot(spot.u, biasU) }
  const offset = offsets[at]!
  if (isPoint(spot)) return { ...spot, value: spot.value - offset }
  return {
    ...spot,
    ...(spot.over === undefined ? {} : { over: spot.over - offset }),
    ...(spot.under === undefined ? {} : { under: spot.under - offset }),
  }
}

/**
 * The offsets to sum over at an unevenness, on nodes spaced no wider than half of √(u²+τ²)/√n and half of what is believed of
 * them before, about where what was read leaves them.
 *
 * @param peakOf the best logarithm of the evidence, over all means, at offsets
 */
export function offsetsOf(
  biases: SharedBiases,
  tau: number,
  peakOf: (offsets: readonly number[]) => number,
): { offsets: readonly number[]; logPrior: number }[] {
  const { reference, others } = biases
  if (others.length === 0) return [{ offsets: [], logPrior: 0 }]
  const axes = others.map(({ biasU, finestU, spots, besideOthers }) => {
    const spread = Math.hypot(biasU, reference?.biasU ?? 0)
    const told = (besideOthers ? finestU : Math.hypot(finestU, tau)) / Math.sqrt(spots)
    const step = 0.5 * Math.min(told, spread)
    const count = Math.ceil((REACH * spread) / step)
    return { step, from: -count, to: count }
  })
  const grid = (every: number, bounds: readonly { from: number; to: number }[]): number[][] =>
    bounds.reduce<number[][]>(
      (rows, { from, to }) =>
        rows.flatMap((row) =>
          Array.from({ length: Math.floor((to - from) / every) + 1 }, (_, i) => [...row, from + i * every]),
        ),
      [[]],
    )
  const at = (nodes: readonly number[]): number[] => nodes.map((node, i) => node * axes[i]!.step)
  // The evidence has one hill: found by long strides, and only it is walked in shorter and shorter ones.
  let box: readonly { from: number; to: number }[] = axes
  let stride =
    2 ** Math.max(0, Math.ceil(Math.log2(Math.max(...axes.map(({ from, to }) => to - from)) / FIRST_STRIDES)))
  for (; stride > 1; stride /= 2) {
    const every = stride
    const tried = grid(every, box).map((nodes) => ({ nodes, log: biases.logPrior(at(nodes)) + peakOf(at(nodes)) }))
    const best = tried.reduce((most, { log }) => Math.max(most, log), -Infinity)
    const hill = tried.filter(({ log }) => log > best - FALLEN)
    box = axes.map(({ from, to }, i) => {
      const nodes = hill.map((one) => one.nodes[i]!)
      return { from: Math.max(from, Math.min(...nodes) - every), to: Math.min(to, Math.max(...nodes) + every) }
    })
  }
  const logSteps = axes.reduce((sum, { step }) => sum + Math.log(step), 0)
  const walked = grid(1, box).map((nodes) => {
    const offsets = at(nodes)
    const logPrior = biases.logPrior(offsets)
    return { offsets, logPrior: logPrior + logSteps, log: logPrior + peakOf(offsets) }
  })
  const top = walked.reduce((most, { log }) => Math.max(most, log), -Infinity)
  return walked.filter(({ log }) => log > top - NEGLIGIBLE)
}

/** Step of the table the answer is smoothed from, %. */
const TABLE_STEP = 0.005
/** A bias known closer than this moves nothing anyone reads, %. */
const NO_BIAS = 5e-4
/** Shares beyond which a distribution is over. */
const TAIL = 1e-7

/**
 * A distribution with a bias of standard deviation u laid over it: the chance, over all that bias may be, that what is
 * under the ceiling on a shifted scale is.
 *
 * @param from to between which the distribution rises from 0 to 1
 */
export function smoothed(under: Cumulative, u: number, from: number, to: number): Cumulative {
  if (u < NO_BIAS) return under
  const edge = (share: number): number => {
    let [low, high] = [from, to]
    while (high - low > TABLE_STEP) {
      const middle = (low + high) / 2
      if (under(middle) < share) low = middle
      else high = middle
    }
    return share < 0.5 ? low : high
  }
  const first = edge(TAIL)
  const table = Float64Array.from({ length: Math.ceil((edge(1 - TAIL) - first) / TABLE_STEP) + 2 }, (_, i) =>
    under(first + i * TABLE_STEP),
  )
  const read = (ceiling: number): number => {
    const position = (ceiling - first) / TABLE_STEP
    if (position <= 0) return 0
    if (position >= table.length - 1) return 1
    const i = Math.floor(position)
    return table[i]! + (table[i + 1]! - table[i]!) * (position - i)
  }
  const step = Math.min(u / 4, 0.01)
  const half = Math.ceil((REACH * u) / step)
  const nodes = Array.from({ length: 2 * half + 1 }, (_, i) => {
    const shift = (i - half) * step
    return { shift, weight: Math.exp(-0.5 * (shift / u) ** 2) }
  })
  const whole = nodes.reduce((sum, { weight }) => sum + weight, 0)
  return (ceiling) => nodes.reduce((sum, { shift, weight }) => sum + weight * read(ceiling + shift), 0) / whole
}
