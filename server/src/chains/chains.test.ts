import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type ChainThing } from '@pelrin/contract'
import { inShop } from '../db/index.ts'
import { rebuildState } from '../state/bikeState.ts'
import { bikeNamed, readingOf, startShop, type RunningShop } from '../testing/shop.ts'
import { tornAtEach } from '../testing/torn.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const idOf = async (text: string): Promise<string> => (await bikeNamed(shop.device, text)).id
const chainsOf = async (text: string) =>
  (await shop.device.ask(endpoints.bikeChains, { params: { id: await idOf(text) } })).body
const page = async (id: string) => (await shop.device.ask(endpoints.chain, { params: { id } })).body
const swap = async (text: string, chainId: string, body: Record<string, unknown> = {}, key: string = v7()) =>
  shop.device.ask(endpoints.swapChain, {
    params: { id: await idOf(text) },
    body: { id: v7(), chainId, click: 'firm', ...body },
    key,
  })
const undo = (fittingId: string) =>
  shop.device.ask(endpoints.undoSwap, { params: { id: fittingId }, body: { reason: 'wrong chain' } })
const add = async (text: string, name: string) =>
  shop.device.ask(endpoints.addChain, {
    params: { id: await idOf(text) },
    body: { id: v7(), name, pitches: 114, care: 'immersion-wax' },
  })
const seeLink = async (text: string, closings: number) => {
  const id = await idOf(text)
  const { body } = await shop.device.ask(endpoints.bikeParts, { params: { id }, query: {} })
  const counted = body.joints.find(({ part }) => part.model !== 're-press' && part.model.reuse.kind === 'times')!
  const partId = counted.part.model === 're-press' ? '' : counted.part.model.id
  return shop.device.ask(endpoints.seeJoint, {
    params: { id },
    body: { id: v7(), kind: 'link', partId, closings, firm: true },
  })
}
const record = async (text: string) =>
  (await shop.device.ask(endpoints.bike, { params: { id: await idOf(text) } })).body

describe('the chains of a bike', () => {
  it('of a courier wait in rotation, each with its own distance, wear and link', async () => {
    const { on, rotation } = await chainsOf('courier')
    expect(rotation.length).toBeGreaterThanOrEqual(2)
    for (const chain of rotation)
      expect(chain).toMatchObject({ state: 'rotation', bike: { label: 'Courier' }, care: 'immersion-wax' })
    expect(new Set([on!, ...rotation].map(({ km }) => km)).size).toBe(rotation.length + 1)
  })
  it('that were worn out are scrap and offered to nobody', async () => {
    const { body: all } = await shop.device.ask(endpoints.bikeChains, { params: { id: await idOf('nell winter') } })
    expect([...all.loose, ...all.rotation].every(({ state }) => state !== 'scrapped')).toBe(true)
  })
})

