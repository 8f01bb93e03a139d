import { DEFAULTS } from '../defaults.ts'

/** What a caliper's jaws touch. */
export const CALIPER_MODES = ['pin-to-pin', 'inside-rollers', 'outside-rollers'] as const
export type CaliperMode = (typeof CALIPER_MODES)[number]
/**
 * The distance between pin centres a caliper reading stands for, mm.
 *
 * Jaws inside two rollers fall one roller diameter short of the pins, jaws outside them one too long.
 * Both of these also see roller wear, which is not elongation.
 *
 * @param reading `readingMm` as shown, mm; `mode`; `rollerMm` diameter of a roller, mm (left out: the shipped 7.75; the product always gives it)
 * @throws RangeError when the reading is not above 0, or is no longer than the roller it contains
 */
export function pinSpanFromCaliper({
  readingMm,
  mode,
  rollerMm = DEFAULTS.measuring.rollerMm,
}: {
  readingMm: number
  mode: CaliperMode
  rollerMm?: number
}): number {
  if (!(readingMm > 0) || !Number.isFinite(readingMm)) throw new RangeError('readingMm must be above 0')
  switch (mode) {
    case 'pin-to-pin':
      return readingMm
    case 'inside-rollers':
      return readingMm + rollerMm
    case 'outside-rollers': {
      const spanMm = readingMm - rollerMm
      if (spanMm <= 0) throw new RangeError('readingMm must be longer than one roller')
      return spanMm
    }
  }
}
