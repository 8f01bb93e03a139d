import { describe, expect, it } from 'vitest'
import {
  addingBack,
  changeMinutes,
  COMES_BEFORE,
  MEND_JOINTS,
  mendOptions,
  mendSteps,
  POSITIONS,
  SHIPPED_SCHOOLS,
  standardMinutes,
  type ChainHandling,
  type JobDrive,
  type JointNow,
  type MendJob,
} from '../index.ts'

const DRIVE: JobDrive = {
  type: 'derailleur',
  motor: false,
  guide: 'none',
  wideNarrow: null,
  clutch: null,
  cageLock: null,
  discBrake: true,
  timing: false,
  speeds: 11,
}
const LINK: JointNow = { kind: 'link', openedBy: 'pliers', oneUse: false }
const HANDLING: ChainHandling = {
  drive: DRIVE,
  schools: SHIPPED_SCHOOLS,
  present: LINK,
  joint: { kind: 'link', arrow: false, letteredOut: false, greased: false, guide: null, sheet: null },
  rePress: 'allowed',
  markedOut: false,
}
const [KEEPS] = mendOptions({ pitches: 112, broken: 'outer', damaged: [0] }, ['link'])
const [PIN] = mendOptions({ pitches: 112, broken: 'outer', damaged: [0] }, ['pin'])
const JOB: MendJob = {
  handling: HANDLING,
  care: 'dry-oil',
  position: 'upright',
  option: KEEPS!,
  added: null,
  roadside: false,
}
const ids = (job: MendJob): string[] => mendSteps(job).map(({ id }) => id)

describe('mending a broken chain', () => {
  it('begins with its wear, keeps bits and the new link apart, looks all round and ends with the cause', () => {
    const steps = ids(JOB)
    expect(steps.indexOf('measure-broken')).toBeLessThan(steps.indexOf('look-broken'))
    expect(steps.indexOf('look-broken')).toBeLessThan(steps.indexOf('take-out'))
    expect(steps).toContain('two-pockets')
    expect(steps.indexOf('take-out')).toBeLessThan(steps.indexOf('join-link'))
    expect(steps.indexOf('look-click')).toBeLessThan(steps.indexOf('test-ride'))
    expect(steps.at(-2)).toBe('find-cause')
    expect(steps.at(-1)).toBe('tell-rider')
  })
  it('says how the bike lies where it does not stand', () => {
    expect(ids(JOB)).not.toContain('lay-bike')
    const lies = mendSteps({ ...JOB, position: 'on-side' }).find(({ id }) => id === 'lay-bike')
    expect(lies?.values).toEqual({ context: 'on-side' })
  })
  it('turns the screw of the derailleur only where the chain came out shorter, and there is one', () => {
    expect(ids(JOB)).not.toContain('cage-screw')
    expect(ids({ ...JOB, option: PIN! })).toContain('cage-screw')
    const hub = { ...HANDLING, drive: { ...DRIVE, type: 'hub-gear' as const } }
    expect(ids({ ...JOB, option: PIN!, handling: hub })).not.toContain('cage-screw')
  })
  it('for the way home only ends with that, not with a sheet for the weeks to come', () => {
    const steps = ids({ ...JOB, roadside: true })
    expect(steps).toContain('way-home')
    expect(steps).not.toContain('tell-rider')
  })
  it('takes longer with more places to join', () => {
    const [each] = mendOptions({ pitches: 112, broken: 'outer', damaged: [0, 20] }, ['link'])
    const one = standardMinutes(mendSteps(JOB))
    expect(standardMinutes(mendSteps({ ...JOB, option: each! }))).toBeGreaterThan(one)
    expect(ids({ ...JOB, option: each! })).toContain('join-others')
    // What a change takes stands beside it: longer, since a new chain is cut, cleaned for and ridden in.
    expect(changeMinutes(HANDLING, 'dry-oil', 112)).toBeGreaterThan(one)
  })
  it('adds pitches back to a whole chain: its joint is opened, a piece goes in, nothing damaged is looked for', () => {
    const added = addingBack({ pitches: 110, add: 2, by: 'link', linked: true, ownLink: true })
    const steps = mendSteps({ ...JOB, option: null, added })
    const named = steps.map(({ id }) => id)
    expect(named).toEqual(expect.arrayContaining(['open-link', 'put-in', 'join-link', 'join-others']))
    expect(named).not.toContain('look-broken')
    expect(named).not.toContain('find-cause')
    expect(steps.find(({ id }) => id === 'count-mended')?.values).toEqual({ pitches: 112 })
  })
  it('opens a pinned chain for a link at two neighbouring pins', () => {
    const pinned = { ...HANDLING, present: { kind: 'pin', openedBy: null, oneUse: true } as const }
    const added = addingBack({ pitches: 110, add: 2, by: 'link', linked: false, ownLink: false })
    expect(ids({ ...JOB, handling: pinned, option: null, added })).toContain('outer-out')
  })
  it('is refused where it is neither, or both', () => {
    expect(() => mendSteps({ ...JOB, option: null })).toThrow(RangeError)
  })
})

describe('every mend', () => {
  it('has each step once, and nothing before what must come before it', () => {
    let seen = 0
    for (const type of ['derailleur', 'hub-gear', 'single-speed'] as const)
      for (const motor of [true, false, null])
        for (const cageLock of [true, null])
          for (const position of POSITIONS)
            for (const joint of MEND_JOINTS)
              for (const damaged of [[0], [0, 1], [0, 14]])
                for (const broken of ['inner', 'outer'] as const)
                  for (const care of ['immersion-wax', 'wet-oil'] as const)
                    for (const close of ['pliers', 'pedal'] as const)
                      for (const option of mendOptions({ pitches: 112, broken, damaged, spare: 4 }, [joint])) {
                        const drive = { ...DRIVE, type, motor, cageLock }
                        const schools = { ...SHIPPED_SCHOOLS, close }
                        const job: MendJob = {
                          ...JOB,
                          handling: { ...HANDLING, drive, schools },
                          position,
                          option,
                          care,
                        }
                        const found = ids(job)
                        expect(new Set(found).size).toBe(found.length)
                        for (const [first, then] of COMES_BEFORE) {
                          const [a, b] = [found.indexOf(first), found.indexOf(then)]
                          if (a >= 0 && b >= 0 && a > b) expect.fail(`${then} before ${first}`)
                        }
                        // No oil near a waxed chain, no motor on with hands in the drive.
                        if (care === 'immersion-wax' && found.includes('oil-link')) expect.fail('oil on wax')
                        if (motor !== false && found.indexOf('motor-off') !== Math.min(found.indexOf('motor-off'), 4))
                          expect.fail('the motor is off late')
                        seen++
                      }
    expect(seen).toBeGreaterThan(2000)
  })
})
