import { v7 } from 'uuid'
import { addCustomer } from '../bikes/addBike.ts'
import { onlyOne, type InTable } from './inTable.ts'

/** Customers: by their id, else by their name, and their number where one is given. */
export const customersIn: InTable<'customers'> = {
  compared: ['name', 'phone', 'language', 'reminders', 'good_weekday', 'treated_at', 'check_every_days'],
  async find(work, { id, name, phone }) {
    if (id !== undefined) {
      const known = await onlyOne(work, 'SELECT id FROM customers WHERE id = :id', { id }, 'id')
      if (known !== null) return known
    }
    return onlyOne(
      work,
      `SELECT id FROM customers WHERE lower(name) = lower(:name)${phone === undefined ? '' : ' AND (phone IS NULL OR phone = :phone)'}`,
      { name, phone },
      'name',
    )
  },
  async write(work, [row]) {
    const { id = v7(), name, phone = null, language = 'en', reminders = true } = row!
    await addCustomer(work, {
      id,
      name,
      phone,
      language,
      optedOutAt: reminders ? null : work.now,
      goodWeekday: row!.good_weekday ?? null,
      careAt: row!.treated_at ?? null,
      rhythmDays: row!.check_every_days ?? null,
    })
    return null
  },
}
