import { ConnectionRefusedError, DatabaseError } from 'sequelize'
import { pino } from 'pino'
import { describe, expect, it } from 'vitest'
import { problems } from '@pelrin/contract/messages'
import { failures } from './failures.ts'
import { fingerprint } from './idempotency.ts'
import { atField, ProblemError, sentence } from '../problems/problem.ts'
import { searchWords } from '../bikes/find.ts'

/** What comes out when a handler throws. */
async function answerTo(
  error: unknown,
): Promise<{ status: number; body: Record<string, unknown>; headers: Record<string, string> }> {
  const headers: Record<string, string> = {}
  const ctx = {
    state: { requestId: 'r-1' },
    path: '/api/v1/x',
    status: 200,
    body: {} as Record<string, unknown>,
    type: '',
    set: (name: string, value: string) => (headers[name] = value),
  }
  await failures(pino({ level: 'silent' }))(ctx as never, async () => {
    await Promise.resolve()
    throw error
  })
  return { status: ctx.status, body: ctx.body, headers: { ...headers, type: ctx.type } }
}

const databaseError = (code: string): DatabaseError =>
  new DatabaseError(Object.assign(new Error('x'), { code, sql: 'SELECT secret' }))

describe('what is thrown becomes a problem', () => {
  it('with its status, code, sentence and the request’s id', async () => {
    const { status, body, headers } = await answerTo(new ProblemError(404, 'bike-unknown'))
    expect(status).toBe(404)
    expect(headers['type']).toBe('application/problem+json')
    expect(body).toMatchObject({
      status: 404,
      code: 'bike-unknown',
      detail: problems['bike-unknown'],
      requestId: 'r-1',
    })
  })
  it('with its fields, and the newer row on a conflict', async () => {
    const fields = [atField('spots.0.pitches', 'count-impossible', { pitches: 16, elongation: '9.1' })]
    const { body } = await answerTo(new ProblemError(412, 'version-stale', { fields, current: { version: 3 } }))
    expect(body['current']).toEqual({ version: 3 })
    expect(JSON.stringify(body['fields'])).toContain('Over 16 pitches this length would be 9.1 % worn')
  })
  it.each([
    ['a refused connection', new ConnectionRefusedError(new Error('connect ECONNREFUSED'))],
    ['a shutdown in the middle', databaseError('57P01')],
    ['a lost connection', databaseError('08006')],
    ['a torn socket', Object.assign(new Error('read ECONNRESET'), { code: 'ECONNRESET' })],
    ['a terminated connection', new Error('Connection terminated unexpectedly')],
  ])('%s: the database is away, try again', async (_, error) => {
    const { status, body, headers } = await answerTo(error)
    expect([status, body['code'], headers['Retry-After']]).toEqual([503, 'database-away', '2'])
  })
  it.each([
    ['a wrong statement', databaseError('42703')],
    ['a slip of ours', new TypeError('x is not a function')],
    ['something that is no error', 'boom'],
  ])('%s is our fault, and tells nothing of the inside', async (_, error) => {
    const { status, body } = await answerTo(error)
    expect([status, body['code']]).toEqual([500, 'server-fault'])
    expect(JSON.stringify(body)).not.toMatch(/secret|function|boom|SELECT/)
    expect(body['detail']).toContain('r-1')
  })
})

describe('sentences', () => {
  it('fill in their values, and have a general one for codes they do not know', () => {
    expect(sentence('sign-in-too-often', { minutes: 15 })).toContain('15 min')
    expect(sentence('no-such-code')).toBe(problems['field-invalid'])
  })
})

describe('a request’s fingerprint', () => {
  it('is the same for a repetition only', () => {
    const first = fingerprint('POST', '/readings', { id: 1 })
    expect(fingerprint('POST', '/readings', { id: 1 })).toBe(first)
    expect(fingerprint('POST', '/readings', { id: 2 })).not.toBe(first)
    expect(fingerprint('POST', '/stand', { id: 1 })).not.toBe(first)
    expect(fingerprint('PATCH', '/readings', { id: 1 })).not.toBe(first)
  })
})

describe('the words of a search', () => {
  it('are without accents, capitals and needless blanks, and not endless', () => {
    expect(searchWords('  Íñigo   MARSH ')).toEqual(['inigo', 'marsh'])
    expect(searchWords('')).toEqual([])
    expect(searchWords('a b c d e f g h i')).toHaveLength(6)
  })
})
