import type { Endpoint, Input, Output, Problem } from '@pelrin/contract'
import type * as v from 'valibot'
import { problemSaid } from '../messages/said.ts'
import { proving, signInAgain } from './question.ts'

type Schema = v.GenericSchema | undefined

/** A problem in the words of this device: the server names it by code and values. One these words do not have is said as the server says it. */
const saidHere = (problem: Problem): Problem => ({
  ...problem,
  detail: problemSaid(problem.code, { requestId: problem.requestId, ...problem.values }) ?? problem.detail,
  ...(problem.fields
    ? {
        fields: problem.fields.map((field) => ({
          ...field,
          detail: problemSaid(field.code, field.values ?? {}) ?? field.detail,
        })),
      }
    : {}),
})

/** The server said no, and why. */
export class ProblemError extends Error {
  readonly problem: Problem

  constructor(told: Problem) {
    const problem = saidHere(told)
    super(problem.detail)
    this.problem = problem
  }
  /** What is wrong with one field; undefined when it is not named. */
  at(path: string): string | undefined {
    return this.problem.fields?.find((field) => field.path === path)?.code
  }
}

/** The server did not answer, or could not for now. The same request may be sent again. */
export class AwayError extends Error {
  constructor() {
    super('away')
  }
}

export interface Asking {
  readonly params?: Record<string, string>
  readonly query?: unknown
  readonly body?: unknown
  /** Idempotency key, for what creates. */
  readonly key?: string
  /** Version started from, for what changes. */
  readonly version?: number
  /** Who writes, if the device may have changed hands since. */
  readonly personId?: string
  readonly signal?: AbortSignal
  /** Nobody is asked to sign in for it. */
  readonly quiet?: boolean
  /** It goes through all of the shop, which may take minutes: nobody gives up on it sooner. */
  readonly long?: boolean
}

const TIMEOUT_MS = 12_000
/** For what is long: files are large and shop connections slow, and a shop may have thousands of bikes. */
const LONG_MS = 10 * 60_000

/** Sends a request by method and path. @throws ProblemError, AwayError */
export async function send(method: string, path: string, asking: Asking): Promise<unknown> {
  const filled = path.replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(asking.params?.[name] ?? ''))
  const query = new URLSearchParams(
    Object.entries(asking.query ?? {}).filter((entry): entry is [string, string] => entry[1] !== undefined),
  ).toString()
  const headers: Record<string, string> = { Accept: 'application/json' }
  if (asking.body !== undefined) headers['Content-Type'] = 'application/json'
  if (asking.key !== undefined) headers['Idempotency-Key'] = asking.key
  if (asking.version !== undefined) headers['If-Match'] = `"${asking.version}"`
  if (asking.personId !== undefined) headers['Pelrin-Person'] = asking.personId
  // What happened is told by this clock: the server sets it right by its own.
  if (method !== 'GET') headers['Pelrin-Clock'] = new Date().toISOString()
  const timeout = AbortSignal.timeout(asking.long === true ? LONG_MS : TIMEOUT_MS)
  let response: Response
  try {
    response = await fetch(`/api/v1${filled}${query === '' ? '' : `?${query}`}`, {
      method,
      headers,
      signal: asking.signal ? AbortSignal.any([asking.signal, timeout]) : timeout,
      ...(asking.body === undefined ? {} : { body: JSON.stringify(asking.body) }),
    })
    if (response.ok) return response.status === 204 ? undefined : await response.json()
  } catch (error) {
    if (asking.signal?.aborted === true) throw error
    throw new AwayError()
  }
  if (response.status === 502 || response.status === 503 || response.status === 504) throw new AwayError()
  const problem = (await response.json().catch(() => null)) as Problem | null
  if (problem === null) throw new AwayError()
  // What is the owner's goes on once the password was typed again.
  if (problem.code === 'prove-again' && (await proving.ask())) return send(method, path, asking)
  // A session that ended in mid-work: what is half typed waits for somebody to sign in, and goes on.
  if (problem.code === 'not-signed-in' && asking.quiet !== true && (await signInAgain(method !== 'GET')))
    return send(method, path, asking)
  throw new ProblemError(problem)
}

