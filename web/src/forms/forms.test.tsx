// @vitest-environment happy-dom
import { screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import * as v from 'valibot'
import { endpoint } from '@pelrin/contract'
import { ask } from '../api/client.ts'
import { drafts } from '../drafts/drafts.ts'
import { Answers, fill, inApp, sentenceOf, sessionOf } from '../testing/inApp.tsx'
import { Choice } from './Choice.tsx'
import { Flag } from './Flag.tsx'
import { FormDialog } from './FormDialog.tsx'
import { Line } from './Line.tsx'
import { Pick } from './Pick.tsx'
import { Several } from './Several.tsx'
import { choiceIn, numberIn, numberWanted, textIn } from './typed.ts'
import { useFormDraft } from './useFormDraft.ts'
import { useWriteForm } from './useWriteForm.ts'
import { until } from '../testing/until.ts'

const Pump = v.object({
  name: v.pipe(v.string('text-missing'), v.trim(), v.nonEmpty('text-missing')),
  bar: v.nullable(v.pipe(v.number('number-malformed'), v.maxValue(12, 'field-invalid'))),
  valves: v.array(v.picklist(['thin', 'wide'], 'one-of')),
  foot: v.boolean(),
  stands: v.nullable(v.picklist(['wall', 'floor'])),
  side: v.picklist(['left', 'right']),
})
const changePump = endpoint({
  ...{ name: 'changePump', method: 'PATCH', path: '/pumps/:id', summary: 'Change a pump.', access: 'anyone' },
  ...{ params: v.object({ id: v.string() }), body: Pump, result: v.object({ version: v.number() }), versioned: true },
} as const)

interface TypedPump {
  name: string
  bar: string
  valves: string
  foot: boolean
  stands: 'wall' | 'floor' | ''
  side: 'left' | 'right'
}
const typedPump: TypedPump = { name: 'Old', bar: '8', valves: 'thin', foot: true, stands: 'wall', side: 'left' }
const done = vi.fn()
const closed = vi.fn()

function PumpDialog() {
  const form = useWriteForm({
    access: 'record',
    schema: changePump.body,
    start: typedPump,
    read: ({ name, bar, valves, foot, stands, side }: TypedPump) => ({
      ...{ name, foot, side, bar: numberIn(bar), stands: choiceIn(stands) },
      valves: (textIn(valves) ?? '').split(', ') as ('thin' | 'wide')[],
    }),
    version: 3,
    send: (body, { version }) => ask(changePump, { params: { id: 'p' }, version, body }),
    newerOf: ({ version, ...now }: { version: number } & Partial<TypedPump>) => ({ version, typed: now }),
    done,
  })
  useFormDraft(form, 'pump')
  return (
    <FormDialog form={form} title="Pump" go="Save" onClose={closed}>
      <Line name="name" label="Name" hint="What is on it." autoFocus />
      <Line name="bar" label="Bar" of="number" />
      <Several name="valves" label="Valves" options={['thin', 'wide']} />
      <Flag name="foot" label="By foot" />
      <Choice
        name="stands"
        label="Stands"
        options={[
          ['', 'nobody knows'],
          ['wall', 'at the wall'],
          ['floor', 'on the floor'],
        ]}
      />
      <Pick
        name="side"
        label="Side"
        options={[
          ['left', 'Left'],
          ['right', 'Right'],
        ]}
      />
    </FormDialog>
  )
}

let server: Answers
beforeEach(() => {
  server = new Answers().to(changePump, { version: 4 })
  done.mockReset()
  drafts.remove('pump')
  closed.mockClear()
})
afterEach(() => vi.unstubAllGlobals())
const field = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name })

