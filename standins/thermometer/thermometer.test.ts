import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { ThermometerStandIn } from './ThermometerStandIn.ts'

let now = 0
let thermometer: ThermometerStandIn
let address = ''
beforeEach(async () => {
  now = 0
  thermometer = new ThermometerStandIn(() => now)
  address = await thermometer.listen()
})
afterEach(() => thermometer.close())

const read = async (): Promise<number> =>
  ((await (await fetch(`http://${address}/celsius`)).json()) as { celsius: number }).celsius
const tell = (path: string, body: object): Promise<Response> =>
  fetch(`http://${address}${path}`, { method: 'POST', body: JSON.stringify(body) })
const several = async (count: number): Promise<number[]> => {
  const values: number[] = []
  for (let i = 0; i < count; i++) {
    now += 20_000
    values.push(await read())
  }
  return values
}

describe('the stand-in thermometer', () => {
  it('holds a temperature as a thermostat does, and another when told', async () => {
    const values = await several(10)
    expect(Math.max(...values) - Math.min(...values)).toBeGreaterThan(0.5)
    for (const value of values) expect(Math.abs(value - 84)).toBeLessThan(1.5)
    await tell('/hold', { celsius: 97 })
    expect(await read()).toBeGreaterThan(95)
  })
  it('is stuck, spikes, speaks the other unit, or says half an answer, when told to', async () => {
    await tell('/faults', { stuck: true })
    expect(new Set(await several(5)).size).toBe(1)
    await tell('/faults', { stuck: false, spikes: true })
    expect((await several(5)).filter((value) => value > 130)).toHaveLength(1)
    await tell('/faults', { spikes: false, wrongUnit: true })
    expect(await read()).toBeGreaterThan(175)
    await tell('/faults', { garbled: true })
    await expect(read()).rejects.toThrow()
  })
  it('never answers when silent', async () => {
    await tell('/faults', { silent: true })
    await expect(fetch(`http://${address}/celsius`, { signal: AbortSignal.timeout(200) })).rejects.toThrow()
  })
})
