import type { DriveType, OnBikeWay, Suspension, WidthClass, PresentJoint } from '@pelrin/core'
import { fact, flag, integer, integers, key, maybe, real, table, text, usually, uuid, type RowOf } from '../db/table.ts'

export const DRIVES = table('drives', {
  id: key(uuid()),
  bikeId: uuid(),
  type: text<DriveType>(),
  speeds: integer(),
  fronts: usually(integers(), null),
  sprockets: usually(integers(), null),
  motor: usually(flag(), null),
  systemId: maybe(uuid()),
  /** The drivetrain's own level. */
  level: maybe(text()),
  ringWidth: maybe(text<WidthClass>()),
  chainstayMm: maybe(real()),
  suspension: usually(text<Suspension>(), null),
  growthMm: maybe(real()),
  statedAdd: maybe(integer()),
  pulleys: maybe(integers()),
  pulleysCounted: usually(flag(), null),
  capacityTeeth: maybe(integer()),
  largestSprocketTeeth: maybe(integer()),
  /** Where an axle that takes up the slack can stand. */
  axleFromMm: maybe(real()),
  axleToMm: maybe(real()),
  /** Found on the bike itself, and how. */
  ownPitches: maybe(integer()),
  ownPitchesBy: maybe(text<OnBikeWay>()),
  takenOff: usually(flag(), null),
  /** Of a tandem's second chain: its two rings, and where the eccentric lets them stand. */
  timingTeeth: maybe(integers()),
  timingFromMm: maybe(real()),
  timingToMm: maybe(real()),
  guide: maybe(text<'front-derailleur' | 'chain-guide' | 'none'>()),
  wideNarrow: maybe(flag()),
  clutch: maybe(flag()),
  cageLock: maybe(flag()),
  discBrake: maybe(flag()),
})
export type DriveRow = RowOf<typeof DRIVES>

export const DRIVE_SYSTEMS = table('drive_systems', {
  id: key(uuid()),
  name: text(),
  flatTop: usually(flag(), null),
  largeRoller: usually(flag(), null),
})
export type DriveSystemRow = RowOf<typeof DRIVE_SYSTEMS>

export const JOINTS = table('joints', {
  id: key(uuid()),
  kind: text<PresentJoint>(),
  partId: maybe(uuid()),
  closingsBefore: maybe(integer()),
})
export type JointRow = RowOf<typeof JOINTS>

export const JOINT_EVENTS = table('joint_events', {
  ...fact,
  jointId: uuid(),
  chainId: uuid(),
  kind: text<'seen' | 'closed'>(),
  click: maybe(text<'firm' | 'weak' | 'none'>()),
  /** What it was closed for, where that is a fact of its own. */
  becauseId: maybe(uuid()),
})
export type JointEventRow = RowOf<typeof JOINT_EVENTS>
