import { v7 } from 'uuid'
import { followCare, writeCare } from '../care/service.ts'
import { refuseField } from '../problems/problem.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { bikeOf, momentOf, onlyOne, type InTable } from './inTable.ts'
import { stands } from '../db/facts.ts'

/** Care of the chain that is on a bike: by its id, else by bike, time and kind. */
export const careIn: InTable<'care'> = {
  compared: ['what', 'care', 'cleaning', 'at_home'],
  async find(work, row, timeZone) {
    const bikeId = await bikeOf(work, row)
    const at = momentOf(row.at, timeZone, 'at')
    return onlyOne(
      work,
      `SELECT id FROM care_events e WHERE ${stands('care_events', 'e')}
         AND (id = CAST(:id AS uuid) OR bike_id = :bikeId AND occurred_at = :at AND kind = :what)`,
      { id: row.id ?? null, bikeId, at, what: row.what },
      'at',
    )
  },
  async write(work, [row], timeZone) {
    const { id = v7(), what: kind, care, cleaning, at_home: atHome = false, note = null } = row!
    const bikeId = await bikeOf(work, row!)
    const fitting = await presentFitting(work, bikeId)
    const at = momentOf(row!.at, timeZone, 'at')
    if (!fitting) throw refuseField('tag', 'bike-without-chain')
    if (at < fitting.from) throw refuseField('at', 'chain-not-fitted-then')
    if (at > work.now) throw refuseField('at', 'date-in-future')
    if (kind === 'treated' && care === undefined) throw refuseField('care', 'care-missing')
    if (kind === 'treated' && cleaning === undefined) throw refuseField('cleaning', 'cleaning-missing')
    await writeCare(work, {
      id,
      chainId: fitting.chainId,
      bikeId,
      kind,
      care: kind === 'treated' ? care! : null,
      cleaning: kind === 'treated' ? cleaning! : null,
      atHome,
      note,
      at,
    })
    return bikeId
  },
  async follow(work, bikeId) {
    const fitting = await presentFitting(work, bikeId)
    if (fitting) await followCare(work, bikeId, fitting.chainId)
  },
}
