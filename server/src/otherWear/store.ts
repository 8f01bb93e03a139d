import {
  dueAgainKm,
  itemsOf,
  resultOfGrade,
  rotorWear,
  ofPresent,
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
import { distanceOfBike, lastOf, runOf } from '../distance/bikeRun.ts'
import { componentRows } from '../components/store.ts'
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

/** The minimum of the rotor that is on, by the last that was read off it, else as the catalogue has it. */
export async function minimumOf(work: Work, bikeId: string, item: WearItemId): Promise<number | null> {
  const on = (await onNow(work, bikeId)).get(item) ?? null
  const rows = (await looks(work, bikeId)).filter((row) => row.item === item)
  return stampedOn(ofPresent(rows, on?.from ?? null), on)
}

const stampedOn = (rows: readonly Row[], on: OnNow | null): number | null =>
  rows.find((row) => row.minimumMm !== null)?.minimumMm ?? on?.minimumMm ?? null

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
  const fitted = await onNow(work, bikeId)
  const there = itemsOf(bike)
  // What was looked at once, or fitted, stays on the list, whatever is said of the bike by now.
  const known = [...rows.map(({ item }) => item), ...fitted.keys()]
  const items = [...there, ...new Set(known.filter((item) => !there.includes(item)))]
  return {
    items: items.map((item) =>
      itemNow(
        item,
        rows.filter((row) => row.item === item),
        fitted.get(item) ?? null,
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
  const fitted = await onNow(work, bikeId)
  if (rows.length === 0 && fitted.size === 0) return null
  const distance = known.distance ?? (await distanceOfBike(work, bikeId, assumed, known.riding))
  // Nothing in it depends on today: it is what the last look, or the last distance since, gives.
  const now = new Date(
    Math.max(
      lastOf(distance),
      ...[...rows.map(({ at }) => at), ...[...fitted.values()].map(({ from }) => from)].map(Number),
    ),
  )
  const riding = { run: runOf(distance), now, kmPerDay: distance.rate.kmPerDay, today: dayIn(zone, now) }
  const days = [...new Set([...rows.map(({ item }) => item), ...fitted.keys()])].flatMap((item) => {
    const { dueOn } = itemNow(
      item,
      rows.filter((row) => row.item === item),
      fitted.get(item) ?? null,
      riding,
      assumed,
    )
    return dueOn ?? []
  })
  return days.sort()[0] ?? null
}

interface Riding {
  readonly run: (at: Date) => number | null
  readonly now: Date
  readonly kmPerDay: number
  readonly today: string
}

/** The one of an item that is on, as far as anybody said. */
interface OnNow {
  readonly name: string | null
  readonly from: Date
  /** Stamped on it, as the catalogue has it. */
  readonly minimumMm: number | null
}

/** Things that are on a bike beside its chain. */
async function onNow(work: Work, bikeId: string): Promise<ReadonlyMap<WearItemId, OnNow>> {
  const rows = await componentRows(work, bikeId)
  return new Map(
    rows.flatMap(({ item, name, from, to, minimumMm }) =>
      to === null ? [[item, { name, from, minimumMm }] as const] : [],
    ),
  )
}

/** @param all looks at the item, newest first; of those before the one that is on, only their history is left */
function itemNow(
  item: WearItemId,
  all: readonly Row[],
  on: OnNow | null,
  riding: Riding,
  assumed: Assumptions,
): ItemNow {
  const { run, now, kmPerDay, today } = riding
  const rows = ofPresent(all, on?.from ?? null)
  const minimumMm = stampedOn(rows, on)
  const [latest] = rows
  const rotor = rotorOf(rows, minimumMm, riding, assumed)
  // Nobody has looked at a new one yet: it is as good as new, and due its first look.
  const since = latest?.at ?? on?.from
  // A slot that went over says more than what was measured before it.
  const slipped = latest?.mm === null && latest.result === 'change'
  const result = slipped ? 'change' : (rotor?.result ?? (latest ? resultOf(latest) : on ? 'good' : null))
  const gone = since && (run(now) ?? 0) - (run(since) ?? 0)
  const dueKm =
    (slipped ? 0 : rotor?.dueKm) ??
    (result !== null && gone !== undefined
      ? result === 'change'
        ? 0
        : dueAgainKm(item, result, assumed.otherWear) - gone
      : null)
  return {
    item,
    checks: all.map((row) => asCheck(row, run)),
    result,
    rotor: rotor && {
      now: rotor.now,
      rate: [...rotor.rate],
      probabilityUnder: rotor.probabilityUnder,
      left: [...rotor.left],
    },
    minimumMm,
    on: on && {
      name: on.name,
      from: on.from.toISOString(),
      km: (run(now) ?? 0) - (run(on.from) ?? 0),
    },
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

/** What the rotor that is on has left, by every measurement of it. */
function rotorOf(
  rows: readonly Row[],
  minimumMm: number | null,
  { run, now }: Riding,
  assumed: Assumptions,
): RotorWear | null {
  if (minimumMm === null) return null
  const readings = rows.flatMap(({ mm, u, at }) =>
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
