// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { endpoints } from '@pelrin/contract'
import { Answers, fill, inApp, sessionOf, sentenceOf } from '../../testing/inApp.tsx'
import { AssumptionsEditor } from './AssumptionsEditor.tsx'
import { RuleEditor } from './RuleEditor.tsx'
import { assumptionsOf, moved, ruleOf } from './rules.testing.ts'
import { until } from '../../testing/until.ts'

let server: Answers
const done = vi.fn()
beforeEach(() => {
  server = new Answers().to(endpoints.previewRules, moved()).to(endpoints.changeRules, moved())
  done.mockClear()
})
afterEach(() => vi.unstubAllGlobals())

const field = (name: RegExp | string) => screen.getByRole<HTMLInputElement>('textbox', { name })
const make = () => screen.getByRole('button', { name: 'Make this change' })
const wide = /^Derailleur, 11.*, Change at/

describe('a house rule', () => {
  it('says before it is made which verdicts a change moves, and is made with its reason', async () => {
    server.to(endpoints.previewRules, moved(['keep-riding', 'change'], ['keep-riding', 'closing-in']))
    server.to(endpoints.changeRules, moved(['keep-riding', 'change']))
    const { user, told } = inApp(<RuleEditor rule={ruleOf('by-speeds')} onDone={done} />)
    expect(make()).toHaveProperty('disabled', true)
    expect(screen.getByTestId('moves').textContent).toContain('Nothing is changed yet.')
    fill(field(wide), '0.4')
    const moves = await screen.findByText(/Judges 42 bikes anew: 2 verdicts move\./)
    expect(within(moves.parentElement!).getAllByRole('link')[0]?.getAttribute('href')).toBe('/bikes/bike 0')
    await user.click(make())
    expect(screen.getByText('This cannot be empty.')).toBeTruthy()
    expect(server.of(endpoints.changeRules)).toHaveLength(0)
    fill(field('Reason'), 'too many came late')
    await user.click(make())
    await until(() => expect(done).toHaveBeenCalledOnce())
    expect(told).toEqual(['Changed. One verdict moved.'])
    const [{ body } = {}] = server.of(endpoints.changeRules)
    expect(body).toMatchObject({
      reason: 'too many came late',
      change: { kind: 'rule', fromVersion: 1, name: null, limits: { 'derailleur-11-up': { change: 0.4 } } },
    })
  })

  it('names what cannot be a limit at its field, and looks at nothing until it can', async () => {
    inApp(<RuleEditor rule={ruleOf('plan-and-change')} onDone={done} />)
    fill(field(wide), '7')
    expect(field(wide).getAttribute('aria-invalid')).toBe('true')
    fill(field(wide), '0,45')
    const plan = field(/^Derailleur, 11.*, Plan/)
    expect(plan.getAttribute('aria-invalid'), 'planned for after it is changed').toBe('true')
    fill(plan, '')
    expect(screen.queryAllByRole('textbox').some((one) => one.getAttribute('aria-invalid') === 'true')).toBe(false)
    await until(() => expect(server.of(endpoints.previewRules)).toHaveLength(1))
    expect(server.of(endpoints.previewRules)[0]?.body).toMatchObject({
      change: { limits: { 'derailleur-11-up': { change: 0.45 } } },
    })
  })

  it('says at its field that a share of a limit is none', () => {
    inApp(<RuleEditor rule={ruleOf('by-speeds')} onDone={done} />)
    const watch = field(/^Look more often/)
    for (const [typed, wrong] of [
      ['0.2', true],
      ['often', true],
      ['0.8', false],
      ['1.2', true],
    ] as const) {
      fill(watch, typed)
      expect([typed, watch.getAttribute('aria-invalid')]).toEqual([typed, String(wrong)])
    }
  })

  it('of the shop’s own has a name', () => {
    inApp(<RuleEditor rule={ruleOf('custom', { name: 'Salt' })} onDone={done} />)
    fill(field('What the shop calls it'), '')
    expect(field('What the shop calls it').getAttribute('aria-invalid')).toBe('true')
    expect(make()).toHaveProperty('disabled', true)
  })

  it('goes back to what is shipped', async () => {
    const { user } = inApp(<RuleEditor rule={ruleOf('by-speeds')} onDone={done} />)
    fill(field(wide), '0.4')
    await user.click(screen.getByRole('button', { name: 'As shipped' }))
    expect(field(wide).value).toBe('0.50')
    expect(screen.getByTestId('moves').textContent).toContain('Nothing is changed yet.')
  })

  it('shows what the server names wrong at its field, and keeps everything typed', async () => {
    server.refuse(endpoints.changeRules, 422, 'invalid', { 'change.limits.derailleur-11-up.change': 'limit-range' })
    const { user } = inApp(<RuleEditor rule={ruleOf('by-speeds')} onDone={done} />)
    fill(field(wide), '0.4')
    await screen.findByText(/Judges 42/)
    fill(field('Reason'), 'a test')
    await user.click(make())
    expect((await screen.findByRole('alert')).textContent).toContain(sentenceOf('limit-range'))
    expect(field(wide).value).toBe('0.4')
    expect(field(wide).getAttribute('aria-invalid')).toBe('true')
    expect(field('Reason').value).toBe('a test')
    expect(done).not.toHaveBeenCalled()
  })

  it('is looked at by everybody and changed by an owner', () => {
    inApp(<RuleEditor rule={ruleOf('by-speeds')} onDone={done} />, { session: sessionOf('ruan') })
    expect(screen.queryByRole('button', { name: 'Make this change' })).toBeNull()
    expect(screen.getByText(/owner/)).toBeTruthy()
  })
})

describe('what is assumed', () => {
  it('shows which values are the shop’s own, and brings each back alone', async () => {
    const assumptions = assumptionsOf({ 'measuring.spotsWanted': 5 })
    const { user } = inApp(<AssumptionsEditor assumptions={assumptions} onDone={done} />)
    const back = screen.getAllByRole('button', { name: /^back to / })
    expect(back).toHaveLength(1)
    await user.click(back[0]!)
    await until(() => expect(server.of(endpoints.previewRules)).toHaveLength(1))
    expect(server.of(endpoints.previewRules)[0]?.body).toEqual({
      change: { kind: 'assumptions', fromVersion: 1, overrides: {} },
    })
    expect(screen.getByText(/salt on the causeway/).textContent).toContain('one value of our own')
  })

  it('takes no value out of its range, and says which it takes', () => {
    inApp(<AssumptionsEditor assumptions={assumptionsOf()} onDone={done} />)
    const first = document.querySelector('input')
    fill(first!, '-3')
    expect(first!.getAttribute('aria-invalid')).toBe('true')
    expect(make()).toHaveProperty('disabled', true)
    expect(server.of(endpoints.previewRules)).toHaveLength(0)
  })

  it('typed as it was is no change', () => {
    inApp(<AssumptionsEditor assumptions={assumptionsOf()} onDone={done} />)
    const first = document.querySelector('input')
    const was = first!.value
    fill(first!, '')
    fill(first!, was)
    expect(screen.getByTestId('moves').textContent).toContain('Nothing is changed yet.')
    expect(screen.queryByRole('button', { name: /^back to / })).toBeNull()
  })
})
