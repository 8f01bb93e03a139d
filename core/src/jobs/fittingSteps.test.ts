import { describe, expect, it } from 'vitest'
import {
  CLOSE_SCHOOLS,
  piecesAfter,
  pinsDriven,
  removalOf,
  fittingSteps,
  isWaxed,
  JOB_REASONS,
  OLD_FATES,
  POSITIONS,
  PREPARE_SCHOOLS,
  SHIPPED_SCHOOLS,
  SLACK_SCHOOLS,
  standardMinutes,
  STEPS,
  toolsOf,
  type JobPlan,
  type StepId,
} from '../index.ts'

const plan = (more: {
  [K in keyof JobPlan]?: JobPlan[K] extends readonly unknown[] ? JobPlan[K] : Partial<JobPlan[K]> | JobPlan[K]
}): JobPlan => {
  const base: JobPlan = {
    reason: 'worn',
    drive: {
      type: 'derailleur',
      motor: false,
      guide: 'front-derailleur',
      wideNarrow: false,
      clutch: false,
      cageLock: false,
      discBrake: false,
      timing: false,
      speeds: 12,
    },
    present: { kind: 'link', openedBy: 'pliers', oneUse: false },
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
  const merged: Record<string, unknown> = { ...base }
  for (const [key, value] of Object.entries(more)) {
    const before = base[key as keyof JobPlan]
    merged[key] =
      typeof before === 'object' && before !== null && !Array.isArray(before) && value !== null
        ? { ...(before as object), ...(value as object) }
        : value
  }
  return merged as unknown as JobPlan
}
const idsOf = (of: JobPlan): StepId[] => fittingSteps(of).map(({ id }) => id)

describe('the steps of a job', () => {
  it.each<[string, Parameters<typeof plan>[0], StepId[], StepId[]]>([
    [
      'a waxed 12-speed with a locked cage and a link',
      { drive: { cageLock: true, clutch: true }, care: 'immersion-wax', joint: { greased: true, arrow: true } },
      [
        'lock-cage',
        'open-link',
        'strip',
        'wax-first',
        'degrease-link',
        'clear-wax',
        'direction',
        'join-link',
        'look-click',
        'unlock-cage',
      ],
      ['clutch-off', 'wipe-coat', 'oil-link', 'first-oil', 'join-pin', 'set-tension', 'motor-off'],
    ],
    [
      'a hub gear with a clip',
      { drive: { type: 'hub-gear', guide: 'none', speeds: 8 }, present: { kind: 'clip' }, joint: { kind: 'clip' } },
      ['slacken-axle', 'open-clip', 'route-rear', 'join-clip', 'set-tension', 'tighten-axle', 'hub-gears'],
      ['slack', 'clutch-off', 'route-pulleys', 'every-gear', 'back-pedal', 'route-front', 'join-link'],
    ],
    [
      'a riveted 8-speed closed with a pin',
      {
        drive: { speeds: 8 },
        present: { kind: 'riveted' },
        joint: { kind: 'pin', guide: 'snapped' },
        rePress: 'allowed',
      },
      ['open-riveted', 'join-pin', 'guide-off', 'every-gear'],
      ['open-link', 'join-link', 'look-click', 'join-re-press'],
    ],
    [
      'a motor, a wide-narrow ring and a disc brake',
      { drive: { motor: true, wideNarrow: true, discBrake: true, guide: 'chain-guide' } },
      ['motor-off', 'wide-narrow', 'rotor-clean', 'motor-on', 'route-front'],
      ['turn-eccentric'],
    ],
    [
      'a tandem’s second chain',
      { drive: { timing: true, guide: null } },
      ['turn-eccentric', 'phase-cranks', 'set-tension'],
      ['slack', 'route-front', 'route-pulleys', 'slacken-axle', 'every-gear'],
    ],
    [
      'a broken chain',
      { reason: 'broken' },
      ['look-broken', 'open-broken'],
      ['count-old', 'identify-joint', 'open-link', 'hold-ends'],
    ],
    [
      'a chain that skips, with a cassette fitted',
      { outcomes: ['skips-cassette'] },
      ['fit-cassette', 'ride-again', 'old-goes', 'baseline'],
      ['old-back'],
    ],
    [
      'a chain that skips, with the old one put back',
      { outcomes: ['skips-old-back'] },
      ['old-back', 'ride-again'],
      ['old-goes', 'baseline', 'fit-cassette'],
    ],
    [
      'a stiff link, a wrong count and a link that would not click',
      { outcomes: ['stiff-link', 'wrong-count', 'no-click'] },
      ['free-stiff', 'mend-count', 'new-link'],
      ['new-pin'],
    ],
    ['a pin that broke', { joint: { kind: 'pin' }, outcomes: ['pin-broke'] }, ['new-pin'], ['new-link']],
    [
      'a customer who stops the work',
      { outcomes: ['customer-stops'] },
      ['make-safe'],
      ['cut', 'join-link', 'test-ride', 'old-goes'],
    ],
    ['a link used once on a chain that is scrap', { present: { oneUse: true } }, ['open-anywhere'], ['open-link']],
    [
      'a link used once on a chain that is kept',
      { present: { oneUse: true }, oldFate: 'spare' },
      ['open-link'],
      ['open-anywhere'],
    ],
    [
      'a pin-closed chain on its way into the wax',
      { present: { kind: 'pin' }, oldFate: 'rotation', care: 'immersion-wax' },
      ['open-pin', 'outer-out'],
      [],
    ],
    [
      'a length that fits as it comes',
      { chain: { cut: { boxes: 1, cuts: [], ends: 'both-inner', offcut: 0 } } },
      ['check-ends'],
      ['cut', 'wipe-ends', 'keep-offcut', 'oil-ends'],
    ],
    ['ends oiled at once', { schools: { prepare: 'oil-ends' } }, ['oil-ends'], ['strip', 'wipe-coat']],
    ['a stripped chain to be oiled', { schools: { prepare: 'strip' } }, ['strip', 'first-oil'], ['wipe-coat']],
    [
      'a link closed by the pedal, its pins oiled',
      { schools: { close: 'pedal', oilPins: true } },
      ['snap-pedal', 'oil-link'],
      ['snap-pliers'],
    ],
    ['the chain off the ring', { schools: { slack: 'off-ring' } }, ['back-on-ring'], []],
    ['a maker’s fitting sheet', { joint: { sheet: 'Close it with care.' } }, ['maker-sheet'], []],
  ])('of %s', (_, more, present, absent) => {
    const ids = idsOf(plan(more))
    expect(ids).toEqual(expect.arrayContaining(present))
    expect(absent.filter((id) => ids.includes(id))).toEqual([])
  })
  it('name what they are told, and sum to minutes and tools', () => {
    const steps = fittingSteps(plan({ care: 'immersion-wax' }))
    expect(steps.find(({ id }) => id === 'cut')?.values).toMatchObject({ count: 4, pitches: 112 })
    expect(standardMinutes(steps)).toBeCloseTo(steps.reduce((sum, { minutes }) => sum + minutes, 0))
    expect(toolsOf(steps)).toEqual(expect.arrayContaining(['link-pliers', 'pin-tool', 'wax-pot']))
  })
  it('never press in an old pin that must not be, nor close a shifting chain with a clip', () => {
    expect(() => fittingSteps(plan({ joint: { kind: 're-press' }, rePress: 'excluded' }))).toThrow(RangeError)
    expect(() => fittingSteps(plan({ joint: { kind: 'clip' } }))).toThrow(RangeError)
  })
  it('speak of an arrow, of letters or of a marked side only where there is one', () => {
    const told = (markedOut: boolean, joint: Partial<JobPlan['joint']>): unknown =>
      fittingSteps(plan({ chain: { markedOut }, joint })).find(({ id }) => id === 'direction')?.values['context']
    expect(told(true, { arrow: true })).toBe('chain-arrow')
    expect(told(true, { letteredOut: true })).toBe('chain-letters')
    expect(told(true, { kind: 'pin', arrow: true })).toBe('chain')
    expect(told(true, {})).toBe('chain')
    expect(told(false, { arrow: true })).toBe('arrow')
    expect(told(false, { letteredOut: true })).toBe('letters')
    expect(told(false, {})).toBeUndefined()
  })
  it('put a chain that comes waxed on as it comes', () => {
    const ids = idsOf(plan({ care: 'immersion-wax', chain: { readyWaxed: true } }))
    expect(ids).toContain('ready-waxed')
    expect(ids.filter((id) => id === 'strip' || id === 'wax-first')).toEqual([])
    expect(idsOf(plan({ care: 'dry-oil', chain: { readyWaxed: true } }))).not.toContain('ready-waxed')
  })
  it('are in one order, each once', () => {
    expect(new Set(STEPS.map(({ id }) => id)).size).toBe(STEPS.length)
  })
})

const OPENS: readonly StepId[] = ['open-link', 'open-anywhere', 'open-pin', 'open-riveted', 'open-clip', 'open-broken']
const JOINS: readonly StepId[] = [
  'join-link',
  'first-catch',
  'snap-pliers',
  'snap-pedal',
  'new-link',
  'join-pin',
  'new-pin',
  'join-re-press',
  'join-clip',
]
const OILS: readonly StepId[] = ['oil-link', 'oil-ends', 'first-oil']

/** Every combination of what the steps hang together by: options that only ever add one step of their own are told above. */
function* everyPlan(): Generator<JobPlan> {
  const presents: JobPlan['present'][] = [
    null,
    { kind: 'link', openedBy: 'hand', oneUse: true },
    { kind: 'link', openedBy: 'pliers', oneUse: false },
    { kind: 'pin', openedBy: null, oneUse: true },
    { kind: 'riveted', openedBy: null, oneUse: true },
    { kind: 'clip', openedBy: 'hand', oneUse: false },
  ]
  const outcomes: JobPlan['outcomes'][] = [
    [],
    ['skips-cassette'],
    ['skips-old-back', 'stiff-link'],
    ['wrong-count', 'no-click', 'pin-broke'],
    ['customer-stops'],
  ]
  const drives: JobPlan['drive'][] = []
  for (const type of ['derailleur', 'hub-gear', 'single-speed'] as const)
    for (const motor of [false, null])
      for (const clutch of [false, null])
        for (const cageLock of [true, false])
          for (const discBrake of [false, null])
            for (const timing of [true, false])
              drives.push({
                type,
                motor,
                guide: null,
                wideNarrow: true,
                clutch,
                cageLock,
                discBrake,
                timing,
                speeds: 8,
              })
  for (const drive of drives)
    for (const present of presents)
      for (const kind of ['link', 'pin', 'clip', 're-press'] as const)
        for (const rePress of ['allowed', 'excluded'] as const)
          for (const reason of ['worn', 'broken'] as const)
            for (const oldFate of ['scrapped', 'rotation'] as const)
              for (const care of ['immersion-wax', 'dry-oil'] as const)
                for (const prepare of ['strip', 'oil-ends'] as const)
                  for (const [i, outcome] of outcomes.entries()) {
                    if (kind === 're-press' && rePress === 'excluded') continue
                    if (kind === 'clip' && drive.type === 'derailleur' && !drive.timing) continue
                    yield {
                      ...BASE,
                      drive,
                      present,
                      joint: {
                        ...BASE.joint,
                        kind,
                        greased: true,
                        arrow: true,
                        guide: kind === 'pin' ? 'snapped' : null,
                      },
                      rePress,
                      reason,
                      oldFate,
                      care,
                      schools: { slack: SLACK_SCHOOLS[i % 3]!, close: CLOSE_SCHOOLS[i % 2]!, prepare, oilPins: true },
                      outcomes: outcome,
                    }
                  }
}
const BASE = plan({ chain: { markedOut: true } })

describe('in every combination', () => {
  it('what must come before what does, and every hazard stands with its step', () => {
    let combinations = 0
    const failures = new Map<string, string>()
    for (const one of everyPlan()) {
      combinations++
      const steps = fittingSteps(one)
      const at = new Map(steps.map(({ id }, i) => [id, i]))
      const first = (ids: readonly StepId[]): number => Math.min(...ids.map((id) => at.get(id) ?? Infinity))
      const last = (ids: readonly StepId[]): number => Math.max(...ids.map((id) => at.get(id) ?? -1))
      const hold = (rule: string, holds: boolean): void => {
        if (!holds && !failures.has(rule)) failures.set(rule, JSON.stringify(one))
      }
      const stopped = one.outcomes.includes('customer-stops')
      const hazardous = (id: StepId, hazard: string): boolean =>
        !at.has(id) || (steps[at.get(id)!]!.hazards as readonly string[]).includes(hazard)
      hold('a motor is off before anything', one.drive.motor === false || at.get('motor-off') === 0)
      hold('a motor’s caution stands with it', hazardous('motor-off', 'motor'))
      if (stopped) {
        hold('a stopped job makes the bike safe and joins nothing', at.has('make-safe') && first(JOINS) === Infinity)
        continue
      }
      hold('something is opened, once', OPENS.filter((id) => at.has(id)).length === 1)
      hold(
        'the joint is identified before it is opened',
        one.reason === 'broken' || (at.get('identify-joint') ?? Infinity) < first(OPENS),
      )
      const driven = pinsDriven(removalOf(one))
      const pieces = driven.length === 0 ? [] : piecesAfter(112, driven)
      hold(
        'a chain that comes off comes off in one piece; one that is to be closed by a link has inner ends',
        pieces.filter(({ pitches }) => pitches > 1).length <= 1 &&
          (!at.has('outer-out') || (pieces[0]!.ends === 'both-inner' && pieces[0]!.pitches === 111)),
      )
      hold(
        'a pin-closed chain on its way into the wax is converted, and no other',
        at.has('outer-out') ===
          (one.reason !== 'broken' &&
            (one.present?.kind === 'pin' || one.present?.kind === 'riveted') &&
            one.oldFate === 'rotation' &&
            isWaxed(one.care)),
      )
      hold(
        'a pedal pulls only on a chain that lies on its ring',
        !at.has('snap-pedal') || !at.has('back-on-ring') || at.get('back-on-ring')! < at.get('snap-pedal')!,
      )
      hold(
        'a chain is lifted back on its ring, once it is joined by anything but the pedal',
        !at.has('back-on-ring') || at.has('snap-pedal') || at.get('back-on-ring')! > last(JOINS),
      )
      hold(
        'half-pins are caught before they are snapped home, and looked at after',
        !at.has('join-link') ||
          (at.get('join-link')! < at.get('first-catch')! &&
            at.get('first-catch')! < first(['snap-pliers', 'snap-pedal']) &&
            last(['snap-pliers', 'snap-pedal', 'new-link']) < at.get('look-click')!),
      )
      hold(
        'a pin tool is set before it drives anything',
        !steps.some(({ tools }) => tools.includes('pin-tool')) ||
          !at.has('set-tool') ||
          at.get('set-tool')! <
            first(['open-pin', 'open-riveted', 'open-anywhere', 'cut', 'join-pin', 'join-re-press']),
      )
      hold('something is joined', first(JOINS) < Infinity)
      hold('ends are checked before joining', (at.get('check-ends') ?? Infinity) < first(JOINS))
      hold('ends are brought together before joining', (at.get('ends-together') ?? Infinity) < first(JOINS))
      const springs: readonly (readonly [StepId, StepId])[] = [
        ['lock-cage', 'unlock-cage'],
        ['clutch-off', 'clutch-on'],
      ]
      for (const [off, on] of springs) {
        hold(`${off} is undone by ${on}`, at.has(off) === at.has(on))
        if (at.has(off))
          hold(
            'nothing is opened or joined under spring tension',
            at.get(off)! < first(OPENS) && last(JOINS) < at.get(on)!,
          )
      }
      const shifting = one.drive.type === 'derailleur' && !one.drive.timing
      hold('a shifting chain is slack before it is opened', !shifting || at.get('slack')! < first(OPENS))
      hold(
        'an axle or eccentric is slack before it is opened, and tight after joining',
        shifting || (first(['slacken-axle', 'turn-eccentric']) < first(OPENS) && at.get('tighten-axle')! > last(JOINS)),
      )
      hold(
        'direction and marked side come before routing',
        at.get('direction')! < first(['route-front', 'route-rear', 'route-pulleys']),
      )
      hold('routing comes before joining', last(['route-front', 'route-rear', 'route-pulleys']) < first(JOINS))
      hold('the old chain is kept', at.has('keep-old'))
      hold(
        'the old chain goes only after a ride that passed',
        !at.has('old-goes') || at.get('old-goes')! > last(['test-ride', 'ride-again']),
      )
      hold(
        'oil has its rotor caution, unless there is no disc',
        one.drive.discBrake === false || OILS.every((id) => hazardous(id, 'rotor')),
      )
      hold(
        'wax has its heat caution, and its rotor caution',
        hazardous('wax-first', 'heat') && (one.drive.discBrake === false || hazardous('wax-first', 'rotor')),
      )
      hold('no oil goes on a waxed chain', !isWaxed(one.care) || OILS.every((id) => !at.has(id)))
      hold('an excluded pin is never pressed in', one.rePress !== 'excluded' || !at.has('join-re-press'))
      hold(
        'a greased link is cleaned before a waxed chain is joined',
        !isWaxed(one.care) || one.joint.kind !== 'link' || at.get('degrease-link')! < first(JOINS),
      )
      hold(
        'joining has its caution',
        JOINS.every((id) => hazardous(id, 'failure')),
      )
      hold(
        'solvents have theirs',
        (['clean', 'strip', 'degrease-link'] as const).every((id) => hazardous(id, 'solvent')),
      )
      hold(
        'pressing and cutting metal has its',
        (['cut', 'join-pin', 'open-pin', 'open-riveted'] as const).every((id) => hazardous(id, 'metal')),
      )
      hold('each step is there once', at.size === steps.length)
      hold(
        'every step takes some time',
        steps.every(({ minutes }) => minutes > 0),
      )
    }
    expect([...failures]).toEqual([])
    expect(combinations).toBeGreaterThan(200_000)
  }, 60_000)
  it('every school, reason, fate and position gives a job', () => {
    for (const reason of JOB_REASONS)
      for (const oldFate of OLD_FATES)
        for (const position of POSITIONS)
          for (const slack of SLACK_SCHOOLS)
            for (const prepare of PREPARE_SCHOOLS)
              for (const close of CLOSE_SCHOOLS)
                expect(
                  fittingSteps({
                    ...BASE,
                    reason,
                    oldFate,
                    position,
                    schools: { ...SHIPPED_SCHOOLS, slack, prepare, close },
                  }).length,
                ).toBeGreaterThan(20)
  })
})
