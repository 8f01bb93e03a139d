import { DECLARED, type ActsOn, type AssumptionUnit, type Declared } from './declared.ts'
import { DEFAULTS } from './defaults.ts'

/** The values assumed: {@link DEFAULTS}, or those with a shop's own in their places. */
export type Assumptions = typeof DEFAULTS

/** A shop's own values by key, such as `measuring.steelRuleUMm`; keys left out keep the shipped value. */
export type AssumptionOverrides = Readonly<Record<string, number>>

/** One value a shop can change. */
export interface Assumption {
  /** Path in {@link DEFAULTS}; also its key in the message catalogue. */
  readonly key: string
  readonly shipped: number
  readonly unit: AssumptionUnit
  /** What it may be set to, in its unit. */
  readonly lowest: number
  readonly highest: number
  /** True for counts and days. */
  readonly whole: boolean
  readonly actsOn: ActsOn
  /** What it means, in English, to be followed by the value. */
  readonly says: string
}

const listed = (tree: object, path: string): Assumption[] =>
  Object.entries(tree).flatMap(([key, node]: [string, Declared | object]): Assumption[] => {
    if (!('shipped' in node)) return listed(node, `${path}${key}.`)
    const { range, ...declared } = node
    return [{ key: `${path}${key}`, ...declared, lowest: range[0], highest: range[1] }]
  })

/** Every value a shop can change, in the order a screen lists them. */
export const ASSUMPTIONS: readonly Assumption[] = listed(DECLARED, '')

/** Why a value cannot be set: keys of the message catalogue. */
export type AssumptionProblem = 'assumption-unknown' | 'assumption-range' | 'assumption-whole'

/** What stands in the way of setting a value; null when nothing does. */
export function assumptionProblem(key: string, to: number): AssumptionProblem | null {
  const found = ASSUMPTIONS.find((one) => one.key === key)
  if (!found) return 'assumption-unknown'
  if (!(to >= found.lowest && to <= found.highest)) return 'assumption-range'
  return found.whole && !Number.isInteger(to) ? 'assumption-whole' : null
}

/** The value shipped for a key. @throws RangeError for a key there is none of */
export function shippedValue(key: string): number {
  const found = ASSUMPTIONS.find((one) => one.key === key)
  if (!found) throw new RangeError(`there is no assumption ${key}`)
  return found.shipped
}

/**
 * The assumptions with a shop's own values in their places.
 *
 * @param overrides by key; unknown keys and values out of range are left out, so that a stored set made by another
 *   version of Pelrin can always be read
 */
export function assumptionsWith(overrides: AssumptionOverrides): Assumptions {
  const entries = Object.entries(overrides).filter(([key, to]) => assumptionProblem(key, to) === null)
  if (entries.length === 0) return DEFAULTS
  let tree: Tree = DEFAULTS
  for (const [key, to] of entries) tree = withValue(tree, key.split('.'), to)
  return tree as unknown as Assumptions
}

interface Tree {
  readonly [key: string]: Tree | number
}

/** A copy of a tree with one leaf replaced. */
function withValue(tree: Tree, [head = '', ...rest]: readonly string[], to: number): Tree {
  return { ...tree, [head]: rest.length === 0 ? to : withValue(tree[head] as Tree, rest, to) }
}
