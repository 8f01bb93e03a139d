import type { Explanation } from '../explanation.ts'
import type { AssumptionOverrides } from '../assumptions.ts'
import type { InstrumentKind } from '../readings/instrumentKinds.ts'
import type { DriveType, HouseRule, School } from './houseRules.ts'

export const VERDICT_WORDS = [
  'measure-it',
  'not-measured-yet',
  'measure-again',
  'keep-riding',
  'closing-in',
  'change',
] as const
export type VerdictWord = (typeof VERDICT_WORDS)[number]
export const SPROCKET_ADVICES = ['try-the-sprockets', 'check-everything'] as const
export type SprocketAdvice = (typeof SPROCKET_ADVICES)[number]
/** The ordered procedure's steps. */
export const VERDICT_STEPS = ['D0', 'D1', 'D2', 'D3', 'D4', 'D5', 'D6', 'D7'] as const
export type VerdictStep = (typeof VERDICT_STEPS)[number]
/** Something about the readings a mechanic should know, whatever the verdict. */
export type VerdictFlag =
  | 'lower-than-before'
  | 'wide-spread'
  | 'odd-count'
  | 'borderline-mark'
  | 'watch-mark-unseen'
  | 'check-lapsed'
  | 'by-hand-suspicion'
  | 'customer-reading-apart'
  | 'instruments-at-odds'
  /** The chain is worn so far that its teeth are suspect, farther than the gauge could see. */
  | 'teeth-unseen'

/** One spot as it was observed. A point has `value`; a gauge's marks give `over` and `under`. All %. */
export interface VerdictSpot {
  /** The named place round the chain, if it was named. */
  readonly place?: number
  readonly value?: number
  readonly over?: number
  readonly under?: number
  /** Standard uncertainty, without the instrument's shared bias. */
  readonly u: number
  /** Pitches the reading covered, where it covered a run. */
  readonly pitches?: number
  /** A mark went in with a push only. */
  readonly borderline?: boolean
}

/** One session of measuring, as far as judging needs it. */
export interface VerdictReading {
  readonly id: string
  /** When it happened, ms since 1970 UTC. */
  readonly occurredAt: number
  /** What the chain had run by then, km; null when not known. */
  readonly chainKm: number | null
  /** Whose reading it is. Only the shop's own govern. */
  readonly source: 'shop' | 'customer'
  readonly instrument: {
    readonly id: string
    readonly kind: InstrumentKind
    /** Standard uncertainty of its bias, shared by all it reads, %. */
    readonly biasU: number
    /** Its last check was too long ago when the reading was taken. */
    readonly lapsed?: boolean
  }
  readonly spots: readonly VerdictSpot[]
  /** What a check by hand hinted at. */
  readonly hint?: 'worn' | 'nothing'
}

/** An instrument the shop could take next. */
export interface AvailableInstrument {
  readonly id: string
  readonly kind: InstrumentKind
  /** What it is uncertain by on its usual run, %. */
  readonly u: number
  readonly inDate: boolean
  /** Marks of a gauge that only says over or under, %, less its bias. */
  readonly marks?: readonly number[]
}

/** A moment, and what the chain had run by then: an estimate where nothing was written down since. */
export interface AsOf {
  /** ms since 1970 UTC. */
  readonly at: number
  /** km; null when not known. */
  readonly chainKm: number | null
}

export interface ChainVerdictInput {
  /** Readings of this chain in this fitting, none of them superseded, in any order. */
  readonly readings: readonly VerdictReading[]
  readonly drive: { readonly type: DriveType; readonly speeds: number }
  readonly rule: HouseRule
  readonly chain: {
    /** What it has run since it was fitted new here, km; null when it came in with the bike or is not known. */
    readonly kmSinceFittedNew: number | null
    /** When its count last changed (cut, shortened, rejoined), ms; readings before it are of another chain. */
    readonly countChangedAt?: number
  }
  readonly instruments: readonly AvailableInstrument[]
  /** When it is judged; left out: as of the latest reading. */
  readonly asOf?: AsOf
  /** The forecast's chances of being over now and within the look-ahead; absent or null when withheld. */
  readonly forecast?: { readonly overNow: number; readonly overAhead: number } | null
  /** The shop's own values for what is assumed, by key: none in a shop that changed nothing. */
  readonly assumptions: AssumptionOverrides
  /** Other rules to say the word of, for comparison. */
  readonly otherRules?: readonly HouseRule[]
}

/** What would settle a doubt. */
export type Settle =
  | { readonly kind: 'more-spots'; readonly spots: number }
  | { readonly kind: 'better-instrument'; readonly instrumentId: string }
  | { readonly kind: 'instrument-that-can'; readonly instrumentId: string | null }
  | { readonly kind: 'same-spot-with-both' }

/** The raw worst spot of the round. */
export interface RawWorst {
  readonly readingId: string
  /** Position in its reading, from 0. */
  readonly spot: number
  readonly value?: number
  readonly over?: number
  readonly under?: number
  readonly u: number
}

export interface ChainVerdict {
  readonly word: VerdictWord
  readonly advice: SprocketAdvice | null
  readonly flags: readonly VerdictFlag[]
  readonly decidedBy: VerdictStep
  /** Chance, when it was measured, that the worst place is over the limit; null with nothing measured. */
  readonly probabilityOver: number | null
  /** Median of the worst place, %, and half its 16–84 % width. */
  readonly median: number | null
  readonly halfWidth: number | null
  readonly worst: RawWorst | null
  readonly limit: number
  readonly plan: number | null
  readonly watch: number
  readonly spotsMeasured: number
  /** Spots still wanted before the verdict rests on enough of the chain. */
  readonly spotsWanted: number
  /** Largest less smallest point spot, %; null with fewer than two. */
  readonly spread: number | null
  /** With "measure again": what the later steps would say as things stand. */
  readonly otherwise: VerdictWord | null
  readonly settle: readonly Settle[]
  /** Days until the next look where no forecast gives one; 0 is today, null none (the chain is to come off). */
  readonly checkInDays: number | null
  /** The steps taken, in order, with their numbers. */
  readonly steps: readonly Explanation[]
  /** Ids of the readings that counted. */
  readonly countedReadingIds: readonly string[]
  readonly schools: readonly SchoolWord[]
}

/** What another rule would say. */
export interface SchoolWord {
  readonly ruleId: string
  readonly school: School
  readonly word: VerdictWord
  readonly limit: number
  readonly plan: number | null
  readonly probabilityOver: number | null
}
