import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { bikeNamed, Device, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const put = (device: Device, bikeId: string) => device.ask(endpoints.putOnStand, { body: { visitId: v7(), bikeId } })
const lineUp = async (device = shop.device) => (await device.ask(endpoints.lineUp)).body.visits
const labels = async () => (await lineUp()).map((visit) => visit.bike.label)

describe('the line-up', () => {
  it('is today’s, in order, each with why it is here', async () => {
    const visits = await lineUp()
    expect(visits.map((visit) => visit.reason)).toEqual([
      'noisy under load',
      'check due',
      'wax, race Sunday',
      'measured twice, disagree',
      'new cassette?',
      'service',
      'broke, shortened',
    ])
  })
  it('moves a visit before another, or to the end', async () => {
    const [first, , third] = await lineUp()
    await shop.device.ask(endpoints.moveVisit, {
      params: { id: third?.id ?? '' },
      version: third?.version ?? 0,
      body: { before: first?.id ?? '' },
    })
    expect((await labels()).slice(0, 3)).toEqual(['Sand racer', 'Causeway', 'Bakery van 2'])
    const { body } = await shop.device.ask(endpoints.moveVisit, {
      params: { id: third?.id ?? '' },
      version: (third?.version ?? 0) + 1,
      body: { before: null },
    })
    expect(body.visits.at(-1)?.bike.label).toBe('Sand racer')
  })
  it('answers a stale move with the line-up as it is', async () => {
    const [first] = await lineUp()
    const { status, problem } = await shop.device.ask(endpoints.moveVisit, {
      params: { id: first?.id ?? '' },
      version: 99,
      body: { before: null },
    })
    expect(status).toBe(412)
    expect((problem.current as { visits: unknown[] }).visits).toHaveLength(7)
  })
})

describe('the stand', () => {
  it('holds one bike a device, and a new one sends the last back to waiting', async () => {
    const visits = await lineUp()
    await put(shop.device, visits[0]!.bike.id)
    const { body } = await put(shop.device, visits[1]!.bike.id)
    expect(body.visits.filter((visit) => visit.here).map((visit) => visit.bike.id)).toEqual([visits[1]!.bike.id])
    expect(body.visits[0]).toMatchObject({ state: 'waiting', onStandSince: null })
  })
  it('takes a bike nobody booked at the end of the line-up, once', async () => {
    const bike = await bikeNamed(shop.device, 'courier')
    await put(shop.device, bike.id)
    const { body } = await put(shop.device, bike.id)
    expect(body.visits.filter((visit) => visit.bike.id === bike.id)).toHaveLength(1)
    expect(body.visits.at(-1)).toMatchObject({ here: true, bike: { id: bike.id } })
  })
  it('shows another device that the bike is taken, and lets it take over', async () => {
    const other = new Device(shop.base)
    await other.signIn('ruan', 'chalkdown-2')
    const bike = await bikeNamed(other, 'courier')
    const seen = (await lineUp(other)).find((visit) => visit.bike.id === bike.id)
    expect(seen).toMatchObject({ state: 'on-stand', here: false })
    expect((await put(other, bike.id)).body.visits.find((visit) => visit.bike.id === bike.id)?.here).toBe(true)
    expect((await lineUp()).some((visit) => visit.here)).toBe(false)
  })
  it('refuses a bike there is not', async () => {
    const { problem } = await put(shop.device, v7())
    expect(problem.fields?.[0]).toMatchObject({ path: 'bikeId', code: 'bike-unknown' })
  })
})
