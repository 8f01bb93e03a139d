import type { SystemName } from './catalogue.ts'
import type { LoadedCatalogue } from './loadCatalogue.ts'
import type { DriveName } from './scenario.ts'
import type { DriveRow } from '../parts/models.ts'

/** What is known of a drive beside its teeth. */
interface DriveDetails {
  readonly system?: SystemName
  readonly level?: string
  readonly ringWidth?: '3/32' | '1/8'
  readonly chainstayMm?: number
  readonly capacityTeeth?: number
  readonly largestSprocketTeeth?: number
  readonly pulleys?: readonly [number, number]
  readonly axleMm?: readonly [from: number, to: number]
  readonly guide?: 'front-derailleur' | 'chain-guide' | 'none'
  readonly wideNarrow?: boolean
  readonly clutch?: boolean
  readonly cageLock?: boolean
  readonly discBrake?: boolean
}
const FRONT = { guide: 'front-derailleur', wideNarrow: false, clutch: false, cageLock: false } as const
const PLAIN = { guide: 'none', wideNarrow: false, discBrake: false } as const

const DRIVE_DETAILS: Readonly<Record<DriveName, DriveDetails>> = {
  road12: {
    ...FRONT,
    discBrake: true,
    system: 'Ostling Halyard 12',
    level: 'estuary',
    chainstayMm: 420,
    capacityTeeth: 39,
    largestSprocketTeeth: 34,
  },
  trail12: {
    guide: 'none',
    wideNarrow: true,
    clutch: true,
    cageLock: true,
    discBrake: true,
    system: 'Tindrel Scree 12',
    level: 'harbour',
    chainstayMm: 450,
    capacityTeeth: 41,
    largestSprocketTeeth: 52,
    pulleys: [14, 14],
  },
  road11: {
    ...FRONT,
    discBrake: false,
    system: 'Varrow Gannet 11',
    level: 'harbour',
    chainstayMm: 455,
    capacityTeeth: 37,
    largestSprocketTeeth: 34,
  },
  sand11: {
    guide: 'none',
    wideNarrow: true,
    clutch: true,
    cageLock: false,
    discBrake: true,
    system: 'Varrow Gannet 11',
    level: 'estuary',
    chainstayMm: 435,
    capacityTeeth: 35,
    largestSprocketTeeth: 42,
  },
  flat10: {
    ...FRONT,
    discBrake: true,
    system: 'Korvane Wharf 10',
    level: 'harbour',
    chainstayMm: 425,
    capacityTeeth: 41,
    largestSprocketTeeth: 36,
  },
  tour9: {
    ...FRONT,
    discBrake: true,
    system: 'Mabry Dyke 9',
    level: 'harbour',
    chainstayMm: 445,
    capacityTeeth: 45,
    largestSprocketTeeth: 34,
  },
  flat9: {
    ...FRONT,
    discBrake: false,
    system: 'Mabry Dyke 9',
    level: 'harbour',
    chainstayMm: 450,
    capacityTeeth: 37,
    largestSprocketTeeth: 34,
  },
  old8: { ...FRONT, system: 'Korvane Wharf 8', chainstayMm: 430, capacityTeeth: 35, largestSprocketTeeth: 34 },
  pool7: { chainstayMm: 445, capacityTeeth: 28 },
  cargo: { ...PLAIN, ringWidth: '1/8', axleMm: [572, 588] },
  cargoMotor: { ...PLAIN, ringWidth: '1/8', axleMm: [580, 596] },
  town: { ...PLAIN, ringWidth: '1/8', axleMm: [478, 494] },
  single: { ...PLAIN, ringWidth: '3/32', axleMm: [420, 436] },
}

/** What is known of a bike's drive beside its teeth; of some bikes nobody measured the chainstay yet. */
export function driveDetails(
  drive: DriveName,
  kind: string,
  { systems }: LoadedCatalogue,
  number: number,
): Partial<DriveRow> {
  const { system, axleMm, chainstayMm, pulleys, ...rest } = DRIVE_DETAILS[drive]
  return {
    ...rest,
    systemId: system === undefined ? null : systems.get(system)!,
    chainstayMm: chainstayMm === undefined || number % 5 === 4 ? null : chainstayMm,
    pulleys: pulleys ? [...pulleys] : null,
    axleFromMm: axleMm?.[0] ?? null,
    axleToMm: axleMm?.[1] ?? null,
    suspension: 'rigid',
    pulleysCounted: false,
    takenOff: false,
    ...(kind === 'tandem'
      ? { timingTeeth: [40, 40], timingFromMm: 690, timingToMm: 714 }
      : { timingTeeth: null, timingFromMm: null, timingToMm: null }),
  }
}
