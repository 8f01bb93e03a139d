import * as v from 'valibot'
import { ById } from './bikes.ts'
import { Id, line } from './common.ts'
import { endpoint } from './endpoint.ts'
import { CareKind } from './forecast.ts'
import { DriveType } from './limits.ts'

const count = v.pipe(v.number('number-malformed'), v.integer('number-malformed'))
const speeds = v.array(count)

export const WidthClass = v.picklist(['3/32', '1/8'], 'field-invalid')
export const PlateProfile = v.picklist(['plain', 'asymmetric', 'flat-top'], 'field-invalid')
export const RollerClass = v.picklist(['standard', 'large'], 'field-invalid')
export const JointKind = v.picklist(['link', 'pin', 're-press', 'clip'], 'field-invalid')
export const Suspension = v.picklist(['rigid', 'hardtail', 'full'], 'field-invalid')

const priced = {
  id: Id,
  maker: line(40),
  name: line(60),
  /** In minor units of the shop's money; null: not known. */
  price: v.nullable(v.number('number-malformed')),
  stock: v.number('number-malformed'),
}

/** A family of drivetrain parts made for each other. */
export const DriveSystem = v.object({ id: Id, name: v.string(), flatTop: v.boolean(), largeRoller: v.boolean() })
export type DriveSystem = v.InferOutput<typeof DriveSystem>

export const ChainModel = v.object({
  ...priced,
  speeds,
  innerMm: v.nullable(v.number('number-malformed')),
  outerMm: v.nullable(v.number('number-malformed')),
  profile: PlateProfile,
  roller: RollerClass,
  approvedFor: v.array(Id),
  excludedFrom: v.array(Id),
  joints: v.array(JointKind),
  flaredPins: v.boolean(),
  motorRated: v.boolean(),
  level: v.nullable(v.string()),
  inBox: count,
  jointInBox: v.picklist(['none', 'link', 'pin', 'preset-pin'], 'field-invalid'),
})
export type ChainModel = v.InferOutput<typeof ChainModel>

export const JointModel = v.object({
  ...priced,
  kind: v.picklist(['link', 'pin', 'clip'], 'field-invalid'),
  speeds,
  profile: PlateProfile,
  roller: RollerClass,
  outerMm: v.nullable(v.number('number-malformed')),
  reuse: v.variant('kind', [
    v.object({ kind: v.literal('once') }),
    v.object({ kind: v.literal('times'), most: v.number('number-malformed') }),
    v.object({ kind: v.literal('firm') }),
  ]),
  belongsTo: v.array(Id),
})
export type JointModel = v.InferOutput<typeof JointModel>

const Outcome = v.picklist(['fits', 'not-known', 'caution', 'does-not-fit'])
const PartsFact = v.picklist(['system', 'ring-width', 'inner-width', 'outer-width', 'motor', 'length', 'closings'])

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
})
export type DriveDescription = v.InferOutput<typeof DriveDescription>

/** What fits one bike. */
export const BikeParts = v.object({
  version: v.number(),
  drive: DriveDescription,
  care: CareKind,
  sprocketsSuspect: v.boolean(),
  /** Count of the chain that is on, whole as it was when new. */
  oldPitches: v.nullable(v.number()),
  /** The count parts were matched for; null while it is not known. */
  pitches: v.nullable(v.number()),
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
  systems: v.array(DriveSystem),
})
export type BikeParts = v.InferOutput<typeof BikeParts>

const teeth = v.array(v.pipe(v.number('number-malformed'), v.integer('teeth-malformed')))
const nullableNumber = v.nullable(v.number('number-malformed'))

export const ChangeDrive = v.object({
  speeds: v.exactOptional(v.pipe(count, v.minValue(1, 'speeds-range'), v.maxValue(30, 'speeds-range'))),
  fronts: v.exactOptional(v.pipe(teeth, v.minLength(1, 'teeth-missing'), v.maxLength(3, 'rings-many'))),
  sprockets: v.exactOptional(v.pipe(teeth, v.minLength(1, 'teeth-missing'), v.maxLength(14, 'sprockets-many'))),
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
    }),
    result: BikeParts,
  }),
  changeDrive: endpoint({
    name: 'changeDrive',
    method: 'PATCH',
    path: '/bikes/:id/drive',
    summary: 'Change what is known of a bike’s drive.',
    access: 'writer',
    params: ById,
    body: ChangeDrive,
    result: v.object({ version: v.number(), drive: DriveDescription }),
    versioned: true,
  }),
}
