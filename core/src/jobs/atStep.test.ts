import { describe, expect, it } from 'vitest'
import { FOUND_AT, SCHOOL_AT, waitsForLook } from './atStep.ts'
import { JOB_OUTCOMES } from './jobPlan.ts'

describe('what a step asks', () => {
  it('lets every outcome a job can have be found at some step, but for the customer’s stopping it, which needs none', () => {
    const found = new Set(Object.values(FOUND_AT).flat())
    expect([...JOB_OUTCOMES].filter((outcome) => !found.has(outcome))).toEqual(['customer-stops'])
  })
  it('lets every school be chosen where its steps are', () => {
    expect(new Set(Object.values(SCHOOL_AT))).toEqual(new Set(['slack', 'prepare', 'close']))
  })
  it('holds the step that opens the joint until somebody looked at it, and no other', () => {
    expect(waitsForLook('identify-joint', { present: null })).toBe(true)
    expect(waitsForLook('identify-joint', { present: { kind: 'link', openedBy: null, oneUse: false } })).toBe(false)
    expect(waitsForLook('slack', { present: null })).toBe(false)
  })
})
