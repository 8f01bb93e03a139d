import type { DriveDescription, DriveSystem, PartCells, PartKind } from '@pelrin/contract'

/** What the drive's form holds, field by field, as it is typed. */
export type DriveFields = Readonly<Record<string, string>>

const shown = (value: number | null): string => (value === null ? '' : String(value))

/** A drive in the words of its form. */
export const fieldsOfDrive = (drive: DriveDescription): DriveFields => ({
  speeds: String(drive.speeds),
  fronts: drive.fronts.join(' '),
  sprockets: drive.sprockets.join(' '),
  systemId: drive.system?.id ?? '',
  level: drive.level ?? '',
  guide: drive.guide ?? '',
  ringWidth: drive.ringWidth ?? '',
  suspension: drive.suspension,
  pulleys: drive.pulleys?.join(' ') ?? '',
  axleFrom: shown(drive.axleMm?.from ?? null),
  axleTo: shown(drive.axleMm?.to ?? null),
  chainstayMm: shown(drive.chainstayMm),
  growthMm: shown(drive.growthMm),
  statedAdd: shown(drive.statedAdd),
  capacityTeeth: shown(drive.capacityTeeth),
  largestSprocketTeeth: shown(drive.largestSprocketTeeth),
  timingTeeth: drive.timing?.teeth.join(' ') ?? '',
  timingFrom: shown(drive.timing?.fromMm ?? null),
  timingTo: shown(drive.timing?.toMm ?? null),
})

/** Parts of the catalogue that say something of a drive. */
export const DESCRIBING: readonly PartKind[] = ['cassette', 'ring', 'derailleur']

/** What a part of the catalogue says of the drive it is on; what it does not say stays as it was typed. */
export function fieldsOfPart(kind: PartKind, cells: PartCells, systems: readonly DriveSystem[]): DriveFields {
  const cell = (key: string): string => cells[key] ?? ''
  // Made for one system only, it says which it is.
  const system = systems.find(({ name }) => name === cell('systems'))
  const ofSystem = system ? { systemId: system.id } : {}
  switch (kind) {
    case 'cassette':
      return { sprockets: cell('sprockets'), speeds: String(cell('sprockets').split(' ').length), ...ofSystem }
    case 'ring':
      return { fronts: cell('teeth'), ringWidth: cell('width') }
    case 'derailleur':
      return {
        capacityTeeth: cell('capacityTeeth'),
        largestSprocketTeeth: cell('largestSprocketTeeth'),
        pulleys: cell('pulleys'),
        statedAdd: cell('addPitches'),
        ...ofSystem,
      }
    default:
      return {}
  }
}
