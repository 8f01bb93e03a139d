import {
  dueAgainKm,
  distanceBetween,
  itemsOf,
  resultOfGrade,
  rotorWear,
  totalKm,
  type Assumptions,
  type DriveType,
  type RotorWear,
  type ToothGrade,
  type WearItemId,
  type WearResult,
} from '@pelrin/core'
import type { ItemNow, OtherWear, WearCheck } from '@pelrin/contract'
import type { Work } from '../db/work.ts'
import { bikeDistance, shopRiding, type BikeDistance, type ShopRiding } from '../distance/bikeDistanceStore.ts'
import { ProblemError } from '../problems/problem.ts'
import { assumptionsInForce } from '../limits/assumptionsStore.ts'
import { dayIn, daysLater } from '../days/days.ts'
import { stands } from '../db/facts.ts'

interface Row {
  id: string
  item: WearItemId
  grade: ToothGrade | null
  result: WearResult | null
  typed: string | null
  mm: number | null
  minimumMm: number | null
  u: number | null
  renewed: boolean
  note: string | null
  at: Date
  person: string
}

/** Looks that stand at a bike, newest first. */
const looks = (work: Work, bikeId: string): Promise<Row[]> =>
  work.prepared<Row>(
    `SELECT w.id, w.item, w.grade, w.result, w.typed, w.mm, w.minimum_mm AS "minimumMm", w.u, w.renewed, w.note,
       w.occurred_at AS at, p.name AS person
     FROM wear_checks w JOIN people p ON p.id = w.person_id
     WHERE w.bike_id = :bikeId AND ${stands('wear_checks', 'w')}
     ORDER BY w.occurred_at DESC, w.id DESC`,
    { bikeId },
  )

/** The minimum of a rotor by the last that was read off it. */
export const minimumOf = async (work: Work, bikeId: string, item: WearItemId): Promise<number | null> =>
  (await looks(work, bikeId)).find((row) => row.item === item && row.minimumMm !== null)?.minimumMm ?? null

/** What else wears on a bike, as it stands now. @throws ProblemError 404 */
export async function otherWearOf(work: Work, bikeId: string): Promise<OtherWear> {
  const [bike] = await work.select<{
    customerId: string
    type: DriveType
    discBrake: boolean | null
    timeZone: string
  }>(
    `SELECT b.customer_id AS "customerId", d.type, d.disc_brake AS "discBrake", s.time_zone AS "timeZone"
     FROM bikes b JOIN drives d ON d.bike_id = b.id JOIN shops s ON s.id = b.shop_id WHERE b.id = :bikeId`,
    { bikeId },
  )
  if (!bike) throw new ProblemError(404, 'bike-unknown')
  const { assumed } = await assumptionsInForce(work)
  const distance = await bikeDistance(work, { id: bikeId, customerId: bike.customerId }, assumed, shopRiding(work))
  const run = runOf(distance)
  const rows = await looks(work, bikeId)
  const there = itemsOf(bike)
  // What was looked at once stays on the list, whatever is said of the bike by now.
  const items = [...there, ...new Set(rows.map(({ item }) => item).filter((item) => !there.includes(item)))]
  return {
    items: items.map((item) =>
      itemNow(
        item,
        rows.filter((row) => row.item === item),
        { run, now: work.now, kmPerDay: distance.rate.kmPerDay, today: dayIn(bike.timeZone, work.now) },
        assumed,
      ),
    ),
  }
}

/**
 * The first day anything looked at on a bike is looked at again, as of the last that is known of it; null where nothing was looked at,
 * or it is not ridden.
 *
 * @param known what it was ridden, or what the shop rides, where that is at hand
 */
export async function wearNext(
  work: Work,
  bikeId: string,
  assumed: Assumptions,
  zone: string,
  known: { readonly distance?: BikeDistance; readonly riding?: ShopRiding } = {},
): Promise<string | null> {
  const rows = await looks(work, bikeId)
  if (rows.length === 0) return null
  const distance = known.distance ?? (await distanceOf(work, bikeId, assumed, known.riding))
  // Nothing in it depends on today: it is what the last look, or the last distance since, gives.
  const now = new Date(Math.max(lastOf(distance), ...rows.map(({ at }) => at.getTime())))
  const riding = { run: runOf(distance), now, kmPerDay: distance.rate.kmPerDay, today: dayIn(zone, now) }
  const days = [...new Set(rows.map(({ item }) => item))].flatMap((item) => {
    const { dueOn } = itemNow(
      item,
      rows.filter((row) => row.item === item),
      riding,
      assumed,
    )
    return dueOn ?? []
  })
  return days.sort()[0] ?? null
}

