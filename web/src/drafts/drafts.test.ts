// @vitest-environment happy-dom
import 'fake-indexeddb/auto'
import type * as idbKeyval from 'idb-keyval'
import { afterEach, describe, expect, it, vi } from 'vitest'
import * as v from 'valibot'
import { Drafts } from './drafts.ts'

/** A disk that is slower than the page: what is begun does not come to its end. */
let stalled = false
vi.mock('idb-keyval', async (original) => {
  const real = await original<typeof idbKeyval>()
  const never = (): Promise<void> => Promise.race([])
  return {
    ...real,
    set: (...args: Parameters<typeof real.set>) => (stalled ? never() : real.set(...args)),
    del: (...args: Parameters<typeof real.del>) => (stalled ? never() : real.del(...args)),
  }
})

afterEach(() => {
  stalled = false
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
    expect(drafts.read('a', v.unknown())).toEqual({ typed: '305.6' })
    await paused()
    expect((await opened()).read('a', v.unknown())).toEqual({ typed: '305.6' })
    drafts.remove('a')
    await paused()
    expect((await opened()).read('a', v.unknown())).toBeUndefined()
  })
  it('is written down when the page goes away in the middle of it', async () => {
    const drafts = await opened()
    drafts.put('b', { typed: '12 3/32' })
    window.dispatchEvent(new Event('pagehide'))
    // At once: a page that is gone comes to no end of anything.
    expect((await opened()).read('b', v.unknown())).toEqual({ typed: '12 3/32' })
  })
  it('is not lost when the page goes away while it is being written down, and what was sent does not come back', async () => {
    const drafts = await opened()
    drafts.put('typed', '305.')
    drafts.put('sent', '304.9')
    await paused()
    stalled = true
    drafts.put('typed', '305.1')
    drafts.remove('sent')
    await paused()
    window.dispatchEvent(new Event('pagehide'))
    stalled = false
    const next = await opened()
    expect([next.read('typed', v.unknown()), next.read('sent', v.unknown())]).toEqual(['305.1', undefined])
    await paused()
    expect((await opened()).read('sent', v.unknown())).toBeUndefined()
  })
  it('does not come back from a page that was left, returned to and sent', async () => {
    const drafts = await opened()
    drafts.put('returned', '305.1')
    window.dispatchEvent(new Event('pagehide'))
    await paused()
    drafts.remove('returned')
    await paused()
    expect((await opened()).read('returned', v.unknown())).toBeUndefined()
  })
  it('is written down though nobody pauses', async () => {
    const drafts = await opened()
    for (let i = 0; i < 12; i++) {
      drafts.put('d', i)
      await new Promise((done) => setTimeout(done, 40))
    }
    expect((await opened()).read('d', v.unknown())).toBeGreaterThan(4)
  })
  it('of an older version is taken up', async () => {
    localStorage.setItem('mend one', '{"pitches":"112"}')
    localStorage.setItem('mend other', '{"torn')
    const drafts = await opened()
    expect(drafts.read('mend one', v.unknown())).toEqual({ pitches: '112' })
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
    expect([drafts.keeps(), drafts.read('c', v.unknown())]).toEqual([false, 1])
  })
})
