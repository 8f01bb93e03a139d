import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { jobNow } from '@pelrin/core'
import { endpoints, type CatalogueItem, type Job } from '@pelrin/contract'
import { inShop } from '../db/index.ts'
import { rebuildState } from '../state/bikeState.ts'
import { bikeNamed, Device, readingOf, startShop, type RunningShop } from '../testing/shop.ts'
import { tornAtEach } from '../testing/torn.ts'

let shop: RunningShop
let ruan: Device
beforeAll(async () => {
  shop = await startShop()
  ruan = new Device(shop.base)
  await ruan.signIn('ruan', 'chalkdown-2')
})
afterAll(() => shop.close())

const idOf = async (text: string): Promise<string> => (await bikeNamed(shop.device, text)).id
const shopId = async (): Promise<string> => (await shop.device.ask(endpoints.session)).body.shop.id
const open = async (text: string, body: Record<string, unknown> = {}) =>
  shop.device.ask(endpoints.openJob, { params: { id: await idOf(text) }, body: { id: v7(), reason: 'worn', ...body } })
const event = (jobId: string, body: Record<string, unknown>, device = shop.device) =>
  device.ask(endpoints.jobEvent, {
    params: { id: jobId },
    body: { id: v7(), occurredAt: new Date().toISOString(), ...body },
  })
const CLOSING = { oldReason: 'worn', oldFate: 'scrapped', click: 'firm', minutes: 28, pitches: 112 }
const close = (jobId: string, body: Record<string, unknown> = {}, key: string = v7()) =>
  shop.device.ask(endpoints.closeJob, { params: { id: jobId }, body: { ...CLOSING, ...body }, key })
const undo = (jobId: string) =>
  shop.device.ask(endpoints.undoJob, { params: { id: jobId }, body: { reason: 'wrong bike' } })
const record = async (text: string) =>
  (await shop.device.ask(endpoints.bike, { params: { id: await idOf(text) } })).body
const partOf = async (id: string): Promise<CatalogueItem> =>
  (await shop.device.ask(endpoints.cataloguePart, { params: { id } })).body
const sound = async () => (await inShop(shop.database, await shopId(), null, rebuildState)).differing
/** Keeps the best parts for a bike. @returns the chain's id */
const keepBest = async (text: string): Promise<string> => {
  const id = await idOf(text)
  const { body: parts } = await shop.device.ask(endpoints.bikeParts, { params: { id }, query: {} })
  const chain = parts.chains[0]!.part
  const line = { id: v7(), partId: chain.id, quantity: 1, included: false }
  await shop.device.ask(endpoints.keepParts, {
    params: { id },
    body: { id: v7(), pitches: parts.pitches, lines: [line] },
  })
  return chain.id
}

/** Chains that came off a bike, by its timeline. */
const takenOff = async (text: string): Promise<number> =>
  (await record(text)).events.filter(({ kind }) => kind === 'taken-off').length

