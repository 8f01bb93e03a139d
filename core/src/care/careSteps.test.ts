import { describe, expect, it } from 'vitest'
import { SHIPPED_SCHOOLS, POT_RECIPES, POT_VESSELS, toolsOf, type ChainHandling, type JobDrive } from '../index.ts'
import { careSteps, takesOff, TREATMENTS, type CareJob, type CareStepId } from './careSteps.ts'
import { CLEANINGS, cleaningNeeded, STRIPS, usualCleaning } from './cleaning.ts'

const BEFORE = ['immersion-wax', 'wet-oil', 'unknown'] as const
const link: ChainHandling['joint'] = {
  kind: 'link',
  arrow: false,
  letteredOut: false,
  greased: false,
  guide: null,
  sheet: null,
}
const drive: JobDrive = {
  type: 'derailleur',
  motor: false,
  guide: 'none',
  wideNarrow: true,
  clutch: true,
  cageLock: false,
  discBrake: false,
  timing: false,
  speeds: 11,
}
const handling: ChainHandling = {
  drive,
  schools: SHIPPED_SCHOOLS,
  present: { kind: 'link', openedBy: 'pliers', oneUse: false },
  joint: link,
  rePress: 'excluded',
  markedOut: false,
}
const HANDLINGS: ChainHandling[] = [
  handling,
  { ...handling, drive: { ...drive, motor: null, discBrake: null, cageLock: true } },
  { ...handling, drive: { ...drive, motor: true, discBrake: true, type: 'hub-gear' }, markedOut: true },
  { ...handling, schools: { ...SHIPPED_SCHOOLS, close: 'pedal', slack: 'off-ring', oilPins: true } },
  {
    ...handling,
    present: { kind: 'pin', openedBy: null, oneUse: true },
    joint: { ...link, kind: 'pin', guide: 'snapped' },
  },
  {
    ...handling,
    present: { kind: 'riveted', openedBy: null, oneUse: true },
    joint: { ...link, kind: 're-press' },
    rePress: 'allowed',
  },
]
const times = { minutes: 12, hangMinutes: 25, heatMinutes: 38 }
const job = (more: Partial<CareJob> = {}): CareJob => ({
  care: 'immersion-wax',
  cleaning: 'wipe',
  before: 'immersion-wax',
  wet: false,
  checkFirst: false,
  handling,
  waxing: { recipe: 'soak-and-hang', vessel: 'thermostat', finish: 'flex', linkInPot: false, times },
  ...more,
})
const all: CareJob[] = TREATMENTS.flatMap((care) =>
  CLEANINGS.flatMap((cleaning) =>
    BEFORE.flatMap((before) =>
      [true, false].flatMap((wet) =>
        HANDLINGS.flatMap((one, i) =>
          POT_RECIPES.flatMap((recipe) =>
            POT_VESSELS.map((vessel) =>
              job({
                care,
                cleaning,
                before,
                wet,
                checkFirst: i % 2 === 0,
                handling: one,
                waxing: { recipe, vessel, finish: wet ? 'flex' : 'fit-stiff', linkInPot: wet, times },
              }),
            ),
          ),
        ),
      ),
    ),
  ),
)
const idsOf = (of: CareJob): CareStepId[] => careSteps(of).map(({ id }) => id)

