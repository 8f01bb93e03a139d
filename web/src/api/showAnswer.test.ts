import { QueryClient, QueryObserver } from '@tanstack/react-query'
import { afterEach, describe, expect, it } from 'vitest'
import { showAnswer } from './showAnswer.ts'

const key = ['pot'] as const
let client = new QueryClient()
/** What the server holds, and the answers it has not given yet. */
let onServer = 'in the wax'
let waiting: (() => void)[] = []
let stop = (): void => undefined

/** A place that shows what is under the key; each answer is what the server holds as it is asked, and comes when it is let go. */
const open = (): void => {
  client = new QueryClient({ defaultOptions: { queries: { retry: false } } })
  onServer = 'in the wax'
  waiting = []
  stop = new QueryObserver(client, {
    queryKey: key,
    queryFn: () => {
      const held = onServer
      return new Promise<string>((resolve) => waiting.push(() => resolve(held)))
    },
  }).subscribe(() => undefined)
}
const letGo = async (): Promise<void> => {
  for (const answer of waiting.splice(0)) answer()
  await new Promise((resolve) => setTimeout(resolve, 5))
}
const shown = (): unknown => client.getQueryData(key)

afterEach(() => {
  stop()
  client.clear()
})

describe('what a write answered', () => {
  it('is shown at once, and nothing is asked where nothing was', async () => {
    open()
    await letGo()
    expect(shown()).toBe('in the wax')
    await showAnswer(client, key, 'hanging')
    expect(shown()).toBe('hanging')
    expect(waiting).toHaveLength(0)
  })

  it('is not put back by an answer that was asked for before the write', async () => {
    open()
    await letGo()
    void client.refetchQueries({ queryKey: key })
    const late = waiting.splice(0)
    onServer = 'hanging'
    await showAnswer(client, key, 'hanging')
    for (const answer of late) answer()
    await new Promise((resolve) => setTimeout(resolve, 5))
    expect(shown()).toBe('hanging')
  })

  it('gives way to what is newer still: what was being asked for is asked for again', async () => {
    open()
    await letGo()
    void client.refetchQueries({ queryKey: key })
    waiting.splice(0)
    onServer = 'flexed by somebody else'
    await showAnswer(client, key, 'hanging')
    await letGo()
    expect(shown()).toBe('flexed by somebody else')
  })

  it('stands before the first answer has come, and is confirmed by it', async () => {
    open()
    expect(shown()).toBeUndefined()
    onServer = 'hanging'
    await showAnswer(client, key, 'hanging')
    expect(shown()).toBe('hanging')
    await letGo()
    expect(shown()).toBe('hanging')
    expect(client.isFetching()).toBe(0)
  })
})
