import Router from '@koa/router'
import * as v from 'valibot'
import { WRITING_ROLES, type Endpoint, type FieldProblem, type Output } from '@pelrin/contract'
import { problems, type ProblemCode } from '@pelrin/contract/messages'
import type { Context } from 'koa'
import type { Database } from '../db/connection.ts'
import { inShop, type Work } from '../db/work.ts'
import { currentSession, type CurrentSession } from '../auth/currentSession.ts'
import { fingerprint, once } from './idempotency.ts'
import { atField, ProblemError } from './problem.ts'
import type { RequestState } from './request.ts'

type Schema = v.GenericSchema
type Koa = Context & { state: RequestState; request: { body?: unknown } }

/** What a handler of somebody signed in gets. All it reads and writes is one transaction in the session's shop. */
export interface Asked<P, Q, B> {
  readonly params: Output<P>
  readonly query: Output<Q>
  readonly body: Output<B>
  readonly session: CurrentSession
  readonly work: Work
  /** The version named by If-Match, on versioned endpoints. */
  readonly version: number
}

/** Serves endpoints of the contract: validates by their schemas, opens the transaction, answers once per key. */
export class Serving {
  readonly router = new Router<RequestState>({ prefix: '/api/v1' })

  constructor(readonly database: Database) {}

  /** An endpoint for somebody signed in. */
  serve<
    P extends Schema | undefined,
    Q extends Schema | undefined,
    B extends Schema | undefined,
    R extends Schema | undefined,
  >(endpoint: Endpoint<P, Q, B, R>, handler: (asked: Asked<P, Q, B>) => Promise<Output<R>>): void {
    this.route(endpoint, async (ctx, given) => {
      const session = await this.allowed(endpoint, ctx)
      const version = endpoint.versioned === true ? versionOf(ctx) : 0
      const key = endpoint.creates === true ? keyOf(ctx) : null
      const author = { personId: session.person.id, deviceId: session.deviceId, requestId: ctx.state.requestId }
      return inShop(this.database, session.shop.id, author, (work) => {
        const job = (): Promise<Output<R>> => handler({ ...given, session, work, version } as Asked<P, Q, B>)
        if (key === null) return job()
        return once(work, key, fingerprint(ctx.method, ctx.path, ctx.request.body), job)
      })
    })
  }

  /**
   * An endpoint for somebody signed in whose work waits for others: it makes its own transactions, so that none is held
   * open meanwhile, and has to be safe to repeat by itself.
   */
  serveWaiting<P extends Schema | undefined, B extends Schema | undefined, R extends Schema | undefined>(
    endpoint: Endpoint<P, undefined, B, R>,
    handler: (asked: { params: Output<P>; body: Output<B>; session: CurrentSession }) => Promise<Output<R>>,
  ): void {
    this.route(endpoint, async (ctx, given) => {
      const session = await this.allowed(endpoint, ctx)
      return handler({ ...given, session } as { params: Output<P>; body: Output<B>; session: CurrentSession })
    })
  }

  /** The session of whoever asks, if they may. */
  private async allowed(endpoint: Endpoint, ctx: Koa): Promise<CurrentSession> {
    const session = await currentSession(this.database, ctx)
    if (!session) throw new ProblemError(401, 'not-signed-in')
    ctx.state.session = session
    if (endpoint.access === 'writer' && !WRITING_ROLES.includes(session.person.role))
      throw new ProblemError(403, 'may-not-write')
    if (endpoint.access === 'owner' && session.person.role !== 'owner') throw new ProblemError(403, 'only-owner')
    return session
  }

  /** An endpoint for anyone, which has to find its shop by itself. */
  serveAnyone<B extends Schema | undefined, R extends Schema | undefined>(
    endpoint: Endpoint<undefined, undefined, B, R>,
    handler: (asked: { body: Output<B>; ctx: Koa }) => Promise<Output<R>>,
  ): void {
    this.route(endpoint, (ctx, given) => handler({ body: given.body as Output<B>, ctx }))
  }

  private route(
    endpoint: Endpoint,
    answer: (ctx: Koa, given: { params: unknown; query: unknown; body: unknown }) => Promise<unknown>,
  ): void {
    this.router.register(endpoint.path, [endpoint.method], async (ctx) => {
      const koa = ctx as unknown as Koa
      const wrong: FieldProblem[] = []
      const given = {
        params: checked(endpoint.params, ctx.params, '', wrong),
        query: checked(endpoint.query, ctx.query, '', wrong),
        body: checked(endpoint.body, koa.request.body ?? {}, '', wrong),
      }
      if (wrong.length > 0) throw new ProblemError(422, 'request-invalid', { fields: wrong })
      const result = await answer(koa, given)
      if (endpoint.result === undefined) {
        ctx.status = 204
        return
      }
      ctx.status = 200
      ctx.set('Cache-Control', 'no-store')
      if (endpoint.versioned === true && typeof (result as { version?: unknown }).version === 'number')
        ctx.set('ETag', `"${(result as { version: number }).version}"`)
      ctx.body = result
    })
  }
}

function checked(schema: Schema | undefined, value: unknown, prefix: string, wrong: FieldProblem[]): unknown {
  if (schema === undefined) return undefined
  const parsed = v.safeParse(schema, value)
  if (parsed.success) return parsed.output
  for (const issue of parsed.issues) {
    const path = prefix + (v.getDotPath(issue) ?? '')
    // A missing key is reported by the library in its own words; ours are the codes of the catalogue.
    const code =
      issue.message in problems
        ? (issue.message as ProblemCode)
        : issue.received === 'undefined'
          ? 'text-missing'
          : 'field-invalid'
    wrong.push(atField(path, code))
  }
  return undefined
}

function versionOf(ctx: Koa): number {
  const match = /^(?:W\/)?"?(\d+)"?$/.exec(ctx.get('If-Match'))
  if (!match) throw new ProblemError(428, 'version-missing')
  return Number(match[1])
}

function keyOf(ctx: Koa): string {
  const key = ctx.get('Idempotency-Key')
  if (!/^[\x21-\x7e]{8,200}$/.test(key)) throw new ProblemError(400, 'idempotency-key-missing')
  return key
}
