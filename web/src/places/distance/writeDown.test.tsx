// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type Ledger, type Ride } from '@pelrin/contract'
import { Answers, fill, fillDay, inApp, type Asked, sentenceOf } from '../../testing/inApp.tsx'
import { CorrectEntry } from './CorrectEntry.tsx'
import { CorrectRide } from './CorrectRide.tsx'
import { WriteDown } from './WriteDown.tsx'
import { until } from '../../testing/until.ts'

let server: Answers
const closed = vi.fn()
beforeEach(() => {
  server = new Answers()
    .to(endpoints.recordRide, {})
    .to(endpoints.recordOdometer, {})
    .to(endpoints.recordStatement, {})
    .to(endpoints.correctRide, {})
    .to(endpoints.correctEntry, {})
  closed.mockClear()
})
afterEach(() => vi.unstubAllGlobals())
const field = (name: RegExp | string) => screen.getByRole<HTMLInputElement>('textbox', { name })
const open = (startUnknown = false) => inApp(<WriteDown bikeId="b1" unit="km" startUnknown={startUnknown} />)

describe('a ride that is written down', () => {
  it('is sent from its day, its time and its minutes, and the next begins as this one but for how far', async () => {
    const { user, told } = open()
    fillDay('Day', '2026-03-02')
    fill(field('Minutes'), '90')
    await user.type(field('Distance, km'), '31,2{Enter}')
    await until(() => expect(told).toHaveLength(1))
    const { body } = server.of(endpoints.recordRide)[0]!
    const { startedAt, endedAt, ...rest } = body as { startedAt: string; endedAt: string }
    expect(rest).toMatchObject({ typed: '31,2', unit: 'km', surface: null })
    expect(new Date(startedAt).getTime()).toBe(new Date('2026-03-02T09:00').getTime())
    expect(Date.parse(endedAt) - Date.parse(startedAt)).toBe(90 * 60_000)
    expect([field('Distance, km').value, field('Minutes').value]).toEqual(['', '90'])
  })
  it('is another each time, under a number of its own', async () => {
    const { user, told } = open()
    await user.type(field('Distance, km'), '10{Enter}')
    await until(() => expect(told).toHaveLength(1))
    await user.type(field('Distance, km'), '12{Enter}')
    await until(() => expect(told).toHaveLength(2))
    const ids = server.of(endpoints.recordRide).map(({ body }) => (body as { id: string }).id)
    expect(new Set(ids).size).toBe(2)
  })
  it('without minutes or a distance says so at the field, and nothing is sent', async () => {
    const { user } = open()
    fill(field('Minutes'), 'long')
    await user.type(field('Distance, km'), '{Enter}')
    await until(() => expect(field('Minutes').getAttribute('aria-invalid')).toBe('true'))
    expect(field('Distance, km').getAttribute('aria-invalid')).toBe('true')
    expect(server.of(endpoints.recordRide)).toHaveLength(0)
  })
})

describe('an odometer value', () => {
  const type = async (typed: string) => {
    const app = open()
    await app.user.click(screen.getByRole('button', { name: 'Odometer' }))
    await app.user.type(field(/, km$/), `${typed}{Enter}`)
    return app
  }
  it('lower than before is asked about, and sent again with the answer', async () => {
    server.refuse(endpoints.recordOdometer, 422, 'request-invalid', { typed: 'odometer-lower' })
    const { user, told } = await type('900')
    expect(await screen.findByText(sentenceOf('odometer-lower'))).toBeTruthy()
    expect(screen.queryByRole('button', { name: 'Write down' })).toBeNull()
    server.to(endpoints.recordOdometer, {})
    await user.click(screen.getByRole('button', { name: 'The odometer began again' }))
    await until(() => expect(told).toHaveLength(1))
    const [first, second] = server.of(endpoints.recordOdometer) as [Asked, Asked]
    expect(first.body).not.toHaveProperty('lower')
    expect(second.body).toMatchObject({ typed: '900', lower: 'restarted' })
    expect((second.body as { id: string }).id).toBe((first.body as { id: string }).id)
    expect(second.headers['Idempotency-Key']).not.toBe(first.headers['Idempotency-Key'])
  })
  it('that is typed otherwise is no longer asked about', async () => {
    server.refuse(endpoints.recordOdometer, 422, 'request-invalid', { typed: 'odometer-much' })
    const { user } = await type('90000')
    await screen.findByText(sentenceOf('odometer-much'))
    await user.type(field(/, km$/), '{Backspace}')
    expect(await screen.findByRole('button', { name: 'Write down' })).toBeTruthy()
  })
  it('of a chain that came with the bike can be what it had run before', async () => {
    const { user, told } = open(true)
    await user.click(screen.getByRole('button', { name: /before/i }))
    await user.type(field(/, km$/), '1500{Enter}')
    await until(() => expect(told).toHaveLength(1))
    expect(server.of(endpoints.recordStatement)[0]?.body).toMatchObject({ of: 'chain-start', typed: '1500' })
  })
})

describe('a correction', () => {
  const ride = {
    ...{ id: 'r1', startedAt: '2026-03-02T09:00:17.000Z', endedAt: '2026-03-02T10:00:17.000Z', km: 20 },
    ...{ surface: null, title: 'Sea wall' },
  } as unknown as Ride
  it('of a ride keeps its seconds and how long it took, and wants a reason', async () => {
    const { user } = inApp(<CorrectRide bikeId="b1" ride={ride} unit="km" onClose={closed} />)
    fill(field('Distance, km'), '22')
    await user.click(screen.getByRole('button', { name: 'Correct' }))
    expect(await screen.findByText('This cannot be empty.')).toBeTruthy()
    await user.type(field('Reason'), 'misread{Enter}')
    await until(() => expect(closed).toHaveBeenCalledOnce())
    expect(server.of(endpoints.correctRide)[0]).toMatchObject({
      params: { id: 'r1' },
      body: { startedAt: ride.startedAt, endedAt: ride.endedAt, typed: '22', title: 'Sea wall', reason: 'misread' },
    })
  })
  it('of an odometer value stands as it is typed', async () => {
    const entry = { id: 'e1', typed: '1204', unit: 'km', restarted: false } as unknown as Ledger['entries'][number]
    const { user } = inApp(<CorrectEntry bikeId="b1" entry={entry} onClose={closed} />)
    fill(field(/, km$/), '1024')
    await user.type(field('Reason'), 'digits swapped{Enter}')
    await until(() => expect(closed).toHaveBeenCalledOnce())
    expect(server.of(endpoints.correctEntry)[0]?.body).toMatchObject({ typed: '1024', lower: 'as-it-is' })
  })
})
