import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { addEventDate, dropEventDate, recordCare, setCareHabit, setCareInterval, withdrawCare } from './service.ts'
import { careOf } from './store.ts'

export function careRoutes(serving: Serving): void {
  serving.serve(endpoints.bikeCare, ({ work, params }) => careOf(work, params.id))
  serving.serve(endpoints.recordCare, ({ work, params, body }) => recordCare(work, params.id, body))
  serving.serve(endpoints.withdrawCare, ({ work, params, body }) => withdrawCare(work, params.id, body))
  serving.serve(endpoints.addEventDate, ({ work, session, params, body }) =>
    addEventDate(work, session.shop.timeZone, params.id, body),
  )
  serving.serve(endpoints.dropEventDate, ({ work, params }) => dropEventDate(work, params.id))
  serving.serve(endpoints.setCareInterval, ({ work, params, version, body }) =>
    setCareInterval(work, params.id, version, body),
  )
  serving.serve(endpoints.setCareHabit, ({ work, params, version, body }) =>
    setCareHabit(work, params.id, version, body),
  )
}
