import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { bikeNamed, fittingOn, startShop, type RunningShop } from '../testing/shop.ts'
import { tornAtEach } from '../testing/torn.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const idOf = async (text: string): Promise<string> => (await bikeNamed(shop.device, text)).id
const mendsOf = async (text: string) =>
  (await shop.device.ask(endpoints.bikeMends, { params: { id: await idOf(text) } })).body
const record = async (text: string) =>
  (await shop.device.ask(endpoints.bike, { params: { id: await idOf(text) } })).body
const LINK = { joint: 'link', way: 'each', inserted: false, roadside: false } as const
const MEND = {
  pitches: 112,
  broken: 'outer',
  damaged: [0] as number[],
  cause: 'bent-in-shifting',
  choice: 'mended',
  mend: LINK,
  click: 'firm',
  advised: 'Replace it soon.',
} as const
const mend = async (text: string, body: Record<string, unknown> = {}) =>
  shop.device.ask(endpoints.mendChain, {
    params: { id: await idOf(text) },
    body: { id: v7(), fittingId: await fittingOn(shop.device, await idOf(text)), ...MEND, ...body },
  })

describe('a broken chain', () => {
  it('that is mended has a new count and a new joint, is measured anew and looked at again within a fortnight', async () => {
    const before = await record('nell winter')
    const { body, status } = await mend('nell winter', { broken: 'inner', damaged: [0, 1] })
    expect(status).toBe(200)
    const [written] = body.mends
    expect(written).toMatchObject({
      option: { lost: 2, left: 110, joints: 1 },
      choice: 'mended',
      person: 'Tove Sandell',
    })
    const days = (Date.parse(written!.followUpOn!) - Date.now()) / 86_400_000
    expect(days).toBeGreaterThan(12)
    expect(days).toBeLessThan(15)
    expect(body.chain).toMatchObject({ pitches: 110 })
    const after = await record('nell winter')
    expect(before.summary.measuredAt).not.toBeNull()
    expect(['measure-it', 'not-measured-yet']).toContain(after.summary.verdict)
    const page = (await shop.device.ask(endpoints.chain, { params: { id: after.chain!.id } })).body
    expect(
      page.events
        .slice(0, 2)
        .map(({ kind }) => kind)
        .sort(),
    ).toEqual(['joint-closed', 'shortened'])
    expect(page.chain.joint).toMatchObject({ kind: 'link', closings: 1, firm: true })
  })
  it('mended with a link from stock has that very link, and the stock one less', async () => {
    const id = await idOf('quay bike')
    const { body: parts } = await shop.device.ask(endpoints.bikeParts, { params: { id }, query: {} })
    const [link] = parts.joints.flatMap(({ part: { model } }) =>
      model !== 're-press' && model.kind === 'link' && model.stock > 0 ? [model] : [],
    )
    const { status, body } = await mend('quay bike', { linkPartId: link!.id })
    expect(status).toBe(200)
    const page = (await shop.device.ask(endpoints.chain, { params: { id: body.mends[0]!.chain.id } })).body
    expect(page.chain.joint).toMatchObject({ name: `${link!.maker} ${link!.name}`, closings: 1, firm: true })
    const { body: after } = await shop.device.ask(endpoints.cataloguePart, { params: { id: link!.id } })
    expect(after.stock).toBe(link!.stock - 1)
  })
  it('whose outer link broke keeps its length by a link', async () => {
    const { body } = await mend('sand racer')
    expect(body.mends[0]).toMatchObject({ option: { lost: 0, left: 112 } })
    expect(body.chain).toMatchObject({ pitches: 112 })
  })
  it('that is to be replaced stays as it is until its job', async () => {
    const before = await record('courier')
    const { body } = await mend('courier', { choice: 'replace', mend: null, click: null, advised: '' })
    expect(body.mends[0]).toMatchObject({ choice: 'replace', option: null, followUpOn: null })
    expect((await record('courier')).summary.verdict).toBe(before.summary.verdict)
  })
  it.each([
    [{ cause: '' }, 'cause', 'cause-missing'],
    [{ damaged: [] }, 'damaged', 'damaged-none'],
    [{ damaged: [0, 112] }, 'damaged', 'damaged-elsewhere'],
    [{ damaged: [7] }, 'damaged', 'damaged-elsewhere'],
    [{ pitches: 111 }, 'pitches', 'count-odd'],
    [{ mend: null }, 'mend', 'mend-missing'],
    [{ mend: { ...LINK, inserted: true } }, 'mend', 'mend-missing'],
    [{ mend: { ...LINK, joint: 're-press' } }, 'mend', 're-press-excluded'],
    [{ click: 'weak' }, 'click', 'click-weak'],
    [{ click: null }, 'click', 'click-missing'],
  ])('is refused with %o at its field, and nothing is written', async (wrong, path, code) => {
    const { status, problem } = await mend('bram fenn', wrong)
    expect([status, problem.fields?.[0]]).toMatchObject([422, { path, code }])
    expect((await mendsOf('bram fenn')).mends).toEqual([])
  })
  it('whose mend is torn at any statement is broken as before, or mended: never between', async () => {
    const standing = async () => {
      const { chain, mends } = await mendsOf('merryn garrow race')
      return JSON.stringify([chain?.pitches, mends.length, (await record('merryn garrow race')).verdict?.id])
    }
    // Looked up before: the finder would be torn as well.
    const params = { id: await idOf('merryn garrow race') }
    const fittingId = await fittingOn(shop.device, params.id)
    const body = { ...MEND, id: v7(), fittingId, broken: 'inner' as const }
    const again = () => shop.device.ask(endpoints.mendChain, { params, body })
    const { torn, between } = await tornAtEach(shop.database, again, standing)
    expect(between).toEqual([])
    expect(torn).toBeGreaterThan(5)
    expect((await mendsOf('merryn garrow race')).chain!.pitches).toBe(110)
  })
  it('of an old wide chain may be pressed together again', async () => {
    expect((await mendsOf('school pool 7')).rePress).toBe('allowed')
    const { body } = await mend('school pool 7', { mend: { ...LINK, joint: 're-press' }, click: null })
    expect(body.mends[0]).toMatchObject({ option: { joint: 're-press', lost: 2 } })
  })
  it('of a narrow chain is pressed together for the way home, and for nothing else: it is changed within days', async () => {
    const { body } = await mend('bram fenn', { mend: { ...LINK, joint: 're-press', roadside: true }, click: null })
    expect(body.mends[0]).toMatchObject({ roadside: true, option: { joint: 're-press' } })
    const days = (Date.parse(body.mends[0]!.followUpOn!) - Date.now()) / 86_400_000
    expect(days).toBeLessThan(4)
  })
})

