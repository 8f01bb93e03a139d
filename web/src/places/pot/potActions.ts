import type { PotPlan } from '@pelrin/core'
import type { PotChainNow, PotState } from '@pelrin/contract'

/** Something somebody does at the pot: chains that go on together. */
export interface PotAction {
  readonly what: 'strip' | 'unstrip' | 'load' | 'draw' | 'flex'
  /** Moment it falls due, ms. */
  readonly at: number
  readonly chains: readonly PotChainNow[]
  readonly to: PotState
  readonly potId: string | null
}

/** What tells an action from any other. */
export const actionKey = ({ what, chains }: PotAction): string => `${what} ${chains.map(({ id }) => id).join(' ')}`

/** A chain as it stands: once it was moved, it is another. */
export const asItStands = ({ id, version }: PotChainNow): string => `${id} ${version}`

/**
 * Whether any of its chains is being moved, or was and is not shown where it is now: by whatever plan it is asked, so that the same
 * pressed twice is done once.
 *
 * @param moved chains as they stood when they were sent on
 */
export const isMoving = ({ chains }: PotAction, moved: readonly string[]): boolean =>
  chains.some((chain) => moved.includes(asItStands(chain)))

const MINUTE = 60_000
const GOES_TO = { strip: 'stripping', unstrip: 'drying', load: 'in-pot', draw: 'hanging', flex: 'done' } as const
/** Where a chain has to be for something to be done to it. */
const COMES_FROM: Readonly<Record<PotAction['what'], readonly PotState[]>> = {
  strip: ['waiting'],
  unstrip: ['stripping'],
  load: ['waiting', 'drying'],
  draw: ['in-pot'],
  flex: ['hanging'],
}

/**
 * What is to be done next, by a plan: the first that falls due first. What follows upon something that is not done yet is not there.
 *
 * @param from the moment the plan's minutes count from, ms
 */
export function potActions(plan: PotPlan, from: number, chains: readonly PotChainNow[]): PotAction[] {
  const byId = new Map(chains.map((chain) => [chain.id, chain]))
  const action = (
    what: PotAction['what'],
    minute: number,
    ids: readonly string[],
    potId: string | null,
  ): PotAction[] => {
    const there = ids.flatMap((id) => byId.get(id) ?? []).filter(({ state }) => COMES_FROM[what].includes(state))
    return there.length === ids.length && there.length > 0
      ? [{ what, at: from + minute * MINUTE, chains: there, to: GOES_TO[what], potId }]
      : []
  }
  const potOf = (ids: readonly string[]): string | null =>
    plan.dips.find((dip) => dip.chains.some((id) => ids.includes(id)))?.pot ?? null
  return [
    ...plan.hands.flatMap(({ what, from: minute, chains: ids }) =>
      action(what, minute, ids, what === 'load' ? potOf(ids) : null),
    ),
    ...plan.chains.flatMap(({ id, strip }) => (strip ? action('unstrip', strip.to, [id], null) : [])),
  ].sort((a, b) => a.at - b.at)
}
