import type { ChangeDrive, DriveDescription, DriveSystem, PartCells, PartKind } from '@pelrin/contract'
import { maybeIn, maybeTyped } from '../../forms/maybe.ts'
import { asTyped, choiceIn, numberIn, numberWanted, textIn } from '../../forms/typed.ts'
import { typedTeeth } from '../../forms/typedTeeth.ts'

/** A drive in the words of its form, each at the place where the write has it. */
export const typedDrive = (drive: DriveDescription) => ({
  speeds: String(drive.speeds),
  fronts: drive.fronts.join(' '),
  sprockets: drive.sprockets.join(' '),
  systemId: drive.system?.id ?? '',
  level: drive.level ?? '',
  guide: drive.guide ?? ('' as const),
  ringWidth: drive.ringWidth ?? ('' as const),
  suspension: drive.suspension,
  pulleys: drive.pulleys?.join(' ') ?? '',
  axleMm: { from: asTyped(drive.axleMm?.from), to: asTyped(drive.axleMm?.to) },
  chainstayMm: asTyped(drive.chainstayMm),
  growthMm: asTyped(drive.growthMm),
  statedAdd: asTyped(drive.statedAdd),
  capacityTeeth: asTyped(drive.capacityTeeth),
  largestSprocketTeeth: asTyped(drive.largestSprocketTeeth),
  tandem: drive.timing !== null,
  timing: {
    teeth: drive.timing?.teeth.join(' ') ?? '',
    fromMm: asTyped(drive.timing?.fromMm),
    toMm: asTyped(drive.timing?.toMm),
  },
  motor: drive.motor,
  takenOff: drive.takenOff,
  pulleysCounted: drive.pulleysCounted,
  wideNarrow: maybeTyped(drive.wideNarrow),
  clutch: maybeTyped(drive.clutch),
  cageLock: maybeTyped(drive.cageLock),
  discBrake: maybeTyped(drive.discBrake),
})
export type TypedDrive = ReturnType<typeof typedDrive>

/** What is typed of a drive, as it is written. One end alone is an axle that cannot be moved. */
export function driveIn(typed: TypedDrive): ChangeDrive {
  const ends = (from: string, to: string) => ({
    from: numberIn(from) ?? numberWanted(to),
    to: numberIn(to) ?? numberWanted(from),
  })
  const { axleMm, timing } = typed
  const cranks = ends(timing.fromMm, timing.toMm)
  return {
    speeds: numberWanted(typed.speeds),
    fronts: typedTeeth(typed.fronts),
    sprockets: typedTeeth(typed.sprockets),
    systemId: choiceIn(typed.systemId),
    level: textIn(typed.level),
    guide: choiceIn(typed.guide),
    ringWidth: choiceIn(typed.ringWidth),
    suspension: typed.suspension,
    pulleys: textIn(typed.pulleys) === null ? null : typedTeeth(typed.pulleys),
    axleMm: textIn(axleMm.from) === null && textIn(axleMm.to) === null ? null : ends(axleMm.from, axleMm.to),
    chainstayMm: numberIn(typed.chainstayMm),
    growthMm: numberIn(typed.growthMm),
    statedAdd: numberIn(typed.statedAdd),
    capacityTeeth: numberIn(typed.capacityTeeth),
    largestSprocketTeeth: numberIn(typed.largestSprocketTeeth),
    timing: typed.tandem ? { teeth: typedTeeth(timing.teeth), fromMm: cranks.from, toMm: cranks.to } : null,
    motor: typed.motor,
    takenOff: typed.takenOff,
    pulleysCounted: typed.pulleysCounted,
    wideNarrow: maybeIn(typed.wideNarrow),
    clutch: maybeIn(typed.clutch),
    cageLock: maybeIn(typed.cageLock),
    discBrake: maybeIn(typed.discBrake),
  }
}

/** Parts of the catalogue that say something of a drive. */
export const DESCRIBING: readonly PartKind[] = ['cassette', 'ring', 'derailleur']

/**
 * What a part of the catalogue says of the drive it is on; what it does not say stays as it was typed.
 *
 * @param suspension of the frame, which a system may want other pitches for
 */
export function typedOfPart(
  kind: PartKind,
  cells: PartCells,
  systems: readonly DriveSystem[],
  suspension: TypedDrive['suspension'],
): Partial<TypedDrive> {
  const cell = (key: string): string => cells[key] ?? ''
  // Made for one system only, it says which it is.
  const system = systems.find(({ name }) => name === cell('systems'))
  const ofSystem = system ? { systemId: system.id } : {}
  switch (kind) {
    case 'cassette':
      return { sprockets: cell('sprockets'), speeds: String(cell('sprockets').split(' ').length), ...ofSystem }
    case 'ring':
      return { fronts: cell('teeth'), ringWidth: cell('width') as TypedDrive['ringWidth'] }
    case 'derailleur':
      return {
        capacityTeeth: cell('capacityTeeth'),
        largestSprocketTeeth: cell('largestSprocketTeeth'),
        pulleys: cell('pulleys'),
        statedAdd:
          suspension === 'full' && cell('addPitchesSuspended') !== ''
            ? cell('addPitchesSuspended')
            : cell('addPitches'),
        ...ofSystem,
      }
    default:
      return {}
  }
}
