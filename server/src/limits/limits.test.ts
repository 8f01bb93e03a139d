import { ASSUMPTIONS, chainVerdict, SHIPPED_RULES } from '@pelrin/core'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type HouseRules, type RuleChange } from '@pelrin/contract'
import { inShop } from '../db/index.ts'
import { rebuildState } from '../state/bikeState.ts'
import { daysLater } from '../days/days.ts'
import { bikeNamed, Device, readingOf, startShop, type RunningShop } from '../testing/shop.ts'
import { VERDICTS } from '../readings/models.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const rules = async (): Promise<HouseRules> => (await shop.device.ask(endpoints.houseRules)).body
const ruleOf = async (school: string): Promise<HouseRules['rules'][number]> => {
  const found = (await rules()).rules.find((rule) => rule.school === school)
  if (!found) throw new Error(`no rule ${school}`)
  return found
}
const preview = (change: RuleChange) => shop.device.ask(endpoints.previewRules, { body: { change } })
const make = (change: RuleChange, reason = 'a test') =>
  shop.device.ask(endpoints.changeRules, { body: { id: v7(), change, reason } })
const bikeOf = async (text: string) => {
  const { id } = await bikeNamed(shop.device, text)
  return (await shop.device.ask(endpoints.bike, { params: { id } })).body
}

describe('a new version of a rule', () => {
  it('says before it is made what it would move, and moves just that', async () => {
    const rule = await ruleOf('by-speeds')
    const change: RuleChange = {
      kind: 'rule',
      ruleId: rule.id,
      fromVersion: rule.version,
      name: null,
      limits: { ...rule.limits, 'derailleur-11-up': { change: 0.4 } },
      watchShare: rule.watchShare,
    }
    const { body: promised } = await preview(change)
    expect(promised.judged).toBe(rule.bikes)
    expect(promised.moved.length).toBeGreaterThan(0)
    expect((await ruleOf('by-speeds')).version).toBe(rule.version)
    const before = await bikeOf('ivo marsh')
    const { status, body: done } = await make(change, 'too many came late')
    expect(status).toBe(200)
    expect(done).toEqual(promised)
    for (const { bikeId, to } of done.moved.slice(0, 3)) {
      const { body } = await shop.device.ask(endpoints.bike, { params: { id: bikeId } })
      expect(body.summary.verdict).toBe(to)
    }
    const after = await bikeOf('ivo marsh')
    expect(after.verdict?.ruleVersion).toBe(rule.version + 1)
    expect(after.summary.limit).toBe(0.4)
    // The verdict given before is kept, and can be given again under the version it was given by.
    const [old] = await inShop(shop.database, (await shop.device.ask(endpoints.session)).body.shop.id, null, (work) =>
      work.of(VERDICTS).findAll({ where: { id: before.verdict?.id ?? '' }, transaction: work.transaction }),
    )
    expect(old?.input.rule.version).toBe(rule.version)
    expect(chainVerdict({ ...old!.input, assumptions: old!.input.assumptions ?? {} })).toEqual(old?.outcome)
    const now = await ruleOf('by-speeds')
    expect(now.versions.map(({ version, reason }) => [version, reason])).toEqual([
      [rule.version + 1, 'too many came late'],
      [rule.version, null],
    ])
  })
  it('leaves the stored state as the facts give it', async () => {
    const { body: session } = await shop.device.ask(endpoints.session)
    const { differing } = await inShop(shop.database, session.shop.id, null, rebuildState)
    expect(differing).toEqual([])
  })
  it('is not written over one somebody else wrote meanwhile', async () => {
    const rule = await ruleOf('early-change')
    const change = (limit: number): RuleChange => ({
      kind: 'rule',
      ruleId: rule.id,
      fromVersion: rule.version,
      name: null,
      limits: { ...rule.limits, 'single-or-hub': { change: limit } },
      watchShare: 0.8,
    })
    const answers = await Promise.all([make(change(0.7)), make(change(0.8))])
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 409])
    expect(answers.find(({ status }) => status === 409)?.problem.code).toBe('rule-stale')
  })
  it.each([
    ['a limit of nothing', { 'single-or-hub': { change: 0.05 } }, 'change.limits.single-or-hub.change', 'limit-range'],
    [
      'a plan above the change',
      { 'derailleur-to-10': { change: 0.75, plan: 0.8 } },
      'change.limits.derailleur-to-10.plan',
      'plan-not-below-change',
    ],
  ])('with %s is refused at its field', async (_, limits, path, code) => {
    const rule = await ruleOf('by-speeds')
    const { problem } = await preview({
      kind: 'rule',
      ruleId: rule.id,
      fromVersion: rule.version,
      name: null,
      limits: { ...rule.limits, ...limits },
      watchShare: 0.8,
    })
    expect(problem.fields?.[0]).toMatchObject({ path, code })
  })
})

