import type { Session, Shop } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { rebuildProgress } from '../state/rebuild.ts'
import { DEVICES, DEVICE_PEOPLE, PEOPLE, type PersonRow, type ShopRow } from '../auth/models.ts'
import { provedUntil, type CurrentSession } from './currentSession.ts'

export const asPerson = ({ id, name, initials, role }: PersonRow): Session['person'] => ({ id, name, initials, role })

/** What a shop says of itself, without what is only the server's. */
export const asShop = ({
  id,
  version,
  name,
  code,
  timeZone,
  currency,
  locale,
  distanceUnit,
  temperatureUnit,
  opening,
  stands,
  careWays,
}: ShopRow): Shop => ({
  ...{ id, version, name, code, timeZone, currency, locale: locale as Shop['locale'] },
  ...{ distanceUnit, temperatureUnit, opening: [...opening], stands, careWays: [...careWays] },
})

/** Everything a screen shows of the session. */
export async function describe(work: Work, current: CurrentSession): Promise<Session> {
  const { of, transaction } = work
  const people = await of(PEOPLE).findAll({ where: { active: true }, order: [['name', 'ASC']], transaction })
  const here = await of(DEVICE_PEOPLE).findAll({ where: { deviceId: current.deviceId }, transaction })
  const device = await of(DEVICES).findByPk(current.deviceId, { transaction })
  const hereIds = new Set(here.map((row) => row.personId))
  return {
    shop: asShop(current.shop),
    person: current.person,
    people: people.map(asPerson),
    peopleHere: people.filter((person) => hereIds.has(person.id)).map(asPerson),
    device: { id: current.deviceId, name: device?.name ?? '' },
    provedUntil: provedUntil(current)?.toISOString() ?? null,
    rebuilding: await rebuildProgress(work),
  }
}
