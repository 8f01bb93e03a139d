import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { closeStudy, enterStudyValue, planStudy, shownStudy } from './service.ts'
import { studiesOf } from './store.ts'

export function studiesRoutes(serving: Serving): void {
  serving.serve(endpoints.studies, async ({ work, params }) =>
    (await studiesOf(work, params.id)).map(({ startedAt, closedAt, ...rest }) => ({
      ...rest,
      startedAt: startedAt.toISOString(),
      closedAt: closedAt?.toISOString() ?? null,
    })),
  )
  serving.serve(endpoints.study, ({ work, params }) => shownStudy(work, params.id))
  serving.serve(endpoints.planStudy, ({ work, params, body }) => planStudy(work, params.id, body))
  serving.serve(endpoints.enterStudyValue, ({ work, params, body }) => enterStudyValue(work, params.id, body))
  serving.serve(endpoints.closeStudy, ({ work, params }) => closeStudy(work, params.id))
}
