import type { ChainVerdict } from './verdictTypes.ts'

/**
 * The chance of being over the limit within the look-ahead, where a change rests on it rather than on the readings alone.
 *
 * @returns `chance` 0…1 and the look-ahead in km; null for any other verdict
 */
export function aheadOf({
  word,
  decidedBy,
  probabilityOver,
  steps,
}: Pick<ChainVerdict, 'word' | 'decidedBy' | 'probabilityOver' | 'steps'>): { chance: number; km: number } | null {
  if (word !== 'change' || decidedBy !== 'D5') return null
  const inputs = steps.find(({ rule }) => rule === 'D5')?.inputs ?? []
  const chance = inputs.find(({ meaning }) => meaning === 'forecast-ahead')?.value
  const km = inputs.find(({ meaning }) => meaning === 'look-ahead-km')?.value
  return typeof chance === 'number' && typeof km === 'number' && chance > (probabilityOver ?? 0) ? { chance, km } : null
}
