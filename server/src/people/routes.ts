import { endpoints } from '@pelrin/contract'
import type { GaugeHub } from '../gauge/hub.ts'
import type { Serving } from '../http/serve.ts'
import { giveCookies } from '../sessions/openSession.ts'
import { originOf } from '../sessions/origin.ts'
import type { SignInTools } from '../sessions/proven.ts'
import { changeOwnPassword, changeOwnPin, enter, welcome } from './enter.ts'
import { addPerson, changePerson, everybody, invitePerson, personLeaves } from './service.ts'

/** @param hub whose streams end with their session */
export function peopleRoutes(serving: Serving, tools: SignInTools, hub: GaugeHub): void {
  serving.serve(endpoints.people, ({ work }) => everybody(work))
  serving.serve(endpoints.addPerson, ({ work, body }) => addPerson(work, body))
  serving.serve(endpoints.changePerson, ({ work, params, version, body }) =>
    changePerson(work, params.id, version, body),
  )
  serving.serve(endpoints.invitePerson, ({ work, params }) => invitePerson(work, params.id))
  serving.serve(endpoints.personLeaves, ({ work, params, version, body, session }) =>
    personLeaves(work, params.id, version, body.on, session.shop.timeZone),
  )
  serving.serveWaiting(endpoints.changeOwnPassword, async ({ session, body, ctx }) => {
    const { session: described, ended } = await changeOwnPassword(tools, session, body, originOf(ctx))
    for (const hash of ended) hub.endSession(hash)
    return described
  })
  serving.serveWaiting(endpoints.changeOwnPin, ({ session, body, ctx }) =>
    changeOwnPin(tools, session, body, originOf(ctx)),
  )
  serving.serveAnyone(endpoints.welcome, ({ body, ctx }) => welcome(tools, body.token, originOf(ctx)))
  serving.serveAnyone(endpoints.enter, async ({ body, ctx }) => {
    const opened = await enter(tools, body, originOf(ctx))
    for (const hash of opened.ended) hub.endSession(hash.toString('hex'))
    giveCookies(ctx, opened)
    return opened.session
  })
}
