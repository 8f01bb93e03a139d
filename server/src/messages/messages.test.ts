import { v7 } from 'uuid'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { MessagesStandIn } from '@pelrin/standins/messages'
import { dayAfter } from '@pelrin/core'
import { endpoints, type Message, type SentMessages } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { startShop, type RunningShop } from '../testing/shop.ts'
import { idOf, referenceOf } from '../references.ts'
import { drainOutbox } from './drain.ts'
import { Gateway, GatewayAway } from './gateway.ts'
import { SHOPS } from '../auth/models.ts'

let shop: RunningShop
let shopId: string
let address: string
const standIn = new MessagesStandIn()
/** The demo's customers who may be written to, in turn: each test takes others. */
let customers: { id: string; phone: string; language: string; bikeId: string }[]
/** @param gateway where the shop's own server sends its messages; it sends none where that is left out */
async function open(gateway?: string): Promise<void> {
  shop = await startShop(gateway === undefined ? {} : { gateway })
  shopId = (await shop.device.ask(endpoints.session)).body.shop.id
  customers = await inShop(shop.database, shopId, null, async (work) => {
    // By day and by night: these tests are about sending, not about the clock.
    await work.select(
      `INSERT INTO assumption_versions (id, version, overrides, valid_from, person_id, reason)
       SELECT :id, coalesce(max(version), 0) + 1, '{"diary.quietFrom": 0, "diary.quietUntil": 0}', now(),
         (SELECT id FROM people ORDER BY id LIMIT 1), 'tests' FROM assumption_versions RETURNING id`,
      { id: v7() },
    )
    return work.select(
      `SELECT c.id, c.phone, c.language, (SELECT id FROM bikes b WHERE b.customer_id = c.id ORDER BY id LIMIT 1) AS "bikeId"
       FROM customers c WHERE c.opted_out_at IS NULL AND c.phone IS NOT NULL AND c.phone NOT LIKE '%000' ORDER BY c.id`,
    )
  })
}
beforeAll(async () => {
  address = await standIn.listen()
  await open(address)
})
afterAll(async () => {
  await shop.close()
  await standIn.close()
})
beforeEach(() => void Object.assign(standIn.faults, { slow: false, refuses: false, lost: false, duplicates: false }))

const DAY = dayAfter(new Date().toISOString().slice(0, 10), 7)
const visit = ({ id, bikeId }: (typeof customers)[number], day = DAY) => ({
  customerId: id,
  day,
  bikes: [{ bikeId, kinds: ['care' as const, 'check' as const] }],
})
const remind = (visits: ReturnType<typeof visit>[], key = v7()) =>
  shop.device.ask(endpoints.sendReminders, { key, body: { visits } })
const outbox = async (): Promise<SentMessages> => (await shop.device.ask(endpoints.outbox)).body
const messageTo = async (customerId: string): Promise<Message> =>
  (await outbox()).messages.find(({ customer }) => customer.id === customerId)!
const sentTo = (phone: string) => standIn.sent.filter(({ to }) => to === phone)
const settled = (customerId: string, state: string) =>
  expect
    .poll(async () => (await outbox()).messages.find(({ customer }) => customer.id === customerId)?.state, {
      timeout: 15_000,
    })
    .toBe(state)
/** A message in the outbox, due at once. */
const write = async (customer: (typeof customers)[number]): Promise<void> => {
  await inShop(shop.database, shopId, null, (work) =>
    work.select(
      `INSERT INTO messages (id, customer_id, visit_day, language, phone, text, send_after, made_at, person_id)
       SELECT :id, :customerId, :day, 'en', :phone, 'due', now(), now(), id FROM people ORDER BY id LIMIT 1 RETURNING id`,
      { id: v7(), customerId: customer.id, day: DAY, phone: customer.phone },
    ),
  )
}
const setOptedOut = async (id: string) => {
  const [row] = await inShop(shop.database, shopId, null, (work) =>
    work.select<{ version: number }>('SELECT version FROM customers WHERE id = :id', { id }),
  )
  return shop.device.ask(endpoints.setMessaging, { params: { id }, version: row!.version, body: { optedOut: true } })
}