describe('a swap', () => {
  it('takes the one that is on into the rotation and closes the other’s link once more, once for twice sent', async () => {
    const before = await chainsOf('courier')
    const [next] = before.rotation as [ChainThing]
    const key = v7()
    const id = v7()
    const { body, status } = await swap('courier', next.id, { id }, key)
    expect(status).toBe(200)
    expect(body.on).toMatchObject({ id: next.id, state: 'on', km: next.km })
    expect(body.rotation.map((one) => one.id)).toContain(before.on!.id)
    expect(body.on!.joint?.closings).toBe((next.joint?.closings ?? 0) + 1)
    expect((await swap('courier', next.id, { id }, key)).body.on!.joint).toEqual(body.on!.joint)
    // Its readings came along: a verdict of its own, not that of the one before.
    const { summary, chain } = await record('courier')
    expect([chain!.id, summary.verdict === 'measure-it']).toEqual([next.id, next.governing === null])
  })
  it('is taken back within the day as if it had never been', async () => {
    const { undo: fittingId, on } = await chainsOf('courier')
    const closings = on!.joint?.closings ?? 0
    expect((await undo(fittingId!)).status).toBe(200)
    const after = await chainsOf('courier')
    expect(after.undo).toBeNull()
    const back = after.rotation.find(({ id }) => id === on!.id)!
    expect(back.joint?.closings ?? 0).toBe(Math.max(0, closings - 1))
    expect((await page(on!.id)).events.filter(({ kind }) => kind === 'joint-closed').length).toBe(closings > 0 ? 1 : 0)
    expect((await undo(fittingId!)).problem.code).toBe('swap-not')
  })
  it('brings a chain from another bike with all its readings and its distance', async () => {
    const from = await chainsOf('nell winter')
    const chain = from.on!
    expect((await add('nell winter', 'Korvane Ten, the second')).body.rotation).toHaveLength(1)
    const [fresh] = (await chainsOf('nell winter')).rotation as [ChainThing]
    await swap('nell winter', fresh.id)
    await shop.device.ask(endpoints.changeChain, {
      params: { id: chain.id },
      body: { fate: 'spare' },
      version: (await page(chain.id)).chain.version,
    })
    expect((await chainsOf('orla eddy training')).loose.map(({ id }) => id)).toContain(chain.id)
    // Ten speeds on eleven: neither offered nor put on.
    expect((await chainsOf('sand racer')).loose.map(({ id }) => id)).not.toContain(chain.id)
    expect((await swap('sand racer', chain.id)).problem.code).toBe('chain-misfit')
    const moved = await swap('orla eddy training', chain.id)
    expect(moved.body.on).toMatchObject({ id: chain.id, governing: chain.governing })
    expect(moved.body.on!.km).toBeCloseTo(chain.km!, 3)
    const { readings } = await record('orla eddy training')
    expect(readings.map(({ occurredAt }) => occurredAt)).toContain(chain.governing?.at)
    const bikes = (await page(chain.id)).events.filter(({ kind }) => kind === 'fitted' || kind === 'came-with')
    expect(bikes.map(({ bike }) => bike!.label)).toEqual(['Training bike', 'Winter bike'])
    expect(
      (await inShop(shop.database, (await shop.device.ask(endpoints.session)).body.shop.id, null, rebuildState))
        .differing,
    ).toEqual([])
  })
  it('is refused for a chain that is on a bike, was scrapped, or while a job is open', async () => {
    const there = (await chainsOf('courier')).on!
    expect((await swap('sand racer', there.id)).problem.code).toBe('chain-elsewhere')
    expect((await swap('courier', there.id)).problem.code).toBe('chain-on-already')
    const [twin] = (await chainsOf('courier')).rotation as [ChainThing]
    const scrap = await shop.device.ask(endpoints.changeChain, {
      params: { id: twin.id },
      body: { fate: 'scrapped' },
      version: twin.version,
    })
    expect(scrap.body.chain.state).toBe('scrapped')
    expect((await swap('courier', twin.id)).problem.code).toBe('chain-scrapped')
    const job = { id: v7(), reason: 'worn' }
    await shop.device.ask(endpoints.openJob, { params: { id: await idOf('courier') }, body: job })
    const [other] = (await chainsOf('courier')).rotation as [ChainThing]
    expect((await swap('courier', other.id)).problem.code).toBe('job-open-already')
    await shop.device.ask(endpoints.stopJob, { params: { id: job.id }, body: { reason: 'not today' } })
    expect((await swap('courier', v7())).problem.code).toBe('chain-missing')
  })
  it('asks for a word before a link is closed oftener than its maker says, and none is closed that does not click', async () => {
    await seeLink('courier', 5)
    const spent = (await chainsOf('courier')).on!
    expect(spent.joint).toMatchObject({ closings: 5, mayClose: 'by-feel' })
    const [other] = (await chainsOf('courier')).rotation as [ChainThing]
    expect((await swap('courier', other.id, { click: 'weak' })).problem.fields?.[0]?.code).toBe('click-weak')
    await swap('courier', other.id)
    const refused = await swap('courier', spent.id)
    expect(refused.problem.fields).toMatchObject([{ path: 'byFeel', code: 'closings-spent' }])
    expect((await swap('courier', spent.id, { byFeel: true })).body.on!.joint).toMatchObject({ closings: 6 })
  })
  it('is not taken back once the chain was measured', async () => {
    const id = await idOf('courier')
    const { undo: fittingId } = await chainsOf('courier')
    expect(fittingId).not.toBeNull()
    const read = await shop.device.ask(endpoints.takeReading, { body: await readingOf(shop.device, id) })
    expect(read.status).toBeLessThan(300)
    expect((await chainsOf('courier')).undo).toBeNull()
    expect((await undo(fittingId!)).problem.code).toBe('undo-measured')
  })
})

