import { linesPrice } from '../economics/jobCost.ts'
import type { WantedPart } from './shopping.ts'

/** One line of what a job takes, as the shelf stands. */
export interface JobLine extends WantedPart {
  readonly name: string
  /** Of one, in minor units; null where nobody said. */
  readonly price: number | null
  /** Pieces that lie here for it. */
  readonly here: number
  readonly onOrder: number
}

/** How many of a line are neither here nor coming; what is in another part's box is never missing. */
export const missingOf = ({ included, quantity, here, onOrder }: JobLine): number =>
  included ? 0 : Math.max(0, quantity - here - onOrder)

/** What lines come to, in minor units, without what is in another part's box; null where a price is not known. */
export const costOfLines = (lines: readonly JobLine[]): number | null =>
  linesPrice(lines.filter(({ included }) => !included))

/** What is put aside for a bike's job. */
interface Kept {
  /** The count its chain is cut to; null where it is not known. */
  readonly pitches: number | null
  readonly lines: readonly JobLine[]
}

/** Whether what is chosen is something else than what is put aside: another count, or a line that is not among it. */
export const differsFromKept = (kept: Kept, chosen: readonly JobLine[], pitches: number | null): boolean =>
  chosen.length > 0 &&
  (kept.pitches !== pitches ||
    chosen.some(
      ({ partId, quantity }) => !kept.lines.some((line) => line.partId === partId && line.quantity === quantity),
    ))

/**
 * What is put aside for the other chain of a tandem, whose two are kept together: lines that are not of the chains and joints that fit the
 * chain parts are chosen for now.
 *
 * @param fitting ids of every part that fits the chain parts are chosen for
 */
export const keptForOtherChain = (kept: readonly JobLine[], fitting: ReadonlySet<string>): JobLine[] =>
  kept.filter(({ partId }) => !fitting.has(partId))
