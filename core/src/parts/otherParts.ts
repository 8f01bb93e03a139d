import type { WidthClass } from './describe.ts'

/** What every part of the catalogue has. */
export interface PartCommon {
  readonly id: string
  readonly maker: string
  readonly name: string
  /** In minor units of the shop's money; null: not known. */
  readonly price: number | null
  readonly stock: number
}

/** A cassette, freewheel or single sprocket as the catalogue describes it. */
export interface CassetteModel extends PartCommon {
  /** Teeth, smallest first; their count is its speeds. */
  readonly sprockets: readonly number[]
  readonly systems: readonly string[]
}

/** A ring, or a set of rings, as the catalogue describes it. */
export interface RingModel extends PartCommon {
  readonly teeth: readonly number[]
  readonly width: WidthClass
  /** Its teeth are wide and narrow by turns: the chain's outer links go on the wide ones. */
  readonly wideNarrow: boolean
  readonly speeds: readonly number[]
}

/** A rear derailleur as the catalogue describes it. */
export interface DerailleurModel extends PartCommon {
  readonly speeds: readonly number[]
  readonly systems: readonly string[]
  readonly capacityTeeth: number
  readonly largestSprocketTeeth: number
  /** Upper, then lower. */
  readonly pulleys: readonly number[]
  readonly clutch: boolean
  readonly cageLock: boolean
  /** Pitches its maker adds to the loop; null where nothing is said. */
  readonly addPitches: number | null
  /** The same on a frame with full suspension; null where nothing is said. */
  readonly addPitchesSuspended?: number | null
  /** Whether that figure counts its own pulleys. */
  readonly pulleysCounted: boolean
}
