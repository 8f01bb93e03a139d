import {
  entryForm,
  gaugeStudy,
  marksTyped,
  probitMark,
  type InstrumentKind,
  type InstrumentRecord,
  type MarkTrial,
} from '@pelrin/core'
import type { StudyResult } from '@pelrin/contract'
import type { StudyFact, StudyValueFact } from './store.ts'

/** What a study says, from the values that stand. */
export function resultOf(
  study: StudyFact,
  values: readonly StudyValueFact[],
  { kind, marks }: Pick<InstrumentRecord, 'kind' | 'marks'>,
): StudyResult {
  if (entryForm(kind) === 'marks') return marksResult(study, kind, values, marks ?? [])
  const { gaps, anova, parts, repeatability, bias, smallestChange } = gaugeStudy({
    values: values.flatMap(({ personId, spot, value }) =>
      value === null ? [] : [{ person: personId, spot: String(spot), value }],
    ),
    references: study.spots.flatMap(({ reference }, i) =>
      reference === undefined ? [] : [{ spot: String(i), value: reference, u: study.referenceU }],
    ),
  })
  return {
    kind: 'values',
    values: values.length,
    gaps: [...gaps],
    anova: anova?.map((row) => ({ ...row })) ?? null,
    parts,
    repeatability,
    bias,
    smallestChange,
  }
}

function marksResult(
  study: StudyFact,
  kind: InstrumentKind,
  values: readonly StudyValueFact[],
  marks: readonly number[],
): StudyResult {
  const trialsOf = (i: number): MarkTrial[] =>
    values.flatMap(({ personId, spot, typed }) => {
      const seen = marksTyped(kind, typed, marks)
      const wear = study.spots[spot]?.reference
      if (!seen.ok || wear === undefined) return []
      return [{ person: personId, wear, wentIn: seen.seen[i]?.state !== 'out' }]
    })
  return {
    kind: 'marks',
    values: values.length,
    marks: marks.map((mark, i) => {
      const trials = trialsOf(i)
      return {
        mark,
        fit: probitMark(trials),
        byPerson: study.people.map((personId) => ({
          personId,
          fit: probitMark(trials.filter(({ person }) => person === personId)),
        })),
      }
    }),
  }
}
