import { useTranslation } from 'react-i18next'
import type { BikeSummary } from '@pelrin/contract'
import { day } from '../messages/format.ts'
import { useChance } from './useChance.ts'

/** Why a bike is to be measured today, in one sentence; undefined where its verdict says it. */
export function useStandingAnswer(): (
  summary: Pick<BikeSummary, 'standing' | 'measuredAt' | 'checkOn'>,
) => string | undefined {
  const { t } = useTranslation()
  const chance = useChance()
  return ({ standing, measuredAt, checkOn }) => {
    if (standing.word !== 'measure-it' || measuredAt === null) return undefined
    if (standing.chance !== null)
      return t('why.answer.measure', { date: day(measuredAt), chance: chance(standing.chance) })
    return checkOn === null ? undefined : t('why.answer.passed', { date: day(measuredAt), due: day(checkOn) })
  }
}
