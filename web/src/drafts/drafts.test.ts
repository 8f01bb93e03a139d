// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { Drafts } from './drafts.ts'

afterEach(() => {
  vi.unstubAllGlobals()
})
const opened = async (): Promise<Drafts> => {
  const drafts = new Drafts()
  await drafts.open()
  return drafts
}
const paused = (): Promise<void> => new Promise((done) => setTimeout(done, 250))

describe('what is being typed', () => {
  it('is there at once, and on the device after a pause', async () => {
    const drafts = await opened()
    drafts.put('a', { typed: '30' })
    drafts.put('a', { typed: '305.6' })
    expect(drafts.get('a')).toEqual({ typed: '305.6' })
    await paused()
    expect((await opened()).get('a')).toEqual({ typed: '305.6' })
    drafts.remove('a')
    await paused()
    expect((await opened()).get('a')).toBeUndefined()
  })
  it('is written down when the page goes away in the middle of it', async () => {
    const drafts = await opened()
    drafts.put('b', { typed: '12 3/32' })
    window.dispatchEvent(new Event('pagehide'))
    // At once: a page that is gone comes to no end of anything.
    expect((await opened()).get('b')).toEqual({ typed: '12 3/32' })
  })
  it('is written down though nobody pauses', async () => {
    const drafts = await opened()
    for (let i = 0; i < 12; i++) {
      drafts.put('d', i)
      await new Promise((done) => setTimeout(done, 40))
    }
    expect((await opened()).get('d')).toBeGreaterThan(4)
  })
  it('of an older version is taken up', async () => {
    localStorage.setItem('mend one', '{"pitches":"112"}')
    localStorage.setItem('mend other', '{"torn')
    const drafts = await opened()
    expect(drafts.get('mend one')).toEqual({ pitches: '112' })
    expect(localStorage.length).toBe(0)
  })
  it('works, and is said not to be kept, where the browser keeps nothing', async () => {
    vi.stubGlobal('indexedDB', {
      open: () => {
        throw new Error('not here')
      },
    })
    const drafts = await opened()
    drafts.put('c', 1)
    await paused()
    expect([drafts.keeps(), drafts.get('c')]).toEqual([false, 1])
  })
})
