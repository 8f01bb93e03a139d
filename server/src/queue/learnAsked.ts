import type { Assumptions, CareKind, LearningChain, Surface } from '@pelrin/core'
import type { LearnedGroup, LearnedUnsaid } from '@pelrin/contract'

/** A chain to learn from: every one with two readings or more, finished, running and changed early alike. */
export interface TaughtChain {
  readonly care: CareKind
  /** What its bike is ridden on most; null when nobody said. */
  readonly surface: Surface | null
  readonly chain: LearningChain
}

/** What a thread is given to learn from. */
export interface LearnAsked {
  readonly chains: readonly TaughtChain[]
  readonly assumed: Assumptions
}

/** What a learning came to. */
export interface Learned {
  readonly groups: LearnedGroup[]
  /** Of bikes nobody says the surface of; null with too few. */
  readonly unsaid: LearnedUnsaid | null
}