describe('a job', () => {
  it('begins with what is known of the bike and the parts kept for it, once a bike', async () => {
    const partId = await keepBest('nell winter')
    const { body: job } = await open('nell winter')
    expect(job).toMatchObject({
      state: 'open',
      parts: { chainPartId: partId, chain: 'Korvane Ten' },
      plan: { drive: { type: 'derailleur', speeds: 10 }, joint: { kind: 'link' }, chain: { pitches: 112 } },
    })
    const again = await open('nell winter')
    expect([again.status, (again.problem.current as Job).id]).toEqual([409, job.id])
    const steps = jobNow(job.plan, job.events as never).steps.map(({ id }) => id)
    expect(steps).toEqual(expect.arrayContaining(['slack', 'join-link', 'look-click', 'every-gear']))
  })
  it('keeps who did which step, over a hand-over, and the first who ticked it', async () => {
    const { job } = (await shop.device.ask(endpoints.bikeJob, { params: { id: await idOf('nell winter') } })).body
    await event(job!.id, { kind: 'tick', step: 'pick' })
    await event(job!.id, { kind: 'take-over' }, ruan)
    await Promise.all([
      event(job!.id, { kind: 'tick', step: 'count-old' }, ruan),
      event(job!.id, { kind: 'tick', step: 'slack' }),
    ])
    const twice = v7()
    for (let i = 0; i < 2; i++)
      await ruan.ask(endpoints.jobEvent, {
        params: { id: job!.id },
        body: { id: twice, occurredAt: new Date().toISOString(), kind: 'tick', step: 'keep-old' },
        key: 'the-same-tick',
      })
    const now = (await shop.device.ask(endpoints.bikeJob, { params: { id: job!.bikeId } })).body.job!
    const { steps } = jobNow(now.plan, now.events)
    const by = (id: string) => steps.find((step) => step.id === id)?.done?.by
    expect([by('pick'), by('count-old'), by('slack'), by('keep-old')]).toEqual(['TS', 'RP', 'TS', 'RP'])
    expect(now.events.filter((one) => one.kind === 'tick' && one.step === 'keep-old')).toHaveLength(1)
    expect((await event(job!.id, { kind: 'tick', step: 'sing' })).problem.fields?.[0]).toMatchObject({ path: 'step' })
  })
  it('is closed only with a link that clicks firmly, and with parts that are there', async () => {
    const { job } = (await shop.device.ask(endpoints.bikeJob, { params: { id: await idOf('nell winter') } })).body
    for (const [click, code] of [
      ['weak', 'click-weak'],
      [null, 'click-missing'],
    ] as const)
      expect((await close(job!.id, { click })).problem.fields?.[0]).toMatchObject({ path: 'click', code })
    expect((await close(job!.id, { minutes: -1 })).problem.fields?.[0]).toMatchObject({
      path: 'minutes',
      code: 'minutes-negative',
    })
    const partId = job!.parts.chainPartId!
    const before = await takenOff('nell winter')
    const { stock } = await partOf(partId)
    const count = (quantity: number) =>
      shop.device.ask(endpoints.moveStock, { params: { id: partId }, body: { id: v7(), kind: 'counted', quantity } })
    await count(0)
    expect((await close(job!.id)).problem.fields?.[0]).toMatchObject({ path: 'parts', code: 'parts-short' })
    // Nothing of a refused closing stays.
    expect(await takenOff('nell winter')).toBe(before)
    await count(stock)
  })
  it('closed, has ended the old chain, begun the new, used the parts, kept the offcut: once, however often', async () => {
    const bikeId = await idOf('nell winter')
    const { job } = (await shop.device.ask(endpoints.bikeJob, { params: { id: bikeId } })).body
    const { stock } = await partOf(job!.parts.chainPartId!)
    const before = await takenOff('nell winter')
    const [first, second] = await Promise.all([close(job!.id), close(job!.id)])
    expect([first.status, second.status]).toEqual([200, 200])
    expect(first.body.written).toEqual(second.body.written)
    expect((await partOf(job!.parts.chainPartId!)).stock).toBe(stock - 1)
    const after = await record('nell winter')
    expect(after.summary.verdict).toBe('not-measured-yet')
    expect(await takenOff('nell winter')).toBe(before + 1)
    expect(after.events.filter(({ kind, text }) => kind === 'fitted' && text === 'Korvane Ten')).not.toEqual([])
    const { body: parts } = await shop.device.ask(endpoints.bikeParts, { params: { id: bikeId }, query: {} })
    expect(parts).toMatchObject({ kept: null, present: { kind: 'link', closings: 1, firm: true }, oldPitches: 112 })
    expect(first.body.written?.offcutId).not.toBeNull()
    expect((await event(job!.id, { kind: 'tick', step: 'pick' })).status).toBe(409)
    expect(await sound()).toEqual([])
  })
  it('is taken back within the day: the old chain as if it had never come off, the parts in stock', async () => {
    const bikeId = await idOf('nell winter')
    const { job } = (await shop.device.ask(endpoints.bikeJob, { params: { id: bikeId } })).body
    const { stock } = await partOf(job!.parts.chainPartId!)
    const before = await takenOff('nell winter')
    const undone = await undo(job!.id)
    expect(undone.body.state).toBe('undone')
    expect((await partOf(job!.parts.chainPartId!)).stock).toBe(stock + 1)
    const after = await record('nell winter')
    expect(after.summary.verdict).not.toBe('not-measured-yet')
    expect(await takenOff('nell winter')).toBe(before - 1)
    expect((await undo(job!.id)).body.state).toBe('undone')
    expect(await sound()).toEqual([])
  })
  it('is not taken back once the new chain was measured', async () => {
    await keepBest('ivo marsh')
    const { body: job } = await open('ivo marsh')
    await close(job.id, { pitches: job.plan.chain.pitches })
    await shop.device.ask(endpoints.takeReading, { body: await readingOf(shop.device, await idOf('ivo marsh')) })
    const refused = await undo(job.id)
    expect([refused.status, refused.problem.code]).toEqual([409, 'undo-measured'])
  })
  it('whose new chain skips leaves the old one on, and the parts free', async () => {
    const partId = await keepBest('sand racer')
    const { stock } = await partOf(partId)
    const { body: job } = await open('sand racer')
    const before = (await record('sand racer')).summary.verdict
    await event(job.id, { kind: 'outcome', outcome: 'skips-old-back' })
    const { body: closed } = await close(job.id)
    expect(closed.written).toMatchObject({ newChainId: null, used: [] })
    expect(await partOf(partId)).toMatchObject({ stock, kept: 0 })
    expect((await record('sand racer')).summary.verdict).toBe(before)
  })
  it('that is stopped changes nothing and lets its parts go', async () => {
    const partId = await keepBest('courier')
    const { body: job } = await open('courier', { reason: 'early', oldFate: 'rotation' })
    const stopped = await shop.device.ask(endpoints.stopJob, {
      params: { id: job.id },
      body: { reason: 'the customer will think about it' },
    })
    expect(stopped.body.state).toBe('stopped')
    expect((await partOf(partId)).kept).toBe(0)
    expect((await open('courier')).status).toBe(200)
  })
  it('of a tandem changes the chain that drives, whatever else is kept for it', async () => {
    const id = await idOf('tandem')
    const { body: timing } = await shop.device.ask(endpoints.bikeParts, { params: { id }, query: { of: 'timing' } })
    const { body: drive } = await shop.device.ask(endpoints.bikeParts, { params: { id }, query: {} })
    const lines = [timing.chains[0]!, drive.chains[0]!].map(({ part }) => ({
      id: v7(),
      partId: part.id,
      quantity: 1,
      included: false,
    }))
    await shop.device.ask(endpoints.keepParts, { params: { id }, body: { id: v7(), pitches: timing.pitches, lines } })
    const { body: job } = await open('tandem')
    expect(job.parts.chainPartId).toBe(drive.chains[0]!.part.id)
    expect(job.plan.chain.pitches).toBe(drive.pitches)
    for (const { partId } of lines)
      await shop.device.ask(endpoints.moveStock, {
        params: { id: partId },
        body: { id: v7(), kind: 'counted', quantity: 2 },
      })
    const { body: closed } = await close(job.id, { pitches: job.plan.chain.pitches })
    expect(closed.written?.used).toEqual([{ partId: drive.chains[0]!.part.id, quantity: 1 }])
    // What is kept for its other chain stays kept.
    const { body: after } = await shop.device.ask(endpoints.bikeParts, { params: { id }, query: {} })
    expect(after.kept?.lines.map(({ partId }) => partId)).toEqual([timing.chains[0]!.part.id])
  })
  it('without kept parts takes from stock what it wants', async () => {
    const { body: job } = await open('island mail 5')
    const paid = job.parts.list.filter(({ included }) => !included)
    expect(paid.map(({ partId }) => partId)).toContain(job.parts.chainPartId)
    for (const { partId, quantity } of paid)
      await shop.device.ask(endpoints.moveStock, {
        params: { id: partId },
        body: { id: v7(), kind: 'counted', quantity: quantity + 1 },
      })
    const { body: closed } = await close(job.id, { pitches: job.plan.chain.pitches })
    expect(closed.written?.used).toHaveLength(paid.length)
    for (const { partId } of paid) expect((await partOf(partId)).stock).toBe(1)
  })
  it('of a bike there is not, or after it ended, is refused', async () => {
    const nowhere = await shop.device.ask(endpoints.openJob, {
      params: { id: '0192c7f2-5340-7b38-85ad-000000000000' },
      body: { id: v7(), reason: 'worn' },
    })
    expect(nowhere.status).toBe(404)
    const reader = new Device(shop.base)
    await reader.signIn('coral', 'slipway-4')
    const mayNot = await reader.ask(endpoints.openJob, {
      params: { id: await idOf('school pool 7') },
      body: { id: v7(), reason: 'worn' },
    })
    expect(mayNot.status).toBe(403)
  })
})

