import { useTranslation } from 'react-i18next'
import type { BikeSummary, CareNext } from '@pelrin/contract'
import { day, dayAfter, distance, today } from '../messages/format.ts'

/** Due at once, whatever day it says. */
const AT_ONCE: readonly CareNext['because'][] = ['wash', 'squeak', 'never-treated']

type Due = Pick<NonNullable<BikeSummary['care']>, 'because' | 'dueOn'>
export const isDue = ({ because, dueOn }: Due): boolean => AT_ONCE.includes(because) || dueOn <= today()

/** When a chain is treated next, in words. */
export function useCareWords() {
  const { t } = useTranslation()
  return {
    /** As the headline of the place. */
    due: ({ because, dueOn }: Due): string =>
      !AT_ONCE.includes(because) && dueOn < today()
        ? t('caring.overdue', { date: day(dueOn) })
        : t(`caring.due.${because}`, { date: day(dueOn) }),
    /** As one fact among others. */
    short: ({ because, dueOn }: Due): string =>
      !AT_ONCE.includes(because) && dueOn < today()
        ? t('caring.overdueShort', { date: day(dueOn) })
        : t(`caring.dueShort.${because}`, { date: day(dueOn) }),
    /** What is left of it, and how sure that is. */
    left: ({ kmLeft, daysLeft, because, asOf }: CareNext, unit: 'km' | 'mi'): string => {
      if (AT_ONCE.includes(because)) return ''
      if (kmLeft < 0) return t('caring.pastKm', { km: distance(-kmLeft, unit) })
      if (because === 'days') return t('caring.leftDays', { km: distance(kmLeft, unit) })
      const [early, , late] = daysLeft
      return early === null || late === null || Math.round(early) === Math.round(late)
        ? t('caring.leftSure', { km: distance(kmLeft, unit) })
        : t('caring.left', {
            km: distance(kmLeft, unit),
            early: day(dayAfter(asOf, early)),
            late: day(dayAfter(asOf, late)),
          })
    },
  }
}