describe('a form that writes one thing', () => {
  it('begins with what is known, and sends all that is in it by Enter, at its version', async () => {
    const { user } = inApp(<PumpDialog />)
    expect(document.activeElement).toBe(field('Name'))
    await user.click(screen.getByRole('checkbox', { name: 'By foot' }))
    await user.click(screen.getByRole('button', { name: 'Right' }))
    await user.click(screen.getByRole('combobox', { name: 'Stands' }))
    await user.click(screen.getByRole('option', { name: 'nobody knows' }))
    await user.type(field('Bar'), '{Backspace}6,5{Enter}')
    await until(() => expect(done).toHaveBeenCalledOnce())
    const [sent] = server.of(changePump)
    expect(sent?.body).toEqual({ name: 'Old', bar: 6.5, valves: ['thin'], foot: false, stands: null, side: 'right' })
    expect(sent?.headers['If-Match']).toBe('"3"')
  })
  it('refuses at each field what its schema refuses, before anything is sent, and goes on as one is mended', async () => {
    const { user } = inApp(<PumpDialog />)
    fill(field('Name'), '  ')
    await user.type(field('Bar'), '{Backspace}hard{Enter}')
    expect(await screen.findByText('This is not a number, or it is out of range.')).toBeTruthy()
    expect(field('Name').getAttribute('aria-invalid')).toBe('true')
    expect(document.activeElement).toBe(field('Name'))
    expect(server.of(changePump)).toHaveLength(0)
    fill(field('Name'), 'New')
    await until(() => expect(field('Name').getAttribute('aria-invalid')).toBe('false'))
    expect(field('Bar').getAttribute('aria-invalid')).toBe('true')
  })
  it('says of a list at the list what is wrong with one of its items', async () => {
    server.refuse(changePump, 422, 'request-invalid', { 'valves.0': 'one-of' })
    const { user } = inApp(<PumpDialog />)
    await user.type(field('Name'), '{Enter}')
    expect(await screen.findByText(sentenceOf('one-of'))).toBeTruthy()
    expect(screen.queryByRole('alert')).toBeNull()
  })
  it('says beside its button what concerns none of its fields', async () => {
    server.refuse(changePump, 422, 'request-invalid', { hose: 'field-invalid' })
    const { user } = inApp(<PumpDialog />)
    await user.type(field('Name'), '{Enter}')
    expect((await screen.findByRole('alert')).textContent).toBe(sentenceOf('field-invalid'))
    server.refuse(changePump, 409, 'part-name-taken')
    await user.type(field('Name'), '{Enter}')
    await until(() => expect(screen.getByRole('alert').textContent).toBe(sentenceOf('part-name-taken')))
    server.away(changePump)
    await user.type(field('Name'), '{Enter}')
    await until(() => expect(screen.getByRole('alert').textContent).toMatch(/^Pelrin did not answer/))
    expect(field('Name').value).toBe('Old')
  })
  it('sets what somebody else wrote beside what is typed, follows it elsewhere, and goes over it when sent again', async () => {
    const { user } = inApp(<PumpDialog />)
    fill(field('Name'), 'Mine')
    const current = { ...typedPump, version: 7, name: 'Theirs', bar: '9' }
    vi.stubGlobal('fetch', () =>
      Promise.resolve(new Response(JSON.stringify({ status: 412, code: 'version-stale', current }), { status: 412 })),
    )
    await user.type(field('Name'), '{Enter}')
    expect((await screen.findByRole('alert')).textContent).toMatch(/^Somebody changed this meanwhile/)
    expect(screen.getByText('now: Theirs')).toBeTruthy()
    expect([field('Name').value, field('Bar').value]).toEqual(['Mine', '9'])
    server = new Answers().to(changePump, { version: 8 })
    await user.type(field('Name'), '{Enter}')
    await until(() => expect(done).toHaveBeenCalledOnce())
    expect(server.of(changePump)[0]).toMatchObject({ body: { name: 'Mine', bar: 9 }, headers: { 'If-Match': '"7"' } })
  })
  it('is sent once, however often Enter is pressed, and closed by Escape without sending', async () => {
    let go = (): void => undefined
    server.to(changePump, () => new Promise((resolve) => (go = () => resolve({ version: 4 }))))
    const { user } = inApp(<PumpDialog />)
    await user.type(field('Name'), '{Enter}{Enter}{Enter}')
    go()
    await until(() => expect(done).toHaveBeenCalledOnce())
    expect(server.of(changePump)).toHaveLength(1)
    await user.keyboard('{Escape}')
    expect(closed).toHaveBeenCalledOnce()
  })
  it('keeps on the device what was typed, and nothing where nothing was', async () => {
    const { user } = inApp(<PumpDialog />)
    expect(drafts.read('pump', v.unknown())).toBeUndefined()
    fill(field('Bar'), '7')
    await until(() => expect(drafts.read('pump', v.looseObject({ bar: v.string() }))?.bar).toBe('7'))
    expect(drafts.read('pump', v.object({ bar: v.number() }))).toBeNull()
    // What was refused is not yet through.
    server.refuse(changePump, 409, 'part-name-taken')
    await user.type(field('Name'), '{Enter}')
    await screen.findByRole('alert')
    fill(field('Bar'), '9')
    await until(() => expect(drafts.read('pump', v.looseObject({ bar: v.string() }))?.bar).toBe('9'))
  })
})

describe('a number', () => {
  const sent = vi.fn(() => Promise.resolve(null))
  function Weighed() {
    const form = useWriteForm({
      access: 'record',
      schema: v.object({ grams: v.number('number-malformed') }),
      start: { grams: '' },
      read: ({ grams }) => ({ grams: numberWanted(grams) }),
      send: sent,
      done: () => undefined,
    })
    return (
      <FormDialog form={form} title="Weighed" go="Save" onClose={closed}>
        <Line name="grams" label="Grams" of="number" autoFocus />
      </FormDialog>
    )
  }
  it('that is left out is asked for; one that is none is told apart from that', async () => {
    const { user } = inApp(<Weighed />)
    await user.type(field('Grams'), '{Enter}')
    expect(await screen.findByText(sentenceOf('number-missing'))).toBeTruthy()
    await user.type(field('Grams'), 'heavy{Enter}')
    expect(await screen.findByText(sentenceOf('number-malformed'))).toBeTruthy()
    expect(sent).not.toHaveBeenCalled()
    fill(field('Grams'), '240')
    await user.type(field('Grams'), '{Enter}')
    await until(() => expect(sent).toHaveBeenCalledWith({ grams: 240 }, expect.anything(), expect.anything()))
  })
})

describe('a form of somebody else', () => {
  it('can be looked at, and has no button to send it', () => {
    const session = sessionOf()
    inApp(<PumpDialog />, { session: { ...session, person: { ...session.person, role: 'desk' } } })
    expect(field('Name').value).toBe('Old')
    expect(screen.queryByRole('button', { name: 'Save' })).toBeNull()
    expect(screen.getByText(/Your role may look/)).toBeTruthy()
  })
})
