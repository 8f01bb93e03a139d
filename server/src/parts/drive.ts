import { driveProblems, teethProblem } from '@pelrin/core'
import type { ChangeDrive, DriveDescription } from '@pelrin/contract'
import { audited, type Work } from '../db/work.ts'
import { atField, ProblemError, refuseField } from '../problems/problem.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { judgeBike } from '../state/judgeBike.ts'
import { held } from '../db/facts.ts'
import { BIKES } from '../bikes/models.ts'
import { DRIVES, DRIVE_SYSTEMS, type DriveRow } from './models.ts'

/** Nearer than this no two riders sit behind each other. */
const SHORTEST_TIMING_MM = 400

/** A bike's drive with all that is known of it. */
export async function driveOf(work: Work, bikeId: string): Promise<DriveDescription | null> {
  const drive = await work.of(DRIVES).findOne({ where: { bikeId }, transaction: work.transaction })
  if (!drive) return null
  const system =
    drive.systemId === null
      ? null
      : await work.of(DRIVE_SYSTEMS).findByPk(drive.systemId, { transaction: work.transaction })
  return {
    type: drive.type,
    speeds: drive.speeds,
    fronts: drive.fronts,
    sprockets: drive.sprockets,
    motor: drive.motor,
    system: system && {
      id: system.id,
      name: system.name,
      flatTop: system.flatTop,
      largeRoller: system.largeRoller,
    },
    level: drive.level,
    ringWidth: drive.ringWidth,
    chainstayMm: drive.chainstayMm,
    suspension: drive.suspension,
    growthMm: drive.growthMm,
    statedAdd: drive.statedAdd,
    pulleys: drive.pulleys,
    pulleysCounted: drive.pulleysCounted,
    capacityTeeth: drive.capacityTeeth,
    largestSprocketTeeth: drive.largestSprocketTeeth,
    axleMm:
      drive.axleFromMm === null || drive.axleToMm === null ? null : { from: drive.axleFromMm, to: drive.axleToMm },
    takenOff: drive.takenOff,
    ownPitches: drive.ownPitches,
    timing:
      drive.timingTeeth === null || drive.timingFromMm === null || drive.timingToMm === null
        ? null
        : { teeth: drive.timingTeeth, fromMm: drive.timingFromMm, toMm: drive.timingToMm },
    guide: drive.guide,
    wideNarrow: drive.wideNarrow,
    clutch: drive.clutch,
    cageLock: drive.cageLock,
    discBrake: drive.discBrake,
  }
}

/**
 * Changes what is known of a bike's drive; its chain is judged anew, because its limit follows from the speeds.
 *
 * @throws ProblemError 412 with the drive as it is when somebody was faster, 422 for numbers that cannot be
 */
export async function changeDrive(
  work: Work,
  bikeId: string,
  version: number,
  change: ChangeDrive,
): Promise<{ version: number; drive: DriveDescription }> {
  await lockBikeState(work, bikeId)
  const { of, transaction } = work
  const bike = await of(BIKES).findByPk(bikeId, { transaction })
  const before = await driveOf(work, bikeId)
  if (!bike || !before) throw new ProblemError(404, 'bike-unknown')
  await held(bike, version, () => ({ version: bike.version, drive: before }))
  const { systemId, axleMm, timing, ...rest } = change
  if (systemId != null && !(await of(DRIVE_SYSTEMS).findByPk(systemId, { transaction })))
    throw refuseField('systemId', 'system-unknown')
  if (axleMm && axleMm.to < axleMm.from) throw refuseField('axleMm.to', 'axle-order')
  if (timing) {
    const teeth = teethProblem(timing.teeth)
    if (teeth) throw refuseField('timing.teeth', teeth)
    if (timing.toMm < timing.fromMm) throw refuseField('timing.toMm', 'axle-order')
    if (timing.fromMm < SHORTEST_TIMING_MM) throw refuseField('timing.fromMm', 'timing-short')
  }
  const wrong = driveProblems({ ...before, ...rest })
  if (wrong.length > 0)
    throw new ProblemError(422, 'request-invalid', { fields: wrong.map(({ at, problem }) => atField(at, problem)) })
  const row: Partial<DriveRow> = {
    ...rest,
    ...(systemId === undefined ? {} : { systemId }),
    ...(timing === undefined
      ? {}
      : {
          timingTeeth: timing?.teeth ?? null,
          timingFromMm: timing?.fromMm ?? null,
          timingToMm: timing?.toMm ?? null,
        }),
    ...(axleMm === undefined ? {} : { axleFromMm: axleMm?.from ?? null, axleToMm: axleMm?.to ?? null }),
  }
  await of(DRIVES).update(row, { where: { bikeId }, transaction })
  await bike.update({ version: version + 1 }, { transaction })
  await audited(work, 'changed', 'drive', bikeId, { before, change })
  await judgeBike(work, bikeId, { readingId: null, occurredAt: work.now })
  const drive = await driveOf(work, bikeId)
  return { version: version + 1, drive: drive! }
}
