import { describe, expect, it } from 'vitest'
import type { DriveDescription } from '@pelrin/contract'
import { fieldsOfDrive, fieldsOfPart } from './driveFrom.ts'

const systems = [
  { id: 's1', name: 'Varrow Gannet 11', flatTop: false, largeRoller: false },
  { id: 's2', name: 'Mabry Dyke 9', flatTop: false, largeRoller: false },
]

describe('a drive from the catalogue', () => {
  it('takes sprockets, speeds and system from a cassette, and nothing else', () => {
    const cells = { sprockets: '11 13 15 17', systems: 'Varrow Gannet 11' }
    expect(fieldsOfPart('cassette', cells, systems)).toEqual({
      sprockets: '11 13 15 17',
      speeds: '4',
      systemId: 's1',
    })
  })
  it('says nothing of the system where a part is made for several', () => {
    const cells = {
      capacityTeeth: '37',
      largestSprocketTeeth: '34',
      pulleys: '11 11',
      systems: 'Varrow Gannet 11, Mabry Dyke 9',
    }
    expect(fieldsOfPart('derailleur', cells, systems)).toEqual({
      capacityTeeth: '37',
      largestSprocketTeeth: '34',
      pulleys: '11 11',
      statedAdd: '',
    })
  })
  it('takes teeth and width from a ring', () => {
    expect(fieldsOfPart('ring', { teeth: '50 34', width: '3/32' }, systems)).toEqual({
      fronts: '50 34',
      ringWidth: '3/32',
    })
  })
})

describe('a drive like another bike’s', () => {
  it('is that drive in words, what is not known left empty', () => {
    const drive: DriveDescription = {
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
    expect(fieldsOfDrive(drive)).toMatchObject({
      fronts: '48 36',
      systemId: 's2',
      chainstayMm: '445',
      largestSprocketTeeth: '',
      timingTeeth: '40 40',
      timingTo: '714',
    })
  })
})
