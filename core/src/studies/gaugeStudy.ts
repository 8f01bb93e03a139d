import { cellsOf, crossedAnova, mean, type AnovaRow, type Cells, type StudyValue } from './crossedAnova.ts'
import { varianceInterval, type MeanSquare } from './varianceInterval.ts'

/** A standard deviation, %, with its 95 % interval. */
export interface Deviation {
  readonly sd: number
  readonly low: number
  readonly high: number
}

/** What varies in a study. `gauge` is repeatability and reproducibility together. */
export interface VarianceParts {
  readonly repeatability: Deviation
  /** Between people and people × spots together. */
  readonly reproducibility: Deviation
  readonly person: Deviation
  readonly interaction: Deviation
  readonly spot: Deviation
  readonly gauge: Deviation
}

/** What a spot truly is, from a reference strip or a better instrument, %. */
export interface SpotReference {
  readonly spot: string
  readonly value: number
  readonly u: number
}

/** Why a study cannot say all it is made for. Keys of the message catalogue. */
export const STUDY_GAPS = ['one-person', 'one-spot', 'no-repeats', 'cells-missing', 'repeats-differ'] as const
export type StudyGap = (typeof STUDY_GAPS)[number]
export interface GaugeStudy {
  readonly values: number
  readonly people: readonly string[]
  readonly spots: readonly string[]
  /** What stands in the way of the whole analysis; empty when nothing does. */
  readonly gaps: readonly StudyGap[]
  /** Null where the data do not allow it. */
  readonly anova: readonly AnovaRow[] | null
  readonly parts: VarianceParts | null
  /** Same person, same spot: known as soon as anything was measured twice. */
  readonly repeatability: Deviation | null
  readonly bias: { readonly value: number; readonly u: number; readonly spots: number } | null
  /** The smallest change of wear two readings by anybody can show, and two by the same person, %. */
  readonly smallestChange: { readonly anybody: number | null; readonly samePerson: number | null }
  /** Means for the pictures: by person and by spot. */
  readonly byPerson: readonly { readonly person: string; readonly mean: number; readonly values: number }[]
  readonly bySpot: readonly {
    readonly spot: string
    readonly mean: number
    readonly low: number
    readonly high: number
  }[]
}

/** Two readings differ truly, with 95 % confidence, from this many u on: 1.96·√2. */
export const SMALLEST_CHANGE = 1.96 * Math.SQRT2

/**
 * What a gauge study says of an instrument: several people measured the same spots several times.
 *
 * Whole where people × spots × repeats are all there; otherwise what can still be said, with what is missing.
 *
 * @param study `values` in %, in any order; `references` of some or all spots
 */
export function gaugeStudy({
  values,
  references = [],
}: {
  values: readonly StudyValue[]
  references?: readonly SpotReference[]
}): GaugeStudy {
  const cells = cellsOf(values)
  const gaps = gapsOf(cells)
  const anova = gaps.length === 0 ? crossedAnova(cells) : null
  const parts = anova === null ? null : partsOf(anova, cells)
  const repeatability = parts?.repeatability ?? pooledRepeatability(cells)
  return {
    values: values.length,
    people: cells.people,
    spots: cells.spots,
    gaps,
    anova,
    parts,
    repeatability,
    bias: biasOf(cells, references, parts, repeatability),
    smallestChange: {
      anybody: parts === null ? null : SMALLEST_CHANGE * parts.gauge.sd,
      samePerson: repeatability === null ? null : SMALLEST_CHANGE * repeatability.sd,
    },
    byPerson: cells.people.map((person) => {
      const own = values.filter((one) => one.person === person).map(({ value }) => value)
      return { person, mean: mean(own), values: own.length }
    }),
    bySpot: cells.spots.map((spot) => {
      const own = values.filter((one) => one.spot === spot).map(({ value }) => value)
      return { spot, mean: mean(own), low: Math.min(...own), high: Math.max(...own) }
    }),
  }
}

