// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type Insight, type LearnedGroup } from '@pelrin/contract'
import { Answers, inApp, sessionOf } from '../../testing/inApp.tsx'
import { InsightPlace } from './InsightPlace.tsx'
import { until } from '../../testing/until.ts'

const prior: LearnedGroup['shipped'] = { life: 3, lifeSd: 0.4, gamma: 1.4, gammaSd: 0.1 }
const group = (care: LearnedGroup['care'], more: Partial<LearnedGroup> = {}): LearnedGroup => ({
  ...{ care, surface: null, chains: 14, shipped: prior, life: 4.2, lifeRange: [3.6, 4.9], lifeSd: 0.3 },
  ...{ heldOutGain: 0.35, adopted: true },
  ...more,
})
const insight: Insight = {
  learned: {
    version: 3,
    learnedAt: '2026-11-20T10:00:00.000Z',
    person: 'TS',
    groups: [group('immersion-wax'), group('dry-oil', { adopted: false, heldOutGain: -0.02 })],
    unsaid: null,
  },
  versions: [
    { version: 3, learnedAt: '2026-11-20T10:00:00.000Z', person: 'TS', undoneAt: null },
    { version: 2, learnedAt: '2026-10-20T10:00:00.000Z', person: 'TS', undoneAt: '2026-10-21T10:00:00.000Z' },
  ],
  chains: [
    { care: 'immersion-wax', chains: 14, shipped: prior },
    { care: 'dry-oil', chains: 14, shipped: prior },
    { care: 'drip-wax', chains: 2, shipped: prior },
  ],
  calibration: [{ care: 'dry-oil', forecasts: 40, inside: 0.925, error: 0.04, lineError: null }],
  job: null,
}

let server: Answers
beforeEach(() => {
  server = new Answers()
  for (const endpoint of [endpoints.insight, endpoints.learn, endpoints.undoLearning, endpoints.forecastShop])
    server.to(endpoint, insight)
})
afterEach(() => vi.unstubAllGlobals())
const open = async (as: 'tove' | 'ruan' = 'tove') => {
  const app = inApp(<InsightPlace />, { session: sessionOf(as) })
  await screen.findByRole('heading', { name: 'Insight' })
  return app
}
const row = (care: RegExp) => screen.getAllByRole('row').find(({ textContent }) => care.test(textContent))!.textContent

describe('what the shop has learned', () => {
  it('stands beside what is shipped, and says what is in force, what is kept and where there is too little', async () => {
    await open()
    expect(row(/^immersion wax/)).toMatch(/3\.0.*4\.2 \(3\.6–4\.9\).*0\.35in force$/)
    expect(row(/^dry oil.*shipped kept/)).toContain('−0.02')
    expect(row(/^drip wax/)).toMatch(/too few to learn from/)
  })
  it('says how forecasts came true, and nothing of a straight line where there was none', async () => {
    await open()
    expect(row(/^dry oil40/)).toBe('dry oil4093 %0.04 %–')
  })
  it('is learned anew, and its newest version taken back, by an owner', async () => {
    const { user } = await open()
    await user.click(screen.getByRole('button', { name: /^Learn/ }))
    await until(() => expect(server.of(endpoints.learn)).toHaveLength(1))
    await user.click(screen.getByRole('button', { name: 'Take version 3 back' }))
    await until(() => expect(server.of(endpoints.undoLearning)[0]?.body).toEqual({ version: 3 }))
    expect(screen.queryByRole('button', { name: 'Take version 2 back' })).toBeNull()
  })
  it('is only looked at by anybody else', async () => {
    await open('ruan')
    expect(screen.queryByRole('button', { name: /^Learn|^Take/ })).toBeNull()
  })
  it('says how far a forecast of every chain is, and stops it', async () => {
    const job = { id: 'run', state: 'running', done: 30, of: 120, startedAt: null, finishedAt: null } as const
    server.to(endpoints.insight, { ...insight, job }).to(endpoints.cancelForecast, insight)
    const { user } = await open()
    const shop = within(screen.getByRole('region', { name: 'Every chain' }))
    expect(shop.getByRole('progressbar').getAttribute('aria-valuenow')).toBe('25')
    await user.click(shop.getByRole('button', { name: 'Stop' }))
    await until(() => expect(server.of(endpoints.cancelForecast)[0]?.body).toEqual({ id: 'run' }))
  })
})
