import { exceedsF } from './varianceInterval.ts'

/** One value of a gauge study, %. */
export interface StudyValue {
  readonly person: string
  readonly spot: string
  readonly value: number
}

export const ANOVA_SOURCES = ['spot', 'person', 'interaction', 'repeat'] as const
export type AnovaSource = (typeof ANOVA_SOURCES)[number]
/** A row of the analysis of variance. */
export interface AnovaRow {
  readonly source: AnovaSource
  readonly df: number
  readonly sumOfSquares: number
  readonly meanSquare: number
  /** Against the interaction for spot and person, against repeats for the interaction; null where not tested. */
  readonly f: number | null
  readonly p: number | null
}

/** People × spots × repeats, all cells filled alike. */
export interface Cells {
  readonly people: readonly string[]
  readonly spots: readonly string[]
  /** Values by spot, then person. */
  readonly values: readonly (readonly (readonly number[])[])[]
}

export const mean = (values: readonly number[]): number => values.reduce((sum, one) => sum + one, 0) / values.length

/** Values in their cells, people and spots in the order they first appear; cells may be empty. */
export function cellsOf(values: readonly StudyValue[]): Cells {
  const people = [...new Set(values.map(({ person }) => person))]
  const spots = [...new Set(values.map(({ spot }) => spot))]
  return {
    people,
    spots,
    values: spots.map((spot) =>
      people.map((person) =>
        values.filter((one) => one.spot === spot && one.person === person).map(({ value }) => value),
      ),
    ),
  }
}

/**
 * Crossed two-way analysis of variance with interaction, people and spots random.
 *
 * @param cells balanced: at least two people, two spots and two repeats, as many in every cell
 * @returns rows for spot, person, interaction, repeat
 */
export function crossedAnova({ people, spots, values }: Cells): AnovaRow[] {
  const o = people.length
  const p = spots.length
  const r = values[0]![0]!.length
  const cellMeans = values.map((row) => row.map(mean))
  const spotMeans = cellMeans.map(mean)
  const personMeans = people.map((_, j) => mean(cellMeans.map((row) => row[j]!)))
  const grand = mean(spotMeans)
  const squares = (deviations: readonly number[]): number => deviations.reduce((sum, d) => sum + d * d, 0)
  const ss = {
    spot: o * r * squares(spotMeans.map((m) => m - grand)),
    person: p * r * squares(personMeans.map((m) => m - grand)),
    interaction:
      r * squares(cellMeans.flatMap((row, i) => row.map((m, j) => m - spotMeans[i]! - personMeans[j]! + grand))),
    repeat: squares(values.flatMap((row, i) => row.flatMap((cell, j) => cell.map((one) => one - cellMeans[i]![j]!)))),
  }
  const df = { spot: p - 1, person: o - 1, interaction: (p - 1) * (o - 1), repeat: p * o * (r - 1) }
  const ms = (source: AnovaSource): number => ss[source] / df[source]
  const row = (source: AnovaSource, against: AnovaSource | null): AnovaRow => {
    const f = against === null || ms(against) === 0 ? null : ms(source) / ms(against)
    return {
      source,
      df: df[source],
      sumOfSquares: ss[source],
      meanSquare: ms(source),
      f,
      p: f === null || against === null ? null : exceedsF(f, df[source], df[against]),
    }
  }
  return [row('spot', 'interaction'), row('person', 'interaction'), row('interaction', 'repeat'), row('repeat', null)]
}
