import type { WearItemId } from '../otherWear/items.ts'
import type { PartKind } from '../parts/partFields.ts'

/** Why a part that is no chain came off. */
export const COMPONENT_ENDS = ['worn', 'damaged', 'swapped'] as const
export type ComponentEnd = (typeof COMPONENT_ENDS)[number]

/** Which kind of the catalogue an item of a bike is one of; null where the catalogue has none. */
export const KIND_OF_ITEM: Readonly<Record<WearItemId, PartKind | null>> = {
  cassette: 'cassette',
  rings: 'ring',
  pulleys: 'pulley',
  'rotor-front': 'rotor',
  'rotor-rear': 'rotor',
  'pads-front': 'pads',
  'pads-rear': 'pads',
  headset: null,
  bearings: null,
  tyres: 'tyre',
}

/**
 * Looks at the one that is on now: those taken since it was fitted. What was seen of the one before says nothing of it.
 *
 * @param since when it came on; null where nobody said
 */
export const ofPresent = <Look extends { readonly at: Date }>(
  looks: readonly Look[],
  since: Date | null,
): readonly Look[] => (since === null ? looks : looks.filter(({ at }) => at >= since))
