import { studyOrder } from '@pelrin/core'
import { v7 } from 'uuid'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endpoints, type Study } from '@pelrin/contract'
import { Device, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
let ruan: Device
const ids = new Map<string, string>()
beforeAll(async () => {
  shop = await startShop()
  ruan = new Device(shop.base)
  await ruan.signIn('ruan', 'chalkdown-2')
  const { body } = await shop.device.ask(endpoints.session)
  for (const person of body.people) ids.set(person.initials, person.id)
})
afterAll(() => shop.close())

const instrument = async (text: string) => {
  const { body } = await shop.device.ask(endpoints.instruments)
  return body.find(({ name }) => name.includes(text))!
}
const plan = async (name: string, change: Record<string, unknown> = {}) =>
  shop.device.ask(endpoints.planStudy, {
    params: { id: (await instrument(name)).id },
    body: {
      id: v7(),
      title: 'Autumn study',
      peopleIds: [ids.get('TS'), ids.get('RP')],
      spots: [
        { label: 'A', reference: 0.3 },
        { label: 'B', reference: 0.6 },
      ],
      repeats: 2,
      ...change,
    },
  })
const enter = (device: Device, study: Study, spot: number, repeat: number, typed: string) =>
  device.ask(endpoints.enterStudyValue, { params: { id: study.id }, body: { id: v7(), spot, repeat, typed } })

describe('a gauge study', () => {
  it('is entered blind, and analysed when it is closed', async () => {
    const { body: study } = await plan('Digital')
    const table: [Device, number, number, string][] = [
      [shop.device, 0, 0, '0.36'],
      [shop.device, 0, 1, '0.38'],
      [shop.device, 1, 0, '0.66'],
      [shop.device, 1, 1, '0.64'],
      [ruan, 0, 0, '0.40'],
      [ruan, 0, 1, '0.42'],
      [ruan, 1, 0, '0.70'],
      [ruan, 1, 1, '0.72'],
    ]
    for (const [device, spot, repeat, typed] of table)
      expect((await enter(device, study, spot, repeat, typed)).status).toBe(200)
    const { body: mine } = await shop.device.ask(endpoints.study, { params: { id: study.id } })
    expect(mine.values.map(({ typed }) => typed)).toEqual(['0.36', '0.38', '0.66', '0.64'])
    expect(mine.people.map(({ entered }) => entered)).toEqual([4, 4])
    expect(mine.result).toBeNull()
    const { body: closed } = await shop.device.ask(endpoints.closeStudy, { params: { id: study.id } })
    expect(closed.values).toHaveLength(8)
    const { result } = closed
    if (result?.kind !== 'values') throw new Error('no values')
    expect(result.gaps).toEqual([])
    // Cell means 0.37, 0.41 / 0.65, 0.71 against 0.3 and 0.6.
    expect(result.bias?.value).toBeCloseTo((0.39 - 0.3 + (0.68 - 0.6)) / 2, 9)
    // Within cells ±0.01 four times: SS = 8 × 0.0001, 4 degrees.
    expect(result.parts?.repeatability.sd).toBeCloseTo(Math.sqrt(0.0008 / 4), 9)
    expect((await enter(ruan, study, 0, 0, '0.4')).problem.code).toBe('study-closed')
  })
  it('takes a value entered again in the place of the one before', async () => {
    const { body: study } = await plan('Digital')
    await enter(shop.device, study, 0, 0, '0.9')
    const { body } = await enter(shop.device, study, 0, 0, '0.36')
    expect(body.values.map(({ typed }) => typed)).toEqual(['0.36'])
    const [one, other] = await Promise.all([
      enter(shop.device, study, 1, 0, '0.6'),
      enter(shop.device, study, 1, 0, '0.61'),
    ])
    expect([one.status, other.status]).toEqual([200, 200])
    const { body: after } = await shop.device.ask(endpoints.study, { params: { id: study.id } })
    expect(after.values).toHaveLength(2)
  })
  it('closed before it is whole says what can still be said', async () => {
    const { body: study } = await plan('Digital', { peopleIds: [ids.get('TS')] })
    await enter(shop.device, study, 0, 0, '0.30')
    await enter(shop.device, study, 0, 1, '0.34')
    const { body } = await shop.device.ask(endpoints.closeStudy, { params: { id: study.id } })
    expect(body.result).toMatchObject({
      gaps: expect.arrayContaining(['one-person', 'one-spot']) as string[],
      anova: null,
    })
    expect(body.result?.kind === 'values' && body.result.repeatability?.sd).toBeCloseTo(Math.sqrt(0.0008), 9)
  })
  it('of marks fits where each goes in', async () => {
    const spots = [0.45, 0.5, 0.55, 0.6, 0.65].map((reference, i) => ({ label: `${i}`, reference }))
    const { body: study } = await plan('red handle', { spots, repeats: 1 })
    for (const [device, seen] of [
      [shop.device, ['oo', 'oo', 'io', 'io', 'io']],
      [ruan, ['oo', 'oo', 'oo', 'oo', 'io']],
    ] as const)
      for (const [spot, typed] of seen.entries()) await enter(device, study, spot, 0, typed)
    const { body } = await shop.device.ask(endpoints.closeStudy, { params: { id: study.id } })
    const { result } = body
    if (result?.kind !== 'marks') throw new Error('no marks')
    const [half, threeQuarters] = result.marks
    expect(half?.fit.state).toBe('fitted')
    expect(half?.fit.state === 'fitted' && half.fit.at).toBeGreaterThan(0.52)
    expect(half?.byPerson.map(({ fit }) => fit.state)).toEqual(['between', 'between'])
    expect(threeQuarters?.fit).toMatchObject({ state: 'beyond', side: 'never-in' })
  })
  it('is written to the record as a check by study', async () => {
    const digital = await instrument('Digital')
    const { uMm, u, marks, material, rollerMm, seesRollerWear, changeMark } = digital
    const { body } = await shop.device.ask(endpoints.reviseInstrument, {
      params: { id: digital.id },
      body: {
        id: v7(),
        fromVersion: digital.recordVersion,
        ...{ uMm, marks, material, rollerMm, seesRollerWear, changeMark },
        u: u === null ? 0.04 : u,
        bias: 0.05,
        biasU: 0.01,
        standing: 'in-use',
        reads: 'true',
        check: { how: 'study', pairs: [], referenceU: 0.01 },
        reason: 'Autumn study',
      },
    })
    expect(body.versions[0]).toMatchObject({ version: digital.recordVersion + 1, checkedHow: 'study', bias: 0.05 })
  })
})

describe('what is wrong with a study', () => {
  it.each([
    ['nobody to measure', 'Digital', { peopleIds: [] }, 'peopleIds', 'study-people-missing'],
    ['no spot', 'Digital', { spots: [] }, 'spots', 'study-spots-missing'],
    ['no repeat', 'Digital', { repeats: 0 }, 'repeats', 'study-repeats'],
    ['a rule without a count', 'Steel rule, 600', {}, 'pitches', 'study-needs-count'],
    ['marks without references', 'blue', { spots: [{ label: 'A' }] }, 'spots.0.reference', 'study-needs-references'],
    ['a stranger', 'Digital', { peopleIds: [v7()] }, 'peopleIds', 'person-unknown'],
    ['hands', 'By hand', {}, 'title', 'study-by-hand'],
  ])('%s is refused at its field', async (_, name, change, path, code) => {
    const { problem } = await plan(name, change)
    expect(problem.fields?.map((field) => [field.path, field.code])).toContainEqual([path, code])
  })
  it('a value of somebody not in it, of a turn there is not, or of nothing a gauge shows', async () => {
    const { body: study } = await plan('Digital', { peopleIds: [ids.get('TS')] })
    expect((await enter(ruan, study, 0, 0, '0.4')).problem.code).toBe('study-not-in-it')
    expect((await enter(shop.device, study, 9, 0, '0.4')).problem.fields?.[0]?.code).toBe('study-no-such-turn')
    expect((await enter(shop.device, study, 0, 0, '203.2')).problem.fields?.[0]).toMatchObject({
      path: 'typed',
      code: 'percent-is-length',
    })
  })
})

describe('the order of a study', () => {
  it('has every turn once for everybody, and not the same one twice running', () => {
    for (const person of [0, 1, 2]) {
      const turns = studyOrder({ spots: 5, repeats: 3, person })
      expect(new Set(turns.map(({ spot, repeat }) => `${spot} ${repeat}`)).size).toBe(15)
      const rounds = [0, 1, 2].map((repeat) =>
        turns
          .filter((turn) => turn.repeat === repeat)
          .map(({ spot }) => spot)
          .join(),
      )
      expect(new Set(rounds).size).toBe(3)
    }
  })
})
