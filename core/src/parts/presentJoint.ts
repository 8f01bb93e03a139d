/** What a chain on a bike is closed with now. */
export const PRESENT_JOINTS = ['link', 'pin', 'riveted', 'clip'] as const
export type PresentJoint = (typeof PRESENT_JOINTS)[number]
/** What is seen on the one link that looks different, if any does. */
export interface JointSigns {
  /** Holes beside two pins are elongated, on opposite sides. */
  readonly elongatedHoles: boolean
  /** A plate of spring steel holds two pins. */
  readonly springPlate: boolean
  /** One pin's end looks different from all others. */
  readonly oddPin: boolean
}

/**
 * What a chain is closed with, by what is seen: the way of opening follows from it.
 *
 * @returns null where two signs speak against each other: look again
 */
export function presentJoint({ elongatedHoles, springPlate, oddPin }: JointSigns): PresentJoint | null {
  if (elongatedHoles && springPlate) return null
  if (springPlate) return 'clip'
  if (elongatedHoles) return 'link'
  return oddPin ? 'pin' : 'riveted'
}
