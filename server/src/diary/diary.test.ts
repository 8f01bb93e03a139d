import ical, { type VEvent } from 'node-ical'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { dayAfter, weekdayOf } from '@pelrin/core'
import { endpoints, type Diary } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { bikeNamed, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const diary = async (days = 35): Promise<Diary> =>
  (await shop.device.ask(endpoints.diary, { query: { days: String(days) } })).body
const idOf = async (text: string): Promise<string> => (await bikeNamed(shop.device, text)).id
/** The next day so far ahead that the shop is open on. */
const openDay = ({ days }: Diary, from: number): string => days.slice(from).find(({ capacity }) => capacity > 0)!.day
const book = (bikeId: string, day: string, more: object = {}) =>
  shop.device.ask(endpoints.book, {
    body: { day, bikes: [{ id: v7(), bikeId, reason: 'wax', minutes: 30 }], ...more },
  })

describe('the diary', () => {
  it('groups what is due into visits on days that are open, and none that is booked in already', async () => {
    const { visits, bookings, days, today } = await diary()
    expect(visits.length).toBeGreaterThan(20)
    const byDay = new Map(days.map((day) => [day.day, day]))
    const booked = new Set(bookings.map(({ bike }) => bike.id))
    for (const { day, bikes } of visits) {
      if (byDay.has(day)) expect(byDay.get(day)!.capacity).toBeGreaterThan(0)
      expect(day >= today).toBe(true)
      for (const { bike, items } of bikes) {
        expect(booked.has(bike.id)).toBe(false)
        const kinds = items.map(({ kind }) => kind)
        // No look at a chain that comes off, and no care of it.
        if (bike.word === 'change') expect(kinds.filter((kind) => kind !== 'other-wear')).toEqual(['change'])
      }
    }
    expect(days.reduce((sum, { booked: minutes }) => sum + minutes, 0)).toBe(
      bookings.reduce((sum, { minutes }) => sum + minutes, 0),
    )
  })
  it('has the shop’s own instruments and pots among what is due, each by its id', async () => {
    const { ofShop, days } = await diary(366)
    const instruments = (await shop.device.ask(endpoints.instruments)).body
    const checked = instruments.filter(({ checkDueOn }) => checkDueOn !== null && checkDueOn <= days.at(-1)!.day)
    expect(
      ofShop
        .filter(({ kind }) => kind === 'instrument')
        .map(({ id }) => id)
        .sort(),
    ).toEqual(checked.map(({ id }) => id).sort())
    const { pots } = (await shop.device.ask(endpoints.potBoard)).body
    expect(ofShop.filter(({ kind }) => kind === 'bath').map(({ id }) => id)).toEqual(
      pots.filter(({ bath }) => bath.change).map(({ id }) => id),
    )
  })
  it('has what else wears on a bike among what is due, from the look to its taking back', async () => {
    const wearOf = async (bikeId: string): Promise<string | undefined> =>
      (await diary()).visits
        .flatMap(({ bikes }) => bikes)
        .find(({ bike }) => bike.id === bikeId)
        ?.items.find(({ kind }) => kind === 'other-wear')?.on
    const { visits, today } = await diary()
    const found = visits
      .flatMap(({ bikes }) => bikes)
      .find(({ items }) => items.every(({ kind }) => kind !== 'other-wear'))!
    const params = { id: found.bike.id }
    const check = (result: string, id = v7()) =>
      shop.device.ask(endpoints.checkWear, {
        params,
        body: { occurredAt: new Date().toISOString(), checks: [{ id, item: 'tyres', result }] },
      })
    const id = v7()
    await check('change', id)
    expect(await wearOf(found.bike.id)).toBe(today)
    await shop.device.ask(endpoints.withdrawWearCheck, { params: { id }, body: { id: v7(), reason: 'the other bike' } })
    expect(await wearOf(found.bike.id)).toBeUndefined()
    // Good tyres are looked at again when they have run as far as the shop lets them, not before.
    await check('good')
    expect((await wearOf(found.bike.id)) ?? '9').not.toBe(today)
  })
  it('keeps to a customer’s good weekday where one lies before it is due', async () => {
    const suited = async () => (await diary()).visits.filter(({ because }) => because === 'good-weekday')
    // Somebody whose bike is due some days on says that the day before suits them.
    const { visits, today } = await diary()
    const later = visits.find(
      ({ day, bikes, because }) => day > dayAfter(today, 7) && bikes.length === 1 && because !== 'good-weekday',
    )!
    const [{ bike }] = later.bikes as [(typeof later.bikes)[number]]
    const { body: care } = await shop.device.ask(endpoints.bikeCare, { params: { id: bike.id } })
    const before = [1, 2, 3, 4, 5, 6].map((back) => dayAfter(later.day, -back)).find((day) => weekdayOf(day) !== 7)!
    await shop.device.ask(endpoints.setCareHabit, {
      params: { id: bike.id },
      version: care.customer.version,
      body: { careAt: null, goodWeekday: weekdayOf(before) },
    })
    const now = await suited()
    expect(now.some(({ bikes }) => bikes.some((one) => one.bike.id === bike.id))).toBe(true)
    for (const { customer, day } of now) expect(weekdayOf(day)).toBe(customer.goodWeekday)
  })
  it('books a bike in once, which stands in that day’s line-up and is due no more', async () => {
    const before = await diary()
    const visit = before.visits.find(({ day }) => day > before.today)!
    const { bike } = visit.bikes[0]!
    const day = openDay(before, 3)
    const key = v7()
    const body = { day, promisedAt: null, bikes: [{ id: v7(), bikeId: bike.id, reason: 'check', minutes: 20 }] }
    const sent = await Promise.all([1, 2].map(() => shop.device.ask(endpoints.book, { key, body })))
    expect(sent.map(({ status }) => status)).toEqual([200, 200])
    const after = await diary()
    expect(after.visits.flatMap(({ bikes }) => bikes).some((one) => one.bike.id === bike.id)).toBe(false)
    expect(after.bookings.filter((one) => one.bike.id === bike.id)).toMatchObject([
      { day, minutes: 20, reason: 'check' },
    ])
    expect((await book(bike.id, day)).problem.code).toBe('booking-there')
  })
  it('moves a booking, calls it off, and takes it again that day', async () => {
    const now = await diary()
    const id = await idOf('winter bike')
    const [first, second] = [openDay(now, 5), openDay(now, 10)]
    const [made] = (await book(id, first)).body.bookings.filter(({ bike }) => bike.id === id)
    const move = (version: number, change: object) =>
      shop.device.ask(endpoints.moveBooking, { params: { id: made!.id }, version, body: change })
    const moved = await move(made!.version, { day: second, promisedAt: `${second}T15:00:00.000Z` })
    expect(moved.body.bookings.find((one) => one.id === made!.id)).toMatchObject({ day: second })
    expect((await move(made!.version, { day: first })).status).toBe(412)
    await move(made!.version + 1, { calledOff: true })
    expect((await diary()).bookings.some((one) => one.id === made!.id)).toBe(false)
    expect((await book(id, second)).status).toBe(200)
  })
  it('refuses a day that is over or closed, at its field, and one the shop closes', async () => {
    const { today } = await diary()
    const id = await idOf('downs')
    const sunday = Array.from({ length: 7 }, (_, i) => dayAfter(today, i + 1)).find((day) => weekdayOf(day) === 7)!
    expect((await book(id, dayAfter(today, -1))).problem.fields).toMatchObject([{ path: 'day', code: 'booking-past' }])
    expect((await book(id, sunday)).problem.fields).toMatchObject([{ path: 'day', code: 'booking-closed' }])
    const fortnight = Array.from({ length: 14 }, (_, i) => dayAfter(today, i + 14))
    const close = (reason: string | null) => shop.device.ask(endpoints.setClosed, { body: { days: fortnight, reason } })
    await close('at sea')
    const shut = await diary()
    expect(shut.days.filter(({ closed }) => closed === 'at sea').map(({ day }) => day)).toEqual(fortnight)
    for (const { day } of shut.visits) expect(fortnight).not.toContain(day)
    expect((await book(id, fortnight[1]!)).problem.fields).toMatchObject([{ code: 'booking-closed' }])
    await close(null)
    expect((await diary()).days.some(({ closed }) => closed !== null)).toBe(false)
  })
  it('counts a year ahead from the index of first days, and agrees with the bikes it counts', async () => {
    const { months } = (await shop.device.ask(endpoints.diaryYear)).body
    expect(months).toHaveLength(12)
    const { body } = await shop.device.ask(endpoints.session)
    const [{ bikes }, plan] = await inShop(shop.database, body.shop.id, null, async (work) => {
      const [row] = await work.select<{ bikes: number }>(
        `SELECT count(*)::int AS bikes FROM bike_state WHERE due_on < CAST(:month AS date) + interval '1 month'`,
        { month: `${months.at(-1)!.month}-01` },
      )
      await work.select('SET LOCAL enable_seqscan = off')
      const explained = await work.select<{ 'QUERY PLAN': string }>(
        `EXPLAIN SELECT count(*) FROM bike_state WHERE due_on >= '2030-01-01' AND due_on < '2030-02-01'`,
      )
      return [row!, explained.map((line) => line['QUERY PLAN']).join('\n')] as const
    })
    expect(months.reduce((sum, one) => sum + one.bikes, 0)).toBe(bikes)
    expect(plan).toContain('bike_state_due')
  })
})

describe('a calendar’s address', () => {
  const eventsAt = async (path: string): Promise<VEvent[]> => {
    const response = await fetch(shop.base + path)
    expect(response.headers.get('content-type')).toContain('text/calendar')
    return Object.values(ical.sync.parseICS(await response.text())).filter(
      (one): one is VEvent => one.type === 'VEVENT',
    )
  }
  it('tells the bookings with ids that stay, also over the nights clocks change, and moves what moved', async () => {
    const { body } = await shop.device.ask(endpoints.makeFeed, { body: { id: v7(), name: 'front desk' } })
    expect(body.feeds).toMatchObject([{ name: 'front desk', person: 'Tove Sandell' }])
    const { bookings } = await diary(366)
    const events = await eventsAt(body.path)
    expect(events.length).toBeGreaterThanOrEqual(bookings.length)
    const timed = bookings.find(({ promisedAt }) => promisedAt !== null)!
    const event = events.find(({ uid }) => uid === `${timed.id}@pelrin`)!
    expect([event.end.toISOString(), event.end.getTime() - event.start.getTime()]).toEqual([
      timed.promisedAt,
      timed.minutes * 60_000,
    ])
    const whole = bookings.find(({ promisedAt }) => promisedAt === null)!
    expect(events.find(({ uid }) => uid === `${whole.id}@pelrin`)!.datetype).toBe('date')
    // Before and after the clocks go back: the same clock time is told an hour apart in UTC.
    const id = await idOf('tandem')
    const at = (day: string) => `${day}T15:00:00.000Z`
    const year = Number((await diary()).today.slice(0, 4)) + 1
    const days = [`${year}-03-29`, `${year}-03-26`].filter((day) => weekdayOf(day) < 6)
    const [made] = (await book(id, days[0]!, { promisedAt: at(days[0]!) })).body.bookings.filter(
      ({ bike }) => bike.id === id,
    )
    const moved = await eventsAt(body.path)
    expect(moved.find(({ uid }) => uid === `${made!.id}@pelrin`)!.end.toISOString()).toBe(at(days[0]!))
  })
  it('tells what was called off as such, what is done as free, and nothing twice to who has it as it is', async () => {
    const { body } = await shop.device.ask(endpoints.makeFeed, { body: { id: v7(), name: 'bench' } })
    const id = await idOf('tandem')
    const [day] = (await diary(60)).days
      .filter(({ capacity }) => capacity > 0)
      .map((one) => one.day)
      .slice(-1)
    const [made] = (await book(id, day!)).body.bookings.filter(({ bike, day: on }) => bike.id === id && on === day)
    const first = await fetch(shop.base + body.path)
    const etag = first.headers.get('etag')!
    const again = await fetch(shop.base + body.path, { headers: { 'if-none-match': etag } })
    expect([again.status, await again.text()]).toEqual([304, ''])
    const event = (await eventsAt(body.path)).find(({ uid }) => uid === `${made!.id}@pelrin`)!
    expect([event.status, event.transparency]).toEqual(['CONFIRMED', 'OPAQUE'])
    await shop.device.ask(endpoints.moveBooking, {
      params: { id: made!.id },
      version: made!.version,
      body: { calledOff: true },
    })
    const off = (await eventsAt(body.path)).find(({ uid }) => uid === `${made!.id}@pelrin`)!
    expect([off.status, off.transparency]).toEqual(['CANCELLED', 'TRANSPARENT'])
    expect(off.dtstamp >= event.dtstamp).toBe(true)
    expect((await fetch(shop.base + body.path, { headers: { 'if-none-match': etag } })).status).toBe(200)
  })
  it('leads nowhere once it is revoked, nor when it is guessed, nor into another shop', async () => {
    const { body } = await shop.device.ask(endpoints.makeFeed, { body: { id: v7(), name: 'lost phone' } })
    const other = body.path.replace('/calendar/saltmarsh/', '/calendar/elsewhere/')
    expect((await fetch(shop.base + other)).status).toBe(404)
    expect((await fetch(shop.base + body.path.replace(/.{6}\.ics$/, 'guess0.ics'))).status).toBe(404)
    const feed = body.feeds.find(({ name }) => name === 'lost phone')!
    await shop.device.ask(endpoints.revokeFeed, { params: { id: feed.id } })
    expect((await fetch(shop.base + body.path)).status).toBe(404)
    expect((await shop.device.ask(endpoints.revokeFeed, { params: { id: feed.id } })).problem.code).toBe('feed-unknown')
  })
  it('knows nothing but a digest of what it told', async () => {
    const [rows] = await shop.database.sequelize.query('SELECT count(*)::int AS n FROM calendar_feeds')
    // Without a shop nobody reads a single row.
    expect(rows).toEqual([{ n: 0 }])
  })
})
