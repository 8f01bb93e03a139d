import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { standingRank } from '@pelrin/core'
import { endpoints, type BikeSummary, type RackSort } from '@pelrin/contract'
import { bikeNamed, startShop, type RunningShop } from '../testing/shop.ts'

let shop: RunningShop
beforeAll(async () => {
  shop = await startShop()
})
afterAll(() => shop.close())

const everyPage = async (query: Record<string, string>): Promise<BikeSummary[]> => {
  const bikes: BikeSummary[] = []
  let cursor: string | null = null
  do {
    const answer = await shop.device.ask(endpoints.rack, {
      query: { ...query, ...(cursor === null ? {} : { cursor }) },
    })
    const page: { bikes: BikeSummary[]; next: string | null } = answer.body
    bikes.push(...page.bikes)
    cursor = page.next
  } while (cursor !== null)
  return bikes
}

describe('the rack', () => {
  it('holds every bike once, however it is paged', async () => {
    const whole = await everyPage({ limit: '200' })
    const inPages = await everyPage({ limit: '7' })
    expect(inPages.map((bike) => bike.id)).toEqual(whole.map((bike) => bike.id))
    expect(new Set(whole.map((bike) => bike.id)).size).toBe(119)
  })
  it('has soonest trouble first: off, then in doubt, then to be measured, then by the day of the next look', async () => {
    const bikes = await everyPage({})
    const ranks = bikes.map(({ standing }) => standingRank(standing))
    expect(new Set(ranks).size).toBe(4)
    expect(ranks).toEqual([...ranks].sort((a, b) => a - b))
    const days = bikes.filter(({ standing }) => standingRank(standing) === 3).map((bike) => bike.checkOn ?? '')
    expect(days).toEqual([...days].sort())
  })
  it.each<[RackSort, (bike: BikeSummary) => string | number | null]>([
    ['bike', (bike) => `${bike.customer.name}, ${bike.label}`.toLowerCase()],
    ['wear', (bike) => bike.median],
    ['ran', (bike) => bike.chainKm],
    ['measured', (bike) => bike.measuredAt],
    ['next', (bike) => bike.checkOn],
    ['chance', (bike) => (bike.standing.word === 'measure-it' ? bike.standing.chance : bike.probabilityOver)],
  ])('goes by %s, either way round, each bike once, those without last', async (sort, of) => {
    for (const way of ['up', 'down'] as const) {
      const bikes = await everyPage({ sort, way, limit: '23' })
      expect(new Set(bikes.map((bike) => bike.id)).size).toBe(119)
      const values = bikes.map(of)
      const said = values.filter((value) => value !== null)
      expect(values.slice(said.length).every((value) => value === null)).toBe(true)
      const turned = way === 'up' ? said : [...said].reverse()
      const compare = new Intl.Collator('en', { numeric: false }).compare
      const inOrder = turned.every((value, i) => {
        const before = turned[i - 1]
        if (before === undefined) return true
        return typeof value === 'number' ? value >= Number(before) - 1e-9 : compare(String(before), value) <= 0
      })
      expect(inOrder, `${sort} ${way}`).toBe(true)
    }
  })
  it('filters, and says how many there are of each', async () => {
    const { body } = await shop.device.ask(endpoints.rack, { query: { state: 'change' } })
    expect(body.total).toBe(body.counts['change'])
    expect(body.bikes.every((bike) => bike.standing.word === 'change')).toBe(true)
    const overdue = await everyPage({ state: 'overdue' })
    const today = new Date().toISOString().slice(0, 10)
    expect(overdue.length).toBeGreaterThan(3)
    expect(overdue.every((bike) => (bike.checkOn ?? '9') < today)).toBe(true)
    const hubs = await everyPage({ drive: 'hub-gear', q: 'bakery' })
    expect(hubs.map((bike) => bike.label).sort()).toEqual([1, 2, 3, 4, 5, 6].map((n) => `Bakery van ${n}`))
  })
  it('never lists an overdue look under keep riding', async () => {
    const riding = await everyPage({ state: 'keep-riding' })
    const overdue = new Set((await everyPage({ state: 'overdue' })).map((bike) => bike.id))
    expect(riding.some((bike) => overdue.has(bike.id))).toBe(false)
  })
  it('refuses a cursor that is none, and a limit out of range', async () => {
    expect((await shop.device.ask(endpoints.rack, { query: { cursor: 'x' } })).problem.code).toBe('cursor-malformed')
    const { problem } = await shop.device.ask(endpoints.rack, { query: { limit: '5000' } })
    expect(problem.fields?.[0]).toMatchObject({ path: 'limit', code: 'number-malformed' })
  })
})

