import { entryForm, type InstrumentKind, type RULE_MATERIALS, KINDS } from '@pelrin/core'
import type { InstrumentHistory } from '@pelrin/contract'
import { asTyped, numberIn, textIn } from '../../forms/typed.ts'
import { typedNumber } from '../../messages/typedNumber.ts'

/** An instrument's record as typed. */
export interface TypedRecord {
  kind: InstrumentKind
  name: string
  u: string
  bias: string
  biasU: string
  marks: string
  changeMark: string
  material: (typeof RULE_MATERIALS)[number]
  rollerMm: string
  seesRollerWear: boolean
  outOfUse: boolean
  connection: string
  reason: string
}

export function typedRecord(history: InstrumentHistory | null): TypedRecord {
  const known = history?.instrument
  return {
    kind: known?.kind ?? 'steel-rule',
    name: known?.name ?? '',
    u: asTyped(known?.uMm ?? known?.u),
    bias: asTyped(known?.bias ?? 0),
    biasU: asTyped(known?.biasU ?? 0),
    marks: known?.marks?.join(' ') ?? '',
    changeMark: asTyped(known?.changeMark),
    material: known?.material ?? 'steel',
    rollerMm: asTyped(known?.rollerMm),
    seesRollerWear: known?.seesRollerWear ?? false,
    outOfUse: known?.standing === 'out-of-use',
    connection: history?.connection ?? '',
    reason: '',
  }
}

/** Whether a kind has marks a chain is held against. */
export const hasMarks = (kind: InstrumentKind): boolean => KINDS[kind].marks > 0

/** What is typed of an instrument, as it is written; what its kind has not is left empty. */
export function recordIn({ kind, ...typed }: TypedRecord) {
  const isLength = entryForm(kind) === 'length'
  const marks =
    textIn(typed.marks) === null
      ? null
      : typed.marks
          .trim()
          .split(/[\s;/·]+/)
          .map((one) => typedNumber(one) ?? NaN)
  return {
    uMm: isLength ? numberIn(typed.u) : null,
    u: isLength ? null : numberIn(typed.u),
    bias: numberIn(typed.bias) ?? 0,
    biasU: numberIn(typed.biasU) ?? 0,
    marks: hasMarks(kind) ? marks : null,
    changeMark: numberIn(typed.changeMark),
    material: typed.material,
    rollerMm: KINDS[kind].jaws === true ? numberIn(typed.rollerMm) : null,
    seesRollerWear: typed.seesRollerWear,
  }
}
