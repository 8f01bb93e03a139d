import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { dayAfter } from '@pelrin/core'
import { endpoints, type Input, type MailSettings, type Message } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { drainOutbox } from '../messages/drain.ts'
import { Secrets } from '../secrets.ts'
import { Printer } from '../sheets/printer.ts'
import { pino } from 'pino'
import { MailServer } from '../testing/mailServer.ts'
import { Device, startShop, superuserOf, type RunningShop } from '../testing/shop.ts'
import pg from 'pg'

const secrets = Secrets.passing()
const post = new MailServer()
let shop: RunningShop
let shopId: string
let port: number
let customers: { id: string; name: string; email: string; bikeId: string }[]
const query = <Row extends object>(sql: string, values: Record<string, unknown> = {}): Promise<Row[]> =>
  inShop(shop.database, shopId, null, (work) => work.select<Row>(sql, values))

beforeAll(async () => {
  port = await post.listen()
  shop = await startShop({ mails: true, secrets })
  shopId = (await shop.device.ask(endpoints.session)).body.shop.id
  // By day and by night: these tests are about sending, not about the clock.
  await query(
    `INSERT INTO assumption_versions (id, version, overrides, valid_from, person_id, reason)
     SELECT :id, coalesce(max(version), 0) + 1, '{"diary.quietFrom": 0, "diary.quietUntil": 0}', now(),
       (SELECT id FROM people ORDER BY id LIMIT 1), 'tests' FROM assumption_versions RETURNING id`,
    { id: v7() },
  )
  customers = await query(
    `UPDATE customers c SET email = 'c' || substr(c.id::text, 25) || '@quay.test' WHERE opted_out_at IS NULL AND language = 'en'
     RETURNING id, name, email, (SELECT id FROM bikes b WHERE b.customer_id = c.id ORDER BY id LIMIT 1) AS "bikeId"`,
  )
})
afterAll(async () => {
  await shop.close()
  await post.close()
})
beforeEach(() => void Object.assign(post.faults, { recipient: undefined, message: undefined, hangsUp: undefined }))

const settings = async (): Promise<MailSettings> => (await shop.device.ask(endpoints.mail)).body
const change = async (body: Input<typeof endpoints.changeMail.body>, device = shop.device) =>
  device.ask(endpoints.changeMail, { version: (await settings()).version, body: { ...body } })
const OURS = {
  host: '127.0.0.1',
  security: 'none' as const,
  userName: null,
  fromName: 'Saltmarsh Row Cycles',
  fromAddress: 'shop@saltmarsh.test',
  publicAddress: 'https://shop.saltmarsh.test',
  on: true,
}
const DAY = dayAfter(new Date().toISOString().slice(0, 10), 7)
const remind = ({ id, bikeId }: (typeof customers)[number]) =>
  shop.device.ask(endpoints.sendReminders, {
    body: { visits: [{ customerId: id, day: DAY, bikes: [{ bikeId, kinds: ['care'] }] }] },
  })
const messageTo = async ({ id }: { id: string }): Promise<Message> =>
  (await shop.device.ask(endpoints.outbox)).body.messages.find(({ customer }) => customer.id === id)!
const settled = (one: { id: string }, state: Message['state']) =>
  expect.poll(async () => (await messageTo(one)).state, { timeout: 15_000 }).toBe(state)
const arrivedAt = ({ email }: { email: string }) =>
  post.taken.filter(({ to }) => to !== undefined && !Array.isArray(to) && to.value[0]?.address === email)
/** Makes what waits due now. */
const hurry = (): Promise<unknown> =>
  query(`UPDATE messages SET send_after = now() WHERE state = 'waiting' RETURNING id`)

