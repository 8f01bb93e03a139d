import {
  PART_KINDS,
  COATINGS,
  JOINT_KINDS,
  OPENED_BY,
  PIN_GUIDES,
  PLATE_PROFILES,
  ROLLER_CLASSES,
  WIDTH_CLASSES,
} from '@pelrin/core'
import * as v from 'valibot'
import { Id, line } from './common.ts'

const count = v.pipe(v.number('number-malformed'), v.integer('number-malformed'))
const speeds = v.array(count)

/** What there is in a catalogue. */
export const PartKind = v.picklist(PART_KINDS, 'part-kind-unknown')
export type PartKind = v.InferOutput<typeof PartKind>

export const WidthClass = v.picklist(WIDTH_CLASSES, 'field-invalid')
export const PlateProfile = v.picklist(PLATE_PROFILES, 'field-invalid')
export const RollerClass = v.picklist(ROLLER_CLASSES, 'field-invalid')
export const JointKind = v.picklist(JOINT_KINDS, 'field-invalid')

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
  markedOut: v.boolean(),
  coating: v.picklist(COATINGS, 'field-invalid'),
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
  systems: v.array(Id),
  arrow: v.boolean(),
  letteredOut: v.boolean(),
  openedBy: v.picklist(OPENED_BY, 'field-invalid'),
  greased: v.boolean(),
  guide: v.nullable(v.picklist(PIN_GUIDES, 'field-invalid')),
  sheet: v.nullable(v.string()),
})
export type JointModel = v.InferOutput<typeof JointModel>
