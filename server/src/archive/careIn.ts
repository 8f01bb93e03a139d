import { v7 } from 'uuid'
import { followCare, writeCare } from '../care/service.ts'
import { refuseField } from '../problems/problem.ts'
import { presentFitting } from '../fittings/presentFitting.ts'
import { chainThen } from './chainThen.ts'
import { bikeOf, byId, momentOf, onlyOne, type InTable } from './inTable.ts'
import { stands } from '../db/facts.ts'

/** Care of the chain that was on a bike then: by its id, else by bike, time and kind. */
export const careIn: InTable<'care'> = {
  inOrder: ({ at }, timeZone) => momentOf(at, timeZone, 'at').getTime(),
  compared: ['what', 'care', 'cleaning', 'at_home'],
  async find(work, row, timeZone) {
    const bikeId = await bikeOf(work, row)
    const at = momentOf(row.at, timeZone, 'at')
    const standing = `SELECT id FROM care_events e WHERE ${stands('care_events', 'e')}`
    const then = `${standing} AND bike_id = :bikeId AND occurred_at = :at AND kind = :what`
    return (await byId(work, standing, row.id)) ?? onlyOne(work, then, { bikeId, at, what: row.what }, 'at')
  },
  async write(work, [row], timeZone) {
    const { id = v7(), what: kind, care, cleaning, at_home: atHome = false, note = null } = row!
    const bikeId = await bikeOf(work, row!)
    const at = momentOf(row!.at, timeZone, 'at')
    if (at > work.now) throw refuseField('at', 'date-in-future')
    if (kind === 'treated' && care === undefined) throw refuseField('care', 'care-missing')
    if (kind === 'treated' && cleaning === undefined) throw refuseField('cleaning', 'cleaning-missing')
    const { chainId } = await chainThen(work, { bikeId, at, chain: row!.chain, chainId: row!.chain_id })
    await writeCare(work, {
      id,
      chainId,
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
