// @vitest-environment happy-dom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type BikeRecord } from '@pelrin/contract'
import { Answers, inApp } from '../../testing/inApp.tsx'
import { until } from '../../testing/until.ts'
import { HomeAsk } from './HomeAsk.tsx'

afterEach(() => {
  cleanup()
  vi.unstubAllGlobals()
})

const record = (care: Partial<NonNullable<BikeRecord['summary']['care']>>) =>
  ({
    summary: { id: 'b1', care: { dueOn: '2026-01-10', atHome: true, because: 'distance', checkFirst: false, ...care } },
    chain: { fittingId: '0192e1b2-1f40-79a7-a4aa-dac1c8e3a93c', care: 'wet-oil' },
  }) as BikeRecord

describe('a bike that is treated at home, when it comes in', () => {
  it('is asked for once it was due, and written down on the day it was', async () => {
    const server = new Answers()
    server.to(endpoints.recordCare, {})
    const { user } = inApp(<HomeAsk record={record({})} />)
    await user.click(screen.getByRole('button', { name: 'Done at home' }))
    await user.click(screen.getByRole('button', { name: /Save/ }))
    await until(() => expect(server.of(endpoints.recordCare)).toHaveLength(1))
    expect(server.of(endpoints.recordCare)[0]!.body).toMatchObject({
      kind: 'treated',
      care: 'wet-oil',
      atHome: true,
      occurredAt: expect.stringMatching(/^2026-01-10T/) as string,
    })
  })
  it('is asked for nothing before that, nor where it is treated here', () => {
    inApp(<HomeAsk record={record({ dueOn: '2999-01-01' })} />)
    inApp(<HomeAsk record={record({ atHome: false })} />)
    expect(screen.queryByRole('button', { name: 'Done at home' })).toBeNull()
  })
})