describe('a rule of the shop’s own', () => {
  const ruleId = v7()
  const own: RuleChange = {
    kind: 'rule',
    ruleId,
    fromVersion: 0,
    name: 'Race fleet',
    limits: { ...SHIPPED_RULES[0].limits, 'derailleur-11-up': { change: 0.35 } },
    watchShare: 0.9,
  }
  it('is made, named, and given to one bike or to one customer', async () => {
    expect((await make({ ...own, name: null })).problem.fields?.[0]?.code).toBe('rule-name-missing')
    expect((await make(own)).body.judged).toBe(0)
    expect((await make({ ...own, ruleId: v7(), name: 'race FLEET' })).problem.fields?.[0]?.code).toBe('rule-name-taken')
    const mara = await bikeOf('mara lisk')
    const { body } = await make({ kind: 'bike', bikeId: mara.summary.id, ruleId, markedInstrumentId: null })
    expect(body.judged).toBe(1)
    expect((await bikeOf('mara lisk')).summary.limit).toBe(0.35)
    const ivo = await bikeOf('ivo marsh')
    await make({ kind: 'customer', customerId: ivo.customer.id, ruleId })
    expect((await bikeOf('ivo marsh')).summary.limit).toBe(0.35)
    const { exceptions } = await rules()
    expect(exceptions.map((one) => [one.customer, one.bike])).toEqual([
      ['Ivo Marsh', null],
      ['Mara Lisk', 'Courier'],
    ])
  })
  it('is retired: whoever had it is judged by the shop’s again', async () => {
    const { body } = await make({ kind: 'retire', ruleId })
    expect(body.judged).toBe(2)
    expect((await bikeOf('mara lisk')).summary.limit).toBe(
      (await ruleOf('by-speeds')).limits['derailleur-11-up'].change,
    )
    expect((await make({ kind: 'default', ruleId })).problem.fields?.[0]?.code).toBe('rule-retired')
  })
  it('cannot be what is shipped, nor the shop’s first', async () => {
    const shipped = await ruleOf('plan-and-change')
    const first = (await rules()).rules.find(({ isDefault }) => isDefault)
    expect((await make({ kind: 'retire', ruleId: shipped.id })).problem.fields?.[0]?.code).toBe('rule-shipped')
    expect((await make({ kind: 'retire', ruleId: first?.id ?? '' })).problem.fields?.[0]?.code).toBe('rule-is-default')
  })
})

describe('as marked', () => {
  it('takes the limit from the instrument named for the bike, and needs one', async () => {
    const marked = await ruleOf('as-marked')
    const bike = await bikeOf('school pool 9')
    const { body: instruments } = await shop.device.ask(endpoints.instruments)
    const blue = instruments.find(({ name }) => name.includes('blue'))
    const digital = instruments.find(({ kind }) => kind === 'digital')
    const choose = (markedInstrumentId: string | null) =>
      make({ kind: 'bike', bikeId: bike.summary.id, ruleId: marked.id, markedInstrumentId })
    expect((await choose(null)).problem.fields?.[0]?.code).toBe('instrument-needed')
    expect((await choose(digital?.id ?? '')).problem.fields?.[0]?.code).toBe('instrument-without-change-mark')
    expect((await choose(blue?.id ?? '')).status).toBe(200)
    const after = await bikeOf('school pool 9')
    expect(after.summary.limit).toBe(0.5)
    expect(after.verdictInput?.rule.school).toBe('as-marked')
  })
})

