import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { chanceByDay, dayAfter, OUTLOOK_CHANCES } from '@pelrin/core'
import { endpoints, type BikeSummary, type RackState } from '@pelrin/contract'
import { rackPage } from '../bikes/rack.ts'
import { inShop } from '../db/index.ts'
import type { Work } from '../db/work.ts'
import { diaryOf } from '../diary/store.ts'
import { startShop, type RunningShop } from '../testing/shop.ts'

const ZONE = 'Europe/London'
let shop: RunningShop
let shopId: string
beforeAll(async () => {
  shop = await startShop()
  shopId = (await shop.device.ask(endpoints.session)).body.shop.id
})
afterAll(() => shop.close())

/** The shop as it is so many days later, with nothing written down since. */
const later = <Answer>(days: number, ask: (work: Work, today: string) => Promise<Answer>): Promise<Answer> =>
  inShop(shop.database, shopId, null, (work) => {
    const now = new Date(work.now.getTime() + days * 86_400_000)
    return ask({ ...work, now }, now.toISOString().slice(0, 10))
  })

async function everyBike(work: Work, state?: RackState, limit = 200): Promise<BikeSummary[]> {
  const bikes: BikeSummary[] = []
  let cursor: string | undefined
  do {
    const page = await rackPage(
      work,
      { limit, way: 'up', ...(state ? { state } : {}), ...(cursor ? { cursor } : {}) },
      ZONE,
    )
    bikes.push(...page.bikes)
    cursor = page.next ?? undefined
  } while (cursor !== undefined)
  return bikes
}

const ids = (bikes: readonly BikeSummary[]): string[] => bikes.map(({ id }) => id).sort()
const changes = (bikes: readonly BikeSummary[]): BikeSummary[] =>
  bikes.filter(({ standing }) => standing.word === 'change' && standing.because === 'verdict')

describe('the shop, with nothing written down for a while', () => {
  it.each([0, 30, 90, 200])('%d days on: nothing comes off that was not measured so', async (days) => {
    const today = await later(0, (work) => everyBike(work))
    const then = await later(days, (work) => everyBike(work))
    // A change its forecast brought about is said only while its readings are fresh; what readings say stays.
    const earned = (bikes: readonly BikeSummary[]): string[] =>
      ids(changes(bikes).filter(({ probabilityOver }) => (probabilityOver ?? 0) >= 0.5))
    expect(earned(then)).toEqual(earned(today))
    if (days > 15) expect(earned(then)).toEqual(ids(changes(then)))
    // Red is a reading's own word: never beside a chance that says otherwise.
    for (const { probabilityOver, verdict } of changes(then)) {
      expect(verdict).toBe('change')
      expect(probabilityOver).toBeGreaterThan(0.01)
    }
  })
  it.each([0, 30, 90, 200])('%d days on: what is overdue is to be measured, the likeliest over first', async (days) => {
    const { bikes, day } = await later(days, async (work, day) => ({ bikes: await everyBike(work), day }))
    const fresh = dayAfter(day, -15)
    const overdue = bikes.filter(
      ({ verdict, decision, checkOn, measuredAt }) =>
        (verdict !== 'change' || decision !== null) &&
        checkOn !== null &&
        checkOn < day &&
        (measuredAt === null || measuredAt.slice(0, 10) < fresh),
    )
    expect(overdue.length).toBeGreaterThan(days === 0 ? 3 : 60)
    expect(new Set(overdue.map(({ standing }) => standing.word))).toEqual(new Set(['measure-it']))
    const ranked = bikes.filter(({ standing }) => standing.word === 'measure-it')
    const chances = ranked.map(({ standing }) => standing.chance ?? 0.5)
    chances.forEach((chance, i) => expect(chance).toBeLessThanOrEqual((chances[i - 1] ?? 1) + 1e-9))
  })
  it.each([0, 30, 90, 200])('%d days on: filters, counts and pages say what the bikes do', async (days) => {
    await later(days, async (work) => {
      const all = await everyBike(work)
      const { counts } = await rackPage(work, { limit: 1, way: 'up' }, ZONE)
      const words: Partial<Record<RackState, (bike: BikeSummary) => boolean>> = {
        measure: ({ standing }) => ['measure-it', 'measure-again', 'not-measured-yet'].includes(standing.word),
        'closing-in': ({ standing }) => standing.word === 'closing-in',
        'keep-riding': ({ standing }) => standing.word === 'keep-riding',
      }
      for (const [state, holds] of Object.entries(words)) {
        const listed = await everyBike(work, state as RackState)
        expect(ids(listed), state).toEqual(ids(all.filter(holds)))
        expect(counts[state], state).toBe(listed.length)
      }
      expect((await everyBike(work, undefined, 7)).map(({ id }) => id)).toEqual(all.map(({ id }) => id))
    })
  })
  it.each([0, 90])('%d days on: the diary has a change only for a chain that was measured so', async (days) => {
    await later(days, async (work) => {
      const off = new Set(ids(changes(await everyBike(work))))
      const { visits } = await diaryOf(work, ZONE, 28)
      for (const { bikes } of visits)
        for (const { bike, items } of bikes) expect(items.some(({ kind }) => kind === 'change')).toBe(off.has(bike.id))
    })
  })
})

describe('the chance by a day', () => {
  it('is the database’s as it is the core’s', async () => {
    await later(0, async (work) => {
      const rows = await work.select<{ days: number; reached: number[]; chance: number }>(
        `SELECT d AS days, outlook_reached AS reached, pelrin_chance_by(d, outlook_reached) AS chance
         FROM bike_state CROSS JOIN unnest(ARRAY[0, 1, 7, 45, 200, 900]) d WHERE outlook_reached IS NOT NULL`,
      )
      expect(rows.length).toBeGreaterThan(300)
      for (const { days, reached, chance } of rows) expect(chance).toBeCloseTo(chanceByDay(reached, days), 12)
      const [kept] = await work.select<{ chance: number }>(
        'SELECT pelrin_chance_by(100, CAST(:reached AS int[])) AS chance',
        { reached: `{${OUTLOOK_CHANCES.map((_, i) => i).join()}}` },
      )
      expect(kept?.chance).toBe(OUTLOOK_CHANCES.at(-1))
    })
  })
})
