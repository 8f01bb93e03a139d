import { describe, expect, it } from 'vitest'
import type { VerdictWord } from '@pelrin/core'
import { lookToday, VERDICT_LOOK } from './verdictLook.ts'

const look = (word: VerdictWord, checkOn: string | null, today: string) =>
  lookToday({ standing: { word, because: 'verdict', chance: null }, checkOn }, today)

describe('how a verdict looks today', () => {
  it('is never a plain "keep riding" once the next look is overdue', () => {
    expect(look('keep-riding', '2026-05-01', '2026-05-01')).toMatchObject({ plate: 'whole', overdue: false })
    expect(look('keep-riding', '2026-04-30', '2026-05-01')).toMatchObject({ plate: 'dashed', overdue: true })
  })
  it('stays what it is when it asks for more than a look', () => {
    expect(look('closing-in', '2026-04-30', '2026-05-01')).toMatchObject({ plate: 'notched', overdue: false })
    expect(look('change', null, '2026-05-01')).toMatchObject({ plate: 'parted', overdue: false })
  })
  it('tells verdicts apart by shape, not by colour alone', () => {
    const {
      change,
      'closing-in': closing,
      'keep-riding': riding,
      'measure-again': again,
      'not-measured-yet': none,
    } = VERDICT_LOOK
    expect(new Set([change, closing, riding, again, none].map((look) => look.plate)).size).toBe(5)
  })
})
