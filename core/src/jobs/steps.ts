import { isOiled, isWaxed, type JobOutcome, type JobPlan } from './jobPlan.ts'

export type StepPhase = 'before' | 'off' | 'clean' | 'prepare' | 'cut' | 'route' | 'join' | 'check' | 'ride' | 'end'

/** What can hurt at a step. Each has its caution in the message catalogue. */
export type Hazard = 'motor' | 'spring' | 'fingers' | 'solvent' | 'heat' | 'rotor' | 'failure' | 'metal'

export type Tool =
  | 'stand'
  | 'rule'
  | 'link-pliers'
  | 'pin-tool'
  | 'clip-pliers'
  | 'hook'
  | 'gloves'
  | 'cloth'
  | 'brush'
  | 'degreaser'
  | 'wax-pot'
  | 'oil'
  | 'axle-spanner'
  | 'cassette-tools'
  | 'paper'

export type StepId =
  | 'motor-off'
  | 'pick'
  | 'count-old'
  | 'look-broken'
  | 'identify-joint'
  | 'slack'
  | 'lock-cage'
  | 'clutch-off'
  | 'slacken-axle'
  | 'turn-eccentric'
  | 'hold-ends'
  | 'open-link'
  | 'open-anywhere'
  | 'open-pin'
  | 'open-riveted'
  | 'open-clip'
  | 'open-broken'
  | 'let-go'
  | 'convert-old'
  | 'keep-old'
  | 'clean'
  | 'look-teeth'
  | 'strip'
  | 'wax-first'
  | 'wipe-coat'
  | 'hang-new'
  | 'degrease-link'
  | 'length-new'
  | 'cut'
  | 'wipe-ends'
  | 'oil-ends'
  | 'keep-offcut'
  | 'check-ends'
  | 'direction'
  | 'route-front'
  | 'route-rear'
  | 'route-pulleys'
  | 'wide-narrow'
  | 'ends-together'
  | 'phase-cranks'
  | 'length-before'
  | 'maker-sheet'
  | 'clear-wax'
  | 'oil-link'
  | 'join-link'
  | 'snap-pliers'
  | 'snap-pedal'
  | 'look-click'
  | 'new-link'
  | 'join-pin'
  | 'guide-off'
  | 'new-pin'
  | 'join-re-press'
  | 'join-clip'
  | 'unlock-cage'
  | 'clutch-on'
  | 'back-on-ring'
  | 'set-tension'
  | 'tighten-axle'
  | 'length-after'
  | 'mend-count'
  | 'stiff-link'
  | 'free-stiff'
  | 'back-pedal'
  | 'every-gear'
  | 'hub-gears'
  | 'first-oil'
  | 'rotor-clean'
  | 'motor-on'
  | 'test-ride'
  | 'fit-cassette'
  | 'old-back'
  | 'ride-again'
  | 'make-safe'
  | 'old-goes'
  | 'baseline'
  | 'carry-card'

/** One entry of the table: when it applies, and what it wants. */
interface StepRule {
  readonly id: StepId
  readonly phase: StepPhase
  readonly when: (plan: JobPlan) => boolean
  readonly minutes: number
  /** Minutes nothing can be done but wait, once it is begun. */
  readonly waits?: number
  readonly tools?: (plan: JobPlan) => readonly Tool[]
  readonly hazards?: (plan: JobPlan) => readonly Hazard[]
  readonly values?: (plan: JobPlan) => Readonly<Record<string, string | number>>
  /** Something to be seen or felt before it is done. */
  readonly checked?: boolean
}

const had =
  (outcome: JobOutcome) =>
  ({ outcomes }: JobPlan): boolean =>
    outcomes.includes(outcome)
