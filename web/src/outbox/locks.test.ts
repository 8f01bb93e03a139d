import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { alone, ifFree } from './locks.ts'

beforeEach(() => vi.stubGlobal('navigator', {}))
afterEach(() => {
  vi.unstubAllGlobals()
})

/** A piece of work that is ended by hand. */
function piece(): { job: () => Promise<string>; end: (how?: Error) => void; began: () => boolean } {
  let end: (how?: Error) => void = () => undefined
  let begun = false
  const job = (): Promise<string> => {
    begun = true
    return new Promise((done, reject) => {
      end = (how) => (how ? reject(how) : done('done'))
    })
  }
  return { job, end: (how) => end(how), began: () => begun }
}
const soon = (): Promise<void> => new Promise((done) => setTimeout(done, 5))

describe('where a browser has no locks, as over plain HTTP', () => {
  it('one piece of work waits for the other all the same', async () => {
    const [first, second] = [piece(), piece()]
    const [one, other] = [alone('x', first.job), alone('x', second.job)]
    await soon()
    expect([first.began(), second.began()]).toEqual([true, false])
    first.end()
    expect(await one).toBe('done')
    await soon()
    second.end()
    expect(await other).toBe('done')
  })
  it('goes on after one that failed, and holds up nobody of another name', async () => {
    const [first, second, elsewhere] = [piece(), piece(), piece()]
    const failed = alone('x', first.job)
    const next = alone('x', second.job)
    const other = alone('y', elsewhere.job)
    await soon()
    elsewhere.end()
    expect(await other).toBe('done')
    first.end(new Error('torn'))
    await expect(failed).rejects.toThrow('torn')
    await soon()
    second.end()
    expect(await next).toBe('done')
  })
  it('is not begun where somebody is at it', async () => {
    const first = piece()
    const held = alone('x', first.job)
    await soon()
    expect(await ifFree('x', () => Promise.resolve())).toBe(false)
    first.end()
    await held
    let done = false
    expect(await ifFree('x', () => Promise.resolve((done = true)))).toBe(true)
    expect(done).toBe(true)
  })
})