describe('reminders', () => {
  it('are seen on real data before they go out, each in its customer’s language', async () => {
    const french = customers.find(({ language }) => language === 'fr')!
    const english = customers.find(({ language }) => language === 'en')!
    const { body } = await shop.device.ask(endpoints.previewReminders, {
      body: { visits: [visit(french), visit(english)] },
    })
    expect(body.previews.map(({ language }) => language)).toEqual(['fr', 'en'])
    expect(body.previews[0]!.text).toContain('entretien de la chaîne et contrôle de la chaîne')
    expect(body.previews[1]!.text).toMatch(/chain care and a look at the chain.*Saltmarsh Row Cycles$/)
    const own = await shop.device.ask(endpoints.previewReminders, {
      body: { visits: [visit(english)], template: { language: 'en', text: 'Hello {{name}}' } },
    })
    expect(own.body.previews[0]!.text).toMatch(/^Hello \w/)
    const wrong = await shop.device.ask(endpoints.previewReminders, {
      body: { visits: [visit(english)], template: { language: 'en', text: 'Hello {{nmae}}' } },
    })
    expect(wrong.problem.fields).toMatchObject([{ path: 'template.text', code: 'template-field' }])
    expect(wrong.problem.fields![0]!.detail).toContain('nmae')
  })
  it('go out once however often they are asked for, and are heard of until they are there', async () => {
    const one = customers[0]!
    const key = v7()
    const sent = await Promise.all([remind([visit(one)], key), remind([visit(one)], key)])
    expect(sent.map(({ body }) => body)).toEqual([
      { written: 1, left: 0 },
      { written: 1, left: 0 },
    ])
    // Somebody else asks for the same visit.
    expect((await remind([visit(one)])).body).toEqual({ written: 0, left: 1 })
    await settled(one.id, 'delivered')
    expect(sentTo(one.phone)).toHaveLength(1)
    expect(sentTo(one.phone)[0]!.reference).toMatch(new RegExp(`\\.${(await messageTo(one.id)).id}$`))
  })
  it('do not go to who opted out, and what waits for them is called off', async () => {
    const out = await inShop(shop.database, shopId, null, (work) =>
      work.select<(typeof customers)[number]>(
        `SELECT c.id, c.phone, c.language, (SELECT id FROM bikes b WHERE b.customer_id = c.id ORDER BY id LIMIT 1) AS "bikeId"
         FROM customers c WHERE c.opted_out_at IS NOT NULL ORDER BY c.id LIMIT 1`,
      ),
    )
    const { body } = await shop.device.ask(endpoints.previewReminders, { body: { visits: [visit(out[0]!)] } })
    expect(body.previews[0]!.problem).toBe('opted-out')
    expect((await remind([visit(out[0]!)])).body).toEqual({ written: 0, left: 1 })
    standIn.faults.refuses = true
    const other = customers[1]!
    await remind([visit(other)])
    await settled(other.id, 'waiting')
    expect((await setOptedOut(other.id)).body.optedOut).toBe(true)
    await settled(other.id, 'called-off')
    expect(sentTo(other.phone)).toEqual([])
  })
  it('do not go to who opted out while they were on their way to a gateway that was away', async () => {
    const one = customers[9]!
    await write(one)
    class OptsOutMeanwhile extends Gateway {
      override async send(): Promise<boolean> {
        await setOptedOut(one.id)
        throw new GatewayAway('away')
      }
    }
    await drainOutbox({ database: shop.database, gateway: new OptsOutMeanwhile(address, 'lantern-9') }, shopId)
    expect((await messageTo(one.id)).state).toBe('called-off')
  })
  it('wait while the gateway is away, and are called off only before they go', async () => {
    const [waits, goes] = [customers[2]!, customers[0]!]
    standIn.faults.refuses = true
    await remind([visit(waits)])
    await settled(waits.id, 'waiting')
    const waiting = await messageTo(waits.id)
    const off = (id: string) => shop.device.ask(endpoints.callOffReminder, { params: { id } })
    expect((await off(waiting.id)).body.messages.find(({ id }) => id === waiting.id)!.state).toBe('called-off')
    expect((await off((await messageTo(goes.id)).id)).problem.code).toBe('message-gone')
    expect((await off(v7())).problem.code).toBe('message-unknown')
  })
  it('say what the shop wants them to say, by version', async () => {
    const change = (version: number, text: string) =>
      shop.device.ask(endpoints.changeTemplate, { params: { id: 'en' }, version, body: { text } })
    const changed = await change(0, 'Dear {{name}}, {{what}} is due. {{shop}}')
    expect(changed.body.templates.find(({ language }) => language === 'en')).toMatchObject({ version: 1 })
    expect((await change(0, 'Dear {{name}}')).status).toBe(412)
    expect((await change(1, ' ')).problem.fields).toMatchObject([{ path: 'text', code: 'template-empty' }])
  })
  it('that cannot be delivered say so; what is answered stands beside them, each once though it is told twice', async () => {
    const one = customers[3]!
    await inShop(shop.database, shopId, null, (work) =>
      work.select(`UPDATE customers SET phone = '01555 555 000' WHERE id = :id RETURNING id`, { id: one.id }),
    )
    standIn.faults.duplicates = true
    standIn.reply(customers[0]!.phone, 'Yes, Thursday please')
    await remind([visit(one)])
    await settled(one.id, 'failed')
    const { replies } = await outbox()
    expect(replies.map(({ text, customer }) => [text, customer.id])).toEqual([
      ['Yes, Thursday please', customers[0]!.id],
    ])
  })
})

