/** Where a whole mark of the rule lies on the last pin, as a picture shows it. */
export const PIN_PICTURES = ['centre', 'half', 'edge', 'clear'] as const
export type PinPicture = (typeof PIN_PICTURES)[number]

/**
 * How far the pin's centre stands past the mark, mm: nothing, a quarter of the pin, half of it. `clear` of the
 * mark is at least half of it.
 */
export function pastMarkOf(picture: PinPicture, pinMm: number): number {
  return picture === 'centre' ? 0 : picture === 'half' ? pinMm / 4 : pinMm / 2
}
