// @vitest-environment happy-dom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { act, renderHook } from '@testing-library/react'
import type { ReactNode } from 'react'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Problem } from '@pelrin/contract'
import { AwayError, ProblemError } from './client.ts'
import { useWrite, wrongAt, type WriteOptions } from './useWrite.ts'

beforeAll(async () => {
  await import('../messages/index.ts')
})

function writing(options: Omit<WriteOptions, 'access'> = {}) {
  const client = new QueryClient()
  for (const key of ['lines', 'others']) client.setQueryData([key], 1)
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={client}>{children}</QueryClientProvider>
  )
  const { result } = renderHook(() => useWrite({ access: 'record', ...options }), { wrapper })
  const isStale = (key: string): boolean => client.getQueryState([key])?.isInvalidated === true
  const write = async <T,>(...given: Parameters<typeof result.current.write<T>>): Promise<T | null> => {
    let answer: T | null = null
    await act(async () => {
      answer = await result.current.write(...given)
      // What came of it is told a moment after.
      await new Promise((done) => setTimeout(done, 5))
    })
    return answer
  }
  return { result, isStale, write }
}
const problem = (status: number, more: Partial<Problem> = {}): ProblemError =>
  new ProblemError({ status, code: 'refused', detail: 'Not now.', ...more } as Problem)
const field = problem(422, {
  fields: [{ path: 'quantity', code: 'number-whole', detail: 'A whole number.' }],
})

describe('a write', () => {
  it('gives what was answered, and has what it made stale asked for anew', async () => {
    const { isStale, write, result } = writing({ stale: [['lines']], later: [['others']] })
    expect(await write(() => Promise.resolve('done'))).toBe('done')
    expect([isStale('lines'), isStale('others'), result.current.wrong, result.current.busy]).toEqual([
      true,
      true,
      null,
      false,
    ])
  })
  it('that is refused at a field says so there, and makes nothing stale', async () => {
    const { isStale, write, result } = writing({ stale: [['lines']] })
    expect(await write(() => Promise.reject(field))).toBeNull()
    const { at, wrong } = result.current
    expect([at('quantity'), at('note'), at(''), wrong?.code]).toEqual([
      'A whole number.',
      undefined,
      undefined,
      'number-whole',
    ])
    expect(result.current.field('quantity')).toEqual({ error: true, helperText: 'A whole number.' })
    expect(result.current.field('note')).toEqual({ error: false, helperText: ' ' })
    expect(isStale('lines')).toBe(false)
  })
  it('that is refused as a whole says so as a whole; what somebody else did meanwhile is fetched', async () => {
    const { isStale, write, result } = writing({ stale: [['lines']] })
    await write(() => Promise.reject(problem(409)))
    expect([result.current.at(''), result.current.at('quantity')]).toEqual(['Not now.', undefined])
    expect(isStale('lines')).toBe(true)
  })
  it('that nobody answers says that it was not saved', async () => {
    const { write, result } = writing()
    await write(() => Promise.reject(new AwayError()))
    expect(result.current.wrong).toMatchObject({ code: null, fields: {} })
    expect(result.current.at('')).toMatch(/saved/i)
  })
  it('forgets what was wrong when it is mended, or written again', async () => {
    const { write, result } = writing()
    await write(() => Promise.reject(field))
    await act(async () => {
      result.current.setWrong(null)
      await new Promise((done) => setTimeout(done, 1))
    })
    expect(result.current.wrong).toBeNull()
    act(() => result.current.setWrong(wrongAt({ note: 'Too long.' })))
    expect(result.current.at('note')).toBe('Too long.')
    expect(await write(() => Promise.resolve(1))).toBe(1)
    expect(result.current.wrong).toBeNull()
  })
  it('leaves what is told elsewhere to whoever tells it', async () => {
    const { write, result } = writing()
    await write(
      () => Promise.reject(problem(412)),
      ({ status }) => status === 412,
    )
    expect(result.current.wrong).toBeNull()
  })
})
