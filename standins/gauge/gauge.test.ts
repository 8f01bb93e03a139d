import { connect, type Socket } from 'node:net'
import { createInterface } from 'node:readline'
import { setTimeout as sleep } from 'node:timers/promises'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { GaugeStandIn } from './GaugeStandIn.ts'

let gauge: GaugeStandIn
let port: number
const open: Socket[] = []
beforeEach(async () => {
  gauge = new GaugeStandIn()
  port = await gauge.listen()
})
afterEach(async () => {
  for (const socket of open.splice(0)) socket.destroy()
  await gauge.close()
})

/** Somebody listening, with every line heard. */
function listener(): { lines: string[]; say: (line: string) => void; hears: (count: number) => Promise<string[]> } {
  const socket = connect(port, '127.0.0.1')
  open.push(socket)
  const lines: string[] = []
  createInterface({ input: socket }).on('line', (line) => lines.push(line))
  return {
    lines,
    say: (line) => socket.write(`${line}\n`),
    hears: async (count) => {
      for (let i = 0; i < 200 && lines.length < count; i++) await sleep(10)
      return lines.slice(0, count)
    },
  }
}

describe('the gauge', () => {
  it('says who it is, and every press with its number', async () => {
    const bench = listener()
    expect(await bench.hears(2)).toEqual(['HELLO gauge 1 SG-0042 1', 'BATT 87'])
    bench.say('PRESS 0.51')
    bench.say('PRESS 0.482')
    expect((await bench.hears(4)).slice(2)).toEqual(['READ 1 0.51', 'READ 2 0.48'])
    bench.say('PING')
    expect((await bench.hears(5)).at(-1)).toBe('PONG')
  })
  it('sends what nobody acknowledged again to whoever connects next, and nothing else', async () => {
    const first = listener()
    await first.hears(2)
    for (const value of ['0.1', '0.2', '0.3']) first.say(`PRESS ${value}`)
    await first.hears(5)
    first.say('ACK 2')
    first.say('PING')
    await first.hears(6)
    gauge.unplug()
    expect(await listener().hears(3)).toEqual(['HELLO gauge 1 SG-0042 1', 'BATT 87', 'READ 3 0.30'])
  })
  it('begins its numbers again, under another boot, when it was off', async () => {
    const before = listener()
    await before.hears(2)
    before.say('PRESS 0.4')
    await before.hears(3)
    gauge.reboot()
    const after = listener()
    expect((await after.hears(2))[0]).toBe('HELLO gauge 1 SG-0042 2')
    after.say('PRESS 0.4')
    expect((await after.hears(3)).at(-1)).toBe('READ 1 0.40')
  })
  it('fails as it is told to: silent, twice, in halves, drifting until it is zeroed', async () => {
    const bench = listener()
    await bench.hears(2)
    bench.say('FAULT duplicates on')
    bench.say('PRESS 0.5')
    expect((await bench.hears(4)).slice(2)).toEqual(['READ 1 0.50', 'READ 1 0.50'])
    bench.say('FAULT duplicates off')
    bench.say('FAULT half on')
    bench.say('PRESS 0.5')
    expect((await bench.hears(5)).at(-1)).toBe('READ 2 0.50')
    bench.say('FAULT half off')
    bench.say('FAULT drift on')
    bench.say('PRESS 0.5')
    bench.say('PRESS 0.5')
    expect((await bench.hears(7)).slice(5)).toEqual(['READ 3 0.52', 'READ 4 0.54'])
    bench.say('SQUEEZE')
    bench.say('FAULT drift off')
    bench.say('PRESS 0.5')
    expect((await bench.hears(9)).slice(7)).toEqual(['ZERO 5', 'READ 6 0.50'])
    bench.say('FAULT silent on')
    bench.say('PRESS 0.5')
    await sleep(100)
    expect(bench.lines).toHaveLength(9)
  })
})