describe('closing torn at any statement', () => {
  it('leaves the job open with all its ticks, or closed: never between', async () => {
    await keepBest('school pool 7')
    const { body: job } = await open('school pool 7')
    await event(job.id, { kind: 'tick', step: 'pick' })
    const standing = async (): Promise<string> => {
      const now = (await shop.device.ask(endpoints.bikeJob, { params: { id: job.bikeId } })).body.job!
      const stock = (await partOf(job.parts.chainPartId!)).stock
      const fitted = (await record('school pool 7')).events.filter(({ kind }) => kind === 'fitted').length
      return JSON.stringify({ state: now.state, events: now.events.length, stock, fitted })
    }
    const again = () => close(job.id, { pitches: job.plan.chain.pitches })
    const { torn, between } = await tornAtEach(shop.database, again, standing)
    expect(between).toEqual([])
    expect(torn).toBeGreaterThan(5)
    expect(JSON.parse(await standing())).toMatchObject({ state: 'closed', events: 1 })
  })
})

describe('what a job costs', () => {
  it('is told before it begins and as it turned out, from the catalogue and the shop’s hour', async () => {
    const id = await idOf('merryn garrow race')
    const before = (await shop.device.ask(endpoints.bikeJob, { params: { id } })).body
    expect(before.estimate!.minutes).toBeGreaterThan(10)
    expect(before.estimate!.labour).toBe(Math.round((before.estimate!.minutes / 60) * 4800))
    expect(before.estimate!.total).toBe(before.estimate!.labour + before.estimate!.partsCost!)
    const { body: job } = await shop.device.ask(endpoints.openJob, {
      params: { id },
      body: { id: v7(), reason: 'worn' },
    })
    expect(job.parts.estimate).toEqual(before.estimate)
    for (const { partId } of job.parts.list)
      await shop.device.ask(endpoints.moveStock, {
        params: { id: partId },
        body: { id: v7(), kind: 'counted', quantity: 5 },
      })
    const { body: closed } = await close(job.id, { minutes: 30, pitches: job.plan.chain.pitches })
    expect(closed.written!.bill).toMatchObject({ minutes: 30, labour: 2400 })
    expect(closed.written!.bill!.parts.map(({ quantity }) => quantity)).toEqual(
      closed.written!.used.map(({ quantity }) => quantity),
    )
  })
})

