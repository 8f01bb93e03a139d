// @vitest-environment happy-dom
import { fireEvent, screen } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { useLocation, useNavigate } from 'react-router'
import { useCallback, useState } from 'react'
import { inApp, type InApp } from '../testing/inApp.tsx'
import { useFinderOpener, useLetterKeys, useTypedAhead } from './typing.tsx'
import { until } from '../testing/until.ts'

/** What happened, in order. */
let done: string[] = []
let app: InApp

/** A place with a key that leads away, one that leads to a field, one that writes, and one for a digit; the finder beside. */
function Bench() {
  const navigate = useNavigate()
  const { pathname } = useLocation()
  const [dialog, setDialog] = useState(false)
  const [text, setText] = useState('')
  useFinderOpener(
    useCallback((typed: string) => {
      done.push(`find ${typed}`)
      setText(typed)
    }, []),
  )
  useLetterKeys({
    m: { run: () => void navigate('/measure'), intoField: true },
    b: { run: () => void navigate('/record') },
    x: { run: () => done.push('taken out'), lasting: true },
    d: { run: () => setDialog(true) },
    1: { run: () => done.push('first chosen') },
  })
  return (
    <>
      <input
        aria-label="Finder"
        data-takes-back="true"
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <input aria-label="Notes" />
      <button>Elsewhere</button>
      {dialog && <div role="dialog" />}
      {pathname === '/measure' && <Measure />}
    </>
  )
}

function Measure() {
  const [ahead, setAhead] = useState('')
  useTypedAhead(setAhead)
  return <output>{ahead}</output>
}

beforeEach(() => {
  done = []
  app = inApp(<Bench />)
})

describe('a letter pressed anywhere', () => {
  it('acts at once where the place knows it', async () => {
    await app.user.keyboard('b')
    expect(app.at()).toBe('/record')
    expect(done).toEqual([])
  })
  it('begins a name where the place does not know it', async () => {
    await app.user.keyboard('k')
    expect(done).toEqual(['find k'])
    expect(app.at()).toBe('/')
  })
  it('acts as a capital only to begin a name: shift is for names', async () => {
    await app.user.keyboard('{Shift>}B{/Shift}')
    expect(done).toEqual(['find B'])
  })
  it('is taken back when another follows at once: both were a name', async () => {
    await app.user.keyboard('ba')
    expect(done).toEqual(['find ba'])
    expect(app.at()).toBe('/')
  })
  it('is done with once a key that is no letter was pressed', async () => {
    await app.user.keyboard('b{Escape}k')
    expect(app.at()).toBe('/record')
    expect(done).toEqual(['find k'])
  })
  it('is done with once somebody pointed at something', async () => {
    await app.user.keyboard('b')
    await app.user.click(screen.getByRole('button', { name: 'Elsewhere' }))
    await app.user.keyboard('k')
    expect(app.at()).toBe('/record')
    expect(done).toEqual(['find k'])
  })
  it('that writes is never taken back: the next begins anew', async () => {
    await app.user.keyboard('xa')
    expect(done).toEqual(['taken out', 'find a'])
  })
  it('with a control key is the browser’s', async () => {
    await app.user.keyboard('{Control>}b{/Control}{Alt>}b{/Alt}{Meta>}b{/Meta}')
    expect(app.at()).toBe('/')
    expect(done).toEqual([])
  })
  it('belongs to the field it is typed into', async () => {
    await app.user.click(screen.getByRole('textbox', { name: 'Notes' }))
    await app.user.keyboard('bx1')
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Notes' }).value).toBe('bx1')
    expect(done).toEqual([])
  })
  it('does nothing behind an open dialog', async () => {
    await app.user.keyboard('d')
    await app.user.keyboard('xk')
    expect(done).toEqual([])
  })
  it('that is written with an accent begins a name as well', () => {
    fireEvent.keyDown(document.body, { key: 'ø' })
    expect(done).toEqual(['find ø'])
  })
})

describe('a digit pressed anywhere', () => {
  it('chooses where the place knows it, and no name goes on with it', async () => {
    await app.user.keyboard('1a')
    expect(done).toEqual(['first chosen', 'find a'])
  })
  it('after such a letter is the place’s own once it is there, however soon', async () => {
    await app.user.keyboard('m')
    await screen.findByRole('status')
    await app.user.keyboard('1')
    expect(done).toEqual(['first chosen'])
  })
  it('after a letter that leads to a field is meant for that field, before it is there', async () => {
    // As the browser sends them: without a pause in which anything could be drawn.
    for (const key of ['m', '3', '0', '4', '.', '9'])
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
    await until(() => expect(screen.getByRole('status').textContent).toBe('304.9'))
    expect(app.at()).toBe('/measure')
    expect(done).toEqual([])
  })
})