function gapsOf({ people, spots, values }: Cells): StudyGap[] {
  const gaps: StudyGap[] = []
  if (people.length < 2) gaps.push('one-person')
  if (spots.length < 2) gaps.push('one-spot')
  const counts = values.flatMap((row) => row.map((cell) => cell.length))
  if (counts.some((count) => count === 0)) gaps.push('cells-missing')
  else if (counts.some((count) => count !== counts[0])) gaps.push('repeats-differ')
  if (counts.every((count) => count < 2)) gaps.push('no-repeats')
  return gaps
}

function partsOf(anova: readonly AnovaRow[], { people, spots, values }: Cells): VarianceParts {
  const o = people.length
  const p = spots.length
  const r = values[0]![0]!.length
  const square = (source: AnovaRow['source'], share: number): MeanSquare => {
    const { meanSquare, df } = anova.find((row) => row.source === source)!
    return { ms: meanSquare, df, share }
  }
  return {
    repeatability: deviation([square('repeat', 1)]),
    reproducibility: deviation([
      square('person', 1 / (p * r)),
      square('interaction', (p - 1) / (p * r)),
      square('repeat', -1 / r),
    ]),
    person: deviation([square('person', 1 / (p * r)), square('interaction', -1 / (p * r))]),
    interaction: deviation([square('interaction', 1 / r), square('repeat', -1 / r)]),
    spot: deviation([square('spot', 1 / (o * r)), square('interaction', -1 / (o * r))]),
    gauge: gaugeDeviation(square, p, r),
  }
}

/** Repeatability and reproducibility together: people and interaction each only where its own part is not negative. */
function gaugeDeviation(
  square: (source: AnovaRow['source'], share: number) => MeanSquare,
  p: number,
  r: number,
): Deviation {
  const people = square('person', 1).ms > square('interaction', 1).ms ? 1 : 0
  const interaction = square('interaction', 1).ms > square('repeat', 1).ms ? 1 : 0
  return deviation(
    [
      square('person', people / (p * r)),
      square('interaction', interaction / r - people / (p * r)),
      square('repeat', 1 - interaction / r),
    ].filter(({ share }) => share !== 0),
  )
}

function deviation(squares: readonly MeanSquare[]): Deviation {
  const variance = squares.reduce((sum, { ms, share }) => sum + share * ms, 0)
  const { low, high } = varianceInterval(squares)
  return { sd: Math.sqrt(Math.max(0, variance)), low: Math.sqrt(low), high: Math.sqrt(high) }
}

/** The spread within cells, whatever their sizes; null when nothing was measured twice. */
function pooledRepeatability({ values }: Cells): Deviation | null {
  let sum = 0
  let df = 0
  for (const cell of values.flat()) {
    if (cell.length < 2) continue
    const centre = mean(cell)
    for (const one of cell) sum += (one - centre) ** 2
    df += cell.length - 1
  }
  return df === 0 ? null : deviation([{ ms: sum / df, df, share: 1 }])
}

/**
 * How much the instrument reads too much, against what the spots truly are: the mean over spots and people, its u
 * from what varies in the study and from the references, which share their error.
 */
function biasOf(
  { people, spots, values }: Cells,
  references: readonly SpotReference[],
  parts: VarianceParts | null,
  repeatability: Deviation | null,
): GaugeStudy['bias'] {
  const known = references.filter(({ spot }) => (values[spots.indexOf(spot)] ?? []).flat().length > 0)
  if (known.length === 0 || repeatability === null) return null
  const differences = known.map(({ spot, value }) => mean((values[spots.indexOf(spot)] ?? []).flat()) - value)
  const count = known.reduce((sum, { spot }) => sum + (values[spots.indexOf(spot)] ?? []).flat().length, 0)
  const referenceU = Math.max(...known.map(({ u }) => u))
  const variance =
    (parts ? parts.person.sd ** 2 / people.length + parts.interaction.sd ** 2 / (people.length * known.length) : 0) +
    repeatability.sd ** 2 / count
  return { value: mean(differences), u: Math.sqrt(variance + referenceU ** 2), spots: known.length }
}
