import { endpoints } from '@pelrin/contract'
import type { Serving } from '../http/serve.ts'
import { mergeBikes, unmergeBikes } from './mergeBikes.ts'

export function twinsRoutes(serving: Serving): void {
  serving.serve(endpoints.mergeBike, ({ work, params, body }) => mergeBikes(work, params.id, body.otherId))
  serving.serve(endpoints.unmergeBike, ({ work, params, body }) => unmergeBikes(work, params.id, body.otherId))
}
