import { QueryClient, QueryObserver } from '@tanstack/react-query'
import { expect, it } from 'vitest'
import { askAnew } from './askAnew.ts'
import { until } from '../testing/until.ts'

it('asks again what was on its way before the change, and shows what is so since', async () => {
  const client = new QueryClient()
  let now = 'before'
  const answers: (() => void)[] = []
  const shown = new QueryObserver(client, {
    queryKey: ['bike'],
    // What is so when it is asked, heard of later.
    queryFn: () => {
      const seen = now
      return new Promise<string>((resolve) => answers.push(() => resolve(seen)))
    },
  })
  const stop = shown.subscribe(() => undefined)
  now = 'after'
  const done = askAnew(client)
  await until(() => {
    expect(answers).toHaveLength(2)
  })
  for (const answer of answers) answer()
  await done
  expect(shown.getCurrentResult().data).toBe('after')
  stop()
  client.clear()
})
