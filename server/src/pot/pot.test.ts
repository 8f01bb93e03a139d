import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { ThermometerStandIn } from '@pelrin/standins/thermometer'
import { endpoints, type PotBoard, type PotChainNow } from '@pelrin/contract'
import { DEFAULTS } from '@pelrin/core'
import { startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
const thermometer = new ThermometerStandIn()
beforeAll(async () => {
  shop = await startShop({ thermometer: await thermometer.listen() })
})
afterAll(async () => {
  await shop.close()
  await thermometer.close()
})

const board = async (): Promise<PotBoard> => (await shop.device.ask(endpoints.potBoard)).body
const move = (chains: readonly PotChainNow[], to: string, potId: string | null = null, key = v7()) =>
  shop.device.ask(endpoints.movePotChains, {
    key,
    body: {
      chains: chains.map(({ id, state }) => ({ id, from: state })),
      to,
      potId,
      occurredAt: new Date().toISOString(),
    },
  })
const named = ({ chains }: PotBoard, ids: readonly string[]): PotChainNow[] =>
  ids.map((id) => chains.find((one) => one.id === id)!)

describe('the wax pot', () => {
  it('has the chains that wait for it, in the order they came, and others that could go in', async () => {
    const { pots, chains, candidates } = await board()
    expect(pots).toMatchObject([{ name: 'Copper', capacity: 4, onSince: null, bath: { most: 60 } }])
    const { load, most, change } = pots[0]!.bath
    expect(load).toBeGreaterThan(0)
    expect(change).toBe(load >= most)
    expect(chains).toHaveLength(7)
    expect(chains.map(({ addedAt }) => addedAt)).toEqual(chains.map(({ addedAt }) => addedAt).sort())
    const waiting = new Set(chains.map(({ chainId }) => chainId))
    expect(candidates.length).toBeGreaterThan(0)
    expect(candidates.some(({ chainId }) => waiting.has(chainId))).toBe(false)
  })
  it('takes chains that could go in, each once', async () => {
    const [first] = (await board()).candidates
    const one = { chainId: first!.chainId, readyBy: null, needs: 'nothing', recipe: 'bubble-out', condition: 'wet' }
    const add = () => shop.device.ask(endpoints.addToPot, { body: { chains: [{ id: v7(), ...one }] } })
    const added = (await add()).body.chains.find(({ chainId }) => chainId === first!.chainId)
    expect(added).toMatchObject({ state: 'waiting', condition: 'wet' })
    const again = await add()
    expect([again.status, again.problem.code]).toEqual([409, 'pot-there'])
    const none = await shop.device.ask(endpoints.addToPot, { body: { chains: [{ id: v7(), ...one, chainId: v7() }] } })
    expect(none.problem.fields).toMatchObject([{ path: 'chains.0.chainId', code: 'chain-missing' }])
  })
  it('is not written over one somebody else changed meanwhile', async () => {
    const [chain] = (await board()).chains
    const change = (readyBy: string | null) =>
      shop.device.ask(endpoints.changePotChain, {
        params: { id: chain!.id },
        version: chain!.version,
        body: { readyBy },
      })
    expect((await change(null)).body.chains[0]).toMatchObject({ readyBy: null, version: chain!.version + 1 })
    expect((await change(new Date().toISOString())).status).toBe(412)
  })
  it('takes a dip with all its chains or with none, once however often it is sent, and no second one into it', async () => {
    const { pots, chains } = await board()
    const potId = pots[0]!.id
    const load = pots[0]!.bath.load
    const dip = chains.filter(({ needs }) => needs === 'nothing').slice(0, 3)
    const unstripped = await move([chains.find(({ needs }) => needs === 'strip')!], 'in-pot', potId)
    expect(unstripped.problem.fields).toMatchObject([{ code: 'pot-unstripped' }])
    const tooMany = await move(chains.filter(({ needs }) => needs === 'nothing').slice(0, 5), 'in-pot', potId)
    expect(tooMany.problem.fields).toMatchObject([{ code: 'pot-full' }])
    const key = v7()
    const body = {
      chains: dip.map(({ id, state }) => ({ id, from: state })),
      to: 'in-pot',
      potId,
      occurredAt: new Date().toISOString(),
    }
    const send = () => shop.device.ask(endpoints.movePotChains, { key, body })
    const sent = await Promise.all([send(), send()])
    expect(sent.map(({ status }) => status)).toEqual([200, 200])
    const after = await board()
    expect(
      named(
        after,
        dip.map(({ id }) => id),
      ).map(({ state, potId: pot }) => [state, pot]),
    ).toEqual(dip.map(() => ['in-pot', potId]))
    expect(after.pots[0]!.bath.load).toBeGreaterThanOrEqual(load + 3)
    const waits = after.chains.find(({ state, needs }) => state === 'waiting' && needs === 'nothing')!
    const second = await move([waits], 'in-pot', potId)
    expect([second.status, second.problem.code]).toEqual([409, 'pot-taken'])
    const stale = await move(dip, 'in-pot', potId)
    expect(stale.problem.code).toBe('pot-moved')
  })
  it('done is written to the care of each chain, and is no step backwards', async () => {
    const inIt = (await board()).chains.filter(({ state }) => state === 'in-pot')
    const hanging = named(
      (await move(inIt, 'hanging')).body,
      inIt.map(({ id }) => id),
    )
    const { body } = await move(hanging, 'done')
    expect(body.done.map(({ id }) => id)).toEqual(expect.arrayContaining(hanging.map(({ id }) => id)))
    const cares = await Promise.all(
      hanging.map(({ bike }) => shop.device.ask(endpoints.bikeCare, { params: { id: bike!.id } })),
    )
    const here = cares.filter(({ body: care }) => hanging.some(({ chainId }) => chainId === care.chain?.id))
    expect(here.length).toBeGreaterThan(0)
    for (const { body: care } of here)
      expect(care).toMatchObject({ events: [{ kind: 'treated', care: 'immersion-wax' }, ...care.events.slice(1)] })
    for (const { body: care } of here) expect(Date.now() - Date.parse(care.events[0]!.at)).toBeLessThan(60_000)
    expect((await move(body.done.slice(0, 1), 'waiting')).problem.code).toBe('pot-moved')
  })
  it('hangs until it goes back on its bike, which closes its link once more', async () => {
    const { hung } = await board()
    const one = hung.find(({ bike, joint }) => bike !== null && joint?.kind === 'link')!
    expect(one).toBeDefined()
    const backOn = (closing: Record<string, unknown>) =>
      shop.device.ask(endpoints.backOn, { params: { id: one.id }, body: closing })
    expect((await backOn({ click: 'none' })).problem.fields?.[0]?.code).toBe('click-weak')
    const { body } = await backOn({ click: 'firm' })
    expect(body.hung.map(({ id }) => id)).not.toContain(one.id)
    const { body: care } = await shop.device.ask(endpoints.bikeCare, { params: { id: one.bike!.id } })
    expect(care.chain!.joint).toMatchObject({ closings: one.joint!.closings! + 1, firm: true })
    expect((await backOn({ click: 'firm' })).problem.code).toBe('pot-hung-not')
  })
  it('is not let into the wax wet: washed, it is dried first, whatever is said when it is added', async () => {
    const { candidates, pots } = await board()
    const one = candidates.find(({ bike, because }) => bike !== null && because !== 'rotation')!
    const { body: record } = await shop.device.ask(endpoints.bike, { params: { id: one.bike!.id } })
    const washed = await shop.device.ask(endpoints.recordCare, {
      params: { id: one.bike!.id },
      body: { id: v7(), kind: 'wash', occurredAt: new Date().toISOString(), fittingId: record.chain!.fittingId },
    })
    expect(washed.body.wet).toBe(true)
    const added = await shop.device.ask(endpoints.addToPot, {
      body: {
        chains: [
          {
            id: v7(),
            chainId: one.chainId,
            readyBy: null,
            needs: 'nothing',
            recipe: 'soak-and-hang',
            condition: 'clean',
          },
        ],
      },
    })
    const waits = added.body.chains.find(({ chainId }) => chainId === one.chainId)!
    expect(waits).toMatchObject({ needs: 'dry', condition: 'wet' })
    const wet = await move([waits], 'in-pot', pots[0]!.id)
    expect(wet.problem.fields).toMatchObject([{ path: 'chains', code: 'pot-undried' }])
    const drying = named((await move([waits], 'drying')).body, [waits.id])
    expect((await move(drying, 'in-pot', pots[0]!.id)).problem.fields?.[0]?.code).toBe('pot-undried')
    await move(drying, 'left')
  })
  it('is stripped, dried, and wants that no more', async () => {
    const strip = (await board()).chains.find(({ needs }) => needs === 'strip')!
    const bath = named((await move([strip], 'stripping')).body, [strip.id])
    const dry = named((await move(bath, 'drying')).body, [strip.id])
    expect(dry[0]).toMatchObject({ state: 'drying', needs: 'dry' })
    const back = named((await move(dry, 'waiting')).body, [strip.id])
    expect(back[0]).toMatchObject({ state: 'waiting', potId: null })
    expect((await move(back, 'left')).body.chains.some(({ id }) => id === strip.id)).toBe(false)
  })
  it('is switched, counted anew with new wax, and others are added', async () => {
    const [pot] = (await board()).pots
    const on = await shop.device.ask(endpoints.switchPot, {
      params: { id: pot!.id },
      version: pot!.version,
      body: { on: true },
    })
    expect(on.body.pots[0]!.onSince).not.toBeNull()
    const fresh = await shop.device.ask(endpoints.changeBath, { params: { id: pot!.id }, body: { id: v7() } })
    expect(fresh.body.pots[0]!.bath).toMatchObject({ load: 0, change: false })
    const more = await shop.device.ask(endpoints.addPot, { body: { id: v7(), name: 'Little', capacity: 1 } })
    expect(more.body.pots.map(({ name }) => name)).toEqual(['Copper', 'Little'])
    // As the house has it, until it has times and an alarm of its own.
    const little = more.body.pots[1]!
    expect([little.heatMinutes, little.alarmCelsius]).toEqual([DEFAULTS.pot.heatMinutes, DEFAULTS.pot.alarmCelsius])
    const own = await shop.device.ask(endpoints.switchPot, {
      params: { id: little.id },
      version: little.version,
      body: { vessel: 'slow-cooker', heatMinutes: 90, alarmCelsius: 105 },
    })
    expect(own.body.pots[1]).toMatchObject({ vessel: 'slow-cooker', heatMinutes: 90, alarmCelsius: 105 })
  })
})

describe('a pot’s thermometer', () => {
  const read = async () => {
    const [pot] = (await board()).pots
    return (await shop.device.ask(endpoints.potTemperature, { params: { id: pot!.id } })).body
  }
  it('is asked again and again, and says nothing while it is silent or talks rubbish', async () => {
    await expect.poll(async () => (await read()).readings.length, { timeout: 5_000 }).toBeGreaterThan(3)
    expect((await read()).readings.at(-1)!.celsius).toBeCloseTo(84, -1)
    thermometer.faults.garbled = true
    await new Promise((done) => setTimeout(done, 300))
    const before = (await read()).readings.length
    await new Promise((done) => setTimeout(done, 400))
    expect((await read()).readings.length).toBe(before)
    thermometer.faults.garbled = false
    await expect.poll(async () => (await read()).readings.length, { timeout: 5_000 }).toBeGreaterThan(before)
  })
  it('is of its own shop only', async () => {
    const { readings } = (await shop.device.ask(endpoints.potTemperature, { params: { id: v7() } })).body
    expect(readings).toEqual([])
  })
})

describe('what the pot learns', () => {
  it('how long chains stay in it here, from dips after the first of a session: the plan goes by that', async () => {
    const { pots, chains, candidates } = await board()
    const [pot] = pots
    for (const chain of chains.filter(({ state }) => state === 'in-pot')) await move([chain], 'left')
    const id = v7()
    const { body: added } = await shop.device.ask(endpoints.addToPot, {
      body: {
        chains: [
          {
            id,
            chainId: candidates.at(-1)!.chainId,
            readyBy: null,
            needs: 'nothing',
            recipe: 'bubble-out',
            condition: 'clean',
          },
        ],
      },
    })
    let chain = named(added, [id])[0]!
    const goes = async (to: string, minutesAgo: number): Promise<void> => {
      const { status, body, problem } = await shop.device.ask(endpoints.movePotChains, {
        body: {
          chains: [{ id, from: chain.state }],
          to,
          potId: to === 'in-pot' ? pot!.id : null,
          occurredAt: new Date(Date.now() - minutesAgo * 60_000).toISOString(),
        },
      })
      expect(status, problem.code).toBe(200)
      chain = named(body, [id])[0]!
    }
    // The first dip of the day is into cold wax, and takes longer.
    for (const [went, came] of [
      [400, 370],
      [360, 349],
      [340, 329],
      [320, 309],
      [300, 289],
      [280, 269],
    ] as const) {
      await goes('in-pot', went)
      await goes('hanging', came)
      await goes('waiting', came - 1)
    }
    const { learned } = await board()
    expect(learned.find(({ step }) => step === 'bubble-out')).toEqual({
      ...{ step: 'bubble-out', minutes: 11, from: 11, to: 11, stays: 5 },
      assumed: DEFAULTS.pot['bubble-out'].minutes,
    })
    await goes('left', 200)
  })

  it('says what a chain is as it could go in: one that was never treated is stripped, one ridden wet comes wet', async () => {
    const { candidates } = await board()
    for (const { waxCase, needs, condition } of candidates) {
      if (waxCase === 'first') expect(needs).toBe('strip')
      if (waxCase === 'rewax') expect([needs, condition]).toEqual(['nothing', 'clean'])
      if (waxCase === 'rewax-wet') expect([needs, condition]).toEqual(['dry', 'wet'])
      if (waxCase === 'rewax-gritty') expect([needs, condition]).toEqual(['dry', 'gritty'])
    }
    expect(new Set(candidates.map(({ waxCase }) => waxCase)).size).toBeGreaterThan(1)
  })
})
