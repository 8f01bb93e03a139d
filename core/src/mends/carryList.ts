import type { DriveType } from '../limits/houseRules.ts'

/** What a rider takes along for a chain that breaks on the way. */
export const CARRY_ITEMS = ['spare', 'chain-tool', 'link-pliers', 'spare-piece', 'axle-spanner', 'gloves'] as const
export type CarryItem = (typeof CARRY_ITEMS)[number]

/**
 * What this bike's rider should have along, the spare link first.
 *
 * @param openedBy how the spare link is opened: one that a hand opens needs no pliers
 * @param piece pitches of the same chain that were kept, 0 with none
 */
export function carryList({
  type,
  openedBy,
  piece,
}: {
  readonly type: DriveType
  readonly openedBy: 'hand' | 'pliers' | 'never' | null
  readonly piece: number
}): CarryItem[] {
  const wanted: Readonly<Record<CarryItem, boolean>> = {
    spare: true,
    'chain-tool': true,
    'link-pliers': openedBy !== 'hand',
    'spare-piece': piece >= 2,
    // An axle that takes up the slack has to be moved.
    'axle-spanner': type !== 'derailleur',
    gloves: true,
  }
  return CARRY_ITEMS.filter((item) => wanted[item])
}
