import { describe, expect, it } from 'vitest'
import { REMOVING, REFITTING, CHECKING, MEND_STEPS, CARE_STEPS, STEPS } from '@pelrin/core'
import { drawnAt } from './index.ts'

/** Nothing is done by a hand at these, or it is looked at on drawings of its own: teeth, joints. */
const NOTHING_TO_DRAW = [
  ...['pick', 'identify-joint', 'look-teeth', 'maker-sheet', 'old-goes', 'carry-card', 'make-safe', 'hub-gears'],
  ...['set', 'creep-in', 'find-cause', 'way-home', 'tell-rider'],
]

describe('what a step looks like', () => {
  it('is drawn wherever a hand does something, in a job, in care and when a chain is mended', () => {
    const all = new Set(
      [...REMOVING, ...REFITTING, ...CHECKING, ...MEND_STEPS, ...CARE_STEPS, ...STEPS].map(({ id }) => id),
    )
    const bare = [...all].filter((id) => drawnAt(id) === null && drawnAt(id, { context: 'on-side' }) === null)
    expect(bare.filter((id) => !NOTHING_TO_DRAW.includes(id))).toEqual([])
    expect(all.size).toBeGreaterThan(90)
  })
  it('follows what the step is about', () => {
    expect(['smallest-ring', 'off-ring', 'largest-ring'].map((context) => drawnAt('slack', { context }))).toEqual([
      'slack',
      'slack-off',
      'slack-large',
    ])
    expect(drawnAt('check-ends', { context: 'one-outer' })).toBe('ends-one-outer')
    expect(drawnAt('take-out', { context: 'link' })).not.toBe(drawnAt('take-out', { context: 'pin' }))
    expect(drawnAt('lay-bike', { context: 'upside-down' })).toBeNull()
    expect(drawnAt('set-tension', { context: 'timing' })).toBe('eccentric')
    expect(drawnAt('link-apart', { context: 'in' })).toBeNull()
  })
})
