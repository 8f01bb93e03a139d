import { once } from 'node:events'
import { createServer } from 'node:http'
import { createServer as createTcpServer, type AddressInfo, type Socket } from 'node:net'
import { v7 } from 'uuid'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, GaugeEvent, gaugeEventsPath, STAND_IN } from '@pelrin/contract'
import { pino } from 'pino'
import { parse } from 'valibot'
import { FAULTS, GaugeStandIn } from '../../../standins/gauge/GaugeStandIn.ts'
import { createApp } from '../app.ts'
import { openForServing } from '../db/index.ts'
import { copyOfDemo, Device, HERE } from '../testing/shop.ts'
import { GaugeHub } from './hub.ts'
import { understand } from './lines.ts'
import { GaugeLink, type LinkPatience } from './link.ts'

const QUICK: LinkPatience = { pingMs: 60, silentMs: 250, retryMs: 30, longestRetryMs: 120, mostReadings: 8 }
const until = (holds: () => boolean): Promise<void> =>
  vi.waitFor(
    () => {
      if (!holds()) throw new Error('not yet')
    },
    { timeout: 5_000, interval: 20 },
  )

/** Nothing here outlives its request. */
const NO_JOBS = {
  forecastShop: () => Promise.resolve(),
  settleOrder: () => Promise.resolve(),
  rebuildShop: () => Promise.resolve(),
  sendMessages: () => Promise.resolve(),
  learn: () => Promise.resolve({ groups: [], unsaid: null }),
}

describe('a line of a gauge', () => {
  it.each([
    ['HELLO gauge 1 SG-1 7', { word: 'hello', serial: 'SG-1', boot: '7' }],
    ['READ 12 0.52', { word: 'read', number: 12, percent: 0.52 }],
    ['READ 12 -0.04', { word: 'read', number: 12, percent: -0.04 }],
    ['ZERO 3', { word: 'zero', number: 3 }],
    ['BATT 87', { word: 'battery', percent: 87 }],
    ['PONG', { word: 'pong' }],
  ])('%s is understood', (line, meaning) => {
    expect(understand(line)).toEqual(meaning)
  })
  it.each([
    '',
    'READ',
    'READ 1',
    'READ x 0.5',
    'READ 1 203.2',
    'READ 1 1e3',
    'BATT 400',
    'HELLO gauge 2 a b',
    'read 1 0.5',
  ])('%j is not', (line) => {
    expect(understand(line)).toBeNull()
  })
})

