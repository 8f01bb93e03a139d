import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { bikeNamed, Device, fittingOn, readingOf, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
let apprentice: Device
let bikeId: string
beforeAll(async () => {
  shop = await startShop()
  apprentice = new Device(shop.base)
  await apprentice.signIn('ismay', 'eelgrass-3')
  bikeId = (await bikeNamed(shop.device, 'causeway')).id
})
afterAll(() => shop.close())

describe('what an apprentice writes down', () => {
  it('is marked so until a mechanic has looked, and counts meanwhile', async () => {
    const taken = await apprentice.ask(endpoints.takeReading, { body: await readingOf(apprentice, bikeId) })
    const [reading] = taken.body.readings
    expect(reading).toMatchObject({ person: 'Ismay Dune', unlooked: true })
    expect(taken.body.readings.filter(({ person }) => person !== 'Ismay Dune').some(({ unlooked }) => unlooked)).toBe(
      false,
    )
    const look = (device: Device) => device.ask(endpoints.lookOver, { body: { kind: 'reading', id: reading!.id } })
    expect((await look(apprentice)).problem.code).toBe('role-may-not')
    expect((await look(shop.device)).status).toBe(200)
    expect((await look(shop.device)).status).toBe(200)
    const { body } = await shop.device.ask(endpoints.bike, { params: { id: bikeId } })
    expect(body.readings.find(({ id }) => id === reading!.id)?.unlooked).toBe(false)
  })
  it('is marked in the care of a chain too', async () => {
    const care = await apprentice.ask(endpoints.recordCare, {
      params: { id: bikeId },
      body: {
        id: v7(),
        kind: 'squeak',
        occurredAt: new Date().toISOString(),
        fittingId: await fittingOn(apprentice, bikeId),
      },
    })
    expect(care.body.events[0]).toMatchObject({ kind: 'squeak', unlooked: true })
    await shop.device.ask(endpoints.lookOver, { body: { kind: 'care', id: care.body.events[0]!.id } })
    const { body } = await shop.device.ask(endpoints.bikeCare, { params: { id: bikeId } })
    expect(body.events[0]!.unlooked).toBe(false)
  })
  it('is what an apprentice may do; deciding, closing a job and ordering are not', async () => {
    const refused = async (asked: Promise<{ problem: { code: string } }>): Promise<string> => (await asked).problem.code
    const params = { id: bikeId }
    const all = [
      apprentice.ask(endpoints.decide, { params, body: {} }),
      apprentice.ask(endpoints.closeJob, { params: { id: v7() }, body: {} }),
      apprentice.ask(endpoints.placeOrder, { body: {} }),
      apprentice.ask(endpoints.moveStock, { params: { id: v7() }, body: {} }),
    ]
    for (const one of all) expect(await refused(one)).toBe('role-may-not')
  })
  it('of something there is none of is said', async () => {
    const { status } = await shop.device.ask(endpoints.lookOver, { body: { kind: 'care', id: v7() } })
    expect(status).toBe(404)
  })
})
