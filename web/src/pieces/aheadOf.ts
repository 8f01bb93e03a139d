import type { ChainVerdict } from '@pelrin/core'

/** The chance of being over within the look-ahead, where a verdict rests on it. */
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
