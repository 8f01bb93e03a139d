// @vitest-environment happy-dom
import { fireEvent, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { KeySheet } from './KeySheet.tsx'
import { Palette } from './Palette.tsx'
import { Cap } from '../pieces/Cap.tsx'
import { inApp } from '../testing/inApp.tsx'
import { COMMANDS, commandsOf, isLetter, type CommandPlace } from '../keys/commands.ts'
import { changeKeys, keysAreOf, ownKeys, takenBy } from '../keys/ownKeys.ts'
import { OpenCommands, OpenCommandsContext, useCommands, type Handlers } from '../keys/useCommands.ts'
import { until } from '../testing/until.ts'

const places = Object.keys(COMMANDS) as CommandPlace[]
const AS_SHIPPED = { letters: true, of: {} }

/** What was run, in order. */
let done: string[] = []
const handlers = Object.fromEntries(
  Object.keys(COMMANDS.care.commands).map((id) => [
    id,
    id === 'toPot' ? null : (digit: number) => done.push(digit === 0 ? id : `${id} ${digit}`),
  ]),
) as unknown as Handlers<'care'>

function Care() {
  useCommands('care', handlers)
  return (
    <>
      <input aria-label="Notes" />
      <button>Elsewhere</button>
      <Cap of="care.wash" />
    </>
  )
}

beforeEach(() => {
  done = []
  keysAreOf('somebody')
  changeKeys(AS_SHIPPED)
})
afterEach(() => localStorage.clear())

describe('the commands of a place', () => {
  it('have each a key of their own: none is run by two', () => {
    for (const place of places)
      for (const [id, command] of Object.entries(commandsOf(place)))
        if (isLetter(command)) expect(takenBy(place, id, command.key, AS_SHIPPED), `${place}.${id}`).toBeUndefined()
  })
  it('are run by letter, digit and other keys, and by none where they cannot be run', async () => {
    const { user } = inApp(<Care />)
    await user.keyboard('w3{Enter}{Escape}')
    expect(done).toEqual(['wash', 'treatBy 3', 'treat', 'back'])
    await user.keyboard('g')
    expect(done).toHaveLength(4)
  })
  it('leave a field what is typed in it, and a button what presses it', async () => {
    const { user } = inApp(<Care />)
    await user.type(screen.getByRole('textbox', { name: 'Notes' }), 'w{Enter}')
    screen.getByRole('button', { name: 'Elsewhere' }).focus()
    await user.keyboard('{Enter}')
    expect(done).toEqual([])
  })
  it('do nothing while something lies over the place', async () => {
    const { user } = inApp(
      <>
        <Care />
        <div role="dialog" />
      </>,
    )
    await user.keyboard('w{Enter}{Escape}')
    expect(done).toEqual([])
  })
})

describe('letters of one’s own', () => {
  it('run what they were given, are shown on its button, and are there again for who gave them', async () => {
    changeKeys({ letters: true, of: { 'care.wash': 'z' } })
    const { user } = inApp(<Care />)
    expect(screen.getByText('Z')).toBeTruthy()
    await user.keyboard('z')
    expect(done).toEqual(['wash'])
    keysAreOf('another')
    expect(ownKeys()).toEqual(AS_SHIPPED)
    keysAreOf('somebody')
    expect(ownKeys().of).toEqual({ 'care.wash': 'z' })
  })
  it('that are switched off run nothing and stand on no button; other keys still work', async () => {
    changeKeys({ letters: false, of: {} })
    const { user } = inApp(<Care />)
    expect(screen.queryByText('W')).toBeNull()
    await user.keyboard('w{Enter}')
    expect(done).toEqual(['treat'])
  })
  it('are changed in the sheet of keys: one that does something else there is refused by what it does', async () => {
    const { user } = inApp(<KeySheet open onClose={() => undefined} />, { at: '/bikes/b/care' })
    await user.click(screen.getByRole('button', { name: 'Change letters' }))
    const washed = screen.getByRole('button', { name: 'it was washed: W' })
    await user.click(washed)
    await user.keyboard('q')
    expect(screen.getByRole('alert').textContent).toBe('Q is “it squeaks” here already.')
    await user.keyboard('z')
    expect(ownKeys().of).toEqual({ 'care.wash': 'z' })
    expect(screen.queryByRole('alert')).toBeNull()
    await user.click(screen.getByRole('button', { name: 'All as shipped' }))
    expect(ownKeys().of).toEqual({})
  })
  it('that were kept by another version, or torn, are as shipped', () => {
    localStorage.setItem('pelrin.keys torn', '{"letters":')
    localStorage.setItem('pelrin.keys old', '{"letters":"yes"}')
    for (const who of ['torn', 'old']) {
      keysAreOf(who)
      expect(ownKeys()).toEqual(AS_SHIPPED)
    }
  })
})

describe('the palette', () => {
  const close = vi.fn()
  beforeEach(() => close.mockClear())
  const open = () => {
    const commands = new OpenCommands()
    commands.set('care', handlers)
    return inApp(
      <OpenCommandsContext value={commands}>
        <Palette bikeId="b1" shop={[{ words: 'light or dark', run: () => done.push('light') }]} onClose={close} />
      </OpenCommandsContext>,
    )
  }
  const options = () => screen.getAllByRole('option').map((one) => one.textContent)
  it('offers what can be done here, with its key, before places and the shop; no steps, no digits, nothing that cannot', () => {
    open()
    expect(options().slice(0, 3)).toEqual(['treated as usualEnter', 'it was washedW', 'it squeaksQ'])
    expect(options()).toContain('go to Diary')
    expect(options().join()).not.toMatch(/treated, by that care|let it wait for the pot|backEsc/)
  })
  it('is found by the beginnings of words in any order, and run by Enter once it is closed', async () => {
    const { user } = open()
    await user.type(screen.getByRole('combobox'), 'wash it')
    expect(options()).toEqual(['it was washedW'])
    await user.keyboard('{Enter}')
    expect(close).toHaveBeenCalledOnce()
    await until(() => expect(done).toEqual(['wash']))
  })
  it('is left by Escape, with nothing done', async () => {
    const { user } = open()
    await user.type(screen.getByRole('combobox'), 'wash{Escape}')
    expect(close).toHaveBeenCalledOnce()
    expect(done).toEqual([])
  })
  it('goes to a place, and says so where there is nothing like it', async () => {
    const { user, at } = open()
    const field = screen.getByRole('combobox')
    fireEvent.change(field, { target: { value: 'saddle' } })
    expect(screen.getByText('Nothing like that can be done here just now.')).toBeTruthy()
    fireEvent.change(field, { target: { value: 'go rack' } })
    await user.keyboard('{Enter}')
    await until(() => expect(at()).toBe('/rack'))
  })
})
