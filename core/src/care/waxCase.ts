import type { CareKind } from '../forecast/priors.ts'
import { isWaxed } from '../jobs/jobPlan.ts'
import type { Cleaning } from './cleaning.ts'

/** What a chain is when it goes into the wax: each is done in its own way. */
export const WAX_CASES = ['first', 'rewax', 'rewax-wet', 'rewax-gritty', 'ready-waxed'] as const
export type WaxCase = (typeof WAX_CASES)[number]

/** What is done with old wax before new wax goes over it, after dry rides: schools differ. */
export const REWAX_SCHOOLS = ['nothing', 'boil', 'bath'] as const
export type RewaxSchool = (typeof REWAX_SCHOOLS)[number]

/** What is known of a chain that goes into the wax. */
export interface ToWax {
  /** What it had before. */
  readonly before: CareKind
  /** Somebody treated it before, here or at home. */
  readonly treated: boolean
  /** Its box's own wax is its first coat. */
  readonly readyWaxed: boolean
  /** Washed, and not treated since. */
  readonly washed: boolean
  /** Ridden so far since it was treated last, km. */
  readonly ridden: { readonly wet: number; readonly gritty: number }
}

/**
 * What a chain is when it goes into the wax. One that had oil, or nobody knows what, has its first; grit comes before water, since it stays
 * under new wax and grinds.
 */
export function waxCaseOf({ before, treated, readyWaxed, washed, ridden }: ToWax): WaxCase {
  if (!treated && readyWaxed) return 'ready-waxed'
  if (!treated || !isWaxed(before)) return 'first'
  if (ridden.gritty > 0) return 'rewax-gritty'
  return washed || ridden.wet > 0 ? 'rewax-wet' : 'rewax'
}

const AFTER_DRY: Readonly<Record<RewaxSchool, Cleaning>> = { nothing: 'wipe', boil: 'boil', bath: 'strip' }

/**
 * How a chain is cleaned before it is waxed: down to bare metal the first time; after wet or gritty rides in boiling water, or in the bath
 * where the house always does; after dry ones as the house has it.
 */
export function cleaningForWax(waxCase: WaxCase, school: RewaxSchool): Cleaning {
  if (waxCase === 'first') return 'strip'
  if (waxCase === 'ready-waxed') return 'wipe'
  if (waxCase === 'rewax') return AFTER_DRY[school]
  return school === 'bath' ? 'strip' : 'boil'
}
