import { v7 } from 'uuid'
import { pino } from 'pino'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { DEFAULTS, type CareKind } from '@pelrin/core'
import { endpoints, type Insight, type JobProgress } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import { Queue } from '../queue/queue.ts'
import { bikeNamed, startShop, type RunningShop } from '../testing/shop.ts'
import { believedOf } from './believed.ts'
import { askForRun, cancelRun, continueRun, newestRun } from './runs.ts'
import { VERDICTS } from '../readings/models.ts'

let shop: RunningShop
let shopId: string
beforeAll(async () => {
  shop = await startShop()
  shopId = (await shop.device.ask(endpoints.session)).body.shop.id
})
afterAll(() => shop.close())

const progress = async (): Promise<JobProgress | null> => (await shop.device.ask(endpoints.forecastProgress)).body.job
async function over(): Promise<JobProgress> {
  for (;;) {
    const job = await progress()
    if (job && job.state !== 'waiting' && job.state !== 'running') return job
    await new Promise((done) => setTimeout(done, 200))
  }
}
const author = async () => {
  const { body } = await shop.device.ask(endpoints.session)
  return { personId: body.person.id, deviceId: null, requestId: null }
}

describe('a bike’s forecast', () => {
  it('is stored with its verdict, as of the last thing recorded, and gives the next look', async () => {
    const { id } = await bikeNamed(shop.device, 'sand racer')
    const { body } = await shop.device.ask(endpoints.bike, { params: { id } })
    expect(body.forecast).not.toBeNull()
    expect(body.verdictInput?.life?.sNow).toBe(body.forecast!.sNow)
    if (body.forecast!.withheld === null) {
      expect(body.verdictInput?.forecast).toEqual({
        overNow: body.forecast!.overNow,
        overAhead: body.forecast!.overAhead,
      })
      expect(body.summary.overOn).not.toBeNull()
    } else expect(body.verdictInput?.forecast).toBeNull()
  })
  it('that is withheld gives no day, and leaves the verdict as it is', async () => {
    const withheld = await inShop(shop.database, shopId, null, (work) =>
      work.select<{ id: string; word: string }>(
        `SELECT bike_id AS id, word FROM bike_state WHERE forecast->>'withheld' IS NOT NULL`,
      ),
    )
    expect(withheld.length).toBeGreaterThan(0)
    for (const { id, word } of withheld.slice(0, 3)) {
      const { body } = await shop.device.ask(endpoints.bike, { params: { id } })
      expect(body.verdictInput?.forecast).toBeNull()
      expect(body.summary).toMatchObject({ overOn: null, verdict: word })
    }
  })
})

describe('a whole-shop forecast', () => {
  it('goes over every bike and writes a verdict only where what it rests on changed', async () => {
    const verdicts = (): Promise<number> =>
      inShop(shop.database, shopId, null, (work) => work.of(VERDICTS).count({ transaction: work.transaction }))
    const { body: asked } = await shop.device.ask(endpoints.forecastShop, { body: { id: v7() } })
    expect(asked.of).toBeGreaterThan(100)
    expect(await over()).toMatchObject({ state: 'done', done: asked.of })
    const first = await verdicts()
    await shop.device.ask(endpoints.forecastShop, { body: { id: v7() } })
    await over()
    // A few bikes nobody recorded anything of go by the shop's mean, which the first run moved.
    expect((await verdicts()) - first).toBeLessThan(8)
  })
  it('answers who asks meanwhile with the one under way, is stopped, and stays where it was', async () => {
    const by = await author()
    const run = await inShop(shop.database, shopId, by, (work) => askForRun(work, v7()))
    const again = await inShop(shop.database, shopId, by, (work) => askForRun(work, v7()))
    expect(again.id).toBe(run.id)
    await continueRun(shop.database, shopId, run.id, Date.now())
    await inShop(shop.database, shopId, by, (work) => cancelRun(work, run.id))
    expect(await continueRun(shop.database, shopId, run.id, Infinity)).toBe(false)
    const stopped = await inShop(shop.database, shopId, null, newestRun)
    expect(stopped?.state).toBe('cancelled')
    expect(stopped!.done).toBeGreaterThan(0)
    expect(stopped!.done).toBeLessThan(stopped!.of)
  })
  it('goes on in the queue where a server that ended left it', async () => {
    const by = await author()
    const run = await inShop(shop.database, shopId, by, (work) => askForRun(work, v7()))
    // What a server that was killed had done.
    await continueRun(shop.database, shopId, run.id, Date.now())
    const queue = new Queue(shop.url, pino({ level: 'silent' }), {
      settle: () => Promise.resolve(true),
      drain: () => Promise.resolve(null),
      rebuild: () => Promise.resolve(false),
    })
    await queue.start()
    try {
      await queue.forecastShop(shopId, run.id)
      expect(await over()).toMatchObject({ state: 'done', done: run.of })
    } finally {
      await queue.stop()
    }
  })
})

