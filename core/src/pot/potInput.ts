import type { Assumptions } from '../assumptions.ts'
import type { PotInput, PotNeed, PotRecipe, PotStage } from './potTypes.ts'

/** Moments are ISO 8601. */
interface PotAsItStands {
  readonly id: string
  readonly capacity: number
  /** When it was switched on; null: off and cold. */
  readonly onSince: string | null
  /** From cold to molten. */
  readonly heatMinutes: number
}
interface ChainAsItStands {
  readonly id: string
  readonly readyBy: string | null
  readonly needs: PotNeed
  readonly recipe: PotRecipe
  readonly notBefore: string | null
  readonly state: string
  readonly potId: string | null
  /** Since when it is in this state. */
  readonly since: string
  readonly addedAt: string
}

const MINUTE = 60_000

/** Minutes from one moment to another: whole, earlier ones rounded down, so that nothing is said to be done too soon. */
const minutesTo = (moment: string, from: number): number => Math.ceil((Date.parse(moment) - from) / MINUTE)

function stageOf({ state, since, potId, needs, addedAt }: ChainAsItStands, from: number): PotStage {
  const at = Math.min(0, minutesTo(since, from))
  if (state === 'in-pot' && potId !== null) return { kind: 'in-pot', since: at, pot: potId }
  // Said to be dry, it waits for the pot and nothing else.
  if (state === 'drying' && needs === 'nothing') return { kind: 'waiting' }
  if (state === 'stripping' || state === 'hanging' || state === 'drying') return { kind: state, since: at }
  // What only has to dry dries since it lies there.
  if (needs === 'dry') return { kind: 'drying', since: Math.min(0, minutesTo(addedAt, from)) }
  return { kind: 'waiting' }
}

/**
 * What the planner is asked: the board as it stands, in minutes from a moment, with a pot that is off taken as switched on then.
 *
 * @param isHot whether a pot's thermometer says that its wax is molten
 * @returns null without a pot
 */
export function potInput(
  { pots, chains }: { readonly pots: readonly PotAsItStands[]; readonly chains: readonly ChainAsItStands[] },
  from: number,
  times: Assumptions['pot'],
  isHot: (potId: string) => boolean,
): PotInput | null {
  if (pots.length === 0) return null
  /** A pot is on its way back to hot where the chains that were drawn last left it cool. */
  const reheated = (potId: string): number =>
    Math.max(
      ...chains
        .filter((chain) => chain.potId === potId && chain.state === 'hanging')
        .map((chain) => minutesTo(chain.since, from) + times[chain.recipe].reheatMinutes),
      -Infinity,
    )
  return {
    chains: chains.map((chain) => ({
      id: chain.id,
      readyBy: chain.readyBy === null ? null : minutesTo(chain.readyBy, from),
      needs: chain.needs,
      recipe: chain.recipe,
      ...(chain.notBefore === null ? {} : { notBefore: Math.max(0, minutesTo(chain.notBefore, from)) }),
      stage: stageOf(chain, from),
    })),
    shop: {
      pots: pots.map(({ id, capacity, onSince, heatMinutes }) => ({
        id,
        capacity,
        // What its thermometer shows counts before what a cold one takes.
        hotAt: isHot(id)
          ? Math.min(0, onSince === null ? 0 : minutesTo(onSince, from))
          : Math.max(reheated(id), (onSince === null ? 0 : minutesTo(onSince, from)) + heatMinutes),
      })),
      stripCapacity: times.stripCapacity,
      railCapacity: Math.max(times.railCapacity, chains.filter(({ state }) => state === 'hanging').length),
      mechanics: times.hands,
      stripMinutes: times.stripMinutes,
      stripHandsMinutes: times.stripHandsMinutes,
      dryMinutes: times.dryMinutes,
      loadMinutes: times.loadMinutes,
      hangMinutes: times.hangMinutes,
      flexMinutes: times.flexMinutes,
      recipes: {
        'soak-and-hang': times['soak-and-hang'],
        'bubble-out': times['bubble-out'],
        'cool-draw': times['cool-draw'],
      },
    },
  }
}
