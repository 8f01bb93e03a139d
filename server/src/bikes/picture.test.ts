import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { endpoints, type BikeRecord } from '@pelrin/contract'
import { bikeNamed, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => void (shop = await startShop()))
afterAll(() => shop.close())
const record = async (id: string): Promise<BikeRecord> =>
  (await shop.device.ask(endpoints.bike, { params: { id } })).body

describe('a picture of a bike', () => {
  /** The smallest JPEG there is: one grey dot. */
  const DOT = Buffer.from(
    '/9j/4AAQSkZJRgABAQEASABIAAD/2wBDAP//////////////////////////////////////////////////////////////////////////////////////wAALCAABAAEBAREA/8QAFAABAAAAAAAAAAAAAAAAAAAAA//EABQQAQAAAAAAAAAAAAAAAAAAAAD/2gAIAQEAAD8AN//Z',
    'base64',
  )
  const send = (id: string, jpeg: Buffer) =>
    shop.device.raw('POST', `/api/v1/bikes/${id}/picture`, { 'content-type': 'image/jpeg' }, jpeg as never)
  it('is kept, shown by an address of its own, replaced and taken away', async () => {
    const { id } = await bikeNamed(shop.device, 'bakery')
    expect((await record(id)).picture).toBeNull()
    expect((await shop.device.raw('GET', `/api/v1/bikes/${id}/picture.jpg`)).status).toBe(404)
    expect((await send(id, DOT)).status).toBe(200)
    expect((await record(id)).picture).toMatchObject({ width: 1, height: 1 })
    const shown = await shop.device.raw('GET', `/api/v1/bikes/${id}/picture.jpg`)
    expect(shown.headers.get('content-type')).toBe('image/jpeg')
    expect(Buffer.from(await shown.arrayBuffer()).equals(DOT)).toBe(true)
    expect((await send(id, DOT)).status).toBe(200)
    const archive = await (await shop.device.raw('GET', '/api/v1/archive.jsonl')).text()
    expect(archive).toContain(`\\\\x${DOT.toString('hex')}`)
    const { body } = await shop.device.ask(endpoints.dropPicture, { params: { id } })
    expect(body.picture).toBeNull()
    expect((await shop.device.ask(endpoints.dropPicture, { params: { id } })).problem.code).toBe('picture-none')
  })
  it('is refused where it is none, too large, or says where it was taken', async () => {
    const { id } = await bikeNamed(shop.device, 'bakery')
    const code = async (jpeg: Buffer) => ((await (await send(id, jpeg)).json()) as { code: string }).code
    expect(await code(Buffer.from('no picture at all'))).toBe('picture-unread')
    expect(await code(Buffer.alloc(1_000_001))).toBe('upload-too-large')
    const remarks = Buffer.from('\xff\xe1\x00\x16Exif\0\0MM\0*\0\0\0\x08\0\0\0\0', 'latin1')
    expect(await code(Buffer.concat([DOT.subarray(0, 2), remarks, DOT.subarray(2)]))).toBe('picture-remarks')
    expect((await send(v7(), DOT)).status).toBe(404)
    expect((await record(id)).picture).toBeNull()
  })
})
