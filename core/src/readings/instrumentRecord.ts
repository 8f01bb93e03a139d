import type { Assumptions } from '../assumptions.ts'
import { KINDS, type InstrumentKind } from './instrumentKinds.ts'
import type { RuleMaterial } from './temperature.ts'

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
  return record.uMm ?? assumedOf(record.kind, assumed)
}

/** What is assumed of a kind's own uncertainty: mm of a length, % of anything else. */
const assumedOf = (kind: InstrumentKind, { measuring }: Assumptions): number => {
  const { u } = KINDS[kind]
  if (u === null) throw new RangeError(`a ${kind} reading has no uncertainty`)
  return measuring[u]
}

/** Standard uncertainty of a gauge's reading or mark, %. */
export function scaleU(record: Pick<InstrumentRecord, 'kind' | 'u'>, assumed: Assumptions): number {
  return record.u ?? assumedOf(record.kind, assumed)
}

/** Why a gauge's marks cannot be as told. Keys of the message catalogue. */
export type MarksProblem = 'marks-none' | 'marks-order' | 'marks-range' | 'marks-too-many'

/** What is wrong with a gauge's marks; null when nothing is. Marks are in %, ascending, 0.1 to 1.5; a two-pin gauge has more of them. */
export function marksProblem(marks: readonly number[], kind: InstrumentKind): MarksProblem | null {
  if (marks.length === 0) return 'marks-none'
  if (marks.length > KINDS[kind].marks) return 'marks-too-many'
  if (marks.some((mark) => !(mark >= 0.1 && mark <= 1.5))) return 'marks-range'
  return marks.every((mark, i) => i === 0 || mark > marks[i - 1]!) ? null : 'marks-order'
}
