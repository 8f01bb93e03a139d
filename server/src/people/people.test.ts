import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 } from 'uuid'
import { endpoints, type Colleague } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { openDatabase } from '../db/index.ts'
import { SHOPS } from '../auth/models.ts'
import {
  Device,
  OWN_PASSWORD,
  OWN_SHOP,
  ownerOf,
  startBornShop,
  startOwnShop,
  type RunningShop,
} from '../testing/shop.ts'
import { linkForOwner } from './ownersLink.ts'

const owner = { name: 'Wen Harrow', initials: 'WH', signInName: 'wen', dayMinutes: 480 }

describe('a shop nobody has begun', () => {
  let shop: Awaited<ReturnType<typeof startBornShop>>
  beforeAll(async () => void (shop = await startBornShop()))
  afterAll(() => shop.close())

  it('lets nobody in but by its link, which says what it opens', async () => {
    expect((await new Device(shop.base).signIn('owner', 'owner', 'workshop')).status).toBe(401)
    const { body } = await shop.device.ask(endpoints.welcome, { body: { token: shop.token } })
    expect(body).toMatchObject({ kind: 'first-day', shop: { timeZone: 'Europe/London' }, person: { role: 'owner' } })
    expect((await shop.device.ask(endpoints.welcome, { body: { token: 'x'.repeat(43) } })).problem).toMatchObject({
      status: 401,
      code: 'link-over',
    })
  })
  it('refuses at its field a password everybody tries first, one too short, and hours that end before they begin', async () => {
    const opening = [{ from: '17:00', to: '09:00' }, ...OWN_SHOP.opening.slice(1)]
    const enter = (password: string, shopSettings = OWN_SHOP) =>
      shop.device.ask(endpoints.enter, {
        body: { token: shop.token, password, firstDay: { shop: shopSettings, ...owner } },
      })
    expect((await enter('password123')).problem.fields).toMatchObject([{ path: 'password', code: 'password-common' }])
    expect((await enter('kelp')).problem.fields).toMatchObject([{ path: 'password', code: 'password-short' }])
    expect((await enter(OWN_PASSWORD, { ...OWN_SHOP, opening })).problem.fields).toMatchObject([
      { path: 'firstDay.shop.opening.0.to', code: 'opening-ends-before' },
    ])
  })
  it('is what its owner says from the moment they come in, once', async () => {
    const entered = await shop.device.enter({
      token: shop.token,
      password: OWN_PASSWORD,
      pin: '4711',
      firstDay: { shop: { ...OWN_SHOP, currency: 'eur', distanceUnit: 'mi' }, ...owner },
    })
    expect(entered.body).toMatchObject({
      shop: { name: 'Slipway Cycles', code: 'slipway', currency: 'EUR', distanceUnit: 'mi', stands: 2 },
      person: { name: 'Wen Harrow', initials: 'WH', role: 'owner' },
    })
    expect(entered.body.provedUntil).not.toBeNull()
    expect((await new Device(shop.base).ask(endpoints.welcome, { body: { token: shop.token } })).status).toBe(401)
    expect((await new Device(shop.base).signIn('wen', OWN_PASSWORD, 'slipway')).status).toBe(200)
  })
  it('gives an owner who lost the password a way back, and every other session of theirs ends', async () => {
    const elsewhere = new Device(shop.base)
    await elsewhere.signIn('wen', OWN_PASSWORD, 'slipway')
    const database = openDatabase(ownerOf(shop.url))
    const first = await linkForOwner(database, {})
    const link = await linkForOwner(database, { owner: 'wen', shop: 'slipway' })
    expect(await linkForOwner(database, { owner: 'nobody' })).toBeNull()
    await database.close()
    expect(link!.kind).toBe('way-back')
    const back = new Device(shop.base)
    // The one before it is over.
    expect((await back.ask(endpoints.welcome, { body: { token: first!.token } })).status).toBe(401)
    expect((await back.enter({ token: link!.token, password: 'a ferry at dawn' })).body.person.name).toBe('Wen Harrow')
    expect((await elsewhere.ask(endpoints.session)).status).toBe(401)
    expect((await new Device(shop.base).signIn('wen', OWN_PASSWORD, 'slipway')).status).toBe(401)
    const { body } = await back.ask(endpoints.audit)
    expect(
      body.acts.find(({ action, detail }) => action === 'invited' && detail['at'] === 'the machine'),
    ).toMatchObject({ person: null, detail: { kind: 'way-back' } })
  })
  it('ends a link after its hour', async () => {
    const database = openDatabase(ownerOf(shop.url))
    const link = await linkForOwner(database, {})
    expect(link!.expiresAt.getTime() - Date.now()).toBeLessThanOrEqual(3_600_000)
    await database.sequelize.query(`UPDATE invitations SET expires_at = now() - interval '1 s'`)
    await database.close()
    const late = await new Device(shop.base).ask(endpoints.enter, {
      body: { token: link!.token, password: 'a ferry at noon' },
    })
    expect(late.problem).toMatchObject({ status: 401, code: 'link-over' })
  })
})