it('a bike whose chain nothing in the catalogue closes has no job, and its page still opens', async () => {
  const id = await idOf('noll fathom race')
  const { body: all } = await shop.device.ask(endpoints.matchingCatalogue)
  for (const joint of all.joints.filter(({ speeds }) => speeds.includes(12))) {
    const { version } = await partOf(joint.id)
    await shop.device.ask(endpoints.removePart, { params: { id: joint.id }, version })
  }
  const page = await shop.device.ask(endpoints.bikeJob, { params: { id } })
  expect([page.status, page.body.estimate]).toEqual([200, null])
  const job = () => shop.device.ask(endpoints.openJob, { params: { id }, body: { id: v7(), reason: 'worn' } })
  expect((await job()).problem.code).toBe('job-joint-missing')
})

describe('the shop’s schools', () => {
  it('are those of every job begun from then on, told to whoever changed them too late', async () => {
    const { body: shipped } = await shop.device.ask(endpoints.houseSchools)
    expect(shipped.version).toBe(0)
    const own = { ...shipped.schools, slack: 'off-ring' as const, oilPins: true }
    const write = (device: Device) => device.ask(endpoints.changeHouseSchools, { body: own, version: shipped.version })
    expect((await write(shop.device)).body).toEqual({ version: 1, schools: own, waxing: shipped.waxing })
    const waxing = {
      recipe: 'cool-draw' as const,
      finish: 'fit-stiff' as const,
      linkInPot: true,
      rewax: 'boil' as const,
    }
    const dipped = await shop.device.ask(endpoints.changeHouseSchools, { body: { ...own, waxing }, version: 1 })
    expect(dipped.body.waxing).toEqual(waxing)
    const { body: care } = await shop.device.ask(endpoints.bikeCare, { params: { id: await idOf('courier') } })
    expect([care.waxing, care.ownRecipe]).toEqual([waxing, null])
    const late = await write(shop.device)
    expect([late.status, late.problem.current]).toMatchObject([412, { version: 2 }])
    expect((await write(ruan)).status).toBe(403)
    const { body: job } = await open('quay bike')
    expect(job.plan.schools).toEqual(own)
  })
})

