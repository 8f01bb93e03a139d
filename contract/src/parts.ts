import { CHAIN_HANGS, CHAINS_OF, OUTCOMES, PARTS_FACTS, PRESENT_JOINTS, REUSE_SCHOOLS, SUSPENSIONS } from '@pelrin/core'
import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Id, line, Moment } from './common.ts'
import { endpoint } from './endpoint.ts'
import { CareKind } from './forecast.ts'
import { DriveType } from './limits.ts'
import { ChainModel, DriveSystem, JointModel, WidthClass } from './partModels.ts'
import { KeptParts } from './stock.ts'

const count = v.pipe(v.number('number-malformed'), v.integer('number-malformed'))

export const ChainGuide = v.picklist(['front-derailleur', 'chain-guide', 'none'], 'field-invalid')
export const Suspension = v.picklist(SUSPENSIONS, 'field-invalid')

const Outcome = v.picklist(OUTCOMES)
const PartsFact = v.picklist(PARTS_FACTS)

/** What one rule says of a part; `reason` is a key of the message catalogue. */
const RuleOutcome = v.object({
  rule: v.string(),
  outcome: Outcome,
  reason: v.string(),
  values: v.exactOptional(v.record(v.string(), v.union([v.string(), v.number()]))),
  missing: v.exactOptional(PartsFact),
})
export type RuleOutcome = v.InferOutput<typeof RuleOutcome>

const judged = { outcome: Outcome, rules: v.array(RuleOutcome), missing: v.array(PartsFact) }

export const JudgedChain = v.object({ ...judged, part: ChainModel })
export type JudgedChain = v.InferOutput<typeof JudgedChain>

export const JudgedJoint = v.object({
  ...judged,
  part: v.union([
    v.object({ model: v.literal('re-press') }),
    v.object({ model: JointModel, closings: v.nullable(v.number()), firm: v.exactOptional(v.boolean()) }),
  ]),
  /** What links of its kind would cost in a year of the chain coming off often. */
  habit: v.nullable(v.object({ linksAYear: v.nullable(v.number()), cost: v.nullable(v.number()) })),
})
export type JudgedJoint = v.InferOutput<typeof JudgedJoint>

/** What a bike's chain has to fit and go round. Null is not known. */
export const DriveDescription = v.object({
  type: DriveType,
  speeds: v.number(),
  fronts: v.array(v.number()),
  sprockets: v.array(v.number()),
  motor: v.boolean(),
  system: v.nullable(DriveSystem),
  level: v.nullable(v.string()),
  ringWidth: v.nullable(WidthClass),
  chainstayMm: v.nullable(v.number()),
  suspension: Suspension,
  growthMm: v.nullable(v.number()),
  statedAdd: v.nullable(v.number()),
  pulleys: v.nullable(v.array(v.number())),
  pulleysCounted: v.boolean(),
  capacityTeeth: v.nullable(v.number()),
  largestSprocketTeeth: v.nullable(v.number()),
  /** Where an axle that takes up the slack can stand, mm; null with a derailleur, or not known. */
  axleMm: v.nullable(v.object({ from: v.number(), to: v.number() })),
  takenOff: v.boolean(),
  /** A tandem's second chain: teeth of its two rings, and how far apart the eccentric lets them stand, mm. */
  /** The count found on the bike itself; null: nobody sized it there. */
  ownPitches: v.nullable(v.number()),
  timing: v.nullable(v.object({ teeth: v.array(v.number()), fromMm: v.number(), toMm: v.number() })),
  /** A front derailleur's cage, a chain guide, or neither. */
  guide: v.nullable(ChainGuide),
  wideNarrow: v.nullable(v.boolean()),
  clutch: v.nullable(v.boolean()),
  cageLock: v.nullable(v.boolean()),
  discBrake: v.nullable(v.boolean()),
})
export type DriveDescription = v.InferOutput<typeof DriveDescription>

const counted = v.nullable(v.number())

/** What the chain on a bike is closed with now, as far as somebody looked. */
export const PresentJointSeen = v.object({
  kind: v.picklist(PRESENT_JOINTS),
  /** Which part it is, where that is known. */
  model: v.nullable(JointModel),
  closings: counted,
  /** Whether it clicked firmly when it was closed last; null where nobody said. */
  firm: v.nullable(v.boolean()),
  seenAt: Moment,
})
export type PresentJointSeen = v.InferOutput<typeof PresentJointSeen>

const Hung = v.nullable(v.picklist(CHAIN_HANGS))

/** What is known of a bike for choosing its parts. */
export const PartsFacts = v.object({
  version: v.number(),
  drive: DriveDescription,
  care: CareKind,
  sprocketsSuspect: v.boolean(),
  /** The chain that is on: its count, whole as it was when new, and which part it is. */
  oldPitches: counted,
  presentChainId: v.nullable(Id),
  /** How it hung when somebody looked: whether its count is to be matched follows from it. */
  oldLook: v.object({ small: Hung, large: Hung }),
  present: v.nullable(PresentJointSeen),
  systems: v.array(DriveSystem),
  kept: v.nullable(KeptParts),
})
export type PartsFacts = v.InferOutput<typeof PartsFacts>

/** What fits one chain's place on a bike. */
export const BikeMatch = v.object({
  /** The count parts were matched for; null while it is not known. */
  pitches: counted,
  /** Those asked about by name, then the best first, as many as a screen shows. */
  chains: v.array(JudgedChain),
  chainsInAll: v.number(),
  chainsExcluded: v.number(),
  /** The chain joints were matched for. */
  chainId: v.nullable(Id),
  joints: v.array(JudgedJoint),
  jointsInAll: v.number(),
  /** Facts that are wanted, and what each would decide. */
  wanted: v.array(v.object({ fact: PartsFact, rules: v.array(v.string()), parts: v.number() })),
})
export type BikeMatch = v.InferOutput<typeof BikeMatch>