/** Writes that nobody answered, by what they say: each may have arrived all the same. */
const unanswered = new Map<string, { readonly key: string; readonly body: unknown; readonly until: number }>()
/** For so long the same words mean the same write; said later they are meant anew, ms. */
const SAME_MS = 5 * 60_000

/** What a write says, whatever its own id and the moment it was pressed. */
function sameWriteKey(name: string, { params, body }: Asking): string {
  const { id: _id, occurredAt: _at, ...rest } = (body ?? {}) as Record<string, unknown>
  return JSON.stringify([name, params, rest])
}

/**
 * Asks an endpoint of the contract. What is sent and what comes back is typed by it. A write nobody answered and that is said again
 * goes under the key and the id of the first time: the server counts it once.
 */
export async function ask<P extends Schema, Q extends Schema, B extends Schema, R extends Schema>(
  endpoint: Endpoint<P, Q, B, R>,
  asking: Omit<Asking, 'query' | 'body'> & { query?: Input<Q>; body?: Input<B> } = {},
): Promise<Output<R>> {
  const { method, path, name } = endpoint
  if (asking.key === undefined) return send(method, path, asking) as Promise<Output<R>>
  const said = sameWriteKey(name, asking)
  const before = unanswered.get(said)
  const { key, body, until } =
    before && before.until > Date.now() ? before : { key: asking.key, body: asking.body, until: Date.now() + SAME_MS }
  try {
    const answer = await send(method, path, { ...asking, key, body })
    unanswered.delete(said)
    return answer as Output<R>
  } catch (error) {
    if (error instanceof AwayError) unanswered.set(said, { key, body, until })
    else unanswered.delete(said)
    throw error
  }
}

/**
 * Sends files to an address below the API, with fields beside them.
 *
 * @returns what the server answers
 * @throws ProblemError, AwayError
 */
export async function sendForm(
  path: string,
  files: readonly File[],
  { key, fields = {}, signal }: { key?: string; fields?: Readonly<Record<string, string>>; signal?: AbortSignal } = {},
): Promise<unknown> {
  const form = new FormData()
  for (const [name, value] of Object.entries(fields)) form.append(name, value)
  for (const file of files) form.append('files', file)
  return upload(path, form, key === undefined ? {} : { 'Idempotency-Key': key }, signal)
}

/** Sends one file as it is, telling which share of it has gone. @throws ProblemError, AwayError */
export const sendFile = (
  path: string,
  file: File,
  { signal, onProgress }: { signal?: AbortSignal; onProgress?: (share: number) => void } = {},
): Promise<unknown> => upload(path, file, { 'Content-Type': 'application/octet-stream' }, signal, onProgress)

/** An upload, by the one way a browser tells how far it is. */
function upload(
  path: string,
  body: FormData | File,
  headers: Record<string, string>,
  signal: AbortSignal | undefined,
  onProgress: (share: number) => void = () => undefined,
): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest()
    const away = (): void => reject(new AwayError())
    request.open('POST', `/api/v1${path}`)
    request.timeout = LONG_MS
    for (const [name, value] of Object.entries({ Accept: 'application/json', ...headers }))
      request.setRequestHeader(name, value)
    request.upload.onprogress = ({ loaded, total }) => onProgress(total > 0 ? loaded / total : 0)
    request.onload = () => {
      const answer = parsed(request.responseText)
      if (request.status >= 200 && request.status < 300) resolve(answer)
      else if (answer === undefined) away()
      else if ((answer as Problem).code === 'prove-again')
        void proving
          .ask()
          .then((proved) =>
            proved
              ? upload(path, body, headers, signal, onProgress).then(resolve, reject)
              : reject(new ProblemError(answer as Problem)),
          )
      else reject(new ProblemError(answer as Problem))
    }
    request.onerror = away
    request.ontimeout = away
    request.onabort = away
    signal?.addEventListener('abort', () => request.abort())
    request.send(body)
  })
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text)
  } catch {
    return undefined
  }
}
