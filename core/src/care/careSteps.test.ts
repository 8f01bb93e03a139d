import { describe, expect, it } from 'vitest'
import {
  careSteps,
  CLEANINGS,
  cleaningNeeded,
  TREATMENTS,
  usualCleaning,
  type CareJob,
  type CareStepId,
} from './careSteps.ts'

const BEFORE = [...TREATMENTS, 'unknown'] as const
const all: CareJob[] = TREATMENTS.flatMap((care) =>
  CLEANINGS.flatMap((cleaning) =>
    BEFORE.flatMap((before) =>
      [true, false].flatMap((checkFirst) =>
        [true, false, null].flatMap((motor) =>
          [true, false, null].flatMap((discBrake) =>
            [true, false].map((pinned) => ({ care, cleaning, before, checkFirst, pinned, motor, discBrake })),
          ),
        ),
      ),
    ),
  ),
)
const idsOf = (job: CareJob): CareStepId[] => careSteps(job).map(({ id }) => id)
/** Both there, and in this order. */
const inOrder = (ids: readonly CareStepId[], first: CareStepId, then: CareStepId): boolean =>
  ids.includes(first) && ids.indexOf(first) < ids.indexOf(then)

describe('steps of a care, over every combination', () => {
  it('each stands once, and a chain due a look is measured before anything else', () => {
    for (const job of all) {
      const ids = idsOf(job)
      expect(new Set(ids).size).toBe(ids.length)
      expect(ids[0] === 'measure-first').toBe(job.checkFirst)
    }
  })
  it('a motor is off before cranks are turned or a chain comes off, and on again last; one that is not known counts', () => {
    for (const job of all) {
      const ids = idsOf(job)
      if (job.motor === false) expect(ids).not.toContain('motor-off')
      else {
        expect(ids.at(-1)).toBe('motor-on')
        for (const later of ['take-off', 'turn-cranks'] as const)
          if (ids.includes(later)) expect(inOrder(ids, 'motor-off', later)).toBe(true)
      }
    }
  })
  it('a chain closed by a pin gets a link before it joins a wax routine, once it is off and before it is wet', () => {
    for (const job of all) {
      const ids = idsOf(job)
      expect(ids.includes('fit-link')).toBe(job.pinned && job.care === 'immersion-wax')
      if (ids.includes('fit-link')) {
        expect(inOrder(ids, 'take-off', 'fit-link')).toBe(true)
        expect(inOrder(ids, 'fit-link', 'wax-in-pot')).toBe(true)
      }
    }
  })
  it('a joint is known before it is opened, and what came off goes on again', () => {
    for (const job of all) {
      const ids = idsOf(job)
      expect(ids.includes('take-off')).toBe(ids.includes('back-on'))
      if (ids.includes('take-off')) expect(inOrder(ids, 'identify-joint', 'take-off')).toBe(true)
    }
  })
  it('a wet chain is dried before anything goes on it', () => {
    for (const job of all) {
      const ids = idsOf(job)
      const treated = ids.find((id) => ['wax-in-pot', 'drip-each-roller', 'drop-each-roller'].includes(id))!
      expect(inOrder(ids, 'wipe-dry', treated)).toBe(true)
      if (cleaningNeeded(job) !== 'wipe') expect(inOrder(ids, 'dry', treated)).toBe(true)
    }
  })
  it('what had oil is stripped before its first wax, whatever was chosen; what had wax is not', () => {
    for (const job of all.filter(({ care }) => care === 'immersion-wax' || care === 'drip-wax')) {
      const hadWax = job.before === 'immersion-wax' || job.before === 'drip-wax'
      expect(idsOf(job).includes('strip')).toBe(!hadWax || job.cleaning === 'strip')
    }
  })
  it('a disc is covered before anything is dropped or dripped, where there may be one', () => {
    for (const job of all.filter(({ care }) => care !== 'immersion-wax')) {
      const ids = idsOf(job)
      const drops = job.care === 'drip-wax' ? 'drip-each-roller' : 'drop-each-roller'
      expect(inOrder(ids, 'cover-rotor', drops)).toBe(job.discBrake !== false)
    }
  })
  it('every step with heat, solvent or a brake beside it says so there', () => {
    const hazards: Partial<Record<CareStepId, string>> = {
      'wax-in-pot': 'heat',
      boil: 'heat',
      hang: 'heat',
      soak: 'solvent',
      strip: 'solvent',
      'brush-on-bike': 'solvent',
      'motor-off': 'motor',
      'rotor-look': 'rotor',
    }
    for (const job of all)
      for (const step of careSteps(job)) {
        const hazard = hazards[step.id]
        if (hazard !== undefined) expect(step.hazards).toContain(hazard)
        if (step.id.endsWith('each-roller')) expect(step.hazards.includes('rotor')).toBe(job.discBrake !== false)
      }
  })
})

describe('how a chain is usually cleaned', () => {
  it('is as the last time, not as it was stripped once, and wiped where nobody said', () => {
    expect(usualCleaning([{ cleaning: null }, { cleaning: 'strip' }, { cleaning: 'soak' }])).toBe('soak')
    expect(usualCleaning([{ cleaning: null }, { cleaning: 'strip' }])).toBe('wipe')
  })
})
