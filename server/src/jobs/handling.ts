import { chainSpeeds, rePressOf, type ChainHandling, type JobDrive, type JobJoint, type JointNow } from '@pelrin/core'
import type { PartsFacts, PresentJointSeen } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { catalogue } from '../parts/catalogueStore.ts'
import { houseSchools } from './schools.ts'

/** The bike as far as steps follow from it. */
export const jobDriveOf = ({ drive }: Pick<PartsFacts, 'drive'>): JobDrive => ({
  type: drive.type,
  motor: drive.motor,
  guide: drive.guide,
  wideNarrow: drive.wideNarrow,
  clutch: drive.clutch,
  cageLock: drive.cageLock,
  discBrake: drive.discBrake,
  timing: false,
  speeds: drive.speeds,
})

/** What a chain is closed with, as far as it is opened. */
export const jointNowOf = (present: PresentJointSeen | null): JointNow | null =>
  present && {
    kind: present.kind,
    openedBy: present.model?.openedBy ?? null,
    oneUse: present.model?.reuse.kind === 'once' || present.kind === 'pin',
  }

/** The same joint, as it is closed once more; a link where nobody looked. */
const sameAgain = (present: PresentJointSeen | null): JobJoint => ({
  kind: present?.kind === 'riveted' ? 're-press' : (present?.kind ?? 'link'),
  arrow: present?.model?.arrow ?? false,
  letteredOut: present?.model?.letteredOut ?? false,
  greased: false,
  guide: present?.model?.guide ?? null,
  sheet: present?.model?.sheet ?? null,
})

/** What taking the chain off a bike and putting it on again follows from. */
export async function handlingOf(work: Work, facts: PartsFacts): Promise<ChainHandling> {
  const { drive, present, presentChainId } = facts
  const model = (await catalogue(work)).catalogue.chains.find(({ id }) => id === presentChainId)
  return {
    drive: jobDriveOf(facts),
    schools: (await houseSchools(work)).schools,
    present: jointNowOf(present),
    joint: sameAgain(present),
    rePress: rePressOf({ speeds: chainSpeeds(drive), flaredPins: model?.flaredPins ?? false }),
    markedOut: model?.markedOut ?? false,
  }
}
