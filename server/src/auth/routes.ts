import { endpoints, Role } from '@pelrin/contract'
import type { Context } from 'koa'
import { inShop } from '../db/work.ts'
import type { GaugeHub } from '../gauge/hub.ts'
import type { RequestState } from '../http/request.ts'
import type { Serving } from '../http/serve.ts'
import { accessLog } from './accessLog.ts'
import { DEVICE_COOKIE, SESSION_COOKIE } from '../sessions/currentSession.ts'
import { describe, prove, signIn, signOut, switchPerson, type Origin } from './service.ts'
import { WrongFrom } from './tries.ts'
import { PEOPLE, SHOPS } from './models.ts'

/** As long as browsers keep one, ms. */
const DEVICE_MS = 400 * 86_400_000

function originOf(ctx: Context & { state: RequestState }): Origin {
  return {
    address: ctx.ip,
    deviceToken: ctx.cookies.get(DEVICE_COOKIE) ?? null,
    sessionToken: ctx.cookies.get(SESSION_COOKIE) ?? null,
    deviceName: ctx.get('User-Agent').slice(0, 120) || 'unnamed device',
    requestId: ctx.state.requestId,
  }
}

/** @param hub whose streams end with their session */
export function authRoutes(serving: Serving, hub: GaugeHub): void {
  const { database } = serving
  const tools = { database, wrongFrom: new WrongFrom() }

  serving.serveAnyone(endpoints.door, async () => {
    const shops = await database.of(SHOPS).findAll({ order: [['name', 'ASC']] })
    const demo = shops.find((shop) => shop.demo)
    const demoAccounts = demo
      ? await inShop(database, demo.id, null, async (work) => {
          const people = await work.of(PEOPLE).findAll({ where: { active: true }, transaction: work.transaction })
          return people
            .filter((person) => person.demoPassword !== null)
            .sort((a, b) => Role.options.indexOf(a.role) - Role.options.indexOf(b.role))
            .map(({ name, role, signInName, demoPassword }) => ({
              name,
              role,
              signInName,
              password: demoPassword ?? '',
            }))
        })
      : []
    return { shops: shops.map(({ code, name }) => ({ code, name })), demoAccounts }
  })

  serving.serveAnyone(endpoints.signIn, async ({ body, ctx }) => {
    const { token, deviceToken, expiresAt, session, ended } = await signIn(tools, body, originOf(ctx))
    for (const hash of ended) hub.endSession(hash.toString('hex'))
    const cookie = { httpOnly: true, sameSite: 'strict', secure: ctx.secure, overwrite: true } as const
    ctx.cookies.set(SESSION_COOKIE, token, { ...cookie, expires: expiresAt })
    ctx.cookies.set(DEVICE_COOKIE, deviceToken, { ...cookie, expires: new Date(Date.now() + DEVICE_MS) })
    return session
  })

  serving.serve(endpoints.session, ({ work, session }) => describe(work, session))
  serving.serveWaiting(endpoints.switchPerson, async ({ session, body, ctx }) => {
    const described = await switchPerson(tools, session, body, originOf(ctx))
    // What the one before watched was theirs to hold.
    hub.endSession(session.tokenHash.toString('hex'))
    return described
  })
  serving.serveWaiting(endpoints.proveAgain, ({ session, body, ctx }) =>
    prove(tools, session, body.password, originOf(ctx)),
  )
  serving.serve(endpoints.signOut, async ({ work, session }) => {
    await signOut(work, session)
    work.transaction.afterCommit(() => hub.endSession(session.tokenHash.toString('hex')))
    return undefined
  })
  serving.serve(endpoints.accessLog, ({ work }) => accessLog(work))
}
