import { endpoints, Role } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import type { GaugeHub } from '../gauge/hub.ts'
import type { Serving } from '../http/serve.ts'
import { accessLog } from './accessLog.ts'
import { describe } from '../sessions/describe.ts'
import { giveCookies } from '../sessions/openSession.ts'
import { originOf } from '../sessions/origin.ts'
import type { SignInTools } from '../sessions/proven.ts'
import { prove, signIn, signOut, switchPerson } from './service.ts'
import { PEOPLE, SHOPS } from './models.ts'

/** @param hub whose streams end with their session */
export function authRoutes(serving: Serving, tools: SignInTools, hub: GaugeHub): void {
  const { database } = tools

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
    const opened = await signIn(tools, body, originOf(ctx))
    for (const hash of opened.ended) hub.endSession(hash.toString('hex'))
    giveCookies(ctx, opened)
    return opened.session
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
