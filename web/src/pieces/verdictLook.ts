import type { VerdictWord } from '@pelrin/core'
import type { BikeSummary } from '@pelrin/contract'
import { VERDICT_PLATE, type PlateShape } from '@pelrin/drawn'
import { ink } from '../theme/theme.ts'

/** How each verdict looks on screen. */
export const VERDICT_LOOK = Object.fromEntries(
  Object.entries(VERDICT_PLATE).map(([word, { plate, colour }]) => [word, { plate, colour: ink(colour) }]),
) as Record<VerdictWord, { plate: PlateShape; colour: string }>

/**
 * How a bike looks as it stands today. A look that is overdue is never shown as a plain "keep riding".
 *
 * @param today YYYY-MM-DD
 */
export function lookToday(
  { standing: { word }, checkOn }: Pick<BikeSummary, 'standing' | 'checkOn'>,
  today: string,
): { plate: PlateShape; colour: string; overdue: boolean } {
  const overdue = checkOn !== null && checkOn < today && (word === 'keep-riding' || word === 'not-measured-yet')
  return overdue ? { plate: 'dashed', colour: ink('brass'), overdue } : { ...VERDICT_LOOK[word], overdue }
}