async function distanceOf(
  work: Work,
  bikeId: string,
  assumed: Assumptions,
  shop = shopRiding(work),
): Promise<BikeDistance> {
  const [{ customerId } = { customerId: '' }] = await work.select<{ customerId: string }>(
    'SELECT customer_id AS "customerId" FROM bikes WHERE id = :bikeId',
    { bikeId },
  )
  return bikeDistance(work, { id: bikeId, customerId }, assumed, shop)
}

/** The last moment a bike's distance is known of, ms; -Infinity for never. */
const lastOf = ({ view, entries }: BikeDistance): number =>
  Math.max(view.lastAt ?? -Infinity, ...entries.map(({ at }) => at.getTime()))

/** What a bike has run up to a moment since it is known here, with what it ran by its rate since the last entry, km. */
function runOf(distance: BikeDistance): (at: Date) => number | null {
  const { view, rate } = distance
  const last = lastOf(distance)
  if (!Number.isFinite(last)) return () => null
  return (at) =>
    totalKm(distanceBetween(view.segments, -Infinity, at.getTime())) +
    (Math.max(0, at.getTime() - last) / 86_400_000) * rate.kmPerDay
}

interface Riding {
  readonly run: (at: Date) => number | null
  readonly now: Date
  readonly kmPerDay: number
  readonly today: string
}

function itemNow(item: WearItemId, rows: readonly Row[], riding: Riding, assumed: Assumptions): ItemNow {
  const { run, now, kmPerDay, today } = riding
  const minimumMm = rows.find((row) => row.minimumMm !== null)?.minimumMm ?? null
  const [latest] = rows
  const rotor = rotorOf(rows, minimumMm, riding, assumed)
  const result = rotor?.result ?? (latest ? resultOf(latest) : null)
  const gone = latest && (run(now) ?? 0) - (run(latest.at) ?? 0)
  const dueKm =
    rotor?.dueKm ??
    (latest && result !== null && gone !== undefined
      ? result === 'change'
        ? 0
        : dueAgainKm(item, result, assumed.otherWear) - gone
      : null)
  return {
    item,
    checks: rows.map((row) => asCheck(row, run)),
    result,
    rotor: rotor && {
      now: rotor.now,
      rate: [...rotor.rate],
      probabilityUnder: rotor.probabilityUnder,
      left: [...rotor.left],
    },
    minimumMm,
    dueKm,
    dueOn:
      dueKm === null
        ? null
        : dueKm <= 0
          ? today
          : kmPerDay > 0
            ? daysLater(today, Math.min(3650, Math.round(dueKm / kmPerDay)))
            : null,
  }
}

/** Every measurement of the rotor that is on: back to the look at which it was new. */
function rotorOf(
  rows: readonly Row[],
  minimumMm: number | null,
  { run, now }: Riding,
  assumed: Assumptions,
): RotorWear | null {
  if (minimumMm === null) return null
  const since = rows.findIndex(({ renewed }) => renewed)
  const readings = (since < 0 ? rows : rows.slice(0, since + 1)).flatMap(({ mm, u, at }) =>
    mm === null ? [] : [{ km: run(at) ?? 0, mm, u: u ?? assumed.otherWear.rotorUMm }],
  )
  return readings.length === 0 ? null : rotorWear({ minimumMm, readings, kmNow: run(now) ?? 0 }, assumed.otherWear)
}

/** A thickness without a minimum says nothing yet: the minimum is to be read off the rotor. */
const resultOf = ({ grade, result }: Row): WearResult => (grade === null ? (result ?? 'watch') : resultOfGrade(grade))

const asCheck = ({ item: _, at, ...row }: Row, run: Riding['run']): WearCheck => ({
  ...row,
  result: resultOf({ ...row, item: _, at }),
  at: at.toISOString(),
  km: run(at),
})
