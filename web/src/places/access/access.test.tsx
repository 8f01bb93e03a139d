// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints, type Act } from '@pelrin/contract'
import { Answers, fill, inApp, sessionOf } from '../../testing/inApp.tsx'
import { until } from '../../testing/until.ts'
import { AuditPane } from './AuditPane.tsx'
import { DevicesPane } from './DevicesPane.tsx'

const act = (more: Partial<Act>): Act => ({
  ...{ id: 'a1', at: '2026-06-01T09:30:00Z', action: 'changed', subjectKind: 'bike', subjectId: 'b1', bike: null },
  ...{ person: 'Tove Sandell', device: 'Bench 1', elsewhere: false, detail: {} },
  ...more,
})
let server: Answers
beforeEach(() => {
  server = new Answers()
    .to(endpoints.audit, {
      acts: [act({ bike: { id: 'b1', label: 'Causeway', customer: 'Ivo Marsh' } }), act({ id: 'a2', person: null })],
      next: null,
      actions: ['changed', 'took'],
    })
    .to(endpoints.devices, [{ id: 'd1', name: 'Bench 1', lastSeenAt: null, person: null, isThis: false }])
    .to(endpoints.apiTokens, [])
})
afterEach(() => vi.unstubAllGlobals())

describe('what was done', () => {
  it('is told by whom and to which bike, and narrowed down to that bike', async () => {
    const { user } = inApp(<AuditPane />)
    await user.click(await screen.findByRole('button', { name: 'Causeway, Ivo Marsh' }))
    await until(() => expect(server.of(endpoints.audit).at(-1)!.query).toEqual({ bikeId: 'b1' }))
    expect(screen.getByText('Pelrin itself')).toBeTruthy()
    // The table that is taken out has what is shown.
    expect(screen.getByRole('link', { name: 'As CSV' }).getAttribute('href')).toBe('/api/v1/audit.csv?bikeId=b1')
  })
  it('is the owner’s to read', () => {
    inApp(<AuditPane />, { session: sessionOf('ruan') })
    expect(screen.getByText('The owner reads what was done.')).toBeTruthy()
    expect(server.of(endpoints.audit)).toHaveLength(0)
  })
})

describe('devices and other programs', () => {
  it('a device is signed out after a look at what that means', async () => {
    server.to(endpoints.revokeDevice, [])
    const { user } = inApp(<DevicesPane />)
    await user.click(await screen.findByRole('button', { name: 'Sign out from here: Bench 1' }))
    expect(screen.getByText(/needs? to sign in|has to sign in/)).toBeTruthy()
    expect(server.of(endpoints.revokeDevice)).toHaveLength(0)
    await user.click(screen.getByRole('button', { name: 'Sign out from here' }))
    await until(() => expect(server.of(endpoints.revokeDevice)[0]?.params).toEqual({ id: 'd1' }))
  })
  it('a token is made for what is ticked, and told once', async () => {
    server.to(endpoints.makeToken, { token: 'pelrin_abc', tokens: [] })
    const { user } = inApp(<DevicesPane />)
    await user.click(await screen.findByRole('button', { name: 'A token for a program' }))
    fill(screen.getByLabelText('What it is for'), 'Till')
    await user.click(screen.getByRole('checkbox', { name: 'Order and receive' }))
    await user.click(screen.getByRole('button', { name: 'Make it' }))
    expect(await screen.findByDisplayValue('pelrin_abc')).toBeTruthy()
    expect(server.of(endpoints.makeToken)[0]!.body).toMatchObject({ name: 'Till', rights: ['orders'] })
  })
})
