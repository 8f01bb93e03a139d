/** What decides how a request can be refused. */
export interface Refusable {
  /** Asked without a session. */
  readonly anyone: boolean
  /** Names something in its path. */
  readonly names: boolean
  /** Tells something that may be wrong. */
  readonly told: boolean
  readonly body: boolean
  readonly creates: boolean
  readonly versioned: boolean
  readonly writes: boolean
}

const RETRY = { 'Retry-After': { description: 'Seconds to wait.', schema: { type: 'integer' } } }

const problem = (description: string, headers: object = {}): object => ({
  description,
  headers: {
    'X-Request-Id': { description: 'Names the request in the log.', schema: { type: 'string', format: 'uuid' } },
    ...headers,
  },
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
})

/** Every answer that is a problem, by its status, for a request of a kind. */
export const refusalsOf = (request: Refusable): Record<number, object> => ({
  400: problem('Not readable: no JSON, a cursor that is none, or a header that is missing'),
  ...(request.anyone ? {} : { 401: problem('Not signed in'), 403: problem('Not for this role, or from elsewhere') }),
  ...(request.names ? { 404: problem('Not there') } : {}),
  ...(request.writes ? { 409: problem('In conflict with what is there') } : {}),
  ...(request.versioned ? { 412: problem('Changed meanwhile; holds the newer row') } : {}),
  ...(request.body ? { 413: problem('Too large'), 415: problem('Of a type that is not taken') } : {}),
  421: problem('Sent to a host this server does not answer for'),
  ...(request.told || request.writes ? { 422: problem('Not valid; names the fields') } : {}),
  ...(request.versioned ? { 428: problem('Wants the version the change starts from') } : {}),
  ...(request.anyone ? { 429: problem('Tried too often', RETRY) } : {}),
  500: problem('A fault of the server'),
  503: problem('The database is away', RETRY),
  ...(request.writes ? { 507: problem('No room on the disk') } : {}),
})
