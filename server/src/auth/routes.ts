import { RateLimiterMemory, RateLimiterRes } from 'rate-limiter-flexible'
import { endpoints, Role } from '@pelrin/contract'
import { inShop } from '../db/work.ts'
import type { Serving } from '../http/serve.ts'
import { ProblemError } from '../http/problem.ts'
import { SESSION_COOKIE } from './currentSession.ts'
import { describe, signIn, signOut, switchPerson } from './service.ts'

const TRIES = 10
const WINDOW_SECONDS = 15 * 60

export function authRoutes(serving: Serving): void {
  const { database } = serving
  const tries = new RateLimiterMemory({ points: TRIES, duration: WINDOW_SECONDS })

  async function countTry(who: string): Promise<void> {
    try {
      await tries.consume(who)
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error
      const retryAfterSeconds = Math.ceil(error.msBeforeNext / 1000)
      throw new ProblemError(429, 'sign-in-too-often', {
        values: { minutes: Math.ceil(retryAfterSeconds / 60) },
        retryAfterSeconds,
      })
    }
  }

  serving.serveAnyone(endpoints.door, async () => {
    const shops = await database.models.Shop.findAll({ order: [['name', 'ASC']] })
    const demo = shops.find((shop) => shop.demo)
    const demoAccounts = demo
      ? await inShop(database, demo.id, null, async (work) => {
          const people = await work.models.Person.findAll({ where: { active: true }, transaction: work.transaction })
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
    const who = `${ctx.ip} ${body.shop} ${body.name.toLowerCase()}`
    await countTry(who)
    const { token, expiresAt, session } = await signIn(
      database,
      body,
      ctx.get('User-Agent').slice(0, 120) || 'unnamed device',
      ctx.state.requestId,
    )
    await tries.delete(who)
    ctx.cookies.set(SESSION_COOKIE, token, {
      httpOnly: true,
      sameSite: 'strict',
      secure: ctx.secure,
      expires: expiresAt,
      overwrite: true,
    })
    return session
  })

  serving.serve(endpoints.session, ({ work, session }) => describe(work, session))
  serving.serve(endpoints.switchPerson, async ({ work, session, body }) => {
    await countTry(`pin ${session.deviceId}`)
    return switchPerson(work, session, body)
  })
  serving.serve(endpoints.signOut, async ({ work, session }) => {
    await signOut(work, session)
    return undefined
  })
}
