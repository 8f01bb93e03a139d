import { gradesOf, wearItem, WEAR_RESULTS, type ToothGrade, type WearItemId, type WearResult } from '@pelrin/core'
import type { FittedPart, TakeWearCheck } from '@pelrin/contract'

/** What was chosen or typed for one item in this pass. */
export interface Line {
  readonly grade?: ToothGrade
  readonly result?: WearResult
  readonly typed?: string
  readonly minimumTyped?: string
  readonly renewed?: boolean
  readonly fitted?: FittedPart
}
export type Pass = Readonly<Partial<Record<WearItemId, Line>>>

/** What a digit chooses at an item; null where it is none of its choices, or belongs into a field. */
export function chosenBy(item: WearItemId, digit: number): Line | null {
  const { kind } = wearItem(item)
  const grade = gradesOf(item)[digit - 1]
  const result = WEAR_RESULTS[digit - 1]
  if (kind === 'teeth') return grade === undefined ? null : { grade }
  if (kind === 'look') return result === undefined ? null : { result }
  return null
}

const given = ({ grade, result, typed = '' }: Line): boolean =>
  grade !== undefined || result !== undefined || typed.trim() !== ''

/** The looks of a pass as they are sent: items nothing was said of are left as they were. */
export function looksOf(items: readonly WearItemId[], pass: Pass, newId: () => string): TakeWearCheck[] {
  return items.flatMap((item) => {
    const line = pass[item]
    if (!line || !given(line)) return []
    const { grade = null, result = null, typed = '', minimumTyped = '', renewed = false, fitted = null } = line
    return [
      {
        id: newId(),
        item,
        grade,
        result,
        typed: typed.trim() === '' ? null : typed.trim(),
        minimumTyped: minimumTyped.trim() === '' ? null : minimumTyped.trim(),
        renewed,
        fitted: renewed ? fitted : null,
        note: null,
      },
    ]
  })
}
