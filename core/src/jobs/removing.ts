import { clutchTurned, convertsPin, mayBe, shifts, type JointNow, type Removal } from './chainWork.ts'
import type { StepRule } from './stepTypes.ts'

export type RemovalStepId =
  | 'motor-off'
  | 'set-tool'
  | 'identify-joint'
  | 'note-way'
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
  | 'outer-out'
  | 'let-go'
  | 'draw-out'

const closedBy =
  (kind: JointNow['kind']) =>
  ({ joint, broken }: Removal): boolean =>
    joint?.kind === kind && !broken
/** A link of which one use is all, on a chain that is scrap: the chain may be opened wherever it is easiest. */
const mayCutElsewhere = (removal: Removal): boolean =>
  closedBy('link')(removal) && removal.joint?.oneUse === true && !removal.kept

/** Taking a chain off a bike, for whatever: for a job, for its care, into the pot, to be mended. In the order it is usually done. */
export const REMOVING: readonly StepRule<Removal, RemovalStepId>[] = [
  {
    id: 'motor-off',
    phase: 'before',
    when: ({ drive }) => mayBe(drive.motor),
    minutes: 0.5,
    hazards: () => ['motor'],
    checked: true,
  },
  {
    id: 'identify-joint',
    phase: 'before',
    when: ({ broken }) => !broken,
    minutes: 0.5,
    checked: true,
  },
  {
    id: 'note-way',
    phase: 'before',
    when: ({ wayToNote, broken }) => wayToNote && !broken,
    minutes: 0.3,
    tools: () => ['thread'],
    asks: 'way',
  },
  {
    id: 'slack',
    phase: 'off',
    when: shifts,
    minutes: 0.5,
    values: ({ schools }) => ({ context: schools.slack }),
    hazards: () => ['fingers'],
  },
  {
    id: 'lock-cage',
    phase: 'off',
    when: (removal) => shifts(removal) && removal.drive.cageLock === true,
    minutes: 0.3,
    hazards: () => ['spring'],
    checked: true,
  },
  { id: 'clutch-off', phase: 'off', when: clutchTurned, minutes: 0.3, hazards: () => ['spring'] },
  {
    id: 'slacken-axle',
    phase: 'off',
    when: (removal) => !shifts(removal) && !removal.drive.timing,
    minutes: 2,
    tools: () => ['axle-spanner'],
    hazards: () => ['fingers'],
  },
  {
    id: 'turn-eccentric',
    phase: 'off',
    when: ({ drive }) => drive.timing,
    minutes: 2,
    tools: () => ['axle-spanner'],
    hazards: () => ['fingers'],
  },
  {
    id: 'hold-ends',
    phase: 'off',
    when: ({ broken }) => !broken,
    minutes: 0.3,
    tools: () => ['hook'],
    hazards: () => ['spring'],
    checked: true,
  },
  {
    id: 'set-tool',
    phase: 'off',
    when: ({ pinTool }) => pinTool,
    minutes: 0.5,
    tools: () => ['pin-tool'],
    hazards: () => ['metal'],
    checked: true,
  },
  {
    id: 'open-anywhere',
    phase: 'off',
    when: mayCutElsewhere,
    minutes: 0.5,
    tools: () => ['pin-tool', 'gloves'],
    hazards: () => ['spring', 'metal'],
  },
  {
    id: 'open-link',
    phase: 'off',
    when: (removal) => closedBy('link')(removal) && !mayCutElsewhere(removal),
    minutes: 0.5,
    tools: ({ joint }) => (joint?.openedBy === 'hand' ? [] : ['link-pliers']),
    hazards: () => ['spring'],
    values: ({ joint }) => ({ context: joint?.openedBy ?? 'pliers' }),
    checked: true,
  },
  {
    id: 'open-pin',
    phase: 'off',
    when: closedBy('pin'),
    minutes: 1,
    tools: () => ['pin-tool'],
    hazards: () => ['spring', 'metal'],
    values: (removal) => ({ context: convertsPin(removal) ? 'convert' : removal.kept ? 'kept' : 'scrap' }),
    checked: true,
  },
  {
    id: 'open-riveted',
    phase: 'off',
    when: (removal) => closedBy('riveted')(removal) || (removal.joint === null && !removal.broken),
    minutes: 1,
    tools: () => ['pin-tool'],
    hazards: () => ['spring', 'metal'],
    // A pin that is to be pressed in again stays in the outer plate; one that must not be is driven out.
    values: (removal) => ({
      context: convertsPin(removal) ? 'convert' : removal.rePress === 'excluded' || !removal.kept ? 'out' : 'left-in',
    }),
    checked: true,
  },
  {
    id: 'open-clip',
    phase: 'off',
    when: closedBy('clip'),
    minutes: 1,
    tools: () => ['clip-pliers'],
    hazards: () => ['metal'],
  },
  {
    id: 'open-broken',
    phase: 'off',
    when: ({ broken }) => broken,
    minutes: 0.5,
    tools: () => ['gloves'],
    hazards: () => ['metal', 'fingers'],
  },
  {
    id: 'outer-out',
    phase: 'off',
    when: convertsPin,
    minutes: 1,
    tools: () => ['pin-tool'],
    hazards: () => ['metal'],
    checked: true,
  },
  {
    id: 'let-go',
    phase: 'off',
    when: () => true,
    minutes: 0.3,
    hazards: (removal) => (shifts(removal) ? ['spring'] : []),
  },
  {
    id: 'draw-out',
    phase: 'off',
    when: () => true,
    minutes: 0.5,
    values: (removal) => ({ context: shifts(removal) ? 'cage' : 'plain' }),
    hazards: () => ['fingers'],
  },
]
