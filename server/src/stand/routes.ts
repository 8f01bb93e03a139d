import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { lineUp, moveVisit, putOnStand } from './service.ts'

export function standRoutes(serving: Serving): void {
  serving.serve(endpoints.lineUp, ({ work, session }) => lineUp(work, session.shop.timeZone, session.deviceId))
  serving.serve(endpoints.putOnStand, ({ work, session, body }) => putOnStand(work, session.shop.timeZone, body))
  serving.serve(endpoints.moveVisit, ({ work, session, params, version, body }) =>
    moveVisit(work, session.shop.timeZone, params.id, version, body),
  )
}
