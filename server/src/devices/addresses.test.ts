import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { STAND_IN } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { GaugeHub } from '../gauge/hub.ts'
import { startShop, type RunningShop } from '../testing/shop.ts'
import { DeviceAddresses } from './addresses.ts'
import { SHOPS } from '../auth/models.ts'

describe('where the server may talk to', () => {
  it('is what the machine’s owner lists, and nothing else', () => {
    const devices = new DeviceAddresses('gauge.local:7411, 10.0.0.5:*')
    expect(devices.allowed('gauge.local:7411')).toEqual({ host: 'gauge.local', port: 7411 })
    expect(devices.allowed('10.0.0.5:80')).toEqual({ host: '10.0.0.5', port: 80 })
    for (const other of ['gauge.local:80', '10.0.0.50:80', '127.0.0.1:5432', 'x', '10.0.0.5:0', '10.0.0.5:70000', ''])
      expect(devices.allowed(other), other).toBeNull()
    expect(new DeviceAddresses('').allowed('127.0.0.1:7411')).toBeNull()
  })
  it('is said to be wrong where it is no list of addresses', () => {
    for (const wrong of ['gauge', 'gauge:port', ':80', 'gauge:99999'])
      expect(() => new DeviceAddresses(wrong)).toThrow('DEVICE_ADDRESSES')
  })
  it('is the stand-in’s where the shop says so and one runs', () => {
    const devices = new DeviceAddresses('')
    expect(devices.of(STAND_IN, '127.0.0.1:7000')).toEqual({ host: '127.0.0.1', port: 7000 })
    expect(devices.of(STAND_IN, undefined)).toBeNull()
  })
})

describe('a gauge’s address that came by another way than the form', () => {
  let shop: RunningShop
  beforeAll(async () => {
    shop = await startShop()
  })
  afterAll(() => shop.close())
  it.each(['127.0.0.1:99999', '127.0.0.1:5432', 'no address at all', '169.254.1.1:80'])(
    'such as %s is not opened, and ends nothing',
    async (address) => {
      const shopId = (await shop.database.of(SHOPS).findOne())!.id
      await inShop(shop.database, shopId, null, (work) =>
        work.select(`UPDATE instruments SET connection = :address WHERE connection IS NOT NULL RETURNING id`, {
          address,
        }),
      )
      const hub = new GaugeHub(shop.database, new DeviceAddresses(''))
      await hub.start()
      const [gauge] = await inShop(shop.database, shopId, null, (work) =>
        work.select<{ id: string }>('SELECT id FROM instruments WHERE connection IS NOT NULL'),
      )
      expect(hub.link(shopId, gauge!.id)).toBeUndefined()
      hub.close()
    },
  )
})