describe('by which server mail goes', () => {
  it('is said by the owner, wholly the first time, and refused at its field', async () => {
    expect(await settings()).toMatchObject({ version: 0, on: false, hasPassword: false })
    expect((await change({ on: true, host: '127.0.0.1' })).problem.fields).toMatchObject([
      { path: 'fromName', code: 'text-missing' },
    ])
    expect((await change({ ...OURS, host: 'no host' })).problem.fields).toMatchObject([{ path: 'host' }])
    expect((await change({ ...OURS, publicAddress: 'ftp://x' })).problem.fields).toMatchObject([
      { path: 'publicAddress', code: 'address-malformed' },
    ])
    const mechanic = new Device(shop.base)
    await mechanic.signIn('ruan', 'chalkdown-2')
    expect((await mechanic.ask(endpoints.mail)).status).toBe(403)
    expect((await change({ ...OURS, port })).body).toMatchObject({ version: 1, on: true, host: '127.0.0.1', port })
    const stale = await shop.device.ask(endpoints.changeMail, { version: 0, body: { port: 26 } })
    expect(stale.problem).toMatchObject({ status: 412, current: { version: 1 } })
  })
  it('keeps its password sealed: nobody is told it, and neither database nor audit nor archive holds it', async () => {
    expect((await change({ userName: 'shop', password: 'tarred rope' })).body).toMatchObject({ hasPassword: true })
    const open = await change({ host: 'mail.saltmarsh.test' })
    expect(open.problem.fields).toMatchObject([{ path: 'security', code: 'mail-password-open' }])
    const client = new pg.Client({ connectionString: superuserOf(shop.url) })
    await client.connect()
    const { rows } = await client.query<{ all: string }>(
      `SELECT (SELECT string_agg(m::text, '') FROM mail_settings m) || (SELECT string_agg(a::text, '') FROM audit a)
         || coalesce((SELECT string_agg(i::text, '') FROM idempotency_keys i), '') AS all`,
    )
    await client.end()
    expect(rows[0]!.all).toContain('127.0.0.1')
    expect(rows[0]!.all).not.toContain('tarred')
    const archive = await (await shop.device.raw('GET', '/api/v1/archive.jsonl')).text()
    expect(archive).not.toMatch(/mail_settings|tarred/)
    expect((await change({ userName: null, password: null })).body.hasPassword).toBe(false)
  })
  it('is tried at once, and says in the server’s words what went wrong', async () => {
    const tried = async (to = 'owner@saltmarsh.test') =>
      (await shop.device.ask(endpoints.tryMail, { body: { to } })).body
    expect(await tried()).toEqual({ fared: 'taken', said: null })
    expect(post.taken.at(-1)!.subject).toBe('Saltmarsh Row Cycles: a trial')
    post.faults.recipient = 550
    expect(await tried()).toEqual({ fared: 'refused', said: '550 No such mailbox here' })
    const [certified, known] = [new MailServer('certified'), new MailServer('known')]
    await change({ port: await certified.listen(), security: 'starttls' })
    expect((await tried()).fared).toBe('certificate')
    await change({ port: await known.listen() })
    expect((await tried()).fared).toBe('no-encryption')
    await change({ security: 'none', userName: 'shop', password: 'wrong' })
    expect(await tried()).toMatchObject({ fared: 'sign-in', said: expect.stringContaining('535') as string })
    expect((await settings()).trouble?.said).toContain('535')
    await change({ password: 'tarred rope' })
    expect((await tried()).fared).toBe('taken')
    expect(known.taken).toHaveLength(1)
    expect((await settings()).trouble).toBeNull()
    await certified.close()
    await known.close()
    expect((await tried()).fared).toBe('away')
    await change({ ...OURS, port, password: null })
  })
})