/** The work goes on: nobody stopped it. */
const goes = (when: (plan: JobPlan) => boolean) => (plan: JobPlan) => when(plan) && !had('customer-stops')(plan)
const always = (): boolean => true
const shifts = ({ drive }: JobPlan): boolean => drive.type === 'derailleur' && !drive.timing
const mayBe = (known: boolean | null): boolean => known !== false
const broken = ({ reason }: JobPlan): boolean => reason === 'broken'
const oldKept = ({ oldFate }: JobPlan): boolean => oldFate !== 'scrapped'
const presentIs =
  (kind: NonNullable<JobPlan['present']>['kind']) =>
  ({ present, reason }: JobPlan): boolean =>
    present?.kind === kind && reason !== 'broken'
const jointIs =
  (...kinds: readonly JobPlan['joint']['kind'][]) =>
  ({ joint }: JobPlan): boolean =>
    kinds.includes(joint.kind)
/** A link of which one use is all, on a chain that is scrap: the chain may be opened wherever it is easiest. */
const mayCutElsewhere = (plan: JobPlan): boolean =>
  presentIs('link')(plan) && plan.present?.oneUse === true && !oldKept(plan)
/** A locked cage holds the clutch as well. */
const clutchTurned = (plan: JobPlan): boolean =>
  shifts(plan) && mayBe(plan.drive.clutch) && plan.drive.cageLock !== true
/** A brake's disc near the chain, unless it is known that there is none. */
const rotor = ({ drive }: JobPlan): readonly Hazard[] => (mayBe(drive.discBrake) ? ['rotor'] : [])
const and =
  (...more: readonly Hazard[]) =>
  (plan: JobPlan): readonly Hazard[] => [...more, ...rotor(plan)]
const count = ({ cut }: JobPlan['chain']): number => cut.cuts.reduce((sum, { pitches }) => sum + pitches, 0)

/**
 * Every step there is, in the order it is done. Nothing else decides what a job consists of.
 *
 * The order holds what must come before what: the motor is off first; the joint is known before it is opened; the spring is
 * off before anything is opened or joined; ends are right before they meet; direction comes before routing; the old chain
 * goes only after the test ride.
 */
