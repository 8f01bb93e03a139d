// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { studyOrder } from '@pelrin/core'
import { endpoints, type Instrument, type Study } from '@pelrin/contract'
import { digitalGauge } from '../../testing/digitalGauge.ts'
import { Answers, fill, inApp, sessionOf, sentenceOf } from '../../testing/inApp.tsx'
import { PlanStudy } from './PlanStudy.tsx'
import { StudyEntry } from './StudyEntry.tsx'
import { until } from '../../testing/until.ts'

const gauge = digitalGauge
const rule: Instrument = { ...gauge, id: 'rule', kind: 'steel-rule', name: 'Steel rule' }

let server: Answers
beforeEach(() => {
  server = new Answers()
})
afterEach(() => vi.unstubAllGlobals())
const field = (name: RegExp | string) => screen.getByRole<HTMLInputElement>('textbox', { name })

describe('a study that is planned', () => {
  const plan = (instrument = gauge) => {
    server.to(endpoints.planStudy, {})
    return inApp(<PlanStudy instrument={instrument} onClose={() => undefined} />, { at: '/gauges/gauge' })
  }
  it('is begun with one key, by everybody chosen, and leads to where it is entered', async () => {
    const { user, at } = plan()
    await user.click(screen.getByRole('checkbox', { name: 'Ruan Pike' }))
    expect(screen.getByRole('button', { name: 'Begin: 30 values' })).toBeTruthy()
    await user.type(field('What it is called'), 'After the new battery{Enter}')
    await until(() => expect(at()).toMatch(/^\/studies\/[\w-]{36}$/))
    expect(server.of(endpoints.planStudy)[0]?.body).toMatchObject({
      title: 'After the new battery',
      peopleIds: sessionOf().people.map(({ id }) => id),
      repeats: 3,
      spots: ['A', 'B', 'C', 'D', 'E'].map((label) => ({ label })),
    })
  })
  it('is one, however often it is begun', async () => {
    let go = (): void => undefined
    server.to(endpoints.planStudy, () => new Promise((resolve) => (go = () => resolve({}))))
    const { user, at } = inApp(<PlanStudy instrument={gauge} onClose={() => undefined} />)
    const begin = screen.getByRole('button', { name: /^Begin/ })
    await user.click(begin)
    await user.click(begin)
    const ids = server
      .of(endpoints.planStudy)
      .map(({ body, headers }) => [(body as { id: string }).id, headers['Idempotency-Key']])
    expect(new Set(ids.flat()).size).toBe(1)
    go()
    await until(() => expect(at()).toBe(`/studies/${ids[0]![0]}`))
  })
  it('takes what is truly there by the spots’ order, with a comma as well', async () => {
    const { user } = plan()
    fill(field('Spots'), '2')
    await user.type(field(/^What is truly there \(A … B\)/), '0,20 0.50{Enter}')
    await until(() => expect(server.of(endpoints.planStudy)).toHaveLength(1))
    expect(server.of(endpoints.planStudy)[0]?.body).toMatchObject({
      spots: [
        { label: 'A', reference: 0.2 },
        { label: 'B', reference: 0.5 },
      ],
    })
  })
  it('says at its field that a truth is no number, instead of leaving it out', async () => {
    const { user } = plan()
    const truths = field(/^What is truly there/)
    await user.type(truths, '0.20 o.50 0.80{Enter}')
    await until(() => expect(truths.getAttribute('aria-invalid')).toBe('true'))
    expect(truths.value).toBe('0.20 o.50 0.80')
    expect(server.of(endpoints.planStudy)).toHaveLength(0)
  })
  it('shows each refusal at its field, until it is typed in again', async () => {
    server.refuse(endpoints.planStudy, 422, 'invalid', { repeats: 'study-repeats', 'spots.0': 'study-spots-missing' })
    const { user } = inApp(<PlanStudy instrument={gauge} onClose={() => undefined} />)
    fill(field('Times each'), '5')
    await user.type(field('Times each'), '{Enter}')
    expect(await screen.findByText(sentenceOf('study-repeats'))).toBeTruthy()
    expect(screen.getByText(sentenceOf('study-spots-missing'))).toBeTruthy()
    await user.type(field('Times each'), '{Backspace}2')
    expect(screen.queryByText(sentenceOf('study-repeats'))).toBeNull()
  })
  it('asks for pitches only of an instrument that reads lengths', () => {
    plan()
    expect(screen.queryByRole('textbox', { name: 'Count' })).toBeNull()
    inApp(<PlanStudy instrument={rule} onClose={() => undefined} />)
    expect(screen.getByRole('textbox', { name: 'Count' })).toBeTruthy()
  })
  it('that nobody answered keeps what was typed and says so', async () => {
    server.away(endpoints.planStudy)
    const { user } = inApp(<PlanStudy instrument={gauge} onClose={() => undefined} />)
    await user.type(field('What it is called'), 'Spring{Enter}')
    expect((await screen.findByRole('alert')).textContent).toMatch(/^Pelrin did not answer, so this is not saved/)
    expect(field('What it is called').value).toBe('Spring')
  })
})

