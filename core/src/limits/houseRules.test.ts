import { describe, expect, it } from 'vitest'
import { DEFAULTS } from '../defaults.ts'
import { driveClassOf, limitsFor, SHIPPED_RULES, sprocketMarks, type DriveClass, type HouseRule } from './index.ts'

const rule = (school: string): HouseRule => {
  const found = SHIPPED_RULES.find((shipped) => shipped.school === school)
  if (!found) throw new Error(school)
  return { ...found, id: school, version: 1 }
}

describe('the shipped schools', () => {
  it.each<[string, DriveClass, number, number | null]>([
    ['by-speeds', 'derailleur-11-up', 0.5, null],
    ['by-speeds', 'derailleur-to-10', 0.75, null],
    ['by-speeds', 'single-or-hub', 1, null],
    ['early-change', 'derailleur-11-up', 0.5, null],
    ['early-change', 'derailleur-to-10', 0.5, null],
    ['early-change', 'single-or-hub', 0.75, null],
    ['plan-and-change', 'derailleur-11-up', 0.75, 0.5],
    ['plan-and-change', 'derailleur-to-10', 1, 0.75],
    ['plan-and-change', 'single-or-hub', 1, 0.75],
  ])('%s, %s: change at %d, plan at %s', (school, driveClass, change, plan) => {
    expect(limitsFor(rule(school), driveClass)).toMatchObject({ change, plan })
  })
  it('have by speeds first: it is a new shop’s default', () => {
    expect(SHIPPED_RULES[0].school).toBe('by-speeds')
  })
  it('look more often from 0.8 of the limit, never above a plan limit', () => {
    expect(limitsFor(rule('by-speeds'), 'derailleur-to-10').watch).toBeCloseTo(0.6, 12)
    for (const { school, limits } of SHIPPED_RULES)
      for (const driveClass of Object.keys(limits) as DriveClass[]) {
        const { watch, plan, change } = limitsFor(rule(school), driveClass)
        expect(watch).toBeLessThanOrEqual(plan ?? change)
      }
  })
})

describe('the class of a drive', () => {
  it.each([
    ['derailleur', 13, 'derailleur-11-up'],
    ['derailleur', 11, 'derailleur-11-up'],
    ['derailleur', 10, 'derailleur-to-10'],
    ['derailleur', 5, 'derailleur-to-10'],
    ['derailleur', 1, 'single-or-hub'],
    ['hub-gear', 14, 'single-or-hub'],
    ['single-speed', 1, 'single-or-hub'],
  ] as const)('%s with %d speeds is %s', (type, speeds, expected) => {
    expect(driveClassOf({ type, speeds })).toBe(expected)
  })
})

describe('sprocket marks', () => {
  it.each([
    ['derailleur-11-up', 0.75, 1],
    ['derailleur-to-10', 1, 1.25],
    ['single-or-hub', 1.25, 1.5],
  ] as const)('follow the physics of %s: suspect from %d, everything from %d', (driveClass, sprockets, everything) => {
    expect(sprocketMarks(driveClass, DEFAULTS)).toEqual({ sprockets, everything })
  })
})