describe('learning', () => {
  const insight = async (): Promise<Insight> => (await shop.device.ask(endpoints.insight)).body
  it('puts what the shop’s chains taught in force as a version, which bikes then rest on', async () => {
    const { body } = await shop.device.ask(endpoints.learn, { body: { id: v7() } })
    expect(body.learned?.version).toBe(1)
    const adopted = body.learned!.groups.filter((group) => group.adopted)
    for (const group of body.learned!.groups) {
      expect(group.chains).toBeGreaterThanOrEqual(8)
      // Never worse than the shipped value on held-out chains.
      expect(group.adopted).toBe(group.heldOutGain > 0)
    }
    await over()
    const [group] = adopted.filter(({ surface }) => surface === null)
    if (!group) return
    const lives = await inShop(shop.database, shopId, null, (work) =>
      work.select<{ life: number }>(
        `SELECT DISTINCT (v.input->'life'->'prior'->>'life')::float AS life FROM bike_state s
         JOIN verdicts v ON v.id = s.verdict_id WHERE v.input->'life'->>'care' = :care`,
        { care: group.care },
      ),
    )
    expect(lives.map(({ life }) => life)).toContain(group.life)
  })
  it('of bikes nobody says the surface of, how much more their kilometres wear: they rest on that as well', async () => {
    const { learned } = await insight()
    const { unsaid, groups } = learned!
    expect(unsaid!.chains).toBeGreaterThanOrEqual(8)
    expect(unsaid!.adopted).toBe(unsaid!.heldOutGain > 0)
    const factor = unsaid!.adopted ? unsaid!.factor : 1
    const rows = await inShop(shop.database, shopId, null, (work) =>
      work.select<{ care: CareKind; life: number }>(
        `SELECT v.input->'life'->>'care' AS care, (v.input->'life'->'prior'->>'life')::float AS life FROM bike_state s
         JOIN verdicts v ON v.id = s.verdict_id WHERE v.input->'life'->'prior' IS NOT NULL
         AND NOT EXISTS (SELECT 1 FROM rides r WHERE r.bike_id = s.bike_id AND r.surface IS NOT NULL)`,
      ),
    )
    expect(rows.length).toBeGreaterThan(0)
    for (const { care, life } of rows)
      expect(life).toBeCloseTo(believedOf(care, null, groups, DEFAULTS.forecast).life / factor, 6)
  })
  it('is taken back: the shipped values are in force again, and the version stays on record', async () => {
    const { body } = await shop.device.ask(endpoints.undoLearning, { body: { version: 1 } })
    expect(body.learned).toBeNull()
    expect(body.versions[0]).toMatchObject({ version: 1 })
    expect(body.versions[0]?.undoneAt).not.toBeNull()
    const stale = await shop.device.ask(endpoints.undoLearning, { body: { version: 1 } })
    expect([stale.status, stale.problem.code]).toEqual([409, 'learning-stale'])
    await over()
  })
  it('shows how forecasts came true by the readings after them', async () => {
    const { calibration } = await insight()
    expect(calibration.length).toBeGreaterThan(2)
    const forecasts = calibration.reduce((sum, row) => sum + row.forecasts, 0)
    const inside = calibration.reduce((sum, row) => sum + row.inside * row.forecasts, 0) / forecasts
    expect(inside).toBeGreaterThan(0.7)
    const [surest] = [...calibration].sort((a, b) => b.forecasts - a.forecasts)
    expect(surest!.error).toBeLessThan(surest!.lineError!)
  })
  it('is the owner’s to start', async () => {
    const cookie = shop.device.cookie
    await shop.device.signIn('ruan', 'chalkdown-2')
    expect((await shop.device.ask(endpoints.learn, { body: { id: v7() } })).status).toBe(403)
    shop.device.cookie = cookie
  })
})