describe('pitches that are put back into a mended chain', () => {
  const text = 'ivo marsh causeway'
  const addBack = async (body: Record<string, unknown> = {}) => {
    const id = await idOf(text)
    const { mends } = await mendsOf(text)
    return shop.device.ask(endpoints.addPitchesBack, {
      params: { id, mendId: mends[0]!.id },
      body: {
        id: v7(),
        fittingId: await fittingOn(shop.device, id),
        ...{ add: 2, from: 'same-model', by: 'link', click: 'firm', byFeel: false, linkPartId: null },
        ...body,
      },
    })
  }
  it('make it as long as it was, count its own link once more and a new one beside it', async () => {
    await mend(text, { broken: 'inner', damaged: [0] })
    expect((await mendsOf(text)).chain).toMatchObject({ pitches: 110, joint: { kind: 'link', closings: 1 } })
    expect((await addBack({ add: 3 })).problem.fields?.[0]).toMatchObject({ path: 'add', code: 'add-back-odd' })
    expect((await addBack({ click: 'weak' })).problem.fields?.[0]).toMatchObject({ path: 'click', code: 'click-weak' })
    expect((await addBack({ from: 'offcut' })).problem.fields?.[0]).toMatchObject({ code: 'offcut-short' })
    expect((await mendsOf(text)).chain?.pitches).toBe(110)
    const { status, body } = await addBack()
    expect(status).toBe(200)
    expect(body.chain).toMatchObject({ pitches: 112 })
    expect(body.mends[0]!.addedBackAt).not.toBeNull()
    const { chain } = await record(text)
    const { events } = (await shop.device.ask(endpoints.chain, { params: { id: chain!.id } })).body
    expect(events.map(({ kind }) => kind).filter((kind) => kind === 'lengthened')).toHaveLength(1)
    // The link that closed it before, once more, and a new one at the piece's other side.
    const closed = events.filter(({ kind, at }) => kind === 'joint-closed' && at === events[0]!.at)
    expect(closed).toHaveLength(2)
    expect((await record(text)).events.find(({ kind }) => kind === 'lengthened')).toMatchObject({ value: 112 })
  })
  it('go in once', async () => {
    const { status, problem } = await addBack()
    expect([status, problem.code]).toEqual([404, 'mend-unknown'])
  })
  it('of a chain that lost nothing cannot be put back', async () => {
    const id = await idOf('sand racer')
    const { mends } = await mendsOf('sand racer')
    const { status } = await shop.device.ask(endpoints.addPitchesBack, {
      params: { id, mendId: mends[0]!.id },
      body: {
        ...{ id: v7(), fittingId: await fittingOn(shop.device, id), add: 2, from: 'same-model' },
        ...{ by: 'pin', click: null, byFeel: false, linkPartId: null },
      },
    })
    expect(status).toBe(404)
  })
})