/** What fits one bike. */
export const BikeParts = v.object({ ...PartsFacts.entries, ...BikeMatch.entries })
export type BikeParts = v.InferOutput<typeof BikeParts>

const teeth = v.array(v.pipe(v.number('teeth-malformed'), v.integer('teeth-malformed')))
const nullableNumber = v.nullable(v.number('number-malformed'))

export const Speeds = v.pipe(count, v.minValue(1, 'speeds-range'), v.maxValue(30, 'speeds-range'))
export const Rings = v.pipe(teeth, v.minLength(1, 'teeth-missing'), v.maxLength(3, 'rings-many'))
export const Sprockets = v.pipe(teeth, v.minLength(1, 'teeth-missing'), v.maxLength(14, 'sprockets-many'))

export const ChangeDrive = v.object({
  speeds: v.exactOptional(Speeds),
  fronts: v.exactOptional(Rings),
  sprockets: v.exactOptional(Sprockets),
  motor: v.exactOptional(v.boolean('field-invalid')),
  systemId: v.exactOptional(v.nullable(Id)),
  level: v.exactOptional(v.nullable(line(40))),
  ringWidth: v.exactOptional(v.nullable(WidthClass)),
  chainstayMm: v.exactOptional(nullableNumber),
  suspension: v.exactOptional(Suspension),
  growthMm: v.exactOptional(nullableNumber),
  statedAdd: v.exactOptional(v.nullable(v.pipe(count, v.minValue(0, 'added-range'), v.maxValue(12, 'added-range')))),
  pulleys: v.exactOptional(v.nullable(v.pipe(teeth, v.length(2, 'pulleys-two')))),
  pulleysCounted: v.exactOptional(v.boolean('field-invalid')),
  capacityTeeth: v.exactOptional(nullableNumber),
  largestSprocketTeeth: v.exactOptional(nullableNumber),
  axleMm: v.exactOptional(
    v.nullable(v.object({ from: v.number('number-malformed'), to: v.number('number-malformed') })),
  ),
  takenOff: v.exactOptional(v.boolean('field-invalid')),
  guide: v.exactOptional(v.nullable(ChainGuide)),
  wideNarrow: v.exactOptional(v.nullable(v.boolean('field-invalid'))),
  clutch: v.exactOptional(v.nullable(v.boolean('field-invalid'))),
  cageLock: v.exactOptional(v.nullable(v.boolean('field-invalid'))),
  discBrake: v.exactOptional(v.nullable(v.boolean('field-invalid'))),
  timing: v.exactOptional(
    v.nullable(
      v.object({
        teeth: v.pipe(teeth, v.length(2, 'timing-two')),
        fromMm: v.number('number-malformed'),
        toMm: v.number('number-malformed'),
      }),
    ),
  ),
})
export type ChangeDrive = v.InferOutput<typeof ChangeDrive>

export const partsEndpoints = {
  bikeParts: endpoint({
    name: 'bikeParts',
    method: 'GET',
    path: '/bikes/:id/parts',
    summary: 'Chains and joints for a bike, each with what every rule says of it, the best first.',
    access: 'signed-in',
    params: ById,
    query: v.object({
      /** A count to match for, other than the one recommended. */
      pitches: v.optional(v.pipe(v.string(), v.digits('number-malformed'), v.toNumber())),
      /** The chain to match joints for; the best unless given. */
      chain: v.optional(Id),
      /** Parts to be judged whether they fit or not: by name. */
      ask: v.optional(v.pipe(v.string(), v.trim(), v.maxLength(60, 'text-too-long'))),
      /** Which chain: the one that drives, or a tandem's second one. */
      of: v.optional(v.picklist(CHAINS_OF, 'field-invalid'), 'drive'),
      /** Joints for a new chain, or to close the one that is on again. */
      joints: v.optional(v.picklist(['new', 'on'], 'field-invalid'), 'new'),
      /** Whether a link is used again by its maker's word or by feel. */
      school: v.optional(v.picklist(REUSE_SCHOOLS, 'field-invalid'), 'strict'),
    }),
    result: BikeParts,
  }),
  seeJoint: endpoint({
    name: 'seeJoint',
    method: 'POST',
    path: '/bikes/:id/joint',
    summary: 'Write down what the chain on a bike is closed with, by looking at it.',
    access: 'work',
    creates: true,
    params: ById,
    body: v.object({
      id: Id,
      kind: v.picklist(PRESENT_JOINTS, 'field-invalid'),
      /** Which part it is, where it can be told. */
      partId: v.optional(v.nullable(Id), null),
      /** How often it was closed until now; null where nobody counted. */
      closings: v.optional(
        v.nullable(
          v.pipe(
            v.number('closings-range'),
            v.integer('closings-range'),
            v.minValue(0, 'closings-range'),
            v.maxValue(200, 'closings-range'),
          ),
        ),
        null,
      ),
      firm: v.optional(v.nullable(v.boolean('field-invalid')), null),
    }),
    result: PresentJointSeen,
  }),
  changeDrive: endpoint({
    name: 'changeDrive',
    method: 'PATCH',
    path: '/bikes/:id/drive',
    summary: 'Change what is known of a bike’s drive.',
    access: 'work',
    params: ById,
    body: ChangeDrive,
    result: v.object({ version: v.number(), drive: DriveDescription }),
    versioned: true,
  }),
}
