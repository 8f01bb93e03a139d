import type { JointModel } from './describe.ts'

/** What taking a chain off often costs in links of one kind. */
export interface HabitCost {
  /** Links used up in a year; null where they last until they no longer click. */
  readonly linksAYear: number | null
  /** In minor units; null where the price is not known or none are used up. */
  readonly cost: number | null
}

/**
 * Links of one kind that a chain uses up in a year of being taken off so often. Each removal is one closing; the link it
 * was fitted with is the first.
 */
export function linksAYear({ kind, reuse, price }: JointModel, removals: number): HabitCost {
  if (kind !== 'pin' && reuse.kind === 'firm') return { linksAYear: null, cost: null }
  const closingsEach = kind === 'pin' || reuse.kind !== 'times' ? 1 : Math.max(1, reuse.most)
  const links = Math.ceil(removals / closingsEach)
  return { linksAYear: links, cost: price === null ? null : links * price }
}