describe('the shop’s rule', () => {
  it('is another one by choice, for every bike without its own', async () => {
    const plan = await ruleOf('plan-and-change')
    const { body: promised } = await preview({ kind: 'default', ruleId: plan.id })
    const { body: done } = await make({ kind: 'default', ruleId: plan.id })
    expect(done).toEqual(promised)
    expect((await ruleOf('plan-and-change')).isDefault).toBe(true)
    expect((await bikeOf('school pool 1')).verdict?.outcome.plan).toBe(0.75)
  })
})

describe('what is assumed', () => {
  it('is changed by version, for every bike, and back to what is shipped', async () => {
    const { assumptions } = await rules()
    expect(assumptions).toMatchObject({ version: 0, overrides: {} })
    const change: RuleChange = { kind: 'assumptions', fromVersion: 0, overrides: { 'measuring.spotsWanted': 5 } }
    const { status } = await make(change)
    expect(status).toBe(200)
    const bike = await bikeOf('school pool 1')
    expect(bike.verdictInput?.assumptions).toEqual({ 'measuring.spotsWanted': 5 })
    expect((await make(change)).problem.code).toBe('assumptions-stale')
    await make({ kind: 'assumptions', fromVersion: 1, overrides: {} })
    expect((await bikeOf('school pool 1')).verdictInput?.assumptions).toBeUndefined()
    expect((await rules()).assumptions.versions.map(({ version }) => version)).toEqual([2, 1])
  })
  it('is held to its range, at the value concerned', async () => {
    const { version } = (await rules()).assumptions
    const overrides = { 'verdict.roundDays': 5000, nonsense: 1, 'measuring.spotsWanted': 2.5 }
    const { problem } = await preview({ kind: 'assumptions', fromVersion: version, overrides })
    expect(Object.fromEntries(problem.fields?.map((one) => [one.path, one.code]) ?? [])).toEqual({
      'change.overrides.verdict.roundDays': 'assumption-range',
      'change.overrides.nonsense': 'assumption-unknown',
      'change.overrides.measuring.spotsWanted': 'assumption-whole',
    })
    const { lowest, highest } = ASSUMPTIONS.find(({ key }) => key === 'verdict.roundDays')!
    expect(problem.fields?.[0]?.detail).toBe(`Between ${lowest} and ${highest}.`)
  })
  it('is only the owner’s to change', async () => {
    const mechanic = new Device(shop.base)
    await mechanic.signIn('ruan', 'chalkdown-2')
    const change: RuleChange = { kind: 'assumptions', fromVersion: 0, overrides: {} }
    const { status, problem } = await mechanic.ask(endpoints.previewRules, { body: { change } })
    expect([status, problem.code]).toEqual([403, 'only-owner'])
    expect((await mechanic.ask(endpoints.houseRules)).status).toBe(200)
  })
})

describe('deciding otherwise', () => {
  const worn = async (text: string) => {
    const { id } = await bikeNamed(shop.device, text)
    const body = await readingOf(shop.device, id, {
      spots: [1, 2, 3].map(() => ({ id: v7(), typed: '206.6', pitches: 16 })),
    })
    return (await shop.device.ask(endpoints.takeReading, { body })).body
  }
  const decide = (bikeId: string, verdictId: string, decision: string, reason = 'race on Sunday') =>
    shop.device.ask(endpoints.decide, { params: { id: bikeId }, body: { id: v7(), verdictId, decision, reason } })

  it('stands beside the verdict with reason and person, and the chain is looked at again soon', async () => {
    const before = await worn('school pool 6')
    expect(before.summary).toMatchObject({ verdict: 'change', checkOn: null })
    const { body } = await decide(before.summary.id, before.verdict?.id ?? '', 'ride-on')
    expect(body.summary).toMatchObject({ verdict: 'change', decision: 'ride-on' })
    expect(body.decisions[0]).toMatchObject({ stands: true, person: 'Tove Sandell', reason: 'race on Sunday' })
    const days = (new Date(body.summary.checkOn ?? '').getTime() - Date.now()) / 86_400_000
    expect(days).toBeGreaterThan(12)
    expect(days).toBeLessThan(15)
    // A newer verdict that says the same leaves it standing; one that says another does not.
    const again = await worn('school pool 6')
    expect(again.decisions[0]?.stands).toBe(true)
  })
  it('is taken back with a reason, once', async () => {
    const before = await worn('school pool 7')
    const { body } = await decide(before.summary.id, before.verdict?.id ?? '', 'spare')
    const withdraw = () =>
      shop.device.ask(endpoints.withdrawDecision, {
        params: { id: body.decisions[0]?.id ?? '' },
        body: { id: v7(), reason: 'changed it after all' },
      })
    const { body: after } = await withdraw()
    expect(after.summary).toMatchObject({ decision: null, checkOn: null })
    expect(after.decisions[0]).toMatchObject({ stands: false, withdrawn: true })
    expect((await withdraw()).problem.code).toBe('decision-withdrawn-already')
  })
  it('is about the verdict that was looked at, and fits it', async () => {
    const first = await worn('school pool 8')
    await worn('school pool 8')
    expect((await decide(first.summary.id, first.verdict?.id ?? '', 'ride-on')).problem.code).toBe('verdict-moved-on')
    const now = await bikeOf('school pool 8')
    const { problem } = await decide(now.summary.id, now.verdict?.id ?? '', 'change-early')
    expect(problem.fields?.[0]?.code).toBe('decision-does-not-fit')
    expect((await decide(now.summary.id, now.verdict?.id ?? '', 'ride-on', ' ')).problem.fields?.[0]?.code).toBe(
      'text-missing',
    )
  })
})

