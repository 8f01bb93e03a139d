import type * as v from 'valibot'
import type { Right } from './roles.ts'

export type Method = 'GET' | 'POST' | 'PATCH' | 'DELETE'

/** Who may call: anybody, or those who have a right. */
export type Access = 'anyone' | Right

type Schema = v.GenericSchema

/**
 * One thing the server can be asked. The server validates by it, the client is typed by it, and the OpenAPI
 * document is made from it, so that they cannot disagree.
 */
export interface Endpoint<
  Params extends Schema | undefined = Schema | undefined,
  Query extends Schema | undefined = Schema | undefined,
  Body extends Schema | undefined = Schema | undefined,
  Result extends Schema | undefined = Schema | undefined,
> {
  readonly name: string
  readonly method: Method
  /** Path below `/api/v1`, with `:name` for parameters. */
  readonly path: string
  readonly summary: string
  readonly access: Access
  readonly params: Params
  readonly query: Query
  readonly body: Body
  /** Absent: answers 204 without content. */
  readonly result: Result
  /** Creates something: takes an `Idempotency-Key`. */
  readonly creates?: boolean
  /** Changes a versioned row: takes `If-Match`, answers 412 with the newer row. */
  readonly versioned?: boolean
  /** May be said while nobody listens, and arrive after the device has changed hands: then it names who said it in `Pelrin-Person`. */
  readonly queued?: boolean
}

type Given<T> = T extends Schema ? T : undefined

/** Declares an endpoint. Parts left out are absent. */
export function endpoint<
  P extends Schema | undefined = undefined,
  Q extends Schema | undefined = undefined,
  B extends Schema | undefined = undefined,
  R extends Schema | undefined = undefined,
>(parts: {
  name: string
  method: Method
  path: string
  summary: string
  access: Access
  params?: P
  query?: Q
  body?: B
  result?: R
  creates?: boolean
  versioned?: boolean
  queued?: boolean
}): Endpoint<Given<P>, Given<Q>, Given<B>, Given<R>> {
  return { params: undefined, query: undefined, body: undefined, result: undefined, ...parts } as unknown as Endpoint<
    Given<P>,
    Given<Q>,
    Given<B>,
    Given<R>
  >
}

export type Output<S> = S extends Schema ? v.InferOutput<S> : undefined
export type Input<S> = S extends Schema ? v.InferInput<S> : undefined

/** An address that takes or gives a file or a stream instead of JSON. */
export interface FileRoute {
  readonly name: string
  readonly method: 'GET' | 'POST'
  /** Path below `/api/v1`, with `:name` for parameters. */
  readonly path: string
  readonly summary: string
  readonly access: Right
  /** Media types of what may be sent, each in a part of a form, or the body itself where it is not. */
  readonly takes?: { readonly as: 'form' | 'body'; readonly types: readonly string[] }
  /** Media type of the answer. */
  readonly gives: string
  /** What is asked for behind the path, each with what it says. */
  readonly asks?: Readonly<Record<string, string>>
  /** Takes an `Idempotency-Key`, as what creates something does. */
  readonly creates?: boolean
}