describe('two at once', () => {
  it('who want one spare for two bikes: one gets it', async () => {
    await add('sand racer', 'The one spare')
    const spare = (await chainsOf('sand racer')).rotation.find(({ name }) => name === 'The one spare')!
    const answers = await Promise.all([swap('sand racer', spare.id), swap('tandem', spare.id)])
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409])
  })
  it('who puts a chain on that another is just writing of tells them: their page is older', async () => {
    const { on } = await chainsOf('courier')
    const other = (await chainsOf('courier')).rotation[0]!
    await swap('courier', other.id, { byFeel: true })
    const late = await shop.device.ask(endpoints.changeChain, {
      params: { id: on!.id },
      version: on!.version,
      body: { fate: 'scrapped' },
    })
    expect([late.status, late.problem.code]).toEqual([412, 'version-stale'])
  })
  it('who write of one chain: the second sees what the first wrote', async () => {
    const { chain } = await page((await chainsOf('courier')).rotation[0]!.id)
    const write = (name: string) =>
      shop.device.ask(endpoints.changeChain, { params: { id: chain.id }, body: { name }, version: chain.version })
    expect((await write('The blue one')).body.chain.name).toBe('The blue one')
    const late = await write('The red one')
    expect([late.status, late.problem.current]).toMatchObject([412, { chain: { name: 'The blue one' } }])
  })
})

it('a link has a page with every closing', async () => {
  const { joint } = (await chainsOf('courier')).on!
  const { body } = await shop.device.ask(endpoints.joint, { params: { id: joint!.id } })
  expect(body.events.filter(({ kind }) => kind === 'joint-closed').length).toBeGreaterThan(0)
  expect(body.events[0]!.bike!.label).toBe('Courier')
  expect((await shop.device.ask(endpoints.joint, { params: { id: v7() } })).problem.code).toBe('joint-unknown')
})

describe('torn at any statement', () => {
  /** What anybody sees of a bike's chains, without what is worked out from it. */
  const standing = async (text: string): Promise<string> => {
    const { on, rotation } = await chainsOf(text)
    const seen = (chain: ChainThing | null) => chain && [chain.id, chain.state, chain.version, chain.joint?.closings]
    return JSON.stringify([seen(on), rotation.map(seen), (await record(text)).verdict?.id])
  }
  it('a swap, and one taken back, leave both chains as they were, or changed: never between', async () => {
    await add('merryn garrow race', 'The other one')
    const other = (await chainsOf('merryn garrow race')).rotation[0]!
    // Looked up before: the finder would be torn as well.
    const params = { id: await idOf('merryn garrow race') }
    const body = { id: v7(), chainId: other.id, click: 'firm' as const }
    const again = () => shop.device.ask(endpoints.swapChain, { params, body })
    const swapped = await tornAtEach(shop.database, again, () => standing('merryn garrow race'))
    expect(swapped.between).toEqual([])
    expect(swapped.torn).toBeGreaterThan(5)
    expect((await chainsOf('merryn garrow race')).on!.id).toBe(other.id)
    const back = await tornAtEach(
      shop.database,
      () => undo(body.id),
      () => standing('merryn garrow race'),
    )
    expect(back.between).toEqual([])
    expect((await chainsOf('merryn garrow race')).on!.id).not.toBe(other.id)
  })
})
