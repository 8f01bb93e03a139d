import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { dayAfter } from '@pelrin/core'
import { endpoints, type BikeCare } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { rebuildState } from '../state/bikeState.ts'
import { dayIn } from '../days/days.ts'
import { bikeNamed, fittingOn, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const HOUR = 3_600_000
const idOf = async (text: string): Promise<string> => (await bikeNamed(shop.device, text)).id
const careOf = async (text: string): Promise<BikeCare> =>
  (await shop.device.ask(endpoints.bikeCare, { params: { id: await idOf(text) } })).body
const record = async (text: string, what: Record<string, unknown>, hoursAgo = 0, key = v7()) =>
  shop.device.ask(endpoints.recordCare, {
    params: { id: await idOf(text) },
    body: {
      id: v7(),
      fittingId: await fittingOn(shop.device, await idOf(text)),
      occurredAt: new Date(Date.now() - hoursAgo * HOUR).toISOString(),
      ...what,
    },
    key,
  })
const waxed = { kind: 'treated', care: 'immersion-wax', cleaning: 'wipe', closing: { click: 'firm' } }
const jointOf = async (text: string) => (await careOf(text)).chain!.joint!
const linkOf = async (text: string) => {
  const { body } = await shop.device.ask(endpoints.bikeParts, { params: { id: await idOf(text) }, query: {} })
  const found = body.joints.find(
    ({ part }) => part.model !== 're-press' && part.model.kind === 'link' && part.model.stock > 0,
  )!
  return found.part.model === 're-press' ? null! : found.part.model
}

describe('care of the chain on a bike', () => {
  it('is written down once however often it is sent, and begins its interval anew', async () => {
    const before = (await careOf('courier')).events.length
    const key = v7()
    const once = { ...waxed, id: v7(), occurredAt: new Date().toISOString() }
    const sent = [await record('courier', once, 0, key), await record('courier', once, 0, key)]
    expect(sent.map(({ status }) => status)).toEqual([200, 200])
    const { events, next, chain } = await careOf('courier')
    expect(events.length).toBe(before + 1)
    expect(events[0]).toMatchObject({ kind: 'treated', care: 'immersion-wax', person: 'Tove Sandell', atHome: false })
    expect(chain!.care).toBe('immersion-wax')
    expect(next).toMatchObject({ because: expect.stringMatching(/distance|days/) as string, usedKm: 0 })
    expect(next!.usedDays).toBeLessThan(0.01)
    expect(next!.dueOn > new Date().toISOString().slice(0, 10)).toBe(true)
  })
  it('is due at once after a wash and after a squeak, until it is treated; lists say so too', async () => {
    await record('courier', { kind: 'wash' }, -1)
    expect((await careOf('courier')).next).toMatchObject({ because: 'wash', kmLeft: 0 })
    expect((await bikeNamed(shop.device, 'courier')).care).toMatchObject({ because: 'wash' })
    await record('courier', { kind: 'squeak', care: 'wet-oil' })
    const [squeak] = (await careOf('courier')).events
    expect(squeak).toMatchObject({ kind: 'squeak', care: null, cleaning: null })
    await record('courier', waxed)
    expect((await careOf('courier')).next!.because).not.toBe('wash')
  })
  it('written down late takes its place by when it happened', async () => {
    const found = await Promise.all(
      ['school pool 7', 'downs', 'winter bike', 'sand racer'].map(async (text) => ({ text, ...(await careOf(text)) })),
    )
    const { text, events } = found.find((one) => one.events[0]?.kind === 'treated')!
    const hours = (Date.now() - Date.parse(events[0]!.at)) / HOUR
    await record(text, { kind: 'wash' }, hours + 5)
    // Treated since: it asks for nothing any more.
    const after = await careOf(text)
    expect(after.next!.because).not.toBe('wash')
    expect(after.events.slice(0, 2).map(({ kind }) => kind)).toEqual(['treated', 'wash'])
  })
  it('of another kind is the chain’s care from now on, judged by it; taken back, it is what it was', async () => {
    const before = await careOf('bakery van 2')
    const other = before.chain!.care === 'dry-oil' ? 'wet-oil' : 'dry-oil'
    const id = v7()
    await record('bakery van 2', { id, kind: 'treated', care: other, cleaning: 'on-bike', atHome: true })
    const after = await careOf('bakery van 2')
    expect([after.chain!.care, after.events[0]!.atHome]).toEqual([other, true])
    const back = () =>
      shop.device.ask(endpoints.withdrawCare, { params: { id }, body: { id: v7(), reason: 'other bike' } })
    expect((await back()).body).toMatchObject({ chain: before.chain, next: { because: before.next!.because } })
    expect((await back()).problem.code).toBe('care-gone')
  })
  it('has an interval of the bike’s own, and gives it up again; a second hand learns of the first', async () => {
    const { bikeVersion } = await careOf('sand racer')
    const set = async (version: number, own: unknown) =>
      shop.device.ask(endpoints.setCareInterval, { params: { id: await idOf('sand racer') }, version, body: { own } })
    const { body } = await set(bikeVersion, { km: 60, days: 10 })
    expect(body).toMatchObject({ own: { km: 60, days: 10 }, next: { interval: { km: 60, days: 10, own: true } } })
    const late = await set(bikeVersion, { km: 500, days: 90 })
    expect([late.status, late.problem.code]).toEqual([412, 'version-stale'])
    const wrong = await set(body.bikeVersion, { km: 0, days: 10.5 })
    expect(wrong.problem.fields).toMatchObject([
      { path: 'own.km', code: 'care-km-range' },
      { path: 'own.days', code: 'care-days-range' },
    ])
    expect((await set(body.bikeVersion, null)).body.next!.interval.own).toBe(false)
  })
  it('keeps whose habit it is and which weekday suits', async () => {
    const { customer } = await careOf('courier')
    const set = async (habit: Record<string, unknown>) =>
      shop.device.ask(endpoints.setCareHabit, {
        params: { id: await idOf('courier') },
        version: customer.version,
        body: habit,
      })
    expect((await set({ careAt: 'home', goodWeekday: 8 })).problem.fields).toMatchObject([{ path: 'goodWeekday' }])
    expect((await set({ careAt: 'home', goodWeekday: 7 })).body.customer).toMatchObject({
      careAt: 'home',
      goodWeekday: 7,
      version: customer.version + 1,
    })
  })
  it.each([
    [{ kind: 'treated', cleaning: 'wipe' }, 'care', 'care-missing'],
    [{ kind: 'treated', care: 'dry-oil' }, 'cleaning', 'cleaning-missing'],
    [{ kind: 'polished' }, 'kind', 'field-invalid'],
  ])('refuses %o at its field', async (wrong, path, code) => {
    const { status, problem } = await record('courier', wrong)
    expect([status, problem.fields?.[0]]).toMatchObject([422, { path, code }])
  })
  it('stands in every bike’s state as it would be worked out anew', async () => {
    const { body } = await shop.device.ask(endpoints.session)
    const { differing } = await inShop(shop.database, body.shop.id, null, rebuildState)
    expect(differing).toEqual([])
  })
})

describe('a chain that came off for its care', () => {
  const treated = (text: string, closing: Record<string, unknown> | null, more: Record<string, unknown> = {}) =>
    record(text, { ...waxed, ...more, closing })
  it('closed its link once more, with its click; taken back, it did not', async () => {
    const link = await linkOf('courier')
    const seen = { id: v7(), kind: 'link', partId: link.id, closings: 1, firm: true }
    await shop.device.ask(endpoints.seeJoint, { params: { id: await idOf('courier') }, body: seen })
    const before = (await jointOf('courier')).closings!
    const silent = await treated('courier', null)
    expect(silent.problem.fields).toMatchObject([{ path: 'click', code: 'click-missing' }])
    expect((await treated('courier', { click: 'weak' })).problem.fields?.[0]?.code).toBe('click-weak')
    const { body } = await treated('courier', { click: 'firm' })
    expect(body.chain!.joint).toMatchObject({ closings: before + 1, firm: true })
    await shop.device.ask(endpoints.withdrawCare, {
      params: { id: body.events[0]!.id },
      body: { id: v7(), reason: 'other bike' },
    })
    expect((await jointOf('courier')).closings).toBe(before)
  })
  it('and stayed on for drops and a wipe opened nothing', async () => {
    const before = (await jointOf('courier')).closings!
    await record('courier', { kind: 'treated', care: 'drip-wax', cleaning: 'wipe' })
    expect((await jointOf('courier')).closings).toBe(before)
    await record('courier', { kind: 'treated', care: 'drip-wax', cleaning: 'soak', closing: { click: 'firm' } })
    expect((await jointOf('courier')).closings).toBe(before + 1)
  })
  it('at home counts a closing nobody here heard', async () => {
    const before = (await jointOf('courier')).closings!
    const { body } = await treated('courier', null, { atHome: true })
    expect(body.chain!.joint).toMatchObject({ closings: before + 1, firm: null })
  })
  it('takes a new link out of stock where it is given one, which lies there again when that is taken back', async () => {
    const link = await linkOf('courier')
    const stock = async () => (await shop.device.ask(endpoints.cataloguePart, { params: { id: link.id } })).body.stock
    const { body } = await treated('courier', { click: 'firm', linkPartId: link.id })
    expect(body.chain!.joint).toMatchObject({ kind: 'link', name: `${link.maker} ${link.name}`, closings: 1 })
    expect(await stock()).toBe(link.stock - 1)
    await shop.device.ask(endpoints.withdrawCare, {
      params: { id: body.events[0]!.id },
      body: { id: v7(), reason: 'other bike' },
    })
    expect(await stock()).toBe(link.stock)
  })
  it('is closed by a link from its first hot wax on: no pin goes in', async () => {
    const text = 'island mail 3'
    const id = await idOf(text)
    const seen = { id: v7(), kind: 'pin', partId: null, closings: null, firm: null }
    await shop.device.ask(endpoints.seeJoint, { params: { id }, body: seen })
    const pinned = await treated(text, { click: 'firm' }, { cleaning: 'strip' })
    expect(pinned.problem.fields).toMatchObject([{ path: 'linkPartId', code: 'joint-to-link' }])
    const link = await linkOf(text)
    const { body } = await treated(text, { click: 'firm', linkPartId: link.id }, { cleaning: 'strip' })
    expect(body.chain!.joint).toMatchObject({ kind: 'link', closings: 1 })
    const misfit = await linkOf('courier')
    const wrong = await treated(text, { click: 'firm', linkPartId: misfit.id })
    expect(wrong.problem.fields).toMatchObject([{ path: 'linkPartId', code: 'link-misfit' }])
  })
})

describe('days a bike is wanted', () => {
  const ahead = (days: number): string => dayAfter(dayIn('Europe/London', new Date()), days)
  const add = async (text: string, body: Record<string, unknown>, key = v7()) =>
    shop.device.ask(endpoints.addEventDate, { params: { id: await idOf(text) }, key, body: { id: v7(), ...body } })
  const dueFor = async (text: string) => {
    const id = await idOf(text)
    const { body } = await shop.device.ask(endpoints.diary)
    const items = body.visits.flatMap(({ bikes }) => bikes).find(({ bike }) => bike.id === id)?.items ?? []
    return items.filter(({ kind }) => kind === 'event').map(({ on }) => on)
  }
  it('have its waxed chain treated in time to be ridden in, and stand in the diary; once treated it is ridden in', async () => {
    await record('courier', { kind: 'wash' })
    const key = v7()
    const wanted = { id: v7(), day: ahead(2), name: 'Quay to quay' }
    const sent = [await add('courier', wanted, key), await add('courier', wanted, key)]
    expect(sent.map(({ status }) => status)).toEqual([200, 200])
    expect(sent[1]!.body.eventDates).toEqual([
      { id: wanted.id, day: ahead(2), name: 'Quay to quay', care: { word: 'treat', by: ahead(0) } },
    ])
    // The same day under a key of its own is no second one.
    expect((await add('courier', wanted)).problem.code).toBe('id-taken')
    expect(await dueFor('courier')).toEqual([ahead(0)])
    await record('courier', waxed, -1)
    expect((await careOf('courier')).eventDates).toMatchObject([{ care: { word: 'ride-in', by: ahead(1) } }])
    expect(await dueFor('courier')).toEqual([])
    const dropped = await shop.device.ask(endpoints.dropEventDate, { params: { id: wanted.id } })
    expect(dropped.body.eventDates).toEqual([])
    expect((await shop.device.ask(endpoints.dropEventDate, { params: { id: v7() } })).problem.code).toBe(
      'event-date-unknown',
    )
  })
  it('are named at their field where they are over, malformed or for nothing', async () => {
    for (const [body, path, code] of [
      [{ day: ahead(-1), name: 'Gone' }, 'day', 'day-past'],
      [{ day: '', name: 'When?' }, 'day', 'day-malformed'],
      [{ day: ahead(3), name: ' ' }, 'name', 'text-missing'],
    ] as const)
      expect((await add('courier', body)).problem.fields).toMatchObject([{ path, code }])
  })
  it('need nothing in the diary of a chain nobody knows the care of, nor where it comes off', async () => {
    const [row] = await inShop(shop.database, (await shop.device.ask(endpoints.session)).body.shop.id, null, (work) =>
      work.select<{ label: string; id: string }>(
        `SELECT b.id, b.label FROM bike_state s JOIN bikes b ON b.id = s.bike_id WHERE s.word = 'change' AND b.gone_on IS NULL
           AND NOT EXISTS (SELECT 1 FROM visits v WHERE v.bike_id = b.id) ORDER BY b.id LIMIT 1`,
      ),
    )
    await shop.device.ask(endpoints.addEventDate, {
      params: { id: row!.id },
      body: { id: v7(), day: ahead(5), name: 'Fair' },
    })
    const { body } = await shop.device.ask(endpoints.diary)
    const items = body.visits.flatMap(({ bikes }) => bikes).find(({ bike }) => bike.id === row!.id)!.items
    expect(items.map(({ kind }) => kind)).toContain('change')
    expect(items.map(({ kind }) => kind)).not.toContain('event')
  })
})

describe('what is done at home', () => {
  const text = 'old faithful'
  const diary = async () => (await shop.device.ask(endpoints.diary, { query: { days: '366' } })).body
  const setHabit = async (careAt: 'home' | 'workshop' | null) => {
    const { customer } = await careOf(text)
    const body = { careAt, goodWeekday: customer.goodWeekday }
    return shop.device.ask(endpoints.setCareHabit, {
      params: { id: await idOf(text) },
      version: customer.version,
      body,
    })
  }
  const dueHere = async () => {
    const id = await idOf(text)
    return (await diary()).visits.flatMap(({ bikes }) =>
      bikes.filter(({ bike }) => bike.id === id).flatMap(({ items }) => items.map(({ kind }) => kind)),
    )
  }
  it('is booked by nobody and asked for by a reminder with their own steps; said to be done, the next day moves on', async () => {
    await record(text, { kind: 'treated', care: 'wet-oil', cleaning: 'wipe' }, 2)
    await record(text, { kind: 'squeak' }, 1)
    await setHabit('workshop')
    expect(await dueHere()).toContain('care')
    await setHabit('home')
    expect(await dueHere()).not.toContain('care')
    const id = await idOf(text)
    const [waits] = (await diary()).atHome.filter(({ bike }) => bike.id === id)
    expect(waits).toMatchObject({ care: 'wet-oil', remindedAt: null })
    expect((await bikeNamed(shop.device, text)).care).toMatchObject({ atHome: true, dueOn: waits!.on })
    const asked = {
      ...{ purpose: 'home', customerId: waits!.customer.id, day: waits!.on },
      bikes: [{ bikeId: id, kinds: ['care'] }],
    }
    const { body: preview } = await shop.device.ask(endpoints.previewReminders, { body: { visits: [asked] } })
    expect(preview.previews[0]!.text).toMatch(/a drop of oil on each roller.*Tell us next time/)
    await record(text, { kind: 'treated', care: 'wet-oil', cleaning: 'wipe', atHome: true })
    const { next, events } = await careOf(text)
    expect(events[0]).toMatchObject({ atHome: true })
    expect(next!.dueOn > waits!.on).toBe(true)
  })
})

describe('washes by days', () => {
  it('are in the diary for a bike that has them, and begin anew when it is washed', async () => {
    const diary = async () => (await shop.device.ask(endpoints.diary, { query: {} })).body
    const { id } = (await diary()).visits
      .flatMap(({ bikes }) => bikes)
      .find(({ items }) => items.every(({ kind }) => kind === 'check'))!.bike
    const params = { id }
    const now = async (): Promise<BikeCare> => (await shop.device.ask(endpoints.bikeCare, { params })).body
    const wash = async (washDays: number | null) => {
      const { bikeVersion, own } = await now()
      return shop.device.ask(endpoints.setCareInterval, { params, version: bikeVersion, body: { own, washDays } })
    }
    const washed = async (hoursAgo: number) =>
      shop.device.ask(endpoints.recordCare, {
        params,
        body: {
          ...{ id: v7(), kind: 'wash', fittingId: (await now()).chain!.fittingId },
          occurredAt: new Date(Date.now() - hoursAgo * HOUR).toISOString(),
        },
      })
    expect((await now()).wash).toMatchObject({ ownDays: null, on: null })
    expect((await wash(400)).problem.fields?.[0]).toMatchObject({ path: 'washDays', code: 'wash-days-range' })
    await washed(24)
    const { body } = await wash(20)
    const today = dayIn('Europe/London', new Date())
    expect(body.wash.on).toBe(dayAfter(today, 19))
    expect(body.rhythm.wash).toBe(20)
    // Due today, it comes with whatever else is due.
    expect((await wash(1)).body.wash.on).toBe(today)
    const items = (await diary()).visits.flatMap(({ bikes }) =>
      bikes.filter(({ bike }) => bike.id === id).flatMap((one) => one.items),
    )
    expect(items.find(({ kind }) => kind === 'wash')).toMatchObject({ on: today })
    await wash(20)
    await washed(0)
    expect((await now()).wash.on).toBe(dayAfter(today, 20))
    expect((await wash(0)).body.wash.on).toBeNull()
  })
  it('stand in a calendar for the rider with care and looks, each coming again by its rhythm', async () => {
    const id = await idOf('courier')
    const { next, rhythm } = await careOf('courier')
    const answer = await shop.device.raw('GET', `/api/v1/bikes/${id}/rhythm.ics`)
    expect(answer.headers.get('content-type')).toContain('text/calendar')
    const file = (await answer.text()).replaceAll('\r\n ', '')
    expect(file.match(/BEGIN:VEVENT/g)!.length).toBeGreaterThanOrEqual(1)
    expect(file).toContain(`RRULE:FREQ=DAILY;INTERVAL=${rhythm.care}`)
    const today = dayIn('Europe/London', new Date())
    const from = next!.dueOn < today ? today : next!.dueOn
    expect(file).toContain(`DTSTART;VALUE=DATE:${from.replaceAll('-', '')}`)
    expect(file).toContain('SUMMARY:Treat the chain: Courier')
    expect((await shop.device.raw('GET', `/api/v1/bikes/${v7()}/rhythm.ics`)).status).toBe(404)
  })
})
