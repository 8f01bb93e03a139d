import { studyOrder } from '@pelrin/core'
import { resultOf } from '../studies/result.ts'
import type { Work } from '../db/work.ts'
import type { Chance } from './random.ts'
import { STUDIES, STUDY_VALUES } from '../studies/models.ts'

/** The digital gauge was studied two months ago, by three people on five spots of a strip, three times each. */
export async function loadStudy(
  { of, transaction }: Work,
  chance: Chance,
  { today, instrumentId, people }: { today: Date; instrumentId: string; people: string[] },
): Promise<void> {
  const startedAt = new Date(today.getTime() - 61 * 86_400_000)
  const truths = [0.2, 0.35, 0.5, 0.65, 0.8]
  const study = {
    id: chance.id(startedAt),
    instrumentId,
    title: 'After the new battery',
    people,
    spots: truths.map((reference, i) => ({ label: String.fromCharCode(65 + i), reference })),
    repeats: 3,
    pitches: null,
    referenceU: 0.01,
    startedAt,
    closedAt: new Date(startedAt.getTime() + 3_600_000),
  }
  const habits = people.map(() => chance.normal(0.012, 0.015))
  const values = people.flatMap((personId, person) =>
    studyOrder({ spots: truths.length, repeats: study.repeats, person }).map(({ spot, repeat }) => {
      const value = Number((truths[spot]! + habits[person]! + chance.normal(0, 0.02)).toFixed(2))
      return {
        ...{ id: chance.id(startedAt), studyId: study.id, personId, deviceId: null, recordedAt: startedAt },
        ...{ supersedesId: null, spot, repeat, typed: value.toFixed(2), value },
      }
    }),
  )
  const result = resultOf({ ...study, result: null }, values, { kind: 'digital', marks: null })
  await of(STUDIES).create({ ...study, personId: people[0]!, result }, { transaction })
  await of(STUDY_VALUES).bulkCreate(values, { transaction })
}