it('a bike that was sold is in for nothing any more, keeps its record, and may come back', async () => {
  const id = await idOf('old faithful')
  const change = async (goneOn: string | null) => {
    const { body } = await shop.device.ask(endpoints.bike, { params: { id } })
    return shop.device.ask(endpoints.changeBike, { params: { id }, version: body.version, body: { goneOn } })
  }
  const count = async () => (await shop.device.ask(endpoints.rack, { query: {} })).body.counts['all']!
  const before = await count()
  expect((await change('2026-05-04')).body.goneOn).toBe('2026-05-04')
  const job = () => shop.device.ask(endpoints.openJob, { params: { id }, body: { id: v7(), reason: 'worn' } })
  expect((await job()).problem.code).toBe('bike-gone')
  const stand = await shop.device.ask(endpoints.putOnStand, { body: { visitId: v7(), bikeId: id } })
  expect([stand.status, stand.problem.code]).toEqual([409, 'bike-gone'])
  expect(await count()).toBe(before - 1)
  expect((await shop.device.ask(endpoints.bike, { params: { id } })).body.goneOn).toBe('2026-05-04')
  await change(null)
  expect((await job()).status).toBe(200)
})

describe('a walk-in of which nothing is known', () => {
  it('is begun all the same: its length is found on the bike, kept as its own, and what is cut follows', async () => {
    const id = v7()
    await shop.device.ask(endpoints.addBike, {
      body: {
        id,
        label: 'Off the street',
        kind: 'tourer',
        customer: { id: v7(), new: { name: 'Walk In' } },
        drive: {
          type: 'derailleur',
          speeds: 11,
          fronts: [50, 34],
          sprockets: [11, 13, 15, 17, 19, 21, 23, 25, 28, 30, 32],
        },
        chain: { id: v7(), fittingId: v7(), name: 'No name' },
      },
    })
    const begun = await shop.device.ask(endpoints.openJob, { params: { id }, body: { id: v7(), reason: 'worn' } })
    expect(begun.status).toBe(200)
    const job = begun.body
    expect(job.plan.chain).toMatchObject({ toSize: true, addPitches: 2 })
    const steps = (one: Job): string[] => jobNow(one.plan, one.events as never).steps.map(({ id: step }) => step)
    expect(steps(job)).toContain('size-on-bike')
    const sized = await event(job.id, {
      kind: 'entered',
      step: 'size-on-bike',
      entry: { asks: 'size', way: 'wrapped', counted: 107, addPitches: 2 },
    })
    const now = jobNow(sized.body.plan, sized.body.events)
    expect(now.plan.chain.pitches).toBe(110)
    expect(now.steps.map(({ id: step }) => step)).toContain('cut')
    await event(job.id, {
      kind: 'entered',
      step: 'count-old',
      entry: { asks: 'old-count', pitches: 114, small: 'hangs', large: 'right' },
    })
    const { body: parts } = await shop.device.ask(endpoints.bikeParts, { params: { id }, query: {} })
    expect(parts).toMatchObject({
      drive: { ownPitches: 110 },
      pitches: 110,
      oldLook: { small: 'hangs', large: 'right' },
    })
  })
})
