import type { VerdictWord } from '@pelrin/core'
import { ink } from '../theme/theme.ts'

/** The plate a verdict is drawn as. */
export type PlateShape = 'whole' | 'notched' | 'parted' | 'dashed' | 'toothed' | 'bare'

/** How each verdict looks: never by colour alone. */
export const VERDICT_LOOK: Record<VerdictWord, { plate: PlateShape; colour: string }> = {
  'keep-riding': { plate: 'whole', colour: ink('steel') },
  'closing-in': { plate: 'notched', colour: ink('brass') },
  change: { plate: 'parted', colour: ink('madder') },
  'measure-again': { plate: 'dashed', colour: ink('ink') },
  'measure-it': { plate: 'dashed', colour: ink('ink') },
  'not-measured-yet': { plate: 'bare', colour: ink('faint') },
}

/**
 * What a list shows of a verdict today. A look that is overdue is never shown as a plain "keep riding".
 *
 * @param checkOn day the next look is due, YYYY-MM-DD
 * @param today YYYY-MM-DD
 */
export function lookToday(
  word: VerdictWord,
  checkOn: string | null,
  today: string,
): { plate: PlateShape; colour: string; overdue: boolean } {
  const overdue = checkOn !== null && checkOn < today && (word === 'keep-riding' || word === 'not-measured-yet')
  return overdue ? { plate: 'dashed', colour: ink('brass'), overdue } : { ...VERDICT_LOOK[word], overdue }
}