describe('a study that is entered', () => {
  const study = (more: Partial<Study> = {}): Study =>
    ({
      id: 'study',
      title: 'Spring',
      instrument: { id: 'gauge', name: 'Digital gauge', kind: 'digital', marks: null },
      people: [sessionOf().person],
      spots: [{ label: 'A' }, { label: 'B' }],
      repeats: 2,
      pitches: null,
      values: [],
      ...more,
    }) as unknown as Study
  const [first, second] = studyOrder({ spots: 2, repeats: 2, person: 0 })
  const letter = (spot: number): string => 'AB'[spot]!
  beforeEach(() => server.to(endpoints.instrument, { instrument: gauge, assumptions: {} }))

  it('asks for one value at a time, in this person’s own order', async () => {
    server.to(endpoints.enterStudyValue, study())
    const { user } = inApp(<StudyEntry study={study()} />)
    expect(screen.getByText('Tove Sandell: value 1 of 4')).toBeTruthy()
    await user.type(field(`Spot ${letter(first!.spot)} shows`), ' 0.42 {Enter}')
    await until(() => expect(server.of(endpoints.enterStudyValue)).toHaveLength(1))
    expect(server.of(endpoints.enterStudyValue)[0]?.body).toMatchObject({ ...first, typed: '0.42' })
    inApp(<StudyEntry study={study({ values: [{ ...first }] as unknown as Study['values'] })} />)
    expect(screen.getByText('Tove Sandell: value 2 of 4')).toBeTruthy()
    expect(field(`Spot ${letter(second!.spot)} shows`)).toBeTruthy()
  })
  it('takes a value once, though Enter is pressed twice', async () => {
    server.to(endpoints.enterStudyValue, () => new Promise(() => undefined))
    const { user } = inApp(<StudyEntry study={study()} />)
    await user.type(field(/^Spot . shows/), '0.42{Enter}{Enter}')
    expect(server.of(endpoints.enterStudyValue)).toHaveLength(1)
  })
  it('refuses what no such instrument shows, at its field, before anything is sent', async () => {
    server.to(endpoints.enterStudyValue, study())
    const { user } = inApp(<StudyEntry study={study()} />)
    await until(() => expect(server.of(endpoints.instrument)).toHaveLength(1))
    await user.type(field(/^Spot . shows/), 'about half{Enter}')
    expect(field(/^Spot . shows/).getAttribute('aria-invalid')).toBe('true')
    expect(server.of(endpoints.enterStudyValue)).toHaveLength(0)
  })
  it('keeps a value that was refused, with the reason', async () => {
    server.refuse(endpoints.enterStudyValue, 409, 'study-closed')
    const { user } = inApp(<StudyEntry study={study()} />)
    await user.type(field(/^Spot . shows/), '0.42{Enter}')
    expect(await screen.findByText(sentenceOf('study-closed'))).toBeTruthy()
    expect(field(/^Spot . shows/).value).toBe('0.42')
  })
  it('says who has entered everything, and who is not in it', () => {
    const all = studyOrder({ spots: 2, repeats: 2, person: 0 }) as unknown as Study['values']
    inApp(<StudyEntry study={study({ values: all })} />)
    expect(screen.getByText('Tove Sandell has entered everything.')).toBeTruthy()
    inApp(<StudyEntry study={study()} />, { session: sessionOf('ruan') })
    expect(screen.queryByRole('textbox')).toBeNull()
  })
})
