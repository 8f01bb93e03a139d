import { measuresNothing } from '@pelrin/core'
import type { Instrument } from '@pelrin/contract'

export type Standing = 'retired' | 'out-of-use' | 'by-hand' | 'never-checked' | 'lapsed' | 'early' | 'due'

/** How an instrument stands, worst first: what it is called, and what colour that has. */
export function standingOf(
  instrument: Instrument,
  retired: boolean,
): { text: Standing; tone: 'madder' | 'brass' | null } {
  if (retired) return { text: 'retired', tone: null }
  if (instrument.standing === 'out-of-use') return { text: 'out-of-use', tone: 'madder' }
  if (measuresNothing(instrument.kind)) return { text: 'by-hand', tone: null }
  if (instrument.checkedOn === null) return { text: 'never-checked', tone: 'brass' }
  if (instrument.checkLapsed) return { text: 'lapsed', tone: 'brass' }
  return instrument.reads === 'early' ? { text: 'early', tone: 'brass' } : { text: 'due', tone: null }
}