describe('people of a shop', () => {
  let shop: RunningShop
  beforeAll(async () => void (shop = await startOwnShop()))
  afterAll(() => shop.close())
  const add = (more: Partial<Record<'name' | 'initials' | 'signInName' | 'role', string>> = {}) =>
    shop.device.ask(endpoints.addPerson, {
      body: { id: v7(), name: 'Jory Pell', initials: 'jp', signInName: 'Jory', role: 'mechanic', ...more },
    })
  const invited = async (id: string): Promise<string> =>
    (await shop.device.ask(endpoints.invitePerson, { params: { id } })).body.token
  const everybody = async (): Promise<Colleague[]> => (await shop.device.ask(endpoints.people)).body
  let jory: Colleague

  it('are added by the owner and come in by a link, with a password of their own', async () => {
    jory = (await add()).body
    expect(jory).toMatchObject({ initials: 'JP', signInName: 'jory', hasPassword: false, invitedUntil: null })
    const token = await invited(jory.id)
    expect((await everybody()).find(({ id }) => id === jory.id)!.invitedUntil).not.toBeNull()
    const tablet = new Device(shop.base)
    await tablet.enter({ token, password: 'shingle and rope', pin: '2468' })
    expect((await tablet.ask(endpoints.session)).body.person).toMatchObject({ name: 'Jory Pell', role: 'mechanic' })
    // A mechanic sees nobody's ways in, and adds nobody.
    expect((await tablet.ask(endpoints.people)).status).toBe(403)
    expect((await everybody()).find(({ id }) => id === jory.id)).toMatchObject({
      hasPassword: true,
      hasPin: true,
      invitedUntil: null,
    })
  })
  it('are told apart by initials and by the name at the door, as long as they are here', async () => {
    expect((await add({ signInName: 'jory2' })).problem.fields).toMatchObject([
      { path: 'initials', code: 'initials-taken' },
    ])
    expect((await add({ initials: 'JX' })).problem.fields).toMatchObject([
      { path: 'signInName', code: 'sign-in-name-taken' },
    ])
  })
  it('change their own password, which ends what they are signed in at elsewhere, and their PIN', async () => {
    const [one, two] = [new Device(shop.base), new Device(shop.base)]
    for (const device of [one, two]) await device.signIn('jory', 'shingle and rope', 'slipway')
    const change = (now: string, next: string) => one.ask(endpoints.changeOwnPassword, { body: { now, next } })
    expect((await change('wrong', 'bollard and buoy')).status).toBe(401)
    expect((await change('shingle and rope', 'qwerty1234567')).problem.fields).toMatchObject([
      { path: 'next', code: 'password-common' },
    ])
    expect((await change('shingle and rope', 'bollard and buoy')).status).toBe(200)
    expect((await one.ask(endpoints.session)).status).toBe(200)
    expect((await two.ask(endpoints.session)).status).toBe(401)
    const pin = await one.ask(endpoints.changeOwnPin, { body: { password: 'bollard and buoy', pin: '13579' } })
    expect(pin.status).toBe(200)
    await one.signIn('wen', OWN_PASSWORD, 'slipway')
    const taken = await one.ask(endpoints.switchPerson, { body: { initials: 'JP', pin: '13579' } })
    expect(taken.body.person.name).toBe('Jory Pell')
    // A PIN opens nothing that is the owner's.
    await one.ask(endpoints.switchPerson, { body: { initials: 'WH', pin: '4711' } })
    expect(
      (
        await one.ask(endpoints.addPerson, {
          body: { id: v7(), name: 'A', initials: 'A', signInName: 'a', role: 'desk' },
        })
      ).problem.code,
    ).toBe('prove-again')
  })
  it('are changed at the version that was seen; a shop keeps an owner', async () => {
    const [wen] = (await everybody()).filter(({ role }) => role === 'owner')
    const change = (person: Colleague, body: object, version = person.version) =>
      shop.device.ask(endpoints.changePerson, { params: { id: person.id }, version, body: { ...body } })
    expect((await change(wen!, { role: 'desk' })).problem.code).toBe('last-owner')
    const now = (await everybody()).find(({ id }) => id === jory.id)!
    expect((await change(now, { name: 'Jory Pellow' })).body.name).toBe('Jory Pellow')
    expect((await change(now, { name: 'Late' })).problem).toMatchObject({
      status: 412,
      current: { name: 'Jory Pellow' },
    })
  })
  it('leave on a day: nothing lets them in, their name stays, their initials are free; and come again by a new link', async () => {
    const tablet = new Device(shop.base)
    await tablet.signIn('jory', 'bollard and buoy', 'slipway')
    const leave = async (on: string) =>
      shop.device.ask(endpoints.personLeaves, {
        params: { id: jory.id },
        version: (await everybody()).find(({ id }) => id === jory.id)!.version,
        body: { on },
      })
    expect((await leave('2190-01-01')).problem.fields).toMatchObject([{ path: 'on', code: 'day-ahead' }])
    expect((await leave('2026-01-31')).body.leftOn).toBe('2026-01-31')
    expect((await tablet.ask(endpoints.session)).status).toBe(401)
    expect((await tablet.signIn('jory', 'bollard and buoy', 'slipway')).status).toBe(401)
    const after = (await add({ name: 'Jenna Prow', signInName: 'jenna' })).body
    expect(after.initials).toBe('JP')
    // Back again, with what is free.
    expect((await shop.device.ask(endpoints.invitePerson, { params: { id: jory.id } })).problem.fields).toMatchObject([
      { path: 'initials', code: 'initials-taken' },
    ])
    const left = (await everybody()).find(({ id }) => id === jory.id)!
    await shop.device.ask(endpoints.changePerson, {
      params: { id: jory.id },
      version: left.version,
      body: { initials: 'JO' },
    })
    const token = await invited(jory.id)
    expect((await tablet.enter({ token, password: 'samphire & sand' })).body.person.initials).toBe('JO')
  })
  it('are at devices, which the owner names and signs out from elsewhere', async () => {
    const tablet = new Device(shop.base)
    await tablet.signIn('jory', 'samphire & sand', 'slipway')
    const device = (await shop.device.ask(endpoints.devices)).body.find(
      ({ person, isThis }) => person === 'Jory Pellow' && !isThis,
    )!
    const named = await shop.device.ask(endpoints.renameDevice, {
      params: { id: device.id },
      body: { name: 'Bench 2' },
    })
    expect(named.body.find(({ id }) => id === device.id)!.name).toBe('Bench 2')
    await shop.device.ask(endpoints.revokeDevice, { params: { id: device.id } })
    expect((await tablet.ask(endpoints.session)).status).toBe(401)
    expect((await shop.device.ask(endpoints.devices)).body.some(({ id }) => id === device.id)).toBe(false)
    // It is a device nobody knows when somebody signs in at it again.
    await tablet.signIn('wen', OWN_PASSWORD, 'slipway')
    expect((await tablet.ask(endpoints.switchPerson, { body: { initials: 'JO', pin: '13579' } })).status).toBe(401)
  })
  it('keep a session as long as they use it, for thirty days after', async () => {
    const tablet = new Device(shop.base)
    await tablet.signIn('wen', OWN_PASSWORD, 'slipway')
    const database = openDatabase(ownerOf(shop.url))
    const set = (seen: string, ends: string): Promise<unknown> =>
      database.sequelize.query(
        `UPDATE sessions SET last_seen_at = now() - interval '${seen}', expires_at = now() + interval '${ends}'`,
      )
    await set('29 days', '1 day')
    const used = await tablet.ask(endpoints.session)
    expect(used.headers.getSetCookie().some((one) => one.startsWith('pelrin_session='))).toBe(true)
    const [rows] = await database.sequelize.query(
      `SELECT count(*)::int AS n FROM sessions WHERE expires_at > now() + interval '29 days'`,
    )
    expect(rows).toEqual([{ n: 1 }])
    await set('31 days', '-1 day')
    await database.close()
    expect((await tablet.ask(endpoints.session)).status).toBe(401)
  })
})

