import { isSameRide, type Surface } from '@pelrin/core'
import type { CsvMapping, RideImport } from '@pelrin/contract'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { v7 } from 'uuid'
import { audited, type Work } from '../db/work.ts'
import { appendRide, followDistance } from '../distance/service.ts'
import { standingRides } from '../distance/store.ts'
import { ProblemError, refuseField } from '../problems/problem.ts'
import { lockBikeState } from '../state/bikeState.ts'
import { headerKey } from './headerKey.ts'
import { asRideImport, importById, updateImport } from './store.ts'
import { RIDE_TRACKS } from '../distance/models.ts'
import { CSV_MAPPINGS, STAGED_RIDES } from './models.ts'

export async function rideImport(work: Work, id: string): Promise<RideImport> {
  const row = await importById(work, id)
  if (!row) throw new ProblemError(404, 'import-unknown')
  return asRideImport(row)
}

/**
 * Writes the previewed rides of an import and takes them into the bike's state, all in one transaction. Asked again, it
 * answers with what it did.
 */
export async function confirmImport(work: Work, id: string, surface: Surface | null): Promise<RideImport> {
  const row = await importById(work, id, true)
  if (!row) throw new ProblemError(404, 'import-unknown')
  if (row.state === 'done') return asRideImport(row)
  if (row.state !== 'previewed') throw new ProblemError(409, 'import-not-ready')
  await lockBikeState(work, row.bikeId)
  const staged = await work.of(STAGED_RIDES).findAll({ where: { importId: id }, transaction: work.transaction })
  const { assumed } = await assumptionsInForce(work)
  // Somebody may have written one of them meanwhile.
  const standing = (await standingRides(work, row.bikeId)).map(({ from, to, km }) => ({
    from: from.getTime(),
    to: to.getTime(),
    km,
  }))
  let written = 0
  for (const { ride, points } of staged) {
    if (standing.some((one) => isSameRide(one, ride, assumed.distance))) continue
    const rideId = v7()
    await appendRide(work, {
      id: rideId,
      bikeId: row.bikeId,
      occurredAt: new Date(ride.from),
      endedAt: new Date(ride.to),
      km: ride.km,
      surface: ride.surface ?? surface,
      title: ride.title,
      source: 'file',
      profile: ride.profile.length > 0 ? ride.profile : null,
      importId: id,
    })
    if (points) await work.of(RIDE_TRACKS).create({ rideId, points }, { transaction: work.transaction })
    standing.push(ride)
    written++
  }
  await work.of(STAGED_RIDES).destroy({ where: { importId: id }, transaction: work.transaction })
  await updateImport(work, id, { state: 'done', finishedAt: work.now })
  await audited(work, 'imported', 'rides', id, { bikeId: row.bikeId, written })
  if (written > 0) await followDistance(work, row.bikeId)
  return rideImport(work, id)
}

/** Stops an import: nothing of it is written. */
export async function cancelImport(work: Work, id: string): Promise<RideImport> {
  const row = await importById(work, id, true)
  if (!row) throw new ProblemError(404, 'import-unknown')
  if (row.state === 'reading' || row.state === 'previewed') {
    await work.of(STAGED_RIDES).destroy({ where: { importId: id }, transaction: work.transaction })
    await updateImport(work, id, { state: 'cancelled', finishedAt: work.now })
  }
  return rideImport(work, id)
}

/** Remembers what the columns of a table mean, for every table with its header. */
export async function rememberColumns(work: Work, id: string, file: string, mapping: CsvMapping): Promise<void> {
  const row = await importById(work, id, true)
  if (!row) throw new ProblemError(404, 'import-unknown')
  const table = row.tables.find((one) => one.file === file)
  if (row.state !== 'previewed' || !table) throw new ProblemError(409, 'import-not-ready')
  for (const key of ['start', 'duration', 'distance', 'surface', 'title'] as const) {
    const name = mapping[key]
    if (name !== undefined && !table.header.includes(name))
      throw refuseField(`mapping.${key}`, 'import-columns-missing')
  }
  await work
    .of(CSV_MAPPINGS)
    .upsert(
      { header: headerKey(table.header), mapping },
      { transaction: work.transaction, conflictFields: ['shop_id', 'header'] as never },
    )
}
