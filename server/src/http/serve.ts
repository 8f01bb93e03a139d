import Router from '@koa/router'
import * as v from 'valibot'
import {
  fieldCodes,
  may,
  type Endpoint,
  type FieldProblem,
  type Access,
  type FileRoute,
  type Output,
} from '@pelrin/contract'
import type { Context } from 'koa'
import type { Logger } from 'pino'
import type { Database } from '../db/connection.ts'
import { inShop, type Author, type Work } from '../db/work.ts'
import { currentSession, refuseUnproved, type CurrentSession } from '../sessions/currentSession.ts'
import { programSession, tokenOf } from '../sessions/programs.ts'
import { byOurClock, clockOffset } from './clock.ts'
import { fingerprint, idempotencyKey, once } from './idempotency.ts'
import { atField, ProblemError } from '../problems/problem.ts'
import type { RequestState } from './request.ts'
import type { Scratch } from '../transfers/scratch.ts'

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

/** What was sent, as far as the endpoint's schemas took it. */
interface Given {
  readonly params: unknown
  readonly query: unknown
  readonly body: unknown
}

/** What a handler of files gets. */
export interface AskedFile {
  readonly ctx: Koa
  readonly session: CurrentSession
  readonly author: Author
  readonly params: Readonly<Record<string, string>>
}

/** Serves endpoints of the contract: validates by their schemas, opens the transaction, answers once per key. */
export class Serving {
  readonly router = new Router<RequestState>({ prefix: '/api/v1' })
  /** What takes or gives files, which may be larger than any other request. */
  readonly files = new Router<RequestState>({ prefix: '/api/v1' })

  constructor(
    readonly database: Database,
    readonly scratch: Scratch,
    readonly logger: Logger,
  ) {}

  /** An endpoint for somebody signed in. */
  serve<
    P extends Schema | undefined,
    Q extends Schema | undefined,
    B extends Schema | undefined,
    R extends Schema | undefined,
  >(
    endpoint: Endpoint<P, Q, B, R>,
    handler: (asked: Asked<P, Q, B>) => Promise<Output<R>>,
    { long = false }: { readonly long?: boolean } = {},
  ): void {
    this.route(endpoint, async (ctx) => {
      const session = await this.allowed(endpoint, ctx)
      return (given) => {
        const version = endpoint.versioned === true ? versionOf(ctx) : 0
        const key = endpoint.creates === true ? idempotencyKey(ctx.get('Idempotency-Key')) : null
        return inShop(
          this.database,
          session.shop.id,
          authorOf(session, ctx),
          (work) => {
            const job = (): Promise<Output<R>> => handler({ ...given, session, work, version } as Asked<P, Q, B>)
            if (key === null) return job()
            return once(work, key, fingerprint(ctx.method, ctx.path, ctx.request.body), job)
          },
          { long },
        )
      }
    })
  }

  /**
   * An endpoint for somebody signed in whose work waits for others: it makes its own transactions, so that none is held
   * open meanwhile, and has to be safe to repeat by itself.
   */
  serveWaiting<P extends Schema | undefined, B extends Schema | undefined, R extends Schema | undefined>(
    endpoint: Endpoint<P, undefined, B, R>,
    handler: (asked: {
      params: Output<P>
      body: Output<B>
      session: CurrentSession
      author: Author
      ctx: Koa
    }) => Promise<Output<R>>,
  ): void {
    this.route(endpoint, async (ctx) => {
      const session = await this.allowed(endpoint, ctx)
      return ({ params, body }) =>
        handler({
          params: params as Output<P>,
          body: body as Output<B>,
          session,
          author: authorOf(session, ctx),
          ctx,
        })
    })
  }

  /**
   * A file or a stream for somebody signed in. The handler takes and gives it by itself, in transactions of its own, so that none is held
   * open while a client takes its time.
   */
  file(route: FileRoute, handler: (asked: AskedFile) => Promise<void>): void {
    this.files.register(route.path, [route.method], async (ctx) => {
      const koa = ctx as unknown as Koa
      const session = await this.allowed({ ...route, file: true }, koa)
      await handler({ ctx: koa, session, author: authorOf(session, koa), params: ctx.params })
    })
  }

  /** The session of whoever asks, if they may. */
  private async allowed(
    { access, method, queued, file }: { access: Access; method: string; queued?: boolean; file?: boolean },
    ctx: Koa,
  ): Promise<CurrentSession> {
    const token = tokenOf(ctx)
    const session =
      token === null
        ? await currentSession(this.database, ctx, queued === true)
        : await programSession(this.database, token)
    if (!session) throw new ProblemError(401, 'not-signed-in')
    ctx.state.session = session
    // A program has no more rights than its token, and none that are the owner's; looking is allowed to each.
    if (session.rights && access !== 'anyone' && access !== 'signed-in' && !session.rights.includes(access))
      throw new ProblemError(403, 'token-may-not')
    if (session.rights && access === 'signed-in' && method !== 'GET') throw new ProblemError(403, 'token-may-not')
    if (access === 'anyone' || may(session.person.role, access)) {
      // Looking at a list is no act; taking the shop out as a file is.
      if (method !== 'GET' || file === true) refuseUnproved(session, access)
      return session
    }
    throw new ProblemError(
      403,
      access === 'owner' ? 'only-owner' : session.person.role === 'read-only' ? 'may-not-write' : 'role-may-not',
    )
  }

  /** An endpoint for anyone, which has to find its shop by itself. */
  serveAnyone<B extends Schema | undefined, R extends Schema | undefined>(
    endpoint: Endpoint<undefined, undefined, B, R>,
    handler: (asked: { body: Output<B>; ctx: Koa }) => Promise<Output<R>>,
  ): void {
    this.route(endpoint, (ctx) => Promise.resolve(({ body }: Given) => handler({ body: body as Output<B>, ctx })))
  }

  /** @param allowed finds out who asks before anything they sent is looked at; gives what answers them */
  private route(endpoint: Endpoint, allowed: (ctx: Koa) => Promise<(given: Given) => Promise<unknown>>): void {
    this.router.register(endpoint.path, [endpoint.method], async (ctx) => {
      const koa = ctx as unknown as Koa
      const answer = await allowed(koa)
      const wrong: FieldProblem[] = []
      const given: Given = {
        params: checked(endpoint.params, ctx.params, wrong),
        query: checked(endpoint.query, ctx.query, wrong),
        body: checked(endpoint.body, koa.request.body ?? {}, wrong),
      }
      if (wrong.length > 0) throw new ProblemError(422, 'request-invalid', { fields: wrong })
      const offset = clockOffset(ctx.get('Pelrin-Clock'), Date.now())
      const result = await answer({ ...given, body: byOurClock(given.body, offset) })
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

const authorOf = ({ person, deviceId }: CurrentSession, ctx: Koa): Author => ({
  personId: person.id,
  deviceId,
  requestId: ctx.state.requestId,
})

function checked(schema: Schema | undefined, value: unknown, wrong: FieldProblem[]): unknown {
  if (schema === undefined) return undefined
  const parsed = v.safeParse(schema, value)
  if (parsed.success) return parsed.output
  for (const { path, code } of fieldCodes(parsed.issues))
    if (!wrong.some((one) => one.path === path)) wrong.push(atField(path, code))
  return undefined
}

function versionOf(ctx: Koa): number {
  const match = /^(?:W\/)?"?(\d+)"?$/.exec(ctx.get('If-Match'))
  if (!match) throw new ProblemError(428, 'version-missing')
  return Number(match[1])
}
