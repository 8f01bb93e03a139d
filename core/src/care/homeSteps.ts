import { careSteps, type CareJob, type CareStep } from './careSteps.ts'

/** Steps that want the shop's stand, or nothing of whoever does it at home. */
const NOT_AT_HOME: readonly string[] = ['measure-first', 'clean-around', 'identify-joint', 'set-tool']

/** A care as whoever rides the bike gives it at home: without the stand's own steps, wiped clean, with what can hurt left in. */
export const homeSteps = (job: Omit<CareJob, 'cleaning' | 'checkFirst'>): readonly CareStep[] =>
  careSteps({ ...job, cleaning: 'wipe', checkFirst: false }).filter(({ id }) => !NOT_AT_HOME.includes(id))