describe('a fixed rhythm', () => {
  it('sets a rhythm: nobody’s next look is later than that after the last', async () => {
    const { body: session } = await shop.device.ask(endpoints.session)
    const { body: rules } = await shop.device.ask(endpoints.houseRules)
    const change = (overrides: Record<string, number>, fromVersion: number): RuleChange => ({
      kind: 'assumptions',
      fromVersion,
      overrides,
    })
    const late = (): Promise<{ n: number }[]> =>
      inShop(shop.database, session.shop.id, null, (work) =>
        work.select<{ n: number }>(
          `SELECT count(*)::int AS n FROM bike_state WHERE measured_at IS NOT NULL AND decision IS NULL
           AND check_on > (measured_at AT TIME ZONE 'Europe/London')::date + 21
           AND bike_id NOT IN (SELECT b.id FROM bikes b JOIN customers c ON c.id = b.customer_id WHERE c.rhythm_days > 0)`,
        ),
      )
    expect((await late())[0]?.n).toBeGreaterThan(10)
    const { version, overrides } = rules.assumptions
    await make(change({ ...overrides, 'verdict.rhythmDays': 21 }, version))
    expect((await late())[0]?.n).toBe(0)
    await make(change({ ...overrides }, version + 1))
    expect((await late())[0]?.n).toBeGreaterThan(10)
  })
  it('is a customer’s own: every so many days, or whenever the bike is in, and back to the shop’s', async () => {
    const visits = async () => (await shop.device.ask(endpoints.lineUp)).body.visits
    const later = (await visits()).find(
      ({ bike, day }) => bike.checkOn !== null && bike.checkOn > day && !bike.eachVisit && bike.decision === null,
    )!
    const customerId = later.bike.customer.id
    const rhythm = (days: number | null, eachVisit: boolean) => make({ kind: 'rhythm', customerId, days, eachVisit })
    const now = async () => (await visits()).find(({ id }) => id === later.id)!.bike
    await rhythm(null, true)
    expect((await now()).checkOn).toBe(later.day)
    expect((await shop.device.ask(endpoints.houseRules)).body.rhythms).toContainEqual(
      expect.objectContaining({ customerId, days: null, eachVisit: true }),
    )
    await rhythm(1, false)
    expect((await now()).checkOn).toBe(daysLater(later.bike.measuredAt!.slice(0, 10), 1))
    await rhythm(null, false)
    expect((await now()).checkOn).toBe(later.bike.checkOn)
    const wrong = await shop.device.ask(endpoints.changeRules, {
      body: { id: v7(), change: { kind: 'rhythm', customerId, days: 0, eachVisit: false }, reason: 'x' },
    })
    expect(wrong.status).toBe(422)
    expect(wrong.problem.fields?.[0]).toMatchObject({ path: 'change.days', code: 'rhythm-range' })
  })
})
