import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type SheetBlock } from '@pelrin/contract'
import { bikeNamed, Device, fittingOn, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const idOf = async (text: string): Promise<string> => (await bikeNamed(shop.device, text)).id
const sheet = async (text: string, kind: string, locale = 'en-GB') =>
  shop.device.ask(endpoints.sheet, { params: { id: await idOf(text), kind }, query: { locale } })
const pdf = async (text: string, kind: string, device = shop.device) =>
  device.raw('GET', `/api/v1/bikes/${await idOf(text)}/sheets/${kind}.pdf?locale=en-GB`)
/** All that a sheet says. */
const words = (blocks: readonly SheetBlock[]): string =>
  blocks
    .flatMap((block) =>
      block.kind === 'list'
        ? block.items
        : block.kind === 'bill'
          ? block.rows.map(({ name, value }) => `${name} ${value}`)
          : 'text' in block
            ? [block.text]
            : [],
    )
    .join('\n')

describe('a customer’s sheet', () => {
  it('says how the chain stands with its rule, what to expect, what to do and what to mind', async () => {
    const { body } = await sheet('ivo marsh', 'customer')
    const kinds = body.blocks.map(({ kind }) => kind)
    expect(kinds.slice(0, 3)).toEqual(['verdict', 'rule', 'text'])
    expect(kinds).toContain('teeth')
    const said = words(body.blocks)
    const { body: record } = await shop.device.ask(endpoints.bike, { params: { id: await idOf('ivo marsh') } })
    const worst = record.summary.marks.find((mark) => mark.worst)!
    expect(said).toContain(`${worst.value!.toFixed(2)} % longer than new`)
    expect(said).toContain('Change the chain.')
    expect(said).toContain('What the makers of your bike and its parts say comes before')
    expect(body.bike).toMatch(/^Ivo Marsh: Causeway, 11-speed, tag /)
    expect(said).not.toMatch(/\{\{|sheet\.|undefined|NaN/)
  })
  it('writes numbers and days as they are written where it is read', async () => {
    const [british, german] = await Promise.all([
      sheet('ivo marsh', 'customer'),
      sheet('ivo marsh', 'customer', 'de-DE'),
    ])
    expect(words(british.body.blocks)).toMatch(/0\.\d\d %/)
    expect(words(german.body.blocks)).toMatch(/0,\d\d %/)
    expect((await sheet('ivo marsh', 'customer', '?!')).body.blocks).toEqual(british.body.blocks)
  })
  it('says what was done, what it cost, and what the customer decided otherwise', async () => {
    const id = await idOf('ivo marsh')
    const { body: record } = await shop.device.ask(endpoints.bike, { params: { id } })
    await shop.device.ask(endpoints.decide, {
      params: { id },
      body: { id: v7(), verdictId: record.verdict!.id, decision: 'ride-on', reason: 'after the ferry strike' },
    })
    expect(words((await sheet('ivo marsh', 'customer')).body.blocks)).toContain('after the ferry strike')
    const { body: job } = await shop.device.ask(endpoints.openJob, {
      params: { id },
      body: { id: v7(), reason: 'worn' },
    })
    for (const { partId } of job.parts.list)
      await shop.device.ask(endpoints.moveStock, {
        params: { id: partId },
        body: { id: v7(), kind: 'counted', quantity: 3 },
      })
    await shop.device.ask(endpoints.closeJob, {
      params: { id: job.id },
      body: { oldReason: 'worn', oldFate: 'scrapped', click: 'firm', minutes: 30, pitches: job.plan.chain.pitches },
    })
    const said = words((await sheet('ivo marsh', 'customer')).body.blocks)
    expect(said).toContain(`: ${job.parts.chain}, ${job.plan.chain.pitches} pitches`)
    expect(said).toContain('Labour, 30 min £24.00')
  })
  it('of every bike of the shop is whole, whatever is known of it', async () => {
    const { body: rack } = await shop.device.ask(endpoints.rack, { query: { limit: '40' } })
    let ahead = 0
    for (const { id, standing, probabilityOver } of rack.bikes) {
      const { body } = await shop.device.ask(endpoints.sheet, { params: { id, kind: 'customer' }, query: {} })
      const said = words(body.blocks)
      expect(said).not.toMatch(/\{\{|sheet\.|undefined|NaN/)
      // A new chain is never advised beside small odds without the reason.
      if (standing.word !== 'change' || (probabilityOver ?? 0) >= 0.5) continue
      expect(said).toMatch(/over within the next 150 km are \d\d in 100/)
      ahead++
    }
    expect(ahead).toBeGreaterThan(0)
  })
})

describe('a rider’s sheet', () => {
  it('is there once a chain was mended, with the gears to keep off', async () => {
    expect((await sheet('nell winter', 'rider')).problem.code).toBe('mend-none')
    await shop.device.ask(endpoints.mendChain, {
      params: { id: await idOf('nell winter') },
      body: {
        id: v7(),
        fittingId: await fittingOn(shop.device, await idOf('nell winter')),
        pitches: 112,
        broken: 'inner',
        damaged: [0, 3],
        cause: 'not-found',
        choice: 'mended',
        mend: { joint: 'link', way: 'each', inserted: false, roadside: false },
        click: 'firm',
        advised: 'Shift without force.',
      },
    })
    const { body } = await sheet('nell winter', 'rider')
    expect(words(body.blocks)).toContain('Shift without force.')
    expect(words(body.blocks)).toMatch(/Keep off|Every gear/)
    expect(body.blocks.map(({ kind }) => kind)).toContain('reach')
  })
})

describe('a sheet of one’s own steps', () => {
  it('has each step of the bike’s own care with its drawing, what is needed, and what can hurt', async () => {
    const { body } = await sheet('courier', 'at-home')
    const steps = body.blocks.flatMap((block) => (block.kind === 'step' ? [block] : []))
    expect(steps.map(({ number }) => number)).toEqual(steps.map((_, i) => i + 1))
    expect(steps.filter(({ drawn }) => drawn !== null).length).toBeGreaterThan(8)
    const said = [words(body.blocks), ...steps.flatMap(({ what, why }) => [what, why])].join('\n')
    expect(said).toMatch(/Hot wax burns/)
    expect(said).toMatch(/tell us when you next come in/)
    expect(said).toMatch(/treat it about every \d+ days/)
    expect(said).not.toMatch(/\{\{|sheet\.|steps\.|undefined|NaN/)
  })
  it('of every bike is whole, whatever is known of its care, and prints', async () => {
    const { body } = await shop.device.ask(endpoints.rack, { query: {} })
    for (const { id } of body.bikes.slice(0, 25)) {
      const { status, body: one } = await shop.device.ask(endpoints.sheet, {
        params: { id, kind: 'at-home' },
        query: { locale: 'en-GB' },
      })
      expect(status).toBe(200)
      expect(JSON.stringify(one.blocks)).not.toMatch(/\{\{|sheet\.home|steps\.[a-z]|undefined|NaN/)
    }
    const file = await pdf('courier', 'at-home')
    expect(file.status).toBe(200)
    expect(file.headers.get('content-type')).toContain('application/pdf')
  })
})

describe('a carry card', () => {
  it('names the spare link and the tools of its bike', async () => {
    expect(words((await sheet('courier', 'carry-card')).body.blocks)).toMatch(/Spare link: .*12[\s\S]*Chain tool/)
    expect(words((await sheet('bakery van 2', 'carry-card')).body.blocks)).toContain('Spanner for the axle nuts')
  })
})

describe('as a file', () => {
  it.each(['customer', 'carry-card', 'rider'])('the sheet %s is a PDF of its own', async (kind) => {
    const response = await pdf('nell winter', kind)
    expect([response.status, response.headers.get('content-type')]).toEqual([200, 'application/pdf'])
    const bytes = Buffer.from(await response.arrayBuffer())
    expect(bytes.subarray(0, 5).toString()).toBe('%PDF-')
    expect(bytes.length).toBeGreaterThan(4000)
    // One card, not several.
    if (kind === 'carry-card') expect(bytes.toString('latin1').match(/\/Type \/Page\b(?!s)/g)).toHaveLength(1)
  })
  it('is for those who are signed in, and of no other kind', async () => {
    expect((await pdf('nell winter', 'customer', new Device(shop.base))).status).toBe(401)
    expect((await pdf('nell winter', 'poem')).status).toBe(404)
  })
})
