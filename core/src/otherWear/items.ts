import type { Assumptions } from '../assumptions.ts'
import type { DriveType } from '../limits/houseRules.ts'

/** How an item is judged: by the shape of its teeth, by its thickness, or by a look. */
export type WearItemKind = 'teeth' | 'rotor' | 'look'

/** What else wears on a bike on the stand, in the order one pass looks at it. */
export const WEAR_ITEMS = [
  { id: 'cassette', kind: 'teeth', due: 'teethKm' },
  { id: 'rings', kind: 'teeth', due: 'teethKm' },
  { id: 'pulleys', kind: 'teeth', due: 'teethKm' },
  { id: 'rotor-front', kind: 'rotor', due: 'rotorKm' },
  { id: 'rotor-rear', kind: 'rotor', due: 'rotorKm' },
  { id: 'pads-front', kind: 'look', due: 'padsKm' },
  { id: 'pads-rear', kind: 'look', due: 'padsKm' },
  { id: 'headset', kind: 'look', due: 'bearingsKm' },
  { id: 'bearings', kind: 'look', due: 'bearingsKm' },
  { id: 'tyres', kind: 'look', due: 'tyresKm' },
] as const satisfies readonly {
  readonly id: string
  readonly kind: WearItemKind
  readonly due: keyof Assumptions['otherWear']
}[]

export type WearItemId = (typeof WEAR_ITEMS)[number]['id']
export const WEAR_ITEM_IDS: readonly WearItemId[] = WEAR_ITEMS.map(({ id }) => id)

/** Shapes of teeth, new first. Words for them are used both ways, so that a picture is chosen. */
export const TOOTH_GRADES = ['as-new', 'used', 'worn', 'done'] as const
export type ToothGrade = (typeof TOOTH_GRADES)[number]

/** A pulley's teeth go from crisp over rounded to pointed: three shapes of its own, each graded as a tooth of the same wear. */
export const PULLEY_GRADES = ['as-new', 'worn', 'done'] as const satisfies readonly ToothGrade[]
export type PulleyGrade = (typeof PULLEY_GRADES)[number]

/** Shapes an item's teeth are told by. */
export const gradesOf = (id: WearItemId): readonly ToothGrade[] => (id === 'pulleys' ? PULLEY_GRADES : TOOTH_GRADES)

/** How a slot gauge of the minimum's width goes on a rotor: it stays off, or goes over, and the rotor is done. */
export const SLOT_RESULTS = ['good', 'change'] as const satisfies readonly WearResult[]

/** What a look comes to. */
export const WEAR_RESULTS = ['good', 'watch', 'change'] as const
export type WearResult = (typeof WEAR_RESULTS)[number]

export const wearItem = (id: WearItemId): (typeof WEAR_ITEMS)[number] => WEAR_ITEMS.find((item) => item.id === id)!

/** What a tooth's shape comes to: worn teeth still take the chain that wore them, and skip under a new one. */
export const resultOfGrade = (grade: ToothGrade): WearResult =>
  grade === 'done' ? 'change' : grade === 'worn' ? 'watch' : 'good'

/** The items there are on a bike. A brake nobody said anything of may have rotors. */
export function itemsOf(bike: { readonly type: DriveType; readonly discBrake: boolean | null }): WearItemId[] {
  return WEAR_ITEMS.filter(
    ({ id, kind }) =>
      (id !== 'pulleys' || bike.type === 'derailleur') && (kind !== 'rotor' || bike.discBrake !== false),
  ).map(({ id }) => id)
}

/**
 * Distance after which an item is looked at again, km; 0 where it is due now.
 *
 * @param result what the last look came to
 */
export function dueAgainKm(id: WearItemId, result: WearResult, assumed: Assumptions['otherWear']): number {
  if (result === 'change') return 0
  return assumed[wearItem(id).due] * (result === 'watch' ? assumed.watchShare : 1)
}
