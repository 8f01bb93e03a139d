import { describe, expect, it } from 'vitest'
import { endpoints, fieldProblems, type DriveDescription } from '@pelrin/contract'
import { driveIn, typedDrive, typedOfPart } from './driveFrom.ts'

const systems = [
  { id: '0192c7f2-5340-7b38-85ad-000000000001', name: 'Varrow Gannet 11', flatTop: false, largeRoller: false },
  { id: '0192c7f2-5340-7b38-85ad-000000000002', name: 'Mabry Dyke 9', flatTop: false, largeRoller: false },
]

describe('a drive from the catalogue', () => {
  it('takes sprockets, speeds and system from a cassette, and nothing else', () => {
    const cells = { sprockets: '11 13 15 17', systems: 'Varrow Gannet 11' }
    expect(typedOfPart('cassette', cells, systems, 'rigid')).toEqual({
      sprockets: '11 13 15 17',
      speeds: '4',
      systemId: systems[0]!.id,
    })
  })
  it('says nothing of the system where a part is made for several', () => {
    const cells = {
      capacityTeeth: '37',
      largestSprocketTeeth: '34',
      pulleys: '11 11',
      systems: 'Varrow Gannet 11, Mabry Dyke 9',
    }
    expect(typedOfPart('derailleur', cells, systems, 'rigid')).toEqual({
      capacityTeeth: '37',
      largestSprocketTeeth: '34',
      pulleys: '11 11',
      statedAdd: '',
    })
  })
  it('takes the pitches a system wants on a frame with full suspension, where it says them', () => {
    const cells = { addPitches: '4', addPitchesSuspended: '8' }
    const added = (suspension: 'rigid' | 'full', said: Record<string, string>) =>
      typedOfPart('derailleur', said, systems, suspension).statedAdd
    expect([added('rigid', cells), added('full', cells), added('full', { addPitches: '4' })]).toEqual(['4', '8', '4'])
  })
  it('takes teeth and width from a ring', () => {
    expect(typedOfPart('ring', { teeth: '50 34', width: '3/32' }, systems, 'rigid')).toEqual({
      fronts: '50 34',
      ringWidth: '3/32',
    })
  })
})

const known: DriveDescription = {
  type: 'derailleur',
  speeds: 9,
  fronts: [48, 36],
  sprockets: [11, 13],
  motor: false,
  system: systems[1]!,
  level: null,
  ringWidth: null,
  chainstayMm: 445,
  suspension: 'rigid',
  growthMm: null,
  statedAdd: null,
  pulleys: null,
  pulleysCounted: false,
  ownPitches: null,
  capacityTeeth: 45,
  largestSprocketTeeth: null,
  axleMm: null,
  takenOff: false,
  timing: { teeth: [40, 40], fromMm: 690, toMm: 714 },
  guide: null,
  wideNarrow: null,
  clutch: null,
  cageLock: null,
  discBrake: null,
}

describe('a drive like another bike’s', () => {
  it('is that drive in words, what is not known left empty', () => {
    expect(typedDrive(known)).toMatchObject({
      fronts: '48 36',
      systemId: systems[1]!.id,
      chainstayMm: '445',
      largestSprocketTeeth: '',
      timing: { teeth: '40 40', toMm: '714' },
      tandem: true,
      clutch: '',
    })
  })
  it('says the same again as it is written, and keeps what is no number for its field to refuse', () => {
    const drive = { ...known, axleMm: { from: 420, to: 440 } }
    // What was found on the bike is no field of the form.
    const { type: _, system, ownPitches: _own, ...said } = drive
    expect(driveIn(typedDrive(drive))).toEqual({ ...said, systemId: system?.id ?? null })
    const typed = { ...typedDrive(drive), chainstayMm: 'long', fronts: '48 x' }
    expect(driveIn(typed)).toMatchObject({ chainstayMm: NaN, fronts: [48, NaN] })
    expect(fieldProblems(endpoints.changeDrive.body, driveIn(typed)).map(({ path }) => path)).toEqual([
      'fronts.1',
      'chainstayMm',
    ])
  })
  it('has one end of an axle that cannot be moved stand for both', () => {
    expect(driveIn({ ...typedDrive(known), axleMm: { from: '430', to: '' } }).axleMm).toEqual({ from: 430, to: 430 })
    expect(driveIn({ ...typedDrive(known), tandem: false }).timing).toBeNull()
  })
})