export const STEPS: readonly StepRule[] = [
  {
    id: 'motor-off',
    phase: 'before',
    when: ({ drive }) => mayBe(drive.motor),
    minutes: 0.5,
    hazards: () => ['motor'],
    checked: true,
  },
  { id: 'pick', phase: 'before', when: goes(always), minutes: 1.5, tools: () => ['stand'] },
  {
    id: 'count-old',
    phase: 'before',
    when: goes((plan) => !broken(plan)),
    minutes: 1.5,
    values: ({ shortened }) => ({ context: shortened ? 'shortened' : 'whole' }),
  },
  {
    id: 'look-broken',
    phase: 'before',
    when: goes(broken),
    minutes: 3,
    tools: () => ['gloves'],
    hazards: () => ['metal', 'fingers'],
    checked: true,
  },
  { id: 'identify-joint', phase: 'before', when: goes((plan) => !broken(plan)), minutes: 0.5, checked: true },

  {
    id: 'slack',
    phase: 'off',
    when: goes(shifts),
    minutes: 0.5,
    values: ({ schools }) => ({ context: schools.slack }),
    hazards: () => ['fingers'],
  },
  {
    id: 'lock-cage',
    phase: 'off',
    when: goes((plan) => shifts(plan) && plan.drive.cageLock === true),
    minutes: 0.3,
    hazards: () => ['spring'],
    checked: true,
  },
  {
    id: 'clutch-off',
    phase: 'off',
    when: goes(clutchTurned),
    minutes: 0.3,
    hazards: () => ['spring'],
  },
  {
    id: 'slacken-axle',
    phase: 'off',
    when: goes((plan) => !shifts(plan) && !plan.drive.timing),
    minutes: 2,
    tools: () => ['axle-spanner'],
    hazards: () => ['fingers'],
  },
  {
    id: 'turn-eccentric',
    phase: 'off',
    when: goes(({ drive }) => drive.timing),
    minutes: 2,
    tools: () => ['axle-spanner'],
    hazards: () => ['fingers'],
  },
  {
    id: 'hold-ends',
    phase: 'off',
    when: goes((plan) => !broken(plan)),
    minutes: 0.3,
    tools: () => ['hook'],
    hazards: () => ['spring'],
    checked: true,
  },
  {
    id: 'open-anywhere',
    phase: 'off',
    when: goes(mayCutElsewhere),
    minutes: 0.5,
    tools: () => ['pin-tool', 'gloves'],
    hazards: () => ['spring', 'metal'],
  },
  {
    id: 'open-link',
    phase: 'off',
    when: goes((plan) => presentIs('link')(plan) && !mayCutElsewhere(plan)),
    minutes: 0.5,
    tools: ({ present }) => (present?.openedBy === 'hand' ? [] : ['link-pliers']),
    hazards: () => ['spring'],
    values: ({ present }) => ({ context: present?.openedBy ?? 'pliers' }),
  },
  {
    id: 'open-pin',
    phase: 'off',
    when: goes(presentIs('pin')),
    minutes: 1,
    tools: () => ['pin-tool'],
    hazards: () => ['spring', 'metal'],
    values: (plan) => ({ context: oldKept(plan) ? 'kept' : 'scrap' }),
    checked: true,
  },
  {
    id: 'open-riveted',
    phase: 'off',
    when: goes((plan) => presentIs('riveted')(plan) || (plan.present === null && !broken(plan))),
    minutes: 1,
    tools: () => ['pin-tool'],
    hazards: () => ['spring', 'metal'],
    // A pin that is to be pressed in again stays in the outer plate; one that must not be is driven out.
    values: ({ rePress, oldFate }) => ({
      context: rePress === 'excluded' || oldFate === 'scrapped' ? 'out' : 'left-in',
    }),
    checked: true,
  },
  {
    id: 'open-clip',
    phase: 'off',
    when: goes(presentIs('clip')),
    minutes: 1,
    tools: () => ['clip-pliers'],
    hazards: () => ['metal'],
  },
  {
    id: 'open-broken',
    phase: 'off',
    when: goes(broken),
    minutes: 0.5,
    tools: () => ['gloves'],
    hazards: () => ['metal', 'fingers'],
  },
  {
    id: 'let-go',
    phase: 'off',
    when: goes(always),
    minutes: 0.3,
    hazards: (plan) => (shifts(plan) ? ['spring'] : []),
  },
  {
    id: 'convert-old',
    phase: 'off',
    // A chain that goes on into the wax leaves its pin behind.
    when: goes((plan) => presentIs('pin')(plan) && plan.oldFate === 'rotation' && isWaxed(plan.care)),
    minutes: 2,
    tools: () => ['pin-tool'],
    hazards: () => ['metal'],
  },
  { id: 'keep-old', phase: 'off', when: goes(always), minutes: 0.2 },

  {
    id: 'clean',
    phase: 'clean',
    when: goes(always),
    minutes: 6,
    tools: () => ['brush', 'degreaser', 'cloth', 'gloves'],
    hazards: and('solvent', 'fingers'),
  },
  { id: 'look-teeth', phase: 'clean', when: goes(always), minutes: 1, checked: true },

  {
    id: 'strip',
    phase: 'prepare',
    when: goes(({ schools, care }) => schools.prepare === 'strip' || isWaxed(care)),
    minutes: 8,
    waits: 10,
    tools: () => ['degreaser', 'gloves'],
    hazards: () => ['solvent'],
  },
  {
    id: 'wax-first',
    phase: 'prepare',
    when: goes(({ care }) => care === 'immersion-wax'),
    minutes: 5,
    waits: 25,
    tools: () => ['wax-pot', 'gloves'],
    hazards: and('heat'),
  },
  {
    id: 'wipe-coat',
    phase: 'prepare',
    when: goes(({ schools, care }) => schools.prepare === 'wipe' && !isWaxed(care)),
    minutes: 1,
    tools: () => ['cloth'],
  },
  { id: 'hang-new', phase: 'prepare', when: goes(always), minutes: 0.2, tools: () => ['paper'] },
  {
    id: 'degrease-link',
    phase: 'prepare',
    when: goes((plan) => jointIs('link', 'clip')(plan) && plan.joint.greased && isWaxed(plan.care)),
    minutes: 1,
    tools: () => ['degreaser', 'cloth', 'gloves'],
    hazards: () => ['solvent'],
  },

  {
    id: 'length-new',
    phase: 'cut',
    when: goes(always),
    minutes: 1.5,
    tools: () => ['rule'],
    values: ({ chain, shortened }) => ({ pitches: chain.pitches, context: shortened ? 'shortened' : 'whole' }),
    checked: true,
  },
  {
    id: 'cut',
    phase: 'cut',
    when: goes(({ chain }) => count(chain) > 0),
    minutes: 1.5,
    tools: () => ['pin-tool'],
    hazards: () => ['metal'],
    values: ({ chain }) => ({ count: count(chain), pitches: chain.pitches }),
  },
  {
    id: 'wipe-ends',
    phase: 'cut',
    when: goes(({ chain }) => count(chain) > 0),
    minutes: 0.3,
    tools: () => ['cloth'],
  },
  {
    id: 'oil-ends',
    phase: 'cut',
    when: goes((plan) => plan.schools.prepare === 'oil-ends' && count(plan.chain) > 0 && !isWaxed(plan.care)),
    minutes: 0.3,
    tools: () => ['oil', 'cloth'],
    hazards: rotor,
  },
  {
    id: 'keep-offcut',
    phase: 'cut',
    when: goes(({ chain }) => chain.cut.offcut > 0),
    minutes: 0.2,
    values: ({ chain }) => ({ count: chain.cut.offcut }),
  },
  {
    id: 'check-ends',
    phase: 'cut',
    when: goes(always),
    minutes: 0.3,
    values: ({ chain }) => ({ context: chain.cut.ends }),
    checked: true,
  },

  {
    id: 'direction',
    phase: 'route',
    when: goes(({ chain, joint }) => chain.markedOut || joint.arrow || joint.letteredOut),
    minutes: 0.3,
    values: ({ chain }) => ({ context: chain.markedOut ? 'chain' : 'joint' }),
    checked: true,
  },
  {
    id: 'route-front',
    phase: 'route',
    when: goes((plan) => !plan.drive.timing && plan.drive.guide !== 'none'),
    minutes: 0.5,
    values: ({ drive, position }) => ({ context: drive.guide ?? 'unknown', position }),
    hazards: () => ['fingers'],
  },
  {
    id: 'route-rear',
    phase: 'route',
    when: goes((plan) => !shifts(plan)),
    minutes: 0.5,
    values: ({ drive }) => ({ context: drive.timing ? 'timing' : 'sprocket' }),
    hazards: () => ['fingers'],
  },
  {
    id: 'route-pulleys',
    phase: 'route',
    when: goes(shifts),
    minutes: 1,
    values: ({ position }) => ({ context: position }),
    hazards: () => ['fingers'],
    checked: true,
  },
  {
    id: 'wide-narrow',
    phase: 'route',
    when: goes((plan) => !plan.drive.timing && plan.drive.wideNarrow === true),
    minutes: 0.3,
    checked: true,
  },

  {
    id: 'ends-together',
    phase: 'join',
    when: goes(always),
    minutes: 0.3,
    tools: () => ['hook'],
    hazards: (plan) => (shifts(plan) ? ['spring'] : []),
  },
  { id: 'phase-cranks', phase: 'join', when: goes(({ drive }) => drive.timing), minutes: 1, checked: true },
  { id: 'length-before', phase: 'join', when: goes(always), minutes: 0.3, checked: true },
  {
    id: 'maker-sheet',
    phase: 'join',
    when: goes(({ joint }) => joint.sheet !== null),
    minutes: 0.3,
    values: ({ joint }) => ({ sheet: joint.sheet ?? '' }),
  },
  {
    id: 'clear-wax',
    phase: 'join',
    when: goes((plan) => jointIs('link')(plan) && plan.care === 'immersion-wax'),
    minutes: 0.5,
    tools: () => ['cloth'],
  },
  {
    id: 'oil-link',
    phase: 'join',
    when: goes((plan) => jointIs('link')(plan) && plan.schools.oilPins && !isWaxed(plan.care)),
    minutes: 0.2,
    tools: () => ['oil', 'cloth'],
    hazards: rotor,
  },
  {
    id: 'join-link',
    phase: 'join',
    when: goes(jointIs('link')),
    minutes: 0.5,
    values: ({ joint }) => ({ context: joint.arrow ? 'arrow' : 'plain' }),
    hazards: () => ['failure'],
  },
  {
    id: 'snap-pliers',
    phase: 'join',
    when: goes((plan) => jointIs('link')(plan) && plan.schools.close === 'pliers'),
    minutes: 0.3,
    tools: () => ['link-pliers'],
    hazards: () => ['failure'],
  },
  {
    id: 'snap-pedal',
    phase: 'join',
    when: goes((plan) => jointIs('link')(plan) && plan.schools.close === 'pedal'),
    minutes: 0.5,
    hazards: () => ['failure', 'fingers'],
  },
  {
    id: 'new-link',
    phase: 'join',
    when: goes((plan) => jointIs('link')(plan) && had('no-click')(plan)),
    minutes: 2,
    tools: () => ['link-pliers'],
    hazards: () => ['failure'],
  },
  {
    id: 'look-click',
    phase: 'join',
    when: goes(jointIs('link')),
    minutes: 0.3,
    hazards: () => ['failure'],
    checked: true,
  },
  {
    id: 'join-pin',
    phase: 'join',
    when: goes(jointIs('pin')),
    minutes: 1.5,
    tools: () => ['pin-tool'],
    hazards: () => ['failure', 'metal'],
    checked: true,
  },
  {
    id: 'new-pin',
    phase: 'join',
    when: goes((plan) => jointIs('pin', 're-press')(plan) && had('pin-broke')(plan)),
    minutes: 3,
    tools: () => ['pin-tool'],
    hazards: () => ['failure', 'metal'],
    checked: true,
  },
  {
    id: 'guide-off',
    phase: 'join',
    when: goes((plan) => jointIs('pin')(plan) && plan.joint.guide !== null),
    minutes: 0.3,
    tools: () => ['pin-tool'],
    hazards: () => ['metal'],
    values: ({ joint }) => ({ context: joint.guide ?? 'snapped' }),
  },
  {
    id: 'join-re-press',
    phase: 'join',
    when: goes((plan) => jointIs('re-press')(plan) && plan.rePress !== 'excluded'),
    minutes: 1.5,
    tools: () => ['pin-tool'],
    hazards: () => ['failure', 'metal'],
    values: ({ rePress }) => ({ context: rePress }),
    checked: true,
  },
  {
    id: 'join-clip',
    phase: 'join',
    when: goes(jointIs('clip')),
    minutes: 1,
    tools: () => ['clip-pliers'],
    hazards: () => ['failure', 'metal'],
    checked: true,
  },
  {
    id: 'unlock-cage',
    phase: 'join',
    when: goes((plan) => shifts(plan) && plan.drive.cageLock === true),
    minutes: 0.2,
    hazards: () => ['spring'],
    checked: true,
  },
  {
    id: 'back-on-ring',
    phase: 'join',
    when: goes((plan) => shifts(plan) && plan.schools.slack === 'off-ring'),
    minutes: 0.3,
    hazards: () => ['fingers'],
  },
  {
    id: 'clutch-on',
    phase: 'join',
    when: goes(clutchTurned),
    minutes: 0.2,
    hazards: () => ['spring'],
    checked: true,
  },
  {
    id: 'set-tension',
    phase: 'join',
    when: goes((plan) => !shifts(plan)),
    minutes: 2,
    tools: () => ['axle-spanner'],
    hazards: () => ['fingers'],
    values: ({ drive }) => ({ context: drive.timing ? 'timing' : 'axle' }),
    checked: true,
  },
  {
    id: 'tighten-axle',
    phase: 'join',
    when: goes((plan) => !shifts(plan)),
    minutes: 1,
    tools: () => ['axle-spanner'],
    values: ({ drive }) => ({ context: drive.timing ? 'timing' : 'axle' }),
    hazards: () => ['failure'],
    checked: true,
  },
  { id: 'length-after', phase: 'join', when: goes(always), minutes: 0.5, checked: true },
  {
    id: 'mend-count',
    phase: 'join',
    when: goes(had('wrong-count')),
    minutes: 5,
    tools: () => ['pin-tool', 'hook'],
    hazards: () => ['spring', 'metal', 'failure'],
    checked: true,
  },

  { id: 'stiff-link', phase: 'check', when: goes(always), minutes: 0.5, hazards: () => ['fingers'], checked: true },
  {
    id: 'free-stiff',
    phase: 'check',
    when: goes(had('stiff-link')),
    minutes: 1.5,
    tools: () => ['pin-tool'],
    hazards: () => ['fingers'],
    checked: true,
  },
  { id: 'back-pedal', phase: 'check', when: goes(shifts), minutes: 0.3, hazards: () => ['fingers'], checked: true },
  { id: 'every-gear', phase: 'check', when: goes(shifts), minutes: 2.5, hazards: () => ['fingers'], checked: true },
  {
    id: 'hub-gears',
    phase: 'check',
    when: goes(({ drive }) => drive.type === 'hub-gear' && !drive.timing),
    minutes: 1,
    hazards: () => ['fingers'],
    checked: true,
  },
  {
    id: 'first-oil',
    phase: 'check',
    // The factory's coat carries a wiped chain to its first oil; a stripped one runs dry without.
    when: goes((plan) => plan.schools.prepare === 'strip' && isOiled(plan.care)),
    minutes: 4,
    waits: 5,
    tools: () => ['oil', 'cloth'],
    hazards: and('fingers'),
  },
  {
    id: 'rotor-clean',
    phase: 'check',
    when: goes(({ drive }) => mayBe(drive.discBrake)),
    minutes: 0.3,
    tools: () => ['cloth'],
    hazards: () => ['rotor'],
    checked: true,
  },
  {
    id: 'motor-on',
    phase: 'check',
    when: goes(({ drive }) => drive.motor === true),
    minutes: 0.3,
    hazards: () => ['motor'],
  },

  { id: 'test-ride', phase: 'ride', when: goes(always), minutes: 4, hazards: () => ['failure'], checked: true },
  {
    id: 'fit-cassette',
    phase: 'ride',
    when: goes(had('skips-cassette')),
    minutes: 10,
    tools: () => ['cassette-tools', 'gloves'],
    hazards: and('metal'),
    checked: true,
  },
  {
    id: 'old-back',
    phase: 'ride',
    when: goes((plan) => had('skips-old-back')(plan) && !broken(plan)),
    minutes: 8,
    tools: () => ['hook', 'link-pliers'],
    hazards: () => ['spring', 'failure'],
    checked: true,
  },
  {
    id: 'ride-again',
    phase: 'ride',
    when: goes((plan) => had('skips-cassette')(plan) || (had('skips-old-back')(plan) && !broken(plan))),
    minutes: 4,
    hazards: () => ['failure'],
    checked: true,
  },

  {
    id: 'make-safe',
    phase: 'end',
    when: had('customer-stops'),
    minutes: 3,
    hazards: () => ['failure', 'spring'],
    checked: true,
  },
  {
    id: 'old-goes',
    phase: 'end',
    when: goes((plan) => !had('skips-old-back')(plan) || broken(plan)),
    minutes: 0.3,
    values: ({ oldFate }) => ({ context: oldFate }),
  },
  {
    id: 'baseline',
    phase: 'end',
    when: goes((plan) => !had('skips-old-back')(plan)),
    minutes: 1.5,
    tools: () => ['rule'],
  },
  { id: 'carry-card', phase: 'end', when: goes(always), minutes: 0.5 },
]