describe('a reminder by mail', () => {
  it('says the same as text and as HTML, with the bike’s sheet, and how to have no more', async () => {
    const one = customers[0]!
    await query(`UPDATE customers SET name = 'Ann <b>Quay</b> & "Sons"' WHERE id = :id RETURNING id`, { id: one.id })
    await remind(one)
    await settled(one, 'sent')
    const [mail] = arrivedAt(one)
    expect(mail!.text).toContain('Ann <b>Quay</b> & "Sons"')
    expect(mail!.html).toContain('Ann &lt;b&gt;Quay&lt;/b&gt; &amp; &quot;Sons&quot;')
    expect(mail!.attachments.map(({ contentType }) => contentType)).toEqual(['application/pdf'])
    expect(mail!.attachments[0]!.content.subarray(0, 5).toString()).toBe('%PDF-')
    expect(mail!.from!.value).toEqual([{ name: 'Saltmarsh Row Cycles', address: 'shop@saltmarsh.test' }])
    expect(mail!.messageId).toBe(`<${shopId}.${(await messageTo(one)).id}@saltmarsh.test>`)
    expect(mail!.headers.get('list')).toMatchObject({
      unsubscribe: { url: expect.stringMatching(/^https:\/\/shop\.saltmarsh\.test\/stop\//) as string },
    })
    expect(mail!.text).toContain('https://shop.saltmarsh.test/stop/')
  })
  it('of what is done at home says the steps, brings the sheet of them, and is one beside a visit on the same day', async () => {
    const one = customers.at(-1)!
    const home = () =>
      shop.device.ask(endpoints.sendReminders, {
        body: {
          visits: [{ purpose: 'home', customerId: one.id, day: DAY, bikes: [{ bikeId: one.bikeId, kinds: ['care'] }] }],
        },
      })
    expect((await home()).body).toEqual({ written: 1, left: 0 })
    await settled(one, 'sent')
    expect((await home()).body).toEqual({ written: 0, left: 1 })
    const [mail] = arrivedAt(one)
    expect(mail!.text).toContain('Tell us next time that it is done.')
    expect(mail!.text).toContain('Your own steps are on the sheet with this mail.')
    expect(mail!.attachments.map(({ contentType }) => contentType)).toEqual(['application/pdf'])
    expect((await messageTo(one)).purpose).toBe('home')
    // The look that is due that day is another matter.
    expect((await remind(one)).body).toEqual({ written: 1, left: 0 })
  })
  it('is stopped by its link without signing in: looked at it changes nothing, pressed it does', async () => {
    const one = customers[0]!
    const path = /\/stop\/\S+/.exec(arrivedAt(one)[0]!.text!)![0]
    const nobody = new Device(shop.base)
    const look = await nobody.raw('GET', path)
    expect(await look.text()).toContain('<form method="post">')
    // Else a browser would not say where its button comes from, and it would be refused.
    expect(look.headers.get('referrer-policy')).toBe('same-origin')
    const wanted = async (): Promise<boolean> =>
      (await query<{ wants: boolean }>('SELECT opted_out_at IS NULL AS wants FROM customers WHERE id = :id', one))[0]!
        .wants
    expect(await wanted()).toBe(true)
    const other = customers[1]!
    expect((await nobody.raw('POST', `${path.slice(0, -3)}abc`)).status).toBe(404)
    expect(await wanted()).toBe(true)
    // As a mail program asks: from nowhere, with a form.
    const stopped = await fetch(`${shop.base}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/x-www-form-urlencoded' },
      body: 'List-Unsubscribe=One-Click',
    })
    expect([stopped.status, await wanted()]).toEqual([200, false])
    expect(await (await nobody.raw('GET', path)).text()).toContain('writes to you no more')
    expect((await remind(one)).body).toEqual({ written: 0, left: 1 })
    expect((await remind(other)).body).toEqual({ written: 1, left: 0 })
    await settled(other, 'sent')
  })
  it('that is refused says so in the server’s words, and nothing more goes to that address until it is another', async () => {
    const one = customers[2]!
    post.faults.recipient = 550
    await remind(one)
    await settled(one, 'refused')
    expect((await messageTo(one)).said).toBe('550 No such mailbox here')
    const { body: page } = await shop.device.ask(endpoints.customer, { params: { id: one.id } })
    expect(page.emailRefused).toBe(true)
    const preview = async () =>
      (
        await shop.device.ask(endpoints.previewReminders, {
          body: {
            visits: [{ customerId: one.id, day: dayAfter(DAY, 1), bikes: [{ bikeId: one.bikeId, kinds: ['care'] }] }],
          },
        })
      ).body.previews[0]!
    expect((await preview()).problem).toBe('mail-refused')
    const { body: corrected } = await shop.device.ask(endpoints.changeCustomer, {
      params: { id: one.id },
      version: page.version,
      body: { email: 'right@quay.test' },
    })
    expect(corrected.emailRefused).toBe(false)
    expect(await preview()).toMatchObject({ problem: null, channel: 'mail', email: 'right@quay.test' })
  })
  it('that came back to the shop’s mailbox is marked so by hand, with the same effect', async () => {
    const one = customers[3]!
    await remind(one)
    await settled(one, 'sent')
    const { id } = await messageTo(one)
    const { body } = await shop.device.ask(endpoints.cameBack, { params: { id } })
    expect(body.messages.find((message) => message.id === id)!.state).toBe('failed')
    expect((await shop.device.ask(endpoints.customer, { params: { id: one.id } })).body.emailRefused).toBe(true)
    expect((await shop.device.ask(endpoints.cameBack, { params: { id } })).problem.code).toBe('message-settled')
    expect((await shop.device.ask(endpoints.cameBack, { params: { id: v7() } })).problem.code).toBe('message-unknown')
  })
  it('waits while the server says not now, or is away, and goes once it does not', async () => {
    for (const [i, fault] of [{ recipient: 451 }, { message: 452 }, { hangsUp: 'before' }].entries()) {
      const one = customers[4 + i]!
      Object.assign(post.faults, { recipient: undefined, message: undefined, hangsUp: undefined }, fault)
      await remind(one)
      await settled(one, 'waiting')
      expect(arrivedAt(one)).toHaveLength(0)
    }
    Object.assign(post.faults, { recipient: undefined, message: undefined, hangsUp: undefined })
    await hurry()
    for (const one of customers.slice(4, 7)) {
      await settled(one, 'sent')
      expect(arrivedAt(one)).toHaveLength(1)
    }
  })
  it('of which the server said nothing once it had it, is not sent again by itself; by hand it is, under its own name', async () => {
    const one = customers[7]!
    post.faults.hangsUp = 'after'
    await remind(one)
    await settled(one, 'unsure')
    post.faults.hangsUp = undefined
    const { id } = await messageTo(one)
    await shop.device.ask(endpoints.sendAgain, { params: { id } })
    await settled(one, 'sent')
    const arrived = arrivedAt(one)
    expect(new Set(arrived.map(({ messageId }) => messageId)).size).toBe(1)
    expect(arrived).toHaveLength(2)
    expect((await shop.device.ask(endpoints.sendAgain, { params: { id } })).problem.code).toBe('message-settled')
  })
  it('does not go out while mail is off, and does when it is on again', async () => {
    const one = customers[8]!
    await query(
      `INSERT INTO messages (id, customer_id, visit_day, language, channel, email, text, tries, send_after, made_at, person_id)
       SELECT :id, :customerId, :day, 'en', 'mail', :email, 'due', 1, now() + interval '1 hour', now(), id FROM people ORDER BY id LIMIT 1
       RETURNING id`,
      { id: v7(), customerId: one.id, day: DAY, email: one.email },
    )
    await change({ on: false })
    await drainOutbox({ database: shop.database }, shopId)
    expect(arrivedAt(one)).toHaveLength(0)
    await change({ on: true })
    await settled(one, 'sent')
  })
})

describe('mail whose server is stopped at any point', () => {
  const printer = new Printer(pino({ level: 'silent' }))
  afterAll(() => printer.close())
  const later = (ms: number) => ({
    database: shop.database,
    mail: { secrets, printer },
    now: () => new Date(Date.now() + ms),
  })
  const write = (one: (typeof customers)[number], more: string): Promise<unknown> =>
    query(
      `INSERT INTO messages (id, customer_id, visit_day, language, channel, email, text, tries, state, sending_since, handed_at, send_after, made_at, person_id)
       SELECT :id, :customerId, :day, 'en', 'mail', :email, 'due', 1, 'sending', now(), ${more}, now(), now(), id FROM people ORDER BY id LIMIT 1
       RETURNING id`,
      { id: v7(), customerId: one.id, day: DAY, email: one.email },
    )
  it('goes once where its bytes had not begun to go', async () => {
    const one = customers[9]!
    await write(one, 'NULL')
    await drainOutbox(later(10_000), shopId)
    expect(arrivedAt(one)).toHaveLength(0)
    await drainOutbox(later(60_000), shopId)
    await drainOutbox(later(120_000), shopId)
    expect((await messageTo(one)).state).toBe('sent')
    expect(arrivedAt(one)).toHaveLength(1)
  })
  it('is left to a person where the mail server may have it', async () => {
    const one = customers[10]!
    await write(one, 'now()')
    await drainOutbox(later(60_000), shopId)
    expect((await messageTo(one)).state).toBe('sending')
    await drainOutbox(later(200_000), shopId)
    expect((await messageTo(one)).state).toBe('unsure')
    expect(arrivedAt(one)).toHaveLength(0)
  })
  it('goes once whoever sends beside', async () => {
    const three = customers.slice(11, 14)
    for (const one of three) await write(one, 'NULL')
    await Promise.all([1, 2, 3].map(() => drainOutbox(later(60_000), shopId)))
    for (const one of three) expect(arrivedAt(one)).toHaveLength(1)
  })
  it('sealed by a key that is another now waits, and says to type the password anew', async () => {
    await change({ userName: 'shop', password: 'tarred rope' })
    const one = customers[14]!
    await write(one, 'NULL')
    await drainOutbox({ ...later(60_000), mail: { secrets: Secrets.passing(), printer } }, shopId)
    expect(await messageTo(one)).toMatchObject({
      state: 'waiting',
      said: expect.stringContaining('SECRET_KEY') as string,
    })
    expect((await settings()).trouble?.said).toContain('SECRET_KEY')
  })
})