describe('the line to a gauge', () => {
  let gauge: GaugeStandIn
  let port: number
  let link: GaugeLink
  let readings: number[]
  let zeroed: number
  const connect = (): void => {
    link = new GaugeLink(
      { host: '127.0.0.1', port },
      { reading: (percent) => readings.push(percent), zeroed: () => zeroed++, changed: () => undefined },
      QUICK,
    )
  }
  beforeEach(async () => {
    readings = []
    zeroed = 0
    gauge = new GaugeStandIn()
    port = await gauge.listen()
    connect()
    await until(() => link.state === 'connected')
  })
  afterEach(async () => {
    link.close()
    await gauge.close()
  })

  it('hands readings, zeroing and battery on', async () => {
    gauge.press(0.52)
    gauge.squeeze()
    await until(() => readings.length === 1 && zeroed === 1 && link.battery === 87)
    expect(readings).toEqual([0.52])
    expect(link.zeroedAt).not.toBeNull()
  })
  it('loses nothing when it is unplugged, and comes back by itself', async () => {
    gauge.press(0.41)
    await until(() => readings.length === 1)
    gauge.unplug()
    gauge.press(0.42)
    gauge.press(0.43)
    await until(() => readings.length === 3)
    expect(readings).toEqual([0.41, 0.42, 0.43])
    expect(link.state).toBe('connected')
  })
  it('waits for a gauge that is off, and takes numbers that begin anew', async () => {
    gauge.press(0.3)
    await until(() => readings.length === 1)
    gauge.reboot()
    await until(() => link.state === 'connected')
    gauge.press(0.31)
    await until(() => readings.length === 2)
    await gauge.close()
    await until(() => link.state === 'away')
    expect(link.send('PRESS')).toBe(false)
    gauge = new GaugeStandIn('SG-0043')
    await gauge.listen(port)
    await until(() => link.state === 'connected')
  })
  it('takes a reading sent twice once', async () => {
    gauge.setFault('duplicates', true)
    gauge.press(0.5)
    gauge.press(0.5)
    await until(() => readings.length >= 2)
    await new Promise((done) => setTimeout(done, 60))
    expect(readings).toEqual([0.5, 0.5])
  })
  it('puts half lines together, and throws rubbish away', async () => {
    gauge.setFault('half', true)
    gauge.press(0.61)
    await until(() => readings.length === 1)
    gauge.setFault('half', false)
    gauge.setFault('garbage', true)
    gauge.press(0.62)
    await until(() => readings.length === 2)
    expect(readings).toEqual([0.61, 0.62])
    expect(link.garbled).toBeGreaterThan(4)
  })
  it('says when it is silent, and is well again when it speaks', async () => {
    gauge.setFault('silent', true)
    await until(() => link.state === 'silent')
    gauge.setFault('silent', false)
    await until(() => link.state === 'connected')
  })
  it('believes no flood, stays small under it, and recovers', async () => {
    gauge.setFault('flood', true)
    await until(() => link.state === 'flooding')
    await new Promise((done) => setTimeout(done, 700))
    // Ten thousand lines a second, and no more than a hand could make in a second or two.
    expect(readings.length).toBeLessThanOrEqual(2 * QUICK.mostReadings)
    gauge.setFault('flood', false)
    gauge.reboot()
    await until(() => link.state === 'connected')
    gauge.press(0.7)
    await until(() => readings.at(-1) === 0.7)
  })
  it('cuts a line that never ends', async () => {
    const server = createTcpServer()
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done))
    const other = new GaugeLink(
      { host: '127.0.0.1', port: (server.address() as AddressInfo).port },
      { reading: (percent) => readings.push(percent), zeroed: () => undefined, changed: () => undefined },
      QUICK,
    )
    const [socket] = (await once(server, 'connection')) as [Socket]
    for (let i = 0; i < 40; i++) socket.write('9'.repeat(50_000))
    socket.write('\nREAD 1 0.25\n')
    await until(() => readings.length === 1)
    expect(readings).toEqual([0.25])
    other.close()
    socket.destroy()
    server.close()
  })
  it('follows a zero that creeps, until the gauge is zeroed', async () => {
    gauge.setFault('drift', true)
    for (let i = 0; i < 3; i++) gauge.press(0.5)
    gauge.squeeze()
    gauge.setFault('drift', false)
    gauge.press(0.5)
    await until(() => readings.length === 4)
    expect(readings).toEqual([0.52, 0.54, 0.56, 0.5])
  })
  it('is slow where the gauge is, and no worse', async () => {
    gauge.setFault('slow', true)
    gauge.press(0.44)
    gauge.setFault('slow', false)
    await until(() => readings.length === 1)
    expect(readings).toEqual([0.44])
  })
  it('has a test for every fault there is', () => {
    expect([...FAULTS].sort()).toEqual(['drift', 'duplicates', 'flood', 'garbage', 'half', 'silent', 'slow'])
  })
})

