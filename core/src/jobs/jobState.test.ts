import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { jobNow, SHIPPED_SCHOOLS, STEPS, type JobEvent, type JobPlan } from '../index.ts'

const plan: JobPlan = {
  reason: 'worn',
  drive: {
    type: 'derailleur',
    motor: false,
    guide: 'none',
    wideNarrow: false,
    clutch: false,
    cageLock: false,
    discBrake: false,
    timing: false,
    speeds: 11,
  },
  present: null,
  oldFate: 'scrapped',
  shortened: false,
  chain: {
    pitches: 112,
    cut: { boxes: 1, cuts: [{ pitches: 4, end: 'either' }], ends: 'both-inner', offcut: 4 },
    markedOut: false,
    readyWaxed: false,
  },
  joint: { kind: 'link', arrow: false, letteredOut: false, greased: false, guide: null, sheet: null },
  rePress: 'excluded',
  care: 'dry-oil',
  position: 'upright',
  schools: SHIPPED_SCHOOLS,
  outcomes: [],
}
const MINUTE = 60_000
let serial = 0
const at = (minute: number, by: string, said: object): JobEvent =>
  ({ id: `e${serial++}`, at: minute * MINUTE, by, ...said }) as JobEvent

it('a job that was left standing for a month took the minutes somebody worked on it, and keeps its ticks', () => {
  const month = 30 * 24 * 60
  const now = jobNow(plan, [
    at(0, 'TS', { kind: 'tick', step: 'pick' }),
    at(4, 'TS', { kind: 'tick', step: 'count-old' }),
    at(month, 'RP', { kind: 'take-over' }),
    at(month + 5, 'RP', { kind: 'tick', step: 'identify-joint' }),
  ])
  expect(now.minutes).toBe(4 + 30 + 5)
  expect(now.steps.filter(({ done }) => done).map(({ done }) => done!.by)).toEqual(['TS', 'TS', 'RP'])
})

describe('a job as it stands', () => {
  it('knows what is done and by whom, and what comes next', () => {
    const now = jobNow(plan, [
      at(0, 'TS', { kind: 'tick', step: 'pick' }),
      at(2, 'RP', { kind: 'tick', step: 'count-old' }),
    ])
    expect(now.steps.filter(({ done }) => done).map(({ id, done }) => [id, done?.by])).toEqual([
      ['pick', 'TS'],
      ['count-old', 'RP'],
    ])
    expect(now.next?.id).toBe('identify-joint')
    expect(now.minutes).toBe(2)
  })
  it('counts who ticked first, and takes a tick back', () => {
    const now = jobNow(plan, [
      at(3, 'RP', { kind: 'tick', step: 'pick' }),
      at(1, 'TS', { kind: 'tick', step: 'pick' }),
      at(4, 'TS', { kind: 'tick', step: 'count-old' }),
      at(5, 'TS', { kind: 'untick', step: 'count-old' }),
    ])
    expect(now.steps.find(({ id }) => id === 'pick')?.done?.by).toBe('TS')
    expect(now.next?.id).toBe('count-old')
  })
  it('opens the steps of what is found, and of what is chosen; what was done stays on the list', () => {
    const opened = jobNow(plan, [
      at(0, 'TS', { kind: 'choice', choice: { present: { kind: 'pin', openedBy: null, oneUse: true } } }),
      at(1, 'TS', { kind: 'outcome', outcome: 'stiff-link' }),
    ])
    const ids = opened.steps.map(({ id }) => id)
    expect(ids).toEqual(expect.arrayContaining(['open-pin', 'free-stiff']))
    const back = jobNow(plan, [
      at(0, 'TS', { kind: 'outcome', outcome: 'stiff-link' }),
      at(1, 'TS', { kind: 'outcome-back', outcome: 'stiff-link' }),
    ])
    expect(back.steps.map(({ id }) => id)).not.toContain('free-stiff')
    const stopped = jobNow(plan, [
      at(0, 'TS', { kind: 'tick', step: 'pick' }),
      at(1, 'TS', { kind: 'outcome', outcome: 'customer-stops' }),
    ])
    expect(stopped.steps.map(({ id }) => id)).toEqual(['pick', 'make-safe'])
    expect(stopped.next?.id).toBe('make-safe')
  })
  it('counts no pause', () => {
    const now = jobNow(plan, [
      at(0, 'TS', { kind: 'tick', step: 'pick' }),
      at(5, 'TS', { kind: 'pause' }),
      at(65, 'TS', { kind: 'resume' }),
      at(70, 'TS', { kind: 'tick', step: 'count-old' }),
    ])
    expect(now.minutes).toBe(10)
    expect(jobNow(plan, [at(0, 'TS', { kind: 'pause' })]).paused).toBe(true)
  })
  it('is the same whatever order its events arrive in', () => {
    const events = STEPS.slice(0, 12).map(({ id }, i) => at(i, i % 2 === 0 ? 'TS' : 'RP', { kind: 'tick', step: id }))
    fc.assert(
      fc.property(fc.shuffledSubarray(events, { minLength: events.length }), (shuffled) => {
        expect(jobNow(plan, shuffled)).toEqual(jobNow(plan, events))
      }),
    )
  })
})
