import type { TFunction } from 'i18next'
import type { BikeSummary } from '@pelrin/contract'
import { day } from '../messages/format.ts'

/**
 * When a bike is looked at next, in a few words: what is to be measured now is, whatever day was meant before.
 *
 * @param today YYYY-MM-DD
 */
export function nextLook(
  { checkOn, standing }: Pick<BikeSummary, 'checkOn' | 'standing'>,
  today: string,
  t: TFunction,
): { text: string; overdue: boolean } {
  if (checkOn === null) return { text: t('stand.nextNone'), overdue: false }
  if (checkOn < today) return { text: t('stand.nextOverdue', { date: day(checkOn) }), overdue: true }
  return standing.word === 'measure-it' || checkOn === today
    ? { text: t('stand.nextNow'), overdue: false }
    : { text: day(checkOn), overdue: false }
}
