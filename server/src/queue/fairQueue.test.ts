import { describe, expect, it } from 'vitest'
import { FairQueue } from './fairQueue.ts'

/** Runs pieces named by their shop, each ended by hand; tells in which order they began. */
function watched(most: number): { queue: FairQueue; began: string[]; end: (name: string) => Promise<void> } {
  const queue = new FairQueue(most)
  const began: string[] = []
  const ends = new Map<string, () => void>()
  for (const name of ['a1', 'a2', 'a3', 'b1', 'c1', 'b2'])
    void queue.run(name[0]!, () => {
      began.push(name)
      return new Promise<void>((done) => ends.set(name, done))
    })
  return {
    queue,
    began,
    end: async (name) => {
      ends.get(name)!()
      await new Promise(setImmediate)
    },
  }
}

describe('work of many shops', () => {
  it('is done one of each shop in turn, never more than there is room for', async () => {
    const { began, end } = watched(1)
    for (const name of ['a1', 'a2', 'b1', 'c1', 'a3']) await end(name)
    expect(began).toEqual(['a1', 'a2', 'b1', 'c1', 'a3', 'b2'])
  })
  it('goes on after a piece that failed', async () => {
    const queue = new FairQueue(1)
    const failed = queue.run('a', () => Promise.reject(new Error('torn')))
    const next = queue.run('a', () => Promise.resolve('done'))
    await expect(failed).rejects.toThrow('torn')
    expect(await next).toBe('done')
  })
})
