import type { ReuseClass, RuleOutcome } from './describe.ts'

/** A link its maker lets be closed once and never again. */
export const isOneUse = ({ kind }: Pick<ReuseClass, 'kind'>): boolean => kind === 'once'

/** Whether closings are counted to the maker's word, or a link is used while it clicks firmly. */
export const REUSE_SCHOOLS = ['strict', 'by-feel'] as const
export type ReuseSchool = (typeof REUSE_SCHOOLS)[number]
/** How a link or clip was used so far. */
export interface JointUse {
  readonly reuse: ReuseClass
  /** How often this very one was closed; 0 new; null where nobody counted. */
  readonly closings: number | null
  /** Whether it still clicks firmly, where it was tried. */
  readonly firm?: boolean | undefined
}

/**
 * Whether a link or clip may be closed once more on the chain it belongs to: by its maker's count, or by feel, which is always
 * a caution. One that does not click firmly never.
 */
export function judgeReuse({ reuse, closings, firm }: JointUse, school: ReuseSchool): Omit<RuleOutcome, 'rule'> {
  if (closings === 0) return { outcome: 'fits', reason: 'reuse-new' }
  if (firm === false) return { outcome: 'does-not-fit', reason: 'reuse-not-firm' }
  if (closings === null && reuse.kind !== 'firm')
    return { outcome: 'not-known', reason: 'reuse-uncounted', missing: 'closings' }
  const counted = closings ?? 0
  const most = reuse.kind === 'once' ? 1 : reuse.kind === 'times' ? reuse.most : Infinity
  const values = { closings: counted, most: Number.isFinite(most) ? most : 0 }
  if (counted < most) return { outcome: 'fits', reason: reuse.kind === 'firm' ? 'reuse-firm' : 'reuse-within', values }
  return school === 'by-feel'
    ? { outcome: 'caution', reason: 'reuse-by-feel', values }
    : { outcome: 'does-not-fit', reason: 'reuse-spent', values }
}
