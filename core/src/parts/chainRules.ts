import type { ChainModel, PartsDrive, Rule, WidthClass } from './describe.ts'
import { chainSpeeds, speedsMatch, widthClassOf } from './speeds.ts'

export type ChainRuleId = 'speeds' | 'width' | 'profile' | 'rollers' | 'system' | 'motor' | 'length' | 'worn-sprockets'

export interface ChainFacts {
  readonly drive: PartsDrive
  readonly chain: ChainModel
}

/** Fewest speeds from which drivetrains with flat-topped or large-rollered chains exist. */
const FEWEST_SPECIAL = 12

/** A derailleur's rings take 3/32″ whatever is not known of them; others come in both. */
const ringWidthOf = ({ type, ringWidth }: PartsDrive): WidthClass | null =>
  ringWidth ?? (type === 'derailleur' ? '3/32' : null)

/** A chain's width by its own measure; a chain for several sprockets is 3/32″ where nobody measured it. */
const widthOf = ({ innerMm, speeds }: ChainModel): WidthClass | null =>
  innerMm !== null ? widthClassOf(innerMm) : speeds.some((one) => one > 1) ? '3/32' : null

/** Something that only goes with a system made for it, and that system only with it. */
function onlyTogether(
  key: 'profile' | 'rollers',
  { drive, chain }: ChainFacts,
  has: boolean,
  wants: boolean | null,
): ReturnType<Rule<ChainFacts, ChainRuleId>['decide']> {
  if (wants === null) {
    // No such system has so few speeds: an ordinary chain is right without knowing which it is.
    if (!has && chainSpeeds(drive) < FEWEST_SPECIAL) return { outcome: 'fits', reason: `${key}-ordinary` }
    return { outcome: 'not-known', reason: `${key}-unknown`, missing: 'system', values: { name: chain.name } }
  }
  if (has === wants) return { outcome: 'fits', reason: has ? `${key}-special` : `${key}-ordinary` }
  return { outcome: 'does-not-fit', reason: has ? `${key}-only-special` : `${key}-wants-special` }
}

/** Every rule a chain is judged by. Nothing else decides whether a chain fits. */
export const CHAIN_RULES: readonly Rule<ChainFacts, ChainRuleId>[] = [
  {
    id: 'speeds',
    decide: ({ drive, chain }) => {
      const speeds = chainSpeeds(drive)
      const values = { speeds, made: chain.speeds.join(', ') }
      return speedsMatch(chain.speeds, speeds)
        ? { outcome: 'fits', reason: speeds === 1 ? 'speeds-single' : 'speeds-match', values }
        : { outcome: 'does-not-fit', reason: speeds === 1 ? 'speeds-not-single' : 'speeds-differ', values }
    },
  },
  {
    id: 'width',
    decide: ({ drive, chain }) => {
      const ring = ringWidthOf(drive)
      const width = widthOf(chain)
      if (ring === null) return { outcome: 'not-known', reason: 'width-ring-unknown', missing: 'ring-width' }
      if (width === null) return { outcome: 'not-known', reason: 'width-chain-unknown', missing: 'inner-width' }
      if (ring === width) return { outcome: 'fits', reason: 'width-match', values: { width } }
      return width === '1/8'
        ? { outcome: 'caution', reason: 'width-wide-chain' }
        : { outcome: 'does-not-fit', reason: 'width-narrow-chain' }
    },
  },
  {
    id: 'profile',
    decide: (facts) =>
      onlyTogether('profile', facts, facts.chain.profile === 'flat-top', facts.drive.system?.flatTop ?? null),
  },
  {
    id: 'rollers',
    decide: (facts) =>
      onlyTogether('rollers', facts, facts.chain.roller === 'large', facts.drive.system?.largeRoller ?? null),
  },
  {
    id: 'system',
    decide: ({ drive, chain }) => {
      if (drive.system === null)
        // What is excluded from somewhere, or on a drive with no indexing to mind, differs by what the system is.
        return drive.type === 'derailleur' || chain.excludedFrom.length > 0
          ? { outcome: 'not-known', reason: 'system-unknown', missing: 'system' }
          : { outcome: 'fits', reason: 'system-none' }
      const values = { system: drive.system.id, maker: chain.maker }
      if (chain.excludedFrom.includes(drive.system.id))
        return { outcome: 'does-not-fit', reason: 'system-excluded', values }
      return chain.approvedFor.includes(drive.system.id)
        ? { outcome: 'fits', reason: 'system-approved', values }
        : { outcome: 'caution', reason: 'system-not-listed', values }
    },
  },
  {
    id: 'motor',
    decide: ({ drive, chain }) => {
      if (chain.motorRated) return drive.motor === true ? { outcome: 'fits', reason: 'motor-rated' } : null
      if (drive.motor === null) return { outcome: 'not-known', reason: 'motor-unknown', missing: 'motor' }
      return drive.motor ? { outcome: 'caution', reason: 'motor-not-rated' } : null
    },
  },
  {
    id: 'length',
    decide: ({ drive, chain }) => {
      if (drive.pitches === null) return { outcome: 'not-known', reason: 'length-unknown', missing: 'length' }
      const boxes = Math.ceil(drive.pitches / chain.inBox)
      const values = { pitches: drive.pitches, inBox: chain.inBox, boxes }
      return boxes === 1
        ? { outcome: 'fits', reason: 'length-in-box', values }
        : { outcome: 'caution', reason: 'length-boxes', values }
    },
  },
  {
    id: 'worn-sprockets',
    decide: ({ drive }) => (drive.sprocketsSuspect ? { outcome: 'caution', reason: 'worn-sprockets' } : null),
  },
]