describe('a screen that watches a gauge', () => {
  it('gets its readings, and what it missed while it was away', async () => {
    const gauge = new GaugeStandIn()
    const port = await gauge.listen()
    const { url, drop } = await copyOfDemo()
    const database = await openForServing(url)
    const hub = new GaugeHub(database, HERE, `127.0.0.1:${port}`, QUICK)
    const server = createServer(
      // Koa's handler answers by itself; nothing waits for it.
      (req, res) =>
        void createApp({ database, logger: pino({ level: 'silent' }), devices: HERE, hub, jobs: NO_JOBS }).callback()(
          req,
          res,
        ),
    ).listen(0, '127.0.0.1')
    await once(server, 'listening')
    const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
    const device = new Device(base)
    const { body: session } = await device.signIn()
    const shopId = session.shop.id
    await hub.start()
    const { body: instruments } = await device.ask(endpoints.instruments)
    const digital = instruments.find(({ connected }) => connected)
    const id = digital?.id ?? ''
    await until(() => hub.link(shopId, id)?.state === 'connected')

    const watch = async (holder: string, lastId?: string, by = device) => {
      const leaving = new AbortController()
      const response = await fetch(base + gaugeEventsPath(id, holder), {
        headers: { cookie: by.cookie, ...(lastId === undefined ? {} : { 'last-event-id': lastId }) },
        signal: leaving.signal,
      })
      const events: GaugeEvent[] = []
      let lastSeen = ''
      const read = async (): Promise<void> => {
        let text = ''
        const decoder = new TextDecoder()
        for await (const chunk of (response.body ?? []) as AsyncIterable<Uint8Array>) {
          text += decoder.decode(chunk, { stream: true })
          const parts = text.split('\n\n')
          text = parts.pop() ?? ''
          for (const part of parts) {
            const data = /^data: ?(.*)$/m.exec(part)?.[1]
            lastSeen = /^id: ?(.*)$/m.exec(part)?.[1] ?? lastSeen
            if (data) events.push(parse(GaugeEvent, JSON.parse(data)))
          }
        }
      }
      let over = false
      void read()
        .catch(() => undefined)
        .then(() => (over = true))
      return { events, leave: () => leaving.abort(), last: () => lastSeen, over: () => over }
    }
    const first = await watch('stand 1')
    const shown = (events: GaugeEvent[]): number[] =>
      events.flatMap((event) => (event.kind === 'reading' ? [event.percent] : []))
    await device.ask(endpoints.moveStandIn, { params: { id }, body: { do: 'press' } })
    await until(() => shown(first.events).length === 1)
    // It is told first how the gauge is; on a busy machine that may be silent for a moment.
    expect(first.events[0]).toMatchObject({ kind: 'state' })
    await until(() => first.events.some((event) => event.kind === 'state' && event.state === 'connected'))
    const seen = first.last()
    first.leave()
    gauge.press(0.66)
    gauge.press(0.67)
    await new Promise((done) => setTimeout(done, 100))
    const second = await watch('stand 1', seen)
    await until(() => shown(second.events).length === 2)
    expect(shown(second.events)).toEqual([0.66, 0.67])
    // Another screen takes it over, and the first is told.
    const third = await watch('stand 2')
    await until(() => second.events.some((event) => event.kind === 'held' && event.holder === 'stand 2'))
    // Somebody who only looks sees it, and takes it from nobody.
    const onlooker = new Device(base)
    await onlooker.signIn('coral', 'slipway-4')
    const looking = await watch('elsewhere', undefined, onlooker)
    await until(() => looking.events.length > 0)
    // A stream ends with the session it is watched by: signed out here, or gone by another way.
    await onlooker.ask(endpoints.signOut)
    await until(looking.over)
    expect(third.events.some((event) => event.kind === 'held' && event.holder === 'elsewhere')).toBe(false)
    const gone = new Device(base)
    await gone.signIn('coral', 'slipway-4')
    const left = await watch('elsewhere', undefined, gone)
    await until(() => left.events.length > 0)
    await database.sequelize.query(`DELETE FROM sessions WHERE person_id NOT IN (SELECT '${session.person.id}'::uuid)`)
    await hub.endOver()
    await until(left.over)
    await device.ask(endpoints.retireInstrument, { params: { id }, body: { retired: true, reason: 'x' } })
    await until(() => hub.link(shopId, id) === undefined)
    const { problem } = await device.ask(endpoints.moveStandIn, { params: { id }, body: { do: 'press' } })
    expect(problem.code).toBe('gauge-not-connected')
    third.leave()
    second.leave()
    hub.close()
    server.closeAllConnections()
    await new Promise((done) => server.close(done))
    await database.close()
    await drop()
    await gauge.close()
  })
  it('is only for a gauge of its own shop, and for somebody signed in', async () => {
    expect(STAND_IN).toMatch(/^[\w-]+:\d+$/)
    const { url, drop } = await copyOfDemo()
    const database = await openForServing(url)
    const server = createApp({ database, logger: pino({ level: 'silent' }), devices: HERE, jobs: NO_JOBS }).listen(
      0,
      '127.0.0.1',
    )
    await once(server, 'listening')
    const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
    const device = new Device(base)
    expect((await fetch(base + gaugeEventsPath(v7(), 'x'))).status).toBe(401)
    await device.signIn()
    const ask = (id: string) => fetch(base + gaugeEventsPath(id, 'x'), { headers: { cookie: device.cookie } })
    expect((await ask(v7())).status).toBe(404)
    const { body } = await device.ask(endpoints.instruments)
    expect((await ask(body[0]?.id ?? '')).status).toBe(409)
    server.closeAllConnections()
    await new Promise((done) => server.close(done))
    await database.close()
    await drop()
  })
})
