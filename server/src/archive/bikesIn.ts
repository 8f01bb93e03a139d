import { v7 } from 'uuid'
import { addBike } from '../bikes/addBike.ts'
import { momentOf, onlyOne, type InTable } from './inTable.ts'
import { BIKES } from '../bikes/models.ts'

/** Bikes: by their id, else by their tag, else by what they are called among their customer's. */
export const bikesIn: InTable<'bikes'> = {
  columnAt: { 'customer.id': 'customer_id', 'chain.since': 'chain_since', 'chain.pitches': 'pitches' },
  compared: [
    'customer',
    'label',
    'tag',
    'frame_mark',
    'maker',
    'model',
    'kind',
    'drive',
    'speeds',
    'fronts',
    'sprockets',
    'motor',
    'chain',
  ],
  async find(work, { id, tag, customer, label }) {
    if (id !== undefined) {
      const known = await onlyOne(work, 'SELECT id FROM bikes WHERE id = :id', { id }, 'id')
      if (known !== null) return known
    }
    if (tag !== undefined) return onlyOne(work, 'SELECT id FROM bikes WHERE tag = :tag', { tag }, 'tag')
    return onlyOne(
      work,
      `SELECT b.id FROM bikes b JOIN customers c ON c.id = b.customer_id
       WHERE lower(c.name) = lower(:customer) AND lower(b.label) = lower(:label)`,
      { customer, label },
      'label',
    )
  },
  async write(work, [row], timeZone) {
    const {
      id = v7(),
      customer_id: customerId,
      customer,
      label,
      kind,
      tag = null,
      maker = null,
      model = null,
      notes,
    } = row!
    const known =
      (customerId === undefined
        ? null
        : await onlyOne(work, 'SELECT id FROM customers WHERE id = :customerId', { customerId }, 'customer_id')) ??
      (await onlyOne(work, 'SELECT id FROM customers WHERE lower(name) = lower(:customer)', { customer }, 'customer'))
    const { drive: type, speeds, fronts, sprockets, chain, chain_since: since } = row!
    await addBike(work, {
      id,
      customer:
        known === null ? { id: customerId ?? v7(), new: { name: customer, phone: null } } : { id: known, new: null },
      label,
      kind,
      tag,
      maker,
      model,
      frameMark: row!.frame_mark ?? null,
      odometerUnit: row!.unit ?? 'km',
      drive: { type, speeds, fronts, sprockets, motor: row!.motor ?? false },
      chain:
        chain === undefined
          ? null
          : {
              id: v7(),
              fittingId: v7(),
              name: chain,
              pitches: row!.pitches ?? null,
              care: row!.chain_care ?? 'unknown',
              since: since === undefined ? null : momentOf(since, timeZone, 'chain_since').toISOString(),
              fittedNew: row!.chain_new ?? false,
            },
      odometer: null,
    })
    if (notes !== undefined) await work.of(BIKES).update({ notes }, { where: { id }, transaction: work.transaction })
    return null
  },
}