describe('what a shop says of itself', () => {
  let shop: RunningShop
  beforeAll(async () => void (shop = await startOwnShop()))
  afterAll(() => shop.close())

  it('is changed by its owner at the version they saw, and everybody sees it', async () => {
    const { body: before } = await shop.device.ask(endpoints.shop)
    const change = (body: object, version = before.version) =>
      shop.device.ask(endpoints.changeShop, { version, body: { ...body } })
    expect((await change({ timeZone: 'Atlantis/Kelp' })).problem.fields).toMatchObject([
      { path: 'timeZone', code: 'zone-unknown' },
    ])
    const { body } = await change({ name: 'Slipway & Daughters', timeZone: 'America/New_York', temperatureUnit: 'F' })
    expect(body).toMatchObject({ name: 'Slipway & Daughters', temperatureUnit: 'F', version: before.version + 1 })
    expect((await shop.device.ask(endpoints.session)).body.shop.timeZone).toBe('America/New_York')
    expect((await change({ name: 'Too late' })).problem).toMatchObject({ status: 412, code: 'version-stale' })
    const { body: audit } = await shop.device.ask(endpoints.audit, { query: { action: 'changed' } })
    expect(audit.acts[0]).toMatchObject({
      person: 'Wen Harrow',
      subjectKind: 'shop',
      detail: { before: { timeZone: 'Europe/London' }, change: { timeZone: 'America/New_York' } },
    })
  })
  it('has a day take what it is open for, at as many stands as there are', async () => {
    const minutes = async (): Promise<number[]> => {
      const { body } = await shop.device.ask(endpoints.houseRules)
      return [1, 2, 3, 4, 5, 6, 7].map((day) => body.assumptions.overrides[`diary.minutes${day}`] ?? NaN)
    }
    const before = await minutes()
    const { body: now } = await shop.device.ask(endpoints.shop)
    const opening = now.opening.map((day, i) => (i === 0 ? null : day))
    const { body } = await shop.device.ask(endpoints.changeShop, {
      version: now.version,
      body: { opening, stands: now.stands * 2 },
    })
    expect(await minutes()).toEqual(before.map((one, i) => (i === 0 ? 0 : 2 * one)))
    // What has nothing to do with it changes nothing of it.
    await shop.device.ask(endpoints.changeShop, { version: body.version, body: { name: 'Slipway' } })
    expect(await minutes()).toEqual(before.map((one, i) => (i === 0 ? 0 : 2 * one)))
  })
  it('has what follows from its days worked out anew in another zone', async () => {
    const { id } = (await shop.device.ask(endpoints.session)).body.shop
    const asked = await inShop(shop.database, id, null, (work) =>
      work.select<{ n: number }>('SELECT count(*)::int AS n FROM state_rebuilds'),
    )
    expect(asked).toEqual([{ n: 1 }])
    expect(await shop.database.of(SHOPS).count()).toBe(1)
  })
})
