// @vitest-environment happy-dom
import { screen, within } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { fieldsOf } from '@pelrin/core'
import { endpoints } from '@pelrin/contract'
import { en } from '../../messages/en.ts'
import { Answers, fill, inApp, sentenceOf } from '../../testing/inApp.tsx'
import { AddPartDialog } from './AddPartDialog.tsx'
import { until } from '../../testing/until.ts'

let server: Answers
const added = vi.fn()
beforeEach(() => {
  server = new Answers().to(endpoints.addPart, {})
  added.mockClear()
})
afterEach(() => vi.unstubAllGlobals())
const open = () => inApp(<AddPartDialog systems={[]} onAdded={added} onClose={() => undefined} />)
const field = (name: string) => screen.getByRole<HTMLInputElement>('textbox', { name })
const choose = async (user: ReturnType<typeof inApp>['user'], kind: string) => {
  await user.click(screen.getByRole('combobox', { name: 'What it is' }))
  await user.click(within(screen.getByRole('listbox')).getByRole('option', { name: kind }))
}

describe('a part that is added', () => {
  it('is asked for what a part of its kind has, and begun as most of them are', async () => {
    const { user } = open()
    expect(field('Pitches in the box').value).toBe('116')
    await choose(user, 'derailleur')
    expect(field('Pulleys').value).toBe('11 11')
    expect(screen.queryByRole('textbox', { name: 'Pitches in the box' })).toBeNull()
    const shown = screen.getByRole('dialog').textContent
    const names: Readonly<Record<string, string>> = en.catalogue.field
    for (const { key } of fieldsOf('derailleur')) expect(shown).toContain(names[key])
  })
  it('is written with all that was typed, by Enter', async () => {
    const { user } = open()
    fill(field('Maker'), 'Varrow')
    await user.type(field('Name'), 'Eleven{Enter}')
    await until(() => expect(added).toHaveBeenCalledOnce())
    const [{ body } = {}] = server.of(endpoints.addPart)
    expect(body).toMatchObject({ cells: { kind: 'chain', maker: 'Varrow', name: 'Eleven', inBox: '116' } })
    expect(added).toHaveBeenCalledWith((body as { id: string }).id)
  })
  it('keeps what was typed when another kind is looked at in between', async () => {
    const { user } = open()
    fill(field('Maker'), 'Varrow')
    await choose(user, 'ring')
    await choose(user, 'chain')
    expect(field('Maker').value).toBe('Varrow')
  })
  it('has each slip named at its field, until something is typed', async () => {
    server.refuse(endpoints.addPart, 422, 'invalid', { maker: 'text-missing', speeds: 'number-whole' })
    const { user } = open()
    await user.type(field('Speeds'), 'eleven{Enter}')
    expect(await screen.findByText(sentenceOf('number-whole'))).toBeTruthy()
    expect(field('Maker').getAttribute('aria-invalid')).toBe('true')
    expect(field('Speeds').value).toBe('eleven')
    await user.type(field('Maker'), 'V')
    await until(() => expect(field('Maker').getAttribute('aria-invalid')).toBe('false'))
    expect(added).not.toHaveBeenCalled()
  })
  it('that is there already says so beside the form', async () => {
    server.refuse(endpoints.addPart, 409, 'part-name-taken')
    const { user } = open()
    await user.type(field('Maker'), 'Varrow{Enter}')
    expect((await screen.findByRole('alert')).textContent).toBe(sentenceOf('part-name-taken'))
  })
})