describe('finding a bike', () => {
  it.each([
    ['part of a name', 'mars', 'Ivo Marsh'],
    ['two parts in any order', 'racer quay', 'Nell Quayle'],
    ['a slip of the finger', 'Quaylle sand', 'Nell Quayle'],
    ['letters swapped', 'bakrey van 2', 'Oven & Tide Bakery'],
    ['capitals and accents', 'ÍVO', 'Ivo Marsh'],
    ['a label with its number', 'island mail 4', 'Island Mail'],
  ])('by %s', async (_, text, name) => {
    expect((await bikeNamed(shop.device, text)).customer.name).toBe(name)
  })
  it('by tag and by frame mark, whole or in part', async () => {
    const ivo = await bikeNamed(shop.device, 'ivo')
    expect((await bikeNamed(shop.device, ivo.tag)).id).toBe(ivo.id)
    expect((await bikeNamed(shop.device, ivo.frameMark ?? '')).id).toBe(ivo.id)
    expect((await bikeNamed(shop.device, (ivo.frameMark ?? '').slice(-4))).id).toBe(ivo.id)
  })
  it.each(['mrash', 'casueway', 'qauyle'])('looks through one slip: %s', async (q) => {
    const { body } = await shop.device.ask(endpoints.find, { query: { q } })
    const meant = { mrash: 'Marsh', casueway: 'Causeway', qauyle: 'Quayle' }[q]!
    expect(body.slice(0, 3).some((bike) => `${bike.customer.name} ${bike.label}`.includes(meant))).toBe(true)
  })
  it('finds every customer of the shop among the first three, whatever one slip is made in a word of five letters', async () => {
    const names = [...new Set((await everyPage({ limit: '200' })).map(({ customer }) => customer.name))]
    const random = xoroshiro128plus(7)
    const below = (count: number): number => (random.next() >>> 0) % count
    const slips: ((word: string, i: number) => string)[] = [
      (word, i) => word.slice(0, i) + word[i + 1]! + word[i]! + word.slice(i + 2),
      (word, i) => word.slice(0, i) + word.slice(i + 1),
      (word, i) => word.slice(0, i) + word[i]! + word.slice(i),
      (word, i) => word.slice(0, i) + 'x' + word.slice(i + 1),
    ]
    let slipped = 0
    for (const name of names) {
      const words = name.toLowerCase().split(' ')
      const long = words.findIndex((word) => /^[a-z]{5,}$/.test(word))
      if (long < 0) continue
      for (const slip of slips) {
        const typed = words.with(long, slip(words[long]!, below(words[long]!.length - 1))).join(' ')
        const { body } = await shop.device.ask(endpoints.find, { query: { q: typed } })
        expect(
          body.slice(0, 3).map(({ customer }) => customer.name),
          typed,
        ).toContain(name)
        slipped++
      }
    }
    expect(slipped).toBeGreaterThan(150)
  })
  it('finds nothing for nonsense, and takes signs as they are', async () => {
    for (const q of ['zzqqxx', '%', '_', "'; DROP TABLE bikes", '\\'])
      expect((await shop.device.ask(endpoints.find, { query: { q } })).body).toEqual([])
  })
})

describe('changing a bike', () => {
  const params = async (text: string) => {
    const { id } = await bikeNamed(shop.device, text)
    const { body } = await shop.device.ask(endpoints.bike, { params: { id } })
    return { id, version: body.version }
  }
  it('is found by its new name at once', async () => {
    const { id, version } = await params('downs')
    const { body } = await shop.device.ask(endpoints.changeBike, {
      params: { id },
      version,
      body: { label: 'Chalkface', notes: 'rattles' },
    })
    expect(body).toMatchObject({ version: version + 1, label: 'Chalkface', notes: 'rattles' })
    expect((await bikeNamed(shop.device, 'chalkface')).id).toBe(id)
  })
  it('is refused from a stale version, with the newer row', async () => {
    const { id, version } = await params('courier')
    const change = (notes: string) =>
      shop.device.ask(endpoints.changeBike, { params: { id }, version, body: { notes } })
    const answers = await Promise.all([change('one'), change('two')])
    expect(answers.map((answer) => answer.status).sort()).toEqual([200, 412])
    const kept = answers.find((answer) => answer.status === 200)?.body
    const refused = answers.find((answer) => answer.status === 412)?.problem
    expect(refused?.current).toMatchObject({ notes: kept?.notes, version: version + 1 })
  })
  it('wants the version it starts from', async () => {
    const { id } = await params('tandem')
    const { status, problem } = await shop.device.ask(endpoints.changeBike, { params: { id }, body: { notes: '' } })
    expect([status, problem.code]).toEqual([428, 'version-missing'])
  })
  it('does not take another bike’s tag', async () => {
    const { id, version } = await params('tandem')
    const { tag } = await bikeNamed(shop.device, 'ivo')
    const { problem } = await shop.device.ask(endpoints.changeBike, { params: { id }, version, body: { tag } })
    expect(problem.fields?.[0]).toMatchObject({ path: 'tag', code: 'tag-taken' })
  })
})
