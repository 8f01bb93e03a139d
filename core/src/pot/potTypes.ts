/** How a chain is waxed: schools differ. */
export const POT_RECIPES = ['soak-and-hang', 'bubble-out', 'cool-draw'] as const
export type PotRecipe = (typeof POT_RECIPES)[number]

/** What a chain wants before it may go into the wax. */
export const POT_NEEDS = ['strip', 'dry', 'nothing'] as const
export type PotNeed = (typeof POT_NEEDS)[number]

/**
 * How far a chain is. Minutes are counted from the moment planned at: what was begun lies before it, so it is 0 or less.
 */
export type PotStage =
  | { readonly kind: 'waiting' }
  | { readonly kind: 'stripping'; readonly since: number }
  | { readonly kind: 'drying'; readonly since: number }
  | { readonly kind: 'in-pot'; readonly since: number; readonly pot: string }
  | { readonly kind: 'hanging'; readonly since: number }

/** A chain that waits for the pot. */
export interface PotChain {
  readonly id: string
  /** Minute by which it is wanted, flexed and clean; null: whenever. May lie in the past. */
  readonly readyBy: number | null
  readonly needs: PotNeed
  readonly recipe: PotRecipe
  /** It goes into the wax at this minute or later: pinned by hand. */
  readonly notBefore?: number
  readonly stage: PotStage
}

/** A pot as it stands. */
export interface Pot {
  readonly id: string
  /** Chains in one dip. */
  readonly capacity: number
  /** Minute at which its wax is molten: 0 or less for a hot one. */
  readonly hotAt: number
}

/** What a dip by a recipe takes, minutes. */
export interface RecipeTimes {
  /** In molten wax. */
  readonly minutes: number
  /** Hands on, to draw and hang what was in. */
  readonly drawMinutes: number
  /** The pot's way back to hot after it. */
  readonly reheatMinutes: number
}

/** What the shop has and how long things take there. */
export interface PotShop {
  readonly pots: readonly Pot[]
  /** Chains in the stripping bath at a time. */
  readonly stripCapacity: number
  /** Chains on the rail at a time. */
  readonly railCapacity: number
  /** Hands at work. */
  readonly mechanics: number
  readonly stripMinutes: number
  /** Hands on, of those. */
  readonly stripHandsMinutes: number
  readonly dryMinutes: number
  readonly loadMinutes: number
  readonly hangMinutes: number
  readonly flexMinutes: number
  readonly recipes: Readonly<Record<PotRecipe, RecipeTimes>>
}

export interface PotInput {
  readonly chains: readonly PotChain[]
  readonly shop: PotShop
}

/** From one minute to another. */
export interface Span {
  readonly from: number
  readonly to: number
}

/** Chains that go into a pot together. */
export interface PotDip {
  readonly pot: string
  readonly chains: readonly string[]
  readonly recipe: PotRecipe
  readonly load: Span
  readonly draw: Span
  /** True where it is in the wax already. */
  readonly begun: boolean
}

/** One chain's way through. A part it does not need, or that lies behind it, is null. */
export interface ChainPlan {
  readonly id: string
  readonly strip: Span | null
  readonly dry: Span | null
  /** From when it is loaded until it hangs; null where it hangs already. */
  readonly dip: Span | null
  readonly hang: Span
  readonly flex: Span
  /** Minutes after it was promised; 0 where it is in time, or nobody waits for it. */
  readonly late: number
}

/** Work with hands on. */
export interface HandsOn extends Span {
  readonly mechanic: number
  readonly what: 'strip' | 'load' | 'draw' | 'flex'
  readonly chains: readonly string[]
}

/** What a plan is judged by, in this order: less is better. */
export interface PotScore {
  /** Minutes late, over all chains. */
  readonly late: number
  /** Minute the last chain is ready. */
  readonly finish: number
  /** How often somebody has to come back to the pot. */
  readonly interruptions: number
}

export interface PotPlan extends PotScore {
  readonly dips: readonly PotDip[]
  readonly chains: readonly ChainPlan[]
  readonly hands: readonly HandsOn[]
}

/** Whether a plan is better than another. */
export const isBetter = (one: PotScore, other: PotScore): boolean =>
  one.late !== other.late
    ? one.late < other.late
    : one.finish !== other.finish
      ? one.finish < other.finish
      : one.interruptions < other.interruptions