describe('what is answered', () => {
  it('goes to the shop whose message it answers, though another knows the number too', async () => {
    const other = v7()
    const { phone } = customers[0]!
    await inShop(shop.database, other, null, async (work) => {
      await work
        .of(SHOPS)
        .create(
          { id: other, code: 'other', name: 'Other', timeZone: 'UTC', distanceUnit: 'km', demo: false },
          { transaction: work.transaction },
        )
      await work.select(`INSERT INTO customers (id, name, phone) VALUES (:id, 'Somebody', :phone) RETURNING id`, {
        id: v7(),
        phone,
      })
    })
    standIn.reply(phone, 'And bring the pump')
    const gateway = new Gateway(address, 'lantern-9')
    for (const id of [other, shopId]) await drainOutbox({ database: shop.database, gateway }, id)
    const heard = (id: string): Promise<{ text: string }[]> =>
      inShop(shop.database, id, null, (work) => work.select('SELECT text FROM message_replies'))
    expect(await heard(other)).toEqual([])
    expect(await heard(shopId)).toContainEqual({ text: 'And bring the pump' })
  })
  it('under a reference that names its shop, and by nobody who only knows the id', () => {
    const id = v7()
    expect(idOf(shopId, referenceOf(shopId, id))).toBe(id)
    expect(idOf(v7(), referenceOf(shopId, id))).toBeNull()
    // One of before references named their shop.
    expect(idOf(shopId, id)).toBe(id)
  })
})

describe('an outbox whose server is stopped at any point', () => {
  // A shop whose own server sends nothing: nobody sends beside but who is told to.
  beforeAll(async () => {
    await shop.close()
    await open()
  })
  /** A gateway behind which the server is stopped: it never learns what became of what it asked. */
  class StoppedAt extends Gateway {
    constructor(private readonly point: 'before' | 'after') {
      super(address, 'lantern-9')
    }
    override async send(message: Parameters<Gateway['send']>[0]): Promise<boolean> {
      if (this.point === 'after') await super.send(message)
      throw new Error('stopped')
    }
  }
  it.each(['before', 'after'] as const)('%s the gateway took it: the message goes out exactly once', async (point) => {
    const customer = customers[point === 'before' ? 4 : 5]!
    await write(customer)
    await expect(drainOutbox({ database: shop.database, gateway: new StoppedAt(point) }, shopId)).rejects.toThrow(
      'stopped',
    )
    expect((await messageTo(customer.id)).state).toBe('sending')
    // The next server finds it once the first has surely gone.
    const later = {
      database: shop.database,
      gateway: new Gateway(address, 'lantern-9'),
      now: () => new Date(Date.now() + 60_000),
    }
    await drainOutbox(later, shopId)
    await drainOutbox(later, shopId)
    expect((await messageTo(customer.id)).state).toBe('delivered')
    expect(sentTo(customer.phone)).toHaveLength(1)
  })
  it('and whose gateway takes messages without a word: each goes out exactly once, whoever sends beside', async () => {
    const three = customers.slice(6, 9)
    for (const customer of three) await write(customer)
    standIn.faults.lost = true
    const gateway = new Gateway(address, 'lantern-9')
    await Promise.all([1, 2, 3].map(() => drainOutbox({ database: shop.database, gateway }, shopId)))
    standIn.faults.lost = false
    const later = { database: shop.database, gateway, now: () => new Date(Date.now() + 120_000) }
    await drainOutbox(later, shopId)
    await drainOutbox(later, shopId)
    for (const { id, phone } of three) {
      expect((await messageTo(id)).state).toBe('delivered')
      expect(sentTo(phone)).toHaveLength(1)
    }
  })
})
