import { randomUUID } from 'node:crypto'
import { parse } from 'valibot'
import type * as v from 'valibot'
import { endpoints, type Endpoint, type Input, type Output, type Problem } from '@pelrin/contract'

type Schema = v.GenericSchema | undefined

/** An answer of the server as it came. */
export interface Answer<T> {
  readonly status: number
  readonly headers: Headers
  readonly body: T
  readonly problem: Problem
}

/** A device signed in at a running server. Every success is checked against the contract. */
export class Device {
  cookie = ''

  constructor(readonly base: string) {}

  async raw(method: string, path: string, headers: Record<string, string> = {}, body?: string): Promise<Response> {
    return fetch(this.base + path, {
      method,
      headers: { ...(this.cookie === '' ? {} : { cookie: this.cookie }), ...headers },
      ...(body === undefined ? {} : { body }),
    })
  }

  async ask<P extends Schema, Q extends Schema, B extends Schema, R extends Schema>(
    endpoint: Endpoint<P, Q, B, R>,
    asking: {
      params?: Record<string, string>
      query?: Record<string, string>
      body?: Input<B> | Record<string, unknown>
      key?: string
      version?: number
      headers?: Record<string, string>
    } = {},
  ): Promise<Answer<Output<R>>> {
    const path = endpoint.path.replace(/:(\w+)/g, (_, name: string) => asking.params?.[name] ?? '')
    const query = new URLSearchParams(asking.query ?? {}).toString()
    const response = await this.raw(
      endpoint.method,
      `/api/v1${path}${query === '' ? '' : `?${query}`}`,
      {
        ...(asking.body === undefined ? {} : { 'content-type': 'application/json' }),
        ...(endpoint.creates === true ? { 'idempotency-key': asking.key ?? randomUUID() } : {}),
        ...(asking.version === undefined ? {} : { 'if-match': `"${asking.version}"` }),
        ...asking.headers,
      },
      asking.body === undefined ? undefined : JSON.stringify(asking.body),
    )
    const text = await response.text()
    const body: unknown = text === '' ? undefined : JSON.parse(text)
    if (response.ok && endpoint.result) parse(endpoint.result, body)
    return { status: response.status, headers: response.headers, body: body as Output<R>, problem: body as Problem }
  }

  async signIn(
    name = 'tove',
    password = 'causeway-1',
    shop = 'saltmarsh',
  ): Promise<Answer<Output<typeof endpoints.signIn.result>>> {
    return this.kept(await this.ask(endpoints.signIn, { body: { shop, name, password } }))
  }

  /** Comes in by a one-time link. */
  async enter(body: Input<typeof endpoints.enter.body>): Promise<Answer<Output<typeof endpoints.enter.result>>> {
    return this.kept(await this.ask(endpoints.enter, { body }))
  }

  /** Shows from now on what it was given, as a browser does. */
  private kept<T>(answer: Answer<T>): Answer<T> {
    const given = answer.headers.getSetCookie().map((cookie) => cookie.split(';')[0])
    if (given.length > 0) this.cookie = given.join('; ')
    return answer
  }
}
