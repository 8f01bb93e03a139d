import type { VerdictWord } from '@pelrin/core'
import type { Drawing, InkName, Shape } from './shapes.ts'

/** The plate a verdict is drawn as. */
export type PlateShape = 'whole' | 'notched' | 'parted' | 'dashed' | 'toothed' | 'bare'

/** How each verdict looks: never by colour alone. */
export const VERDICT_PLATE: Readonly<
  Record<VerdictWord, { readonly plate: PlateShape; readonly colour: Exclude<InkName, 'own'> }>
> = {
  'keep-riding': { plate: 'whole', colour: 'steel' },
  'closing-in': { plate: 'notched', colour: 'brass' },
  change: { plate: 'parted', colour: 'madder' },
  'measure-again': { plate: 'dashed', colour: 'ink' },
  'measure-it': { plate: 'dashed', colour: 'ink' },
  'not-measured-yet': { plate: 'bare', colour: 'faint' },
}

/** The outline of an outer chain plate, 32 × 16, waist and all. */
const OUTLINE = 'M8 1C12 1 12.6 4 16 4S20 1 24 1a7 7 0 0 1 0 14c-4 0-4.600-3-8-3S12 15 8 15A7 7 0 0 1 8 1Z'
/** Pin holes. */
const HOLES =
  'M8 5.300a2.700 2.700 0 1 0 0 5.400 2.700 2.700 0 0 0 0-5.400ZM24 5.300a2.700 2.700 0 1 0 0 5.400 2.700 2.700 0 0 0 0-5.400Z'

/** A verdict's shape, at any size, 32 × 16. */
export function plateDrawing(shape: PlateShape): Drawing {
  const solid = (d: string): Shape => ({ kind: 'path', d, fill: 'own', evenOdd: true })
  const shapes: Record<PlateShape, readonly Shape[]> = {
    whole: [solid(OUTLINE + HOLES)],
    bare: [{ kind: 'path', d: OUTLINE + HOLES, stroke: 'own', width: 1.3 }],
    dashed: [{ kind: 'path', d: OUTLINE, stroke: 'own', width: 2.2, dash: [4.6, 3.1] }],
    // A wedge sawn in from above, down past the middle.
    notched: [
      solid(
        `M8 1C10.500 1 11.600 2.200 12.600 3.100L16 11 19.400 3.100C20.400 2.200 21.500 1 24 1a7 7 0 0 1 0 14c-4 0-4.600-2.200-8-2.200S12 15 8 15A7 7 0 0 1 8 1Z${HOLES}`,
      ),
    ],
    // Broken through the waist, the halves slipped apart.
    parted: [
      solid(
        'M7.500 0C11 0 12 2.400 15.600 3L11.800 9.600 14.600 10.300C12 12 11 14 7.500 14a7 7 0 0 1 0-14ZM7.500 4.300a2.700 2.700 0 1 0 0 5.400 2.700 2.700 0 0 0 0-5.400Z',
      ),
      solid(
        'M24.500 2a7 7 0 0 1 0 14c-3.500 0-4.600-2.200-7.400-2.800L20.400 7.200 17.600 6.500C20 4.600 21.200 2 24.500 2ZM24.500 6.300a2.700 2.700 0 1 0 0 5.400 2.700 2.700 0 0 0 0-5.400Z',
      ),
    ],
    // A row of teeth where the lower edge was.
    toothed: [
      solid(
        'M8 1H24A7 7 0 0 1 31 8V10L28.500 15.500 26 10 23.500 15.500 21 10 18.500 15.500 16 10 13.500 15.500 11 10 8.500 15.500 6 10 3.500 15.500 1 10V8A7 7 0 0 1 8 1Z',
      ),
    ],
  }
  return { width: 32, height: 16, shapes: shapes[shape] }
}
