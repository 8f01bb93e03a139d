import { clutchTurned, mayBe, shifts, type JobJoint, type Refit } from './chainWork.ts'
import type { Hazard, StepRule } from './stepTypes.ts'

export type RefitStepId =
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
  | 'first-catch'
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
  | 'back-on-ring'
  | 'clutch-on'
  | 'set-tension'
  | 'tighten-axle'

const jointIs =
  (...kinds: readonly JobJoint['kind'][]) =>
  ({ joint }: Refit): boolean =>
    kinds.includes(joint.kind)
/** A brake's disc near the chain, unless it is known that there is none. */
const rotor = ({ drive }: Refit): readonly Hazard[] => (mayBe(drive.discBrake) ? ['rotor'] : [])

/** By what the way and the side are told: never by a mark that is not there. */
function toldBy({ markedOut, joint, asNoted }: Refit): string {
  const arrow = joint.kind === 'link' && joint.arrow
  const letters = joint.kind === 'link' && joint.letteredOut
  if (markedOut) return arrow ? 'chain-arrow' : letters ? 'chain-letters' : 'chain'
  if (arrow) return letters ? 'arrow-letters' : 'arrow'
  if (letters) return 'letters'
  return asNoted ? 'noted' : 'none'
}

/** Putting a chain on and closing it, for whatever: a new one, a waxed one, one that was washed or mended. In the usual order. */
export const REFITTING: readonly StepRule<Refit, RefitStepId>[] = [
  {
    id: 'direction',
    phase: 'route',
    when: (refit) => toldBy(refit) !== 'none',
    minutes: 0.3,
    values: (refit) => ({ context: toldBy(refit) }),
    checked: true,
  },
  {
    id: 'route-front',
    phase: 'route',
    when: ({ drive }) => !drive.timing && drive.guide !== 'none',
    minutes: 0.5,
    values: ({ drive, position }) => ({ context: drive.guide ?? 'unknown', position }),
    hazards: () => ['fingers'],
  },
  {
    id: 'route-rear',
    phase: 'route',
    when: (refit) => !shifts(refit),
    minutes: 0.5,
    values: ({ drive }) => ({ context: drive.timing ? 'timing' : 'sprocket' }),
    hazards: () => ['fingers'],
  },
  {
    id: 'route-pulleys',
    phase: 'route',
    when: shifts,
    minutes: 1,
    values: ({ position }) => ({ context: position }),
    hazards: () => ['fingers'],
    checked: true,
  },
  {
    id: 'wide-narrow',
    phase: 'route',
    when: ({ drive }) => !drive.timing && drive.wideNarrow === true,
    minutes: 0.3,
    checked: true,
  },
  {
    id: 'ends-together',
    phase: 'join',
    when: () => true,
    minutes: 0.3,
    tools: () => ['hook'],
    hazards: (refit) => (shifts(refit) ? ['spring'] : []),
  },
  { id: 'phase-cranks', phase: 'join', when: ({ drive }) => drive.timing, minutes: 1, checked: true },
  { id: 'length-before', phase: 'join', when: ({ newLength }) => newLength, minutes: 0.3, checked: true },
  {
    id: 'maker-sheet',
    phase: 'join',
    when: ({ joint }) => joint.sheet !== null,
    minutes: 0.3,
    values: ({ joint }) => ({ sheet: joint.sheet ?? '' }),
  },
  {
    id: 'clear-wax',
    phase: 'join',
    when: (refit) => jointIs('link')(refit) && refit.waxed,
    minutes: 0.5,
    tools: () => ['cloth'],
    checked: true,
  },
  {
    id: 'oil-link',
    phase: 'join',
    when: (refit) => jointIs('link')(refit) && refit.schools.oilPins && !refit.dry,
    minutes: 0.2,
    tools: () => ['oil', 'cloth'],
    hazards: rotor,
  },
  {
    id: 'join-link',
    phase: 'join',
    when: jointIs('link'),
    minutes: 0.5,
    values: ({ joint }) => ({ context: joint.arrow ? 'arrow' : 'plain' }),
    hazards: () => ['failure'],
  },
  {
    id: 'first-catch',
    phase: 'join',
    when: jointIs('link'),
    minutes: 0.2,
    hazards: () => ['failure'],
    checked: true,
  },
  {
    id: 'snap-pliers',
    phase: 'join',
    when: (refit) => jointIs('link')(refit) && refit.schools.close === 'pliers',
    minutes: 0.3,
    tools: () => ['link-pliers'],
    hazards: () => ['failure'],
  },
  {
    id: 'snap-pedal',
    phase: 'join',
    when: (refit) => jointIs('link')(refit) && refit.schools.close === 'pedal',
    minutes: 0.5,
    hazards: () => ['failure', 'fingers'],
  },
  {
    id: 'new-link',
    phase: 'join',
    when: (refit) => jointIs('link')(refit) && refit.noClick,
    minutes: 2,
    tools: () => ['link-pliers'],
    hazards: () => ['failure'],
  },
  {
    id: 'look-click',
    phase: 'join',
    when: jointIs('link'),
    minutes: 0.3,
    hazards: () => ['failure'],
    checked: true,
    asks: 'click',
  },
  {
    id: 'join-pin',
    phase: 'join',
    when: jointIs('pin'),
    minutes: 1.5,
    tools: () => ['pin-tool'],
    hazards: () => ['failure', 'metal'],
    values: ({ joint }) => ({ context: joint.guide === null ? 'preset' : 'guided' }),
    checked: true,
  },
  {
    id: 'new-pin',
    phase: 'join',
    when: (refit) => jointIs('pin', 're-press')(refit) && refit.pinBroke,
    minutes: 3,
    tools: () => ['pin-tool'],
    hazards: () => ['failure', 'metal'],
    checked: true,
  },
  {
    id: 'guide-off',
    phase: 'join',
    when: (refit) => jointIs('pin')(refit) && refit.joint.guide !== null,
    minutes: 0.3,
    tools: () => ['clip-pliers'],
    hazards: () => ['metal'],
    values: ({ joint }) => ({ context: joint.guide ?? 'snapped' }),
  },
  {
    id: 'join-re-press',
    phase: 'join',
    when: (refit) => jointIs('re-press')(refit) && refit.rePress !== 'excluded',
    minutes: 1.5,
    tools: () => ['pin-tool'],
    hazards: () => ['failure', 'metal'],
    values: ({ rePress }) => ({ context: rePress }),
    checked: true,
  },
  {
    id: 'join-clip',
    phase: 'join',
    when: jointIs('clip'),
    minutes: 1,
    tools: () => ['clip-pliers'],
    hazards: () => ['failure', 'metal'],
    checked: true,
  },
  {
    id: 'unlock-cage',
    phase: 'join',
    when: (refit) => shifts(refit) && refit.drive.cageLock === true,
    minutes: 0.2,
    hazards: () => ['spring'],
    checked: true,
  },
  {
    id: 'back-on-ring',
    phase: 'join',
    when: (refit) => shifts(refit) && refit.schools.slack === 'off-ring',
    minutes: 0.3,
    hazards: () => ['fingers'],
    values: (refit) => ({ context: jointIs('link')(refit) && refit.schools.close === 'pedal' ? 'pedal' : 'plain' }),
  },
  { id: 'clutch-on', phase: 'join', when: clutchTurned, minutes: 0.2, hazards: () => ['spring'], checked: true },
  {
    id: 'set-tension',
    phase: 'join',
    when: (refit) => !shifts(refit),
    minutes: 2,
    tools: () => ['axle-spanner'],
    hazards: () => ['fingers'],
    values: ({ drive }) => ({ context: drive.timing ? 'timing' : 'axle' }),
    checked: true,
  },
  {
    id: 'tighten-axle',
    phase: 'join',
    when: (refit) => !shifts(refit),
    minutes: 1,
    tools: () => ['axle-spanner'],
    values: ({ drive }) => ({ context: drive.timing ? 'timing' : 'axle' }),
    hazards: () => ['failure'],
    checked: true,
  },
]
