import type { ChainModel, JointModel } from './describe.ts'
import type { CassetteModel, DerailleurModel, RingModel } from './otherParts.ts'
import { COMMON_FIELDS, PART_FIELDS, PART_KINDS, type PartField, type PartKind, type PartNames } from './partFields.ts'
import {
  cassetteProblems,
  chainProblems,
  derailleurProblems,
  jointProblems,
  ringProblems,
  type PartProblemAt,
} from './partProblems.ts'

/** A part as a catalogue keeps it: what all have, and what its kind has. */
export interface CataloguePart {
  readonly kind: PartKind
  readonly maker: string
  readonly name: string
  /** In minor units; null: not known. */
  readonly price: number | null
  readonly stock: number
  /** At so many or fewer it is time to order. */
  readonly reorderPoint: number
  readonly facts: Readonly<Record<string, unknown>>
}

/** A part in words, field by field, as forms and tables have it. */
export type PartCells = Readonly<Record<string, string>>

export type PartRead =
  | { readonly ok: true; readonly part: CataloguePart }
  | { readonly ok: false; readonly problems: readonly PartProblemAt[] }

const FIELDS = Object.fromEntries(
  PART_KINDS.map((kind) => [kind, [...COMMON_FIELDS, ...PART_FIELDS[kind]]]),
) as unknown as Readonly<Record<PartKind, readonly PartField[]>>

/** Every field of a kind, the common ones first. */
export const fieldsOf = (kind: PartKind): readonly PartField[] => FIELDS[kind]

/** Every column a table of parts can have, of any kind. */
export const PART_COLUMNS: readonly string[] = [
  'kind',
  ...new Set(PART_KINDS.flatMap((kind) => FIELDS[kind].map(({ key }) => key))),
]

/** What a kind's facts must be among themselves. */
function problemsOf({ kind, facts, ...part }: CataloguePart): PartProblemAt[] {
  const model = { id: '', ...part, ...facts } as unknown
  switch (kind) {
    case 'chain':
      return chainProblems(model as ChainModel)
    case 'link':
    case 'pin':
    case 'clip':
      return jointProblems({ ...(model as JointModel), kind })
    case 'ring':
      return ringProblems(model as RingModel)
    case 'derailleur':
      return derailleurProblems(model as DerailleurModel)
    case 'cassette':
      return cassetteProblems(model as CassetteModel)
    case 'pulley':
    case 'rotor':
    case 'pads':
    case 'tyre':
    case 'consumable':
    case 'tool':
      // Nothing follows from what is said of them.
      return []
  }
}

/**
 * Reads a part from its words: numbers with point or comma, `yes` and `no`, speeds as `6-8`, systems by name. What has no
 * word is as its field says: not known, none, or wanted.
 *
 * @returns the part, or everything that is wrong with it, each at its field (never throws)
 */
export function readPart(cells: PartCells, names: PartNames): PartRead {
  const said = (key: string): string => (cells[key] ?? '').trim()
  const kind = PART_KINDS.find((one) => one === said('kind').toLowerCase())
  if (kind === undefined) return { ok: false, problems: [{ at: 'kind', problem: 'part-kind-unknown' }] }
  const problems: PartProblemAt[] = []
  const take = (fields: readonly PartField[]): Record<string, unknown> =>
    Object.fromEntries(
      fields.map(({ key, read }) => {
        const found = read(said(key), { names, maker: said('maker') })
        if ('problem' in found) problems.push({ at: key, problem: found.problem })
        return [key, 'problem' in found ? undefined : found.value]
      }),
    )
  const common = take(COMMON_FIELDS) as unknown as Omit<CataloguePart, 'kind' | 'facts'>
  const part: CataloguePart = { kind, ...common, facts: take(PART_FIELDS[kind]) }
  if (problems.length === 0) problems.push(...problemsOf(part))
  if (problems.length === 0 && part.reorderPoint < 0) problems.push({ at: 'reorderPoint', problem: 'reorder-negative' })
  return problems.length > 0 ? { ok: false, problems } : { ok: true, part }
}

/** A part in words: read again, they give the same part. */
export function writePart({ kind, facts, ...common }: CataloguePart, names: PartNames): PartCells {
  const values: Readonly<Record<string, unknown>> = { ...common, ...facts }
  return {
    kind,
    ...Object.fromEntries(fieldsOf(kind).map(({ key, write }) => [key, write(values[key], names)])),
  }
}
