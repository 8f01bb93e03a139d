import type { Assumptions } from '../assumptions.ts'
import type { RuleMaterial } from './temperature.ts'

export const INSTRUMENT_KINDS = [
  'steel-rule',
  'caliper',
  'drop-in',
  'three-contact',
  'two-pin',
  'swing-arm',
  'graduated',
  'digital',
  'full-length',
  'by-hand',
] as const

export type InstrumentKind = (typeof INSTRUMENT_KINDS)[number]

/** How an instrument's reading is entered: a length, its marks, a place on its scale, or what hands notice. */
export type EntryForm = 'length' | 'marks' | 'scale' | 'signs'

const FORMS: Readonly<Record<InstrumentKind, EntryForm>> = {
  'steel-rule': 'length',
  caliper: 'length',
  'full-length': 'length',
  'drop-in': 'marks',
  'three-contact': 'marks',
  'two-pin': 'marks',
  'swing-arm': 'scale',
  graduated: 'scale',
  digital: 'scale',
  'by-hand': 'signs',
}

export const entryForm = (kind: InstrumentKind): EntryForm => FORMS[kind]

/** What is known of one physical instrument: a version of its record. */
export interface InstrumentRecord {
  readonly kind: InstrumentKind
  /** Standard uncertainty of a length on it, mm; null: the assumed one of its kind. */
  readonly uMm: number | null
  /** Standard uncertainty of a reading or a mark, %; null: the assumed one of its kind. */
  readonly u: number | null
  /** What it reads too much, %: subtracted from every reading and mark. */
  readonly bias: number
  /** Standard uncertainty of that bias, %. */
  readonly biasU: number
  /** A gauge's marks, ascending, %. */
  readonly marks: readonly number[] | null
  /** What a rule or caliper is made of; null counts as steel. */
  readonly material: RuleMaterial | null
  /** The roller its jaws touch, mm; null: the assumed one. */
  readonly rollerMm: number | null
}

/** Standard uncertainty of a length read with an instrument, mm. */
export function lengthUMm(record: Pick<InstrumentRecord, 'kind' | 'uMm'>, assumed: Assumptions): number {
  if (record.uMm !== null) return record.uMm
  const { steelRuleUMm, caliperUMm, fullLengthUMm } = assumed.measuring
  return record.kind === 'caliper' ? caliperUMm : record.kind === 'full-length' ? fullLengthUMm : steelRuleUMm
}

/** Standard uncertainty of a gauge's reading or mark, %. */
export function scaleU(record: Pick<InstrumentRecord, 'kind' | 'u'>, assumed: Assumptions): number {
  if (record.u !== null) return record.u
  const { dropInMarkU, threeContactMarkU, twoPinMarkU, swingArmU, graduatedU, digitalU } = assumed.measuring
  if (record.kind === 'drop-in') return dropInMarkU
  if (record.kind === 'three-contact') return threeContactMarkU
  if (record.kind === 'two-pin') return twoPinMarkU
  if (record.kind === 'swing-arm') return swingArmU
  return record.kind === 'graduated' ? graduatedU : digitalU
}

/** Why a gauge's marks cannot be as told. Keys of the message catalogue. */
export type MarksProblem = 'marks-none' | 'marks-order' | 'marks-range' | 'marks-too-many'

/** What is wrong with a gauge's marks; null when nothing is. Marks are in %, ascending, 0.1 to 1.5; a two-pin gauge has more of them. */
export function marksProblem(marks: readonly number[], kind: InstrumentKind): MarksProblem | null {
  if (marks.length === 0) return 'marks-none'
  if (marks.length > (kind === 'two-pin' ? 16 : 4)) return 'marks-too-many'
  if (marks.some((mark) => !(mark >= 0.1 && mark <= 1.5))) return 'marks-range'
  return marks.every((mark, i) => i === 0 || mark > marks[i - 1]!) ? null : 'marks-order'
}