describe('steps of a care, over every combination', () => {
  it('hold what must be so', () => {
    const failures = new Map<string, string>()
    for (const one of all) {
      const steps = careSteps(one)
      const ids = steps.map(({ id }) => id)
      const at = new Map(ids.map((id, i) => [id, i]))
      const first = (...of: readonly CareStepId[]): number => Math.min(...of.map((id) => at.get(id) ?? Infinity))
      const last = (...of: readonly CareStepId[]): number => Math.max(...of.map((id) => at.get(id) ?? -1))
      const hold = (rule: string, holds: boolean): void => {
        if (!holds && !failures.has(rule)) failures.set(rule, `${ids.join(' ')}: ${JSON.stringify(one)}`)
      }
      const { motor, discBrake, cageLock } = one.handling.drive
      const treats = ['lower-in', 'drip-each-roller', 'drop-each-roller'] as const
      const opens = ['open-link', 'open-pin', 'open-riveted'] as const
      hold('each stands once', at.size === ids.length)
      hold(
        'measured first, where it is due',
        (ids[0] === 'measure-first' || ids[1] === 'measure-first') === one.checkFirst,
      )
      hold(
        'a motor is off before hands are in the drive',
        motor === false || first('motor-off') < first('identify-joint', 'turn-cranks'),
      )
      hold('and on again last', (ids.at(-1) === 'motor-on') === (motor !== false))
      hold('off its bike exactly where it has to be', takesOff(one) === at.has('draw-out'))
      hold(
        'what comes off is opened once and joined again',
        !takesOff(one) ||
          (opens.filter((id) => at.has(id)).length === 1 && first('join-link', 'join-pin', 'join-re-press') < Infinity),
      )
      hold(
        'what stays on is neither opened nor joined',
        takesOff(one) || first(...opens, 'join-link', 'look-click') === Infinity,
      )
      hold('its joint is known before it is opened', !takesOff(one) || first('identify-joint') < first(...opens))
      hold(
        'no spring pulls while it is opened or joined',
        cageLock !== true ||
          !takesOff(one) ||
          (first('lock-cage') < first(...opens) && first('unlock-cage') > last('look-click', 'join-pin')),
      )
      hold(
        'a link that is closed once more says how it clicked',
        at.has('join-link') === (steps.find(({ id }) => id === 'look-click')?.asks === 'click'),
      )
      hold('no pin-closed chain is waxed without a link', one.care !== 'immersion-wax' || at.has('join-link'))
      hold(
        'a pedal pulls only on a chain on its ring',
        !at.has('snap-pedal') || first('back-on-ring') < first('snap-pedal'),
      )
      hold(
        'wax is cleared from a waxed joint before it closes',
        !at.has('join-link') || one.care !== 'immersion-wax' || first('clear-wax') < first('join-link'),
      )
      hold('no oil near wax', (one.care !== 'immersion-wax' && one.care !== 'drip-wax') || !at.has('oil-link'))
      hold('wiped before it is treated', first('wipe-dry') < first(...treats))
      hold(
        'a wet chain is dried before anything goes on it',
        !(one.wet || cleaningNeeded(one) !== 'wipe') || first('dry') < first(...treats),
      )
      hold('wax is molten before a chain is lowered in', !at.has('lower-in') || first('heat') < first('lower-in'))
      hold('a chain hangs after it is drawn', !at.has('hang') || last('draw', 'slow-draw') < first('hang'))
      hold(
        'what had oil is stripped before its first wax, however',
        one.care !== 'immersion-wax' || one.before === 'immersion-wax' || STRIPS.includes(cleaningNeeded(one)),
      )
      hold(
        'a disc is covered before anything drips',
        discBrake === false || one.care === 'immersion-wax' || first('cover-rotor') < first(...treats),
      )
      for (const { id, hazards } of steps) {
        const wants = HAZARDS_AT[id]
        if (wants !== undefined) hold(`${id} has its caution`, hazards.includes(wants))
      }
    }
    expect([...failures]).toEqual([])
    expect(all.length).toBeGreaterThan(5000)
  })
  it('draw a chain as its recipe says', () => {
    const by = (recipe: CareJob['waxing']['recipe']) => idsOf(job({ waxing: { ...job().waxing, recipe } }))
    expect(by('soak-and-hang')).toEqual(expect.arrayContaining(['soak-wax', 'swish', 'draw']))
    expect(by('bubble-out')).not.toContain('soak-wax')
    expect(by('cool-draw')).toEqual(expect.arrayContaining(['swish', 'pot-off', 'skin', 'slow-draw']))
    expect(by('cool-draw')).not.toContain('draw')
  })
  it('name what has to be taken up', () => {
    expect(toolsOf(careSteps(job({ cleaning: 'boil' })))).toEqual(
      expect.arrayContaining(['wax-remover', 'wax-pot', 'bar', 'link-pliers']),
    )
  })
})

const HAZARDS_AT: Partial<
  Record<CareStepId, 'heat' | 'scald' | 'solvent' | 'motor' | 'rotor' | 'failure' | 'pressure'>
> = {
  heat: 'heat',
  'lower-in': 'heat',
  draw: 'heat',
  'slow-draw': 'heat',
  boil: 'scald',
  hang: 'heat',
  soak: 'solvent',
  ultrasonic: 'solvent',
  box: 'solvent',
  'strip-chain': 'solvent',
  'brush-on-bike': 'solvent',
  'motor-off': 'motor',
  'rotor-clean': 'rotor',
  'join-link': 'failure',
  dry: 'pressure',
}

describe('how a chain is usually cleaned', () => {
  it('is as the last time, not as it was stripped once, and wiped where nobody said', () => {
    expect(usualCleaning([{ cleaning: null }, { cleaning: 'strip' }, { cleaning: 'soak' }])).toBe('soak')
    expect(usualCleaning([{ cleaning: null }, { cleaning: 'ultrasonic' }])).toBe('wipe')
  })
})
