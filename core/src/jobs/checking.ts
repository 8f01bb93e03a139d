import { mayBe, shifts, type JobDrive } from './chainWork.ts'
import type { StepRule } from './stepTypes.ts'

export type CheckStepId =
  'stiff-link' | 'back-pedal' | 'every-gear' | 'hub-gears' | 'rotor-clean' | 'motor-on' | 'test-ride'

/** What is to be proved once hands are off a chain. */
export interface Checked {
  readonly drive: JobDrive
  /** The chain was off, so that it may lie wrong now. */
  readonly refitted: boolean
  /** Another chain than before, or of another length: its gears and its joint are proved by riding. */
  readonly changed: boolean
}

/** What proves a drive after work on its chain, whatever the work was. In the usual order. */
export const CHECKING: readonly StepRule<Checked, CheckStepId>[] = [
  { id: 'stiff-link', phase: 'check', when: () => true, minutes: 0.5, hazards: () => ['fingers'], checked: true },
  {
    id: 'back-pedal',
    phase: 'check',
    when: (work) => work.refitted && shifts(work),
    minutes: 0.3,
    hazards: () => ['fingers'],
    checked: true,
  },
  {
    id: 'every-gear',
    phase: 'check',
    when: (work) => work.changed && shifts(work),
    minutes: 2.5,
    hazards: () => ['fingers'],
    checked: true,
  },
  {
    id: 'hub-gears',
    phase: 'check',
    when: ({ drive, changed }) => changed && drive.type === 'hub-gear' && !drive.timing,
    minutes: 1,
    hazards: () => ['fingers'],
    checked: true,
  },
  {
    id: 'rotor-clean',
    phase: 'check',
    when: ({ drive }) => mayBe(drive.discBrake),
    minutes: 0.3,
    tools: () => ['cloth'],
    hazards: () => ['rotor'],
    checked: true,
  },
  { id: 'motor-on', phase: 'check', when: ({ drive }) => mayBe(drive.motor), minutes: 0.3, hazards: () => ['motor'] },
  {
    id: 'test-ride',
    phase: 'ride',
    when: ({ changed }) => changed,
    minutes: 4,
    hazards: () => ['failure'],
    checked: true,
  },
]
